import { type GraphLink, isDeadEnd, type ScreenGraph } from './graph.ts';
import { goalsOf, numberingOf } from './numbering.ts';
import type { Way } from './reach.ts';

/** Lists of neighbours in one array: those of node `i` are from `offsets[i]` up to `offsets[i + 1]`. */
interface Neighbours {
  readonly offsets: Int32Array;
  readonly targets: Int32Array;
}

/** The ways of a screen graph in numbers, for analysis: screens in their order, then overlays. */
export interface NumberedGraph extends Neighbours {
  readonly keys: readonly string[];
  readonly indexOf: (key: string) => number;
  /** The way that a place in `targets` stands for. */
  readonly wayAt: (from: number, edge: number) => Way;
  /** The same with a line from each overlay to what opens it, as it is closed again. */
  readonly closing: Neighbours;
  readonly targetsOf: (node: number) => readonly number[];
  /** Whether something leads out of the screens at all: outside or back, or on past a guard. */
  readonly leadsOut: (node: number) => boolean;
}

export function numbered(graph: ScreenGraph): NumberedGraph {
  const numbering = numberingOf(graph.screens, graph.overlays);
  const { keys, index } = numbering;
  const offsets = new Int32Array(keys.length + 1);
  const targets: number[] = [];
  const places: number[] = [];
  const seen = new Int32Array(keys.length).fill(-1);
  for (const [i, key] of keys.entries()) {
    const goals = goalsOf(graph.ways.get(key)!, numbering);
    for (let w = 0; w < goals.length; w++) {
      const to = goals[w];
      if (to < 0 || to === i || seen[to] === i) continue;
      seen[to] = i;
      targets.push(to);
      places.push(w);
    }
    offsets[i + 1] = targets.length;
  }
  const own = { offsets, targets: Int32Array.from(targets) };
  const closing = graph.overlays.length ? withClosing(own, graph.screens.length) : own;
  return {
    ...own,
    keys,
    indexOf: (key) => index.get(key)!,
    wayAt: (from, edge) => graph.ways.get(keys[from])![places[edge]],
    closing,
    targetsOf: (node) => [...closing.targets.subarray(closing.offsets[node], closing.offsets[node + 1])],
    leadsOut: (node) => leavesApp(graph.departures.get(keys[node])!),
  };
}

/** Whether some link leads back or outside. */
const leavesApp = (links: readonly GraphLink[]): boolean =>
  !isDeadEnd(
    links.filter((link) => !link.to),
    '',
  );

function withClosing({ offsets, targets }: Neighbours, screens: number): Neighbours {
  const count = offsets.length - 1;
  const lists: number[][] = Array.from({ length: count }, (_, i) => [
    ...targets.subarray(offsets[i], offsets[i + 1]),
  ]);
  for (let from = 0; from < count; from++)
    for (let e = offsets[from]; e < offsets[from + 1]; e++)
      if (targets[e] >= screens && from !== targets[e]) lists[targets[e]].push(from);
  const made = new Int32Array(count + 1);
  lists.forEach((list, i) => (made[i + 1] = made[i] + list.length));
  return { offsets: made, targets: Int32Array.from(lists.flat()) };
}
