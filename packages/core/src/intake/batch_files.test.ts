import { strToU8, zipSync } from 'fflate';
import { BatchFiles } from './batch_files.ts';
import { hashOf, type InputFile } from './files.ts';
import { limits } from './limits.ts';

const file = (path: string, content = path): InputFile => ({ path, bytes: strToU8(content) });
const batch = (...files: InputFile[]): BatchFiles =>
  new BatchFiles(files, (asset) => `blob:${asset.hash.slice(0, 6)}`);

test.each([
  ['img/a.png', 'pages/x.html', 'img/a.png'],
  ['img/A.PNG', 'x.html', 'img/a.png'],
  ['a.png', 'x.html', 'img/a.png'],
  ['img/b.png', 'x.html', null],
  ['../img/a.png', 'pages/x.html', 'img/a.png'],
  ['/img/a.png', 'pages/x.html', 'img/a.png'],
  ['a.png', 'img/style.css', 'img/a.png'],
  ['a.png?v=2#x', 'img/style.css', 'img/a.png'],
  ['https://e.example/img/a.png', 'x.html', null],
  ['//e.example/img/a.png', 'x.html', null],
  ['../../../img/a.png', 'x.html', null],
])('%s in %s leads to %s', (reference, from, expected) => {
  expect(batch(file('img/a.png')).at(reference, from)?.path ?? null).toBe(expected);
});

test('a reference to the root of a server finds a folder that came from somewhere beneath it', () => {
  expect(batch(file('site/build/img/a.png')).at('/img/a.png', 'site/build/x.html')?.path).toBe(
    'site/build/img/a.png',
  );
});

test('files that came without their folders are known by their names, where only one has it', () => {
  const files = batch(
    ...['x.html', 'style.css', 'logo.png', 'a/icon.svg', 'b/icon.svg', 'font.woff2'].map((path) =>
      file(path),
    ),
  );
  const found = (reference: string): string | undefined => files.at(reference, 'x.html')?.path;
  expect(['css/style.css', 'img/logo.png', 'img/icon.svg', 'a/icon.svg', 'pages/x.html'].map(found)).toEqual([
    'style.css',
    'logo.png',
    undefined,
    'a/icon.svg',
    undefined,
  ]);
  expect(files.assetAt('fonts/font.woff2', 'style.css', ['font'])?.file).toBe('font.woff2');
  found('img/logo.png');
  expect(files.notices.map(({ code, file: of, message }) => [code, of, message])).toEqual([
    [
      'found-elsewhere',
      'x.html',
      '“css/style.css” did not come along; “style.css”, the only file of that name, stands for it.',
    ],
    [
      'found-elsewhere',
      'x.html',
      '“img/logo.png” did not come along; “logo.png”, the only file of that name, stands for it.',
    ],
    [
      'found-elsewhere',
      'style.css',
      '“fonts/font.woff2” did not come along; “font.woff2”, the only file of that name, stands for it.',
    ],
  ]);
});

test('of several files of one name, the one stands in whose path ends as what was asked for does', () => {
  const files = batch(
    ...['docs/x.html', 'faces/female/1.jpg', 'faces/male/1.jpg', 'old/logo.png', 'new/logo.png'].map((path) =>
      file(path),
    ),
  );
  const found = (reference: string): string | undefined => files.at(reference, 'docs/x.html')?.path;
  expect(['demo/faces/female/1.jpg', 'demo/1.jpg', 'img/logo.png', 'Female/1.JPG'].map(found)).toEqual([
    'faces/female/1.jpg',
    undefined,
    undefined,
    'faces/female/1.jpg',
  ]);
  expect(files.notices[0].message).toBe(
    '“docs/demo/faces/female/1.jpg” did not come along; “faces/female/1.jpg”, whose path ends most alike, stands for it.',
  );
});

test('what is referred to counts as used, and is kept once', () => {
  const files = batch(file('a.png', 'same'), file('b.png', 'same'), file('c.png'));
  const [a, b] = ['a.png', 'b.png'].map((name) => files.assetAt(name, 'x.html')!);
  expect(a.hash).toBe(b.hash);
  expect(files.assets).toHaveLength(1);
  expect(['a.png', 'b.png', 'c.png'].map((name) => files.isUsed(name))).toEqual([true, true, false]);
  expect(files.hashAt(files.addressOf(a))).toBe(hashOf(strToU8('same')));
  expect(files.hashAt('blob:else')).toBeNull();
});

