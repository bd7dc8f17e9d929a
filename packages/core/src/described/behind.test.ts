import { readFileSync } from 'node:fs';
import path from 'node:path';
import { applyChange, putApi, putCollection } from '../change/change.ts';
import { type App, emptyApp, LONGEST_API } from '../model/app.ts';
import { emptyDesign } from '../model/design.ts';
import { behindBy, type BehindProposal, proposeBehind } from './behind.ts';
import { apiOf, comesFromApi } from './keep.ts';
import { keptApi } from './read_document.ts';

const text = readFileSync(path.resolve(__dirname, '../../../../demo/openapi.yaml'), 'utf8');
const kept = keptApi(text).api!;

const tools = {
  name: 'tools',
  fields: [
    { name: 'picture', type: 'picture' as const },
    { name: 'name', type: 'text' as const },
    { name: 'status', type: 'one-of' as const, choices: ['free', 'out'] },
    { name: 'shelf', type: 'text' as const },
  ],
  rows: [],
};
const app: App = [putApi('library', kept), putCollection('tools', tools)].reduce(applyChange, emptyApp);

test('what is kept of a document is read as the document is, without what nothing is read from', () => {
  expect(kept.name).toBe('Mossgate Tool Library');
  expect(kept.document).not.toMatch(/"x-|"example/);
  const noted = JSON.parse(kept.document) as Record<string, Record<string, unknown>>;
  const more = { ...noted, 'x-own': 1, info: { ...noted.info, contact: { name: 'Somebody' } } };
  expect(keptApi(JSON.stringify(more)).api).toEqual(kept);
});

test('properties that are called like something that nothing is read from stay', () => {
  const schema = { type: 'object', properties: { example: { type: 'string' }, tags: { type: 'string' } } };
  const document = {
    openapi: '3.1.0',
    paths: {
      '/a': {
        get: {
          tags: ['gone'],
          responses: {
            200: { content: { 'application/json': { schema: { type: 'array', items: schema } } } },
          },
        },
      },
    },
  };
  const { api: made } = keptApi(JSON.stringify(document));
  expect(made!.document).toContain('"example":{"type":"string"}');
  expect(made!.document).not.toContain('gone');
});

const long = (word: string, size: number): string =>
  JSON.stringify({
    openapi: '3.1.0',
    info: { title: 'Long' },
    paths: { '/a': { get: { [word]: 'o'.repeat(size), responses: {} } } },
  });

test.each([
  ['no document', 'a: 1', /says no version/],
  ['no operations', '{"openapi": "3.0.0", "paths": {}}', /there are no operations/],
  [
    'more than is kept',
    long('operationId', LONGEST_API),
    /even without its descriptions the document is longer/,
  ],
])('%s is told, and not kept', (_, document, message) => {
  const { api: made, problems } = keptApi(document);
  expect(made).toBeNull();
  expect(problems[0].message).toMatch(message);
});

test('a long document is kept without what it says in words', () => {
  expect(keptApi(long('description', LONGEST_API)).api!.document.length).toBeLessThan(300);
});

test('a collection finds the operations of its records, the key and the properties', () => {
  expect(proposeBehind({ design: emptyDesign, app })).toEqual([
    {
      collection: 'tools',
      confidence: expect.closeTo(0.82, 2) as number,
      reason: expect.stringMatching(/both are about tools/) as string,
      behind: {
        api: 'library',
        list: 'listTools',
        read: 'readTool',
        add: 'addTool',
        change: 'changeTool',
        key: 'id',
        fields: { picture: 'image', name: 'name', status: 'status' },
      },
    },
  ]);
});

