import fc from 'fast-check';
import { segmentsOf } from '../svg/segments.ts';
import { boxOfOutline, ringOfOutline, ruleOfOutline } from './outline.ts';

const roundBox = (x: number, y: number, w: number, h: number, r: number): string =>
  `M${x + r} ${y}H${x + w - r}A${r} ${r} 0 0 1 ${x + w} ${y + r}V${y + h - r}A${r} ${r} 0 0 1 ${x + w - r} ${y + h}H${x + r}A${r} ${r} 0 0 1 ${x} ${y + h - r}V${y + r}A${r} ${r} 0 0 1 ${x + r} ${y}Z`;
const said = (d: string): string | null => {
  const found = boxOfOutline(segmentsOf(d));
  if (!found) return null;
  const { x, y, width, height } = found.box;
  return `${[x, y, width, height].map(Math.round).join(' ')} r${found.radii.map(([rx]) => Math.round(rx)).join(' ')}`;
};

test.each([
  ['M0 0L10 0L10 5L0 5Z', '0 0 10 5 r0 0 0 0'],
  ['M2 1L2 9L8 9L8 1L2 1', '2 1 6 8 r0 0 0 0'],
  ['M0 0H40V20H0Z M0 0', '0 0 40 20 r0 0 0 0'],
  [roundBox(10, 20, 100, 50, 6), '10 20 100 50 r6 6 6 6'],
  ['M0 6A6 6 0 0 1 6 0H94A6 6 0 0 1 100 6V50H0Z', '0 0 100 50 r6 6 0 0'],
  ['M50 0A25 25 0 0 1 50 50A25 25 0 0 1 50 0Z', '25 0 50 50 r25 25 25 25'],
  ['M0 0L10 0L5 5Z', null],
  ['M0 0L10 0L10 5L1 5Z', null],
  ['M0 0L100 0L100 40L90 50L0 50Z', null],
  ['M0 0L10 0L10 5L0 5ZM20 20L30 20L30 25L20 25Z', null],
  ['M0 0L10 0L10 5', null],
])('%s is the box %s', (d, expected) => expect(said(d)).toBe(expected));

test('a box with round corners is told, however large they are', () => {
  const size = fc.integer({ min: 12, max: 900 });
  fc.assert(
    fc.property(size, size, fc.integer({ min: 0, max: 100 }), (width, height, share) => {
      const radius = (share / 200) * Math.min(width, height);
      const found = boxOfOutline(segmentsOf(roundBox(3, 4, width, height, radius)));
      expect(found?.box.width).toBeCloseTo(width, 3);
      if (radius > 1) expect(Math.abs(found!.radii[0][0] - radius)).toBeLessThan(0.4);
    }),
  );
});

test('what is between two boxes is told with both', () => {
  const ring = ringOfOutline(segmentsOf('M0 0H20V20H0ZM2 2V18H18V2Z'));
  expect([ring?.outer.box.width, ring?.inner.box.width]).toEqual([20, 16]);
  expect(ringOfOutline(segmentsOf('M0 0H20V20H0ZM30 2V18H48V2Z'))).toBeNull();
});

test.each([
  ['M4 8L40 8', '4 8 36 0'],
  ['M4 8L4 30', '4 8 0 22'],
  ['M4 8L40 9', null],
])('%s is the line %s', (d, expected) => {
  const line = ruleOfOutline(segmentsOf(d));
  expect(line && `${line.x} ${line.y} ${line.width} ${line.height}`).toBe(expected);
});
