import { type App, TABLE_NAMES } from '../model/app.ts';
import type { Design } from '../model/design.ts';
import { equalJson } from '../json/json.ts';
import { elementsByKey, findElement, screensByKey, screenWith } from '../model/places.ts';
import type { Project } from '../model/project.ts';
import { all, type Change, setStart } from './change.ts';
import type { KeyMapping } from './key_mapping.ts';
import { mapChange } from './map_keys.ts';

/** The change that leads from one app to another. */
export function changeBetween(from: App, to: App): Change {
  const changes: Change[] = [];
  for (const table of TABLE_NAMES) {
    const [was, is]: Readonly<Record<string, unknown>>[] = [from[table], to[table]];
    for (const key of new Set([...Object.keys(was), ...Object.keys(is)])) {
      const value = Object.hasOwn(is, key) ? is[key] : null;
      if (!equalJson(Object.hasOwn(was, key) ? was[key] : null, value))
        changes.push({ kind: 'put', table, key, value } as Change);
    }
  }
  if (from.start !== to.start) changes.push(setStart(to.start));
  return all(changes);
}

/** Where keys go from one revision of a design to another in which what stayed has kept its key. */
export function keysBetween(before: Design, after: Design): KeyMapping {
  const keysOf = ({ screens }: Design): Set<string> =>
    new Set(screens.flatMap((screen) => [screen.key, ...elementsByKey(screen).keys()]));
  const [old, now] = [keysOf(before), keysOf(after)];
  return {
    to: Object.fromEntries(
      [...old]
        .filter((key) => !now.has(key))
        .sort()
        .map((key) => [key, []]),
    ),
    made: [...now].filter((key) => !old.has(key)).sort(),
  };
}

/** Keys of the screens that a change has to do with, sorted. */
export function screensTouched({ design }: Project, change: Change): string[] {
  const screens = screensByKey(design);
  const touched = new Set<string>();
  mapChange(change, (key) => {
    const screen = screens.has(key) ? key : findElement(design, key) && screenWith(design, key)?.key;
    if (screen) touched.add(screen);
    return key;
  });
  return [...touched].sort();
}
