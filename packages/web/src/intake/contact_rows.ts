import type { App, Finding, ScreenGraph, Use } from '@tovel/core';
import { pictureSize, type Size } from '../picture/picture_size';

/** A screen on the sheet, with what belongs to it beneath. */
export interface SheetCard {
  readonly key: string;
  readonly attached: readonly { readonly key: string; readonly use: Use }[];
}

export type SheetRow =
  | { readonly kind: 'head'; readonly title: string; readonly count: number; readonly height: number }
  | { readonly kind: 'cards'; readonly cards: readonly SheetCard[]; readonly height: number };

export type SortBy = 'order' | 'name' | 'flow' | 'trouble';

/** Lengths on the sheet, in px. */
export const sheetLengths = {
  gap: 16,
  /** Narrower than this a card cannot say its name. */
  least: 112,
  words: 46,
  head: 40,
  attachedScale: 0.5,
  attachedWords: 20,
} as const;

/** Screens with their counterparts and overlays beneath them; those that are skipped apart. */
export function sheetCards(app: App, keys: readonly string[]): { used: SheetCard[]; skipped: SheetCard[] } {
  const isMain = (key: string): boolean => {
    const { use, of } = app.screens[key];
    return (
      use === 'screen' || (use !== 'skip' && !(of && keys.includes(of) && app.screens[of]?.use !== 'skip'))
    );
  };
  const attachedTo = (key: string): SheetCard['attached'] =>
    keys
      .filter((other) => app.screens[other].of === key && !isMain(other) && app.screens[other].use !== 'skip')
      .map((other) => ({ key: other, use: app.screens[other].use }));
  return {
    used: keys.filter(isMain).map((key) => ({ key, attached: attachedTo(key) })),
    skipped: keys.filter((key) => app.screens[key].use === 'skip').map((key) => ({ key, attached: [] })),
  };
}

/** Puts screens in the order that was asked for. */
export function sortScreens(
  keys: readonly string[],
  by: SortBy,
  { app, graph, findings }: { app: App; graph: ScreenGraph; findings: readonly Finding[] },
): string[] {
  if (by === 'order') return [...keys];
  if (by === 'name')
    return keys.toSorted((a, b) =>
      app.screens[a].name.localeCompare(app.screens[b].name, undefined, { numeric: true }),
    );
  const rank = by === 'flow' ? depths(app, graph) : troubles(findings);
  return keys.toSorted((a, b) => rank(a) - rank(b));
}

/** How many steps a screen is from the start; those that nobody reaches come last. */
function depths(app: App, graph: ScreenGraph): (key: string) => number {
  const depth = new Map<string, number>();
  const queue = app.start ? [app.start] : [];
  if (app.start) depth.set(app.start, 0);
  for (let key = queue.shift(); key !== undefined; key = queue.shift())
    for (const { to } of graph.departures.get(key) ?? [])
      if (to && !depth.has(to)) {
        depth.set(to, depth.get(key)! + 1);
        queue.push(to);
      }
  return (key) => depth.get(key) ?? Infinity;
}

const WEIGHT: Record<Finding['level'], number> = { error: 100, warning: 10, info: 1 };

/** The most trouble first. */
function troubles(findings: readonly Finding[]): (key: string) => number {
  const sum = new Map<string, number>();
  for (const { screen, level } of findings)
    if (screen) sum.set(screen, (sum.get(screen) ?? 0) + WEIGHT[level]);
  return (key) => -(sum.get(key) ?? 0);
}

/** The place that a card takes with all beneath it. */
export function cardSize(card: SheetCard, sizeOf: (key: string) => Size, scale: number): Size {
  const own = pictureSize(sizeOf(card.key), scale);
  const under = card.attached.map(({ key }) => pictureSize(sizeOf(key), scale * sheetLengths.attachedScale));
  const underWidth = under.reduce((sum, size) => sum + Math.max(size.width, 64) + 8, 0);
  const underHeight = under.length
    ? Math.max(...under.map((size) => size.height)) + sheetLengths.attachedWords + 8
    : 0;
  return {
    width: Math.max(own.width + 2, underWidth, sheetLengths.least),
    height: own.height + sheetLengths.words + underHeight,
  };
}

/** Breaks cards into rows of a width, with a head before those that are skipped. */
export function sheetRows(
  { used, skipped }: { used: readonly SheetCard[]; skipped: readonly SheetCard[] },
  sizeOf: (key: string) => Size,
  width: number,
  scale: number,
): SheetRow[] {
  const rows: SheetRow[] = [];
  const put = (cards: readonly SheetCard[]): void => {
    let row: SheetCard[] = [];
    let [taken, height] = [0, 0];
    const flush = (): void => {
      if (row.length) rows.push({ kind: 'cards', cards: row, height: height + sheetLengths.gap });
      [row, taken, height] = [[], 0, 0];
    };
    for (const card of cards) {
      const size = cardSize(card, sizeOf, scale);
      if (row.length && taken + size.width > width) flush();
      row.push(card);
      taken += size.width + sheetLengths.gap;
      height = Math.max(height, size.height);
    }
    flush();
  };
  put(used);
  if (skipped.length) {
    rows.push({ kind: 'head', title: 'Skipped', count: skipped.length, height: sheetLengths.head });
    put(skipped);
  }
  return rows;
}

const holds = ({ key, attached }: SheetCard, wanted: string): boolean =>
  key === wanted || attached.some((under) => under.key === wanted);

/** All screens of the rows, in the order in which one goes from one to the next. */
export const keysOf = (rows: readonly SheetRow[]): string[] =>
  rows.flatMap((row) =>
    row.kind === 'head'
      ? []
      : row.cards.flatMap(({ key, attached }) => [key, ...attached.map((under) => under.key)]),
  );

/** The row in which a screen stands, by its place; -1 where it is in none. */
export const rowWith = (rows: readonly SheetRow[], key: string): number =>
  rows.findIndex((row) => row.kind === 'cards' && row.cards.some((card) => holds(card, key)));

/** The screen that stands above or below another, or as far along as that row goes; null where there is none. */
export function keyInNextRow(rows: readonly SheetRow[], key: string, by: 1 | -1): string | null {
  const at = rowWith(rows, key);
  const row = rows[at];
  const column = row?.kind === 'cards' ? row.cards.findIndex((card) => holds(card, key)) : 0;
  for (let next = at + by; next >= 0 && next < rows.length; next += by) {
    const other = rows[next];
    if (other.kind === 'cards') return other.cards[Math.min(column, other.cards.length - 1)].key;
  }
  return null;
}
