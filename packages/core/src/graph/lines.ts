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
  /** Of one that stands in a block of several columns: the height at which lines come along above it. */
  readonly bus?: number;
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
 * added shifts the rows beneath it and nothing else; what nobody reaches stands in rows of its own at the end. Where the
 * window is known (`aspect` is its height by its width), many that lead no further stand in a block of several columns with
 * a trunk above it, and rows are further apart where there is room. Linear in screens and links.
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
  const roots = children.get(null) ?? [];
  const ordered = [...roots.filter((key) => reached.get(key)), ...roots.filter((key) => !reached.get(key))];
  const cells = roomiest(ordered, children, aspect);
  const columns = Math.max(0, ...[...cells.values()].map(({ column }) => column)) + 1;
  const rows = Math.max(0, ...[...cells.values()].map(({ row }) => row));
  const width = MARGIN + columns * COLUMN + MARGIN;
  const gap = Math.round(
    Math.max(ROW, Math.min(WIDE_ROW, (width * aspect - 2 * MARGIN) / Math.max(rows, 1))),
  );
  const at = new Map<string, Station>();
  for (const [key, { column, row, top }] of cells) {
    const members = groups.find((group) => group.id === key)?.screens;
    at.set(key, {
      key,
      x: MARGIN + column * COLUMN,
      y: MARGIN + row * gap,
      isReached: reached.get(key) ?? false,
      ...(top === undefined ? {} : { bus: MARGIN + top * gap - ROW / 2 }),
      ...(members ? { members } : {}),
    });
  }
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

/** Where a station stands: in the column of its depth or, in a block, further right; `top` is the first row of its block. */
interface Cell {
  readonly column: number;
  readonly row: number;
  readonly top?: number;
}

/** So many that lead no further, from one station, are a block of several columns where the window has room for them. */
const LEAST_WRAPPED = 7;
const MOST_COLUMNS = 12;

/** The cells with blocks of as many columns as show the drawing largest in a window of this height by width. */
function roomiest(
  roots: readonly string[],
  children: ReadonlyMap<string | null, readonly string[]>,
  aspect: number,
): Map<string, Cell> {
  let best = cellsOf(roots, children, 1);
  if (!aspect) return best;
  const scaleOf = (cells: ReadonlyMap<string, Cell>): number => {
    const most = (of: (cell: Cell) => number): number => Math.max(0, ...[...cells.values()].map(of));
    const width = 2 * MARGIN + (most(({ column }) => column) + 1) * COLUMN;
    const height = 2 * MARGIN + most(({ row }) => row) * ROW;
    return Math.min(1 / width, aspect / height);
  };
  for (let wide = 2; wide <= MOST_COLUMNS; wide++) {
    const cells = cellsOf(roots, children, wide);
    if (scaleOf(cells) > scaleOf(best)) best = cells;
  }
  return best;
}

function cellsOf(
  roots: readonly string[],
  children: ReadonlyMap<string | null, readonly string[]>,
  wide: number,
): Map<string, Cell> {
  const cells = new Map<string, Cell>();
  const isLeaf = (key: string): boolean => !children.get(key)?.length;
  let row = 0;
  let isFirst = true;
  /** Stations one below the other, or in a block where many lead no further. */
  const placeAll = (keys: readonly string[], column: number): void => {
    const leaves = keys.filter(isLeaf);
    const isBlock = wide > 1 && leaves.length >= LEAST_WRAPPED;
    for (const key of isBlock ? keys.filter((one) => !isLeaf(one)) : keys) {
      // The first goes straight on, the others branch off below.
      if (!isFirst) row++;
      cells.set(key, { column, row });
      isFirst = true;
      placeAll(children.get(key) ?? [], column + 1);
      isFirst = false;
    }
    if (!isBlock) return;
    if (!isFirst) row++;
    const tall = Math.ceil(leaves.length / wide);
    leaves.forEach((key, i) => {
      const across = Math.floor(i / tall);
      cells.set(key, {
        column: column + across,
        row: row + (i % tall),
        ...(across ? { top: row } : {}),
      });
    });
    row += tall - 1;
    isFirst = false;
  };
  placeAll(roots, 0);
  return cells;
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

/** Lines turn in the gutter before the column that they lead to, where no name stands. */
const GUTTER = 26;
const CORNER = 12;

/** A way from station to station across and upright, in the gutters between columns, with corners of 45 degrees. */
export function route(a: Pick<Station, 'x' | 'y'>, b: Pick<Station, 'x' | 'y' | 'bus'>): Point[] {
  const end: Point = [b.x, b.y];
  if (b.x > a.x && b.bus !== undefined) {
    const out = a.x + COLUMN - GUTTER;
    const into = b.x - GUTTER;
    return bent([[a.x, a.y], [out, a.y], [out, b.bus], [into, b.bus], [into, b.y], end]);
  }
  if (b.x > a.x) return bent([[a.x, a.y], [b.x - GUTTER, a.y], [b.x - GUTTER, b.y], end]);
  const out = a.x + COLUMN - GUTTER;
  // On its own row a line back runs between what is said beneath the stations and the names of the next row.
  const isSameRow = a.y === b.y;
  const goal = isSameRow ? a.y + ROW / 2 : b.y;
  return bent([[a.x, a.y], [out, a.y], [out, goal], ...(isSameRow ? [[b.x, goal] as const] : []), end]);
}

/** A way across and upright with its corners cut at 45 degrees. */
function bent(points: readonly Point[]): Point[] {
  const way = points.filter(([x, y], i) => !i || x !== points[i - 1][0] || y !== points[i - 1][1]);
  return way.flatMap((point, i): Point[] => {
    const [before, after] = [way[i - 1], way[i + 1]];
    if (!before || !after) return [point];
    const lengthTo = ([x, y]: Point): number => Math.abs(x - point[0]) + Math.abs(y - point[1]);
    const cut = Math.min(CORNER, lengthTo(before) / 2, lengthTo(after) / 2);
    const towards = ([x, y]: Point): Point => [
      point[0] + Math.sign(x - point[0]) * cut,
      point[1] + Math.sign(y - point[1]) * cut,
    ];
    const [x, y] = [before[0] === after[0], before[1] === after[1]];
    return x || y ? [point] : [towards(before), towards(after)];
  });
}
