import type { Box } from '../../model/design.ts';
import { boxAround } from './matrix.ts';
import type { XmlElement } from './xml.ts';

type Point = [number, number];

/** A length attribute in px; percentages of `whole`. */
export function lengthOf(value: string | undefined, whole = 0, fallback = 0): number {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(px|pt|mm|cm|in|%)?\s*$/i.exec(value ?? '');
  if (!match) return fallback;
  const n = Number(match[1]);
  const perUnit: Record<string, number> = {
    pt: 4 / 3,
    mm: 96 / 25.4,
    cm: 96 / 2.54,
    in: 96,
    '%': whole / 100,
  };
  return n * (perUnit[match[2]?.toLowerCase()] ?? 1);
}

const known = new WeakMap<XmlElement, Box | null>();

/** Bounds of a shape's geometry in its own coordinates, without its stroke; null for what is not a shape. Looked at once. */
export function shapeBounds(shape: XmlElement): Box | null {
  let bounds = known.get(shape);
  if (bounds === undefined) known.set(shape, (bounds = measure(shape)));
  return bounds;
}

function measure(shape: XmlElement): Box | null {
  const n = (name: string): number => lengthOf(shape.attributes[name]);
  switch (shape.name) {
    case 'rect':
    case 'image':
      return { x: n('x'), y: n('y'), width: n('width'), height: n('height') };
    case 'circle':
      return { x: n('cx') - n('r'), y: n('cy') - n('r'), width: 2 * n('r'), height: 2 * n('r') };
    case 'ellipse':
      return { x: n('cx') - n('rx'), y: n('cy') - n('ry'), width: 2 * n('rx'), height: 2 * n('ry') };
    case 'line':
      return boxAround([
        [n('x1'), n('y1')],
        [n('x2'), n('y2')],
      ]);
    case 'polyline':
    case 'polygon':
      return boxAround(pairs(numbersIn(shape.attributes.points ?? '')));
    case 'path':
      return boxAround(pathPoints(shape.attributes.d ?? ''));
    default:
      return null;
  }
}

const numbersIn = (text: string): number[] =>
  (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number);

const pairs = (numbers: number[]): Point[] =>
  Array.from({ length: Math.floor(numbers.length / 2) }, (_, i) => [numbers[2 * i], numbers[2 * i + 1]]);

const ARGUMENTS: Record<string, number> = { M: 2, L: 2, H: 1, V: 1, C: 6, S: 4, Q: 4, T: 2, A: 7, Z: 0 };
/** Points taken on each curve; at 12 the bounds of a circle are off by under 1 % of its size. */
const SAMPLES = 12;

/** Points on a path, dense enough for its bounds. Reads up to the first thing that is not path data. */
export function pathPoints(d: string): Point[] {
  const tokens = d.match(/[a-zA-Z]|[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/g) ?? [];
  const points: Point[] = [];
  let at: Point = [0, 0];
  let start: Point = [0, 0];
  let control: Point | null = null;
  let command = '';
  for (let i = 0; i < tokens.length;) {
    if (/[a-zA-Z]/.test(tokens[i])) command = tokens[i++];
    const kind = command.toUpperCase();
    const size = ARGUMENTS[kind];
    if (size === undefined) break;
    const n = takeArguments(tokens, i, kind, size);
    if (n.values.length < size || n.values.some(Number.isNaN)) break;
    i = n.next;
    const relative = command !== kind;
    const v = n.values;
    const point = (k: number): Point => (relative ? [at[0] + v[k], at[1] + v[k + 1]] : [v[k], v[k + 1]]);
    const mirrored = (): Point => (control ? [2 * at[0] - control[0], 2 * at[1] - control[1]] : at);
    let end: Point = at;
    let nextControl: Point | null = null;
    switch (kind) {
      case 'M':
        end = start = point(0);
        command = relative ? 'l' : 'L';
        break;
      case 'L':
        end = point(0);
        break;
      case 'H':
        end = [relative ? at[0] + v[0] : v[0], at[1]];
        break;
      case 'V':
        end = [at[0], relative ? at[1] + v[0] : v[0]];
        break;
      case 'Z':
        end = start;
        break;
      case 'C':
      case 'S': {
        const first = kind === 'C' ? point(0) : mirrored();
        nextControl = point(kind === 'C' ? 2 : 0);
        end = point(kind === 'C' ? 4 : 2);
        sampleCubic(points, at, first, nextControl, end);
        break;
      }
      case 'Q':
      case 'T': {
        const c = kind === 'Q' ? point(0) : mirrored();
        nextControl = c;
        end = point(kind === 'Q' ? 2 : 0);
        const toward = (from: Point): Point => [
          from[0] + (2 / 3) * (c[0] - from[0]),
          from[1] + (2 / 3) * (c[1] - from[1]),
        ];
        sampleCubic(points, at, toward(at), toward(end), end);
        break;
      }
      case 'A':
        end = point(5);
        sampleArc(points, at, end, v[0], v[1], v[2], v[3] !== 0, v[4] !== 0);
        break;
    }
    points.push(end);
    control = nextControl;
    at = end;
    if (kind === 'Z') command = '';
  }
  return points;
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

function sampleCubic(into: Point[], a: Point, b: Point, c: Point, d: Point): void {
  for (let k = 1; k < SAMPLES; k++) {
    const t = k / SAMPLES;
    const u = 1 - t;
    const at = (i: 0 | 1): number =>
      u ** 3 * a[i] + 3 * u * u * t * b[i] + 3 * u * t * t * c[i] + t ** 3 * d[i];
    into.push([at(0), at(1)]);
  }
}

/** From end points to centre and angles as in SVG 2, appendix B.2.4. */
function sampleArc(
  into: Point[],
  from: Point,
  to: Point,
  rx: number,
  ry: number,
  turn: number,
  large: boolean,
  sweep: boolean,
): void {
  if (!rx || !ry) return;
  const phi = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const [dx, dy] = [(from[0] - to[0]) / 2, (from[1] - to[1]) / 2];
  const [x1, y1] = [cos * dx + sin * dy, -sin * dx + cos * dy];
  const lack = (x1 / rx) ** 2 + (y1 / ry) ** 2;
  const [a, b] =
    lack > 1
      ? [Math.abs(rx) * Math.sqrt(lack), Math.abs(ry) * Math.sqrt(lack)]
      : [Math.abs(rx), Math.abs(ry)];
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
  for (let k = 1; k < SAMPLES; k++) {
    const t = first + (span * k) / SAMPLES;
    const [x, y] = [a * Math.cos(t), b * Math.sin(t)];
    into.push([cos * x - sin * y + centre[0], sin * x + cos * y + centre[1]]);
  }
}
