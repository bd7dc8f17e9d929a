import { resolveReference } from '../files.ts';
import fc from 'fast-check';
import { type DefaultTreeAdapterMap, parse } from 'parse5';
import { limits } from '../limits.ts';
import { type PageFiles, sanitisePage } from './sanitise.ts';

const files: PageFiles = {
  styleSheet: (reference, from) =>
    reference === 'page.css'
      ? {
          text: '@import "more.css"; .a { background: url(bg.png); color: red } @font-face { font-family: "Odd"; src: url(odd.woff2) }',
          file: 'css/page.css',
        }
      : reference === 'more.css' && from === 'css/page.css'
        ? { text: '.b { background: url(https://elsewhere.example/b.png) }', file: 'css/more.css' }
        : null,
  picture: (reference) => (['bg.png', 'photo.png'].includes(reference) ? `blob:${reference}` : null),
  font: (reference) => (reference === 'even.woff2' ? 'blob:even' : null),
};
const clean = (text: string) => sanitisePage('page.html', text, files);

/** What a browser would make of it: elements and attributes that could run something. */
function unsafeIn(node: DefaultTreeAdapterMap['node']): string[] {
  const attributes =
    'attrs' in node
      ? node.attrs.filter(({ name, value }) => /^on/i.test(name) || /^\s*javascript:/i.test(value))
      : [];
  const inner = 'content' in node ? [node.content] : 'childNodes' in node ? node.childNodes : [];
  return [
    ...(node.nodeName === 'script' ? ['script'] : []),
    ...attributes.map(({ name }) => name),
    ...inner.flatMap(unsafeIn),
  ];
}

const hostile: readonly [what: string, html: string][] = [
  ['a script', '<script>alert(1)</script>'],
  ['a script of a drawing', '<svg><script>alert(1)</script></svg>'],
  ['an event attribute', '<p onclick="alert(1)" ONLOAD=alert(1)>'],
  ['a script address', '<a href="javascript:alert(1)">'],
  ['a script address in disguise', '<a href=" java\nscript&#58;alert(1)">'],
  ['a data page', '<a href="data:text/html,<script>alert(1)</script>">'],
  ['a form to a script', '<form action="javascript:alert(1)"><button formaction="javascript:alert(1)">'],
  [
    'a frame',
    '<iframe src="https://evil.example"></iframe><iframe srcdoc="<script>alert(1)</script>"></iframe>',
  ],
  ['an object', '<object data="https://evil.example/x"></object><embed src="https://evil.example/x">'],
  ['an outside picture', '<img src="https://evil.example/x.png" srcset="https://evil.example/y.png 2x">'],
  ['an outside style sheet', '<link rel="stylesheet" href="https://evil.example/x.css">'],
  ['an outside import', '<style>@import url(https://evil.example/x.css);</style>'],
  ['an outside background', '<p style="background: url(https://evil.example/x.png)">'],
  ['a moved base', '<base href="https://evil.example/">'],
  ['a refresh', '<meta http-equiv="refresh" content="0;url=https://evil.example">'],
  ['a preload', '<link rel="preload" href="https://evil.example/x" as="script">'],
  [
    'an outside symbol',
    '<svg><use href="https://evil.example/a.svg#b"/><image href="https://evil.example/x.png"/></svg>',
  ],
  [
    'code as the name of an attribute',
    `<svg {...(fetch('https://evil.example'))}b="1"><path d="M0 0"/></svg>`,
  ],
  ['a name that ends its element', '<p aria-label{x}="1">x</p>'],
  ['an outside paint', '<svg><rect fill="url(https://evil.example/a.svg#b)" width="9" height="9"/></svg>'],
  [
    'an outside pointer',
    '<svg cursor="url(https://evil.example/c.cur)"><g filter="url(&quot;https://evil.example/f#a&quot;)"/></svg>',
  ],
  ['an animated address', '<svg><a><animate attributeName="href" values="javascript:alert(1)"/>x</a></svg>'],
  ['an outside effect', '<svg><filter id="f"><feImage href="https://evil.example/i.png"/></filter></svg>'],
  [
    'markup that is another when it is read again',
    '<form><math><mtext></form><form><mglyph><style></math><img src onerror=alert(1)>',
  ],
  [
    'a comment that is none',
    '<math><mtext><table><mglyph><style><!--</style><img title="--&gt;&lt;img src=1 onerror=alert(1)&gt;">',
  ],
  ['raw text that is none', '<svg><p><style><g title="</style><img src=1 onerror=alert(1)>"></style></svg>'],
  ['text of old', '<xmp><img src=1 onerror=alert(1)></xmp><noembed><img src=1 onerror=alert(1)></noembed>'],
  [
    'a page in a drawing',
    '<svg><foreignObject><iframe srcdoc="<script>alert(1)</script>"/></foreignObject></svg>',
  ],
  ['a style that ends itself', '<style>p{content:"</style><script>alert(1)</script>"}</style>'],
];
test.each(hostile)('%s does not get through', (_, html) => {
  const safe = clean(`<body>${html}<h1>Stays</h1></body>`).html;
  expect(safe).not.toMatch(
    /<script|javascript|alert\(1\)<|onclick|onload|<iframe|<object|<embed|<base|http-equiv/i,
  );
  expect(safe).not.toMatch(/(src|href|url\(|import)[^>]*evil\.example/i);
});

test('nothing that any text holds becomes a script or an event attribute', () => {
  const piece = fc.constantFrom(
    '<script',
    '>',
    '<p',
    ' onclick=',
    '"x"',
    '<svg',
    '<style',
    '</style>',
    'javascript:',
    '<a href=',
    '<!--',
    '-->',
    '<math',
    '<noscript>',
    'text',
    '<template>',
    "'",
    '&lt;',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 25 }), (pieces) => {
      const { html } = clean(pieces.join(''));
      expect(unsafeIn(parse(html))).toEqual([]);
    }),
    { numRuns: 400 },
  );
});

