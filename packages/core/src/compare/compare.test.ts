import fc from 'fast-check';
import type { Pixels } from '../intake/picture/pixels.ts';
import type { Box } from '../model/design.ts';
import { rendered, renderingOf } from '../testing/rendered.ts';
import { causesOf } from './causes.ts';
import { compareDrawn } from './compare.ts';
import { pairRenderings, pairsWithin } from './pairs.ts';
import { pixelDifference, TILE } from './pixel_difference.ts';
import type { RenderedElement } from './rendering.ts';

const white = (width: number, height: number): Pixels => ({
  width,
  height,
  data: new Uint8Array(width * height * 4).fill(255),
});
const filled = (pixels: Pixels, { x, y, width, height }: Box, [r, g, b]: readonly number[]): Pixels => {
  const data = new Uint8Array(pixels.data);
  for (let row = y; row < y + height; row++)
    for (let column = x; column < x + width; column++)
      data.set([r, g, b, 255], (row * pixels.width + column) * 4);
  return { ...pixels, data };
};

const heading = (more: Parameters<typeof rendered>[1] = {}): RenderedElement =>
  rendered('h1', {
    text: 'Tools to borrow',
    box: [20, 20, 300, 36],
    ...more,
    look: { 'font-size': '30px', ...more.look },
  });
const card = (more: Parameters<typeof rendered>[1] = {}, ...inner: RenderedElement[]): RenderedElement =>
  rendered(
    'section',
    { box: [20, 80, 400, 100], ...more, look: { 'background-color': 'rgb(255, 255, 255)', ...more.look } },
    ...inner,
  );
const row = (text: string, y: number, more: Parameters<typeof rendered>[1] = {}): RenderedElement =>
  rendered('p', { text, box: [36, y, 200, 20], ...more });

const said = (was: RenderedElement[], is: RenderedElement[]): string[] =>
  causesOf(pairRenderings(renderingOf(...was).root, renderingOf(...is).root), null).causes.map(
    ({ name, says, alsoAt }) => `${name}: ${says}${alsoAt ? ` (+${alsoAt})` : ''}`,
  );

test('words that stood in an element of their own and stand beside it now are the same', () => {
  const listing = (text: string, ...marked: string[]): RenderedElement =>
    rendered(
      'code',
      { text, id: 'listing', box: [20, 20, 300, 20] },
      ...marked.map((word, i) => rendered('span', { text: word, box: [40 + 40 * i, 20, 30, 20] })),
    );
  const whole = 'Whoever borrows a hedge trimmer brings it back dry';
  const without = whole.replace('hedge ', '');
  expect(said([listing(without, 'hedge', 'saw')], [listing(whole, 'saw')])).toEqual([]);
  expect(said([listing(without, 'hedge', 'saw')], [listing(whole, 'axe')])).not.toEqual([]);
  expect(said([listing('from')], [listing('form')])).toEqual(['from: says “form”, was “from”']);
});

