import {
  analysisOf,
  type App,
  type GraphDifference,
  isDeadEnd,
  type ScreenGraph,
  type Station,
} from '@tovel/core';

export interface Marks {
  readonly notes: ReadonlyMap<string, string>;
  readonly bad: ReadonlySet<string>;
}

/** What is said beneath stations: what is broken, a dead end, open or proposed there. */
export function marksOf(
  app: App,
  graph: ScreenGraph,
  proposals: ReadonlyMap<string, { readonly element: string }>,
  since: GraphDifference | null,
): Marks {
  const notes = new Map<string, string>();
  const bad = new Set<string>();
  for (const [key, states] of graph.elements) {
    const count = (standing: string): number => states.filter((state) => state.standing === standing).length;
    const proposed = states.filter(
      (state) => state.standing === 'open' && proposals.has(state.element.key),
    ).length;
    const isPlanned = app.screens[key].use === 'planned';
    const isEnd = graph.screens.includes(key) && !isPlanned && isDeadEnd(graph.departures.get(key)!, key);
    const isLost = graph.reached.size > 0 && !graph.reached.has(key);
    if (count('broken') || isEnd || isLost) bad.add(key);
    const said = [
      since?.screens.get(key) === 'new' && 'new',
      isPlanned && 'to be drawn',
      isLost && 'nobody comes here',
      isEnd && 'no way out',
      count('broken') > 0 && `${count('broken')} broken`,
      count('open') - proposed > 0 && `${count('open') - proposed} open`,
      proposed > 0 && `${proposed} proposed`,
    ].filter((text) => typeof text === 'string');
    if (said.length) notes.set(key, said.join(' · '));
  }
  return { notes, bad };
}

/** What is said beneath a station, or of the group that it stands for. */
export const notesOf = (station: Station, { notes }: Marks): string =>
  station.members ? `${station.members.length} screens, press to unfold` : (notes.get(station.key) ?? '');

/** The station that lies nearest in a direction; what lies aside counts double. @param dx and @param dy one of them 1 or -1 */
export function nearest(all: readonly Station[], from: Station, dx: number, dy: number): Station | null {
  let best: Station | null = null;
  let least = Infinity;
  for (const station of all) {
    const along = (station.x - from.x) * dx + (station.y - from.y) * dy;
    const aside = Math.abs((station.x - from.x) * dy) + Math.abs((station.y - from.y) * dx);
    if (along <= 0 || along + 2 * aside >= least) continue;
    least = along + 2 * aside;
    best = station;
  }
  return best;
}

/** Presses from the start, in words. */
export const presses = (graph: ScreenGraph, key: string): string => {
  const depth = analysisOf(graph).depth.get(key);
  return depth === undefined
    ? 'nobody gets there from the start'
    : depth === 0
      ? 'the start'
      : `${depth} ${depth === 1 ? 'press' : 'presses'} from the start`;
};
