import { readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { applyChange, putApi, putCollection } from '../change/change.ts';
import { behindBy } from '../described/behind.ts';
import { apiOf } from '../described/keep.ts';
import { keptApi } from '../described/read_document.ts';
import { proposeData } from '../data/propose.ts';
import { takeCollection } from '../data/take_collection.ts';
import type { Project } from '../model/project.ts';
import { desk } from '../testing/desk.ts';
import { type Answer, createStandIn, type Mood, type Request } from './answer.ts';
import { standInPlan } from './plan.ts';

const text = readFileSync(path.resolve(__dirname, '../../../../demo/openapi.yaml'), 'utf8');

/** The desk with its members behind the API. */
function bound(): Project {
  const project = desk();
  const [proposal] = proposeData(project.design).collections;
  let app = applyChange(project.app, takeCollection(project, proposal).change);
  app = applyChange(app, putApi('library', keptApi(text).api));
  const [id] = Object.keys(app.collections);
  const behind = behindBy('library', apiOf(app, 'library')!, 'listMembers', app.collections[id])!;
  return { ...project, app: applyChange(app, putCollection(id, { ...app.collections[id], behind })) };
}

const project = bound();
const plan = standInPlan(project, 'library', (hash) => hash)!;
const ask = (request: Partial<Request>, mood?: Mood, standIn = createStandIn(plan)): Answer =>
  standIn.answer({ method: 'GET', path: '/members', query: {}, ...request }, mood);
const namesIn = ({ body }: Answer): string[] => (body as { name: string }[]).map(({ name }) => name);
const ALL = ['Ines Okafor', 'Marit Solberg', 'Teodor Banks', 'Wanda Pryce', 'Jonas Ekwall', 'Pia Lund'];

test('it begins with what the screens show, in the types of the API', () => {
  expect(plan.records[Object.keys(plan.records)[0]][0]).toMatchObject({
    id: 'ines-okafor',
    name: 'Ines Okafor',
    address: 'Alder Lane',
    loanCount: 2,
  });
});

test.each([
  ['all', {}, ALL],
  ['a page', { limit: '2', offset: '2' }, ['Teodor Banks', 'Wanda Pryce']],
  ['what says some words', { search: 'alder' }, ['Ines Okafor', 'Wanda Pryce']],
  ['numbers by their size', { sort_by: 'loanCount', limit: '1', order: 'desc' }, ['Wanda Pryce']],
  ['texts by the alphabet', { sort_by: 'name', limit: '2' }, ['Ines Okafor', 'Jonas Ekwall']],
  ['nothing that fits', { search: 'nobody' }, []],
])('a list gives %s', (_, query, names) => {
  expect(namesIn(ask({ query: query as unknown as Record<string, string> }))).toEqual(names);
});

test('pages of any size give each record once, in the order of the whole list', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 9 }),
      fc.constantFrom('name', 'address', 'loanCount'),
      (size, by) => {
        const page = (offset: number): string[] =>
          namesIn(ask({ query: { limit: `${size}`, offset: `${offset}`, sort_by: by } }));
        const pages: string[] = [];
        for (let offset = 0; offset < ALL.length; offset += size) pages.push(...page(offset));
        expect(pages).toEqual(namesIn(ask({ query: { sort_by: by } })));
        expect([...pages].sort()).toEqual([...ALL].sort());
      },
    ),
  );
});

test('what is added, changed and removed is remembered until it is set back', () => {
  const standIn = createStandIn(plan);
  const did = (request: Partial<Request>): Answer => ask(request, {}, standIn);
  const { status, body } = did({ method: 'POST', path: '/tools', body: { name: 'Post driver' } });
  expect(status).toBe(201);
  const { id } = body as { id: string };
  expect(did({ path: `/tools/${id}` }).body).toMatchObject({ name: 'Post driver' });
  expect(did({ method: 'PATCH', path: `/tools/${id}`, body: { status: 'out' } }).status).toBe(200);
  expect(did({ path: '/tools' }).body).toMatchObject({ items: [{ id, status: 'out' }], total: 1 });
  standIn.reset();
  expect(did({ path: '/tools' }).body).toMatchObject({ items: [], total: 0 });
});

