import {
  describeSetting,
  saidText,
  sayingFor,
  settingsOffered,
  typedSetting,
} from '../variables/settings.ts';
import { isExternalAddress } from '../vocabulary/addresses.ts';
import { deedNames, type DeedPlace } from '../records/deeds.ts';
import { typedDeed } from './typed_deeds.ts';
import type { Arrival, Interaction, ListDeed, RecordDeed, Step, Target, When } from '../model/app.ts';
import { isStep } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { isOverlay, isUsed, orderedScreens, screenName } from '../model/project.ts';
import { sentenceCase } from '../model/names.ts';
import { findElement } from '../model/places.ts';
import { copiedText } from './copied_text.ts';
import { labelOf } from './pressable.ts';

/** One thing that an element can be made to lead to. */
export interface TargetChoice {
  readonly target: Target;
  /** What is done before it; not there where nobody typed that. */
  readonly before?: readonly Step[];
  readonly label: string;
  /** The route, or what kind of target it is. */
  readonly detail: string;
}

/** How well a typed text fits a name: 0 is the same, larger is worse, null not at all. */
export function matchText(name: string, typed: string): number | null {
  const [a, b] = [name.toLowerCase(), typed.trim().toLowerCase()];
  if (!b) return 3;
  if (a === b) return 0;
  if (a.startsWith(b)) return 1;
  if (a.split(/[^\p{L}\p{N}]+/u).some((word) => word.startsWith(b))) return 2;
  return a.includes(b) ? 3 : isSubsequence(b.replace(/\s/g, ''), a) ? 4 : null;
}

function isSubsequence(typed: string, name: string): boolean {
  let i = 0;
  for (const char of name) if (char === typed[i]) i++;
  return i === typed.length;
}

/** Mail and telephone, as people write them. */
const MAIL = /^[^\s@:/]+@[^\s@:/]+\.[a-z]{2,}$/i;
const TELEPHONE = /^\+?[\d][\d\s()./-]{4,}$/;

/** The address that a typed text stands for: one on the web, of mail or a telephone; null for none. */
export function addressIn(typed: string): string | null {
  const text = typed.trim();
  if (isExternalAddress(text)) return text;
  if (MAIL.test(text)) return `mailto:${text}`;
  return TELEPHONE.test(text) ? `tel:${text.replace(/[^\d+]/g, '')}` : null;
}

/**
 * What a typed text can mean as a target, best first: screens by name or route, overlays, back, closing, variables,
 * an outside address.
 * @param place where it is done, so that something can be done to the records at hand there
 */
