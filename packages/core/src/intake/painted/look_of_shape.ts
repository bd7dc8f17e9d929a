import type { Box } from '../../model/design.ts';
import { boxAround } from '../svg/matrix.ts';
import { flatten, segmentsOf, type Segment } from '../svg/segments.ts';
import { grow } from '../svg/paint.ts';
import { isWhole, NO_RADII, seenThrough, type Window } from './clipping.ts';
import { cssGradient } from './gradient.ts';
import { boxOfOutline, ringOfOutline, type RoundBox, ruleOfOutline } from './outline.ts';
import type { Paint, PaintedShape } from './painted_page.ts';

export type Look = Readonly<Record<string, string>>;

/** A shape that CSS can draw as a box: where it is, how it looks, how wide its border. */
export interface BoxedShape {
  readonly box: Box;
  readonly look: Look;
  readonly border: number;
}

const round = (n: number): number => Math.round(n * 100) / 100;
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;
/** Sides of a border as wide as each other within this, in px, are one border. */
const EVEN = 0.2;

/** The boxes that a shape is drawn as; null where CSS has no equal, so that it stays a drawing. */
export function boxesOfShape(shape: PaintedShape, window: Window): readonly BoxedShape[] | null {
  if (window.others.length || window.around) return null;
  const segments = segmentsOf(shape.outline);
  const { fill, stroke } = shape;
  const whole = boxOfOutline(segments);
  if (whole) {
    if (stroke && !isWhole(grow(whole.box, stroke.width / 2), window)) return null;
    const border = stroke?.width ?? 0;
    const shown = seenThrough(
      { box: grow(whole.box, border / 2), radii: whole.radii.map(([x, y]) => larger([x, y], border / 2)) },
      window,
    );
    const look = { ...paintLook(fill, shown.box), ...borderLook(shape), ...radiusLook(shown) };
    return paintLook(fill, shown.box) ? [{ box: shown.box, look, border }] : null;
  }
  const ring = fill && !stroke ? ringOfOutline(segments) : null;
  if (ring && typeof fill === 'string') {
    const { outer, inner } = ring;
    const widths = widthsBetween(outer.box, inner.box);
    const isRound = outer.radii.some(([x]) => x > 0);
    if (widths.every((width) => Math.abs(width - widths[0]) < EVEN) && isWhole(outer.box, window))
      return [
        {
          box: outer.box,
          border: widths[0],
          look: { ...linesAround(widths[0], 'solid', fill), ...radiusLook(outer) },
        },
      ];
    if (isRound && !window.rounds.length) return null;
    return barsBetween(outer.box, inner.box)
      .map(
        (bar) =>
          seenThrough(
            {
              box: bar,
              radii: NO_RADII,
            },
            window,
          ).box,
      )
      .filter(({ width, height }) => width > 0.05 && height > 0.05)
      .map((box) => ({ box, border: 0, look: { 'background-color': fill } }));
  }
  const rule = stroke && !fill && !stroke.isDashed ? ruleOfOutline(segments) : null;
  if (rule) {
    const half = stroke!.width / 2;
    const box =
      rule.height < rule.width
        ? { ...rule, y: rule.y - half, height: stroke!.width }
        : { ...rule, x: rule.x - half, width: stroke!.width };
    const shown = seenThrough(
      {
        box,
        radii: NO_RADII,
      },
      window,
    ).box;
    return [{ box: shown, border: 0, look: { 'background-color': stroke!.color } }];
  }
  return null;
}

/** Where a shape paints, its stroke included. */
export function boundsOfShape(
  { outline, stroke }: PaintedShape,
  segments: readonly Segment[] = segmentsOf(outline),
): Box {
  return grow(boxAround(flatten(segments).flat()), (stroke?.width ?? 0) / 2);
}

const larger = ([x, y]: readonly [number, number], by: number): readonly [number, number] =>
  x ? [x + by, y + by] : [0, 0];

/** The background that a fill amounts to; null where CSS has none. */
function paintLook(fill: Paint | null, box: Box): Look | null {
  if (fill === null) return {};
  if (typeof fill === 'string') return { 'background-color': fill };
  const image = cssGradient(fill, box);
  return image === null ? null : { 'background-image': image };
}

function borderLook({ stroke }: PaintedShape): Look {
  return stroke ? linesAround(stroke.width, stroke.isDashed ? 'dashed' : 'solid', stroke.color) : {};
}

const linesAround = (width: number, style: string, color: string): Look =>
  Object.fromEntries(
    SIDES.flatMap((side) => [
      [`border-${side}-width`, `${round(width)}px`],
      [`border-${side}-style`, style],
      [`border-${side}-color`, color],
    ]),
  );

export function radiusLook({ box, radii }: RoundBox): Look {
  const isEllipse = radii.every(
    ([x, y]) => x > 0 && Math.abs(x - box.width / 2) < 0.5 && Math.abs(y - box.height / 2) < 0.5,
  );
  return Object.fromEntries(
    CORNERS.flatMap((corner, k) => {
      const [x, y] = radii[k];
      if (!(x > 0)) return [];
      const value = isEllipse ? '50%' : Math.abs(x - y) < 0.3 ? px(x) : `${px(x)} ${px(y)}`;
      return [[`border-${corner}-radius`, value]];
    }),
  );
}

/** A radius as it was meant: machines write it through others. */
const px = (n: number): string => `${Math.abs(n - Math.round(n)) < 0.15 ? Math.round(n) : round(n)}px`;

const widthsBetween = (outer: Box, inner: Box): readonly number[] => [
  inner.y - outer.y,
  outer.x + outer.width - inner.x - inner.width,
  outer.y + outer.height - inner.y - inner.height,
  inner.x - outer.x,
];

/** What lies between two boxes, as bars at the sides. */
function barsBetween(outer: Box, inner: Box): Box[] {
  const [top, right, bottom, left] = widthsBetween(outer, inner);
  return [
    { x: outer.x, y: outer.y, width: outer.width, height: top },
    { x: outer.x + outer.width - right, y: outer.y, width: right, height: outer.height },
    { x: outer.x, y: outer.y + outer.height - bottom, width: outer.width, height: bottom },
    { x: outer.x, y: outer.y, width: left, height: outer.height },
  ];
}
