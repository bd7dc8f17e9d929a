import type { ScreenGraph } from '../graph/graph.ts';
import type { Interaction } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { overlayOf } from '../model/project.ts';
import { containersOf } from '../model/places.ts';

/**
 * What an app can be in and what leads from one to the other, as plain numbers, so that it can be explored elsewhere. A bit
 * stands for each condition that anything depends on, and for each collection that can become empty.
 */
export interface StatePlan {
  /** Keys of the screens, then of the overlays. */
  readonly nodes: readonly string[];
  /** From this number on nodes are overlays. */
  readonly screens: number;
  /** Number of the screen that the app opens with; -1 for none. */
  readonly start: number;
  /** What each bit stands for, by the id of the condition or the collection. */
  readonly bits: readonly { readonly kind: 'condition' | 'empty'; readonly id: string }[];
  /** The bits that are set at first. */
  readonly initial: number;
  readonly guards: readonly (PlannedGuard | null)[];
  readonly overlays: readonly PlannedOverlay[];
  /** By the number of the node that they are on. */
  readonly links: readonly (readonly PlannedLink[])[];
  readonly rules: readonly PlannedRule[];
}

export interface PlannedGuard {
  readonly mask: number;
  readonly is: number;
  readonly otherwise: number;
}

export interface PlannedOverlay {
  /** Whether it goes by itself, by Escape or by a press outside. */
  readonly closes: boolean;
  /** Whether what lies beneath cannot be used. */
  readonly modal: boolean;
}

export interface PlannedLink {
  /** Where the interaction is kept. */
  readonly key: string;
  /** The bits that have to be so for it to be there and done. */
  readonly mask: number;
  readonly is: number;
  /** The bits that it clears, and then sets. */
  readonly clears: number;
  readonly sets: number;
  /** Bits that may or may not be set by it: a collection of which one record goes may be empty then. */
  readonly maySet: number;
  /** The overlay that it opens, 0 for none, -1 where it closes the uppermost. Nodes from 1 on. */
  readonly opens: number;
  /** The screen that it leads to; -1 for none, -2 for the one before. */
  readonly to: number;
}

/** Something that must hold, by its id. */
export interface PlannedRule {
  readonly id: string;
  readonly screen: number;
  /** Nobody is there unless these bits are so. */
  readonly mask: number;
  readonly is: number;
  /** Nobody gets there without having been here; -1 where it is about bits. */
  readonly gate: number;
}

/** Bits beyond these are left out, those of guards last. */
export const MOST_BITS = 14;

/** @param project with all edits; @param graph of it */
export function statePlan(project: Project, graph: ScreenGraph): StatePlan {
  const { app } = project;
  const nodes = [...graph.screens, ...graph.overlays];
  const numbers = new Map(nodes.map((key, i) => [key, i]));
  const numberOf = (key: string | undefined): number => (key === undefined ? -1 : (numbers.get(key) ?? -1));
  const links = [...graph.departures.values()].flat().filter(({ problem }) => !problem);
  const bits = bitsOf(
    project,
    graph,
    links.map(({ interaction }) => interaction),
  );
  const bitOf = new Map(bits.map(({ kind, id }, i) => [`${kind} ${id}`, 1 << i]));
  const condition = (id: string): number => bitOf.get(`condition ${id}`) ?? 0;
  const rowsOf = rowsByElement(project, bits);
  return {
    nodes,
    screens: graph.screens.length,
    start: numberOf(graph.start ?? undefined),
    bits,
    initial: bits.reduce(
      (sum, { kind, id }, i) => sum | (kind === 'condition' && app.variables[id]?.initial ? 1 << i : 0),
      0,
    ),
    guards: nodes.map((key): PlannedGuard | null => {
      const guard = app.screens[key]?.guard;
      const mask = guard ? condition(guard.condition) : 0;
      const otherwise = numberOf(guard?.otherwise);
      return guard && mask && otherwise >= 0 ? { mask, is: guard.is ? mask : 0, otherwise } : null;
    }),
    overlays: graph.overlays.map((key): PlannedOverlay => {
      const { escape, outside, ms, kind, modal } = overlayOf(app.screens[key]);
      return { closes: escape || outside || (kind === 'toast' && ms !== undefined), modal };
    }),
    links: nodes.map((key) =>
      graph.departures
        .get(key)!
        .filter(({ problem }) => !problem)
        .map(({ key: at, element, interaction }) => {
          const { when } = interaction;
          const needed = when ? condition(when.condition) : 0;
          const empty = rowsOf(element);
          return {
            key: at,
            mask: needed | empty,
            is: when?.is ? needed : 0,
            ...effectOf(interaction, condition, (id) => bitOf.get(`empty ${id}`) ?? 0, numberOf),
          };
        }),
    ),
    rules: Object.entries(app.mustHold).flatMap(([id, rule]): PlannedRule[] => {
      const screen = numberOf(rule.screen);
      const gate = rule.kind === 'through' ? numberOf(rule.gate) : -1;
      const mask = rule.kind === 'unless' ? condition(rule.condition) : 0;
      if (screen < 0 || (rule.kind === 'through' ? gate < 0 : !mask)) return [];
      return [{ id, screen, gate, mask, is: rule.kind === 'unless' && rule.is ? mask : 0 }];
    }),
  };
}

