import type { Arrival, Interaction, JourneyStep, Step, Target } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { all, type Change, type Put, setStart, type TableName } from './change.ts';

/** Says where a screen or element key went: the new key, or null when it is gone. */
export type KeyMap = (key: string) => string | null;

/** The same change after its keys moved; null when nothing of it is left. */
export function mapChange(change: Change, map: KeyMap): Change | null {
  switch (change.kind) {
    case 'start': {
      if (change.value === null) return change;
      const value = map(change.value);
      return value === null ? null : value === change.value ? change : setStart(value);
    }
    case 'put': {
      const moved = UNMAPPED.has(change.table) ? change.key : mapKey(change, map);
      if (moved === null) return null;
      const value = change.value && mapValue(change, map);
      return moved === change.key && value === change.value
        ? change
        : ({ ...change, key: moved, value } as Put);
    }
    case 'all': {
      const mapped = change.changes.map((c) => mapChange(c, map));
      if (mapped.every((c, i) => c === change.changes[i])) return change;
      const left = mapped.filter((c) => c !== null);
      return left.length ? all(left) : null;
    }
  }
}

/** Tables whose keys are names of their own, not places in the design. */
export const UNMAPPED: ReadonlySet<TableName> = new Set([
  'settings',
  'dismissed',
  'components',
  'tokens',
  'defaults',
  'refused',
  'conditions',
  'redirects',
  'layouts',
  'journeys',
  'synonyms',
]);

/** Keys of edits and of further interactions begin with an element's key. */
function mapKey(put: Put, map: KeyMap): string | null {
  if (put.table !== 'edits' && put.table !== 'interactions') return map(put.key);
  const own = elementOfInteraction(put.key);
  const element = map(own);
  return element === null ? null : element + put.key.slice(own.length);
}

/** What a change puts, with the keys in it moved. What is gone keeps its old key: it stays listed, broken, instead of vanishing. */
function mapValue(put: Put, map: KeyMap): Put['value'] {
  const to = (key: string): string => map(key) ?? key;
  switch (put.table) {
    case 'interactions':
      return mapInteraction(put.value!, to);
    case 'screens': {
      const { of, guard, overlay } = put.value!;
      return withMapped(put.value!, {
        ...(of ? { of: to(of) } : {}),
        ...(guard ? { guard: withMapped(guard, { otherwise: to(guard.otherwise) }) } : {}),
        ...(overlay
          ? {
              overlay: withMapped(overlay, {
                ...(overlay.over ? { over: listMapped(overlay.over, to) } : {}),
                ...(overlay.panel ? { panel: to(overlay.panel) } : {}),
              }),
            }
          : {}),
      });
    }
    case 'components':
      return withMapped(put.value!, { places: listMapped(put.value!.places, to) });
    case 'layouts':
      return withMapped(put.value!, { screens: listMapped(put.value!.screens, to) });
    case 'redirects':
      return withMapped(put.value!, { to: to(put.value!.to) });
    case 'journeys':
      return withMapped(put.value!, {
        start: to(put.value!.start),
        steps: listMapped(put.value!.steps, (step) => mapStep(step, to)),
      });
    case 'added': {
      const { within, after } = put.value!;
      return withMapped(put.value!, { within: to(within), ...(after ? { after: to(after) } : {}) });
    }
    case 'drawers': {
      const { opener } = put.value!;
      return opener ? withMapped(put.value!, { opener: to(opener) }) : put.value;
    }
    default:
      return put.value;
  }
}

/** The value with some of its fields replaced; itself where they are the same. */
const withMapped = <T extends object>(value: T, mapped: Partial<T>): T =>
  (Object.keys(mapped) as (keyof T)[]).every((name) => mapped[name] === value[name])
    ? value
    : { ...value, ...mapped };

function listMapped<T>(list: readonly T[], map: (one: T) => T): readonly T[] {
  const mapped = list.map(map);
  return mapped.every((one, i) => one === list[i]) ? list : mapped;
}

function mapStep(step: JourneyStep, to: (key: string) => string): JourneyStep {
  if (step.kind === 'enter') return withMapped(step, { element: to(step.element) });
  const own = elementOfInteraction(step.interaction);
  return withMapped(step, {
    interaction: to(own) + step.interaction.slice(own.length),
    to: to(step.to),
  });
}

function mapInteraction(interaction: Interaction, to: (key: string) => string): Interaction {
  return withMapped(interaction, {
    target: mapTarget(interaction.target, to),
    arrival: mapArrival(interaction.arrival, to),
    ...(interaction.before
      ? { before: listMapped(interaction.before, (step) => mapTarget(step, to) as Step) }
      : {}),
  });
}

function mapTarget(target: Target, to: (key: string) => string): Target {
  switch (target.kind) {
    case 'screen':
      return withMapped(target, { screen: to(target.screen) });
    case 'anchor':
      return withMapped(target, { screen: to(target.screen), element: to(target.element) });
    case 'back':
      return target.fallback ? withMapped(target, { fallback: to(target.fallback) }) : target;
    case 'open':
      return withMapped(target, { overlay: to(target.overlay) });
    case 'drawer':
      return withMapped(target, { element: to(target.element) });
    case 'close':
    case 'set':
    case 'file':
    case 'external':
      return target;
  }
}

function mapArrival(arrival: Arrival, to: (key: string) => string): Arrival {
  if (arrival.kind !== 'shared') return arrival;
  return withMapped(arrival, {
    pairs: listMapped(arrival.pairs, (pair) => withMapped(pair, { from: to(pair.from), to: to(pair.to) })),
  });
}
