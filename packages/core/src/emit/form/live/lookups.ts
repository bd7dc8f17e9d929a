import type { PropValue } from '../markup.ts';
import type { EmittedCollection, Property } from './records.ts';

/** What a property of a record is by what one of its fields says. */
export interface Lookup {
  readonly name: string;
  /** The field, as a property. */
  readonly by: string;
  readonly values: readonly (readonly [text: string, value: PropValue])[];
}

/**
 * The field of few values that all drawn records agree by on what a property is, such as the look of what is out on loan; of
 * several the one with the fewest. Null where there is none.
 * @param says whether a property is a field that can be looked at
 */
export function lookupFor(
  { name }: Property,
  properties: readonly Property[],
  records: EmittedCollection['records'],
  says: (name: string) => boolean,
): Lookup | null {
  if (says(name) || new Set(records.map((record) => JSON.stringify(record[name]))).size < 2) return null;
  const found = properties.flatMap((by): Lookup[] => {
    if (!says(by.name) || by.kind !== 'text') return [];
    const values = new Map<string, PropValue>();
    for (const record of records) {
      const [text, one] = [String(record[by.name] ?? ''), record[name]];
      if (one === undefined) continue;
      if (values.has(text) && values.get(text) !== one) return [];
      values.set(text, one);
    }
    const texts = new Set(records.map((record) => String(record[by.name] ?? '')));
    const isTold = records.every(
      (record) => record[name] !== undefined || !values.has(String(record[by.name] ?? '')),
    );
    return isTold && values.size > 0 && texts.size * 2 <= records.length + 1
      ? [{ name, by: by.name, values: [...values] }]
      : [];
  });
  return found.sort((a, b) => a.values.length - b.values.length)[0] ?? null;
}
