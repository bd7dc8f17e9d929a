import { baseName } from '../files.ts';
import { findRegions } from './find_regions.ts';
import { isScreenPicture, pairPictures } from './pairing.ts';
import { type Pixels, sizeOfPicture } from './pixels.ts';

/** A picture that is painted box by box: `[x, y, width, height, colour]`. */
function painted(
  width: number,
  height: number,
  ...boxes: [number, number, number, number, number][]
): Pixels {
  const data = new Uint8Array(width * height * 4).fill(255);
  for (const [x, y, w, h, color] of boxes)
    for (let row = y; row < y + h; row++)
      for (let column = x; column < x + w; column++)
        data.set([color >> 16, (color >> 8) & 255, color & 255, 255], (row * width + column) * 4);
  return { width, height, data };
}
const shown = (pixels: Pixels, lines: Parameters<typeof findRegions>[1] = []): string[] =>
  findRegions(pixels, lines).map(
    ({ kind, box, text }) => `${kind}${text ? `:${text}` : ''} ${box.x},${box.y} ${box.width}x${box.height}`,
  );

describe('regions', () => {
  test('a filled box on a ground', () =>
    expect(shown(painted(200, 120, [20, 30, 100, 40, 0x2f4a3a]))).toEqual(['box 20,30 100x40']));

  test('a bordered box is one thing, whatever is written in it', () => {
    const pixels = painted(
      200,
      120,
      [20, 30, 100, 40, 0x808080],
      [22, 32, 96, 36, 0xf0f0e0],
      [40, 45, 8, 10, 0x101010],
    );
    expect(shown(pixels)).toEqual(['box 20,30 100x40']);
  });

  test('three of one size above each other are rows', () => {
    const pixels = painted(
      200,
      220,
      [20, 10, 150, 40, 0xdddddd],
      [20, 60, 150, 40, 0xdddddd],
      [20, 110, 150, 41, 0xdddddd],
      [20, 170, 90, 30, 0xdddddd],
    );
    expect(shown(pixels)).toEqual([
      'row 20,10 150x40',
      'row 20,60 150x40',
      'row 20,110 150x41',
      'box 20,170 90x30',
    ]);
  });

  test('small things on one line are a text, which gives way to one that was read', () => {
    const letters = [0, 1, 2, 3, 4].map((i): [number, number, number, number, number] => [
      30 + i * 9,
      50,
      6,
      10,
      0x222222,
    ]);
    const hollow = letters.map(([x, y]): [number, number, number, number, number] => [
      x + 2,
      y + 2,
      2,
      4,
      0xffffff,
    ]);
    const pixels = painted(200, 120, ...letters, ...hollow);
    expect(shown(pixels)).toEqual(['text 30,50 42x10']);
    const line = { text: 'Tools', box: { x: 29, y: 49, width: 44, height: 12 }, confidence: 0.9 };
    expect(shown(pixels, [line])).toEqual(['text:Tools 29,49 44x12']);
  });

  test('a bare ground has none', () => expect(shown(painted(60, 60))).toEqual([]));
});

test.each([
  [
    'PNG',
    [0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 0x86, 0, 0, 3, 0x4c],
    '390x844',
  ],
  ['GIF', [71, 73, 70, 56, 57, 97, 10, 0, 20, 0], '10x20'],
  ['JPEG', [0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc0, 0, 11, 8, 0, 50, 0, 60, 1, 1], '60x50'],
  ['half a PNG', [0x89, 0x50, 0x4e, 0x47, 0, 0], null],
  ['no picture', [1, 2, 3], null],
])('the size of a %s', (_, bytes, expected) => {
  const size = sizeOfPicture(new Uint8Array(bytes));
  expect(size && `${size.width}x${size.height}`).toBe(expected);
});

describe('pictures beside designs', () => {
  const picture = (path: string) => ({
    path,
    bytes: new Uint8Array([
      0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 0x86, 0, 0, 3, 0x4c,
    ]),
  });
  const design = (path: string) => ({ path, bytes: new Uint8Array() });
  const pair = (designs: string[], pictures: string[], texts = ''): string =>
    [...pairPictures(designs.map(design), pictures.map(picture), texts).referenceOf]
      .map(([page, { path }]) => `${page}=${path}`)
      .join(' ');

  test.each([
    [['a.html', 'b.html'], ['a.png', 'c.png'], '', 'a.html=a.png'],
    [['a/index.html'], ['a/photo.png'], '', 'a/index.html=a/photo.png'],
    [['a/index.html'], ['a/photo.png'], '<img src="photo.png">', ''],
    [['a.html'], ['b.png', 'c.png'], '', ''],
    [['pages/a.html'], ['shots/A.png'], '', 'pages/a.html=shots/A.png'],
  ])('%s with %s %s', (designs, pictures, texts, expected) =>
    expect(pair(designs, pictures, texts)).toBe(expected),
  );

  test('a picture is a screen where there is nothing that could show it', () => {
    const none = { referenceOf: new Map() };
    expect(isScreenPicture(picture('a.png'), [], none)).toBe(true);
    expect(isScreenPicture(picture('img/a.png'), [design('index.html')], none)).toBe(false);
    expect(isScreenPicture({ path: 'a.png', bytes: new Uint8Array() }, [], none)).toBe(false);
    expect(isScreenPicture(picture('a.gif'), [], none)).toBe(false);
    expect(baseName('x/y.z.png')).toBe('y.z');
  });
});
