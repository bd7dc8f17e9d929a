import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { parseChange, putInteraction, putScreen, putStill } from '../change/change.ts';
import { hashOf, type InputFile } from '../intake/files.ts';
import { limits, megabytes } from '../intake/limits.ts';
import { type App, emptyApp } from '../model/app.ts';
import type { Design } from '../model/design.ts';
import { isRecord, stringifySorted } from '../model/json.ts';
import type { Project } from '../model/project.ts';

/** A project with the bytes of its assets: what a `.tovel` file holds. */
export interface ProjectArchive extends Project {
  readonly name: string;
  readonly bytes: ReadonlyMap<string, Uint8Array>;
}

export class ArchiveError extends Error {}

/** Zip stores local times; a fixed one makes equal contents equal bytes. */
const STAMP = new Date(1980, 0, 2);

/** Packs files so that the same files give the same bytes. */
export function packZip(files: readonly InputFile[]): Uint8Array {
  const sorted = [...files].sort((a, b) => (a.path < b.path ? -1 : 1));
  return zipSync(Object.fromEntries(sorted.map((file) => [file.path, file.bytes])), {
    mtime: STAMP,
    level: 6,
  });
}

/** Writes a `.tovel` file. */
export function packProject(project: ProjectArchive): Uint8Array {
  const json = (value: unknown): Uint8Array => strToU8(`${stringifySorted(value, 1)}\n`);
  return packZip([
    { path: 'project.json', bytes: json({ format: 'tovel-project/1', name: project.name }) },
    { path: 'design.json', bytes: json(project.design) },
    { path: 'app.json', bytes: json(project.app) },
    ...project.design.assets.flatMap(({ hash }) => {
      const bytes = project.bytes.get(hash);
      return bytes ? [{ path: `assets/${hash}`, bytes }] : [];
    }),
  ]);
}

/**
 * Reads a `.tovel` file.
 * @throws ArchiveError that says what is wrong with it.
 */
export function unpackProject(bytes: Uint8Array, fallbackName = 'Untitled'): ProjectArchive {
  if (bytes.length > limits.unpackedBytes)
    throw new ArchiveError(`The file is larger than ${megabytes(limits.unpackedBytes)}.`);
  let entries: Record<string, Uint8Array>;
  let total = 0;
  try {
    entries = unzipSync(bytes, { filter: (entry) => (total += entry.originalSize) <= limits.unpackedBytes });
  } catch (error) {
    throw new ArchiveError(`This is not a .tovel file, or it is damaged (${(error as Error).message}).`);
  }
  const design = readJson(entries, 'design.json');
  const app = readJson(entries, 'app.json');
  const about = entries['project.json'] ? readJson(entries, 'project.json') : {};
  const assets = new Map<string, Uint8Array>();
  for (const [path, content] of Object.entries(entries)) {
    const hash = /^assets\/([0-9a-f]{64})$/.exec(path)?.[1];
    if (hash && hashOf(content) === hash) assets.set(hash, content);
  }
  return {
    name: typeof about.name === 'string' ? about.name : fallbackName,
    design: parseDesign(design),
    app: parseApp(app),
    bytes: assets,
  };
}

function readJson(entries: Record<string, Uint8Array>, path: string): Record<string, unknown> {
  if (!entries[path]) throw new ArchiveError(`The file holds no ${path}, so it is not a Tovel project.`);
  try {
    const value: unknown = JSON.parse(strFromU8(entries[path]));
    if (isRecord(value)) return value;
  } catch {
    // Said below, as for any other value.
  }
  throw new ArchiveError(`${path} in the file is not readable as JSON.`);
}

/**
 * Reads a design document from outside, down to the last element.
 * @throws ArchiveError that names the place.
 */