test('what a collection comes from is not proposed again, and an operation that is gone leaves it in the app', () => {
  const [{ behind }] = proposeBehind({ design: emptyDesign, app });
  const bound = applyChange(app, putCollection('tools', { ...tools, behind }));
  expect(proposeBehind({ design: emptyDesign, app: bound })).toEqual([]);
  expect(comesFromApi(bound, 'tools')).toBe(true);
  expect(comesFromApi(applyChange(bound, putApi('library', null)), 'tools')).toBe(false);
  const other = putCollection('tools', { ...tools, behind: { ...behind, list: 'signIn' } });
  expect(comesFromApi(applyChange(bound, other), 'tools')).toBe(false);
});

test('texts are bound to what a record within a record is called', () => {
  const loans = {
    name: 'loans',
    fields: [
      { name: 'tool', type: 'text' as const },
      { name: 'due', type: 'date' as const },
    ],
  };
  const tool = { type: 'object', properties: { id: { type: 'string' }, name: { type: 'string' } } };
  const record = { type: 'object', properties: { tool, due: { type: 'string', format: 'date' } } };
  const content = { 'application/json': { schema: { type: 'array', items: record } } };
  const { api: made } = keptApi(
    JSON.stringify({ openapi: '3.1.0', paths: { '/loans': { get: { responses: { 200: { content } } } } } }),
  );
  expect(behindBy('one', apiOf({ apis: { one: made! } }, 'one')!, 'get /loans', loans)).toMatchObject({
    key: 'due',
    fields: { tool: 'tool.name', due: 'due' },
  });
});

test.each([
  ['is asked by a word', { parameters: [{ name: 'term', in: 'path' }] }, '/tools/{term}', 'array'],
  ['gives no records', {}, '/words', 'string'],
])('a list that %s stands behind no collection', (_, more, at, type) => {
  const items = type === 'array' ? { type: 'object', properties: { name: { type: 'string' } } } : { type };
  const content = { 'application/json': { schema: { type: 'array', items } } };
  const { api: made } = keptApi(
    JSON.stringify({
      openapi: '3.1.0',
      paths: { [at]: { get: { operationId: 'listThem', ...more, responses: { 200: { content } } } } },
    }),
  );
  const description = apiOf({ apis: { one: made! } }, 'one')!;
  expect(description.operations[0].does).toBe('list');
  expect(behindBy('one', description, 'listThem', tools)).toBeNull();
});

test('what all paths are asked under is no key of a record, and a list that is not asked so comes first', () => {
  const tool = { type: 'object', properties: { id: { type: 'string' }, name: { type: 'string' }, shed: {} } };
  const one = { responses: { 200: { content: { 'application/json': { schema: tool } } } } };
  const many = {
    responses: { 200: { content: { 'application/json': { schema: { type: 'array', items: tool } } } } },
  };
  const within = '/branches/{branchId}/tools';
  const paths = {
    [within]: { get: { operationId: 'listTools', ...many }, post: { operationId: 'addTool', ...one } },
    [`${within}/{toolId}`]: {
      get: { operationId: 'readTool', ...one },
      delete: { operationId: 'removeTool', responses: { 204: {} } },
    },
    '/shelves/{shelf}/tools/{toolId}': { delete: { operationId: 'takeDown', responses: { 204: {} } } },
  };
  const behind = (more: object): BehindProposal[] => {
    const { api: made } = keptApi(JSON.stringify({ openapi: '3.1.0', paths: { ...paths, ...more } }));
    return proposeBehind({
      design: emptyDesign,
      app: [putApi('one', made!), putCollection('tools', tools)].reduce(applyChange, emptyApp),
    });
  };
  const [proposed] = behind({});
  expect(proposed.behind).toMatchObject({
    list: 'listTools',
    add: 'addTool',
    read: 'readTool',
    remove: 'removeTool',
    key: 'id',
  });
  expect(proposed.reason).toMatch(/; branchId in its path is the same for the whole app/);
  const [first] = behind({ '/tools': { get: { operationId: 'allTools', ...many } } });
  expect(first.behind).toMatchObject({ list: 'allTools' });
  expect(first.confidence).toBeGreaterThan(proposed.confidence);
});
