import type { KnownField } from '../expression/language.ts';
import { grouped } from '../json/grouped.ts';
import type { Collection } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { recordsOf, titleField } from './records.ts';

/**
 * The fields of a collection as expressions know them: what refers to records of another collection leads on to those.
 * @param nameOf what a collection is called where the expression stands, by its id; nothing where it is not known there
 */
export const knownFields = (
  { design, app }: Pick<Project, 'design' | 'app'>,
  { fields }: Collection,
  nameOf: (id: string) => string | undefined = (id) => app.collections[id]?.name,
): readonly KnownField[] =>
  fields.map(({ name, type, of }) => {
    const other = of === undefined ? undefined : app.collections[of];
    const by = other && titleField(design, other)?.name;
    const called = of === undefined ? undefined : nameOf(of);
    return by !== undefined && called !== undefined
      ? { name, type, refersTo: { of: called, by } }
      : { name, type };
  });

/** So many of what a field says have to be what records of another collection are called, and at least so many of them. */
const MOST_SHARE = 0.8;
const LEAST_VALUES = 2;

/**
 * Which other collection a field refers to by what its records are called, where nobody said: the one that calls most of them.
 * @returns its id, how many of the different values are called so, and of how many; null where there is none
 */
export function referenceFor(
  { design, app }: Pick<Project, 'design' | 'app'>,
  id: string,
  field: string,
): { readonly of: string; readonly found: number; readonly values: number } | null {
  const own = app.collections[id];
  if (titleField(design, own)?.name === field) return null;
  const plain = (text: string): string => text.trim().toLowerCase();
  const values = new Set(
    recordsOf(design, own).flatMap(({ values: said }) => {
      const text = plain(said[field]?.text ?? '');
      return text ? [text] : [];
    }),
  );
  const counts = grouped(
    Object.entries(app.collections).flatMap(([other, collection]) => {
      const by = other === id ? undefined : titleField(design, collection)?.name;
      if (by === undefined) return [];
      const called = new Set(recordsOf(design, collection).map((one) => plain(one.values[by]?.text ?? '')));
      return [...values].filter((value) => called.has(value)).map(() => other);
    }),
    (other) => other,
  );
  const [best] = [...counts].sort(([, a], [, b]) => b.length - a.length);
  const isOne = best && best[1].length >= Math.max(LEAST_VALUES, values.size * MOST_SHARE);
  return isOne ? { of: best[0], found: best[1].length, values: values.size } : null;
}
