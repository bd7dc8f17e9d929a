import type { EmittedFile, EmittedProject } from './emitted.ts';

/**
 * A file of an emitted project with all that it takes from others, however far: one screen or component to be used elsewhere.
 * What a screen leads to is not among it. By path; the file itself first.
 * @param path of the file
 * @throws RangeError where there is no such file
 */
export function withWhatItNeeds({ files }: EmittedProject, path: string): EmittedFile[] {
  const byPath = new Map(files.map((file) => [file.path, file]));
  const first = byPath.get(path);
  if (!first) throw new RangeError(`there is no file "${path}" among the ${files.length} that are written`);
  const found = new Map([[path, first]]);
  for (const [at, file] of found) {
    if (!('text' in file)) continue;
    for (const asked of referencesIn(at, file.text)) {
      const there = fileAt(byPath, resolvedPath(at, asked));
      if (there && !found.has(there.path)) found.set(there.path, there);
    }
  }
  const [own, ...others] = found.values();
  return [own, ...others.sort((a, b) => (a.path < b.path ? -1 : 1))];
}

/** What an import may leave out of a file's name. */
const ENDINGS = ['', '.ts', '.tsx'];

/** The file at a path, of whose name the end may be left out. */
export const fileAt = (byPath: ReadonlyMap<string, EmittedFile>, path: string): EmittedFile | undefined =>
  ENDINGS.map((ending) => byPath.get(path + ending)).find((one) => one !== undefined);

/** What a file takes from others, as it says it: by the ways that begin with a dot. */
export function referencesIn(path: string, text: string): string[] {
  const all = (pattern: RegExp): string[] => [...text.matchAll(pattern)].map(([, to]) => to);
  if (/\.(tsx?|js|vue)$/.test(path)) return all(/(?:from |import |import\()'(\.[^']+)'/g);
  if (path.endsWith('.css')) return all(/url\(['"]?([^'")]+)['"]?\)/g);
  // Of a page what it loads and shows; not where it leads.
  if (path.endsWith('.html'))
    return all(/<(?:script|img|source|video|audio|use|link)\b[^>]*?\s(?:src|srcset|href)="([^"#?]+)/g);
  return [];
}

/** The path that one file names by its way from another. */
export function resolvedPath(from: string, to: string): string {
  const parts = from.split('/').slice(0, -1);
  for (const part of to.split('/'))
    if (part === '..') parts.pop();
    else if (part !== '.') parts.push(part);
  return parts.join('/');
}
