import fc from 'fast-check';
import { appSchema, TABLE_NAMES, tables } from '../model/app.ts';
import { designSchema } from '../model/design.ts';
import { app, arbitraryOf } from '../testing/arbitrary.ts';
import { jsonSchemaOf, type JsonSchema } from './json_schema.ts';
import { mapKeysIn } from './map_keys.ts';
import { findProblem, problemText } from './problem.ts';
import {
  choice,
  either,
  elementKey,
  fields,
  flag,
  kinds,
  lazy,
  list,
  number,
  optional,
  type Schema,
  table,
  text,
  title,
  whole,
  yes,
} from './schema.ts';

const node: Schema<unknown> = lazy('node', () =>
  fields({ name: title(5), inner: optional(list(node, { max: 2 })) }),
);
const all = fields({
  text: optional(text(3)),
  title: optional(title(9)),
  number: optional(number(0, 1)),
  whole: optional(whole(0, 10)),
  flag: optional(flag),
  yes: optional(yes),
  choice: optional(choice(['a', 'b'])),
  list: optional(list(whole(0, 9), { min: 1, max: 2 })),
  table: optional(table(text(3), whole(0, 9), { max: 2 })),
  kinds: optional(kinds({ a: { n: whole(0, 9) }, b: {} })),
  either: optional(either('expected a or 1', choice(['a']), whole(1, 1))),
  key: optional(elementKey),
  node: optional(node),
});

test.each<[object, string | null]>([
  [{}, null],
  [{ text: 'abc', title: 'a', number: 0.5, whole: 3, flag: false, yes: true, choice: 'b' }, null],
  [{ list: [1], table: { a: 1 }, kinds: { kind: 'a', n: 1 }, either: 1, key: 'home:0' }, null],
  [{ node: { name: 'a', inner: [{ name: 'b' }] } }, null],
  [{ text: undefined }, null],
  [{ text: 'abcd' }, 'text: expected at most 3 characters, not 4'],
  [{ text: {} }, 'text: expected a text'],
  [{ text: '\ud800' }, 'text: holds half a character'],
  [{ title: '  ' }, 'title: expected a text that is not empty'],
  [{ number: NaN }, 'number: expected a number'],
  [{ number: 2 }, 'number: expected a number from 0 to 1, not 2'],
  [{ whole: 1.5 }, 'whole: expected a whole number'],
  [{ flag: 1 }, 'flag: expected true or false'],
  [{ yes: false }, 'yes: can only be true'],
  [{ choice: 'c' }, 'choice: expected one of a, b, not “c”'],
  [{ choice: null }, 'choice: expected one of a, b, not null'],
  [{ list: [] }, 'list: expected 1 to 2 entries, not 0'],
  [{ list: [1, 'x'] }, 'list/1: expected a number'],
  [{ table: { a: 1, b: 2, c: 3 } }, 'table: expected at most 2 entries, not 3'],
  [JSON.parse('{"table":{"__proto__":1}}'), 'table/__proto__: that key is not allowed'],
  [JSON.parse('{"__proto__":1}'), '__proto__: is no field that belongs here'],
  [{ constructor: 1 }, 'constructor: is no field that belongs here'],
  [{ kinds: { kind: 'toString' } }, 'kinds/kind: expected one of a, b'],
  [{ kinds: { kind: 'a' } }, 'kinds/n: is missing'],
  [{ kinds: { kind: 'b', n: 1 } }, 'kinds/n: is no field that belongs here'],
  [{ either: 2 }, 'either: expected a or 1'],
  [{ key: '' }, 'key: expected a key of 1 to 500 characters'],
  [{ key: 'a|2' }, 'key: “a|2” names no element'],
  [
    { node: { name: 'a', inner: [{ name: 'toolong' }] } },
    'node/inner/0/name: expected at most 5 characters, not 7',
  ],
  [{ other: 1 }, 'other: is no field that belongs here'],
])('%j', (value, expected) => {
  const problem = findProblem(all, value);
  expect(problem && problemText(problem)).toBe(expected);
});

test('what is nested without end is refused, not followed', () => {
  let deep: unknown = { name: 'a' };
  for (let i = 0; i < 5000; i++) deep = { name: 'a', inner: [deep] };
  expect(findProblem(node, deep)?.says).toBe('is nested too deeply');
});

test('what the declarations generate, they take', () => {
  for (const name of TABLE_NAMES)
    fc.assert(
      fc.property(arbitraryOf(tables[name].value), (value) => {
        expect(findProblem(tables[name].value, value)).toBeNull();
      }),
      { numRuns: 50 },
    );
  fc.assert(fc.property(app, (made) => expect(findProblem(appSchema, made)).toBeNull()));
});

test('keys move wherever they stand, and what holds none is the same value', () => {
  const shape = fields({ at: elementKey, list: list(elementKey, { max: 9 }), note: text(9) });
  const value = { at: 'a', list: ['a', 'b'], note: 'a' };
  expect(mapKeysIn(shape, value, (key) => (key === 'a' ? 'x' : key))).toEqual({
    at: 'x',
    list: ['x', 'b'],
    note: 'a',
  });
  expect(mapKeysIn(shape, value, (key) => key)).toBe(value);
  expect(mapKeysIn(shape, value, () => null)).toBe(value);
});

test('there and back, keys are what they were', () => {
  const there = (key: string): string => `${key}~`;
  const back = (key: string): string => key.slice(0, -1);
  fc.assert(
    fc.property(app, (made) => {
      expect(mapKeysIn(appSchema, mapKeysIn(appSchema, made, there), back)).toEqual(made);
    }),
  );
});

test('both documents have a JSON Schema in which every reference is defined', () => {
  for (const shape of [designSchema, appSchema]) {
    const definitions: Record<string, JsonSchema> = {};
    const written = JSON.stringify([jsonSchemaOf(shape, definitions), definitions]);
    for (const [, name] of written.matchAll(/"\$ref":"#\/\$defs\/(\w+)"/g))
      expect(definitions).toHaveProperty(name);
    for (const [, pattern] of written.matchAll(/"pattern":("(?:[^"\\]|\\.)*")/g))
      expect(() => new RegExp(JSON.parse(pattern) as string, 'u')).not.toThrow();
  }
});
