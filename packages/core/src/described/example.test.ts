import fc from 'fast-check';
import { documentOfExample, schemaOf } from './example.ts';
import { keptApi, readApi } from './read_document.ts';

const answer = {
  data: [
    { id: 1, name: 'Hedge trimmer', price: 4, since: '2026-01-30', mail: 'a@moss.example', note: null },
    { id: 2, name: 'Tile cutter', price: 2.5, since: '2025-11-02', shed: { name: 'North' } },
  ],
  meta: { total: 214 },
};

test('an example answer becomes a document with the list, its fields and how many there are in all', () => {
  const { document, problems } = documentOfExample(JSON.stringify(answer), '/tools');
  expect(problems).toEqual([]);
  const [operation] = readApi(document!).operations;
  expect(operation).toMatchObject({
    does: 'list',
    path: '/tools',
    envelope: ['data'],
    total: ['meta', 'total'],
  });
  expect(
    operation.fields.map(({ name, type, required, json }) => [name, type, required, json ?? null]),
  ).toEqual([
    ['id', 'number', true, 'integer'],
    ['name', 'text', true, 'string'],
    ['price', 'money', true, 'number'],
    ['since', 'date', true, 'string'],
    ['mail', 'email', false, 'string'],
    ['note', 'text', false, null],
    ['shed', 'record', false, 'object'],
  ]);
});

test.each([
  ['no JSON', '[1,', '/a', /it is no JSON/],
  ['no records', '{"a": [1, 2]}', '/a', /holds no list of records/],
  ['no path', '[{"a": 1}]', 'tools', /begins with a slash/],
  ['a path that says more', '[{"a": 1}]', '/a?b=c', /begins with a slash/],
])('%s is told', (_, text, path, message) => {
  const { document, problems } = documentOfExample(text, path);
  expect(document).toBeNull();
  expect(problems[0].message).toMatch(message);
});

test('whatever an example holds, its document can be read', () => {
  fc.assert(
    fc.property(fc.array(fc.dictionary(fc.string(), fc.jsonValue()), { minLength: 1 }), (records) => {
      const { document } = documentOfExample(JSON.stringify(records), '/things');
      expect(readApi(document!).problems).toEqual([]);
    }),
  );
});

test('each value fits the type that all of them have', () => {
  fc.assert(
    fc.property(fc.array(fc.jsonValue(), { minLength: 1 }), (values) => {
      const { type } = schemaOf(values, 0);
      if (type === undefined) return;
      for (const value of values) {
        const kind =
          value === null
            ? 'null'
            : Array.isArray(value)
              ? 'array'
              : Number.isInteger(value)
                ? 'integer'
                : typeof value;
        const fits = [type].flat();
        expect(fits.includes(kind) || (kind === 'integer' && fits.includes('number'))).toBe(true);
      }
    }),
  );
});

test('what an example says is kept as examples, without what may be a key', () => {
  const { document } = documentOfExample(
    JSON.stringify([
      { name: 'Saw', days: 3, code: 'sk_live_4242abcdefghij0123', shed: { place: 'North' } },
      { name: 'Drill', days: 3, code: 'sk_live_4242abcdefghij0124', note: 'x'.repeat(200) },
    ]),
    '/tools',
  );
  const [{ fields }] = readApi(keptApi(document!).api!.document).operations;
  expect(Object.fromEntries(fields.map(({ name, samples }) => [name, samples ?? []]))).toEqual({
    name: ['Saw', 'Drill'],
    days: ['3'],
    code: [],
    shed: [],
    note: [],
  });
  expect(document).not.toContain('sk_live');
});