describe('causes are told', () => {
  const rows = [row('Hedge trimmer', 96), row('Pillar drill', 126)];
  test.each<[string, RenderedElement[], RenderedElement[], string[]]>([
    ['nothing', [heading()], [heading()], []],
    [
      'a size of letters, and not the lines that grow with it',
      [heading({ look: { 'line-height': '36px' } })],
      [heading({ look: { 'font-size': '28px', 'line-height': '33.6px' }, box: [20, 20, 280, 34] })],
      ['Tools to borrow: font-size 28 px, was 30 px'],
    ],
    [
      'a background',
      [card({ look: { 'background-color': 'rgb(11, 31, 29)' } }, ...rows)],
      [card({}, ...rows)],
      ['Hedge trimmer: background-color #ffffff, was #0b1f1d'],
    ],
    [
      'a text',
      [heading()],
      [heading({ text: 'All tools' })],
      ['Tools to borrow: says “All tools”, was “Tools to borrow”'],
    ],
    [
      'a picture',
      [rendered('img', { label: 'Shed', box: [0, 0, 80, 80] })],
      [rendered('img', { label: 'Shed', box: [0, 0, 80, 80], picture: 'missing' })],
      ['Shed: picture missing'],
    ],
    [
      'nothing of a sign of a font that is a drawing now',
      [
        rendered('i', {
          isIcon: true,
          box: [20, 20, 24, 24],
          look: { 'font-size': '24px', transform: 'scale(0.75)' },
        }),
      ],
      [rendered('span', { box: [20, 20, 18, 18] }, rendered('svg', { box: [20, 20, 18, 18] }))],
      [],
    ],
    [
      'a font',
      [heading()],
      [heading({ font: 'serif' })],
      ['Tools to borrow: font falls back to serif, was Archivo'],
    ],
    [
      'what lies over something that is pressed',
      [rendered('button', { text: 'Reserve', box: [20, 20, 90, 40] })],
      [rendered('button', { text: 'Reserve', box: [20, 20, 90, 40], cover: { path: '1/3', name: 'Photo' } })],
      ['Reserve: covered by Photo, cannot be pressed'],
    ],
    [
      'lines',
      [row('A sentence of some length', 96)],
      [row('A sentence of some length', 96, { lines: 2, box: [36, 96, 200, 40] })],
      ['A sentence of some length: wraps to 2 lines, was 1'],
    ],
    [
      'a width',
      [card({}, ...rows)],
      [card({ box: [20, 80, 388, 100] }, ...rows)],
      ['Hedge trimmer: 12 px narrower'],
    ],
    [
      'a place',
      [heading(), rows[0]],
      [heading({ box: [32, 20, 300, 36] }), rows[0]],
      ['Tools to borrow: 12 px further right'],
    ],
    ['what is missing', [heading(), ...rows], [heading(), rows[0]], ['Pillar drill: is missing']],
    [
      'what nobody drew',
      [heading(), rows[0]],
      [heading(), ...rows],
      ['Pillar drill: is not in the reference'],
    ],
  ])('%s', (_, was, is, expected) => expect(said(was, is)).toEqual(expected));

  test('once, at what says it, where it moves or changes much', () => {
    const list = (top: number, color: string): RenderedElement[] =>
      ['Saw', 'Drill', 'Press'].map((text, i) => row(text, top + 30 * i, { look: { color } }));
    const was = [heading(), card({}, ...list(96, 'rgb(1, 2, 3)'))];
    const is = [
      heading({ text: 'Two lines of it', lines: 2, box: [20, 20, 300, 72] }),
      card({ box: [20, 116, 400, 100] }, ...list(132, 'rgb(9, 9, 9)')),
    ];
    expect(said(was, is)).toEqual([
      'Tools to borrow: says “Two lines of it”, was “Tools to borrow”',
      'Saw: color #090909, was #010203 (+2)',
    ]);
  });

  test('not where wrappers hold the same room otherwise', () => {
    const inner = [row('Saw', 96), row('Drill', 126)];
    const was = [rendered('div', { box: [0, 60, 600, 200], look: { 'padding-left': '36px' } }, ...inner)];
    const is = [
      rendered('div', { box: [0, 60, 600, 200] }, rendered('div', { box: [36, 96, 564, 100] }, ...inner)),
    ];
    expect(said(was, is)).toEqual([]);
  });
});

test('what shows in no pixel is no difference, and what many pixels show is told first', () => {
  const page = white(640, 320);
  const [small, large] = [
    { x: 16, y: 16, width: 32, height: 32 },
    { x: 64, y: 64, width: 320, height: 160 },
  ];
  const box = ({ x, y, width, height }: Box): [number, number, number, number] => [x, y, width, height];
  const tree = (...colors: string[]): RenderedElement[] =>
    [small, large, { x: 400, y: 8, width: 40, height: 40 }].map((at, i) =>
      rendered('section', { id: `part-${i}`, box: box(at), look: { 'background-color': colors[i] } }),
    );
  const black = [0, 0, 0];
  const found = compareDrawn(
    {
      pixels: page,
      rendering: renderingOf(...tree('rgb(255, 255, 255)', 'rgb(255, 255, 255)', 'rgb(255, 255, 255)')),
    },
    {
      pixels: filled(filled(page, small, black), large, black),
      rendering: renderingOf(...tree('rgb(0, 0, 0)', 'rgb(1, 1, 1)', 'rgb(254, 254, 254)')),
    },
  );
  expect(found.causes.map(({ name, says }) => `${name}: ${says}`)).toEqual([
    'section part-1: background-color #010101, was #ffffff',
    'section part-0: background-color #000000, was #ffffff',
  ]);
  expect(found.unexplained).toBe(0);
  expect(found.share).toBeCloseTo((32 * 32 + 320 * 160) / (640 * 320), 3);
});

