import { orderedScreens, type Project } from '../model/project.ts';
import { analysisOf } from './analysis.ts';
import type { ScreenGraph } from './graph.ts';

/** Screens that are drawn as one station while they are folded. */
export interface LineGroup {
  readonly id: string;
  readonly name: string;
  readonly screens: readonly string[];
}

/** What a line drawing is made of: plain, so that it can be sent to a worker. */
export interface LinesInput {
  /** Screens and overlays in the person's order, with who leads there first on a shortest way. */
  readonly places: readonly {
    readonly key: string;
    readonly parent: string | null;
    readonly isReached: boolean;
  }[];
  /** Who leads to whom, each pair once. */
  readonly links: readonly (readonly [from: string, to: string])[];
  readonly groups: readonly LineGroup[];
}

export interface Station {
  /** Of a screen or overlay, or the id of a folded group. */
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly isReached: boolean;
  /** Of a folded group: what is in it. */
  readonly members?: readonly string[];
}

/** A line between two stations, in straight pieces that run across, upright or at 45 degrees. */
export interface Track {
  readonly from: string;
  readonly to: string;
  readonly points: readonly (readonly [x: number, y: number])[];
  /** Whether it is part of a shortest way from the start. */
  readonly isMain: boolean;
}

export interface LinesDrawing {
  readonly stations: readonly Station[];
  readonly tracks: readonly Track[];
  readonly width: number;
  readonly height: number;
}

/** Distances in px: between depths, between rows at least and at most, and of the drawing from its edge. */
const COLUMN = 176;
const ROW = 52;
const WIDE_ROW = 88;
const MARGIN = 40;

/** What there is to draw of a project. */
export function linesInput(project: Project, graph: ScreenGraph, groups: readonly LineGroup[]): LinesInput {
  const { entry } = analysisOf(graph);
  const nodes = new Set([...graph.screens, ...graph.overlays]);
  const pairs = new Set<string>();
  const links: [string, string][] = [];
  for (const [from, ways] of graph.ways)
    for (const { to } of ways) {
      if (to === from || !nodes.has(to) || pairs.has(`${from}\n${to}`)) continue;
      pairs.add(`${from}\n${to}`);
      links.push([from, to]);
    }
  return {
    places: orderedScreens(project.app)
      .filter((key) => nodes.has(key))
      .map((key) => ({ key, parent: entry.get(key)?.from ?? null, isReached: graph.reached.has(key) })),
    links,
    groups,
  };
}

/** Groups of screens for folding: layouts, then screens whose routes begin alike; each screen is in one at most. */
export function lineGroups({ app }: Project, graph: ScreenGraph, least = 4): LineGroup[] {
  const taken = new Set<string>(graph.start ? [graph.start] : []);
  const groups: LineGroup[] = [];
  const add = (id: string, name: string, screens: readonly string[]): void => {
    const own = screens.filter((key) => !taken.has(key));
    if (own.length < least) return;
    own.forEach((key) => taken.add(key));
    groups.push({ id, name, screens: own });
  };
  const used = new Set(graph.screens);
  for (const [id, layout] of Object.entries(app.layouts))
    add(
      `layout ${id}`,
      layout.name,
      layout.screens.filter((key) => used.has(key)),
    );
  const byPart = new Map<string, string[]>();
  for (const key of graph.screens) {
    const [part] = app.screens[key].route.split('/').filter(Boolean);
    if (part && !part.startsWith(':') && part !== '*') byPart.set(part, [...(byPart.get(part) ?? []), key]);
  }
  for (const [part, screens] of byPart) add(`route ${part}`, `/${part}`, screens);
  return groups;
}

/**
 * Draws screens as stations: each in the column of its depth, below who leads there first, so that a screen that is
 * added shifts the rows beneath it and nothing else; what nobody reaches stands in rows of its own at the end. Rows are
 * further apart where the window (`aspect` is its height by its width) has room. Linear in screens and links.
 */
