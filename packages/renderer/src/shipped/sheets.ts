import { readdir, readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { transform } from 'esbuild';
import { type InputFile, LATEST, type PackageAddress, type ShippedSheet } from '@tovel/core';

const require = createRequire(import.meta.url);

/** A library of styles that comes with Tovel: what it is called where it is served, and its sheets. */
interface Library {
  readonly names: readonly string[];
  /** The first numbers of versions that it can stand for. */
  readonly majors: readonly number[];
  readonly package: string;
  readonly folder: string;
  /** Its sheets that pages ask for, by their names without `.min`, with what stands for each; else those of its folder. */
  readonly sheets?: Readonly<Record<string, readonly string[]>>;
  /** The sheet that an address asks for that names none. */
  readonly usual?: string;
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
  { names: ['bulma'], majors: [1], package: 'bulma', folder: 'css' },
  { names: ['bulma'], majors: [0], package: 'bulma-0', folder: 'css' },
  { names: ['daisyui'], majors: [5], package: 'daisyui', folder: '', usual: 'daisyui' },
  { names: ['daisyui'], majors: [2, 3, 4], package: 'daisyui-4', folder: 'dist' },
  {
    names: ['@picocss/pico', 'picocss'],
    majors: [2],
    package: '@picocss/pico',
    folder: 'css',
    usual: 'pico',
  },
  { names: ['@picocss/pico', 'picocss'], majors: [1], package: 'pico-1', folder: 'css', usual: 'pico' },
  {
    names: ['materialize-css', 'materialize'],
    majors: [0, 1],
    package: 'materialize-css',
    folder: 'dist/css',
  },
  { names: ['normalize.css', 'normalize'], majors: [5, 6, 7, 8], package: 'normalize.css', folder: '' },
  { names: ['remixicon'], majors: [2, 3, 4], package: 'remixicon', folder: 'fonts' },
  { names: ['boxicons'], majors: [1, 2], package: 'boxicons', folder: 'css' },
  {
    names: ['@mdi/font', 'materialdesign-webfont', 'mdi'],
    majors: [3, 4, 5, 6, 7],
    package: '@mdi/font',
    folder: 'css',
  },
  {
    names: ['line-awesome'],
    majors: [1],
    package: 'line-awesome',
    folder: 'dist/line-awesome/css',
  },
];

/** The files that stand for a sheet of a library; none where it has no such sheet. */
async function filesFor(
  { sheets, folder, usual }: Library,
  root: string,
  name: string,
): Promise<readonly string[]> {
  const sheet = name || usual || '';
  if (sheets) return Object.hasOwn(sheets, sheet) ? sheets[sheet] : [];
  const there = new Set(await readdir(path.join(root, folder)));
  return [`${sheet}.min.css`, `${sheet}.css`].filter((file) => there.has(file)).slice(0, 1);
}

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
  for (const library of LIBRARIES) {
    if (!library.names.includes(name) || !isSuch(library.majors)) continue;
    const manifest = require.resolve(`${library.package}/package.json`);
    const root = path.dirname(manifest);
    const files = await filesFor(library, root, sheet);
    if (files.length) return readSheet(library, root, files);
  }
  return null;
}

const packedFiles = new Map<string, Promise<string>>();

/** A sheet of a package as it would be served: without what only its authors read. */
function servedSheet(file: string): Promise<string> {
  if (file.endsWith('.min.css')) return readFile(file, 'utf8');
  let packed = packedFiles.get(file);
  if (!packed)
    packedFiles.set(
      file,
      (packed = readFile(file, 'utf8').then(
        async (css) =>
          (await transform(css, { loader: 'css', minifyWhitespace: true, logLevel: 'silent' })).code,
      )),
    );
  return packed;
}

/** Sheets of a package as one, with the fonts that they name. */
async function readSheet(
  { folder }: Library,
  root: string,
  sheets: readonly string[],
): Promise<ShippedSheet> {
  const read = async (at: string): Promise<InputFile> => ({
    path: at,
    bytes: new Uint8Array(await readFile(path.join(root, at))),
  });
  const css = await Promise.all(sheets.map((one) => servedSheet(path.join(root, folder, one))));
  const text = css.join('\n');
  const fonts = new Set(Array.from(text.matchAll(FONT), ([, font]) => path.posix.join(folder, font)));
  const { version: shipped } = JSON.parse(await readFile(path.join(root, 'package.json'), 'utf8')) as {
    version: string;
  };
  return {
    version: shipped,
    sheet: path.posix.join(folder, sheets[0]),
    text,
    files: await Promise.all([...fonts].map(read)),
  };
}
