import { strToU8, zipSync } from 'fflate';
import { bodyReading } from '../testing/body_reading.ts';
import { svg } from '../testing/build.ts';
import { emptyDesign } from '../model/design.ts';
import { addToDesign, readBatch } from './batch.ts';
import type { InputFile } from './files.ts';
import type { IntakeHost } from './host.ts';
import type { PageReading } from './html/reading.ts';
import { limits } from './limits.ts';

const file = (path: string, content: string | Uint8Array): InputFile => ({
  path,
  bytes: typeof content === 'string' ? strToU8(content) : content,
});
const drawing = svg('<rect width="100" height="40" fill="red"/><text x="9" y="300">Hello</text>');

/** A browser that sees one heading on every page. */
const host: IntakeHost = {
  readPage: async (page, plan): Promise<PageReading> => {
    if (page.html.includes('never loads'))
      throw new Error('The page did not finish loading within 20 seconds.');
    const box = { x: 0, y: 0, width: plan.widths[0], height: 30 };
    const heading = {
      path: '1/0',
      tag: 'h1',
      attributes: {},
      box,
      base: { 'font-size': '20px' },
      children: ['Heading'],
    };
    return bodyReading({ box, children: [heading] }, { width: plan.widths[0] });
  },
  addressOf: (asset) => `blob:${asset.hash}`,
};

test('each drawing and page is a screen, by the name of its file or its title', async () => {
  const { screens, notices } = await readBatch(
    [file('b/tool-detail.svg', drawing), file('a.html', '<title>Members | Desk</title>')],
    host,
  );
  expect(screens.map((screen) => [screen.key, screen.name, screen.source.file, screen.width])).toEqual([
    ['a', 'Members', 'a.html', 1280],
    ['tool-detail', 'Tool detail', 'b/tool-detail.svg', 390],
  ]);
  expect(notices).toEqual([]);
});

test('one bad file never fails the batch', async () => {
  const { screens, notices } = await readBatch(
    [
      file('good.svg', drawing),
      file('cut.svg', drawing.slice(0, 120)),
      file('slow.html', '<p>never loads'),
      file('empty.svg', ''),
      file('huge.svg', new Uint8Array(limits.fileBytes + 1)),
      file('broken.zip', 'PK but not really'),
      file('notes.xyz', 'hello'),
      file('old.tovel', 'x'),
    ],
    host,
  );
  expect(screens.map((screen) => screen.key)).toEqual(['good']);
  expect(notices.map((notice) => `${notice.level} ${notice.code} ${notice.file}`).sort()).toEqual([
    'error archive-unreadable broken.zip',
    'error file-empty empty.svg',
    'error file-too-large huge.svg',
    'error html-unreadable slow.html',
    'error svg-unreadable cut.svg',
    'info file-unknown notes.xyz',
    'warning file-project old.tovel',
  ]);
});

test('a zip is opened, and a zip within it is not', async () => {
  const inner = zipSync({ 'x.svg': strToU8(drawing) });
  const { screens, notices } = await readBatch(
    [file('all.zip', zipSync({ 'screens/home.svg': strToU8(drawing), 'more.zip': inner }))],
    host,
  );
  expect(screens.map((screen) => screen.source.file)).toEqual(['screens/home.svg']);
  expect(notices).toEqual([expect.objectContaining({ code: 'archive-nested' })]);
});

test('originals are kept as assets, and what nothing shows is said', async () => {
  const page = '<link rel="stylesheet" href="style.css"><img src="photo.png"><img src="logo.svg">';
  const { screens, assets, notices, bytes } = await readBatch(
    [
      file('a.html', page),
      file('style.css', 'p{}'),
      file('photo.png', 'png'),
      file('logo.svg', drawing),
      file('lost.png', 'x'),
      file('lost.css', 'x'),
    ],
    host,
  );
  expect(screens.map((screen) => screen.key)).toEqual(['a']);
  expect(assets.map((asset) => asset.file).sort()).toEqual(['a.html', 'logo.svg', 'photo.png', 'style.css']);
  expect([...bytes.keys()].sort()).toEqual(assets.map((asset) => asset.hash).sort());
  const said = notices.map((notice) => `${notice.file} ${notice.code}`).sort();
  expect(said).toEqual([
    'logo.svg shown-by-pages',
    'lost.css css-unused',
    'lost.png picture-unused',
    'photo.png shown-by-pages',
  ]);
});

