import { readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { parse } from 'yaml';
import { type ApiOperation, descriptionOf } from './description.ts';
import { keptApi, readApi } from './read_document.ts';
import { matchApi, type Sought } from './match.ts';

const text = readFileSync(path.resolve(__dirname, '../../../../demo/openapi.yaml'), 'utf8');
const api = readApi(text);
const operation = (id: string): ApiOperation => api.operations.find((one) => one.id === id)!;

test('the document of the demo is read whole, as YAML and as JSON', () => {
  expect(api).toMatchObject({
    title: 'Mossgate Tool Library',
    servers: ['https://api.mossgate.example/v1'],
    problems: [],
  });
  expect(api.operations).toHaveLength(10);
  expect(readApi(JSON.stringify(parse(text)))).toEqual(api);
});

test.each([
  ['listTools', 'list'],
  ['addTool', 'add'],
  ['readTool', 'read'],
  ['changeTool', 'change'],
  ['listMembers', 'list'],
  ['lend', 'add'],
  ['returnTool', 'remove'],
  ['signIn', 'sign-in'],
  ['signOut', 'sign-out'],
])('%s is taken for: %s', (id, does) => {
  expect(operation(id).does).toBe(does);
  expect(operation(id).reason).not.toBe('');
});

test.each([
  ['listTools', { q: 'search', kind: 'filter', sort: 'sort', page: 'page', per_page: 'page-size' }],
  [
    'listMembers',
    { search: 'search', sort_by: 'sort', order: 'order', offset: 'offset', limit: 'page-size' },
  ],
  ['readTool', { toolId: 'key' }],
])('parameters of %s', (id, expected) => {
  expect(
    Object.fromEntries(operation(id).parameters.map(({ name, for: purpose }) => [name, purpose])),
  ).toEqual(expected);
});

test('records have the fields of all that they are put together from, and stand where the answer holds them', () => {
  const tools = operation('listTools');
  expect(tools.envelope).toEqual(['items']);
  expect(operation('listLoans').envelope).toEqual(['data']);
  expect(operation('listMembers').envelope).toEqual([]);
  expect(tools.fields.map(({ name, type, required }) => [name, type, required])).toEqual([
    ['name', 'text', true],
    ['image', 'picture', false],
    ['status', 'one-of', true],
    ['shed', 'number', false],
    ['description', 'text', false],
    ['id', 'text', true],
    ['borrowed', 'list', false],
  ]);
});

const drawn = (name: string, fields: Partial<Sought['fields'][number]>[]): Sought => ({
  name,
  fields: fields.map((field) => ({ name: '', type: 'text', ...field })),
});

test('drawn lists find the operations that give their records, field by field', () => {
  const matches = matchApi(api, [
    drawn('members', [
      { name: 'name', label: 'Name' },
      { name: 'street', label: 'Street' },
      { name: 'loans', label: 'Loans', type: 'number' },
      { name: 'member', label: 'Member' },
    ]),
    drawn('tools', [
      { name: 'picture', type: 'picture' },
      { name: 'name' },
      { name: 'status', type: 'one-of' },
      { name: 'detail' },
    ]),
    drawn('houseRules', [{ name: 'count', type: 'number' }, { name: 'title' }, { name: 'rule' }]),
  ]);
  expect(matches.map(({ collection, operation: id }) => [collection, id])).toEqual([
    ['tools', 'listTools'],
    ['members', 'listMembers'],
  ]);
  expect(matches[0].fields).toEqual(
    expect.arrayContaining([
      { field: 'picture', property: 'image' },
      { field: 'name', property: 'name' },
      { field: 'status', property: 'status' },
      { field: 'detail', property: 'description' },
    ]),
  );
});

const small = (
  operations: Readonly<Record<string, unknown>>,
  more: Readonly<Record<string, unknown>> = {},
): string => JSON.stringify({ openapi: '3.0.3', info: { title: 'Small' }, paths: operations, ...more });

test.each([
  ['nothing', '', '', /expected a document/],
  ['no JSON', '{"openapi": ', '', /neither JSON nor YAML/],
  ['no YAML', 'a: [1, 2\nb: }', '', /neither JSON nor YAML/],
  ['an older version', '{"swagger": "2.0"}', '', /version 2.0: expected 3.0 or 3.1/],
  ['no version', '{"paths": {}}', '', /says no version/],
  ['no paths', '{"openapi": "3.1.0"}', '/paths', /there are no paths/],
  ['a path that is none', small({ '/a': 3 }), '/paths/~1a', /expected the operations/],
  [
    'a reference to nothing',
    small({ '/a': { $ref: '#/components/pathItems/None' } }),
    '/paths/~1a',
    /there is nothing at/,
  ],
  [
    'a reference with half an escape',
    small({ '/a': { $ref: '#/components/%E0%zz' } }),
    '/paths/~1a',
    /there is nothing at/,
  ],
  [
    'a reference out of the document',
    small({ '/a': { $ref: 'https://example.org/a.yaml' } }),
    '/paths/~1a',
    /leads out of the document/,
  ],
  [
    'a reference in a circle',
    small(
      { '/a': { $ref: '#/components/pathItems/A' } },
      { components: { pathItems: { A: { $ref: '#/components/pathItems/A' } } } },
    ),
    '/paths/~1a',
    /leads back to itself/,
  ],
  [
    'a key of no parameter',
    small({ '/a/{id}': { get: { responses: {} } } }),
    '/paths/~1a~1{id}/get',
    /“id” stands in the path/,
  ],
])('a document with %s', (_, document, at, message) => {
  const { problems } = readApi(document);
  expect(problems[0].at).toBe(at);
  expect(problems[0].message).toMatch(message);
});

test('records that hold each other are read once', () => {
  const schemas = {
    A: { type: 'object', properties: { b: { $ref: '#/components/schemas/B' } } },
    B: { allOf: [{ $ref: '#/components/schemas/B' }, { $ref: '#/components/schemas/A' }] },
  };
  const { operations } = readApi(
    small(
      {
        '/a': {
          get: {
            responses: {
              200: {
                content: {
                  'application/json': {
                    schema: { type: 'array', items: { $ref: '#/components/schemas/B' } },
                  },
                },
              },
            },
          },
        },
      },
      { components: { schemas } },
    ),
  );
  expect(operations[0].fields.map(({ name }) => name)).toEqual(['b']);
});

test('whatever stands where in a document, it is read without an error', () => {
  const whole = parse(text) as Record<string, unknown>;
  const places: string[][] = [];
  const visit = (value: unknown, at: string[]): void => {
    places.push(at);
    if (typeof value === 'object' && value !== null)
      for (const [key, one] of Object.entries(value)) visit(one, [...at, key]);
  };
  visit(whole, []);
  const put = (value: unknown, [key, ...rest]: readonly string[], made: unknown): unknown =>
    key === undefined
      ? made
      : Array.isArray(value)
        ? value.map((one, i) => (String(i) === key ? put(one, rest, made) : one))
        : { ...(value as object), [key]: put((value as Record<string, unknown>)[key], rest, made) };
  fc.assert(
    fc.property(fc.constantFrom(...places), fc.anything(), (at, made) => {
      const document = JSON.stringify(put(whole, at, made)) ?? '';
      const read = readApi(document);
      expect(Array.isArray(read.operations)).toBe(true);
      expect(matchApi(read, [drawn('tools', [{ name: 'name' }])])).toBeDefined();
    }),
    { numRuns: 400 },
  );
});

test.each([
  [
    'a place of a parameter',
    { openapi: '3.0.0', paths: { '/a': { get: { parameters: [{ name: 'x', in: { toString: null } }] } } } },
    /a parameter is in path, query, header or cookie, not “nothing”/,
  ],
  ['a version', { swagger: { toString: null } }, /it is of version 2: expected 3\.0 or 3\.1/],
])('%s that has no words is told like any other that is wrong', (_, document, message) => {
  const read = readApi(JSON.stringify(document));
  expect(JSON.stringify(read)).toMatch(message);
});

describe('records that are called otherwise are found by what they say', () => {
  const schema = (properties: object): object => ({ type: 'array', items: { type: 'object', properties } });
  const document = (media: object): object => ({
    openapi: '3.0.3',
    info: { title: 'Yard' },
    paths: {
      '/q7': {
        get: { operationId: 'getQ7', responses: { 200: { content: { 'application/json': media } } } },
      },
    },
  });
  const trips: Sought = {
    name: 'trips',
    fields: [
      { name: 'boat', type: 'text', said: ['Otter', 'Heron', 'Teal', 'Swift'] },
      { name: 'price', type: 'money', said: ['€ 62.00', '€ 38.50'] },
      { name: 'seats', type: 'number', said: ['4', '2'] },
    ],
  };
  const plain = { vessel: { type: 'string' }, charge: { type: 'number' }, berths: { type: 'integer' } };
  const found = [
    { field: 'boat', property: 'vessel' },
    { field: 'price', property: 'charge' },
  ];
  test.each<[string, object]>([
    [
      'by the examples of their properties',
      {
        schema: schema({
          vessel: { type: 'string', example: 'Heron' },
          charge: { type: 'number', examples: [38.5, 62] },
          berths: { type: 'integer', example: 4 },
        }),
      },
    ],
    [
      'by an example of the whole answer',
      {
        schema: schema(plain),
        example: [
          { vessel: 'Otter', charge: 62 },
          { vessel: 'Heron', berths: 2 },
        ],
      },
    ],
    [
      'by one that has a name',
      { schema: schema(plain), examples: { two: { value: [{ vessel: 'Otter', charge: 62 }] } } },
    ],
  ])('%s', (_, media) => {
    for (const read of [
      descriptionOf(document(media)),
      readApi(keptApi(JSON.stringify(document(media))).api!.document),
    ]) {
      const [match] = matchApi(read, [trips]);
      expect(match.fields).toEqual(found);
      expect(match.reason).toContain('2 say what its examples say');
    }
  });

  test('where no example says the same, nothing is found', () => {
    const other = { schema: schema(plain), example: [{ vessel: 'Barge', charge: 9 }] };
    expect(matchApi(descriptionOf(document(other)), [trips])).toEqual([]);
  });
});
