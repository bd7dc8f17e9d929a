import { isBounded, lengthAt } from './bounded_lengths.ts';

const wide = { width: 1280, height: 800, rem: 16 };
const narrow = { width: 390, height: 844, rem: 16 };

test.each<[string, number | null, number | null]>([
  ['clamp(1.5rem, 5vw, 4rem)', 64, 24],
  ['clamp(20px, 1rem + 2vw, 40px)', 40, 23.8],
  ['clamp(20px, calc(1rem + 2vw), 40px)', 40, 23.8],
  ['min(50vw, 400px)', 400, 195],
  ['max(50vw, 400px)', 640, 400],
  ['max(10px, min(5vw, 30px) * 2)', 60, 39],
  ['calc(100vw - 2rem)', 1248, 358],
  ['calc((100vw - 80px) / 2)', 600, 155],
  ['min(10dvh, 10svw)', 80, 39],
  ['min(1vmin, 99px)', 8, 3.9],
  ['clamp(-10px, -2vw, -4px)', -10, -7.8],
  ['12px', 12, 12],
  ['min(100%, 40px)', null, null],
  ['clamp(1em, 2vw, 3em)', null, null],
  ['clamp(1px, 2vw)', null, null],
  ['min(1px, 2vw', null, null],
  ['min(1px, 2vw) solid', null, null],
  ['var(--gap)', null, null],
  ['', null, null],
])('“%s” comes to %s px in a wide window, and to %s in a narrow one', (text, atWide, atNarrow) => {
  for (const [measures, expected] of [
    [wide, atWide],
    [narrow, atNarrow],
  ] as const) {
    const found = lengthAt(text, measures);
    if (expected === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(expected, 5);
  }
});

test.each([
  ['clamp(1rem, 2vw, 3rem)', true],
  ['min(100% - 2rem, 50dvh)', true],
  ['clamp(1rem, 2%, 3rem)', false],
  ['calc(1rem + 2vw)', false],
])('“%s” follows the window within bounds: %s', (text, expected) => expect(isBounded(text)).toBe(expected));