test.each([
  ['a drawing that a page shows', 'logo.svg', true],
  ['a page that is there twice', 'copy/a.html', true],
  ['nothing that is there', 'gone.svg', false],
])('%s is made a screen when somebody wants it to be one', async (_, only, isThere) => {
  const page =
    '<title>A</title><link rel="stylesheet" href="style.css"><img src="photo.png"><img src="logo.svg">';
  const files = [
    file('a.html', page),
    file('copy/a.html', page),
    file('style.css', 'p{}'),
    file('photo.png', 'png'),
    file('logo.svg', drawing),
    file('lost.css', 'x'),
  ];
  const all = await readBatch(files, host);
  expect(all.screens.map(({ key }) => key)).toEqual(['a']);
  const { screens, notices } = await readBatch(files, host, { only, taken: ['a'] });
  expect(screens.map(({ source }) => source.file)).toEqual(isThere ? [only] : []);
  // Of the others all was said before.
  expect(notices.filter((notice) => notice.file !== only)).toEqual([]);
});

test('screens of one name take that of their file, and keys stay apart from those taken', async () => {
  const { screens } = await readBatch(
    [
      file('a/home.svg', drawing),
      file('b/home.svg', drawing),
      file('x.html', '<title>Desk</title>'),
      file('y.html', '<title>Desk</title>'),
    ],
    host,
    { taken: ['home'] },
  );
  expect(screens.map((screen) => [screen.key, screen.name])).toEqual([
    ['home-2', 'Home'],
    ['home-3', 'Home 2'],
    ['x', 'X'],
    ['y', 'Y'],
  ]);
});

test('progress counts, and cancelling keeps what was read', async () => {
  const seen: string[] = [];
  const { screens, notices, wasCancelled } = await readBatch(
    [file('a.svg', drawing), file('b.svg', drawing), file('c.svg', drawing)],
    host,
    {
      onProgress: ({ done, total, file: name }) => void seen.push(`${done}/${total} ${name}`),
      isCancelled: () => seen.length >= 2,
    },
  );
  expect(seen).toEqual(['0/3 a.svg', '1/3 b.svg', '3/3 ']);
  expect(wasCancelled).toBe(true);
  expect(screens).toHaveLength(2);
  expect(notices).toEqual([expect.objectContaining({ code: 'cancelled', file: 'c.svg' })]);
});

test('pages are read as many at once as there is room for, and come in as one after the other', async () => {
  const names = ['a', 'b', 'c', 'd', 'e'];
  const files = [
    ...names.map((name) =>
      file(`${name}.html`, `<title>${name}</title><p>page ${name}</p><img src="${name}.png">`),
    ),
    ...names.map((name) => file(`${name}.png`, new Uint8Array([name.charCodeAt(0)]))),
    file('b.svg', drawing),
  ];
  let now = 0;
  let most = 0;
  let begun = 0;
  const later: IntakeHost = {
    ...host,
    readsAhead: 2,
    readPage: async (page, plan) => {
      most = Math.max(most, ++now);
      // Whichever was begun first is read last.
      for (let turns = 50 - 10 * begun++; turns > 0; turns--) await Promise.resolve();
      now--;
      if (page.html.includes('page c')) throw new Error('It never ends.');
      return host.readPage(page, plan);
    },
  };
  const one = await readBatch(files, { ...later, readsAhead: 0 });
  expect(most).toBe(1);
  begun = 0;
  const many = await readBatch(files, later);
  expect(most).toBe(3);
  expect(many).toEqual(one);
  expect(many.screens.map(({ key }) => key)).toEqual(['a', 'b', 'b-2', 'd', 'e']);
});

test('what was read is told of as it comes, and asked for only by who wants it', async () => {
  const files = ['a', 'b', 'c'].map((name) =>
    file(`${name}.html`, `<title>${name} of many</title><p>${name}`),
  );
  const seen: string[] = [];
  let told = 0;
  await readBatch(files, host, {
    onScreens: (read) => {
      if (++told !== 2)
        seen.push(
          read()
            .screens.map(({ name }) => name)
            .join(),
        );
    },
  });
  expect(seen).toEqual(['a of many', 'a,b,c']);
});