test('a picture that came before from the same place goes before one that is only called the same', () => {
  const known = { hash: 'b'.repeat(64), type: 'image/png', size: 3, file: 'pics/saw.png' } as const;
  const withKnown = (...paths: string[]): BatchFiles =>
    new BatchFiles(
      paths.map((path) => file(path)),
      () => '',
      [known],
    );
  const found = (files: BatchFiles): string | undefined => files.pictureAt('pics/saw.png', 'a.svg')?.file;
  expect(found(withKnown('a.svg', 'old/saw.png'))).toBe('pics/saw.png');
  expect(withKnown('a.svg', 'old/saw.png').pictureAt('pics/saw.png', 'a.svg')).toBe(known);
  // The one that comes along now is the one.
  expect(withKnown('a.svg', 'pics/saw.png').pictureAt('pics/saw.png', 'a.svg')).not.toBe(known);
  expect(withKnown('a.svg', 'old/axe.png').pictureAt('pics/axe.png', 'a.svg')?.file).toBe('old/axe.png');
});

test('a reference is only what it is asked for', () => {
  const files = batch(file('a.woff2'), file('a.css', 'p{}'));
  expect(files.assetAt('a.woff2', 'x.html')).toBeNull();
  expect(files.assetAt('a.woff2', 'x.html', ['font'])).toMatchObject({ type: 'font/woff2' });
  expect(files.styleSheetAt('a.css', 'x.html')).toEqual({ text: 'p{}', file: 'a.css' });
  expect(files.styleSheetAt('a.woff2', 'x.html')).toBeNull();
});

test.each([
  ['data:image/png;base64,iVBORw0=', 'image/png'],
  ["data:image/svg+xml,%3Csvg xmlns='x'/%3E", 'image/svg+xml'],
  ['data:image/svg+xml;utf8,<svg xmlns=%27x%27 stroke=%27%23abc%27/>', 'image/svg+xml'],
  ['data:image/png;charset=utf-8;base64,iVBORw0=', 'image/png'],
  ['data:font/woff2;base64,d09GMg==', 'font/woff2'],
  ['data:text/html,<script>alert(1)</script>', null],
  ['data:image/png;base64,%%%', null],
  ['data:,', null],
])('%s is kept as %s', (reference, type) =>
  expect(batch().assetAt(reference, 'x.html')?.type ?? null).toBe(type),
);

// Made when they are needed: a title is made of all that a row holds.
test.each([
  ['empty.svg', () => strToU8(''), 'file-empty'],
  ['huge.svg', () => new Uint8Array(limits.fileBytes + 1), 'file-too-large'],
  ['notes.xyz', () => strToU8('notes'), 'file-unknown'],
  ['old.tovel', () => strToU8('old'), 'file-project'],
  ['none.zip', () => zipSync({}), 'archive-empty'],
  ['deep.zip', () => zipSync({ 'in.zip': zipSync({ a: strToU8('a') }) }), 'archive-nested'],
])('%s is refused with a reason', (path, make, code) => {
  const bytes = make();
  const files = batch({ path, bytes });
  expect(files.all).toEqual([]);
  expect(files.notices.map((notice) => notice.code)).toEqual([code]);
  expect(files.notices[0].message).toMatch(/\.$/);
});

test('files of one path all come in', () => {
  expect(batch(file('a.svg', 'one'), file('a.svg', 'two')).all.map(({ path }) => path)).toEqual([
    'a.svg',
    'a.svg 2',
  ]);
});

test('a picture that came before is found again under its place, one that comes along goes before it', () => {
  const old = { hash: 'a'.repeat(64), type: 'image/png', size: 3, file: 'images/drill.png' };
  const here = { path: 'images/saw.png', bytes: new Uint8Array([1]) };
  const files = new BatchFiles([here], () => 'blob:x', [old, { ...old, file: 'images/saw.png' }]);
  expect(files.pictureAt('images/drill.png', 'screens.svg')).toBe(old);
  expect(files.pictureAt('images/saw.png', 'screens.svg')?.hash).not.toBe(old.hash);
  expect(files.pictureAt('images/none.png', 'screens.svg')).toBeNull();
  expect(files.assets.map(({ file }) => file)).toEqual(['images/drill.png', 'images/saw.png']);
});

test('a picture of another host whose address says its size is a blank one of that size, which is said once for each page', () => {
  const files = new BatchFiles([], () => '');
  const [a, again] = ['600x400/aaa', '600x400/bbb'].map((size) =>
    files.assetAt(`https://pictures.example/${size}`, 'a.html')!,
  );
  expect(a).toBe(again);
  expect(a).toMatchObject({ type: 'image/svg+xml', file: 'blank-600x400.svg' });
  expect(files.pictureAt('//pictures.example/40x40', 'b.html')?.file).toBe('blank-40x40.svg');
  expect(files.assetAt('https://pictures.example/shed.png', 'a.html')).toBeNull();
  expect(files.assetAt('https://pictures.example/600x400.woff2', 'a.html', ['font'])).toBeNull();
  expect(files.notices.map(({ code, file }) => `${code} ${file}`)).toEqual([
    'picture-stood-in a.html',
    'picture-stood-in b.html',
  ]);
  expect(files.notices[0].message).toContain('“pictures.example”');
});
