import type { Expression } from '../../expression/expression.ts';
import type { Arrival, Interaction, Target } from '../../model/app.ts';
import { kebabCase } from '../../model/names.ts';
import { type emittedSetting, togetherSaid } from './live/deeds.ts';
import type { CallStep, RecordStep } from './live/controls.ts';
import type { ListingName } from './live/live.ts';
import type { DisclosureChoice, EmittedAct, EmittedArrival, EmittedLink, EmittedStep } from './markup.ts';

/** What an element does, as it is written: a plain link where that is all, else what happens on each gesture. */
export interface EmittedWiring {
  readonly link?: EmittedLink;
  readonly acts?: readonly EmittedAct[];
}

export type CallTarget = Extract<Target, { readonly kind: 'call' }>;

/** The names that an emitted app has for what interactions speak of. */
export interface EmittedNames {
  /** The address of a target, with its parameters and query; null for a screen that is not in the app. */
  readonly addressOf: (target: Extract<Target, { readonly kind: 'screen' | 'anchor' }>) => string | null;
  /** The address to go back to where there is no history. */
  readonly fallbackOf: (screen: string | undefined) => string;
  readonly overlayOf: (screen: string) => string | null;
  readonly conditionOf: (condition: string) => string | null;
  /** What the step at this place sets a variable to, or says; null where it cannot. */
  readonly settingOf: (steps: readonly Target[], at: number) => ReturnType<typeof emittedSetting>;
  /** The list of the screen that shows records of a collection. */
  readonly listingOf: (collection: string) => ListingName | null;
  readonly callOf: (target: CallTarget) => CallStep | null;
  /** What the step at this place does to records. */
  readonly deedOf: (steps: readonly Target[], at: number) => RecordStep | null;
  /** The id of a part that is opened and closed, and those of which it is one; null for one that is gone. */
  readonly partOf: (
    part: string,
  ) => { readonly id: string; readonly isOpen?: boolean; readonly choice?: DisclosureChoice } | null;
  /** What is copied of an element; null for one that is gone. */
  readonly textOf: (element: string | undefined) => string | null;
  /** What the element that does it is called where it ticks boxes. */
  readonly tickName: () => string;
  /** Whether what its screen shows comes over the network. */
  readonly isAnswered: () => boolean;
  readonly choiceOf: (among: string) => DisclosureChoice | null;
  /** The name under which an element of the one screen is known as one of the other. */
  readonly sharedOf: (to: string) => string | null;
}

/** The id of the drawer that a part of a screen becomes. */
export const drawerId = (elementKey: string): string => `drawer-${kebabCase(elementKey)}`;

/** How the interactions of one element are written, in the order in which their variables are looked at. */
export function emittedWiring(interactions: readonly Interaction[], names: EmittedNames): EmittedWiring {
  const acts = new Map<string, { act: Omit<EmittedAct, 'ways'>; ways: EmittedAct['ways'][number][] }>();
  let link: EmittedLink | undefined;
  const presses = interactions.filter(({ on }) => on === 'press');
  for (const interaction of interactions) {
    const { on, key, side, ms, when, before = [] } = interaction;
    const all = [...before, interaction.target];
    const steps = all.map((target, i) =>
      target.kind === 'record'
        ? names.deedOf(all, i)
        : target.kind === 'set' || target.kind === 'say'
          ? setStep(target, names.settingOf(all, i), names)
          : stepOf(target, interaction.arrival, names),
    );
    if (!steps.every((step) => step !== null)) continue;
    const [only] = steps;
    if (on === 'press' && presses.length === 1 && !when && steps.length === 1 && isLink(only)) {
      link = only;
      continue;
    }
    const done = togetherSaid(steps);
    const condition = when && names.conditionOf(when.condition);
    if (when && !condition) continue;
    const act = {
      on,
      ...(key === undefined ? {} : { key }),
      ...(side === undefined ? {} : { side }),
      ...(ms === undefined ? {} : { ms }),
    };
    const id = JSON.stringify(act);
    const known = acts.get(id) ?? { act, ways: [] };
    known.ways.push({ ...(condition ? { when: isSet(condition, when!.is) } : {}), steps: done });
    acts.set(id, known);
  }
  return {
    ...(link ? { link } : {}),
    ...(acts.size ? { acts: [...acts.values()].map(({ act, ways }) => ({ ...act, ways })) } : {}),
  };
}

const isSet = (condition: string, is: boolean): Expression => {
  const variable: Expression = { kind: 'variable', name: condition };
  return is ? variable : { kind: 'not', of: variable };
};

const LINKS: ReadonlySet<string> = new Set(['go', 'back', 'external', 'file', 'drawer', 'disclose']);
const isLink = (step: EmittedStep): step is EmittedLink => LINKS.has(step.kind);

/** Sets a variable, or says something. */
function setStep(
  target: Extract<Target, { readonly kind: 'set' | 'say' }>,
  setting: ReturnType<EmittedNames['settingOf']>,
  names: EmittedNames,
): EmittedStep | null {
  if (!setting) return null;
  const { problem: _none, ...made } = setting;
  if (target.kind === 'say') return { kind: 'say', ...made };
  const condition = names.conditionOf(target.condition);
  return condition === null ? null : { kind: 'set', condition, ...made };
}

function stepOf(
  target: Exclude<Target, { readonly kind: 'record' | 'set' | 'say' }>,
  arrival: Arrival,
  names: EmittedNames,
): EmittedStep | null {
  switch (target.kind) {
    case 'screen':
    case 'anchor': {
      const to = names.addressOf(target);
      return to === null ? null : { kind: 'go', to, arrival: arrivalOf(arrival, names) };
    }
    case 'back':
      return {
        kind: 'back',
        fallback: names.fallbackOf(target.fallback),
        arrival: arrivalOf(arrival, names),
      };
    case 'open': {
      const overlay = names.overlayOf(target.overlay);
      return overlay === null ? null : { kind: 'open', overlay, arrival: arrivalOf(arrival, names) };
    }
    case 'close':
      return { kind: 'close' };
    case 'list': {
      const listing = names.listingOf(target.collection);
      return listing && { kind: 'list', listing, deed: target.deed };
    }
    case 'call':
      return names.callOf(target);
    case 'disclose': {
      const part = names.partOf(target.part);
      return part && { kind: 'disclose', ...part, does: target.does };
    }
    case 'turn': {
      const of = names.choiceOf(target.among);
      return of && { kind: 'turn', choice: of, by: target.to === 'next' ? 1 : -1 };
    }
    case 'browser': {
      if (target.does === 'tick') return { kind: 'browser', does: 'tick', name: names.tickName() };
      if (target.does === 'reload')
        return { kind: 'browser', does: names.isAnswered() ? 'refetch' : 'reload' };
      if (target.does !== 'copy') return { kind: 'browser', does: target.does };
      const text = names.textOf(target.of);
      return text === null ? null : { kind: 'browser', does: 'copy', text };
    }
    case 'file':
      return { kind: 'file', asset: target.asset, name: target.name };
    case 'drawer':
      return { kind: 'drawer', id: drawerId(target.element) };
    case 'external':
      return { kind: 'external', href: target.href };
  }
}

function arrivalOf(arrival: Arrival, names: EmittedNames): EmittedArrival {
  if (arrival.kind !== 'shared') return arrival;
  const { pairs, ...rest } = arrival;
  const known = pairs.map((pair) => names.sharedOf(pair.to)).filter((name) => name !== null);
  return { ...rest, names: [...new Set(known)] };
}