test.each([
  ['a field that has to be there', { status: 'free' }, [{ field: 'name', message: 'Has to be there.' }]],
  ['one of few', { name: 'A', status: 'lost' }, [{ field: 'status', message: /free, out, repair/ }]],
  ['a number', { name: 'A', shed: 'north' }, [{ field: 'shed', message: /Expected integer/ }]],
  ['no longer than it may be', { name: 'A'.repeat(81) }, [{ field: 'name', message: /80 letters or less/ }]],
  ['an object', 'a text', [{ field: '', message: /Expected an object/ }]],
])('what is sent has to be right: %s', (_, body, errors) => {
  const answer = ask({ method: 'POST', path: '/tools', body });
  expect(answer.status).toBe(422);
  const told = (answer.body as { errors: { field: string; message: string }[] }).errors;
  expect(told.map(({ field }) => field)).toEqual(errors.map(({ field }) => field));
  expect(told[0].message).toMatch(errors[0].message);
});

test.each([
  ['a path that is none', { path: '/nothing' }, {}, 404],
  ['a record that is none', { path: '/tools/none' }, {}, 404],
  ['a method that is none', { method: 'DELETE' }, {}, 405],
  ['a service that does not work', {}, { isFailing: true }, 503],
  ['somebody who has not signed in', {}, { isSignedOut: true }, 401],
  [
    'signing in',
    { method: 'POST', path: '/session', body: { email: 'a@b.example', password: 'long enough' } },
    { isSignedOut: true },
    201,
  ],
  ['signing in with too little', { method: 'POST', path: '/session', body: {} }, {}, 422],
  ['a list while it is empty', {}, { isEmpty: true }, 200],
])('%s has its status', (_, request, mood, status) => {
  expect(ask(request, mood).status).toBe(status);
});

test('whatever is asked, there is an answer', () => {
  const paths = plan.operations.map((one) => one.path);
  fc.assert(
    fc.property(
      fc.record({
        method: fc.constantFrom('GET', 'POST', 'PUT', 'PATCH', 'DELETE'),
        path: fc.oneof(
          fc.string(),
          fc
            .tuple(fc.constantFrom(...paths), fc.string())
            .map(([at, key]) => at.replace(/\{[^}]+\}/, encodeURIComponent(key))),
        ),
        query: fc.dictionary(fc.constantFrom('q', 'limit', 'offset', 'sort_by', 'page', 'x'), fc.string()),
        body: fc.jsonValue(),
      }),
      (request) => {
        const { status } = ask(request);
        expect(status >= 200 && status < 600).toBe(true);
      },
    ),
    { numRuns: 400 },
  );
});

test('a picture has the address of the stand-in before it', () => {
  const [name] = Object.keys(plan.records);
  const pictured = { ...plan, records: { [name]: [{ id: '1', name: 'A', face: '/pictures/a.png' }] } };
  expect(createStandIn(pictured, '/api/library').records()[name][0].face).toBe('/api/library/pictures/a.png');
});

test.each([
  ['/things/{id}', '/things/a', 200],
  ['/lists/{day}/{list}.json', '/lists/today/best.json', 200],
  ['/lists/{day}/{list}.json', '/lists/today/best', 404],
  ['/{branch}:searchThings', '/mossgate:searchThings', 200],
  ['/{branch}:searchThings', '/mossgate:countThings', 404],
  ['/{owner}-{name}', '/moss-gate', 200],
  ['/{a}{b}{c}{d}', '/moss', 404],
  ['/a+b/{id}', '/aab/1', 404],
])('%s is asked by %s: %i', (path, asked, status) => {
  const operation = {
    id: 'one',
    method: 'GET',
    path,
    does: 'list',
    records: 'things',
    status: 200,
    within: [],
    query: [],
    sends: [],
  } as const;
  const standIn = createStandIn({ title: '', keys: {}, operations: [operation], records: { things: [] } });
  expect(standIn.answer({ method: 'GET', path: asked, query: {} }).status).toBe(status);
});
