import { resolvedPath } from '../emit/needed.ts';

/** A class that a component asks a sheet for that has it not. */
export interface MissingClass {
  readonly path: string;
  /** From 1. */
  readonly line: number;
  readonly sheet: string;
  readonly name: string;
}

/** Classes that components take from modules of styles which do not write them. */
export function missingClasses(files: ReadonlyMap<string, string>): MissingClass[] {
  const missing: MissingClass[] = [];
  const known = new Map<string, ReadonlySet<string>>();
  const classesOf = (sheet: string, css: string): ReadonlySet<string> => {
    const names =
      known.get(sheet) ??
      new Set([...css.matchAll(/\.(-?[_a-zA-Z][\w-]*)/g)].map(([, name]) => inCode(name)));
    known.set(sheet, names);
    return names;
  };
  for (const [path, text] of files) {
    if (!/\.(tsx|vue)$/.test(path)) continue;
    for (const [, local, from] of text.matchAll(/import (\w+) from ['"](\.[^'"]+\.module\.css)['"]/g)) {
      const sheet = resolvedPath(path, from);
      const css = files.get(sheet);
      if (css === undefined) continue;
      for (const { 1: name, index } of text.matchAll(
        new RegExp(`(?<![/.\\w])${local}\\.(?!module\\.css)(\\w+)`, 'g'),
      ))
        if (!classesOf(sheet, css).has(name))
          missing.push({ path, line: text.slice(0, index).split('\n').length, sheet, name });
    }
  }
  return missing;
}

/** A class as scripts say it: bundlers give both its own name and one without dashes. */
const inCode = (name: string): string => name.replace(/-+(\w)/g, (_, letter: string) => letter.toUpperCase());
