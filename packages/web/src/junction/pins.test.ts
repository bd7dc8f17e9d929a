import { pinsOf } from './pins';

const SIZE = { width: 400, height: 800 };
const box = (x: number, y: number, width = 100, height = 20) => ({ x, y, width, height });

test('a pin is on the right edge of its element, and within the picture', () => {
  const pins = pinsOf(
    new Map([
      ['a', box(0, 100)],
      ['b', box(350, 300)],
      ['tall', box(100, 400, 200, 60)],
    ]),
    SIZE,
  );
  expect(Object.fromEntries(pins)).toEqual({
    a: { x: 90, y: 92 },
    b: { x: 390, y: 292 },
    tall: { x: 290, y: 420 },
  });
});

test.each([box(420, 100), box(-120, 100), box(10, 900), box(10, -40)])(
  'what lies outside has none: %j',
  (place) => {
    expect(pinsOf(new Map([['a', place]]), SIZE).size).toBe(0);
  },
);

test('pins do not cover each other', () => {
  const places = new Map(['a', 'b', 'c'].map((key) => [key, box(10, 100)]));
  const ys = [...pinsOf(places, SIZE).values()].map(({ y }) => y);
  expect(ys).toEqual([92, 112, 132]);
});
