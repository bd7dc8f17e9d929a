import { readFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  compareDrawn,
  type Drawn,
  emptyApp,
  emptyDesign,
  type Project,
  readSvg,
  takeIn,
  type View,
  viewsOf,
} from '@tovel/core';
import { appOf, drawReference, drawRunning, type FileStore } from './draw_views.ts';
import { decoded } from './pictures.ts';
import { Renderer } from './renderer.ts';

const renderer = new Renderer();
afterAll(() => renderer.close());

const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="600" viewBox="0 0 390 600"><rect width="390" height="600" fill="#f6f2e9"/><rect id="Go" x="24" y="80" width="342" height="48" rx="8" fill="#2f4a3a"/></svg>`;

function drawn(file: string, text: string): { project: Project; files: FileStore; view: View } {
  const screen = readSvg({ file: 'shed.svg', text: drawing, screenKey: 'shed', asset: () => null }).screen!;
  const hash = 'a'.repeat(64);
  const bytes = new TextEncoder().encode(text);
  const type = file.endsWith('.svg') ? 'image/svg+xml' : 'text/html';
  const design = addToDesign(emptyDesign, {
    screens: [{ ...screen, source: { ...screen.source, file } }],
    assets: [{ hash, type, size: bytes.length, file }],
    notices: [],
  });
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const project = { design, app };
  return {
    project,
    files: async (asked) => (asked === hash ? { type, bytes } : null),
    view: viewsOf(project, [390])[0],
  };
}

test('a drawing and the app that is made of it look the same', async () => {
  const { project, files, view } = drawn('shed.svg', drawing);
  const app = await appOf(project, 'Shed', files);
  const was = await drawReference(renderer, project, view, files);
  const is = await drawRunning(renderer, app, project, view);
  expect(view).toEqual({ screen: 'shed', drawing: 'shed', width: 390, height: 800 });
  expect(compareDrawn(decoded(was), decoded(is)).share).toBeLessThan(0.001);
});

type Rendered = Awaited<ReturnType<typeof drawReference>>['rendering']['root'];
const textsIn = ({ text, children }: Rendered): string[] => [text, ...children.flatMap(textsIn)];

test('words in a font of icons are drawings, and say nothing', async () => {
  const icon = (family: string): string =>
    `<i style="font-family:${family};display:inline-block;width:20px;height:20px">favorite</i>`;
  const { project, files, view } = drawn('shed.html', `<p>Of ${icon("'Shed Icons'")} ${icon('serif')}</p>`);
  const { rendering } = await drawReference(renderer, project, view, files);
  const all = (node: Rendered): Rendered[] => [node, ...node.children.flatMap(all)];
  expect(
    all(rendering.root).flatMap(({ tag, text, isIcon }) => (tag === 'i' ? [[text, isIcon]] : [])),
  ).toEqual([
    ['', true],
    ['favorite', false],
  ]);
});

test.each(['https://host.example/a.html', 'http://host.example/a.html', 'shed.html', 'none.html'])(
  'a frame with %s is empty',
  async (src) => {
    const frame = (src: string): string =>
      `<iframe ${src} style="border:0;width:300px;height:300px">No frames here.</iframe>`;
    const draw = async (attributes: string) => {
      const { project, files, view } = drawn('shed.html', frame(attributes));
      return drawReference(renderer, project, view, files);
    };
    const [framed, none] = [await draw(`src="${src}"`), await draw('')];
    expect(compareDrawn(decoded(framed), decoded(none)).share).toBe(0);
    expect(textsIn(framed.rendering.root).join('')).toBe('');
  },
);

test('what a menu that is folded to no height cuts off is not there', async () => {
  const menu = (look: string): string => `<ul style="margin:0;${look}"><li>Saws</li></ul>`;
  const { project, files, view } = drawn(
    'shed.html',
    `${menu('height:0;overflow:hidden').replace('Saws', 'Folded')}${menu('height:0;overflow:hidden;padding:4px 0').replace('Saws', 'With edges')}${menu('height:0;overflow:hidden;padding:80px 0 0').replace('Saws', 'Holds its room')}${menu('height:0').replace('Saws', 'Sticks out')}${menu('overflow:hidden')}`,
  );
  const { rendering } = await drawReference(renderer, project, view, files);
  expect(textsIn(rendering.root).filter(Boolean)).toEqual(['Holds its room', 'Sticks out', 'Saws']);
});

test('nothing that a source brings runs or is fetched', async () => {
  const asked: string[] = [];
  let connected = 0;
  const outside = http.createServer((request, response) => {
    asked.push(request.url ?? '');
    response.end();
  });
  outside.on('connection', () => void connected++);
  await new Promise<void>((resolve) => outside.listen(0, '127.0.0.1', resolve));
  const { port } = outside.address() as AddressInfo;
  const at = `http://127.0.0.1:${port}`;
  const { project, files, view } = drawn(
    'shed.html',
    `<body onload="document.title='ran';fetch('${at}/onload')"><h1>Shed</h1><script>document.querySelector('h1').textContent='ran';fetch('${at}/script')</script><img src="${at}/picture" onerror="document.querySelector('h1').textContent='ran'"><link rel="stylesheet" href="${at}/sheet"><iframe src="${at}/frame"></iframe><a href="javascript:fetch('${at}/link')">x</a><meta http-equiv="refresh" content="0;url=${at}/elsewhere">`,
  );
  const texts = textsIn((await drawReference(renderer, project, view, files)).rendering.root);
  expect(texts).toContain('Shed');
  expect(texts).not.toContain('ran');
  expect([asked, connected]).toEqual([[], 0]);
  outside.closeAllConnections();
  await new Promise((resolve) => outside.close(resolve));
});

