import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { parseDesign } from '../project/archive.ts';
import { emptyDesign } from '../model/design.ts';
import { bodyReading } from '../testing/body_reading.ts';
import { chance } from '../testing/chance.ts';
import { addToDesign, readBatch } from './batch.ts';
import type { InputFile } from './files.ts';
import type { IntakeHost } from './host.ts';

const PIECES = [
  '<',
  '>',
  '"',
  "'",
  '&',
  '</g>',
  '<g>',
  '<svg',
  'NaN',
  '1e999',
  '-1',
  'url(#',
  ')',
  '<!--',
  ']]>',
  '\u0000',
  '\uffff',
  '%',
  '../',
  'transform="scale(0)"',
  '<use href="#a"/>',
  '<style>',
  '</style>',
  '<script>',
  '{',
  '}',
  '@import',
  '<!DOCTYPE x [<!ENTITY a "b">]>',
  '&a;',
];

function mutate(bytes: Uint8Array, random: () => number): Uint8Array {
  const at = (length: number): number => Math.floor(random() * length);
  let made = bytes.slice();
  for (let n = 1 + at(4); n > 0; n--) {
    const place = at(made.length);
    const kind = at(5);
    if (kind === 0) made = made.slice(0, place);
    else if (kind === 1) made[place] = at(256);
    else if (kind === 2) {
      const piece = strToU8(PIECES[at(PIECES.length)]);
      made = Uint8Array.from([...made.subarray(0, place), ...piece, ...made.subarray(place)]);
    } else if (kind === 3) {
      const end = place + at(made.length - place);
      made = Uint8Array.from([...made.subarray(0, place), ...made.subarray(end)]);
    } else {
      const end = Math.min(made.length, place + at(300));
      made = Uint8Array.from([...made.subarray(0, end), ...made.subarray(place, end), ...made.subarray(end)]);
    }
    if (!made.length) return made;
  }
  return made;
}

const fixtures = path.resolve(__dirname, '../../../../e2e/fixtures');
const filesIn = (folder: string): InputFile[] =>
  readdirSync(path.join(fixtures, folder)).map((name) => ({
    path: name,
    bytes: new Uint8Array(readFileSync(path.join(fixtures, folder, name))),
  }));
const seeds = [
  ...filesIn('drawings'),
  ...filesIn('pages'),
  ...filesIn('pile').filter((file) => file.path.endsWith('.svg')),
  ...filesIn('papers').filter((file) => file.path.endsWith('.ora')),
];
const zip: InputFile = {
  path: 'all.zip',
  bytes: zipSync(Object.fromEntries(filesIn('drawings').map((file) => [file.path, file.bytes]))),
};
const good: InputFile = {
  path: 'good.svg',
  bytes: strToU8(
    '<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844"><rect width="50" height="50" fill="red"/></svg>',
  ),
};

/** Sees an empty page; what cleaning makes of a broken one is what is tried here. */
const host: IntakeHost = {
  readPage: async (_, plan) => bodyReading({}, { width: plan.widths[0] }),
  addressOf: (asset) => `blob:${asset.hash}`,
};

test.each([
  ['drawings, pages and layers', seeds, 2400],
  ['archives', [zip], 600],
] as const)(
  'broken %s never fail a batch',
  async (_, from, count) => {
    const random = chance(20261124);
    for (let i = 0; i < count; i++) {
      const file = from[i % from.length];
      const broken: InputFile = {
        path: file.path.replace(/(\.\w+)$/, '-broken$1'),
        bytes: mutate(file.bytes, random),
      };
      const result = await readBatch([broken, good], host);
      expect(result.screens.map((screen) => screen.key)).toContain('good');
      // What was made of it is a design that the server would take.
      parseDesign(JSON.parse(JSON.stringify(addToDesign(emptyDesign, result))));
      for (const notice of result.notices)
        expect(notice.message).not.toMatch(/undefined|\[object|TypeError|Cannot read prop/);
    }
  },
  240_000,
);
