import { walkElements } from '../../model/project.ts';
import { boxPath, paintedPage, paintedShape, paintedText } from '../../testing/painted.ts';
import type { PaintedPage } from '../painted/painted_page.ts';
import { readPdfPages } from './read_pdf.ts';

const page = (items: PaintedPage['items'], more: Partial<PaintedPage> = {}): PaintedPage =>
  paintedPage(items, { width: 390, height: 600, ...more });
const read = (...pages: PaintedPage[]) =>
  readPdfPages({ path: 'leaflet.pdf', bytes: new Uint8Array() }, pages, {
    screenKey: (path) => `leaflet${path}`,
    keep: () => 'a'.repeat(64),
  });

test('pieces of words become lines and lines paragraphs', () => {
  const large = { size: 26, weight: 700 };
  const { screens } = read(
    page([
      paintedText('L', 24, 60, 15, large),
      paintedText('eaflet', 39, 60, 70, large),
      paintedText('Three sheds share', 24, 100, 130),
      paintedText('tools with', 158, 100, 70),
      paintedText('every neighbour who asks', 24, 122, 190),
      paintedText('for one.', 24, 144, 50),
      paintedText('A new thought', 24, 190, 100),
    ]),
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
    page([paintedText('Here', 9, 20, 20)], { leftOut: { 'A texture': 2, 'A shading': 1 } }),
  );
  expect(notices.map((notice) => notice.message)).toEqual([
    'A texture were, 2 times, left out.',
    'A shading was left out.',
  ]);
});

test('each page is a screen of its own key and source', () => {
  const { screens } = read(
    page([paintedText('One', 9, 20, 20)]),
    page([]),
    page([paintedText('Two', 9, 20, 20)]),
  );
  expect(screens.map((screen) => [screen.key, screen.source.path])).toEqual([
    ['leaflet0', '0'],
    ['leaflet2', '2'],
  ]);
});

test('one long screen that was cut for paper is one, and that is said', () => {
  const column = (): PaintedPage['items'] => [
    paintedShape(boxPath(0, 0, 100, 600)),
    paintedText('Down to the end', 120, 580, 100),
  ];
  const { screens, notices } = read(page(column(), { isPrinted: true }), page(column(), { isPrinted: true }));
  expect(screens.length).toBe(1);
  // A last page ends where what is on it does.
  expect(screens[0].height).toBeGreaterThan(1180);
  expect(notices[0].message).toMatch(/^Its 2 pages are one long screen/);
});
