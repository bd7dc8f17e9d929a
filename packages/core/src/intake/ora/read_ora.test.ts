import { strToU8, zipSync } from 'fflate';
import { walkElements } from '../../model/project.ts';
import { readOra } from './read_ora.ts';

/** A PNG of this size, as far as its head says. */
const png = (width: number, height: number): Uint8Array => {
  const bytes = new Uint8Array(33);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 73, 72, 68, 82]);
  new DataView(bytes.buffer).setUint32(16, width);
  new DataView(bytes.buffer).setUint32(20, height);
  return bytes;
};
const read = (stack: string, files: Record<string, Uint8Array> = {}, image = 'w="200" h="100"') =>
  readOra({
    file: 'a.ora',
    screenKey: 'a',
    bytes: zipSync({
      'stack.xml': strToU8(`<image ${image}><stack>${stack}</stack></image>`),
      'data/a.png': png(40, 20),
      'data/b.png': png(10, 10),
      ...files,
    }),
    keep: (layer) => layer.path.slice(-5, -4).repeat(64),
  });

test('layers lie where they were drawn, the lowest first; groups hold theirs', () => {
  const { screen, notices } = read(
    '<stack name="Bar" x="5"><layer name="Go button" src="data/b.png" x="100" y="70"/></stack><layer name="Ground" src="data/a.png" opacity="0.5"/>',
  );
  const seen: string[] = [];
  walkElements(
    screen!.root,
    (element) =>
      void seen.push(
        `${element.tag} ${element.name} ${Object.values(element.box).join()} ${element.style.base.left}`,
      ),
  );
  expect(seen).toEqual([
    'div A 0,0,200,100 undefined',
    'img Ground 0,0,40,20 0px',
    'div Bar 105,70,10,10 105px',
    'img Go button 105,70,10,10 0px',
  ]);
  expect(screen!.root.children[0].style.base.opacity).toBe('0.5');
  expect(notices).toEqual([]);
});

test('what is hidden in the file comes along hidden, and blending is kept where a page can', () => {
  const { screen, notices } = read(
    '<layer name="Guides" src="data/a.png" visibility="hidden"/><layer name="Shade" src="data/a.png" composite-op="svg:multiply"/><layer name="Odd" src="data/b.png" composite-op="svg:xor"/>',
  );
  expect(
    screen!.root.children.map((child) => [
      child.name,
      child.hidden ?? false,
      child.style.base['mix-blend-mode'],
    ]),
  ).toEqual([
    ['Odd', false, undefined],
    ['Shade', false, 'multiply'],
    ['Guides', true, undefined],
  ]);
  expect(notices.map((notice) => notice.code).sort()).toEqual(['blend-dropped', 'hidden-layer']);
});

test('a layer whose picture is missing is left out and said', () => {
  const { screen, notices } = read(
    '<layer name="Gone" src="data/none.png"/><layer name="Here" src="data/a.png"/>',
  );
  expect(screen!.root.children.map((child) => child.name)).toEqual(['Here']);
  expect(notices).toEqual([expect.objectContaining({ code: 'image-missing', path: '0/0' })]);
});

test.each([
  [
    'no archive',
    () => readOra({ file: 'a.ora', bytes: strToU8('nothing'), screenKey: 'a', keep: () => '' }),
    /cannot be unpacked/,
  ],
  [
    'an archive without a stack',
    () => readOra({ file: 'a.ora', bytes: zipSync({ x: strToU8('') }), screenKey: 'a', keep: () => '' }),
    /no stack.xml/,
  ],
  ['a damaged stack', () => read('<layer'), /damaged/],
  ['no size', () => read('<layer name="a" src="data/a.png"/>', {}, ''), /size/],
  [
    'a size that cannot be drawn',
    () => read('<layer name="a" src="data/a.png"/>', {}, 'w="1e9" h="1e9"'),
    /size/,
  ],
  ['nothing that can be drawn', () => read(''), /None of its layers/],
])('%s is one notice', (_, make, message) => {
  const { screen, notices } = make();
  expect(screen).toBeNull();
  expect(notices.at(-1)).toMatchObject({
    level: 'error',
    code: 'ora-unreadable',
    message: expect.stringMatching(message),
  });
});
