/** JSON with sorted keys, so that equal documents are equal bytes and differences read well. */
export function stringifySorted(value: unknown, indent?: number): string {
  return JSON.stringify(value, (_, v) => (isRecord(v) ? sortKeys(v) : v), indent);
}

export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Whether every object has something under this name. Such a name is no key: looking it up where it was never put would
 * find what JavaScript put there.
 */
export const isObjectMember = (name: string): boolean => name in Object.prototype;

function sortKeys(record: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.keys(record)
      .sort()
      .map((key) => [key, record[key]]),
  );
}

/** Whether two JSON values are equal, whatever the order of their keys. */
export function equalJson(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((v, i) => equalJson(v, b[i]));
  if (!isRecord(a) || !isRecord(b)) return false;
  const keys = Object.keys(a).filter((k) => a[k] !== undefined);
  const others = Object.keys(b).filter((k) => b[k] !== undefined);
  return keys.length === others.length && keys.every((k) => k in b && equalJson(a[k], b[k]));
}

/** Entries by name: what is the same is written the same, whoever read it and however often it was saved. */
export function inOrder<T extends Readonly<Record<string, string>>>(record: T): T {
  const names = Object.keys(record);
  if (names.every((name, i) => i === 0 || names[i - 1] <= name)) return record;
  return Object.fromEntries(names.sort().map((name) => [name, record[name]])) as T;
}
