import type { Box } from '../../model/design.ts';
import { boxAround } from '../svg/matrix.ts';
import { flatten, type Point, type Segment } from '../svg/segments.ts';

/** How far, in px, a point may lie from an edge that it is meant to lie on. */
const NEAR = 0.12;
/** Of a round corner, as machines write corners in one, two or many curves. */
const NEAR_ROUND = 0.35;

export interface RoundBox {
  readonly box: Box;
  /** Horizontal and vertical radius of the corners: top left, top right, bottom right, bottom left. */
  readonly radii: readonly (readonly [x: number, y: number])[];
}

export interface Ring {
  readonly outer: RoundBox;
  readonly inner: RoundBox;
}

/** The upright box, with or without round corners, that a path draws; null for any other path. */
export function boxOfOutline(segments: readonly Segment[]): RoundBox | null {
  const parts = partsOf(segments);
  return parts.length === 1 ? boxOfPart(parts[0]) : null;
}

/** What a path draws that has a box within a box: what is between them, as borders and what lies around something are written. */
export function ringOfOutline(segments: readonly Segment[]): Ring | null {
  const parts = partsOf(segments);
  if (parts.length !== 2) return null;
  const [a, b] = parts.map(boxOfPart);
  if (!a || !b) return null;
  const [outer, inner] = a.box.width * a.box.height >= b.box.width * b.box.height ? [a, b] : [b, a];
  const slack = NEAR;
  return inner.box.x >= outer.box.x - slack &&
    inner.box.y >= outer.box.y - slack &&
    inner.box.x + inner.box.width <= outer.box.x + outer.box.width + slack &&
    inner.box.y + inner.box.height <= outer.box.y + outer.box.height + slack
    ? { outer, inner }
    : null;
}

/** The straight line, level or upright, that a path draws; as a box without width or without height. */
export function ruleOfOutline(segments: readonly Segment[]): Box | null {
  if (segments.some(([letter]) => letter === 'C')) return null;
  const parts = partsOf(segments);
  if (parts.length !== 1) return null;
  const box = boxAround(parts[0]);
  return box.width < NEAR || box.height < NEAR ? box : null;
}

/** Parts that draw something: a last move leads nowhere. */
const partsOf = (segments: readonly Segment[]): Point[][] =>
  flatten(segments).filter((part) => part.length > 1);

function boxOfPart(ends: readonly Point[]): RoundBox | null {
  const points = withMiddles(ends);
  const box = boxAround(points);
  if (!(box.width > 0.01) || !(box.height > 0.01) || ends.length < 4) return null;
  for (const radii of [circularCorners(points, box), ellipticCorners(points, box)])
    if (follows(points, box, radii)) return { box, radii };
  return null;
}

/** A corner that is cut off straight is none that is round: between its ends it tells. */
const withMiddles = (points: readonly Point[]): Point[] =>
  points.flatMap((point, i): Point[] => {
    const next = points[(i + 1) % points.length];
    return [point, [(point[0] + next[0]) / 2, (point[1] + next[1]) / 2]];
  });

type Radii = RoundBox['radii'];

/** Points as they are seen from a corner of their box, inwards. */
const fromCorners = (points: readonly Point[], box: Box): Point[][] =>
  [
    [1, 1],
    [-1, 1],
    [-1, -1],
    [1, -1],
  ].map(([sx, sy]) =>
    points.map(([x, y]): Point => [
      sx > 0 ? x - box.x : box.x + box.width - x,
      sy > 0 ? y - box.y : box.y + box.height - y,
    ]),
  );

const limited = (x: number, y: number, box: Box): readonly [number, number] =>
  x < 2 * NEAR || y < 2 * NEAR ? [0, 0] : [Math.min(x, box.width / 2), Math.min(y, box.height / 2)];

/** A quarter of a circle comes nearest to its corner at half of its way: both ways off by (1 - 1 / √2) of the radius. */
const circularCorners = (points: readonly Point[], box: Box): Radii =>
  fromCorners(points, box).map((seen) => {
    const radius = Math.min(...seen.map(([x, y]) => x + y)) / (2 - Math.SQRT2);
    return limited(radius, radius, box);
  });

/** Where the points leave the edges. */
const ellipticCorners = (points: readonly Point[], box: Box): Radii =>
  fromCorners(points, box).map((seen) => {
    const least = (along: 0 | 1): number =>
      Math.min(...seen.filter((point) => point[1 - along] < 0.02).map((point) => point[along]));
    return limited(least(0), least(1), box);
  });

function follows(points: readonly Point[], box: Box, radii: Radii): boolean {
  const seen = fromCorners(points, box);
  const near = (a: number, b: number): boolean => Math.abs(a - b) <= NEAR;
  const isOnEdge = (i: number): boolean => {
    for (let k = 0; k < 4; k++) {
      const [rx, ry] = radii[k];
      const [x, y] = seen[k][i];
      if (!rx || x > rx - NEAR || y > ry - NEAR) continue;
      const off = Math.abs(Math.hypot((rx - x) / rx, (ry - y) / ry) - 1) * Math.min(rx, ry);
      return off <= Math.max(NEAR_ROUND, 0.02 * Math.min(rx, ry));
    }
    const [x, y] = seen[0][i];
    return near(x, 0) || near(x, box.width) || near(y, 0) || near(y, box.height);
  };
  if (!points.every((_, i) => isOnEdge(i))) return false;
  // Points on the edges alone could draw a part of the box only.
  const corners = radii.reduce((area, [rx, ry]) => area + (1 - Math.PI / 4) * rx * ry, 0);
  const whole = box.width * box.height - corners;
  return Math.abs(Math.abs(areaOf(points)) - whole) <= 0.02 * whole + NEAR * (box.width + box.height);
}

/** By the shoelace formula; its sign says which way round the points go. */
function areaOf(points: readonly Point[]): number {
  let twice = 0;
  for (let i = 0; i < points.length; i++) {
    const [a, b] = [points[i], points[(i + 1) % points.length]];
    twice += a[0] * b[1] - b[0] * a[1];
  }
  return twice / 2;
}
