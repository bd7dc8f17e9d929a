import fc from 'fast-check';
import {
  basePath,
  isInside,
  linesOf,
  manifestOf,
  packBase,
  parseManifest,
  partsOf,
  printManifest,
  unpackBase,
} from './manifest.ts';

const hash = 'a'.repeat(64);

test('a manifest is read as it was written, a file a line', () => {
  const manifest = manifestOf('Desk', 'react', [
    { path: 'src/b.tsx', owner: 'generated', hash, parts: ['1-3,7 welcome/0', '4 welcome/0/1'] },
    { path: 'package.json', owner: 'shared', hash },
  ]);
  const json = printManifest(manifest);
  expect(json.split('\n')).toHaveLength(5);
  expect(parseManifest(json)).toEqual({ ...manifest, files: [...manifest.files].reverse() });
});

test.each([
  ['{', /^\.tovel\/manifest\.json is no JSON: /],
  ['{"format":"tovel-delivery/9"}', /is of another version \(tovel-delivery\/9\)\.$/],
  ['{"format":"tovel-delivery/1","project":"a","target":"react"}', /files: is missing$/],
  [
    `{"format":"tovel-delivery/1","project":"a","target":"react","files":[{"path":"../a","owner":"shared","hash":"${hash}"}]}`,
    /files\/0\/path: expected a path within the folder/,
  ],
])('%s is refused with the place', (json, says) => {
  expect(() => parseManifest(json)).toThrow(says);
});

test.each([
  ['src/a.ts', true],
  ['../a.ts', false],
  ['/etc/a', false],
  ['src/../../a', false],
  ['.git/config', false],
  ['src/.git/hooks/a', false],
  ['.tovel/manifest.json', false],
  ['C:a', false],
  ['a\\b', false],
])('%s is inside: %s', (path, inside) => {
  expect(isInside(path)).toBe(inside);
});

test('the elements of lines are kept', () => {
  fc.assert(
    fc.property(fc.array(fc.option(fc.constantFrom('a', 'b/0', 'c|d e'))), (lines) => {
      const again = linesOf(partsOf(lines));
      // Lines behind the last element say nothing.
      expect([...again, ...Array<null>(lines.length - again.length).fill(null)]).toEqual(lines);
    }),
  );
});

test('what was written is kept as it was, and the same text as the same bytes', () => {
  const text = 'const a = "ü";\n'.repeat(99);
  expect(unpackBase(packBase(text))).toBe(text);
  expect(packBase(text)).toEqual(packBase(text));
  expect(unpackBase(new Uint8Array([1, 2, 3]))).toBeNull();
  expect(basePath(hash)).toMatch(/^\.tovel\/base\/a{32}\.gz$/);
});
