import { paintedPage, paintedShape } from '../../testing/painted.ts';
import { FACE_WIDTHS, LETTERS } from './face_widths.ts';
import { withLetters } from './letters.ts';
import type { PaintedItem, PaintedShape } from './painted_page.ts';

const SIZE = 20;
const [family, weight, list] = FACE_WIDTHS[0];
const widths = new Map(list.split(' ').map((width, i) => [[...LETTERS][i], (Number(width) / 1000) * SIZE]));
const TALL = /[A-Zbdfhklt]/;

/** A line of outlines as wide as the letters of a known font; what each is drawn like does not matter but for its height. */
function line(text: string, y: number): PaintedShape[] {
  let x = 10;
  return [...text].flatMap((char): PaintedShape[] => {
    const width = widths.get(char) ?? 0.28 * SIZE;
    const at = x;
    x += width;
    if (char === ' ') return [];
    const [left, right, height] = [
      at + 0.06 * SIZE,
      at + width - 0.06 * SIZE,
      SIZE * (TALL.test(char) ? 0.7 : 0.52),
    ];
    return [
      paintedShape(`M${left} ${y}L${(left + right) / 2} ${y - height}L${right} ${y}Z`, {
        letter: { id: `glyph0-${char.codePointAt(0)}`, face: 'glyph0', x: at, y },
      }),
    ];
  });
}

const LINES = ['Tools in the shed', 'lend a hedge trimmer', 'no tool is too old'];
const page = (...more: PaintedItem[]) =>
  paintedPage([...LINES.flatMap((text, i) => line(text, 40 + 40 * i)), ...more]);

/** A reader that says these lines, one after another down the picture. */
const reader = (said: readonly string[]) => async (pixels: { height: number; width: number }) =>
  said.map((text, i) => ({
    text,
    confidence: 0.9,
    box: { x: 0, y: 30 + (i * (pixels.height - 30)) / said.length, width: pixels.width, height: 20 },
  }));
/** Longest first, as they are put into the picture. */
const inOrder = LINES.toSorted((a, b) => b.replace(/ /g, '').length - a.replace(/ /g, '').length);
const textsOf = (items: readonly PaintedItem[]) =>
  items.flatMap((item) => (item.kind === 'text' ? [item.text] : []));

test('outlines become the letters that are read for them, in the face that they are as wide as', async () => {
  const { items } = await withLetters(page(), reader(inOrder));
  expect(textsOf(items)).toEqual(LINES);
  expect(items[0]).toMatchObject({ family, weight, size: SIZE, x: 10, y: 40 });
});

test('a letter that is misread now and then is what most places say', async () => {
  const misread = inOrder.map((text, i) => (i === 0 ? text.replace('e', 'c') : text));
  expect(textsOf((await withLetters(page(), reader(misread))).items)).toEqual(LINES);
});

test('what stands alone in a font of its own is an icon, and stays a drawing', async () => {
  const icon = paintedShape('M300 40L320 20L340 40Z', {
    letter: { id: 'glyph1-1', face: 'glyph1', x: 300, y: 40 },
  });
  const { items } = await withLetters(page(icon), reader(inOrder));
  expect(items.at(-1)).toBe(icon);
});

test('where nothing is read, all stays as it was painted', async () => {
  const drawn = page();
  expect((await withLetters(drawn, async () => [])).items).toEqual(drawn.items);
});
