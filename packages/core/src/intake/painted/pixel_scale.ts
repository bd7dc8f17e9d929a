import { boxOfOutline } from './outline.ts';
import { segmentsOf } from '../svg/segments.ts';
import type { PaintedPage } from './painted_page.ts';

/** A px as CSS has it is three quarters of a point: what was printed from a page. */
const PRINTED = 4 / 3;
/** Printed is what fits whole px better by this much. */
const MARGIN = 0.05;
/** How much it says for a unit that the page is as wide as a usual window by it. */
const WIDTH_SAYS = 0.2;
const MOST = 4000;
/** Widths of windows of telephones, tablets and desks. */
const WINDOWS: ReadonlySet<number> = new Set([
  320, 360, 375, 390, 393, 402, 412, 414, 428, 430, 440, 600, 744, 768, 800, 810, 820, 834, 1024, 1080, 1112,
  1152, 1180, 1194, 1200, 1210, 1280, 1360, 1366, 1376, 1400, 1440, 1512, 1536, 1600, 1680, 1728, 1920, 2048,
  2560, 3840,
]);

/**
 * How many px a unit of a page's lengths is: 1 as design programs write their screens, 4/3 where they were printed. Told by
 * lengths, since edges and letters are mostly drawn at whole px, and by what windows are wide.
 */
export function pixelScale(pages: readonly PaintedPage[]): number {
  const lengths = new Set<string>();
  const add = (...values: readonly number[]): void => {
    // What is nothing is whole in any unit.
    for (const value of values) if (Math.abs(value) > 0.5) lengths.add(value.toFixed(2));
  };
  for (const { items } of pages)
    for (const item of items) {
      if (lengths.size > MOST) break;
      if (item.kind === 'text') add(item.size);
      if (item.kind !== 'shape') continue;
      const shape = boxOfOutline(segmentsOf(item.outline));
      if (shape) add(shape.box.x, shape.box.y, shape.box.width, shape.box.height);
    }
  const told = [...lengths].map(Number);
  const fit = (scale: number): number => {
    const whole = told.filter(
      (length) => Math.abs(length * scale - Math.round(length * scale)) < 0.03,
    ).length;
    const isWindow = pages.some(({ width }) => WINDOWS.has(Math.round(width * scale)));
    return whole / Math.max(1, told.length) + (isWindow ? WIDTH_SAYS : 0);
  };
  return fit(PRINTED) > fit(1) + MARGIN ? PRINTED : 1;
}
