/** Whether a value is an object as JSON has them. */
const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;

/**
 * A value as it is now, with the very values of before wherever they are equal, so that what was worked out of those can be
 * found again by what they are. Whatever is no array and no plain object is equal to itself only; keys count in their order.
 * @param before what stood there last; the values of both are never changed
 */
export function kept<T>(before: T | undefined, now: T): T {
  if (before === now || before === undefined) return now;
  if (Array.isArray(before) && Array.isArray(now)) return keptList(before, now) as T;
  if (!isPlain(before) || !isPlain(now)) return now;
  const [were, are] = [Object.keys(before), Object.keys(now)];
  const made = are.map((key) => kept(before[key], now[key]));
  if (were.length === are.length && are.every((key, i) => key === were[i] && made[i] === before[key]))
    return before;
  return are.every((key, i) => made[i] === now[key])
    ? now
    : (Object.fromEntries(are.map((key, i) => [key, made[i]])) as T);
}

/** The same of an object each of whose values was kept already: it is held against that of before as a whole only. */
export function keptFlat<T extends object>(before: T | undefined, now: T): T {
  if (!before) return now;
  const [were, are] = [Object.entries(before), Object.entries(now)];
  return were.length === are.length &&
    are.every(([key, value], i) => key === were[i][0] && value === were[i][1])
    ? before
    : now;
}

/** The same of a list, whose values are held against those at the same place. */
export function keptList<T>(
  before: readonly T[],
  now: readonly T[],
  keep: (before: T | undefined, now: T) => T = kept,
): readonly T[] {
  const made = now.map((value, i) => keep(before[i], value));
  return sameList(before, made) ? before : sameList(now, made) ? now : made;
}

/** The same of a map, whose values are held against those of the same key. */
export function keptMap<K, V>(
  before: ReadonlyMap<K, V> | undefined,
  now: ReadonlyMap<K, V>,
  keep: (before: V | undefined, now: V) => V = kept,
): ReadonlyMap<K, V> {
  if (!before || before === now) return now;
  const made = new Map([...now].map(([key, value]) => [key, keep(before.get(key), value)]));
  const isSame = sameList([...before.keys()], [...made.keys()]);
  return isSame && [...made].every(([key, value]) => value === before.get(key)) ? before : made;
}

/** Whether two lists hold the very same values. */
export const sameList = (some: readonly unknown[], others: readonly unknown[]): boolean =>
  some === others || (some.length === others.length && some.every((value, i) => value === others[i]));
