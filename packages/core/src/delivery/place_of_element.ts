import type { EmittedFile } from '../emit/emitted.ts';
import { parentsByKey } from '../model/places.ts';
import type { Screen } from '../model/design.ts';
import { endingOf } from './counterparts.ts';

/** A line of a file, from 0. */
export interface CodePlace {
  readonly path: string;
  readonly line: number;
}

/**
 * Where an element of a screen is written: the first line that is about it, in the file that is looked at or else in another of
 * its kind; where no line is, as within a line or a component that is written for another place, that of what it stands in.
 * @param path the file that is looked at
 * @returns null where nothing around it is written in a file of that kind
 */
export function placeOfElement(
  files: readonly EmittedFile[],
  path: string,
  screen: Screen,
  element: string,
): CodePlace | null {
  const kind = endingOf(path);
  const ordered = files
    .filter((file) => endingOf(file.path) === kind)
    .sort((a, b) => Number(b.path === path) - Number(a.path === path));
  const parents = parentsByKey(screen);
  for (let key: string | undefined = element; key !== undefined; key = parents.get(key)?.key)
    for (const file of ordered) {
      const line = 'text' in file ? (file.lines?.indexOf(key) ?? -1) : -1;
      if (line >= 0) return { path: file.path, line };
    }
  return null;
}
