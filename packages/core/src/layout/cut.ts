import type { Box } from '../model/design.ts';
import { bottom, type Placed, right } from './placed.ts';

export type Axis = 'x' | 'y';

/** What counts when asking whether things overlap: of text only the letters, whose line boxes may overlap. */
function inkOf(item: Placed): Box {
  const { box } = item;
  if (item.kind !== 'text' || !item.soft) return box;
  const shrink = Math.min(box.height * 0.22, 8);
  // The width of text is an estimate that errs on the wide side for narrow fonts.
  const narrow = box.width * 0.1;
  const x =
    item.soft.align === 'start' ? box.x : item.soft.align === 'end' ? box.x + narrow : box.x + narrow / 2;
  return { x, y: box.y + shrink, width: box.width - narrow, height: box.height - 2 * shrink };
}

/**
 * Parts items at every straight gap that runs right across, the recursive X-Y cut of Nagy and Seth (1984) one
 * level at a time. Returns the bands in order, each in paint order; a single band means that there is no gap.
 */
export function cut(items: readonly Placed[], axis: Axis): Placed[][] {
  const spans = items.map((item, paint) => {
    const ink = inkOf(item);
    return { item, paint, from: axis === 'x' ? ink.x : ink.y, to: axis === 'x' ? right(ink) : bottom(ink) };
  });
  spans.sort((a, b) => a.from - b.from || a.paint - b.paint);
  const bands: (typeof spans)[] = [];
  let reach = -Infinity;
  for (const span of spans) {
    if (span.from >= reach - 1) bands.push([span]);
    else bands.at(-1)!.push(span);
    reach = Math.max(reach, span.to);
  }
  return bands.map((band) => band.sort((a, b) => a.paint - b.paint).map((span) => span.item));
}

export interface Arrangement {
  readonly axis: Axis | null;
  readonly bands: readonly (readonly Placed[])[];
  /** What lies over the rest and is placed freely. */
  readonly floating: readonly Placed[];
}

/** More floating items than this, and the whole is a free drawing. */
const MAX_FLOATING = 4;

/** Finds how items stand to each other: beneath each other, side by side, or (axis null) freely. */
export function findArrangement(items: readonly Placed[]): Arrangement {
  let left = [...items];
  const floating: Placed[] = [];
  for (;;) {
    if (left.length === 1) return { axis: 'y', bands: [left], floating };
    for (const axis of ['y', 'x'] as const) {
      const bands = cut(left, axis);
      if (bands.length > 1) return { axis, bands, floating };
    }
    const floater = floating.length < MAX_FLOATING ? findFloater(left) : null;
    if (!floater) return { axis: null, bands: [left], floating };
    floating.push(floater);
    left = left.filter((item) => item !== floater);
  }
}

/** The smallest of those whose removal opens a gap, or null. */
function findFloater(items: readonly Placed[]): Placed | null {
  if (items.length < 3) return null;
  const bySize = [...items].sort((a, b) => a.box.width * a.box.height - b.box.width * b.box.height);
  for (const item of bySize.slice(0, 8)) {
    const rest = items.filter((other) => other !== item);
    if (cut(rest, 'y').length > 1 || cut(rest, 'x').length > 1) return item;
  }
  return null;
}
