import type { EmittedFile, EmittedProject } from './emitted.ts';
import { fileAt, resolvedPath } from './needed.ts';
import { wayTo } from './paths.ts';

/**
 * An emitted project with its files called otherwise: what takes something from a file takes it from where that lies now.
 * Where two would be called the same, the later one stays as it was.
 * @param nameOf the new path of a file
 */
export function renamed(emitted: EmittedProject, nameOf: (path: string) => string): EmittedProject {
  const byPath = new Map(emitted.files.map((file) => [file.path, file]));
  const taken = new Set<string>();
  const moved = new Map<string, string>();
  for (const { path } of emitted.files) {
    const wanted = nameOf(path);
    const made = taken.has(wanted) ? path : wanted;
    taken.add(made);
    moved.set(path, made);
  }
  const rewritten = (file: EmittedFile): EmittedFile => {
    const path = moved.get(file.path)!;
    if (!('text' in file) || !/\.(tsx?|vue)$/.test(file.path)) return { ...file, path };
    const text = file.text.replace(
      /((?:from |import |import\()')(\.[^']+)(?=')/g,
      (whole, before: string, asked: string) => {
        const there = fileAt(byPath, resolvedPath(file.path, asked));
        if (!there) return whole;
        const target = moved.get(there.path)!;
        // What was left out of the name is left out of it still.
        const left = there.path.slice(resolvedPath(file.path, asked).length);
        const way = wayTo(path, target.slice(0, target.length - left.length));
        return before + (way.startsWith('.') ? way : `./${way}`);
      },
    );
    return { ...file, path, text };
  };
  return {
    files: emitted.files.map(rewritten).sort((a, b) => (a.path < b.path ? -1 : 1)),
    fileOfScreen: new Map([...emitted.fileOfScreen].map(([key, path]) => [key, moved.get(path) ?? path])),
  };
}
