import type { EmittedFile } from '../emitted.ts';
import { fileAt, referencesIn, resolvedPath } from '../needed.ts';
import { runtime } from './runtime_texts.ts';

const byPath: ReadonlyMap<string, EmittedFile> = new Map(
  Object.entries(runtime).map(([name, text]) => [`src/${name}`, { path: `src/${name}`, text }]),
);

/** The files of the runtime that an app takes, and those that they take in turn; no others are delivered. */
export function runtimeFor(files: readonly EmittedFile[]): EmittedFile[] {
  const found = new Set<EmittedFile>();
  const follow = (file: EmittedFile): void => {
    if (!('text' in file)) return;
    for (const asked of referencesIn(file.path, file.text)) {
      const there = fileAt(byPath, resolvedPath(file.path, asked));
      if (!there || found.has(there)) continue;
      found.add(there);
      follow(there);
    }
  };
  files.forEach(follow);
  return [...found];
}
