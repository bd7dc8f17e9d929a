import { crc32, deflateRawSync } from 'node:zlib';
import { strToU8 } from 'fflate';
import { svg } from '../testing/build.ts';
import { readBatch } from './batch.ts';
import type { InputFile } from './files.ts';
import type { IntakeHost } from './host.ts';
import { sanitisePage } from './html/sanitise.ts';
import { limits } from './limits.ts';

const host: IntakeHost = {
  readPage: async () => {
    throw new Error('no pages here');
  },
  addressOf: (asset) => `blob:${asset.hash}`,
};
const good: InputFile = {
  path: 'good.svg',
  bytes: strToU8(svg('<rect width="50" height="50" fill="red"/>')),
};

/** Nested reuse: with each level ten times as much is drawn. */
const unfolding = (levels: number): string =>
  Array.from(
    { length: levels },
    (_, i) => `<g id="u${i + 1}">${`<use href="#u${i}" xlink:href="#u${i}"/>`.repeat(10)}</g>`,
  ).join('');

// Made when they are needed: a title is made of all that a row holds.
test.each([
  [
    'reused symbols that unfold to a billion',
    () => svg(`<defs><rect id="u0" width="5" height="5"/>${unfolding(9)}</defs><use href="#u9"/>`),
    /more than 20000 elements, its reused symbols unfolded/,
  ],
  [
    'a path of 4 MB beside a rectangle',
    () => svg(`<rect width="90" height="90" fill="red"/><path d="M0 0${'L1 1'.repeat(1_000_000)}"/>`),
    /A path of 4000004 characters was left out/,
  ],
  [
    'many paths that are long together',
    () =>
      svg(
        `<rect width="90" height="90" fill="red"/>${`<path d="M0 0${'L1 1'.repeat(50_000)}"/>`.repeat(20)}`,
      ),
    /all of a drawing 3000000/,
  ],
  [
    'a style sheet of 10 MB',
    () => svg(`<style>${'.a{fill:red}'.repeat(850_000)}</style><rect width="90" height="90" fill="red"/>`),
    /style sheet in this drawing has \d+ characters and was left out/,
  ],
  [
    'more rules than elements can be looked up in',
    () =>
      svg(
        `<style>${'.a{fill:red}'.repeat(8000)}</style>${'<rect class="a" width="9" height="9" fill="red"/>'.repeat(300)}`,
      ),
    /too many rules for its elements/,
  ],
  [
    'a drawing that is one pattern of patterns',
    () =>
      svg(
        `<defs><g id="u0"><path d="M0 0h9"/></g>${unfolding(9)}<pattern id="p" width="9" height="9"><use href="#u9"/></pattern></defs><path d="M0 0h90v90z" fill="url(#p)"/>`,
      ),
    /unfold/,
  ],
  [
    'letters with a clip of many steps that comes with each',
    () =>
      svg(
        `<clipPath id="c"><path d="M0 0${'L9 9'.repeat(100_000)}"/></clipPath>${'<text clip-path="url(#c)" y="20" x="1 9 17">Abc</text>'.repeat(40)}`,
      ),
    /paths of more than 1500000 steps, with its clips and masks each time/,
  ],
])('%s: it is said, and the rest comes in', async (_, make, message) => {
  const result = await readBatch([{ path: 'heavy.svg', bytes: strToU8(make()) }, good], host);
  expect(result.screens.map((screen) => screen.key)).toContain('good');
  expect(result.notices.map((notice) => notice.message).join('\n')).toMatch(message);
});

test('a page whose drawing unfolds without end reuses nothing of it', () => {
  const files = { styleSheet: () => null, picture: () => null, font: () => null };
  const drawing = `<svg><defs><path id="u0" d="M0 0"/>${unfolding(9)}</defs><use href="#u9"/></svg>`;
  const { html, notices } = sanitisePage('p.html', `<p>Stays</p>${drawing}`, files);
  expect(html).toContain('Stays');
  expect(html).not.toMatch(/<use[^>]*href/);
  expect(notices.map(({ message }) => message).join()).toMatch(/unfold without end/);
  const fine = '<svg><path id="a" d="M0 0"/><use href="#a"/></svg>';
  expect(sanitisePage('p.html', fine, files).html).toMatch(/<use href="#a"/);
});

test('a page with a style sheet that is too large keeps its content', () => {
  const files = {
    styleSheet: () => ({ text: 'a{color:red}'.repeat(300_000), file: 'big.css' }),
    picture: () => null,
    font: () => null,
  };
  const { html, notices } = sanitisePage(
    'p.html',
    '<link rel="stylesheet" href="big.css"><p>Stays</p>',
    files,
  );
  expect(html).toContain('Stays');
  expect(html.length).toBeLessThan(1000);
  expect(notices.map(({ message }) => message).join()).toMatch(
    /“big.css” has 3600000 characters and was left out/,
  );
});

/** A zip whose files all hold the same, which is packed only once. */
function zipOfSame(names: readonly string[], bytes: Uint8Array): Uint8Array {
  const packed = deflateRawSync(bytes, { level: 1 });
  const sum = crc32(bytes);
  const parts: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const name of names) {
    // What both headers of a file have in common: versions, method, times, checksum, sizes and the length of its name.
    const common = Buffer.alloc(26);
    common.writeUInt16LE(20, 0);
    common.writeUInt16LE(8, 4);
    common.writeUInt32LE(sum, 10);
    common.writeUInt32LE(packed.length, 14);
    common.writeUInt32LE(bytes.length, 18);
    common.writeUInt16LE(name.length, 22);
    const own = Buffer.alloc(14);
    own.writeUInt32LE(at, 10);
    parts.push(Buffer.from('PK\x03\x04'), common, Buffer.from(name), packed);
    directory.push(Buffer.from('PK\x01\x02\x14\0'), common, own, Buffer.from(name));
    at += 30 + name.length + packed.length;
  }
  const central = Buffer.concat(directory);
  const end = Buffer.alloc(18);
  end.writeUInt16LE(names.length, 4);
  end.writeUInt16LE(names.length, 6);
  end.writeUInt32LE(central.length, 8);
  end.writeUInt32LE(at, 12);
  return new Uint8Array(Buffer.concat([...parts, central, Buffer.from('PK\x05\x06'), end]));
}

test('an archive that unpacks to more than may be held gives what fits', async () => {
  const drawing = svg('<rect width="50" height="50" fill="red"/>');
  const large = strToU8(drawing + ' '.repeat(24 * 2 ** 20));
  const names = ['a.svg', ...Array.from({ length: 7 }, (_, i) => `p${i}.css`)];
  const result = await readBatch([{ path: 'pile.zip', bytes: zipOfSame(names, large) }], host);
  expect(result.screens).toHaveLength(1);
  expect(result.notices.map(({ message }) => message).join('\n')).toMatch(/holds more than 160 MB/);
  expect(limits.unpackedBytes).toBe(160 * 2 ** 20);
}, 60_000);
