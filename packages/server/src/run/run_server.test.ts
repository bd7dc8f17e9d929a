import {
  all,
  type App,
  applyChange,
  type Design,
  emitReact,
  emptyApp,
  emptyDesign,
  keptApi,
  makeAlternatives,
  putApi,
  putCollection,
  putInteraction,
  putScreen,
  readSvg,
  type Screen,
  takeIn,
} from '@tovel/core';
import type { FastifyInstance } from 'fastify';
import { createServices, type Services } from '../services.ts';
import { startTestDatabase, type TestDatabase } from '../testing/database.ts';
import { Builder } from './builder.ts';
import { createRunServer } from './run_server.ts';

let database: TestDatabase;
let services: Services;
let run: FastifyInstance;
let id: string;
let app: App;

const drawing = (title: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 390 844"><text id="Title" x="20" y="60" font-size="24">${title}</text><g id="Go_button"><rect x="20" y="100" width="200" height="48" rx="6" fill="#246"/><text x="120" y="130" text-anchor="middle">Go</text></g></svg>`;

const drawn = (key: string): Screen =>
  readSvg({ file: `${key}.svg`, text: drawing(`The ${key}`), screenKey: key, asset: () => null }).screen!;

beforeAll(async () => {
  database = await startTestDatabase();
  services = createServices(database.db, { error: () => {} });
  run = await createRunServer(services, 4999, 5000);
  const screens = ['home', 'list'].map(drawn);
  const design: Design = { ...emptyDesign, screens };
  app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens));
  id = await services.projects.create('Runs', design, app);
});
afterAll(async () => {
  await run.close();
  await services.workshop.close();
  await services.threads.close();
  await database.stop();
});

const get = (url: string, headers = { host: '127.0.0.1:5000' }) => run.inject({ url, headers });

test('an alternative runs in the place of its screen, and only as long as it is one', async () => {
  const screens = ['home', 'list', 'other'].map(drawn);
  const design: Design = { ...emptyDesign, screens };
  let taken = applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens));
  taken = applyChange(taken, makeAlternatives({ design, app: taken }, ['other'], 'home'));
  const ways = await services.projects.create('Ways', design, taken);
  const script = async (address: string) => (await get(`/${address}/_app/app.js`)).body;
  expect(await script(ways)).not.toContain('The other');
  const kept = await script(`${ways}~as.other`);
  expect(kept).toContain('The other');
  expect(kept).not.toContain('The home');
  const { statusCode, body } = await get(`/${ways}~as.list/_app/app.js`);
  expect(statusCode).toBe(404);
  expect(body).toContain('no alternative');
});

test('beside the app as it is, it is served with a name for each value that recurs', async () => {
  const screens = ['home', 'list', 'tool', 'loan'].map(drawn);
  const design: Design = { ...emptyDesign, screens };
  const taken = applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens));
  const many = await services.projects.create('Many', design, taken);
  const css = async (address: string) => (await get(`/${address}/_app/app.css`)).body;
  expect(await css(many)).not.toContain('--text-body:');
  expect(await css(`${many}~named`)).toMatch(/--text-body: 16px;/);
});

test('an app is served under its project, whatever the address within it', async () => {
  for (const address of ['/', '/list', '/no/such/place']) {
    const page = await get(`/${id}${address}`);
    expect(page.statusCode).toBe(200);
    expect(page.body).toContain(`src="/${id}/_app/app.js"`);
    expect(page.headers['content-security-policy']).toMatch(
      /default-src 'none'.*frame-ancestors http:\/\/127.0.0.1:4999/,
    );
  }
});

test('the script is the emitted code, with packages shared', async () => {
  const script = await get(`/${id}/_app/app.js`);
  expect(script.body).toContain('The home');
  expect(script.body).toContain('from "/_vendor/react-router.js"');
  expect((await get(`/${id}/_app/app.css`)).body).toContain('box-sizing: border-box');
  for (const name of ['react', 'react-jsx-runtime', 'react-dom-client', 'react-router', 'react-router-dom'])
    expect((await get(`/_vendor/${name}.js`)).statusCode).toBe(200);
});

test('what is thrown in the script is told by the line of the code, and by the element that is written there', async () => {
  const script = (await get(`/${id}/_app/app.js`)).body;
  const before = script.slice(0, script.indexOf('The home')).split('\n');
  const [, version] = /tovelModules\(packages, "(\w+)"\)/.exec(script)!;
  const place = await services.workshop.where(id, version, before.length, before.at(-1)!.length);
  const emitted = emitReact({ design: (await services.projects.read(id)).design, app }, 'Runs');
  const file = emitted.files.find(({ path }) => path === place?.path)!;
  const line = 'text' in file ? file.text.split('\n')[place!.line - 1] : '';
  expect(line).toContain('The home');
  expect(place!.element).toMatch(/^home:/);
  expect(await services.workshop.where(id, version, 1_000_000, 0)).toBeNull();
  expect(await services.workshop.where('nobody', version, 1, 0)).toBeNull();
});

