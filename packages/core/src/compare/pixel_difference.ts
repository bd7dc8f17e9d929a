import pixelmatch from 'pixelmatch';
import type { Pixels } from '../intake/picture/pixels.ts';

/** Sums over squares of `TILE` px: where two pictures differ, and how strongly. */
export interface Tiles {
  readonly columns: number;
  readonly rows: number;
  /** Differing pixels of each tile, row by row. */
  readonly counts: Uint16Array;
  /** Contrast between the two pictures, summed over the differing pixels of each tile; 1 is black on white. */
  readonly contrasts: Float32Array;
}

export interface PixelDifference {
  readonly width: number;
  readonly height: number;
  /** Differing pixels over all, 0 to 1. */
  readonly share: number;
  readonly tiles: Tiles;
  /** 1 for each pixel that differs, row by row. */
  readonly marks: Uint8Array;
}

/** Side of a tile in px. */
export const TILE = 8;
/** How different two colours are before they count, 0 to 1. */
const THRESHOLD = 0.1;

/**
 * Where two pictures of a page differ. What is only smoothed otherwise at edges does not count (pixelmatch, after Vysniauskas
 * 2009); pictures of unlike sizes are laid over each other at the top left, and what only one has differs.
 */
export function pixelDifference(a: Pixels, b: Pixels): PixelDifference {
  const [width, height] = [Math.max(a.width, b.width), Math.max(a.height, b.height)];
  const [left, right] = [padded(a, width, height, 0), padded(b, width, height, 255)];
  const out = new Uint8Array(width * height * 4);
  const count = pixelmatch(left, right, out, width, height, { threshold: THRESHOLD, diffMask: true });
  const columns = Math.ceil(width / TILE);
  const rows = Math.ceil(height / TILE);
  const counts = new Uint16Array(columns * rows);
  const contrasts = new Float32Array(columns * rows);
  const marks = new Uint8Array(width * height);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++, at++) {
      if (!out[at * 4 + 3]) continue;
      marks[at] = 1;
      const tile = (y >> 3) * columns + (x >> 3);
      counts[tile]++;
      contrasts[tile] += contrastAt(left, right, at * 4);
    }
  return {
    width,
    height,
    share: count / Math.max(1, width * height),
    tiles: { columns, rows, counts, contrasts },
    marks,
  };
}

/** How far apart two pixels are to the eye, 0 to 1; by brightness first (weights of Rec. 601). */
function contrastAt(a: Uint8Array, b: Uint8Array, at: number): number {
  const [r, g, bl] = [a[at] - b[at], a[at + 1] - b[at + 1], a[at + 2] - b[at + 2]];
  const brightness = Math.abs(0.299 * r + 0.587 * g + 0.114 * bl);
  const colour = Math.max(Math.abs(r), Math.abs(g), Math.abs(bl));
  return (0.75 * brightness + 0.25 * colour) / 255;
}

function padded({ width, height, data }: Pixels, wide: number, high: number, fill: number): Uint8Array {
  if (width === wide && height === high) return new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  const all = new Uint8Array(wide * high * 4).fill(fill);
  for (let i = 3; i < all.length; i += 4) all[i] = 255;
  for (let y = 0; y < height; y++) all.set(data.subarray(y * width * 4, (y + 1) * width * 4), y * wide * 4);
  return all;
}
