import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { type InputFile, LATEST, type PackageAddress, type ShippedSheet } from '@tovel/core';

const require = createRequire(import.meta.url);

/** A library of styles that comes with Tovel: what it is called where it is served, and its sheets. */
interface Library {
  readonly names: readonly string[];
  /** The first numbers of versions that it can stand for. */
  readonly majors: readonly number[];
  readonly package: string;
  readonly folder: string;
  /** Its sheets that pages ask for, by their names without `.min`, with what stands for each. */
  readonly sheets: Readonly<Record<string, readonly string[]>>;
}

const AWESOME = ['fontawesome-free', '@fortawesome/fontawesome-free', 'font-awesome', 'fontawesome'];
const bootstrap = (name: string, major: number, sheets: readonly string[]): Library => ({
  names: ['bootstrap', 'twitter-bootstrap'],
  majors: [major],
  package: name,
  folder: 'dist/css',
  sheets: Object.fromEntries(sheets.map((sheet) => [sheet, [`${sheet}.min.css`]])),
});

const LIBRARIES: readonly Library[] = [
  {
    names: AWESOME,
    majors: [5, 6],
    package: '@fortawesome/fontawesome-free',
    folder: 'css',
    sheets: Object.fromEntries(
      ['all', 'fontawesome', 'solid', 'regular', 'brands', 'v4-shims'].map((sheet) => [
        sheet,
        [`${sheet}.min.css`],
      ]),
    ),
  },
  {
    names: AWESOME,
    majors: [4],
    package: '@fortawesome/fontawesome-free',
    folder: 'css',
    sheets: { 'font-awesome': ['all.min.css', 'v4-shims.min.css'] },
  },
  bootstrap('bootstrap', 5, [
    'bootstrap',
    'bootstrap.rtl',
    'bootstrap-grid',
    'bootstrap-reboot',
    'bootstrap-utilities',
  ]),
  bootstrap('bootstrap-4', 4, ['bootstrap', 'bootstrap-grid', 'bootstrap-reboot']),
  {
    names: ['bootstrap-icons'],
    majors: [1],
    package: 'bootstrap-icons',
    folder: 'font',
    sheets: { 'bootstrap-icons': ['bootstrap-icons.min.css'] },
  },
];

const FONT = /url\(\s*["']?([^"')?#]+\.woff2)/g;

/**
 * The style sheet that stands for one that a page asks another host for: of the same library and the same first number, from
 * what comes with Tovel, with the fonts that it names.
 * @returns null for any other
 */
export async function shippedSheet({ name, version, file }: PackageAddress): Promise<ShippedSheet | null> {
  const sheet = path.posix
    .basename(file)
    .replace(/\.css$/, '')
    .replace(/[.-]min$/, '');
  const major = Number.parseInt(version, 10);
  const isSuch = (majors: readonly number[]): boolean => version === LATEST || majors.includes(major);
  // The newest of each comes first.
  const library = LIBRARIES.find(
    ({ names, majors, sheets }) => names.includes(name) && isSuch(majors) && Object.hasOwn(sheets, sheet),
  );
  if (!library) return null;
  const manifest = require.resolve(`${library.package}/package.json`);
  const root = path.dirname(manifest);
  const read = async (at: string): Promise<InputFile> => ({
    path: at,
    bytes: new Uint8Array(await readFile(path.join(root, at))),
  });
  const css = await Promise.all(
    library.sheets[sheet].map((one) => readFile(path.join(root, library.folder, one), 'utf8')),
  );
  const text = css.join('\n');
  const fonts = new Set(Array.from(text.matchAll(FONT), ([, font]) => path.posix.join(library.folder, font)));
  const { version: shipped } = JSON.parse(await readFile(manifest, 'utf8')) as { version: string };
  return {
    version: shipped,
    sheet: path.posix.join(library.folder, library.sheets[sheet][0]),
    text,
    files: await Promise.all([...fonts].map(read)),
  };
}
