import { walkElements } from '../../model/project.ts';
import type { Element } from '../../model/design.ts';
import { boxPath, paintedPage, paintedShape, paintedText } from '../../testing/painted.ts';
import type { PaintedItem, PaintedLink, PaintedPicture } from './painted_page.ts';
import { readPainted } from './read_painted.ts';

const ASSET = 'a'.repeat(64);
const picture = (x: number, y: number, width: number, height: number): PaintedPicture => ({
  kind: 'picture',
  clips: [],
  opacity: 1,
  matrix: [width, 0, 0, height, x, y],
  png: new Uint8Array(),
});

function read(items: readonly PaintedItem[], links: readonly PaintedLink[] = []) {
  const { screen, notices } = readPainted({
    file: 'page.pdf',
    path: '',
    name: 'Page',
    screenKey: 'page',
    page: paintedPage(items, { links }),
    keep: () => ASSET,
  });
  const elements: Element[] = [];
  if (screen) walkElements(screen.root, (element) => void elements.push(element));
  const styleOf = (find: (element: Element) => boolean) => elements.find(find)?.style.base;
  return { screen, notices, elements, styleOf };
}

const isAt = (x: number, y: number, width: number, height: number) => (element: Element) =>
  [element.box.x, element.box.y, element.box.width, element.box.height].join() ===
  [x, y, width, height].join();
const clip = (outline: string, isEvenOdd = false) => ({ outline, isEvenOdd });

test('a box is cut to what its clip shows, and takes the round corners of the clip', () => {
  const round = 'M20 6A6 6 0 0 1 26 0H214A6 6 0 0 1 220 6V300H20Z';
  const { styleOf } = read([
    paintedShape(boxPath(0, 0, 400, 60), { clips: [clip(round)] }),
    paintedShape(boxPath(0, 200, 90, 90), { clips: [clip(boxPath(0, 0, 50, 800))] }),
  ]);
  expect(styleOf(isAt(20, 0, 200, 60))).toMatchObject({
    'border-top-left-radius': '6px',
    'border-top-right-radius': '6px',
  });
  expect(styleOf(isAt(20, 0, 200, 60))?.['border-bottom-left-radius']).toBeUndefined();
  expect(styleOf(isAt(0, 200, 50, 90))).toMatchObject({ 'background-color': '#336699' });
});

test('what its clip hides is not there', () => {
  const { elements } = read([
    paintedText('Seen', 20, 40, 40),
    paintedText('Hidden', 20, 400, 60, { clips: [clip(boxPath(0, 0, 800, 200))] }),
  ]);
  expect(elements.flatMap(({ text }) => text ?? [])).toEqual(['Seen']);
});

test('a blurred shape behind a box is its shadow', () => {
  const shadow = paintedShape(boxPath(0, 0, 800, 600), {
    fill: '#000000',
    opacity: 0.2,
    mask: [picture(76, 86, 348, 248)],
  });
  const { styleOf, notices } = read([
    shadow,
    paintedShape(boxPath(100, 100, 300, 200)),
    paintedText('On it', 120, 140, 60),
  ]);
  // It reaches 24 px beyond the box on each side, and lies 10 px lower.
  expect(styleOf(isAt(100, 100, 300, 200))?.['box-shadow']).toBe('0px 10px 17px #00000033');
  expect(notices).toEqual([]);
});

test('a fill and a line around it are one box; so are two fills', () => {
  const { elements, styleOf } = read([
    paintedShape(boxPath(20, 20, 100, 40), { fill: '#ffffff' }),
    paintedShape(boxPath(20.5, 20.5, 99, 39), {
      fill: null,
      stroke: { color: '#223344', width: 1, isDashed: false },
    }),
    paintedShape(boxPath(20, 200, 100, 40), { fill: '#ffffff' }),
    paintedShape(boxPath(20, 200, 100, 40), { fill: '#00000080' }),
    paintedText('Else', 20, 400, 40),
  ]);
  expect(elements.filter(({ kind }) => kind === 'box').length).toBeGreaterThanOrEqual(3);
  expect(styleOf(isAt(20, 20, 100, 40))).toMatchObject({
    'background-color': '#ffffff',
    'border-top-width': '1px',
    'border-left-color': '#223344',
  });
  expect(styleOf(isAt(20, 200, 100, 40))).toMatchObject({ 'background-color': '#7f7f7f' });
});