export function targetChoices(project: Project, typed: string, place?: DeedPlace): TargetChoice[] {
  const scored: { choice: TargetChoice; score: number }[] = [];
  const offer = (choice: TargetChoice, score: number | null): void => {
    if (score !== null && Number.isFinite(score)) scored.push({ choice, score });
  };
  const { app } = project;
  const several = place && typedInOrder(project, typed, place);
  if (several) offer(several, 0);
  for (const key of orderedScreens(app)) {
    const { name, route } = app.screens[key];
    const byName = matchText(name, typed) ?? Infinity;
    if (isUsed(project, key)) {
      const byRoute = (typed.trim().startsWith('/') ? matchText(route, typed) : null) ?? Infinity;
      offer(
        { target: { kind: 'screen', screen: key }, label: name, detail: route },
        Math.min(byName, byRoute),
      );
    } else if (isOverlay(project, key))
      offer(
        { target: { kind: 'open', overlay: key }, label: name, detail: 'opens over the screen' },
        Math.min(byName, (matchText(`Open ${name}`, typed) ?? Infinity) + 0.25),
      );
  }
  const also = (target: Target, label: string, detail: string): void =>
    offer({ target, label, detail }, (matchText(label, typed) ?? Infinity) + 0.5);
  also({ kind: 'back' }, 'Back', 'to where one came from');
  if (typed.trim()) {
    also({ kind: 'close' }, 'Close', 'the overlay');
    for (const does of ['print', 'reload', 'tick'] as const)
      also(
        { kind: 'browser', does },
        BROWSER[does],
        does === 'tick' ? 'the boxes that stand with it' : 'the page',
      );
  }
  for (const { set, says } of settingsOffered(app)) also(set, says, 'from then on');
  const atHand = place && deedNames(project, place);
  const said = /^(?:say|message:?)\s+(.+)$/i.exec(typed.trim())?.[1];
  if (said) {
    const target = { kind: 'say', text: sayingFor(app, said, atHand) } as const;
    offer({ target, ...describeTarget(project, target) }, 0);
  }
  const deed = place && typedDeed(project, place, typed);
  if (deed?.problem === null) offer({ target: deed.target, ...describeTarget(project, deed.target) }, 0);
  const setting = typedSetting(app, typed, atHand);
  if (setting) offer({ target: setting, label: describeSetting(app, setting), detail: 'from then on' }, 0);
  if (typed.trim())
    for (const [collection, { name, fields }] of Object.entries(app.collections)) {
      const deeds: readonly ListDeed[] = [
        { kind: 'search' },
        { kind: 'page', to: 'next' },
        { kind: 'page', to: 'previous' },
        { kind: 'more' },
        ...fields.map(({ name: field }) => ({ kind: 'sort', field }) as const),
      ];
      for (const deed of deeds) also({ kind: 'list', collection, deed }, describeDeed(deed), name);
      also({ kind: 'record', collection, deed: { kind: 'remove' } }, 'Remove it', name);
    }
  if (typed.trim())
    for (const [part, { name }] of Object.entries(app.disclosures))
      for (const does of ['toggle', 'open', 'close'] as const)
        offer(
          { target: { kind: 'disclose', part, does }, label: name, detail: `${DOES[does]} in its place` },
          (matchText(`${DISCLOSE_WORD[does]} ${name}`, typed) ?? matchText(name, typed) ?? Infinity) +
            DISCLOSE_RANK[does],
        );
  // A file is meant by its name, typed with some care: most projects hold many pictures.
  if (typed.trim().length > 2)
    for (const { hash, file } of project.design.assets) {
      const name = file.replace(/^.*\//, '').replace(/#.*$/, '');
      const score = name ? matchText(name, typed) : null;
      if (score !== null && score < 3)
        offer(
          {
            target: { kind: 'file', asset: hash, name: name.slice(0, 200) },
            label: name,
            detail: 'saves the file',
          },
          score + 0.75,
        );
    }
  scored.sort((a, b) => a.score - b.score);
  const choices = scored.map(({ choice }) => choice);
  const href = addressIn(typed);
  if (href) choices.unshift({ target: { kind: 'external', href }, label: href, detail: addressKind(href) });
  return choices;
}

/** What is wrong with the first thing that is typed to be done to records; null where nothing is, or none is. */
export function typedProblem(project: Project, typed: string, place: DeedPlace): string | null {
  const before: Target[] = [...(place.before ?? [])];
  for (const part of inOrder(typed)) {
    const deed = typedDeed(project, { ...place, before }, part);
    if (deed?.problem) return deed.problem;
    const [choice] = targetChoices(project, part, { ...place, before });
    if (choice) before.push(choice.target);
  }
  return null;
}

const inOrder = (typed: string): string[] => typed.trim().split(/,?\s+then\s+/i);

/** Several things typed in order: `add loan, then My loans`. All but the last stay on the screen. */
function typedInOrder(project: Project, typed: string, place: DeedPlace): TargetChoice | null {
  const parts = inOrder(typed);
  if (parts.length < 2) return null;
  const choices: TargetChoice[] = [];
  for (const part of parts) {
    const before = [...(place.before ?? []), ...choices.map(({ target }) => target)];
    const [choice] = part.trim() ? targetChoices(project, part, { ...place, before }) : [];
    if (!choice) return null;
    choices.push(choice);
  }
  const before = choices.slice(0, -1).map(({ target }) => target);
  if (!before.every(isStep)) return null;
  const { target, label, detail } = choices.at(-1)!;
  return {
    target,
    before,
    label: [...choices.slice(0, -1), { label }].map((one) => one.label).join(', then '),
    detail,
  };
}

const DISCLOSE_WORD = { toggle: 'Toggle', open: 'Open', close: 'Close' } as const;
const DISCLOSE_RANK = { toggle: 0.3, open: 0.5, close: 0.7 } as const;

const addressKind = (href: string): string =>
  href.startsWith('mailto:') ? 'mail' : href.startsWith('tel:') ? 'telephone' : 'outside address';

/** A target in people's words. */
export function describeTarget(project: Project, target: Target): { label: string; detail: string } {
  const { app } = project;
  switch (target.kind) {
    case 'screen':
      return { label: screenName(project, target.screen), detail: addressOf(project, target) };
    case 'back':
      return { label: 'Back', detail: target.fallback ? `or ${screenName(project, target.fallback)}` : '' };
    case 'anchor': {
      const element = findElement(project.design, target.element);
      return {
        label: screenName(project, target.screen),
        detail: element ? `at “${labelOf(element)}”` : 'at a place that is gone',
      };
    }
    case 'open':
      return { label: screenName(project, target.overlay), detail: 'opens' };
    case 'close':
      return { label: 'Close', detail: 'the overlay' };
    case 'set':
      return { label: describeSetting(app, target), detail: '' };
    case 'say':
      return { label: `Say ${saidText(target.text)}`, detail: 'over the screen' };
    case 'list':
      return {
        label: describeDeed(target.deed),
        detail: app.collections[target.collection]?.name ?? 'a collection that is gone',
      };
    case 'record':
      return {
        label: describeRecordDeed(target.deed),
        detail: app.collections[target.collection]?.name ?? 'a collection that is gone',
      };
    case 'call':
      return {
        label: `Ask ${target.operation}`,
        detail: app.apis[target.api]?.name ?? 'an API that is gone',
      };
    case 'drawer':
      return {
        label: app.drawers[target.element]?.name ?? 'A drawer',
        detail: app.drawers[target.element] ? 'drawer' : 'is gone',
      };
    case 'disclose': {
      const name = app.disclosures[target.part]?.name;
      return name === undefined
        ? { label: 'A part', detail: 'is gone' }
        : { label: name, detail: DOES[target.does] };
    }
    case 'turn':
      return { label: `${sentenceCase(target.to)} of ${shownInTurn(app, target.among)}`, detail: 'turns' };
    case 'browser': {
      const copied = target.of && findElement(project.design, target.of);
      return {
        label:
          target.does === 'copy'
            ? `Copy “${copied ? copiedText(copied).slice(0, 40) : ''}”`
            : BROWSER[target.does],
        detail: target.does === 'tick' ? 'the boxes that stand with it' : 'the page',
      };
    }
    case 'file':
      return { label: target.name, detail: 'file' };
    case 'external':
      return { label: target.href.replace(/^(mailto|tel):/, ''), detail: addressKind(target.href) };
  }
}

const BROWSER = { print: 'Print', reload: 'Load anew', tick: 'Tick all' } as const;
const DOES = { toggle: 'opens and closes', open: 'opens', close: 'closes' } as const;

/** How many parts are shown in turn, in words. */
const shownInTurn = ({ disclosures }: Project['app'], among: string): string =>
  `${Object.values(disclosures).filter((one) => one.among === among).length} parts`;

/** What is done to records, in people's words. */
function describeRecordDeed(deed: RecordDeed): string {
  switch (deed.kind) {
    case 'add': {
      const says = Object.entries(deed.says ?? {}).map(([field, source]) => `${field} ${saidText(source)}`);
      const said = says.length ? `: ${says.join(', ')}` : '';
      return deed.form === undefined ? `Add one${said}` : `Add what is filled in${said}`;
    }
    case 'remove':
      return deed.where === undefined ? 'Remove it' : `Remove those where ${deed.where}`;
    case 'set': {
      const to = deed.says === undefined ? `“${deed.value ?? ''}”` : saidText(deed.says);
      return `${deed.field} becomes ${to}${deed.where === undefined ? '' : ` where ${deed.where}`}`;
    }
  }
}

/** What is done to a list, in people's words. */
export function describeDeed(deed: ListDeed): string {
  switch (deed.kind) {
    case 'search':
      return 'Search';
    case 'sort':
      return `Sort by ${deed.field}`;
    case 'filter':
      if (deed.value === undefined) return `Any ${deed.field}`;
      return deed.part ? `Only “${deed.value}” in ${deed.field}` : `Only ${deed.field} “${deed.value}”`;
    case 'choose':
      return `Filter by ${deed.field}`;
    case 'page':
      return typeof deed.to === 'number'
        ? `Page ${deed.to}`
        : `${deed.to.charAt(0).toUpperCase()}${deed.to.slice(1)} page`;
    case 'more':
      return 'Show more';
  }
}

/** The route of a target with what it is given. */
function addressOf({ app }: Project, target: Extract<Target, { kind: 'screen' }>): string {
  const route = app.screens[target.screen]?.route ?? '';
  const given = Object.entries(target.params ?? {}).map(
    ([name, value]) => [name, typeof value === 'string' ? value : 'of the row'] as const,
  );
  const path = given.reduce((text, [name, value]) => text.replace(`:${name}`, value || `:${name}`), route);
  const query = Object.entries(target.query ?? {}).map(([name, value]) => `${name}=${value}`);
  return path + (query.length ? `?${query.join('&')}` : '');
}

/** An arrival in people's words. */
export function describeArrival(arrival: Arrival): string {
  if (arrival.kind === 'none') return 'none';
  const from = 'from' in arrival ? ` from ${arrival.from}` : '';
  const kind = arrival.kind === 'shared' ? 'shared elements' : arrival.kind;
  return `${kind}${from} ${arrival.ms} ms`;
}

/** When an interaction is done, in people's words: `press`, `press if signed in`, `after 3 s`. */
export function describeGesture({ app }: Project, interaction: Interaction): string {
  const { on, key, side, ms, when } = interaction;
  const gesture =
    on === 'key'
      ? `key ${key ?? ''}`
      : on === 'swipe'
        ? `swipe ${side ?? 'left'}`
        : on === 'after'
          ? `after ${(ms ?? 0) / 1000} s`
          : on.replace('-', ' ');
  return when ? `${gesture} ${describeWhen(app.variables, when)}` : gesture;
}

export const describeWhen = (
  variables: Readonly<Record<string, { readonly name: string }>>,
  { condition, is }: When,
): string =>
  `if ${is ? '' : 'not '}${(variables[condition]?.name ?? 'something that is gone').toLowerCase()}`;
