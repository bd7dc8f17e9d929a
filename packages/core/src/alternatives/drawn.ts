import { all, type Change, type Put, putScreen, putUse, setStart } from '../change/change.ts';
import { grouped } from '../json/grouped.ts';
import { labelOf, type Pressable, pressablesOf } from '../links/pressable.ts';
import { surePairs } from '../match/sure_pairs.ts';
import { type App, type TableName, TABLE_NAMES, tables } from '../model/app.ts';
import type { Screen } from '../model/design.ts';
import { findElement, screenOf } from '../model/places.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { orderedScreens, type Project, screensByKey } from '../model/project.ts';
import { equalJson } from '../json/json.ts';
import { mapKeysIn, mapKeyText } from '../schema/map_keys.ts';
import type { KeyShape } from '../schema/schema.ts';
import { onceForBoth } from '../json/once_for.ts';

/** What is said of elements and goes along to the alternative that is kept: what they do and show, not what they look like. */
const SHARED = new Set<TableName>(['interactions', 'still', 'bindings', 'forms', 'disclosures', 'details']);
/** Visual decisions stay with the drawing that they were made on, and what has been is not written anew. */
const OF_DRAWING = new Set<TableName>([
  'screens',
  'edits',
  'layers',
  'regions',
  'added',
  'drawers',
  'code',
  'iterations',
  'setAside',
  'refused',
  'dismissed',
]);

/** The drawings that wait as alternatives of a screen, in the person's order. */
export const alternativesOf = (app: App, key: string): string[] =>
  orderedScreens(app).filter(
    (other) => app.screens[other].use === 'alternative' && app.screens[other].of === key,
  );

/** Makes drawings alternatives of a screen, with their own alternatives: what led to them leads to that screen. */
export function makeAlternatives({ app }: Project, keys: readonly string[], of: string): Change {
  const drawings = [...new Set(keys.flatMap((key) => [key, ...alternativesOf(app, key)]))].filter(
    (key) => key !== of,
  );
  const map = (other: string): string => (drawings.includes(other) ? of : other);
  return all([
    ...drawings.map((key) => putUse(app, key, 'alternative', of)),
    ...overlaysRetold(app, map),
    ...retold(app, map, new Set()),
    ...(app.start !== null && drawings.includes(app.start) ? [setStart(of)] : []),
  ]);
}

/**
 * Makes an alternative the screen: it takes its place, name and route, what led to it leads there, and what its elements do and show
 * is done and shown by those that are the same in the alternative. The drawing that it was waits as an alternative, with what was said
 * of its elements, so that keeping that one again brings all of it back.
 * @throws RangeError where the key is of no alternative
 */
export function keepAlternative(project: Project, key: string): Change {
  const { app } = project;
  const { of, name, route, order } = app.screens[key] ?? {};
  const main = of === undefined ? undefined : app.screens[of];
  if (of === undefined || !main || app.screens[key].use !== 'alternative')
    throw new RangeError(`keepAlternative: “${key}” is no alternative of a screen`);
  const pairs = pairsOf(project, of, key);
  const map = (other: string): string => (other === of ? key : (pairs.get(other) ?? other));
  return all([
    putScreen(key, main),
    putScreen(of, { name, route, order, use: 'alternative', of: key }),
    ...alternativesOf(app, of)
      .filter((other) => other !== key)
      .map((other) => putUse(app, other, 'alternative', key)),
    ...overlaysRetold(app, map),
    ...retold(app, map, new Set([...pairs.keys(), of])),
    ...(app.start === of ? [setStart(key)] : []),
  ]);
}

/** Overlays of screens, said of other keys. */
const overlaysRetold = (app: App, map: (key: string) => string): Put[] =>
  Object.entries(app.screens).flatMap(([key, entry]) => {
    const said = entry.use === 'overlay' ? mapKeysIn(tables.screens.value, entry, map) : entry;
    return said === entry ? [] : [putScreen(key, said)];
  });

/** What elements are called that do something on a screen and are not found in an alternative of it. */
export function wiredWithout(project: Project, key: string): string[] {
  const { of } = project.app.screens[key];
  if (of === undefined) return [];
  const pairs = pairsOf(project, of, key);
  const wired = new Set(Object.keys(project.app.interactions).map(elementOfInteraction));
  return [...wired].flatMap((element) => {
    if (pairs.has(element) || screenOf(project.design, element) !== of) return [];
    const found = findElement(project.design, element);
    return found ? [labelOf(found)] : [];
  });
}

/** Elements of one drawing and those that they are in another, as far as that is sure. */
function pairsOf({ design }: Project, of: string, key: string): ReadonlyMap<string, string> {
  const screens = screensByKey(design);
  const [old, now] = [screens.get(of), screens.get(key)];
  return old && now ? withSameLabels(old, now) : new Map();
}

/**
 * Pairs of elements by how they are built and placed; what can be pressed and is otherwise built is the same where both drawings
 * have it once under one label.
 */
const withSameLabels = onceForBoth((old: Screen, now: Screen): ReadonlyMap<string, string> => {
  const pairs = new Map([...surePairs(old, now)].map(([key, pair]) => [key, pair.key]));
  const [pressable, others] = [pressablesOf(old), pressablesOf(now)];
  const [ofOld, ofNow] = [pressable, others].map((all) => new Set(all.map(({ element }) => element.key)));
  const settled = new Set([...pairs].flatMap(([a, b]) => (ofOld.has(a) && ofNow.has(b) ? [a, b] : [])));
  const byLabel = (all: readonly Pressable[]) =>
    grouped(
      all.filter(({ element }) => !settled.has(element.key)),
      ({ label }) => label.toLowerCase(),
    );
  const found = byLabel(others);
  for (const [label, [only, ...more]] of byLabel(pressable)) {
    const [other, ...further] = found.get(label) ?? [];
    if (other && !more.length && !further.length) pairs.set(only.element.key, other.element.key);
  }
  return pairs;
});

/**
 * Whatever the app says, said of other keys. What is kept by a key that moves is said of the new one too, and stays where it was.
 * @param moved keys of the drawing that gives way
 */
function retold(app: App, map: (key: string) => string, moved: ReadonlySet<string>): Put[] {
  const puts: Put[] = [];
  for (const table of TABLE_NAMES) {
    if (OF_DRAWING.has(table)) continue;
    const { key: shape, value: of } = tables[table];
    const entries = app[table] as Readonly<Record<string, unknown>>;
    for (const [key, value] of Object.entries(entries)) {
      const isOwn = (shape as KeyShape).of === 'own';
      const isMoved = moved.has(elementOfInteraction(key));
      const said = mapKeysIn(of, value, map);
      const at = SHARED.has(table) && isMoved ? mapKeyText(shape as KeyShape, key, map)! : key;
      // What stands on the drawing that gives way goes on speaking of that.
      if (at === key && !isOwn && isMoved) continue;
      if (at === key ? said === value : equalJson(entries[at] ?? null, said)) continue;
      puts.push({ kind: 'put', table, key: at, value: said } as Put);
    }
  }
  return puts;
}