test('paths painted one after another are one drawing, and a box behind them is none of it', () => {
  const { elements } = read([
    paintedShape(boxPath(20, 20, 300, 120), { fill: '#eeeeee' }),
    paintedShape('M40 40L60 40L50 60Z'),
    paintedShape('M44 64C50 70 56 70 60 64Z'),
    paintedText('Beside it', 80, 60, 70),
  ]);
  const drawings = elements.filter(({ kind }) => kind === 'vector');
  expect(drawings.map(({ box }) => [box.x, box.y, box.width])).toEqual([[40, 40, 20]]);
  expect(drawings[0].vector?.children.length).toBe(2);
});

test('a picture larger than what shows it covers its place; one that holds text is a background', () => {
  const { elements, styleOf } = read([
    { ...picture(0, -100, 800, 400), clips: [clip(boxPath(0, 0, 800, 200))] },
    paintedText('Over it', 40, 100, 60, { color: '#ffffff' }),
    { ...picture(20, 300, 100, 150), clips: [clip(boxPath(20, 300, 100, 100))] },
  ]);
  expect(styleOf(isAt(0, 0, 800, 200))).toMatchObject({
    'background-image': `url("asset:${ASSET}")`,
    'background-size': 'cover',
    'background-position': '50% 50%',
  });
  const image = elements.find(({ kind }) => kind === 'image');
  expect([image?.box.height, image?.style.base['object-fit'], image?.style.base['object-position']]).toEqual([
    100,
    'cover',
    '50% 0%',
  ]);
});

test('lines that share the middle of their box are centred', () => {
  const { styleOf } = read([paintedShape(boxPath(100, 100, 200, 40)), paintedText('Lend it', 170, 125, 60)]);
  expect(styleOf(({ text }) => text === 'Lend it')?.['text-align']).toBe('center');
});

test.each([
  ['file:///home/someone/site/tools.html', 'tools.html'],
  ['https://mossgate.example/tools', 'https://mossgate.example/tools'],
  ['javascript:alert(1)', undefined],
])('a place that leads to %s', (href, expected) => {
  const { elements } = read(
    [paintedText('Tools', 20, 40, 50)],
    [{ box: { x: 18, y: 20, width: 60, height: 28 }, href }],
  );
  expect(elements.find(({ text }) => text === 'Tools')?.attributes?.href).toBe(expected);
});

test('what was drawn before all that lies on it stays behind it', () => {
  const { styleOf } = read([
    paintedShape(boxPath(0, 0, 800, 120), { fill: '#0c2646' }),
    paintedText('Title', 20, 40, 60),
    paintedShape(boxPath(40, 80, 300, 200), { fill: '#ffffff' }),
    paintedText('In the card', 60, 140, 90),
    paintedShape(boxPath(400, 80, 300, 240), { fill: '#ffffff' }),
    paintedText('In the other', 420, 140, 90),
  ]);
  const behind = styleOf(isAt(0, 0, 800, 120));
  expect(behind).toMatchObject({ position: 'absolute', 'z-index': '-1' });
});

test('colours that show through letters are those of the letters', () => {
  const { styleOf } = read([
    paintedShape(boxPath(0, 0, 800, 600), {
      fill: '#2152ff',
      mask: [paintedText('Welcome back', 20, 60, 120)],
    }),
  ]);
  expect(styleOf(({ text }) => text === 'Welcome back')).toMatchObject({ color: '#2152ff' });
});

test('nothing painted is no screen', () => expect(read([]).screen).toBeNull());
