import type { EmittedFile } from '../emit/emitted.ts';
import type { ManifestFile } from './manifest.ts';

/** How much of what a file was about another file must be about to be what became of it. */
const MOST = 0.5;

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
    const was = new Set(known.get(path)?.parts?.map((part) => part.slice(part.indexOf(' ') + 1)));
    if (!was.size) continue;
    const share = (other: string): number => {
      const now = elements.get(other);
      return now ? [...was].filter((key) => now.has(key)).length / was.size : 0;
    };
    const ending = /\.[^/.]+$/.exec(path)?.[0];
    const own = share(path);
    const best = [...elements.keys()]
      .filter(
        (other) => other !== path && other.endsWith(ending ?? '') && !taken.has(other) && !touched.has(other),
      )
      .map((other) => [share(other), other] as const)
      .sort(([a], [b]) => b - a)
      .at(0);
    if (!best || best[0] < MOST || best[0] <= own) continue;
    moved.set(path, best[1]);
    taken.add(best[1]);
  }
  return moved;
}