/** The variables and collections that anything depends on; of too many those that guards and rules look at go first. */
function bitsOf(
  { app }: Project,
  graph: ScreenGraph,
  interactions: readonly Interaction[],
): StatePlan['bits'] {
  const asked = new Map<string, number>();
  const note = (id: string, weight: number): void => {
    if (isBit(app, id)) asked.set(id, (asked.get(id) ?? 0) + weight);
  };
  for (const key of graph.screens) {
    const guard = app.screens[key].guard;
    if (guard) note(guard.condition, 1000);
  }
  for (const rule of Object.values(app.mustHold)) if (rule.kind === 'unless') note(rule.condition, 1000);
  for (const { when } of interactions) if (when) note(when.condition, 1);
  const shrinking = new Set(
    interactions.flatMap(({ before = [], target }) =>
      [...before, target].flatMap((step) =>
        step.kind === 'record' && step.deed.kind === 'remove' ? [step.collection] : [],
      ),
    ),
  );
  return [
    ...[...asked]
      .sort(([a, first], [b, second]) => second - first || (a < b ? -1 : 1))
      .map(([id]) => ({ kind: 'condition' as const, id })),
    ...[...shrinking].sort().map((id) => ({ kind: 'empty' as const, id })),
  ].slice(0, MOST_BITS);
}

/** Whether something is true or not by being set so, and not by what something else is. */
const isBit = ({ variables }: Project['app'], id: string): boolean =>
  Object.hasOwn(variables, id) &&
  (variables[id].type ?? 'yes-no') === 'yes-no' &&
  variables[id].says === undefined;

/** The bit of the collection whose row an element stands in, where that can become empty. */
function rowsByElement({ app, design }: Project, bits: StatePlan['bits']): (element: string) => number {
  const rows = new Map<string, number>();
  bits.forEach(({ kind, id }, i) => {
    if (kind === 'empty')
      for (const { element } of app.collections[id]?.rows ?? []) rows.set(element, 1 << i);
  });
  if (!rows.size) return () => 0;
  return (element) => {
    for (const key of [element, ...containersOf(design, element)]) {
      const bit = rows.get(key);
      if (bit !== undefined) return bit;
    }
    return 0;
  };
}

function effectOf(
  { before = [], target }: Interaction,
  condition: (id: string) => number,
  empty: (id: string) => number,
  numberOf: (key: string | undefined) => number,
): Omit<PlannedLink, 'key' | 'mask' | 'is'> {
  let [clears, sets, maySet, opens, to] = [0, 0, 0, 0, -1];
  for (const step of [...before, target])
    switch (step.kind) {
      case 'set': {
        const bit = condition(step.condition);
        clears |= bit;
        sets = step.value === true ? sets | bit : sets & ~bit;
        // What an expression gives is not looked at.
        maySet = typeof step.value === 'boolean' ? maySet & ~bit : maySet | bit;
        break;
      }
      case 'record': {
        const bit = empty(step.collection);
        if (step.deed.kind === 'remove') maySet |= bit;
        if (step.deed.kind === 'add') clears |= bit;
        break;
      }
      case 'open':
        opens = numberOf(step.overlay) + 1;
        break;
      case 'close':
        opens = -1;
        break;
      case 'screen':
      case 'anchor':
        to = numberOf(step.screen);
        break;
      case 'back':
        to = -2;
        break;
      default:
    }
  return { clears, sets, maySet, opens, to };
}
