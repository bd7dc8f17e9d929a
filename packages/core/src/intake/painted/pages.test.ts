import { boxPath, paintedPage, paintedShape, paintedText } from '../../testing/painted.ts';
import { screensOfPages } from './join_pages.ts';
import { movedPage } from './moved.ts';
import type { PaintedPage } from './painted_page.ts';
import { pixelScale } from './pixel_scale.ts';

const boxes = (scale: number, ...sizes: number[]): PaintedPage =>
  paintedPage(
    sizes.map((size, i) => paintedShape(boxPath(i * 16 * scale, 24 * scale, size * scale, 32 * scale))),
    { width: 1280 * scale },
  );

test.each([
  ['as design programs write them', boxes(1, 17, 23, 101, 310), 1],
  ['as browsers print them', boxes(0.75, 17, 23, 101, 310), 4 / 3],
  ['with nothing to tell by', paintedPage([], { width: 500 }), 1],
])('px are told from lengths: %s', (_, page, expected) => expect(pixelScale([page])).toBe(expected));

test('a page that is made larger keeps what belongs together', () => {
  const clips = [{ outline: boxPath(0, 0, 30, 30), isEvenOdd: false }];
  const page = paintedPage([
    paintedShape(boxPath(0, 0, 30, 30), { clips }),
    paintedText('Twice', 3, 9, 30, { size: 6, clips }),
  ]);
  const { items, width } = movedPage(page, 2, 5);
  expect(width).toBe(1600);
  expect(items[0]).toMatchObject({ outline: 'M0 5L60 5L60 65L0 65Z' });
  expect(items[1]).toMatchObject({ x: 6, y: 23, size: 12 });
  expect(items[0].clips).toBe(items[1].clips);
});

const column = (fill = '#204060') => paintedShape(boxPath(0, 0, 200, 600), { fill });
const filled = (text: string, y = 560) => [column(), paintedText(text, 240, y, 100)];

test('pages that a browser printed from one are one again, and what was cut is whole', () => {
  const [page, ...more] = screensOfPages(
    [paintedPage(filled('First')), paintedPage([column(), paintedText('Last', 240, 60, 60)])],
    true,
  );
  expect(more).toEqual([]);
  const columns = page.items.filter(({ kind }) => kind === 'shape');
  expect(columns.length).toBe(1);
  expect(columns[0]).toMatchObject({ outline: boxPath(0, 0, 200, 1200) });
  expect(page.items.find((item) => item.kind === 'text' && item.text === 'Last')).toMatchObject({ y: 660 });
  expect(page.height).toBeLessThan(700);
});

test('what stays in its place while one scrolls is there once', () => {
  const bar = ['One', 'Two', 'Three', 'Four', 'Five'].map((text, i) =>
    paintedText(text, 20 + 80 * i, 30, 50),
  );
  const [page] = screensOfPages(
    [paintedPage([...bar, ...filled('First')]), paintedPage([...bar, ...filled('Last')])],
    true,
  );
  expect(
    page.items.filter((item) => item.kind === 'text').map((item) => (item.kind === 'text' ? item.text : '')),
  ).toEqual(['One', 'Two', 'Three', 'Four', 'Five', 'First', 'Last']);
});

test.each([
  ['end where somebody wanted', [paintedPage(filled('One', 200)), paintedPage(filled('Two', 200))], true],
  ['are of other sizes', [paintedPage(filled('One')), paintedPage(filled('Two'), { height: 900 })], true],
  [
    'have the same bars',
    [1, 2].map((n) =>
      paintedPage([
        ...['Tools', 'Loans', 'Members', 'Help'].map((text, i) => paintedText(text, 20, 40 + 30 * i, 60)),
        ...filled(`Page ${n}`),
      ]),
    ),
    false,
  ],
] as const)('pages that %s stay apart', (_, pages, isPrinted) =>
  expect(screensOfPages(pages, isPrinted).length).toBe(2),
);