test('what a page puts the focus on by itself is drawn as it is without', async () => {
  const page = (attribute: string): string =>
    `<style>input:focus { border: 9px solid red; background: blue }</style><input value="Saw" ${attribute}>`;
  const [plain, focused] = await Promise.all(
    ['', 'autofocus'].map((attribute) => {
      const { project, files, view } = drawn('shed.html', page(attribute));
      return drawReference(renderer, project, view, files);
    }),
  );
  expect(compareDrawn(decoded(plain), decoded(focused)).share).toBe(0);
});

test('a page whose script would choose its theme is drawn with the one that it came in with', async () => {
  const theme = (name: string, sheet: string): string =>
    `[data-theme=${name}] { --sheet: ${sheet}; --ink: #123; --rule: #345 }`;
  const page = (root: string): string =>
    `<html${root}><style>${theme('dark', '#000')} ${theme('light', '#fec')} p { height: 300px; background: var(--sheet); color: var(--ink); border: 1px solid var(--rule) }</style><p>Shed`;
  const [unsaid, light, dark] = await Promise.all(
    ['', ' data-theme="light"', ' data-theme="dark"'].map(async (root) => {
      const { project, files, view } = drawn('shed.html', page(root));
      return decoded(await drawReference(renderer, project, view, files));
    }),
  );
  expect(compareDrawn(unsaid, light).share).toBe(0);
  expect(compareDrawn(unsaid, dark).share).toBeGreaterThan(0.1);
});

test('a source that is not kept, or no picture that came along, is said', async () => {
  const { project, view } = drawn('shed.svg', drawing);
  const none: FileStore = async () => null;
  await expect(
    drawReference(renderer, { ...project, design: { ...project.design, assets: [] } }, view, none),
  ).rejects.toThrow(/is not kept in this project/);
  await expect(drawReference(renderer, project, view, none, 'picture')).rejects.toThrow(
    /No picture came along/,
  );
});

test('a page that never answers is drawn as far as it is, and one that nobody waits for is let go', async () => {
  const never = new Promise<null>(() => {});
  const leaving = new AbortController();
  const waiting = renderer.draw({
    address: 'https://app.invalid/',
    site: () => never,
    width: 390,
    height: 600,
    withScripts: true,
    signal: leaving.signal,
  });
  leaving.abort(new Error('left'));
  await expect(waiting).rejects.toThrow('left');
  const page = await renderer.draw({
    address: 'https://app.invalid/',
    site: async ({ pathname }) =>
      pathname === '/'
        ? { type: 'text/html', body: '<h1>There</h1><img src="/never.png" width="10" height="10">' }
        : never,
    width: 390,
    height: 600,
    withScripts: false,
  });
  expect(page.rendering.problems).toEqual(['The page did not finish loading within 10 seconds.']);
}, 60_000);

const link = '<a href="x.html" style="display:block;height:40px">On</a>';
const bar = (tag: string): string =>
  `<div style="height:200px;overflow:auto">${Array.from({ length: 9 }, (_, i) => `<${tag} href="#" style="display:block;height:80px;background:rgb(${i * 25},90,90)">${i}</${tag}>`).join('')}</div>`;
const turning = (from: number): string =>
  `<style>@keyframes turn{from{transform:rotate(${from}deg)}to{transform:rotate(${from + 360}deg)}}#t{width:80px;height:20px;background:#246}</style><i id="t" style="display:block;`;

test.each([
  [
    'what covers it until a script takes it away is gone',
    `<div style="position:fixed;inset:0;background:#eee">Wait</div>${link}`,
    link,
  ],
  [
    'what waits for a script to be seen is seen',
    `<style>.part{opacity:0}.part.loaded{opacity:1}</style><div class="part">${link}</div>`,
    link,
  ],
  [
    'a picture of another host is blank and of the size that its address says',
    '<img src="https://pictures.example/20x20" style="display:block">',
    '<div style="width:20px;height:20px;background:#dcdcdc"></div>',
  ],
  ['what scrolls within it is as it was', bar('a'), bar('s')],
  [
    'what turns for ever stands as it begins',
    `${turning(30)}animation:turn .4s linear infinite"></i>`,
    `${turning(0)}transform:rotate(30deg)"></i>`,
  ],
])('of a source %s', async (_, one, other) => {
  const pictures = await Promise.all(
    [one, other].map(async (body) => {
      const { project, files, view } = drawn('shed.html', `<!doctype html><body style="color:#000">${body}`);
      return decoded(await drawReference(renderer, project, view, files));
    }),
  );
  expect(compareDrawn(pictures[0], pictures[1]).share).toBeLessThan(0.002);
});

