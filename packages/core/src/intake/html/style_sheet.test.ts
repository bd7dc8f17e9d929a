import * as csstree from 'css-tree';
import fc from 'fast-check';
import { fontFaceSchema } from '../../model/design.ts';
import { findProblem } from '../../schema/problem.ts';
import { parseCss } from '../../css/parse_css.ts';
import { cleanDeclarations, cleanStyleSheet, firstOfSrcset, type PageFiles } from './style_sheet.ts';

const files: PageFiles = {
  styleSheet: (reference) =>
    reference === 'more.css'
      ? { text: '.more{color:teal}', file: 'css/more.css' }
      : reference === 'loop.css'
        ? { text: '@import "loop.css"; .l{top:0}', file: 'loop.css' }
        : null,
  picture: (reference) => (reference.startsWith('here') ? `blob:${reference}` : null),
  font: (reference) => (reference.startsWith('here') ? `blob:${reference}` : null),
};
const clean = (css: string): string => cleanStyleSheet(css, 'page.css', files).css;

test.each([
  ['a{background:url(here.png)}', 'a{background:url("blob:here.png")}'],
  ["a{background:url( 'here.png' )}", `a{background:url( "blob:here.png" )}`],
  ['a{background:url(https://e.example/x.png)}', 'a{background:url("data:,")}'],
  [
    'a{background:image-set("here.png" 1x, "gone.png" 2x)}',
    'a{background:image-set("blob:here.png" 1x, "data:," 2x)}',
  ],
  ['.map iframe,\nVIDEO > p{top:0}', '.map tovel-iframe,\ntovel-video > p{top:0}'],
  ['.video,#embed,[object],a:video{object-fit:cover}', '.video,#embed,[object],a:video{object-fit:cover}'],
  ['a{fill:url(#paint)}', 'a{fill:url("#paint")}'],
  ['a{content:"url(https://e.example)"}', 'a{content:"url(https://e.example)"}'],
  ['@import "more.css"; a{top:0}', '.more{color:teal} a{top:0}'],
  ['@import url(gone.css); a{top:0}', ' a{top:0}'],
  ['@import url("more.css"); a{top:0}', '.more{color:teal} a{top:0}'],
  ["@import url( 'more.css' ) screen; a{top:0}", '@media screen{.more{color:teal}} a{top:0}'],
  ['@import "more.css" layer(base) supports(display: grid); a{top:0}', '.more{color:teal} a{top:0}'],
  [
    '@import url(more.css) (max-width: 400px); a{top:0}',
    '@media (max-width: 400px){.more{color:teal}} a{top:0}',
  ],
  ['@import url(more.css); a{top:0}', '.more{color:teal} a{top:0}'],
  ['a{top:0} @import "more.css"; b{top:1px}', 'a{top:0}  b{top:1px}'],
  [
    '@media (max-width:9px){a{background:url(gone.png)}}',
    '@media (max-width:9px){a{background:url("data:,")}}',
  ],
  [
    '@font-face{font-family:A;src:url(here.eot),url(here.woff2)}',
    '@font-face{font-family:"A";font-weight:400;font-style:normal;src:url("blob:here.woff2")}',
  ],
  ['@font-face{font-family:A;font-weight:bold;src:url(gone.woff2)} a{top:0}', ' a{top:0}'],
])('%s', (css, expected) => expect(clean(css)).toBe(expected));

test('a style sheet that imports itself ends', () =>
  expect(clean('@import "loop.css";')).toContain('.l{top:0}'));

test('what is missing is said once for each place', () => {
  const { remarks, fonts } = cleanStyleSheet(
    '@font-face{font-family:Odd;src:url(gone.woff)} a{background:url(gone.png)}',
    'page.css',
    files,
  );
  expect(remarks.map((remark) => remark.code)).toEqual(['font', 'missing']);
  expect(fonts).toEqual([]);
});

test('the best file of a face is taken, with what else is said of it', () => {
  const { fonts } = cleanStyleSheet(
    '@font-face{font-family:"A b";src:url(here.ttf),url(here.woff2?v=1);font-weight:100 900;font-style:italic;unicode-range:U+20}',
    'page.css',
    files,
  );
  expect(fonts).toEqual([
    {
      family: 'A b',
      weight: '100 900',
      style: 'italic',
      unicodeRange: 'U+20',
      address: 'blob:here.woff2?v=1',
    },
  ]);
});

