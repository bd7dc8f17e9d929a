import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { hashOf, kindOfFile, resolvePath, resolveReference, typeOfFile, unpack } from './files.ts';

test.each([
  ['a/b.SVG', 'svg', 'image/svg+xml'],
  ['page.htm', 'html', 'text/html'],
  ['x.css', 'css', 'text/css'],
  ['p.jpeg', 'picture', 'image/jpeg'],
  ['all.zip', 'archive', 'application/octet-stream'],
  ['README', 'other', 'application/octet-stream'],
])('%s is %s, %s', (path, kind, type) => expect([kindOfFile(path), typeOfFile(path)]).toEqual([kind, type]));

test('an asset is named by the SHA-256 of its bytes', () => {
  expect(hashOf(strToU8('abc'))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
});

test.each([
  ['a/./b//c', 'a/b/c'],
  ['a/../b', 'b'],
  ['../a', null],
  ['a/../../b', null],
  ['a\\..\\..\\b', null],
])('path %s resolves to %s', (path, expected) => expect(resolvePath(path)).toBe(expected));

test('no path leads outside the batch', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('..', '.', 'a', 'b', '', '...'), { maxLength: 8 }), (parts) => {
      const resolved = resolvePath(parts.join('/'));
      expect(resolved?.split('/').includes('..') ?? false).toBe(false);
    }),
  );
});

test.each([
  ['style.css', 'pages/a.html', 'pages/style.css'],
  ['../img/x.png?v=2#f', 'pages/a.html', 'img/x.png'],
  ['/img/x.png', 'pages/a.html', 'img/x.png'],
  ['a%20b.png', 'a.html', 'a b.png'],
  ['100%.png', 'a.html', '100%.png'],
  ['https://example.org/x.png', 'a.html', null],
  ['//example.org/x.png', 'a.html', null],
  ['data:image/png;base64,AA', 'a.html', null],
  ['../../x.png', 'pages/a.html', null],
  ['#top', 'a.html', null],
])('reference %s in %s', (reference, from, expected) =>
  expect(resolveReference(reference, from)).toBe(expected),
);

describe('an archive', () => {
  const zip = (files: Record<string, string>): Uint8Array =>
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));

  test('gives its files, without what packers add', () => {
    const { files, notices } = unpack({
      path: 'a.zip',
      bytes: zip({ 'screens/home.svg': '<svg/>', '__MACOSX/x': 'x', 'screens/.DS_Store': 'x' }),
    });
    expect(files.map((file) => file.path)).toEqual(['screens/home.svg']);
    expect(notices).toEqual([]);
  });

  test.each(['../up.svg', 'a/../../up.svg', '/etc/passwd', 'C:/x.svg', '..\\up.svg'])(
    '%s is refused, the rest comes in',
    (name) => {
      const { files, notices } = unpack({ path: 'a.zip', bytes: zip({ [name]: 'x', 'good.svg': '<svg/>' }) });
      expect(files.map((file) => file.path)).toEqual(['good.svg']);
      expect(notices).toEqual([expect.objectContaining({ code: 'archive-path', level: 'error' })]);
    },
  );

  test('whatever the bytes are, it ends with files or a notice', () => {
    const good = zip({ 'a.svg': '<svg/>', 'b.html': '<p>' });
    fc.assert(
      fc.property(fc.nat(good.length - 1), fc.nat(255), (at, value) => {
        const bytes = good.slice();
        bytes[at] = value;
        const { files, notices } = unpack({ path: 'a.zip', bytes });
        expect(files.length + notices.length).toBeGreaterThanOrEqual(0);
        // A name may begin with two dots; what leads out of the archive may not.
        for (const file of files) expect(file.path.split('/')).not.toContain('..');
      }),
    );
    expect(unpack({ path: 'a.zip', bytes: good.slice(0, 20) }).notices[0].message).toMatch(
      /cannot be unpacked/,
    );
  });
});
