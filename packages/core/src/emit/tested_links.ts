import { type Expression, variablesOf } from '../expression/expression.ts';
import { valueOf } from '../expression/value_of.ts';
import {
  type EmittedAct,
  type EmittedStep,
  isCounted,
  isElement,
  isText,
  type MarkupElement,
  type MarkupNode,
} from './form/markup.ts';
import { fillRoute, parametersOf } from '../paths/pattern.ts';

/** A press as the emitted test does it: of what has this role and name, as a person looks for it. */
export interface TestedLink {
  readonly from: string;
  readonly role: string;
  /** Its accessible name, or how that begins. */
  readonly name: string;
  /** Which of several of that role and name, from 0; not there for the first. */
  readonly at?: number;
  readonly kind: 'go' | 'back' | 'external' | 'file' | 'drawer' | 'open';
  /** Address, id or, of `open`, the overlay's name. */
  readonly to: string;
  /** Variables that must hold for it. */
  readonly given?: Readonly<Record<string, boolean>>;
}

/** What the test presses on a screen: what leads somewhere by pressing, under whatever condition. */
export function testedLinksIn(root: MarkupElement): Omit<TestedLink, 'from'>[] {
  const links: Omit<TestedLink, 'from'>[] = [];
  /** Roles and whole names, without spaces, of what came before. */
  const seen: { readonly role: string; readonly whole: string }[] = [];
  const visit = (node: MarkupElement): void => {
    if (isCounted(node)) {
      const role = roleOf(node);
      const whole = fullName(node);
      const name = whole.slice(0, LONGEST_NAME).trim();
      const before = seen.filter((other) => isTaken(other, role, plain(name))).length;
      seen.push({ role, whole: plain(whole) });
      const pressed = { role, name, ...(before ? { at: before } : {}) };
      const { link } = node;
      // What opens in its place leads nowhere.
      if (link && link.kind !== 'disclose') links.push({ ...pressed, kind: link.kind, to: whereTo(link) });
      const act = node.acts?.find(({ on }) => on === 'press');
      for (const way of act ? waysOf(act) : []) links.push({ ...pressed, ...way });
    }
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  return links;
}

/** A name is told by so many letters. */
const LONGEST_NAME = 60;

const roleOf = ({ tag, form, attributes }: MarkupElement): string =>
  form === 'other' ? 'link' : String(attributes.role ?? (tag === 'button' ? 'button' : 'link'));

/** What an element is called: as it says itself, else its text and what its pictures say. */
function fullName({ attributes, children }: MarkupElement): string {
  if (typeof attributes['aria-label'] === 'string') return attributes['aria-label'];
  const textOf = (node: MarkupNode): string =>
    isText(node)
      ? node.text
      : !isElement(node)
        ? ''
        : node.tag === 'img'
          ? String(node.attributes.alt ?? '')
          : node.children.map(textOf).join(' ');
  return children.map(textOf).join(' ').replace(/\s+/g, ' ').trim();
}

const plain = (text: string): string => text.replace(/\s+/g, '');

/** Whether the test takes something of this role and whole name for what it looks for. */
const isTaken = (
  other: { readonly role: string; readonly whole: string },
  role: string,
  name: string,
): boolean => other.role === role && (name ? other.whole.startsWith(name) : other.whole === '');

type Goal = Pick<TestedLink, 'kind' | 'to' | 'given'>;

/** More variables than this in one act are not gone through. */
const MOST_CONDITIONS = 8;

/** The ways of an act that lead somewhere, each with what must hold so that it is the one that is done. */
function waysOf({ ways }: EmittedAct): Goal[] {
  const goals: Goal[] = [];
  const before: Expression[] = [];
  for (const { when, steps } of ways) {
    const given = settingWhere(before, when);
    const last = steps.at(-1)!;
    if (given && (last.kind === 'go' || last.kind === 'back' || last.kind === 'open'))
      goals.push({
        kind: last.kind,
        to: whereTo(last),
        ...(Object.keys(given).length ? { given } : {}),
      });
    if (!when) break;
    before.push(when);
  }
  return goals;
}

/** What variables are where none of these hold and then one does; null where that cannot be. */
function settingWhere(
  none: readonly Expression[],
  one: Expression | undefined,
): Readonly<Record<string, boolean>> | null {
  const all = one ? [...none, one] : none;
  const names = [...new Set(all.flatMap((expression) => [...variablesOf(expression)]))];
  if (names.length > MOST_CONDITIONS) return null;
  for (let bits = 0; bits < 2 ** names.length; bits++) {
    const variables = Object.fromEntries(names.map((name, i) => [name, (bits & (1 << i)) > 0]));
    const holds = (expression: Expression): boolean => !!valueOf(expression, { variables });
    if (!none.some(holds) && (!one || holds(one))) return variables;
  }
  return null;
}

function whereTo(step: EmittedStep): string {
  switch (step.kind) {
    case 'go':
      return step.to;
    case 'back':
      return step.fallback;
    case 'external':
      return step.href;
    case 'file':
      return step.name;
    case 'drawer':
      return `#${step.id}`;
    case 'open':
      return step.overlay;
    case 'close':
    case 'set':
    case 'say':
    case 'browser':
    case 'disclose':
    case 'turn':
    case 'list':
    case 'record':
    case 'call':
      return '';
  }
}

/** Fills what addresses leave open from the one that the screen is tested at. */
export function settledLink(
  link: Omit<TestedLink, 'from'>,
  from: string,
  route: string,
  params: Readonly<Record<string, string>>,
): TestedLink {
  const isAddress = link.kind === 'go' || link.kind === 'back';
  const to = isAddress
    ? parametersOf(route).reduce(
        (text, name) => (params[name] ? text.replace(`:${name}`, encodeURIComponent(params[name])) : text),
        link.to,
      )
    : link.to;
  // A place of the own page is written without its address.
  return { from, ...link, to: isAddress && to.startsWith('#') ? from + to : to };
}

/**
 * Links without those that are pressed already: what most screens of a layout have is around them, and is pressed on the first
 * of them.
 * @param layouts the addresses of the screens of each
 */
export function pressedOnce(
  links: readonly TestedLink[],
  layouts: readonly (readonly string[])[],
): readonly TestedLink[] {
  const around = new Map(layouts.flatMap((addresses) => addresses.map((from) => [from, addresses] as const)));
  const signOf = ({ from: _from, ...link }: TestedLink, layout: readonly string[]): string =>
    JSON.stringify([layout[0], link]);
  const counts = new Map<string, Set<string>>();
  for (const link of links) {
    const layout = around.get(link.from);
    if (!layout) continue;
    const sign = signOf(link, layout);
    counts.set(sign, (counts.get(sign) ?? new Set()).add(link.from));
  }
  return links.filter((link) => {
    const layout = around.get(link.from);
    if (!layout) return true;
    const [first, ...others] = counts.get(signOf(link, layout))!;
    return first === link.from || (others.length + 1) * 2 <= layout.length;
  });
}

export const testedAddress = (route: string, params: Readonly<Record<string, string>> = {}): string =>
  fillRoute(route, { '*': 'no/such/place', ...params }).replace(/:(\w+)/g, '$1');

export const linksJson = (links: readonly TestedLink[]): string => `${JSON.stringify(links, null, 2)}\n`;