const plainFace = { family: 'A', weight: '400', style: 'normal', address: 'blob:here.ttf' };

test.each<[string, object]>([
  ['font-style:"normal"', {}],
  ['font-style:Italic', { style: 'italic' }],
  ['font-style:slanted', {}],
  ['font-weight:Bold', { weight: '700' }],
  ['font-weight:heavy', {}],
  ['font-weight:"700"', {}],
  ['font-stretch:75%', { stretch: '75%' }],
  ['font-stretch:"wide"', {}],
  ['unicode-range:U+26', { unicodeRange: 'U+26' }],
  ['unicode-range:latin', {}],
])('what is said of a face, %s, counts as far as browsers take it', (said, expected) => {
  const { fonts } = cleanStyleSheet(`@font-face{font-family:A;src:url(here.ttf);${said}}`, 'page.css', files);
  expect(fonts).toEqual([{ ...plainFace, ...expected }]);
});

test('whatever is said of a face, a design can hold it', () => {
  const said = fc.array(
    fc.tuple(
      fc.constantFrom('font-family', 'font-weight', 'font-style', 'font-stretch', 'unicode-range'),
      fc.oneof(
        fc.string({ maxLength: 300 }),
        fc.constantFrom('"normal"', 'bold', 'oblique 10deg', '100 900', 'U+0-FF'),
      ),
    ),
  );
  fc.assert(
    fc.property(said, (declared) => {
      const css = declared.map(([name, value]) => `${name}:${value};`).join('');
      const { fonts } = cleanStyleSheet(
        `@font-face{font-family:A;src:url(here.ttf);${css}}`,
        'page.css',
        files,
      );
      for (const { address: _, ...face } of fonts)
        expect(findProblem(fontFaceSchema, { ...face, asset: 'a'.repeat(64) })).toBeNull();
    }),
  );
});

test('a font whose name cannot be written is told of', () => {
  const { fonts, remarks } = cleanStyleSheet(
    `@font-face{font-family:"a{b}";src:url(here.ttf)}`,
    'page.css',
    files,
  );
  expect(fonts).toEqual([]);
  expect(remarks).toEqual([{ code: 'font', text: expect.stringContaining('under this name') as string }]);
});

/** What a parser finds in a style sheet that would be fetched from elsewhere. */
function outside(css: string): string[] {
  const found: string[] = [];
  csstree.walk(parseCss(css, { parseCustomProperty: true }), (node) => {
    if (node.type === 'Atrule' && node.name === 'import') found.push('import');
    if (node.type === 'Url' && node.value.startsWith('https:')) found.push(node.value);
    if (node.type === 'Function' && /^(src|image-set)$/i.test(node.name))
      node.children.forEach((child) => {
        if (child.type === 'String' && child.value.startsWith('https:')) found.push(child.value);
      });
  });
  return found;
}

test('no reference to elsewhere survives, whatever it is written in', () => {
  const piece = fc.constantFrom(
    'url(',
    ')',
    '"',
    "'",
    'https://e.example/x',
    '{',
    '}',
    '@import ',
    ';',
    'a',
    ':',
    'image-set(',
    '\\75rl(',
    'u\\72 l(',
    '/*',
    '*/',
    'src(',
    ' ',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 24 }), (pieces) => {
      expect(outside(clean(pieces.join('')))).toEqual([]);
    }),
    { numRuns: 500 },
  );
});

test('inline declarations are cleaned the same', () => {
  expect(cleanDeclarations('color:red;background:url(gone.png)', 'p.html', files).css).toBe(
    'color:red;background:url("data:,")',
  );
  expect(cleanDeclarations('color:red', 'p.html', files)).toEqual({ css: 'color:red', remarks: [] });
});

test.each([
  ['a.png 1x, b.png 2x', 'a.png'],
  ['a.png', 'a.png'],
  [' a.png 300w,b.png 600w', 'a.png'],
])('of %s the first is %s', (srcset, first) => expect(firstOfSrcset(srcset)).toBe(first));