test('a service of fonts is stood in for however a page asks it', async () => {
  const file = '@fontsource-variable/montserrat/files/montserrat-latin-wght-normal.woff2';
  const bytes = new Uint8Array(readFileSync(path.resolve(__dirname, '../../../node_modules', file)));
  const type = 'font/woff2';
  const hash = 'b'.repeat(64);
  const drawnBy = async (link: string): Promise<Drawn> => {
    const page = `<!doctype html>${link}<p style="font: 40px Montserrat, serif">Hedge trimmer`;
    const { project, files, view } = drawn('shed.html', page);
    const design = {
      ...project.design,
      assets: [...project.design.assets, { hash, type, size: bytes.length, file }],
      fonts: [{ family: 'Montserrat', asset: hash, weight: '100 900', style: 'normal' }],
    };
    const kept: FileStore = async (asked) => (asked === hash ? { type, bytes } : files(asked));
    return decoded(await drawReference(renderer, { ...project, design }, view, kept));
  };
  const service = (scheme: string): string =>
    `<link rel="stylesheet" href="${scheme}://fonts.example.org/css?family=Montserrat:400,700">`;
  const [without, plain, secure] = [
    await drawnBy(''),
    await drawnBy(service('http')),
    await drawnBy(service('https')),
  ];
  expect(compareDrawn(plain, secure).share).toBe(0);
  expect(compareDrawn(without, plain).share).toBeGreaterThan(0.001);
});

test('a source is drawn with what its scripts and other hosts would have made of it', async () => {
  const drawnOf = async (page: string): Promise<Drawn> => {
    const { project, files, view } = drawn('shed.html', page);
    return decoded(await drawReference(renderer, project, view, files));
  };
  const compiler = '<script src="https://compiler.example/tailwindcss"></script>';
  const sheet =
    '<link rel="stylesheet" href="https://host.example/npm/bootstrap@5.3.0/dist/css/bootstrap.min.css">';
  const signs =
    '<link rel="stylesheet" href="https://host.example/ajax/libs/font-awesome/6.4.0/css/all.min.css">';
  const rows: readonly (readonly [string, string])[] = [
    ['<p class="bg-blue-500 h-48">Shed</p>', compiler],
    ['<p class="bg-primary p-5">Shed</p>', sheet],
    [
      '<p class="bg-primary p-5">Shed</p>',
      sheet.replace('>', ' integrity="sha256-eZrrJcwDc/3uDhsdt61sL2oOBY362qM3lon1gyExkL0=" crossorigin>'),
    ],
    ['<i class="fa-solid fa-paw" style="font-size:80px"></i>', signs],
  ];
  for (const [body, head] of rows) {
    const [without, made] = [
      await drawnOf(`<!doctype html><head></head>${body}`),
      await drawnOf(`<!doctype html><head>${head}</head>${body}`),
    ];
    expect(compareDrawn(without, made).share).toBeGreaterThan(0.001);
  }
  const icon = '<i data-lucide="house" style="width:200px;height:200px"></i>';
  const [plain, withIcon] = [await drawnOf('<!doctype html><p>'), await drawnOf(`<!doctype html><p>${icon}`)];
  expect(compareDrawn(plain, withIcon).share).toBeGreaterThan(0.001);
});

test('files that a source asks for are found as a server of files finds them', async () => {
  const sheet = (path: string) =>
    `<!doctype html><link rel="stylesheet" href="${path}"><p style="height:200px">Shed</p>`;
  const [plain, slashes, moved, none] = await Promise.all(
    ['css/look.css', './css//look.css', 'dist/styles/look.css', 'css/other.css'].map(async (path) => {
      const { project, files, view } = drawn('shed.html', sheet(path));
      const look = { hash: 'look', type: 'text/css', size: 20, file: 'css/look.css' };
      const design = { ...project.design, assets: [...project.design.assets, look] };
      const all: FileStore = async (hash) =>
        hash === 'look'
          ? { type: 'text/css', bytes: new TextEncoder().encode('p { background: #246 }') }
          : files(hash);
      return decoded(await drawReference(renderer, { ...project, design }, view, all));
    }),
  );
  expect(compareDrawn(plain, slashes).share).toBe(0);
  expect(compareDrawn(plain, moved).share).toBe(0);
  expect(compareDrawn(plain, none).share).toBeGreaterThan(0.1);
});
