import { flatten, type Segment } from '../svg/segments.ts';

/** Rows within a row of pixels, for edges that are neither in nor out. */
const SUBROWS = 4;

/**
 * Fills paths black into a picture of shades, 255 where nothing is, by the nonzero rule: edges are followed row by row.
 * @param shades width × height values, changed in place
 */
export function fillInto(
  shades: Uint8ClampedArray,
  width: number,
  height: number,
  segments: readonly Segment[],
): void {
  const parts = flatten(segments, 6);
  const edges: { x0: number; y0: number; x1: number; y1: number; way: 1 | -1 }[] = [];
  for (const part of parts)
    part.forEach(([x0, y0], i) => {
      const [x1, y1] = part[(i + 1) % part.length];
      if (y0 < y1) edges.push({ x0, y0, x1, y1, way: 1 });
      else if (y1 < y0) edges.push({ x0: x1, y0: y1, x1: x0, y1: y0, way: -1 });
    });
  if (!edges.length) return;
  const first = Math.max(0, Math.floor(Math.min(...edges.map(({ y0 }) => y0))));
  const last = Math.min(height - 1, Math.ceil(Math.max(...edges.map(({ y1 }) => y1))));
  for (let y = first; y <= last; y++)
    for (let k = 0; k < SUBROWS; k++) {
      const at = y + (k + 0.5) / SUBROWS;
      const crossings = edges
        .filter(({ y0, y1 }) => at >= y0 && at < y1)
        .map(({ x0, y0, x1, y1, way }) => ({ x: x0 + ((at - y0) / (y1 - y0)) * (x1 - x0), way }))
        .sort((a, b) => a.x - b.x);
      let winding = 0;
      crossings.forEach(({ x, way }, i) => {
        winding += way;
        const next = crossings[i + 1];
        if (winding && next) darken(shades, width, y, x, next.x);
      });
    }
}

function darken(shades: Uint8ClampedArray, width: number, y: number, from: number, to: number): void {
  const left = Math.max(0, from);
  const right = Math.min(width, to);
  for (let x = Math.floor(left); x < right; x++) {
    const covered = Math.min(right, x + 1) - Math.max(left, x);
    shades[y * width + x] -= (255 / SUBROWS) * covered;
  }
}
