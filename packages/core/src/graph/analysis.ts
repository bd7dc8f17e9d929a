import type { GraphLink, ScreenGraph } from './graph.ts';

/** What follows from who leads where. */
export interface GraphAnalysis {
  /** For each screen that is reached, nearest first, the last link of a shortest way to it; null for the start. */
  readonly entry: ReadonlyMap<string, GraphLink | null>;
  /** Presses from the start to each screen that is reached; the start itself is at 0. */
  readonly depth: ReadonlyMap<string, number>;
  /**
   * For each screen that is reached, other than the start: the last of the screens that every way to
   * it passes through.
   */
  readonly gate: ReadonlyMap<string, string>;
  /**
   * Groups of screens that lead round among themselves and from which nothing leads on, back or
   * outside, each in the order of the screens. A group that the start belongs to is none, as one
   * gets everywhere from there.
   */
  readonly traps: readonly (readonly string[])[];
}

const analyses = new WeakMap<ScreenGraph, GraphAnalysis>();

/** Analysis of a screen graph, computed once for it: linear in screens and links but for the gates, which are so in practice. */
export function analysisOf(graph: ScreenGraph): GraphAnalysis {
  const known = analyses.get(graph);
  if (known) return known;
  const next = neighboursOf(graph);
  const entry = graph.start ? spread(graph, graph.start) : new Map<string, GraphLink | null>();
  const analysis = {
    entry,
    depth: depthsOf(entry),
    gate: gatesOf(graph, next),
    traps: trapsOf(graph, next),
  };
  analyses.set(graph, analysis);
  return analysis;
}

/**
 * A shortest way from one screen to another, as the links to press in order; empty from a screen to
 * itself, null where there is none. Of equally short ways it is the one whose elements come first.
 */
export const shortestWay = (graph: ScreenGraph, from: string, to: string): readonly GraphLink[] | null =>
  wayAlong(from === graph.start ? analysisOf(graph).entry : spread(graph, from, to), to);

/** For each screen that is reached from this one, the last link of a shortest way to it; nearest first. */
function spread(graph: ScreenGraph, from: string, until?: string): Map<string, GraphLink | null> {
  const entry = new Map<string, GraphLink | null>([[from, null]]);
  const queue = [from];
  for (let i = 0; i < queue.length && !(until && entry.has(until)); i++) {
    for (const link of graph.departures.get(queue[i]) ?? []) {
      if (!link.to || link.problem || entry.has(link.to)) continue;
      entry.set(link.to, link);
      queue.push(link.to);
    }
  }
  return entry;
}

function wayAlong(entry: ReadonlyMap<string, GraphLink | null>, to: string): GraphLink[] | null {
  if (!entry.has(to)) return null;
  const way: GraphLink[] = [];
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

type Neighbours = ReadonlyMap<string, readonly string[]>;

function neighboursOf(graph: ScreenGraph): Neighbours {
  return new Map(
    graph.screens.map((key) => {
      const there = new Set<string>();
      for (const { to, problem } of graph.departures.get(key)!)
        if (to && !problem && to !== key) there.add(to);
      return [key, [...there]];
    }),
  );
}

function depthsOf(entry: ReadonlyMap<string, GraphLink | null>): Map<string, number> {
  const depth = new Map<string, number>();
  for (const [key, link] of entry) depth.set(key, link ? depth.get(link.from)! + 1 : 0);
  return depth;
}

/** Immediate dominators, after Cooper, Harvey and Kennedy, "A Simple, Fast Dominance Algorithm" (2001). */
function gatesOf({ start }: ScreenGraph, next: Neighbours): Map<string, string> {
  if (!start) return new Map();
  const order = finishingOrder(start, next);
  const rank = new Map(order.map((key, i) => [key, i]));
  const before: number[][] = order.map(() => []);
  for (const [i, key] of order.entries()) for (const to of next.get(key)!) before[rank.get(to)!].push(i);
  const root = order.length - 1;
  const above = new Int32Array(order.length).fill(-1);
  above[root] = root;
  const meet = (a: number, b: number): number => {
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
      for (const from of before[i]) {
        if (above[from] === -1) continue;
        gate = gate === -1 ? from : meet(from, gate);
      }
      if (above[i] !== gate) {
        above[i] = gate;
        isChanged = true;
      }
    }
  }
  return new Map(order.slice(0, -1).map((key, i) => [key, order[above[i]]]));
}

/** What is reached from a screen, each after all that was first reached through it. */
function finishingOrder(start: string, next: Neighbours): string[] {
  const seen = new Set([start]);
  const order: string[] = [];
  const path = [{ key: start, at: 0 }];
  while (path.length) {
    const step = path.at(-1)!;
    const to = next.get(step.key)![step.at++];
    if (to === undefined) {
      order.push(step.key);
      path.pop();
    } else if (!seen.has(to)) {
      seen.add(to);
      path.push({ key: to, at: 0 });
    }
  }
  return order;
}

function trapsOf(graph: ScreenGraph, next: Neighbours): string[][] {
  const place = new Map(graph.screens.map((key, i) => [key, i]));
  return strongComponents(graph.screens, next)
    .filter((group) => {
      const inside = new Set(group);
      if (group.length < 2 || (graph.start && inside.has(graph.start))) return false;
      return group.every((key) =>
        graph.departures
          .get(key)!
          .every(
            ({ to, problem, interaction }) =>
              problem || (to ? inside.has(to) : interaction.target.kind === 'drawer'),
          ),
      );
    })
    .map((group) => group.sort((a, b) => place.get(a)! - place.get(b)!))
    .sort(([a], [b]) => place.get(a)! - place.get(b)!);
}

/** Strongly connected components, after Tarjan, "Depth-first search and linear graph algorithms" (1972). */
function strongComponents(keys: readonly string[], next: Neighbours): string[][] {
  const number = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: string[] = [];
  const stacked = new Set<string>();
  const groups: string[][] = [];
  const lower = (key: string, to: number): void => void low.set(key, Math.min(low.get(key)!, to));
  const enter = (key: string): { key: string; at: number } => {
    low.set(key, number.size);
    number.set(key, number.size);
    stack.push(key);
    stacked.add(key);
    return { key, at: 0 };
  };
  for (const root of keys) {
    if (number.has(root)) continue;
    const path = [enter(root)];
    while (path.length) {
      const step = path.at(-1)!;
      const to = next.get(step.key)![step.at++];
      if (to !== undefined) {
        if (!number.has(to)) path.push(enter(to));
        else if (stacked.has(to)) lower(step.key, number.get(to)!);
        continue;
      }
      path.pop();
      if (path.length) lower(path.at(-1)!.key, low.get(step.key)!);
      if (low.get(step.key) !== number.get(step.key)) continue;
      const group = stack.splice(stack.lastIndexOf(step.key));
      for (const key of group) stacked.delete(key);
      groups.push(group);
    }
  }
  return groups;
}
