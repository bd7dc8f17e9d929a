import fc from 'fast-check';
import { attentionOn, shareOn } from './attention.ts';

const SIZE = 160;
type Color = readonly [number, number, number];

/** A picture of one colour with boxes of others. */
function picture(
  ground: Color,
  boxes: readonly (readonly [x: number, y: number, size: number, color: Color])[],
) {
  const rgba = new Uint8ClampedArray(SIZE * SIZE * 4).fill(255);
  const paint = (left: number, top: number, size: number, [r, g, b]: Color): void => {
    for (let y = top; y < top + size; y++)
      for (let x = left; x < left + size; x++) {
        const at = 4 * (y * SIZE + x);
        rgba[at] = r;
        rgba[at + 1] = g;
        rgba[at + 2] = b;
      }
  };
  paint(0, 0, SIZE, ground);
  for (const box of boxes) paint(...box);
  return rgba;
}
const WHITE: Color = [255, 255, 255];
const GRAY: Color = [120, 120, 120];
const isIn = ({ x, y }: { x: number; y: number }, left: number, top: number, size: number): boolean =>
  x >= left - 12 && x <= left + size + 12 && y >= top - 12 && y <= top + size + 12;

test.each<[string, Color, readonly (readonly [number, number, number, Color])[]]>([
  ['what is alone on a plain ground', WHITE, [[100, 40, 20, [20, 20, 20]]]],
  [
    'what has another colour than its like',
    WHITE,
    [
      [106, 106, 18, [220, 40, 40]],
      [24, 24, 18, GRAY],
      [64, 24, 18, GRAY],
      [104, 24, 18, GRAY],
      [24, 64, 18, GRAY],
      [64, 64, 18, GRAY],
      [24, 104, 18, GRAY],
    ],
  ],
])('the eye goes first to %s', (_, ground, boxes) => {
  const found = attentionOn(picture(ground, boxes), SIZE, SIZE);
  const [[left, top, size]] = boxes;
  expect(isIn(found.path[0], left, top, size)).toBe(true);
  const page = { width: SIZE, height: SIZE };
  const share = shareOn(found, { x: left - 8, y: top - 8, width: size + 16, height: size + 16 }, page);
  // More than so large a part of the picture would have by itself.
  expect(share).toBeGreaterThan((2 * (size + 16) ** 2) / SIZE ** 2);
});

test('nothing draws the eye on an even ground, and all parts have the same share', () => {
  const found = attentionOn(picture(GRAY, []), SIZE, SIZE);
  expect(found.path).toEqual([]);
  expect(
    shareOn(found, { x: 0, y: 0, width: SIZE / 2, height: SIZE }, { width: SIZE, height: SIZE }),
  ).toBeCloseTo(0.5);
});

test('shares of parts that make up the picture make up all of it, whatever is on it', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(120), fc.nat(120), fc.integer({ min: 4, max: 40 })), { maxLength: 5 }),
      fc.integer({ min: 1, max: SIZE - 1 }),
      (boxes, cut) => {
        const found = attentionOn(
          picture(
            WHITE,
            boxes.map(([x, y, size], i) => [x, y, size, [(40 * i) % 256, 90, 160]] as const),
          ),
          SIZE,
          SIZE,
        );
        const page = { width: SIZE, height: SIZE };
        const [left, right] = [
          { x: 0, y: 0, width: cut, height: SIZE },
          { x: cut, y: 0, width: SIZE - cut, height: SIZE },
        ].map((box) => shareOn(found, box, page));
        expect(left + right).toBeCloseTo(1, 4);
        for (const { x, y } of found.path)
          expect(Math.min(x, y, SIZE - x, SIZE - y)).toBeGreaterThanOrEqual(0);
      },
    ),
    { numRuns: 8 },
  );
});

test.each([
  ['of another size', new Uint8ClampedArray(12), 16, 16],
  ['too small', new Uint8ClampedArray(4 * 4 * 4), 4, 4],
])('a picture %s is refused', (_, rgba, width, height) => {
  expect(() => attentionOn(rgba, width, height)).toThrow(RangeError);
});
