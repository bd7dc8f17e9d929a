import type { Box } from '../../model/design.ts';

/** The affine map (x, y) → (a·x + c·y + e, b·x + d·y + f). */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const identity: Matrix = [1, 0, 0, 1, 0, 0];

/** First `n`, then `m`. */
export const multiply = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];

export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

/** Whether boxes stay boxes and text stays upright. */
export const isUpright = (m: Matrix): boolean =>
  Math.abs(m[1]) < 1e-6 && Math.abs(m[2]) < 1e-6 && m[0] > 0 && m[3] > 0;

/** How much lengths grow, as the root of how much areas grow. */
export const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));

export const mapPoint = (m: Matrix, x: number, y: number): [number, number] => [
  m[0] * x + m[2] * y + m[4],
  m[1] * x + m[3] * y + m[5],
];

/** The smallest upright box around a mapped box. */
export function mapBox(m: Matrix, box: Box): Box {
  const corners = [
    mapPoint(m, box.x, box.y),
    mapPoint(m, box.x + box.width, box.y),
    mapPoint(m, box.x, box.y + box.height),
    mapPoint(m, box.x + box.width, box.y + box.height),
  ];
  return boxAround(corners);
}

export function boxAround(points: readonly (readonly [number, number])[]): Box {
  let [x, y, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [px, py] of points) {
    x = Math.min(x, px);
    y = Math.min(y, py);
    right = Math.max(right, px);
    bottom = Math.max(bottom, py);
  }
  return points.length ? { x, y, width: right - x, height: bottom - y } : { x: 0, y: 0, width: 0, height: 0 };
}

/** Parses a `transform` attribute; what cannot be read is left out. */
export function parseTransform(text: string | undefined): Matrix {
  let m = identity;
  for (const [, name, list] of (text ?? '').matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const n = (list.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number);
    const step = transformStep(name, n);
    if (step) m = multiply(m, step);
  }
  return m;
}

function transformStep(name: string, n: number[]): Matrix | null {
  const radians = (degrees: number): number => (degrees * Math.PI) / 180;
  switch (name) {
    case 'matrix':
      return n.length === 6 ? (n as unknown as Matrix) : null;
    case 'translate':
      return translation(n[0] ?? 0, n[1] ?? 0);
    case 'scale':
      return [n[0] ?? 1, 0, 0, n[1] ?? n[0] ?? 1, 0, 0];
    case 'rotate': {
      const [cos, sin] = [Math.cos(radians(n[0] ?? 0)), Math.sin(radians(n[0] ?? 0))];
      const [x, y] = [n[1] ?? 0, n[2] ?? 0];
      return multiply(multiply(translation(x, y), [cos, sin, -sin, cos, 0, 0]), translation(-x, -y));
    }
    case 'skewX':
      return [1, 0, Math.tan(radians(n[0] ?? 0)), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(radians(n[0] ?? 0)), 0, 1, 0, 0];
    default:
      return null;
  }
}
