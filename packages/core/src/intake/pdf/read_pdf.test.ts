import { walkElements } from '../../model/project.ts';
import type { PdfPage, PdfText } from './pdf_page.ts';
import { readPdfPages, rectangleIn, svgOfPage } from './read_pdf.ts';

const text = (words: string, x: number, y: number, width: number, size = 12): PdfText => ({
  text: words,
  x,
  y,
  width,
  size,
  family: 'Arial, sans-serif',
  isBold: size > 20,
  isItalic: false,
  color: '#112233',
  order: y,
});
const page = (more: Partial<PdfPage>): PdfPage => ({
  width: 390,
  height: 600,
  texts: [],
  shapes: [],
  pictures: [],
  leftOut: {},
  ...more,
});
const read = (...pages: PdfPage[]) =>
  readPdfPages({ path: 'leaflet.pdf', bytes: new Uint8Array() }, pages, {
    screenKey: (path) => `leaflet${path}`,
    keep: () => 'a'.repeat(64),
  });

test('pieces of words become lines and lines paragraphs', () => {
  const { screens } = read(
    page({
      texts: [
        text('L', 24, 60, 15, 26),
        text('eaflet', 39, 60, 70, 26),
        text('Three sheds share', 24, 100, 100),
        text('tools with', 127, 100, 60),
        text('every neighbour who asks', 24, 118, 150),
        text('for one.', 24, 136, 40),
        text('A new thought', 24, 180, 80),
      ],
    }),
  );
  const texts: string[] = [];
  walkElements(
    screens[0].root,
    (element) => void (element.text && texts.push(`${element.tag} ${element.text}`)),
  );
  expect(texts).toEqual([
    'h1 Leaflet',
    'p Three sheds share tools with\nevery neighbour who asks\nfor one.',
    'p A new thought',
  ]);
  expect(screens[0].name).toBe('Leaflet');
});

test('what a page paints and a screen cannot show is said', () => {
  const { notices } = read(
    page({ texts: [text('Here', 9, 20, 20)], leftOut: { 'Turned text': 2, 'A shading': 1 } }),
  );
  expect(notices.map((notice) => notice.message)).toEqual([
    'Turned text were, 2 times, left out.',
    'A shading was left out.',
  ]);
});

test('each page is a screen of its own key and source', () => {
  const { screens } = read(
    page({ texts: [text('One', 9, 20, 20)] }),
    page({}),
    page({ texts: [text('Two', 9, 20, 20)] }),
  );
  expect(screens.map((screen) => [screen.key, screen.source.path])).toEqual([
    ['leaflet0', '0'],
    ['leaflet2', '2'],
  ]);
});

test.each([
  ['M0 0L10 0L10 5L0 5Z', '0 0 10 5 r0'],
  ['M2 1L2 9L8 9L8 1L2 1', '2 1 6 8 r0'],
  ['M0 0L10 0L5 5Z', null],
  ['M0 0L10 0L10 5L1 5Z', null],
  ['M4 0L16 0C18 0 20 2 20 4L20 6C20 8 18 10 16 10L4 10C2 10 0 8 0 6L0 4C0 2 2 0 4 0Z', '0 0 20 10 r4'],
  ['M0 0L10 0L10 5L0 5ZM20 20L30 20L30 25L20 25Z', null],
])('%s is the rectangle %s', (path, expected) => {
  const box = rectangleIn(path);
  expect(box && `${box.x} ${box.y} ${box.width} ${box.height} r${box.radius}`).toBe(expected);
});

test('a page is written in the order in which it is painted, and as well-formed XML', () => {
  const svg = svgOfPage(
    page({
      texts: [text('a < b & "c"\u0001', 1, 5, 9)],
      shapes: [
        {
          path: 'M0 0L9 0L9 9L0 9Z',
          fill: '#fff',
          stroke: null,
          strokeWidth: 1,
          isEvenOdd: false,
          opacity: 1,
          order: 1,
        },
      ],
    }),
  );
  expect(svg.indexOf('<rect')).toBeLessThan(svg.indexOf('<text'));
  expect(svg).toContain('a &lt; b &amp; &quot;c&quot;</text>');
});
