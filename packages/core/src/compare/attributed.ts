import type { Box } from '../model/design.ts';
import type { Draft } from './causes.ts';
import { type PixelDifference, TILE } from './pixel_difference.ts';

export interface Account {
  readonly pixels: number;
  readonly weight: number;
}

/** What lies within the first window is noticed most; further down, less and less. */
const WINDOW = 800;
const noticed = (y: number): number => (y < WINDOW ? 1 : Math.max(0.3, WINDOW / y));

/**
 * Shares the differing pixels out among causes: a tile belongs to the cause whose own box around it is the smallest; what lies in
 * none was moved by the nearest cause above it that moves what follows.
 * @returns what each accounts for, how many pixels of each tile none does, and how many differ at all
 */
export function attributed(
  drafts: readonly Draft[],
  pixels: PixelDifference | null,
): { readonly accounts: Account[]; readonly left: Uint16Array; readonly all: number } {
  const accounts = drafts.map(() => ({ pixels: 0, weight: 0 }));
  if (!pixels) return { accounts, left: new Uint16Array(), all: 0 };
  const { columns, rows, counts, contrasts } = pixels.tiles;
  // The smallest box over each tile, painted from large to small; several causes may share one.
  const places = new Map<string, { readonly box: Box; readonly of: number[] }>();
  drafts.forEach(({ boxes }, index) => {
    for (const box of boxes) {
      const key = [box.x, box.y, box.width, box.height].join();
      const place = places.get(key) ?? { box, of: [] };
      places.set(key, place);
      if (place.of.at(-1) !== index) place.of.push(index);
    }
  });
  const list = [...places.values()];
  const owner = smallestOver(
    list.map(({ box }) => box),
    columns,
    rows,
  );
  // Beneath each row of tiles, the lowest cause that moves what follows.
  const movers = drafts
    .flatMap(({ moves, boxes: own }, index) => (moves ? own.map((box) => ({ top: box.y, index })) : []))
    .sort((a, b) => a.top - b.top);
  const left = new Uint16Array(columns * rows);
  let all = 0;
  let next = 0;
  let above = -1;
  for (let row = 0; row < rows; row++) {
    while (next < movers.length && movers[next].top <= (row + 1) * TILE) above = movers[next++].index;
    for (let column = 0; column < columns; column++) {
      const at = row * columns + column;
      if (!counts[at]) continue;
      all += counts[at];
      const isOwn = owner[at] >= 0;
      const indices = isOwn ? list[owner[at]].of : above < 0 ? [] : [above];
      if (!indices.length) left[at] = counts[at];
      for (const index of indices) {
        accounts[index].pixels += counts[at];
        // What a cause only moves is noticed less than what it is itself.
        accounts[index].weight += contrasts[at] * noticed(row * TILE) * (isOwn ? 1 : 0.25);
      }
    }
  }
  return { accounts, left, all };
}

/** The smallest of the boxes over each tile, as its place in the list; -1 where there is none. */
export function smallestOver(boxes: readonly Box[], columns: number, rows: number): Int32Array {
  const owner = new Int32Array(columns * rows).fill(-1);
  boxes
    .map((box, place) => ({ box, place }))
    .sort((a, b) => b.box.width * b.box.height - a.box.width * a.box.height)
    .forEach(({ box, place }) => paint(owner, columns, rows, box, place));
  return owner;
}

function paint(owner: Int32Array, columns: number, rows: number, box: Box, place: number): void {
  const clamp = (value: number, most: number): number =>
    Math.min(most - 1, Math.max(0, Math.floor(value / TILE)));
  if (box.width <= 0 || box.height <= 0) return;
  const [left, right] = [clamp(box.x - 1, columns), clamp(box.x + box.width + 1, columns)];
  for (let row = clamp(box.y - 1, rows); row <= clamp(box.y + box.height + 1, rows); row++)
    owner.fill(place, row * columns + left, row * columns + right + 1);
}
