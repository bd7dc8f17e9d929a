import { isRecord } from '../json/json.ts';

/** So much is taken of what documents give as examples. */
const MOST = { values: 8, letters: 80, records: 8, depth: 6 } as const;

/** Long words of letters and digits may be keys of somebody, which are nobody else's business. */
const KEYLIKE = /^(?=.*\d)(?=.*[a-z])[\w\-+/=.]{20,}$/i;

/** A value as it would be shown; undefined for what is no plain value. */
function asText(value: unknown): string | undefined {
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (typeof value !== 'string') return undefined;
  const text = value.trim();
  return text && text.length <= MOST.letters && !KEYLIKE.test(text) ? text : undefined;
}

/** What values say, each once. */
const texts = (values: readonly unknown[]): string[] =>
  [...new Set(values.map(asText).filter((text) => text !== undefined))].slice(0, MOST.values);

/** What a property can say, by the examples of its schema. */
export function samplesOf({ example, examples }: Readonly<Record<string, unknown>>): string[] {
  return texts([...(example === undefined ? [] : [example]), ...(Array.isArray(examples) ? examples : [])]);
}

/** What each property of records says in examples of an answer. @param envelope names of the fields that lead to the records */
export function samplesIn(
  answers: readonly unknown[],
  envelope: readonly string[],
): ReadonlyMap<string, string[]> {
  const found = new Map<string, unknown[]>();
  for (const answer of answers) {
    const held = envelope.reduce<unknown>((at, name) => (isRecord(at) ? at[name] : undefined), answer);
    const records = (Array.isArray(held) ? held : [held]).filter(isRecord).slice(0, MOST.records);
    for (const record of records)
      for (const [name, value] of Object.entries(record))
        found.set(name, [...(found.get(name) ?? []), value]);
  }
  return new Map([...found].map(([name, values]) => [name, texts(values)]));
}

/** The examples of one kind of content, as OpenAPI gives them. */
export function examplesOf({ example, examples }: Readonly<Record<string, unknown>>): unknown[] {
  const named = isRecord(examples)
    ? Object.values(examples).map((one) => (isRecord(one) ? one.value : undefined))
    : [];
  return [example, ...named].filter((one) => one !== undefined);
}

/** An example as it is kept with a project: the first of many, without what is long or may be a key. */
export function keptExample(value: unknown, depth = 0): unknown {
  if (Array.isArray(value))
    return depth < MOST.depth ? value.slice(0, MOST.records).map((one) => keptExample(one, depth + 1)) : [];
  if (isRecord(value))
    return depth < MOST.depth
      ? Object.fromEntries(Object.entries(value).map(([name, one]) => [name, keptExample(one, depth + 1)]))
      : {};
  return typeof value === 'string' && asText(value) === undefined ? '' : value;
}
