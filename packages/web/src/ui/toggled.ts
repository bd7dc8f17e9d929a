/** Some without one that is among them, or with one that is not. */
export function toggled<T>(some: ReadonlySet<T>, one: T): ReadonlySet<T> {
  const next = new Set(some);
  if (!next.delete(one)) next.add(one);
  return next;
}
