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
  const byPath = filesOf(own);
  const found = new Set<EmittedFile>();
  const looked = new Set<string>();
  const follow = (file: EmittedFile): void => {
    if (!('text' in file)) return;
    for (const asked of askedBy(file)) {
      if (looked.has(asked)) continue;
      looked.add(asked);
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

const runtimes = new WeakMap<Readonly<Record<string, string>>, ReadonlyMap<string, EmittedFile>>();

/** The files of a runtime by their paths, the very same each time. */
function filesOf(own: Readonly<Record<string, string>>): ReadonlyMap<string, EmittedFile> {
  let files = runtimes.get(own);
  if (!files) {
    const texts = Object.entries({ ...common, ...own });
    files = new Map(texts.map(([name, text]) => [`src/${name}`, { path: `src/${name}`, text }]));
    runtimes.set(own, files);
  }
  return files;
}

/** All paths that files take something from, whose ends may be left out. */
export const pathsAsked = (files: readonly EmittedFile[]): ReadonlySet<string> => {
  const paths = new Set<string>();
  for (const file of files) if ('text' in file) for (const path of askedBy(file)) paths.add(path);
  return paths;
};

/** Paths that a file takes something from; of one that stays the same found once. */
function askedBy(file: TextFile): readonly string[] {
  let paths = asked.get(file);
  if (!paths) {
    paths = referencesIn(file.path, file.text).map((to) => resolvedPath(file.path, to));
    asked.set(file, paths);
  }
  return paths;
}
