import { gunzipSync, gzipSync, strFromU8, strToU8 } from 'fflate';
import type { EmittedFile } from '../emit/emitted.ts';
import { hashOf } from '../intake/files.ts';
import { isRecord } from '../json/json.ts';
import { assertShape } from '../schema/problem.ts';
import { choice, fields, list, optional, text, type ValueOf } from '../schema/schema.ts';

/** Where a delivered project says what was written into it, and keeps what that was. */
export const MANIFEST_PATH = '.tovel/manifest.json';
const BASE_FOLDER = '.tovel/base/';

/** What is kept for merging is nothing to be read in a review. */
export const ATTRIBUTES_PATH = '.tovel/.gitattributes';
export const ATTRIBUTES = '* linguist-generated -diff\n';

/** Files around the source, that people write, too. */
const AROUND = /^(?!src\/|public\/)[^/]*$/;

const FORMAT = 'tovel-delivery/1';

/**
 * Whose a file is: written anew each time; written together with people, as what is around the source is; or written once, for
 * people to go on with.
 */
const OWNERS = ['generated', 'shared', 'yours'] as const;

const fileSchema = fields({
  /** Within the folder, with `/`. */
  path: text(1000, { min: 1, holds: isInside, says: 'expected a path within the folder' }),
  owner: choice(OWNERS),
  /** SHA-256 of what was written, in hex. */
  hash: text(64, { pattern: /^[0-9a-f]{64}$/, says: 'expected a hash' }),
  /** Which element each part came from: lines, from 1, and its key, as in `3-9,12 key`. */
  parts: optional(list(text(100_000), { max: 100_000 })),
});

const manifestSchema = fields({
  format: choice([FORMAT]),
  project: text(200),
  target: text(20),
  files: list(fileSchema, { max: 100_000 }),
});

/** What was written into a folder last. */
export type Manifest = ValueOf<typeof manifestSchema>;
export type ManifestFile = ValueOf<typeof fileSchema>;
export type Owner = ManifestFile['owner'];

/** Whether a path from outside stays within its folder and out of what Tovel and Git keep. */
export function isInside(path: string): boolean {
  const parts = path.split('/');
  return !/[\\\0:]/.test(path) && !parts.some((part) => ['', '.', '..', '.git', '.tovel'].includes(part));
}

/**
 * Reads a manifest.
 * @throws RangeError that says what is wrong with it, and where
 */
export function parseManifest(json: string): Manifest {
  let value: unknown;
  try {
    value = JSON.parse(json);
  } catch (error) {
    throw new RangeError(`${MANIFEST_PATH} is no JSON: ${(error as Error).message}`);
  }
  if (isRecord(value) && typeof value.format === 'string' && value.format !== FORMAT)
    throw new RangeError(`${MANIFEST_PATH} is of another version (${value.format.slice(0, 40)}).`);
  assertShape(manifestSchema, value, MANIFEST_PATH);
  return value as Manifest;
}

/** Writes a manifest, a file a line, so that it differs where the code does. */
export function printManifest({ format, project, target, files }: Manifest): string {
  const lines = [...files]
    .sort((a, b) => (a.path < b.path ? -1 : 1))
    .map(({ path, owner, hash, parts }) => JSON.stringify({ path, owner, hash, parts }));
  const head = JSON.stringify({ format, project, target }).slice(1, -1);
  return `{${head},"files":[\n${lines.join(',\n')}\n]}\n`;
}

export const manifestOf = (project: string, target: string, files: readonly ManifestFile[]): Manifest => ({
  format: FORMAT,
  project,
  target,
  files,
});

/** What a manifest says of a file that is written. */
export const entryOf = (file: EmittedFile, hash: string): ManifestFile => ({
  path: file.path,
  owner: 'text' in file && file.owner ? file.owner : AROUND.test(file.path) ? 'shared' : 'generated',
  hash,
  ...('text' in file && file.lines?.some((line) => line !== null) ? { parts: partsOf(file.lines) } : {}),
});

/** What is kept beside code that is written into an empty folder, so that it can be delivered into again: bytes by path. */
export function recordOf(
  project: string,
  target: string,
  files: readonly EmittedFile[],
): Map<string, Uint8Array> {
  const record = new Map<string, Uint8Array>([[ATTRIBUTES_PATH, strToU8(ATTRIBUTES)]]);
  const entries = files.map((file) => {
    if (!('text' in file)) return entryOf(file, file.asset);
    const hash = hashOf(strToU8(file.text));
    record.set(basePath(hash), packBase(file.text));
    return entryOf(file, hash);
  });
  return record.set(MANIFEST_PATH, strToU8(printManifest(manifestOf(project, target, entries))));
}

/** Where what was written is kept, named by its hash: the same text is kept once, and two branches never collide. */
export const basePath = (hash: string): string => `${BASE_FOLDER}${hash.slice(0, 32)}.gz`;

/** A text as it is kept; the same text gives the same bytes. */
export const packBase = (written: string): Uint8Array => gzipSync(strToU8(written), { mtime: 0, level: 9 });

/** A text that was kept, or null where it is damaged. */
export function unpackBase(bytes: Uint8Array): string | null {
  try {
    return strFromU8(gunzipSync(bytes));
  } catch {
    return null;
  }
}

/** The elements of a file's lines, as a manifest says them. */
export function partsOf(lines: readonly (string | null)[]): string[] {
  const ranges = new Map<string, [number, number][]>();
  for (const [i, key] of lines.entries()) {
    if (key === null) continue;
    const known = ranges.get(key) ?? [];
    ranges.set(key, known);
    const last = known.at(-1);
    if (last?.[1] === i) last[1] = i + 1;
    else known.push([i + 1, i + 1]);
  }
  const range = ([from, to]: [number, number]): string => (from === to ? `${from}` : `${from}-${to}`);
  return [...ranges].map(([key, places]) => `${places.map(range).join(',')} ${key}`);
}

/** The element of each line, of what a manifest says. */
export function linesOf(parts: readonly string[]): (string | null)[] {
  const lines: (string | null)[] = [];
  for (const part of parts) {
    const [, places, key] = /^([\d,-]+) (.+)$/s.exec(part) ?? [];
    for (const place of places?.split(',') ?? []) {
      const [from, to = from] = place.split('-').map(Number);
      // No file has more lines than that.
      if (!(from >= 1 && to >= from && to < 200_000)) continue;
      while (lines.length < to) lines.push(null);
      lines.fill(key, from - 1, to);
    }
  }
  return lines;
}
