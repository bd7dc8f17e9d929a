import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { hashOf, type InputFile } from '../intake/files.ts';
import { limits, megabytes } from '../intake/limits.ts';
import { type App, appSchema, emptyApp } from '../model/app.ts';
import { type Design, designLimits, designSchema, type Element, SCREEN_KEY } from '../model/design.ts';
import { isRecord, stringifySorted } from '../json/json.ts';
import type { Project } from '../model/project.ts';
import { appAsWrittenNow, asWrittenNow } from './older.ts';
import { findProblem, problemText } from '../schema/problem.ts';

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
  if (bytes.length > limits.projectBytes)
    throw new ArchiveError(`The file is larger than ${megabytes(limits.projectBytes)}.`);
  let entries: Record<string, Uint8Array>;
  let total = 0;
  try {
    entries = unzipSync(bytes, { filter: (entry) => (total += entry.originalSize) <= limits.projectBytes });
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
    design: parseDesign(asWrittenNow(design)),
    app: parseApp(appAsWrittenNow(app)),
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
  const problem = findProblem(designSchema, json);
  if (problem) throw new ArchiveError(`design.json: ${problemText(problem)}`);
  const design = json as Design;
  const keys = new Set<string>();
  const screens = new Set<string>();
  design.screens.forEach((screen, i) => {
    if (!SCREEN_KEY.test(screen.key))
      fail(`screens/${i}/key`, 'expected small letters, digits and - as the key of a screen');
    if (screens.has(screen.key)) fail(`screens/${i}/key`, `the key "${screen.key}" stands twice`);
    screens.add(screen.key);
    let count = 0;
    const visit = (element: Element, where: string, depth: number): void => {
      if (keys.has(element.key)) fail(`${where}/key`, `the key "${element.key}" stands twice`);
      keys.add(element.key);
      // Reading and arranging may add containers to what a file may hold.
      if (++count > designLimits.elements * 2) fail(where, `more than ${designLimits.elements * 2} elements`);
      if (depth > designLimits.depth * 2) fail(where, 'nested too deeply');
      element.children.forEach((child, n) => visit(child, `${where}/${n}`, depth + 1));
    };
    visit(screen.root, `screens/${i}/root`, 0);
  });
  return design;
}

/**
 * Reads an app document from outside, through the same declarations as every change.
 * @throws ArchiveError that names the place.
 */
export function parseApp(json: unknown): App {
  const problem = findProblem(appSchema, json);
  if (problem) throw new ArchiveError(`app.json: ${problemText(problem)}`);
  return { ...emptyApp, ...(json as Partial<App>) };
}
