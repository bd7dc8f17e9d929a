import type { App } from '../model/app.ts';
import { uniqueName } from '../model/names.ts';

/** What a row is known by in the code. */
export interface KeptRow {
  /** Among the records of its list. */
  readonly id: string;
  /** The constant with those records; none where they are those of a collection. */
  readonly list?: string;
}

const known = new WeakMap<App['code'], ReadonlyMap<string, ReadonlyMap<string, KeptRow>>>();

/** What rows were known by when the last iteration came in, by their keys, by screen. */
export function keptRows({ code }: Pick<App, 'code'>): ReadonlyMap<string, ReadonlyMap<string, KeptRow>> {
  let kept = known.get(code);
  if (!kept) {
    kept = new Map(
      Object.values(code).flatMap((entry) =>
        entry.kind === 'rows' && entry.screen
          ? [
              [
                entry.screen,
                new Map(entry.rows.map(({ at, id, list }) => [at, { id, ...(list ? { list } : {}) }])),
              ],
            ]
          : [],
      ),
    );
    known.set(code, kept);
  }
  return kept;
}

/**
 * An id for each of the records, each another one: as before where it had one, else the first free one like what it wants.
 * @param before what a record was known by
 * @param wanted what it would be called by what it says
 */
export function recordIds<T>(
  records: readonly T[],
  before: (record: T) => string | undefined,
  wanted: (record: T, index: number) => string,
): readonly string[] {
  const ids = records.map(() => '');
  const taken = new Set<string>();
  const put = (i: number, id: string): void => {
    ids[i] = id;
    taken.add(id);
  };
  records.forEach((record, i) => {
    const id = before(record);
    if (id !== undefined && !taken.has(id)) put(i, id);
  });
  records.forEach((record, i) => {
    if (!ids[i])
      put(
        i,
        uniqueName(wanted(record, i) || String(i + 1), (one) => taken.has(one)),
      );
  });
  return ids;
}
