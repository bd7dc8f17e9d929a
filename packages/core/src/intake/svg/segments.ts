import { mapPoint, type Matrix } from './matrix.ts';

export type Point = readonly [x: number, y: number];

/** One step of a path in absolute coordinates: a move, a line, a cubic curve, or the way back to where it began. */
export type Segment =
  readonly ['M', Point] | readonly ['L', Point] | readonly ['C', Point, Point, Point] | readonly ['Z'];

const ARGUMENTS: Readonly<Record<string, number>> = {
  M: 2,
  L: 2,
  H: 1,
  V: 1,
  C: 6,
  S: 4,
  Q: 4,
  T: 2,
  A: 7,
  Z: 0,
};

/**
 * Path data as steps in absolute coordinates, arcs and quadratic curves as cubic ones. Reads up to the first thing that is
 * not path data.
 */
export function segmentsOf(d: string): Segment[] {
  const tokens = d.match(/[a-zA-Z]|[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? [];
  const made: Segment[] = [];
  let at: Point = [0, 0];
  let start: Point = [0, 0];
  let control: Point | null = null;
  let command = '';
  for (let i = 0; i < tokens.length;) {
    if (/[a-zA-Z]/.test(tokens[i])) command = tokens[i++];
    const kind = command.toUpperCase();
    const size = ARGUMENTS[kind];
    if (size === undefined) break;
    const { values: v, next } = takeArguments(tokens, i, kind, size);
    if (v.length < size || v.some(Number.isNaN)) break;
    i = next;
    const relative = command !== kind;
    const from = at;
    const point = (k: number): Point => (relative ? [from[0] + v[k], from[1] + v[k + 1]] : [v[k], v[k + 1]]);
    const mirrored = (): Point => (control ? [2 * from[0] - control[0], 2 * from[1] - control[1]] : from);
    let nextControl: Point | null = null;
    switch (kind) {
      case 'M':
        at = start = point(0);
        made.push(['M', at]);
        command = relative ? 'l' : 'L';
        break;
      case 'L':
        at = point(0);
        made.push(['L', at]);
        break;
      case 'H':
        at = [relative ? from[0] + v[0] : v[0], from[1]];
        made.push(['L', at]);
        break;
      case 'V':
        at = [from[0], relative ? from[1] + v[0] : v[0]];
        made.push(['L', at]);
        break;
      case 'C':
      case 'S': {
        const first = kind === 'C' ? point(0) : mirrored();
        nextControl = point(kind === 'C' ? 2 : 0);
        at = point(kind === 'C' ? 4 : 2);
        made.push(['C', first, nextControl, at]);
        break;
      }
      case 'Q':
      case 'T': {
        const middle = kind === 'Q' ? point(0) : mirrored();
        nextControl = middle;
        at = point(kind === 'Q' ? 2 : 0);
        const toward = (end: Point): Point => [
          end[0] + (2 / 3) * (middle[0] - end[0]),
          end[1] + (2 / 3) * (middle[1] - end[1]),
        ];
        made.push(['C', toward(from), toward(at), at]);
        break;
      }
      case 'A':
        at = point(5);
        made.push(...arcSegments(from, at, v[0], v[1], v[2], v[3] !== 0, v[4] !== 0));
        break;
      default:
        at = start;
        made.push(['Z']);
        command = '';
    }
    control = nextControl;
  }
  return made;
}

/** Flags of an arc may be written without anything between them (`a5 5 0 015 5`). */
function takeArguments(
  tokens: string[],
  from: number,
  kind: string,
  size: number,
): { values: number[]; next: number } {
  const values: number[] = [];
  let i = from;
  while (values.length < size && i < tokens.length) {
    const token = tokens[i];
    const isFlag = kind === 'A' && (values.length === 3 || values.length === 4);
    if (isFlag && token.length > 1 && /^[01]/.test(token)) {
      values.push(Number(token[0]));
      tokens[i] = token.slice(1);
      continue;
    }
    values.push(Number(token));
    i++;
  }
  return { values, next: i };
}

/** An arc as cubic curves of at most a quarter turn each; from end points to centre and angles as in SVG 2, appendix B.2.4. */
function arcSegments(
  from: Point,
  to: Point,
  rx: number,
  ry: number,
  turn: number,
  large: boolean,
  sweep: boolean,
): Segment[] {
  if (!rx || !ry) return [['L', to]];
  const phi = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const [dx, dy] = [(from[0] - to[0]) / 2, (from[1] - to[1]) / 2];
  const [x1, y1] = [cos * dx + sin * dy, -sin * dx + cos * dy];
  const lack = (x1 / rx) ** 2 + (y1 / ry) ** 2;
  const grown = lack > 1 ? Math.sqrt(lack) : 1;
  const [a, b] = [Math.abs(rx) * grown, Math.abs(ry) * grown];
  const under = Math.max(
    0,
    (a * a * b * b - a * a * y1 * y1 - b * b * x1 * x1) / (a * a * y1 * y1 + b * b * x1 * x1 || 1),
  );
  const root = (large === sweep ? -1 : 1) * Math.sqrt(under);
  const [cx1, cy1] = [(root * a * y1) / b, (-root * b * x1) / a];
  const centre: Point = [
    cos * cx1 - sin * cy1 + (from[0] + to[0]) / 2,
    sin * cx1 + cos * cy1 + (from[1] + to[1]) / 2,
  ];
  const angle = (x: number, y: number): number => Math.atan2((y - cy1) / b, (x - cx1) / a);
  const first = angle(x1, y1);
  let span = angle(-x1, -y1) - first;
  if (sweep && span < 0) span += 2 * Math.PI;
  if (!sweep && span > 0) span -= 2 * Math.PI;
  const steps = Math.max(1, Math.ceil(Math.abs(span) / (Math.PI / 2) - 1e-9));
  const delta = span / steps;
  // How far the handles of a curve reach for it to follow a circle.
  const reach = (4 / 3) * Math.tan(delta / 4);
  const place = (x: number, y: number): Point => [
    cos * a * x - sin * b * y + centre[0],
    sin * a * x + cos * b * y + centre[1],
  ];
  return Array.from({ length: steps }, (_, k): Segment => {
    const [t0, t1] = [first + k * delta, first + (k + 1) * delta];
    const [c0, s0, c1, s1] = [Math.cos(t0), Math.sin(t0), Math.cos(t1), Math.sin(t1)];
    return [
      'C',
      place(c0 - reach * s0, s0 + reach * c0),
      place(c1 + reach * s1, s1 - reach * c1),
      k === steps - 1 ? to : place(c1, s1),
    ];
  });
}

export const mapSegments = (segments: readonly Segment[], m: Matrix): Segment[] =>
  segments.map(
    ([letter, ...points]) => [letter, ...points.map(([x, y]) => mapPoint(m, x, y))] as unknown as Segment,
  );

/** Path data, rounded to hundredths. */
export const printSegments = (segments: readonly Segment[]): string =>
  segments
    .map(
      ([letter, ...points]) =>
        letter + points.map((point) => `${round(point[0])} ${round(point[1])}`).join(' '),
    )
    .join('');

/** Points taken on each curve; at 12 the bounds of a circle are off by under 1 % of its size. */
const SAMPLES = 12;

/** Where the steps lead, dense enough for bounds; each part of the path by itself. */
export function flatten(segments: readonly Segment[], samples = SAMPLES): Point[][] {
  const parts: Point[][] = [];
  let part: Point[] = [];
  for (const segment of segments) {
    if (segment[0] === 'M') parts.push((part = [segment[1]]));
    else if (segment[0] === 'Z') {
      // What is drawn on after a way back begins where that began.
      if (part.length) parts.push((part = [part[0]]));
    } else if (segment[0] === 'L') part.push(segment[1]);
    else {
      const from = part.at(-1) ?? segment[1];
      for (let k = 1; k <= samples; k++)
        part.push(onCurve(from, segment[1], segment[2], segment[3], k / samples));
    }
  }
  return parts;
}

const onCurve = (a: Point, b: Point, c: Point, d: Point, t: number): Point => {
  const u = 1 - t;
  const at = (i: 0 | 1): number =>
    u ** 3 * a[i] + 3 * u * u * t * b[i] + 3 * u * t * t * c[i] + t ** 3 * d[i];
  return [at(0), at(1)];
};

const round = (n: number): number => Math.round(n * 100) / 100;