test('style sheets are taken in with what they import, and only pictures that came along stay', () => {
  const { html, notices } = clean(
    '<head><link rel="stylesheet" href="page.css"></head><body class="a"></body>',
  );
  expect(html).toContain('url("blob:bg.png")');
  expect(html).toContain('.b { background: url("data:,") }');
  expect(html).not.toContain('@font-face');
  expect(notices.map((notice) => notice.message)).toEqual([
    'The picture “https://elsewhere.example/b.png” is somewhere else and is not fetched; bring the file in with the page.',
    'The file of the font “Odd” did not come along; the next one in each list is used. Bring it in with the page.',
  ]);
});

test('what a sheet of many pictures misses is said once, and what a page misses by itself of each', () => {
  const icons = Array.from({ length: 40 }, (_, i) => `.icon-${i} { background: url(icon-${i}.svg) }`).join(
    '',
  );
  const { notices } = sanitisePage(
    'page.html',
    '<head><link rel="stylesheet" href="icons.css"></head><body><img src="lost.png"></body>',
    { ...files, styleSheet: () => ({ text: icons, file: 'css/icons.css' }) },
  );
  expect(notices.map(({ code, message }) => `${code}: ${message}`)).toEqual([
    'html-missing: 40 pictures that “css/icons.css” shows are not there: “icon-0.svg”, “icon-1.svg” and 38 more. Bring the files in with the page.',
    'html-missing: The picture “lost.png” did not come along; bring the file in with the page.',
  ]);
});