test.each<[string, readonly string[], readonly string[]]>([
  ['pages and the sources of their styles', ['a.html', 'a.scss', 'b.less'], ['a.scss']],
  ['pages that have a style sheet as well', ['styled.html', 'a.css', 'a.scss'], []],
  ['sources without a page', ['a.svg', 'a.scss'], []],
  ['pages alone', ['a.html'], []],
])('%s: whether styles are not made yet is said', async (_, paths, expected) => {
  const texts: Record<string, string> = {
    'styled.html': '<link rel="stylesheet" href="a.css"><p>x',
    'a.svg': drawing,
  };
  const { notices } = await readBatch(
    paths.map((path) => file(path, texts[path] ?? '<p>x')),
    host,
  );
  expect(notices.filter(({ code }) => code === 'styles-unbuilt').map(({ file: of }) => of)).toEqual(expected);
});

test('the same file twice is one asset, and a design grows by what is new', async () => {
  const first = await readBatch([file('a.svg', drawing)], host);
  const second = await readBatch([file('b.svg', drawing)], host, {
    taken: first.screens.map(({ key }) => key),
  });
  const design = addToDesign(addToDesign(emptyDesign, first), second);
  expect(design.screens.map((screen) => screen.key)).toEqual(['a', 'b']);
  expect(design.assets).toHaveLength(1);
});

test('a font that is there already does not come in again, however it was written down', () => {
  const nothing = { screens: [], assets: [], notices: [] };
  const face = { family: 'Plain', style: 'normal', weight: '400', asset: 'a' };
  const written = { asset: 'a', family: 'Plain', style: 'normal', weight: '400' };
  const bold = { ...face, weight: '700' };
  const design = addToDesign({ ...emptyDesign, fonts: [written] }, { ...nothing, fonts: [face, bold] });
  expect(design.fonts).toEqual([face, bold]);
});

test.each<[string, readonly string[], Record<string, string>, readonly string[]]>([
  [
    'pages of demos that libraries bring along are none of the pile',
    ['home.html', 'vendors/chart/demo/bar.html'],
    {},
    ['home'],
  ],
  [
    'pages of a package within the pile',
    ['home.html', 'js/clock/test.html', 'js/clock/package.json'],
    {},
    ['home'],
  ],
  [
    'a package that holds them all is the pile',
    ['app/home.html', 'app/list.html', 'app/package.json'],
    {},
    ['home', 'list'],
  ],
  [
    'where all lie in such a folder they are the pile',
    ['lib/home.html', 'lib/list.html'],
    {},
    ['home', 'list'],
  ],
  [
    'what a page leads to is one of them, wherever it lies',
    ['home.html', 'lib/help.html', 'lib/demo.html'],
    { 'home.html': '<a href="lib/help.html#top">Help</a>' },
    ['help', 'home'],
  ],
])('%s', async (_, paths, bodies, expected) => {
  const { screens, notices } = await readBatch(
    paths.map((path) =>
      file(path, path.endsWith('.html') ? `<title>Page</title>${bodies[path] ?? ''}` : '{}'),
    ),
    host,
  );
  expect(screens.map(({ source }) => source.file.replace(/^.*\/|\.html$/g, '')).sort()).toEqual(expected);
  const left = notices.filter(({ code }) => code === 'library-pages').map(({ message }) => message);
  expect(left).toHaveLength(paths.filter((path) => path.endsWith('.html')).length - expected.length);
});

