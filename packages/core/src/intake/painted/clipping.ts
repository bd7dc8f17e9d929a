import { right, bottom } from '../../layout/placed.ts';
import type { Box } from '../../model/design.ts';
import { boxAround } from '../svg/matrix.ts';
import { flatten, type Segment, segmentsOf } from '../svg/segments.ts';
import { boxOfOutline, ringOfOutline, type Ring, type RoundBox } from './outline.ts';
import type { Clip } from './painted_page.ts';

/** Through what something is seen. */
export interface Window {
  /** Nothing beyond this is seen; null where nothing limits it. */
  readonly box: Box | null;
  /** Boxes with round corners among what limits it. */
  readonly rounds: readonly (RoundBox & { readonly outline: readonly Segment[] })[];
  /** All that lies around a box, where shadows are painted. */
  readonly around: Ring | null;
  /** What else limits it: any other path. */
  readonly others: readonly { readonly outline: readonly Segment[]; readonly isEvenOdd: boolean }[];
}

const SLACK = 0.6;

/** What the clips of a thing amount to. Worked out once for each list of them. */
export class Windows {
  readonly #known = new WeakMap<readonly Clip[], Window>();

  of(clips: readonly Clip[]): Window {
    let window = this.#known.get(clips);
    if (!window) this.#known.set(clips, (window = windowOf(clips)));
    return window;
  }
}

function windowOf(clips: readonly Clip[]): Window {
  let box: Box | null = null;
  let around: Ring | null = null;
  const rounds: Window['rounds'][number][] = [];
  const others: Window['others'][number][] = [];
  for (const { outline, isEvenOdd } of clips) {
    const segments = segmentsOf(outline);
    const plain = boxOfOutline(segments);
    const ring = plain ? null : ringOfOutline(segments);
    if (ring) {
      around = ring;
      box = overlap(box, ring.outer.box);
      continue;
    }
    box = overlap(box, plain?.box ?? boxAround(flatten(segments).flat()));
    if (plain && plain.radii.some(([x]) => x > 0)) rounds.push({ ...plain, outline: segments });
    if (!plain) others.push({ outline: segments, isEvenOdd });
  }
  return { box, rounds, around, others };
}

/** What two boxes have in common, which may be nothing: then it has no size. */
export function overlap(a: Box | null, b: Box): Box {
  if (!a) return b;
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  return {
    x,
    y,
    width: Math.max(0, Math.min(right(a), right(b)) - x),
    height: Math.max(0, Math.min(bottom(a), bottom(b)) - y),
  };
}

/** What a box with round corners shows through a window of boxes: each corner as round as what it is a corner of. */
export function seenThrough(shape: RoundBox, window: Window): RoundBox {
  let seen = shape;
  if (window.box) seen = inCommon(seen, { box: window.box, radii: NO_RADII });
  for (const round of window.rounds) seen = inCommon(seen, round);
  return seen;
}

export const NO_RADII: RoundBox['radii'] = [
  [0, 0],
  [0, 0],
  [0, 0],
  [0, 0],
];

const cornersOf = (box: Box): readonly (readonly [number, number])[] => [
  [box.x, box.y],
  [right(box), box.y],
  [right(box), bottom(box)],
  [box.x, bottom(box)],
];

function inCommon(a: RoundBox, b: RoundBox): RoundBox {
  const box = overlap(a.box, b.box);
  const [ofA, ofB, own] = [cornersOf(a.box), cornersOf(b.box), cornersOf(box)];
  const isAt = (p: readonly [number, number], q: readonly [number, number]): boolean =>
    Math.abs(p[0] - q[0]) < SLACK && Math.abs(p[1] - q[1]) < SLACK;
  return {
    box,
    radii: own.map((corner, k) => {
      const [atA, atB] = [isAt(corner, ofA[k]), isAt(corner, ofB[k])];
      if (atA && atB) return a.radii[k][0] >= b.radii[k][0] ? a.radii[k] : b.radii[k];
      return atA ? a.radii[k] : atB ? b.radii[k] : [0, 0];
    }),
  };
}

/** Whether all of a box is seen through a window. */
export function isWhole(box: Box, window: Window): boolean {
  const within = (outer: Box, slack: number): boolean =>
    box.x >= outer.x - slack &&
    box.y >= outer.y - slack &&
    right(box) <= right(outer) + slack &&
    bottom(box) <= bottom(outer) + slack;
  if (window.box && !within(window.box, SLACK)) return false;
  return window.rounds.every(({ box: outer, radii }) => {
    // Within a round corner by this much of its radius a corner of the box is out of it.
    const reach = 0.29 * Math.max(...radii.map(([x]) => x));
    return within(outer, -Math.min(reach, outer.width / 4));
  });
}

export const isSeen = (box: Box, window: Window): boolean => {
  if (!window.box) return true;
  const seen = overlap(box, window.box);
  return seen.width > 0.05 && seen.height > 0.05;
};
