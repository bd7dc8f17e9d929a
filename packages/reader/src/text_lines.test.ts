import type { Pixels } from '@tovel/core';
import { decode } from 'fast-png';
import { type Recogniser, readTextLines } from './text_lines.ts';

const line = (text: string, confidence: number, x0: number) => ({
  text,
  confidence,
  bbox: { x0, y0: 10, x1: x0 + 50, y1: 22 },
});
/** Answers each pass with its own lines, and remembers the pictures that it was given. */
const recogniser = (...passes: ReturnType<typeof line>[][]): Recogniser & { seen: Uint8Array[] } => {
  const seen: Uint8Array[] = [];
  return {
    seen,
    recognize: async (image) => {
      seen.push(image as unknown as Uint8Array);
      return { data: { blocks: [{ paragraphs: [{ lines: passes[seen.length - 1] ?? [] }] }] } };
    },
  };
};
const pixels: Pixels = { width: 2, height: 1, data: Uint8Array.from([0, 0, 0, 255, 255, 0, 0, 0]) };
const read = (worker: Recogniser) => readTextLines(worker, pixels, (png) => png);

test('text is looked for dark on light and light on dark, and what shows through is white', async () => {
  const worker = recogniser([], []);
  await read(worker);
  expect(worker.seen.map((png) => [...decode(png).data])).toEqual([
    [0, 0, 0, 255, 255, 255],
    [255, 255, 255, 0, 0, 0],
  ]);
});

test.each([
  [
    'what only one pass sees',
    [[line('Tools', 90, 0)], [line('Reserve', 80, 100)]],
    ['Tools 0.9', 'Reserve 0.8'],
  ],
  ['the surer of two readings', [[line('T00ls', 40, 0)], [line('Tools', 90, 2)]], ['Tools 0.9']],
  [
    'the first where the second is no surer',
    [[line('Tools', 85, 0)], [line('Tcols', 90, 2)]],
    ['Tools 0.85'],
  ],
  ['nothing that holds no letter', [[line(' --- ', 90, 0), line(' \n ', 90, 60)], []], []],
  ['words with single spaces', [[line(' Hedge \n trimmer\n', 90, 0)], []], ['Hedge trimmer 0.9']],
])('it gives %s', async (_, passes, expected) => {
  expect((await read(recogniser(...passes))).map(({ text, confidence }) => `${text} ${confidence}`)).toEqual(
    expected,
  );
});

test('a picture without any block has no lines', async () => {
  expect(await read({ recognize: async () => ({ data: { blocks: null } }) })).toEqual([]);
});
