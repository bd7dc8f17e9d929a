import type { Change } from './change.ts';
import { type KeyMap, mapChange } from './map_keys.ts';

/**
 * Where the keys of elements and screens went from one revision of a design to another. What is not listed is what it was.
 * A plain JSON value: it inverts, composes and serialises.
 */
export interface KeyMapping {
  /** Keys by those of before: one for what moved, several for what was parted, none for what is gone. */
  readonly to: Readonly<Record<string, readonly string[]>>;
  /** Keys that nothing had before. */
  readonly made: readonly string[];
}

export const sameKeys: KeyMapping = { to: {}, made: [] };

/** What a key became. */
export const keysFrom = ({ to }: KeyMapping, key: string): readonly string[] =>
  Object.hasOwn(to, key) ? to[key] : [key];

/** A mapping without what says nothing. A key that others were merged into stays listed, since it was there before. */
function tidy(to: ReadonlyMap<string, ReadonlySet<string>>, made: Iterable<string>): KeyMapping {
  const count = new Map<string, number>();
  for (const targets of to.values()) for (const key of targets) count.set(key, (count.get(key) ?? 0) + 1);
  const listed = [...to].filter(
    ([key, targets]) => !(targets.size === 1 && targets.has(key) && count.get(key) === 1),
  );
  return {
    to: Object.fromEntries(
      listed.sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, targets]) => [key, [...targets].sort()]),
    ),
    // What was made and then became one with what was there is that.
    made: [...new Set(made)].filter((key) => !count.has(key)).sort(),
  };
}

/** The way back: what moved moves back, what was merged is parted, what is gone is made again. */
export function invertKeys(mapping: KeyMapping): KeyMapping {
  const back = new Map<string, Set<string>>(mapping.made.map((key) => [key, new Set<string>()]));
  const gone: string[] = [];
  for (const [key, targets] of Object.entries(mapping.to)) {
    if (!targets.length) gone.push(key);
    for (const target of targets) {
      const from = back.get(target);
      if (from) from.add(key);
      else back.set(target, new Set([key]));
    }
  }
  return tidy(back, gone);
}

/** One mapping after another as one. */
export function composeKeys(first: KeyMapping, second: KeyMapping): KeyMapping {
  const to = new Map<string, Set<string>>();
  const reached = new Set(Object.values(first.to).flat());
  const made = new Set(first.made);
  for (const [key, targets] of Object.entries(first.to))
    to.set(key, new Set(targets.flatMap((target) => keysFrom(second, target))));
  for (const [key, targets] of Object.entries(second.to))
    // Only what was there before the first of them, under this very key.
    if (!to.has(key) && !reached.has(key) && !made.has(key)) to.set(key, new Set(targets));
  return tidy(to, [...first.made.flatMap((key) => keysFrom(second, key)), ...second.made]);
}

/** Says where a key went; null for one that is gone. Of what was parted the first part is taken. */
export const keyMapOf =
  (mapping: KeyMapping): KeyMap =>
  (key) =>
    keysFrom(mapping, key)[0] ?? null;

/** Whether a change speaks of something that a mapping lets go: as it is, it would be said of nothing. */
export function speaksOfGone(change: Change, mapping: KeyMapping): boolean {
  let found = false;
  mapChange(change, (key) => {
    if (keysFrom(mapping, key).length === 0) found = true;
    return key;
  });
  return found;
}
