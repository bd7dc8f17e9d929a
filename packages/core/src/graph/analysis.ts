import type { ScreenGraph } from './graph.ts';
import { type NumberedGraph, numbered } from './numbered.ts';
import type { Way } from './reach.ts';
import { onceFor } from '../json/once_for.ts';

/** What follows from who leads where. */
export interface GraphAnalysis {
  /** For each screen and overlay that is reached, nearest first, the last link of a shortest way to it; null for the start. */
  readonly entry: ReadonlyMap<string, Way | null>;
  /** Presses from the start to each that is reached; the start itself is at 0. */
  readonly depth: ReadonlyMap<string, number>;
  /** For each that is reached, other than the start: the last of the screens that every way to it passes through. */
  readonly gate: ReadonlyMap<string, string>;
  /**
   * Groups of screens that lead round among themselves and from which nothing leads on, back or
   * outside, each in the order of the screens. A group that the start belongs to is none, as one
   * gets everywhere from there.
   */
  readonly traps: readonly (readonly string[])[];
  /** Number of the group that each belongs to: from all of one group one gets to all others of it. */
  readonly round: ReadonlyMap<string, number>;
}

/** Analysis of a screen graph, computed once for it: linear in screens and links but for the gates, which are so in practice. */
export const analysisOf = onceFor((graph: ScreenGraph): GraphAnalysis => {
  const net = numbered(graph);
  const groups = strongComponents(net);
  return {
    ...entriesOf(graph, net),
    gate: gatesOf(graph, net),
    traps: trapsOf(graph, net, groups),
    round: new Map(groups.flatMap((group, i) => group.map((node) => [net.keys[node], i] as const))),
  };
});

/**
 * A shortest way from one screen to another, as the links to press in order; empty from a screen to
 * itself, null where there is none. Of equally short ways it is the one whose elements come first.
 */
export const shortestWay = (graph: ScreenGraph, from: string, to: string): readonly Way[] | null =>
  wayAlong(from === graph.start ? analysisOf(graph).entry : spread(graph, from, to), to);

/** For each that is reached from this one, the last link of a shortest way to it; nearest first. */
function spread(graph: ScreenGraph, from: string, until?: string): Map<string, Way | null> {
  const entry = new Map<string, Way | null>([[from, null]]);
  const queue = [from];
  for (let i = 0; i < queue.length && !(until && entry.has(until)); i++) {
    for (const way of graph.ways.get(queue[i]) ?? []) {
      if (entry.has(way.to)) continue;
      entry.set(way.to, way);
      queue.push(way.to);
    }
  }
  return entry;
}

/** As `spread` from the start, or from where the start's guard leads; with the number of presses. */
function entriesOf(
  { start, reached }: ScreenGraph,
  net: NumberedGraph,
): Pick<GraphAnalysis, 'entry' | 'depth'> {
  const entry = new Map<string, Way | null>();
  const depth = new Map<string, number>();
  // A start that its guard never lets in is entered through the screen that is shown instead.
  const first = !start || reached.has(start) ? start : reached.values().next().value;
  if (!first) return { entry, depth };
  entry.set(first, null);
  depth.set(first, 0);
  const presses = new Int32Array(net.keys.length).fill(-1);
  const queue = [net.indexOf(first)];
  presses[queue[0]] = 0;
  for (let i = 0; i < queue.length; i++) {
    const from = queue[i];
    for (let e = net.offsets[from]; e < net.offsets[from + 1]; e++) {
      const to = net.targets[e];
      if (presses[to] >= 0) continue;
      presses[to] = presses[from] + 1;
      entry.set(net.keys[to], net.wayAt(from, e));
      depth.set(net.keys[to], presses[to]);
      queue.push(to);
    }
  }
  return { entry, depth };
}

function wayAlong(entry: ReadonlyMap<string, Way | null>, to: string): Way[] | null {
  if (!entry.has(to)) return null;
  const way: Way[] = [];
  for (let link = entry.get(to); link; link = entry.get(link.from)) way.push(link);
  return way.reverse();
}

/** The screens that every way from the start to this one passes through, from the start on; without the screen itself. */
export function gatesTo(graph: ScreenGraph, screen: string): readonly string[] {
  const { gate } = analysisOf(graph);
  const gates: string[] = [];
  for (let at = gate.get(screen); at !== undefined; at = gate.get(at)) gates.push(at);
  return gates.reverse();
}