describe('drawings beside pages', () => {
  const icon = (i: number): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="512" height="512" viewBox="0 0 512 512"><g><path d="M${i} 2 L30 40"/><path d="M0 0"/><path d="M1 1"/><path d="M2 2"/><path d="M3 3"/></g></svg>`;
  const symbols = (drawn: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900"><symbol id="a" viewBox="0 0 9 9"><path d="M0 0h9v9H0z"/></symbol>${drawn}<defs><path id="b" d="M0 0h9"/></defs></svg>`;
  const page = file('index.html', '<title>Desk</title>');
  const png = file('pics/a.png', 'a picture');
  const logo = icon(7).replace(/512/g, '900');
  const sixOf = (drawn: (i: number) => string): InputFile[] =>
    Array.from({ length: 6 }, (_, i) => file(`svg/d${i}.svg`, drawn(i)));

  test.each<[string, readonly InputFile[], number, readonly string[]]>([
    [
      'a folder of icons of one size is no pile of screens',
      [page, ...sixOf(icon)],
      1,
      Array(6).fill('icons-unused'),
    ],
    ['a folder of screens of one size is one', [page, ...sixOf(() => drawing)], 7, []],
    ['without pages all are screens', sixOf(icon), 6, []],
    [
      'a drawing without words among the pictures of the pages is one of them',
      [file('index.html', '<title>Desk</title><img src="pics/a.png">'), png, file('pics/logo.svg', logo)],
      1,
      ['icon-unused'],
    ],
    [
      'with words it is a screen wherever it lies',
      [page, file('img/catalogue.svg', logo.replace('<g>', `<g>${'<text>Tools</text>'.repeat(4)}`))],
      2,
      [],
    ],
    ['a sheet of symbols is no drawing', [page, file('icons.svg', symbols(''))], 1, ['icon-unused']],
    ['what draws one of its symbols is one', [page, file('icons.svg', symbols('<use href="#a"/>'))], 2, []],
    ...(
      [
        ['the sign of a page beside its title', '<link rel="icon" type="image/svg+xml" href="big.svg">', 1],
        ['what a page draws parts of', '<svg><use class="a" href="big.svg#part"/></svg>', 1],
        ['what is asked for with a version', '<img src="big.svg?v=2">', 1],
        ['what a link leads to is a screen', '<a class="use" href="big.svg">Plan</a>', 2],
      ] as const
    ).map(([what, html, count]): [string, readonly InputFile[], number, readonly string[]] => [
      what,
      [file('index.html', `<title>Desk</title>${html}`), file('big.svg', drawing)],
      count,
      [],
    ]),
    [
      'what a style sheet shows is a picture',
      [
        file('index.html', '<title>Desk</title><link rel="stylesheet" href="a.css">'),
        file('a.css', 'h1 { background: url("big.svg") }'),
        file('big.svg', drawing),
      ],
      1,
      [],
    ],
  ])('%s', async (_, files, count, codes) => {
    const { screens, notices } = await readBatch(files, host);
    expect(screens).toHaveLength(count);
    expect(notices.map(({ code }) => code).filter((code) => code.startsWith('icon'))).toEqual(codes);
  });
});

test('a page that does nothing but lead on is none, and links to it lead where it does; an empty style sheet is one', async () => {
  const html = (path: string, text: string) => ({ path, bytes: strToU8(text) });
  const read: string[] = [];
  const { screens, notices } = await readBatch(
    [
      html('site/docs.html', '<meta http-equiv="refresh" content="0; url=./docs/index.html">'),
      html(
        'site/docs/index.html',
        '<link rel="stylesheet" href="../empty.css"><a href="../docs.html#all">Documents</a>',
      ),
      html('site/empty.css', ''),
    ],
    {
      readPage: async ({ html: page }) => {
        read.push(page);
        throw new Error('not looked at here');
      },
      addressOf: (asset) => `blob:${asset.hash}`,
    },
  );
  expect(screens).toEqual([]);
  expect(read).toHaveLength(1);
  expect(read[0]).toContain('href="/site/docs/index.html#all"');
  expect(notices.map(({ code, file }) => `${code} ${file}`)).toEqual([
    'page-leads-on site/docs.html',
    'html-unreadable site/docs/index.html',
  ]);
});

test('a page that is there twice is one, and links to either lead there', async () => {
  const html = (path: string, text: string) => ({ path, bytes: strToU8(text) });
  const read: string[] = [];
  const twice = '<link rel="stylesheet" href="look.css"><h1>Loans</h1>';
  const { notices } = await readBatch(
    [
      html('loans.html', twice),
      html('dist/loans.html', twice),
      html('dist/look.css', 'h1 { color: red }'),
      html('index.html', '<a href="loans.html#all">Loans</a>'),
    ],
    {
      readPage: async ({ html: page }) => {
        read.push(page);
        throw new Error('not looked at here');
      },
      addressOf: (asset) => `blob:${asset.hash}`,
    },
  );
  expect(read).toHaveLength(2);
  expect(read.some((page) => page.includes('href="/dist/loans.html#all"'))).toBe(true);
  expect(notices.find(({ code }) => code === 'page-twice')).toMatchObject({
    file: 'loans.html',
    message: expect.stringContaining('“dist/loans.html”'),
  });
});
