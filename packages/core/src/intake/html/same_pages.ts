import { grouped } from '../../json/grouped.ts';
import { fileName, hashOf, type InputFile, kindOfFile, resolveReference, textOfFile } from '../files.ts';

const REFERENCES = /\s(?:href|src|srcset|poster|data)\s*=\s*["']?([^"'\s>]+)/gi;

/**
 * Pages that say the very same as others of their name in a batch, with those: what was built comes beside what it was built from.
 * That stays which more of what it shows came along with, else the one whose path is shorter. Pages that would show other things,
 * or lead to others, since other files stand beside them, are pages of their own.
 * @returns paths by paths
 */
export function samePages(files: readonly InputFile[]): ReadonlyMap<string, string> {
  const byPath = new Map(files.map((file) => [file.path, file]));
  const pages = files.filter(({ path }) => kindOfFile(path) === 'html');
  const found = new Map<string, string>();
  for (const same of grouped(pages, ({ path, bytes }) => `${fileName(path)} ${hashOf(bytes)}`).values()) {
    if (same.length < 2) continue;
    const references = [...textOfFile(same[0]).matchAll(REFERENCES)].map(([, reference]) => reference);
    const read = same.map((page) => ({
      page,
      shows: references.map((reference) => {
        const path = resolveReference(reference, page.path);
        const file = path === null ? undefined : byPath.get(path);
        return file && hashOf(file.bytes);
      }),
    }));
    const count = (one: (typeof read)[number]): number => one.shows.filter(Boolean).length;
    const kept: typeof read = [];
    for (const one of read.toSorted(
      (a, b) =>
        count(b) - count(a) ||
        a.page.path.length - b.page.path.length ||
        (a.page.path < b.page.path ? -1 : 1),
    )) {
      const other = kept.find(({ shows }) =>
        one.shows.every((hash, i) => hash === undefined || hash === shows[i]),
      );
      if (other) found.set(one.page.path, other.page.path);
      else kept.push(one);
    }
  }
  return found;
}