test.each([
  ['./../', '/other.html#x'],
  ['/', '/other.html#x'],
  ['../', '/other.html#x'],
  ['sub/page.html', '/base/sub/other.html#x'],
  // What starts from somewhere else stays as it is.
  ['https://elsewhere.example/', 'other.html#x'],
  ['../../../', 'other.html#x'],
])('what a page refers to starts from its base %s', (base, expected) => {
  const asked: string[] = [];
  const { html } = sanitisePage(
    'base/cards.html',
    `<head><base href="${base}"><link rel="stylesheet" href="page.css"></head><body><a href="other.html#x">a</a><a href="#y">b</a>`,
    {
      ...files,
      styleSheet: (href, from) => {
        asked.push(resolveReference(href, from) ?? '');
        return null;
      },
    },
  );
  expect(html).toContain(`<a href="${expected}"`);
  expect(html).toContain('<a href="#y"');
  expect(asked).toEqual([
    expected
      .replace(/^\//, '')
      .replace('other.html#x', 'page.css')
      .replace(/^page/, expected.startsWith('/') ? 'page' : 'base/page'),
  ]);
  expect(html).not.toContain('<base');
});

test('elements are marked with their path, dropped ones counted', () => {
  const { html } = clean('<body><script></script><p>a</p><!-- c --><ul><li>b</ul></body>');
  expect(html).toContain('<p data-tovel-path="1/1">');
  expect(html).toContain('<li data-tovel-path="1/2/0">');
});

test('an empty line at the beginning of preformatted text is there when it is read again', () => {
  const textOfPre = (html: string): string => {
    const [, text] = /<pre[^>]*>([^<]*)</.exec(html)!;
    return text;
  };
  // Of two the parser leaves the first out, each time.
  expect(textOfPre(clean('<pre>\n\nfirst</pre>').html)).toBe('\n\nfirst');
  expect(textOfPre(clean('<pre>\nfirst</pre>').html)).toBe('first');
});

test('the title is read, and a drawn width where the page gives one', () => {
  const page = clean('<title> Members |\n Desk </title><meta name="viewport" content="width=390">');
  expect([page.title, page.width]).toEqual(['Members | Desk', 390]);
  expect(clean('<meta name="viewport" content="width=device-width">').width).toBeNull();
});

test.each<[string, string, string | null]>([
  ['the ids that a press names', `<p onclick="toggle(event, 'menu'); show(&quot;#more&quot;)">`, 'menu more'],
  ['those that a link’s script names', `<a href="javascript:open('menu')">`, 'menu'],
  ['no markup and no code', `<p onclick="x('<b>', 'a b', 'alert(1)', \`$&#123;y&#125;\`)">`, null],
  ['not what is done when a page loads', `<p onload="show('menu')">`, null],
  ['not what a page says of itself', '<p data-tovel-calls="menu">', null],
])('of scripts in markup stays %s', (_, html, expected) => {
  const found = /data-tovel-calls="([^"]*)"/.exec(clean(html).html);
  expect(found ? found[1] : null).toBe(expected);
});

test('the same thing said many times is one notice', () => {
  expect(clean('<p onclick="a()">'.repeat(30)).notices).toEqual([
    expect.objectContaining({
      message: 'An event attribute was left out; wire the element in Junction instead. (30 times)',
    }),
  ]);
});

test('a page of too many elements is refused', () => {
  expect(() => clean('<br>'.repeat(limits.elements + 1))).toThrow(/more than 20000 elements/);
});

test.each([
  ['<iframe width="100%" height="360" src="x"></iframe>', '<tovel-iframe width="100%" height="360"', ''],
  ['<video class="hero" autoplay><source src="a.mp4"></video>', '<tovel-video class="hero"', 'hero'],
  ['<embed src="x">', '<tovel-embed', ''],
])('what shows something of elsewhere leaves its place: %s', (html, style, className) => {
  const { html: made } = clean(`<p>a</p>${html}`);
  expect(made).toContain(style);
  expect(/class="([^"]*)"/.exec(made)?.[1] ?? '').toBe(className);
  expect(made).not.toMatch(/<(iframe|video|source|embed)/);
});

test.each([
  '<iframe height="0" width="0" src="x"></iframe>',
  '<iframe style="display:none" src="x"></iframe>',
  '<object hidden></object>',
])('what nobody sees leaves none: %s', (html) => {
  expect(clean(`<p>a</p>${html}`).html).not.toContain('inline-block');
});

test('the place of what is left out brings nothing in', () => {
  const { html } = clean(
    '<iframe style="background:url(https://evil.example/x.png)" onload="alert(1)"></iframe>',
  );
  expect(html).toContain('<tovel-iframe style');
  expect(html).not.toMatch(/evil|alert/);
});
