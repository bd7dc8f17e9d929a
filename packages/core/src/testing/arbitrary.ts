import fc from 'fast-check';
import { all, type Change, type Put } from '../change/change.ts';
import { type App, TABLE_NAMES, type TableName, tables } from '../model/app.ts';
import type { Shape } from '../schema/schema.ts';

/** Few keys, so that generated changes meet each other. */
const KEYS = ['home', 'list', 'detail', 'home:0', 'home:0/1', 'list:2', 'to-string'];
const WORDS = ['Home', 'List', 'Signed in'];

/** Names of the shapes that values are being made of. */
const open = new Set<string>();

/** Values of a shape; the more deeply nested, the smaller. */
export function arbitraryOf(shape: Shape): fc.Arbitrary<unknown> {
  switch (shape.shape) {
    case 'text':
      if (shape.examples) return fc.constantFrom(...shape.examples);
      if (shape.pattern || shape.holds)
        throw new Error(`a text that ${shape.says} needs examples to be tested`);
      return fc.constantFrom(
        ...WORDS.filter((word) => word.length <= shape.max),
        ...(shape.min || shape.isTitle ? [] : ['']),
      );
    case 'key':
      return fc.constantFrom(...(shape.examples ?? KEYS));
    case 'number':
      return fc.integer({
        min: Math.max(shape.min, -5),
        max: Math.min(shape.max, Math.max(shape.min, -5) + 900),
      });
    case 'flag':
      return shape.only === undefined ? fc.boolean() : fc.constant(shape.only);
    case 'choice':
      return fc.constantFrom(...shape.values);
    case 'nothing':
      return fc.constant(null);
    case 'list':
      return fc.array(arbitraryOf(shape.of), { minLength: shape.min, maxLength: Math.max(shape.min, 3) });
    case 'table':
      return fc.dictionary(arbitraryOf(shape.key) as fc.Arbitrary<string>, arbitraryOf(shape.value), {
        maxKeys: 2,
        noNullPrototype: true,
      });
    case 'fields':
      return fieldsArbitrary(shape.required, shape.optional);
    case 'kinds':
      return fc.oneof(
        ...Object.entries(shape.kinds).map(([kind, own]) =>
          fieldsArbitrary({ kind: { shape: 'choice', values: [kind] }, ...own.required }, own.optional),
        ),
      );
    case 'either':
      return fc.oneof(...shape.of.map(arbitraryOf));
    case 'lazy': {
      if (open.has(shape.name))
        throw new Error(`values of ${shape.name}, which holds itself, are made by hand`);
      open.add(shape.name);
      try {
        return arbitraryOf(shape.of());
      } finally {
        open.delete(shape.name);
      }
    }
  }
}

function fieldsArbitrary(
  required: Readonly<Record<string, Shape>>,
  optional: Readonly<Record<string, Shape>>,
): fc.Arbitrary<unknown> {
  const all = Object.entries({ ...required, ...optional }).map(
    ([name, of]) => [name, arbitraryOf(of)] as const,
  );
  return fc.record(Object.fromEntries(all), { requiredKeys: Object.keys(required), noNullPrototype: true });
}

/** Entries that a table can have: its key and what stands under it. */
function entryOf(name: TableName): fc.Arbitrary<readonly [key: string, value: unknown]> {
  const table = tables[name];
  const entry = fc.tuple(arbitraryOf(table.key) as fc.Arbitrary<string>, arbitraryOf(table.value));
  return entry.filter(([key, value]) => !table.problem?.(key, value));
}

const start = fc.option(fc.constantFrom(...KEYS), { nil: null });

const single: fc.Arbitrary<Change> = fc.oneof(
  ...TABLE_NAMES.map((table) =>
    fc
      .tuple(entryOf(table), fc.nat({ max: 4 }))
      .map(([[key, value], n]) => ({ kind: 'put', table, key, value: n ? value : null }) as Put),
  ),
  start.map((value): Change => ({ kind: 'start', value })),
);

/** Any change, also several in one. */
export const change: fc.Arbitrary<Change> = fc.oneof(
  { weight: 4, arbitrary: single },
  { weight: 1, arbitrary: fc.array(single, { maxLength: 6 }).map(all) },
);

/** Any app that changes can lead to. */
export const app: fc.Arbitrary<App> = fc
  .tuple(
    start,
    ...TABLE_NAMES.map((name) =>
      fc
        .array(entryOf(name), { maxLength: 3 })
        .map((entries) => [name, Object.fromEntries(entries)] as const),
    ),
  )
  .map(([first, ...made]) => ({ format: 'tovel-app/1', start: first, ...Object.fromEntries(made) }) as App);