test('a change is in the next build, and is told', async () => {
  const told: unknown[] = [];
  const tell = jest.spyOn(services.feed, 'tell').mockImplementation((_, event) => void told.push(event));
  const renamed = putScreen('list', { ...app.screens.list, name: 'Ledger', route: '/ledger' });
  await services.history.append(id, { base: 0 }, 'Rename', () => ({ change: renamed }));
  services.workshop.changed(id);
  expect((await get(`/${id}/_app/app.js`)).body).toContain('/ledger');
  expect(told).toContainEqual({ kind: 'built', project: id, seq: 1, error: null });
  tell.mockRestore();
});

test('a step is built while it is written, and taken out again where that fails', async () => {
  const built = jest.spyOn(Builder.prototype, 'build');
  await get(`/${id}/_app/app.js`);
  built.mockClear();
  const routed = (route: string) => ({
    change: putScreen('list', { ...app.screens.list, name: 'Ledger', route }),
  });
  const { seq } = await services.projects.read(id);
  const write = jest.spyOn(services.projects, 'write').mockImplementationOnce(async () => {
    // It is under way before the step is written.
    expect(built).toHaveBeenCalledTimes(1);
    throw new Error('The disk is full.');
  });
  await expect(services.history.append(id, { base: seq }, 'Move', () => routed('/never'))).rejects.toThrow(
    'The disk is full.',
  );
  const script = (await get(`/${id}/_app/app.js`)).body;
  expect(script).toContain('/ledger');
  expect(script).not.toContain('/never');
  write.mockRestore();
  built.mockClear();
  await services.history.append(id, { base: seq }, 'Move', () => routed('/moved'));
  await services.history.append(id, { base: seq + 1 }, 'Move', () => routed('/ledger'));
  services.workshop.changed(id);
  const { body } = await get(`/${id}/_app/app.js`);
  expect(body).toContain('/ledger');
  expect(body).not.toContain('/moved');
  expect(built.mock.calls.map(([order]) => [order.app, order.changes.length])).toEqual([
    [null, 1],
    [null, 1],
  ]);
  built.mockRestore();
});

test('what a step makes of the app can be asked for before the step is taken, and comes once it is built', async () => {
  const { seq } = await services.projects.read(id);
  const [, version] = /tovelModules\(packages, "(\w+)"\)/.exec((await get(`/${id}/_app/app.js`)).body)!;
  let isThere = false;
  const ahead = get(`/${id}/_app/changes.${version}.js?1&beyond=${seq + 1}`).then(({ body }) => {
    isThere = true;
    return body;
  });
  const asked = await get(`/${id}/_app/changes.${version}.js?2`);
  expect(asked.statusCode).toBe(200);
  expect(isThere).toBe(false);
  const moved = putScreen('list', { ...app.screens.list, name: 'Ledger', route: '/ahead' });
  await services.history.append(id, { base: seq }, 'Move', () => ({ change: moved }));
  expect(await ahead).toContain('/ahead');
  // Of what is there nothing is waited for, whether somebody was told of it or not.
  expect((await get(`/${id}/_app/app.js?beyond=${seq}`)).body).toContain('/ahead');
  const { design } = await services.projects.read(id);
  const other = await services.projects.create('Other', design, app);
  await services.history.append(other, { base: 0 }, 'Move', () => ({ change: moved }));
  await get(`/${other}/_app/app.js`);
  expect((await get(`/${other}/_app/app.js?beyond=1`)).body).toContain('/ahead');
  const back = putScreen('list', { ...app.screens.list, name: 'Ledger', route: '/ledger' });
  await services.history.append(id, { base: seq + 1 }, 'Move', () => ({ change: back }));
  services.workshop.changed(id);
});

test('the app is there in Vue, too, and so are its changes', async () => {
  const renamed = putScreen('list', { ...app.screens.list, name: 'Ledger', route: '/entries' });
  const before = (await get(`/${id}~vue/_app/app.js`)).body;
  expect(before).toContain('/_vendor/vue-router.js');
  expect(before).not.toContain('/entries');
  const { seq } = await services.projects.read(id);
  await services.history.append(id, { base: seq }, 'Move', () => ({ change: renamed }));
  expect((await get(`/${id}~vue/_app/app.js`)).body).toContain('/entries');
  expect((await get(`/${id}~vue/entries`)).body).toContain('<div id="app"></div>');
  expect((await get('/_vendor/vue-router.js')).statusCode).toBe(200);
});

