import type { Box } from '../../model/design.ts';
import { isUpright, mapPoint, type Matrix } from '../svg/matrix.ts';
import { channelsOf, hexOf, mixed } from './colors.ts';
import type { Gradient } from './painted_page.ts';

const round = (n: number): number => Math.round(n * 100) / 100;

/**
 * The CSS image of a gradient over a box, in shares of the box, so that it grows with it; null where CSS has no equal.
 *
 * A linear gradient says t of each point, which stays an affine function whatever the matrix: its direction is that of t, and where t
 * is 0 and 1 lies on the line that CSS draws through the middle of the box (CSS Images 3, 3.1.1).
 */
export function cssGradient(gradient: Gradient, box: Box): string | null {
  return gradient.kind === 'linear' ? linear(gradient, box) : radial(gradient, box);
}

function linear({ from, to, matrix, stops }: Gradient, box: Box): string | null {
  const [a, b, c, d] = matrix;
  const determinant = a * d - b * c;
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = dx * dx + dy * dy;
  if (!determinant || !length) return null;
  // The gradient of t on the page: the direction where it is given, by the inverse of the matrix.
  const [gx, gy] = [dx / length, dy / length];
  const slope = [(gx * d - gy * b) / determinant, (gy * a - gx * c) / determinant];
  const steepness = Math.hypot(slope[0], slope[1]);
  if (!(steepness > 0)) return null;
  const start = mapPoint(matrix, from[0], from[1]);
  const tAt = (x: number, y: number): number => slope[0] * (x - start[0]) + slope[1] * (y - start[1]);
  const [ux, uy] = [slope[0] / steepness, slope[1] / steepness];
  const line = Math.abs(box.width * ux) + Math.abs(box.height * uy);
  if (!(line > 0)) return null;
  const middle = tAt(box.x + box.width / 2, box.y + box.height / 2);
  const place = (t: number): number => ((t - middle) / steepness + line / 2) / line;
  const degrees = round(((Math.atan2(ux, -uy) * 180) / Math.PI + 360) % 360);
  const named: Readonly<Record<number, string>> = {
    0: 'to top',
    90: 'to right',
    180: 'to bottom',
    270: 'to left',
  };
  return `linear-gradient(${named[degrees] ?? `${degrees}deg`}, ${stopsAt(stops, place)})`;
}

function radial({ from, to, radii, matrix, stops }: Gradient, box: Box): string | null {
  if (!radii || !isUpright(matrix) || Math.hypot(to[0] - from[0], to[1] - from[1]) > 0.01 * radii[1])
    return null;
  const [x, y] = mapPoint(matrix, to[0], to[1]);
  const [rx, ry] = [matrix[0] * radii[1], matrix[3] * radii[1]];
  if (!(rx > 0) || !(ry > 0)) return null;
  const inner = radii[0] / radii[1];
  const size =
    Math.abs(rx - ry) < 0.01 * rx ? `circle ${round(rx)}px` : `ellipse ${round(rx)}px ${round(ry)}px`;
  const at = `${round((100 * (x - box.x)) / box.width)}% ${round((100 * (y - box.y)) / box.height)}%`;
  return `radial-gradient(${size} at ${at}, ${stopsAt(stops, (t) => inner + t * (1 - inner))})`;
}

/** Stops at their places; those that only say again what lies between their neighbours are left out. */
function stopsAt(stops: Gradient['stops'], place: (t: number) => number): string {
  const needed = stops.filter(([offset, color], i) => {
    const [before, after] = [stops[i - 1], stops[i + 1]];
    if (!before || !after || after[0] <= before[0]) return true;
    const between = mixed(before[1], after[1], (offset - before[0]) / (after[0] - before[0]));
    return !between || !isNear(between, color);
  });
  return needed.map(([offset, color]) => `${color} ${round(100 * place(offset))}%`).join(', ');
}

const isNear = (values: readonly number[], color: string): boolean =>
  channelsOf(color)?.every((value, i) => Math.abs(value - values[i]) <= 1.5) ?? false;

/** A gradient in shades of grey as how opaque another along the same line is; null where they are not along one line. */
export function withAlphaOf(gradient: Gradient, shades: Gradient): Gradient | null {
  const isSame =
    gradient.kind === shades.kind &&
    [...gradient.from, ...gradient.to, ...gradient.matrix].every(
      (n, i) => Math.abs(n - [...shades.from, ...shades.to, ...shades.matrix][i]) < 0.01,
    );
  if (!isSame) return null;
  const offsets = [...new Set([...gradient.stops, ...shades.stops].map(([offset]) => offset))].sort(
    (a, b) => a - b,
  );
  const stops = offsets.map((offset): readonly [number, string] | null => {
    const [color, shade] = [colorAt(gradient.stops, offset), colorAt(shades.stops, offset)];
    return color && shade && [offset, hexOf([color[0], color[1], color[2], shade[0]])];
  });
  return stops.every((stop) => stop !== null) ? { ...gradient, stops } : null;
}

function colorAt(stops: Gradient['stops'], offset: number): number[] | null {
  const after = stops.findIndex(([at]) => at >= offset);
  if (after < 0) return channelsOf(stops.at(-1)![1]);
  const [at, color] = stops[after];
  const before = stops[after - 1];
  if (!before || at === offset) return channelsOf(color);
  return mixed(before[1], color, (offset - before[0]) / (at - before[0]));
}

/** A gradient as a definition of a drawing. */
export function gradientNode(
  gradient: Gradient,
  id: string,
  matrix: Matrix,
): {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly { tag: string; attributes: Record<string, string>; children: [] }[];
} {
  const { from, to, radii, stops, kind } = gradient;
  const places: Record<string, string> =
    kind === 'linear'
      ? { x1: String(from[0]), y1: String(from[1]), x2: String(to[0]), y2: String(to[1]) }
      : {
          cx: String(to[0]),
          cy: String(to[1]),
          r: String(radii?.[1] ?? 0),
          fx: String(from[0]),
          fy: String(from[1]),
        };
  return {
    tag: `${kind}Gradient`,
    attributes: {
      id,
      gradientUnits: 'userSpaceOnUse',
      ...places,
      gradientTransform: `matrix(${matrix.map((n) => Math.round(n * 1e4) / 1e4).join(' ')})`,
    },
    children: stops.map(([offset, color]) => ({
      tag: 'stop',
      attributes: { offset: String(round(offset)), 'stop-color': color },
      children: [],
    })),
  };
}
