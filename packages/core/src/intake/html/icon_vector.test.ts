import type { GlyphOutline } from '../../fonts/outline.ts';
import { assembleScreen } from './assemble.ts';
import { iconHolder, iconVector, withCutOutColor } from './icon_vector.ts';
import type { ReadElement } from './reading.ts';

const outline: GlyphOutline = { path: 'M0 0', unitsPerEm: 1792, ascent: 1536, descent: -256, advance: 1792 };
const wide: GlyphOutline = { ...outline, unitsPerEm: 1024, ascent: 981, descent: -72 };

/** Heights of the line of a drawing in px, from its margins, and of its baseline from the upper end. */
function lineOf(letter: GlyphOutline, size: number, base: Record<string, string>) {
  const held = iconHolder({ 'font-size': `${size}px`, ...base }, letter);
  const read = {
    path: '0',
    tag: 'i',
    attributes: {},
    box: { x: 0, y: 0, width: 9, height: 9 },
    base: {},
    children: [],
  };
  const { style } = iconVector(letter, 'k', { file: 'a.html', path: '0' }, 'Saw', read, held.over);
  const em = (name: string): number => parseFloat(style.base[name] ?? '0') * size;
  const height = em('height') + em('margin-top') + em('margin-bottom');
  return { held: held.base, height, baseline: height + em('vertical-align') };
}

test.each<[what: string, letter: GlyphOutline, size: number, line: string, height: number, baseline: number]>(
  [
    ['three quarters of the letter', outline, 64 / 3, '16px', 16, 15],
    ['as high as the size, of a letter that is higher', wide, 24, '24px', 24, 22],
    ['said without a unit', wide, 24, '1', 24, 22],
  ],
)(
  'a line that is %s stays so high, with the letter where browsers put it',
  (_, letter, size, line, height, baseline) => {
    const made = lineOf(letter, size, {
      'line-height': line,
      display: 'inline-block',
      'font-family': 'Signs',
    });
    expect(made.held).toMatchObject({
      'line-height': '0',
      height: `${Math.round((height / size) * 1e4) / 1e4}em`,
    });
    expect(made.held['font-family']).toBeUndefined();
    expect(made.height).toBeCloseTo(height, 1);
    expect(made.baseline).toBeCloseTo(baseline, 1);
  },
);

test('what is as high as its letter is that of the drawing alone; what is higher is left to the page', () => {
  expect(lineOf(outline, 16, { 'line-height': '16px' })).toMatchObject({
    held: { 'line-height': '0' },
    height: 16,
  });
  expect(lineOf(outline, 16, { 'line-height': '24px' }).held).toEqual({
    'font-size': '16px',
    'line-height': '24px',
  });
});

test.each([
  [
    'room and edges',
    { 'padding-top': '10px', 'padding-bottom': '10px', 'border-top-width': '1px' },
    'calc(1em + 21px)',
  ],
  ['an edge that is not drawn', { 'border-top-width': '1px', 'border-top-style': 'none' }, '1em'],
  [
    'room beside a size that is that of the content',
    { 'padding-top': '10px', 'box-sizing': 'content-box' },
    '1em',
  ],
  ['room of which nobody knows how much it is', { 'padding-top': '10%' }, undefined],
])('a box with %s around the line is higher by that', (_, edges, height) => {
  const base = { display: 'inline-block', 'line-height': '24px', ...edges };
  expect(lineOf(wide, 24, base as Record<string, string>).held.height).toBe(height);
});

test('a letter that was cut out of a picture has the colour that the picture has on the whole', () => {
  const color = 'rgba(0, 0, 0, 0)';
  const image = 'linear-gradient(60deg, rgb(100, 0, 200), #c82864)';
  const look = { color, 'background-image': image, 'background-clip': 'text', 'font-size': '18px' };
  expect(withCutOutColor(look)).toEqual({ color: 'rgb(150, 20, 150)', 'font-size': '18px' });
  for (const other of [
    { ...look, 'background-clip': 'border-box' },
    { ...look, 'background-image': 'url("a.png")' },
    { ...look, color: 'rgb(0, 0, 0)' },
  ])
    expect(withCutOutColor(other)).toBe(other);
});

test.each([
  ['-15%', '-0.1125em'],
  ['middle', 'middle'],
])('that it stands at %s of its line is %s where the line says nothing any more', (align, is) => {
  const { held } = lineOf(outline, 64 / 3, { 'line-height': '16px', 'vertical-align': align });
  expect(held['vertical-align']).toBe(is);
});

test.each([
  ['in the flow stands before what else is there', undefined, 'a', 'vector'],
  ['placed apart from the flow stays where it says', 'absolute', 'a', 'text'],
  ['before what can hold nothing stays where it is', undefined, 'input', undefined],
])('a sign before an element that is %s', (_, position, tag, first) => {
  const before = {
    content: '"\ue844"',
    'font-family': 'Signs',
    ...(position ? { position, right: '20px' } : {}),
  };
  const box = { x: 0, y: 0, width: 200, height: 20 };
  const at = (path: string, more: Partial<ReadElement>): ReadElement => ({
    path,
    tag: 'div',
    attributes: {},
    box,
    base: {},
    children: [],
    ...more,
  });
  const label = at('1/0/0', { tag: 'span', children: ['Widgets'] });
  const group = at('1/0', {
    tag,
    before,
    iconFont: { family: 'Signs', weight: '400', content: '\ue844' },
    children: tag === 'input' ? [] : [label],
  });
  const glyphs = { find: () => outline };
  const { screen } = assembleScreen(
    { file: 'a.html', screenKey: 'a', title: 'A', asset: () => null, glyphs },
    { width: 1280, height: 900, canvas: {}, hidden: [], body: at('1', { tag: 'body', children: [group] }) },
  );
  const [made] = screen.root.children;
  expect(made.children[0]?.kind).toBe(first);
  expect(made.style.before).toEqual(first === 'vector' ? undefined : before);
});