test('a build says how far it is, and ends when nobody waits for it any more', async () => {
  const { design } = await services.projects.read(id);
  const builder = new Builder();
  const order = { project: 'p', name: 'P', target: 'react', design, app, changes: [] } as const;
  const told: string[] = [];
  const whole = builder.build(order, (done, total) => void told.push(`${done} of ${total}`));
  const left = builder.build({ ...order, project: 'q' }, () => {});
  left.end();
  expect((await whole.done)?.page).toContain('<title>P</title>');
  expect(told[0]).toBe('0 of 2');
  expect(await left.done).toBeNull();
  await builder.close();
});

test('what it is not asked for by name it does not answer', async () => {
  expect((await get('/missing-project/')).statusCode).toBe(404);
  expect((await get('/_vendor/fs.js')).statusCode).toBe(404);
  expect((await get(`/${id}/_assets/../../secret`)).statusCode).not.toBe(200);
  expect((await get(`/${id}/`, { host: 'evil.example' })).statusCode).toBe(421);
});

test('a link to a screen that is gone does not break the build', async () => {
  const { seq } = await services.projects.read(id);
  await services.history.append(id, { base: seq }, 'Delete', () => ({ change: putScreen('list', null) }));
  await services.history.append(id, { base: seq + 1 }, 'Wire', () => ({
    change: putInteraction('home:1', {
      on: 'press',
      target: { kind: 'screen', screen: 'list' },
      arrival: { kind: 'none' },
    }),
  }));
  const { error } = await services.workshop.current(id);
  expect(error).toBeNull();
});

test('of many apps the last that somebody ran still hears of its changes', async () => {
  const { design } = await services.projects.read(id);
  const ids = [];
  for (let i = 0; i < 8; i++) ids.push(await services.projects.create(`App ${i}`, design, app));
  for (const other of ids) await services.workshop.current(other);
  const told = new Set<string>();
  const tell = jest.spyOn(services.feed, 'tell').mockImplementation((project) => void told.add(project));
  const last = ids.at(-1)!;
  await services.history.append(last, { base: 0 }, 'Delete', () => ({ change: putScreen('list', null) }));
  for (const other of ids) services.workshop.changed(other);
  await services.workshop.current(last);
  // The first ones have been put away, and are built when somebody runs them again.
  expect([told.has(last), told.has(ids[0])]).toEqual([true, false]);
  tell.mockRestore();
});

test('a described API is answered beside the app, as somebody tries it, and remembers until it is set back', async () => {
  const list = '/items';
  const record = {
    type: 'object',
    required: ['name'],
    properties: { id: { type: 'string' }, name: { type: 'string' } },
  };
  const content = (schema: object): object => ({ content: { 'application/json': { schema } } });
  const document = {
    openapi: '3.1.0',
    info: { title: 'Shop' },
    paths: {
      [list]: {
        get: { operationId: 'listItems', responses: { 200: content({ type: 'array', items: record }) } },
        post: { operationId: 'addItem', requestBody: content(record), responses: { 201: content(record) } },
      },
    },
  };
  const { seq, design, app: now } = await services.projects.read(id);
  const { api } = keptApi(JSON.stringify(document));
  const title = design.screens[0].root.children[0].key;
  const changes = all([
    putApi('shop', api),
    putCollection('items', {
      name: 'items',
      fields: [{ name: 'name', type: 'text' }],
      rows: [{ element: title, within: design.screens[0].root.key, shows: { name: title } }],
      behind: { api: 'shop', list: 'listItems', add: 'addItem', key: 'id', fields: { name: 'name' } },
    }),
  ]);
  expect(now.apis).toEqual({});
  await services.history.append(id, { base: seq }, 'Describe', () => ({ change: changes }));
  const at = `/${id}/api/shop`;
  const ask = (url: string, tried = '') =>
    get(at + url, { host: '127.0.0.1:5000', 'x-tried': tried } as never);
  expect((await ask(list)).json()).toEqual([{ id: 'the-home', name: 'The home' }]);
  expect((await ask(list, 'empty')).json()).toEqual([]);
  expect((await ask(list, 'failing')).statusCode).toBe(503);
  expect((await ask(list, 'signed-out')).statusCode).toBe(401);
  expect((await ask('/nothing')).statusCode).toBe(404);
  expect((await get(`/${id}/api/none/items`)).statusCode).toBe(404);
  const headers = { host: '127.0.0.1:5000' };
  const post = (payload: object) => run.inject({ method: 'POST', url: at + list, headers, payload });
  expect((await post({})).statusCode).toBe(422);
  expect((await post({ name: 'Lamp' })).statusCode).toBe(201);
  expect((await ask(list)).json()).toHaveLength(2);
  await run.inject({ method: 'DELETE', url: `/${id}/api`, headers });
  expect((await ask(list)).json()).toHaveLength(1);
  const other = await run.inject({
    method: 'POST',
    url: at + list,
    headers: { ...headers, origin: 'http://elsewhere.example' },
    payload: { name: 'Lamp' },
  });
  expect(other.statusCode).toBe(403);
});