export function parseDesign(json: unknown): Design {
  const fail = (where: string, what: string): never => {
    throw new ArchiveError(`design.json: ${where}: ${what}`);
  };
  if (!isRecord(json) || json.format !== 'tovel-design/1') return fail('format', 'expected "tovel-design/1"');
  if (!Array.isArray(json.screens) || !Array.isArray(json.assets) || !Array.isArray(json.notices))
    return fail('screens, assets, notices', 'expected lists');
  const keys = new Set<string>();
  const checkElement = (value: unknown, where: string, screenKey: string, depth: number): void => {
    if (!isRecord(value)) return fail(where, 'expected an element');
    if (typeof value.key !== 'string' || !value.key.startsWith(`${screenKey}:`))
      return fail(where, `expected a key that begins with "${screenKey}:"`);
    if (keys.has(value.key)) return fail(where, `the key "${value.key}" stands twice`);
    keys.add(value.key);
    if (keys.size > limits.elements * 500 || depth > limits.depth + 20)
      return fail(where, 'too many or too deeply nested elements');
    if (value.tag !== undefined && !/^[a-z][a-z0-9-]*$/i.test(String(value.tag)))
      return fail(where, 'a tag is a plain name');
    if (
      value.tag !== undefined &&
      /^(script|style|iframe|object|embed|link|meta|base)$/i.test(String(value.tag))
    )
      return fail(where, `<${String(value.tag)}> cannot be part of a screen`);
    if (
      !isRecord(value.box) ||
      !isRecord(value.style) ||
      !isRecord(value.style.base) ||
      !isRecord(value.source)
    )
      return fail(where, 'expected box, style and source');
    for (const name of Object.keys(isRecord(value.attributes) ? value.attributes : {}))
      if (/^on|^(src|srcdoc|style)$/i.test(name))
        return fail(where, `the attribute "${name}" is not allowed`);
    for (const state of Object.keys(isRecord(value.style.states) ? value.style.states : {}))
      if (!/^:[a-z:-]+$/.test(state)) return fail(where, `"${state}" is no state of an element`);
    if (!Array.isArray(value.children)) return fail(where, 'expected children');
    value.children.forEach((child, i) => checkElement(child, `${where}/${i}`, screenKey, depth + 1));
  };
  json.screens.forEach((screen: unknown, i) => {
    if (!isRecord(screen) || typeof screen.key !== 'string' || !/^[a-z0-9-]+$/.test(screen.key))
      return fail(`screens/${i}`, 'expected a screen with a key of letters, digits and -');
    if (
      typeof screen.name !== 'string' ||
      typeof screen.width !== 'number' ||
      typeof screen.height !== 'number' ||
      !isRecord(screen.source)
    )
      return fail(`screens/${i}`, 'expected name, width, height and source');
    if (screen.reference !== undefined && !isHash(screen.reference))
      return fail(`screens/${i}/reference`, 'expected the hash of a picture');
    if (screen.regions !== undefined && !(Array.isArray(screen.regions) && screen.regions.every(isRegion)))
      return fail(`screens/${i}/regions`, 'expected a list of regions with kind, box and confidence');
    checkElement(screen.root, `screens/${i}/root`, screen.key, 0);
  });
  if (json.fonts !== undefined && !(Array.isArray(json.fonts) && json.fonts.every(isFontFace)))
    return fail('fonts', 'expected faces with family, weight, style and asset');
  if (json.brief !== undefined && typeof json.brief !== 'string') return fail('brief', 'expected a text');
  return json as unknown as Design;
}

const isHash = (value: unknown): boolean => typeof value === 'string' && /^[0-9a-f]{64}$/.test(value);

const isFontFace = (value: unknown): boolean =>
  isRecord(value) &&
  isHash(value.asset) &&
  ['family', 'weight', 'style'].every((name) => typeof value[name] === 'string') &&
  ['stretch', 'unicodeRange'].every((name) => value[name] === undefined || typeof value[name] === 'string');

const isRegion = (value: unknown): boolean =>
  isRecord(value) &&
  ['box', 'row', 'text'].includes(String(value.kind)) &&
  typeof value.confidence === 'number' &&
  isRecord(value.box) &&
  [value.box.x, value.box.y, value.box.width, value.box.height].every(Number.isFinite);

/**
 * Reads an app document from outside, through the same gate as every change.
 * @throws ArchiveError that names the place.
 */
export function parseApp(json: unknown): App {
  if (!isRecord(json) || json.format !== 'tovel-app/1')
    throw new ArchiveError('app.json: format: expected "tovel-app/1"');
  try {
    for (const [key, value] of Object.entries(tableOf(json, 'screens')))
      parseChange(putScreen(key, value as App['screens'][string]));
    for (const [key, value] of Object.entries(tableOf(json, 'interactions')))
      parseChange(putInteraction(key, value as App['interactions'][string]));
    for (const key of Object.keys(tableOf(json, 'still'))) parseChange(putStill(key, true));
    for (const table of OPEN_TABLES)
      for (const [key, value] of Object.entries(tableOf(json, table)))
        parseChange({ kind: 'put', table, key, value });
  } catch (error) {
    throw new ArchiveError(`app.json: ${(error as Error).message}`);
  }
  if (json.start !== null && typeof json.start !== 'string')
    throw new ArchiveError('app.json: start: expected a screen key or null');
  return { ...emptyApp, ...(json as unknown as App) };
}

/** Tables that older projects may not have yet. */
const OPEN_TABLES = [
  'layers',
  'regions',
  'settings',
  'dismissed',
  'edits',
  'components',
  'tokens',
  'added',
  'drawers',
  'defaults',
  'refused',
] as const;

function tableOf(json: Record<string, unknown>, name: string): Record<string, unknown> {
  const table = json[name] ?? {};
  if (!isRecord(table)) throw new ArchiveError(`app.json: ${name}: expected an object`);
  return table;
}