/** Immediate dominators, after Cooper, Harvey and Kennedy, "A Simple, Fast Dominance Algorithm" (2001). */
function gatesOf({ start, reached }: ScreenGraph, net: NumberedGraph): Map<string, string> {
  if (!start || !reached.has(start)) return new Map();
  const order = finishingOrder(net.indexOf(start), net);
  const rank = new Int32Array(net.keys.length).fill(-1);
  order.forEach((node, i) => (rank[node] = i));
  const { offsets, targets } = net;
  // Who leads to each, by rank, as one list with offsets.
  const starts = new Int32Array(order.length + 1);
  for (const node of order)
    for (let e = offsets[node]; e < offsets[node + 1]; e++) starts[rank[targets[e]] + 1]++;
  for (let i = 0; i < order.length; i++) starts[i + 1] += starts[i];
  const before = new Int32Array(starts[order.length]);
  const next = starts.slice();
  order.forEach((node, i) => {
    for (let e = offsets[node]; e < offsets[node + 1]; e++) before[next[rank[targets[e]]]++] = i;
  });
  const root = order.length - 1;
  const above = new Int32Array(order.length).fill(-1);
  above[root] = root;
  const meet = (first: number, second: number): number => {
    let [a, b] = [first, second];
    while (a !== b) {
      while (a < b) a = above[a];
      while (b < a) b = above[b];
    }
    return a;
  };
  for (let isChanged = true; isChanged;) {
    isChanged = false;
    for (let i = root - 1; i >= 0; i--) {
      let gate = -1;
      for (let e = starts[i]; e < starts[i + 1]; e++) {
        const from = before[e];
        if (above[from] === -1) continue;
        gate = gate === -1 ? from : meet(from, gate);
      }
      if (above[i] !== gate) {
        above[i] = gate;
        isChanged = true;
      }
    }
  }
  return new Map(order.slice(0, -1).map((node, i) => [net.keys[node], net.keys[order[above[i]]]] as const));
}

/** What is reached from a screen, each after all that was first reached through it. */
function finishingOrder(start: number, { offsets, targets, keys }: NumberedGraph): number[] {
  const seen = new Uint8Array(keys.length);
  const at = offsets.slice();
  const order: number[] = [];
  const path = [start];
  seen[start] = 1;
  while (path.length) {
    const node = path[path.length - 1];
    if (at[node] === offsets[node + 1]) {
      order.push(node);
      path.pop();
      continue;
    }
    const to = targets[at[node]++];
    if (seen[to]) continue;
    seen[to] = 1;
    path.push(to);
  }
  return order;
}

function trapsOf(graph: ScreenGraph, net: NumberedGraph, groups: readonly (readonly number[])[]): string[][] {
  const isScreen = new Set(graph.screens);
  const start = graph.start === null ? -1 : net.indexOf(graph.start);
  return groups
    .filter((group) => {
      if (group.length < 2 || group.includes(start)) return false;
      const inside = new Set(group);
      return group.every((node) => !net.leadsOut(node) && net.targetsOf(node).every((to) => inside.has(to)));
    })
    .map((group) => [...group].sort((a, b) => a - b).map((node) => net.keys[node]))
    .map((group) => group.filter((key) => isScreen.has(key)))
    .filter((group) => group.length > 1)
    .sort(([a], [b]) => net.indexOf(a) - net.indexOf(b));
}

/** Strongly connected components, after Tarjan, "Depth-first search and linear graph algorithms" (1972). */
function strongComponents({ keys, closing }: NumberedGraph): number[][] {
  const { offsets, targets } = closing;
  const number = new Int32Array(keys.length).fill(-1);
  const low = new Int32Array(keys.length);
  const isStacked = new Uint8Array(keys.length);
  const at = offsets.slice();
  const stack: number[] = [];
  const groups: number[][] = [];
  let count = 0;
  const enter = (node: number): number => {
    low[node] = number[node] = count++;
    stack.push(node);
    isStacked[node] = 1;
    return node;
  };
  for (let root = 0; root < keys.length; root++) {
    if (number[root] >= 0) continue;
    const path = [enter(root)];
    while (path.length) {
      const node = path[path.length - 1];
      if (at[node] < offsets[node + 1]) {
        const to = targets[at[node]++];
        if (number[to] < 0) path.push(enter(to));
        else if (isStacked[to]) low[node] = Math.min(low[node], number[to]);
        continue;
      }
      path.pop();
      if (path.length) low[path[path.length - 1]] = Math.min(low[path[path.length - 1]], low[node]);
      if (low[node] !== number[node]) continue;
      const group = stack.splice(stack.lastIndexOf(node));
      for (const member of group) isStacked[member] = 0;
      groups.push(group);
    }
  }
  return groups;
}