export function drawLines(
  { places, links, groups }: LinesInput,
  folded: ReadonlySet<string>,
  aspect = 0,
): LinesDrawing {
  const groupOf = new Map(
    groups
      .filter((group) => folded.has(group.id))
      .flatMap((group) => group.screens.map((key) => [key, group] as const)),
  );
  const shownAs = (key: string): string => groupOf.get(key)?.id ?? key;
  const children = new Map<string | null, string[]>();
  const parents = new Map<string, string | null>();
  const reached = new Map<string, boolean>();
  for (const { key, parent, isReached } of places) {
    const own = shownAs(key);
    const above = parent === null ? null : shownAs(parent);
    reached.set(own, (reached.get(own) ?? false) || isReached);
    // A group stands where the first of it is led to from outside.
    if (above === own || (parents.get(own) ?? null) !== null) continue;
    parents.set(own, above);
  }
  for (const [key, parent] of withoutCircles(parents)) {
    const list = children.get(parent);
    if (list) list.push(key);
    else children.set(parent, [key]);
  }
  const at = new Map<string, Station>();
  let row = 0;
  const place = (key: string, depth: number): void => {
    const members = groups.find((group) => group.id === key)?.screens;
    at.set(key, {
      key,
      x: MARGIN + depth * COLUMN,
      y: row,
      isReached: reached.get(key) ?? false,
      ...(members ? { members } : {}),
    });
    (children.get(key) ?? []).forEach((child, i) => {
      // The first goes straight on, the others branch off below.
      if (i) row++;
      place(child, depth + 1);
    });
  };
  const roots = children.get(null) ?? [];
  const ordered = [...roots.filter((key) => reached.get(key)), ...roots.filter((key) => !reached.get(key))];
  ordered.forEach((key, i) => {
    if (i) row++;
    place(key, 0);
  });
  const width = Math.max(...[...at.values()].map((station) => station.x), 0) + COLUMN + MARGIN;
  const gap = Math.round(Math.max(ROW, Math.min(WIDE_ROW, (width * aspect - 2 * MARGIN) / Math.max(row, 1))));
  for (const [key, station] of at) at.set(key, { ...station, y: MARGIN + station.y * gap });
  const stations = [...at.values()];
  const tracks = new Map<string, Track>();
  for (const [from, to] of links) {
    const [a, b] = [at.get(shownAs(from)), at.get(shownAs(to))];
    if (!a || !b || a === b) continue;
    const id = `${a.key}\n${b.key}`;
    if (tracks.has(id)) continue;
    const isMain = parents.get(b.key) === a.key;
    tracks.set(id, { from: a.key, to: b.key, points: route(a, b), isMain });
  }
  return {
    stations,
    tracks: [...tracks.values()],
    width,
    height: Math.max(...stations.map((station) => station.y), 0) + MARGIN + ROW / 2,
  };
}

/** Folding can make a circle of who leads to whom first; where one closes, it is cut. */
function withoutCircles(parents: ReadonlyMap<string, string | null>): [string, string | null][] {
  const safe = new Set<string>();
  return [...parents].map(([key, parent]) => {
    const seen = new Set([key]);
    let up = parent;
    while (up !== null && !safe.has(up) && !seen.has(up)) {
      seen.add(up);
      up = parents.get(up) ?? null;
    }
    if (up !== null && seen.has(up) && !safe.has(up)) return [key, null];
    safe.add(key);
    return [key, parent];
  });
}

type Point = readonly [x: number, y: number];

/** Where lines turn off, as a share of a column behind the station they leave. */
const TURN = 0.3;
const CORNER = 12;

/** A way from station to station across, then upright in the channel between columns, with corners of 45 degrees. */
export function route(a: Pick<Station, 'x' | 'y'>, b: Pick<Station, 'x' | 'y'>): Point[] {
  if (a.y === b.y && b.x > a.x)
    return [
      [a.x, a.y],
      [b.x, b.y],
    ];
  const channel = a.x + COLUMN * TURN;
  const down = b.y >= a.y ? 1 : -1;
  // On its own row a line back runs below the stations.
  const goal = a.y === b.y ? a.y + ROW * 0.4 : b.y;
  const corner = Math.min(CORNER, Math.abs(goal - a.y) / 2);
  const side = b.x >= channel ? 1 : -1;
  const points: Point[] = [
    [a.x, a.y],
    [channel - corner, a.y],
    [channel, a.y + down * corner],
    [channel, goal - down * corner],
    [channel + side * corner, goal],
  ];
  if (goal !== b.y) points.push([b.x + side * (goal - b.y), goal]);
  points.push([b.x, b.y]);
  return points.filter(([x, y], i) => !i || x !== points[i - 1][0] || y !== points[i - 1][1]);
}
