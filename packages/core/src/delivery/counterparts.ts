import type { EmittedFile } from '../emit/emitted.ts';
import type { ManifestFile } from './manifest.ts';

/** How much of what a file was about another file must be about to be what became of it. */
const MOST = 0.5;

/** All that comes after the name of a file: `.module.css`. */
export const endingOf = (path: string): string => /(?:\.[^/.]+)+$/.exec(path)?.[0] ?? '';

/**
 * Where files that somebody changed are written now: a file whose elements are for the most part in another one by now has
 * become that one, as a screen does that is called otherwise, or a piece of one whose number changed.
 * @param touched paths that somebody changed
 * @param known what was written last, by path
 * @returns new paths by old ones
 */
export function counterpartsOf(
  touched: ReadonlySet<string>,
  known: ReadonlyMap<string, ManifestFile>,
  files: readonly EmittedFile[],
): Map<string, string> {
  const elements = new Map<string, ReadonlySet<string>>();
  for (const file of files)
    if ('text' in file && file.lines)
      elements.set(file.path, new Set(file.lines.filter((line) => line !== null)));
  const moved = new Map<string, string>();
  const taken = new Set<string>();
  for (const path of touched) {
    const was = keysOf(known.get(path));
    if (!was.length) continue;
    // What a file is about first of all is what all in it stands in.
    const isSame = (other: string): boolean => elements.get(other)?.values().next().value === was[0];
    if (isSame(path)) continue;
    const share = (other: string): number => {
      const now = elements.get(other);
      return now ? was.filter((key) => now.has(key)).length / was.length : 0;
    };
    const ending = endingOf(path);
    const others = [...elements.keys()].filter(
      (other) => other !== path && other.endsWith(ending) && !taken.has(other) && !touched.has(other),
    );
    const [best] = others
      .map((other) => ({ other, score: share(other) + (isSame(other) ? 1 : 0) }))
      .sort((a, b) => b.score - a.score);
    if (!best || best.score < MOST || best.score <= share(path)) continue;
    moved.set(path, best.other);
    taken.add(best.other);
  }
  return moved;
}

/** The elements that a file was about, in the order in which they begin. */
const keysOf = (file: ManifestFile | undefined): string[] =>
  [...(file?.parts ?? [])]
    .sort((a, b) => parseInt(a) - parseInt(b))
    .map((part) => part.slice(part.indexOf(' ') + 1));
