import fc from 'fast-check';
import { centredEye, type Eye, fittedEye, movedEye, zoomedEye } from './eye';

test.each<[what: string, drawing: [number, number], room: [number, number], scale: number]>([
  ['a small drawing is not drawn larger', [300, 200], [900, 600], 1],
  ['the width decides', [1800, 200], [900, 600], 0.5],
  ['the height decides', [300, 2400], [900, 600], 0.25],
  ['names of a very large one stay to be seen', [90_000, 200], [900, 600], 0.15],
])('%s', (_, [width, height], [roomWidth, roomHeight], scale) => {
  expect(fittedEye({ width, height }, { width: roomWidth, height: roomHeight })).toEqual({
    x: 0,
    y: 0,
    scale,
  });
});

const number = fc.integer({ min: -2000, max: 2000 });
const eyes = fc.record({ x: number, y: number, scale: fc.double({ min: 0.15, max: 2, noNaN: true }) });
const points = fc.record({ x: number, y: number });

/** What of a drawing lies under a point of the window. */
const under = (eye: Eye, { x, y }: { x: number; y: number }): number[] => [
  eye.x + x / eye.scale,
  eye.y + y / eye.scale,
];
const near = (some: readonly number[], others: readonly number[]): void =>
  some.forEach((one, i) => expect(one).toBeCloseTo(others[i], 6));

test('what lies under the pointer stays there, however near one comes', () => {
  fc.assert(
    fc.property(eyes, points, fc.double({ min: 0.2, max: 5, noNaN: true }), (eye, point, by) => {
      const after = zoomedEye(eye, by, point);
      near(under(after, point), under(eye, point));
      expect(after.scale).toBeGreaterThanOrEqual(0.15);
      expect(after.scale).toBeLessThanOrEqual(2);
    }),
  );
});

test('going on by a way brings what lay that far away, and looking at a point brings it into the middle', () => {
  fc.assert(
    fc.property(eyes, points, points, (eye, by, point) => {
      near(under(movedEye(eye, by), { x: 0, y: 0 }), under(eye, by));
      const room = { width: 800, height: 500 };
      near(under(centredEye(eye, point, room), { x: 400, y: 250 }), [point.x, point.y]);
    }),
  );
});
