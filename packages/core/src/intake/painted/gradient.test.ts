import fc from 'fast-check';
import { mapPoint, type Matrix } from '../svg/matrix.ts';
import { cssGradient, withAlphaOf } from './gradient.ts';
import type { Gradient } from './painted_page.ts';

const box = { x: 100, y: 50, width: 200, height: 80 };
const linear = (more: Partial<Gradient>): Gradient => ({
  kind: 'linear',
  stops: [
    [0, '#000000'],
    [1, '#ffffff'],
  ],
  from: [0, 0],
  to: [1, 0],
  matrix: [200, 0, 0, 80, 100, 50],
  ...more,
});

test.each([
  ['across', {}, 'linear-gradient(to right, #000000 0%, #ffffff 100%)'],
  ['down', { to: [0, 1] }, 'linear-gradient(to bottom, #000000 0%, #ffffff 100%)'],
  ['half of it', { from: [0.5, 0] }, 'linear-gradient(to right, #000000 50%, #ffffff 100%)'],
  [
    'a stop that says nothing new',
    {
      stops: [
        [0, '#000000'],
        [0.5, '#808080'],
        [1, '#ffffff'],
      ],
    },
    'linear-gradient(to right, #000000 0%, #ffffff 100%)',
  ],
  ['nowhere', { to: [0, 0] }, null],
  [
    'outwards',
    { kind: 'radial', from: [0.5, 0.5], to: [0.5, 0.5], radii: [0, 0.5] },
    'radial-gradient(ellipse 100px 40px at 50% 50%, #000000 0%, #ffffff 100%)',
  ],
] as const)('%s', (_, more, expected) =>
  expect(cssGradient(linear(more as Partial<Gradient>), box)).toBe(expected),
);

/** Where CSS says that a point of the box lies between the first and the last stop (CSS Images 3, 3.1.1). */
function cssPlace(css: string, x: number, y: number): number {
  const names: Record<string, number> = { 'to top': 0, 'to right': 90, 'to bottom': 180, 'to left': 270 };
  const [, way, first, last] = /\(([^,]+), #000000 (-?[\d.]+)%, #ffffff (-?[\d.]+)%\)/.exec(css)!;
  const angle = ((names[way] ?? parseFloat(way)) * Math.PI) / 180;
  const [ux, uy] = [Math.sin(angle), -Math.cos(angle)];
  const line = Math.abs(box.width * ux) + Math.abs(box.height * uy);
  const along = ((x - box.x - box.width / 2) * ux + (y - box.y - box.height / 2) * uy) / line + 0.5;
  return (along * 100 - Number(first)) / (Number(last) - Number(first));
}

test('CSS says of each point what the gradient says, whatever its matrix', () => {
  const near = fc.double({ min: 0.3, max: 3, noNaN: true });
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      near,
      near,
      fc.double({ min: -0.6, max: 0.6, noNaN: true }),
      share,
      share,
      (sx, sy, skew, px, py) => {
        const matrix: Matrix = [sx * 100, skew * 20, skew * 30, sy * 60, 90, 40];
        const gradient = linear({ from: [0.1, 0.2], to: [0.9, 0.7], matrix });
        // The same point where the gradient is given, and on the page.
        const [x, y] = mapPoint(matrix, px, py);
        const told = ((px - 0.1) * 0.8 + (py - 0.2) * 0.5) / (0.8 ** 2 + 0.5 ** 2);
        expect(cssPlace(cssGradient(gradient, box)!, x, y)).toBeCloseTo(told, 1);
      },
    ),
  );
});

test('shades of grey along the same line are how opaque it is', () => {
  const shades = linear({
    stops: [
      [0, '#ffffff'],
      [1, '#000000'],
    ],
  });
  expect(withAlphaOf(linear({}), shades)?.stops).toEqual([
    [0, '#000000'],
    [1, '#ffffff00'],
  ]);
  expect(withAlphaOf(linear({}), linear({ from: [0.4, 0] }))).toBeNull();
});
