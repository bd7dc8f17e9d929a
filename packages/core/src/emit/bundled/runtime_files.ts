import type { EmittedFile } from '../emitted.ts';
import { fileAt, referencesIn, resolvedPath } from '../needed.ts';
import { runtime as common } from './runtime_texts.ts';

/**
 * The files of a runtime that an app takes, and those that they take in turn; no others are delivered.
 * @param own texts of the target's runtime, by path from the folder of the source; what both bundled targets have is known
 */
export function runtimeFor(
  files: readonly EmittedFile[],
  own: Readonly<Record<string, string>>,
): EmittedFile[] {
  const byPath = new Map<string, EmittedFile>(
    Object.entries({ ...common, ...own }).map(([name, text]) => [
      `src/${name}`,
      { path: `src/${name}`, text },
    ]),
  );
  const found = new Set<EmittedFile>();
  const follow = (file: EmittedFile): void => {
    if (!('text' in file)) return;
    for (const asked of askedBy(file)) {
      const there = fileAt(byPath, asked);
      if (!there || found.has(there)) continue;
      found.add(there);
      follow(there);
    }
  };
  files.forEach(follow);
  return [...found];
}

const asked = new WeakMap<TextFile, readonly string[]>();
type TextFile = Extract<EmittedFile, { readonly text: string }>;

/** Paths that a file takes something from; of one that stays the same found once. */
function askedBy(file: TextFile): readonly string[] {
  let paths = asked.get(file);
  if (!paths) {
    paths = referencesIn(file.path, file.text).map((to) => resolvedPath(file.path, to));
    asked.set(file, paths);
  }
  return paths;
}