test('what looks otherwise although nothing that is computed differs is told by its element', () => {
  const page = white(320, 160);
  const tree = (): RenderedElement => rendered('img', { label: 'Shed', box: [32, 32, 64, 64] });
  const is = filled(page, { x: 40, y: 40, width: 32, height: 32 }, [200, 0, 0]);
  const { causes, unexplained } = compareDrawn(
    { pixels: page, rendering: renderingOf(tree()) },
    { pixels: is, rendering: renderingOf(tree()) },
  );
  expect(causes.map(({ name, says }) => `${name}: ${says}`)).toEqual(['Shed: 25 % of it looks otherwise']);
  expect(unexplained).toBe(0);
});

test.each([
  ['is told where much of it shows', { x: 0, y: 0, width: 1280, height: 400 }, true],
  ['is the same where hardly anything differs', { x: 40, y: 40, width: 40, height: 40 }, false],
])('the ground of a page %s', (_, at, isTold) => {
  const page = white(1280, 800);
  const on = (color: string) => {
    const rendering = renderingOf(rendered('p', { box: [8, 8, 600, 20] }));
    const { root } = rendering;
    return {
      ...rendering,
      root: { ...root, styles: rendered('html', { look: { 'background-color': color } }).styles },
    };
  };
  const { causes } = compareDrawn(
    { pixels: page, rendering: on('rgb(236, 240, 243)') },
    { pixels: filled(page, at, [0, 0, 0]), rendering: on('rgba(0, 0, 0, 0)') },
  );
  expect(causes.some(({ property }) => property === 'background-color')).toBe(isTold);
});

test('a decision of somebody is told as one, and last', () => {
  const was = [heading({ key: 'home:1' }), row('Saw', 96, { key: 'home:2' })];
  const is = [heading({ look: { color: 'rgb(200, 0, 0)' } }), row('Saws', 96)];
  const { causes } = causesOf(pairRenderings(renderingOf(...was).root, renderingOf(...is).root), null, {
    isDecided: (element, property) => element === 'home:1' && property === 'color',
  });
  expect(causes.map(({ element, isDecided }) => [element, isDecided])).toEqual([
    ['home:2', false],
    ['home:1', true],
  ]);
});

test('pixels are counted where they are, and what only one page has differs', () => {
  const box = fc.record({
    x: fc.nat(60),
    y: fc.nat(60),
    width: fc.integer({ min: 8, max: 40 }),
    height: fc.integer({ min: 8, max: 40 }),
  });
  fc.assert(
    fc.property(box, (at) => {
      const found = pixelDifference(white(100, 100), filled(white(100, 100), at, [0, 0, 0]));
      const marked = found.marks.reduce((sum, mark) => sum + mark, 0);
      const counted = found.tiles.counts.reduce((sum, count) => sum + count, 0);
      expect(marked).toBe(counted);
      expect(marked).toBe(at.width * at.height);
      const tile = found.tiles.columns * Math.floor(at.y / TILE) + Math.floor(at.x / TILE);
      expect(found.tiles.counts[tile]).toBeGreaterThan(0);
    }),
    { numRuns: 40 },
  );
  expect(pixelDifference(white(10, 10), white(10, 20)).share).toBeCloseTo(0.5);
});

test('each element is paired at most once, within what its surroundings are paired with', () => {
  const node = (depth: number): fc.Arbitrary<RenderedElement> =>
    fc
      .tuple(
        fc.constantFrom('div', 'p', 'section', 'svg', 'img', 'a'),
        fc.constantFrom('', 'Saw', 'Drill', 'Press'),
        fc.tuple(fc.nat(600), fc.nat(600), fc.nat(300), fc.nat(100)),
        depth ? fc.array(node(depth - 1), { maxLength: 3 }) : fc.constant([]),
      )
      .map(([tag, text, box, inner]) =>
        rendered(tag, { text, box }, ...(tag === 'svg' || tag === 'img' ? [] : inner)),
      );
  const tree = node(3);
  fc.assert(
    fc.property(tree, tree, (a, b) => {
      const pairs = [...pairsWithin(pairRenderings(renderingOf(a).root, renderingOf(b).root))];
      expect(new Set(pairs.map(({ was }) => was)).size).toBe(pairs.length);
      expect(new Set(pairs.map(({ is }) => is)).size).toBe(pairs.length);
      // The same page is itself throughout.
      const own = [...pairsWithin(pairRenderings(renderingOf(a).root, renderingOf(a).root))];
      expect(own.every(({ gone, added }) => !gone.length && !added.length)).toBe(true);
    }),
    { numRuns: 60 },
  );
});
