import { readFileSync } from 'node:fs';
import path from 'node:path';
import { strToU8 } from 'fflate';
import {
  type ChangeResult,
  type Conflict,
  errors,
  hashOf,
  type Operation,
  operations,
  type ProjectState,
  type ProjectSummary,
  putLayer,
  putScreen,
  putStill,
  readSvg,
  setStart,
  stringifySorted,
  unpackProject,
} from '@tovel/core';
import { migrate } from '../database/migrate.ts';
import { rowsOf } from '../database/pool.ts';
import { startTestApp, type TestApp } from '../testing/app.ts';

const PORT = 4999;
let database: TestApp['database'];
let app: TestApp['app'];
let stop: TestApp['stop'];

beforeAll(async () => {
  ({ database, app, stop } = await startTestApp(PORT));
});
afterAll(() => stop());

const headers = { host: `127.0.0.1:${PORT}` };
async function ask<T>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE' | 'PUT',
  url: string,
  body?: unknown,
  more: Record<string, string> = {},
): Promise<{ status: number; body: T; headers: Record<string, unknown> }> {
  const isBytes = body instanceof Uint8Array;
  const response = await app.inject({
    method,
    url,
    headers: { ...headers, ...(isBytes ? { 'content-type': 'application/octet-stream' } : {}), ...more },
    ...(body === undefined ? {} : { payload: isBytes ? Buffer.from(body) : (body as object) }),
  });
  return {
    status: response.statusCode,
    body: (response.headers['content-type']?.toString().includes('json')
      ? response.json()
      : response.rawPayload) as T,
    headers: response.headers,
  };
}
const create = async (name = 'Test'): Promise<string> =>
  (await ask<{ id: string }>('POST', '/api/projects', { name })).body.id;
const change = (id: string, base: number, step: object, label = 'A step') =>
  ask<ChangeResult & Conflict>('POST', `/api/projects/${id}/changes`, { base, label, change: step });
const state = async (id: string): Promise<ProjectState> =>
  (await ask<ProjectState>('GET', `/api/projects/${id}`)).body;
const entry = { name: 'Home', route: '/', use: 'screen', order: 1 } as const;

describe('projects', () => {
  test('can be copied many times at once', async () => {
    const id = await create('Copied');
    await database.db.execute(
      'INSERT INTO sources (project_id, address, hash, fetched_at) VALUES (?, ?, ?, NOW())',
      [id, 'https://design.example/screens', 'a'.repeat(64)],
    );
    const made = await Promise.all(
      Array.from({ length: 24 }, () => ask<{ id: string }>('POST', `/api/projects/${id}/copy`)),
    );
    expect(new Set(made.map(({ status }) => status))).toEqual(new Set([201]));
    expect(new Set(made.map(({ body }) => body.id)).size).toBe(24);
  });

  test('are made, renamed, copied, deleted and restored', async () => {
    const id = await create('First');
    expect((await ask('PATCH', `/api/projects/${id}`, { name: ' Renamed ' })).status).toBe(204);
    const copy = (await ask<{ id: string }>('POST', `/api/projects/${id}/copy`)).body.id;
    expect((await state(copy)).name).toBe('Renamed copy');
    await ask('DELETE', `/api/projects/${id}`);
    expect(await ask('GET', `/api/projects/${id}`)).toMatchObject({
      status: 404,
      body: { code: 'project-missing' },
    });
    const listed = (await ask<ProjectSummary[]>('GET', '/api/projects')).body.find(
      (project) => project.id === id,
    )!;
    expect(listed.deletedAt).not.toBeNull();
    await ask('POST', `/api/projects/${id}/restore`);
    expect((await state(id)).name).toBe('Renamed');
  });

  test.each([
    [{}, /needs a name/],
    [{ name: '  ' }, /needs a name/],
    [{ name: 'x'.repeat(121) }, /at most 120/],
    [{ name: 'a', id: 1 }, /unspecified|unknown/],
  ])('%j is refused in words', async (body, message) => {
    expect(await ask('POST', '/api/projects', body)).toMatchObject({
      status: 400,
      body: { code: 'invalid', message: expect.stringMatching(message) },
    });
  });

  test('a name is data, whatever it holds', async () => {
    const name = `Robert'); DROP TABLE projects;-- “ü” 💧`;
    expect((await state(await create(name))).name).toBe(name);
  });

  test('an unchanged project is not sent again', async () => {
    const id = await create();
    const tag = String((await ask('GET', `/api/projects/${id}`)).headers.etag);
    expect((await ask('GET', `/api/projects/${id}`, undefined, { 'if-none-match': tag })).status).toBe(304);
    await change(id, 0, setStart('a'));
    expect((await ask('GET', `/api/projects/${id}`, undefined, { 'if-none-match': tag })).status).toBe(200);
  });
});

describe('history', () => {
  test('steps are numbered without gaps, and undo and redo are steps', async () => {
    const id = await create();
    expect((await change(id, 0, putScreen('home', entry), 'Add home')).body.history).toMatchObject({
      seq: 1,
      undo: { label: 'Add home' },
      redo: null,
    });
    await change(id, 1, putStill('home:1', true), 'Mark still');
    const undone = await ask<ChangeResult>('POST', `/api/projects/${id}/undo`, { base: 2 });
    expect(undone.body).toMatchObject({
      entry: { seq: 3, role: 'undo', of: 2 },
      history: { undo: { seq: 1 }, redo: { seq: 2 } },
    });
    expect((await state(id)).app.still).toEqual({});
    const redone = await ask<ChangeResult>('POST', `/api/projects/${id}/redo`, { base: 3 });
    expect(redone.body.entry).toMatchObject({ seq: 4, role: 'redo', of: 2 });
    expect((await state(id)).app.still).toEqual({ 'home:1': true });
    expect((await ask<unknown[]>('GET', `/api/projects/${id}/history?after=2`)).body).toHaveLength(2);
  });

  test('undoing everything leads back to the very same document', async () => {
    const id = await create();
    const before = JSON.stringify((await state(id)).app);
    const steps = [
      putScreen('home', entry),
      setStart('home'),
      putScreen('home', { ...entry, route: '/x' }),
      putScreen('home', null),
    ];
    for (const [base, step] of steps.entries()) await change(id, base, step);
    for (let base = steps.length; base < 2 * steps.length; base++)
      expect((await ask('POST', `/api/projects/${id}/undo`, { base })).status).toBe(200);
    expect(JSON.stringify((await state(id)).app)).toBe(before);
    expect(await ask('POST', `/api/projects/${id}/undo`, { base: 8 })).toMatchObject({
      status: 409,
      body: { code: 'nothing-to-undo' },
    });
  });

  test('one who is behind gets 409 with what was missed', async () => {
    const id = await create();
    await change(id, 0, setStart('a'), 'Theirs');
    const late = await change(id, 0, setStart('b'), 'Mine');
    expect(late).toMatchObject({
      status: 409,
      body: {
        code: 'behind',
        missed: [{ seq: 1, label: 'Theirs', change: setStart('a') }],
        history: { seq: 1 },
      },
    });
    expect((await state(id)).app.start).toBe('a');
  });

  test('of many at once exactly one comes first, and none is lost or doubled', async () => {
    const id = await create();
    const push = async (i: number): Promise<void> => {
      for (let base = 0; ;) {
        const { status, body } = await change(id, base, putStill(`s:${i}`, true));
        if (status === 200) return;
        base = body.history.seq;
      }
    };
    await Promise.all(Array.from({ length: 12 }, (_, i) => push(i)));
    const { app: document, history } = await state(id);
    expect(Object.keys(document.still)).toHaveLength(12);
    expect(history.seq).toBe(12);
  });

  test('one who is behind is not in the way of others, and hears what was missed', async () => {
    const id = await create();
    await change(id, 0, putStill('a:1', true), 'Theirs');
    const late = await change(id, 0, putStill('a:2', true), 'Mine');
    expect(late).toMatchObject({
      status: 200,
      body: { entry: { seq: 2, label: 'Mine' }, missed: [{ seq: 1, label: 'Theirs' }] },
    });
    expect((await state(id)).app.still).toEqual({ 'a:1': true, 'a:2': true });
  });

  const step = (id: string, body: object, what = 'changes') =>
    ask<ChangeResult>('POST', `/api/projects/${id}/${what}`, body);

  test('a step that is said twice is done once, and so are undo and redo', async () => {
    const id = await create();
    const said = { base: 0, id: 'step-0001', label: 'Once', change: setStart('a') };
    const [first, second] = [await step(id, said), await step(id, said)];
    expect(second.body).toEqual(first.body);
    await step(id, { base: 1, id: 'step-0002', label: 'More', change: putStill('a:1', true) });
    // Its answer was lost: by now others have gone on.
    expect((await step(id, said)).body.entry).toEqual(first.body.entry);
    for (const what of ['undo', 'redo'] as const)
      for (let i = 0; i < 2; i++)
        expect((await step(id, { base: 2, id: `${what}-once` }, what)).status).toBe(200);
    expect((await state(id)).history.seq).toBe(4);
  });

  test('undo is of one’s own steps first, and never takes what others wrote after it', async () => {
    const id = await create();
    const [me, other] = [{ author: 'one.w1' }, { author: 'two.w1' }];
    await step(id, { base: 0, ...me, label: 'Mine', change: putStill('a:1', true) });
    await step(id, { base: 1, ...other, label: 'Theirs', change: putStill('a:2', true) });
    expect((await step(id, { base: 2, ...me }, 'undo')).body.entry).toMatchObject({ of: 1 });
    expect((await state(id)).app.still).toEqual({ 'a:2': true });
    await step(id, { base: 3, ...me }, 'redo');
    await step(id, { base: 4, ...other, label: 'Over it', change: putStill('a:1', false) });
    expect(await step(id, { base: 5, ...me }, 'undo')).toMatchObject({
      status: 409,
      body: { code: 'step-in-the-way', message: expect.stringMatching(/“Over it”/) },
    });
    const { history } = (await ask<ProjectState>('GET', `/api/projects/${id}?author=three.w9`)).body;
    // Who has no steps of their own is shown whose it is.
    expect(history.undo).toMatchObject({ label: 'Over it', author: 'two.w1' });
  });

  test('reading while others write sees one moment', async () => {
    const id = await create();
    let isOver = false;
    const write = async (): Promise<void> => {
      for (let base = 0; base < 60; base++) await change(id, base, putStill(`s:${base}`, true));
      isOver = true;
    };
    const read = async (): Promise<number> => {
      let reads = 0;
      while (!isOver) {
        const { app: document, history } = await state(id);
        expect(Object.keys(document.still)).toHaveLength(history.seq);
        reads++;
      }
      return reads;
    };
    const [, ...reads] = await Promise.all([write(), read(), read()]);
    expect(Math.min(...reads)).toBeGreaterThan(3);
  });

  test.each([
    [{ kind: 'drop' }, /unknown kind/],
    [{ kind: 'put', table: 'screens', key: 'a', value: { name: '' } }, /screens\/a/],
    ['text', /expected an object/],
  ])('the change %j is refused in words', async (step, message) => {
    expect(await change(await create(), 0, step as object)).toMatchObject({
      status: 400,
      body: { message: expect.stringMatching(message) },
    });
  });
});

describe('intake', () => {
  const bytes = strToU8('<svg xmlns="http://www.w3.org/2000/svg"/>');
  const hash = hashOf(bytes);
  const element = {
    kind: 'box',
    name: 'x',
    tag: 'div',
    box: { x: 0, y: 0, width: 9, height: 9 },
    style: { base: {} },
    source: { file: 'home.svg', path: '' },
    children: [],
  };
  const screen = {
    key: 'home',
    name: 'Home',
    source: { file: 'home.svg', path: '' },
    width: 390,
    height: 844,
    use: 'screen',
    root: { ...element, key: 'home:' },
  };
  const batch = (part: object = {}): object => ({
    base: 0,
    screens: [screen],
    assets: [{ hash, type: 'image/svg+xml', size: bytes.length, file: 'home.svg' }],
    notices: [],
    ...part,
  });

  test('files come first, by their hash; then the screens made of them', async () => {
    const id = await create();
    expect(
      await ask(
        'POST',
        `/api/projects/${id}/intake`,
        batch({ assets: [{ hash: 'f'.repeat(64), type: 'image/png', size: 1, file: 'x' }] }),
      ),
    ).toMatchObject({ status: 404, body: { code: 'asset-missing' } });
    expect((await ask('PUT', `/api/assets/${hash}`, bytes, { 'x-file-type': 'image/svg+xml' })).status).toBe(
      204,
    );
    expect(
      (await ask<string[]>('POST', '/api/assets/missing', { hashes: [hash, 'f'.repeat(64)] })).body,
    ).toEqual(['f'.repeat(64)]);
    const taken = await ask<ChangeResult>('POST', `/api/projects/${id}/intake`, batch());
    expect(taken.body.entry.label).toBe('Bring in Home');
    const { design, app: document, revision } = await state(id);
    expect([design.screens.length, document.start, document.screens.home.route, revision]).toEqual([
      1,
      'home',
      '/home',
      1,
    ]);
    const archive = await ask<Buffer>('GET', `/api/projects/${id}/archive`);
    expect(unpackProject(new Uint8Array(archive.body)).bytes.get(hash)).toEqual(bytes);
    await ask('POST', `/api/projects/${id}/undo`, { base: 1 });
    expect((await state(id)).app.screens).toEqual({});
  });

  test('bytes that are not what their name says are refused', async () => {
    expect(
      await ask('PUT', `/api/assets/${'0'.repeat(64)}`, bytes, { 'x-file-type': 'image/svg+xml' }),
    ).toMatchObject({ status: 400, body: { code: 'asset-mismatch' } });
    expect(
      await ask('PUT', `/api/assets/${hash}`, bytes, { 'x-file-type': 'application/x-sh' }),
    ).toMatchObject({ status: 415 });
  });

  test('a stored page is never shown as a page, and a drawing by itself runs nothing', async () => {
    const page = strToU8('<script>alert(1)</script>');
    await ask('PUT', `/api/assets/${hashOf(page)}`, page, { 'x-file-type': 'text/html' });
    const shown = await ask('GET', `/api/assets/${hashOf(page)}`);
    expect(shown.headers['content-type']).toMatch(/text\/plain/);
    expect(shown.headers['content-security-policy']).toMatch(/sandbox/);
    expect(shown.headers['x-content-type-options']).toBe('nosniff');
  });

  test('a screen with a script in it is refused, and nothing is kept', async () => {
    const id = await create();
    const hostile = { ...screen, root: { ...screen.root, tag: 'script' } };
    expect(await ask('POST', `/api/projects/${id}/intake`, batch({ screens: [hostile] }))).toMatchObject({
      status: 400,
      body: { message: expect.stringMatching(/expected an HTML element, not “script”/) },
    });
    expect((await state(id)).history.seq).toBe(0);
  });

  test('a .tovel file opens as a project, and anything else is refused', async () => {
    const id = await create('Packed');
    const archive = await ask<Buffer>('GET', `/api/projects/${id}/archive`);
    const opened = await ask<{ id: string }>('POST', '/api/projects/open', new Uint8Array(archive.body));
    expect((await state(opened.body.id)).name).toBe('Packed');
    expect(await ask('POST', '/api/projects/open', strToU8('no'))).toMatchObject({
      status: 400,
      body: { code: 'archive-invalid' },
    });
  });
});

describe('the door', () => {
  test.each([
    ['another name for loopback', { host: `evil.example:${PORT}` }, 'GET', 421],
    ['another port', { host: '127.0.0.1:80' }, 'GET', 421],
    ['a change from elsewhere', { ...headers, origin: 'https://evil.example' }, 'POST', 403],
    ['a change from the running app', { ...headers, origin: `http://127.0.0.1:${PORT + 1}` }, 'POST', 403],
    [
      'a change without an origin from another site',
      { ...headers, 'sec-fetch-site': 'cross-site' },
      'POST',
      403,
    ],
    ['a change from the application', { ...headers, origin: `http://localhost:${PORT}` }, 'POST', 201],
  ] as const)('%s: %j', async (_, given, method, status) => {
    const response = await app.inject({
      method,
      url: '/api/projects',
      headers: given,
      ...(method === 'POST' ? { payload: { name: 'x' } } : {}),
    });
    expect(response.statusCode).toBe(status);
  });

  test('says in a policy what pages may do', async () => {
    const policy = String((await ask('GET', '/api/settings')).headers['content-security-policy']);
    expect(policy).toMatch(/script-src 'self'(;|$)/);
    expect(policy).toMatch(/object-src 'none'/);
    expect(policy).toMatch(/frame-ancestors 'none'/);
  });

  test('too much at once, and what is not there, are said', async () => {
    expect((await ask('POST', '/api/projects', { name: 'x'.repeat(3 * 2 ** 20) })).status).toBe(413);
    expect(await ask('GET', '/api/nothing')).toMatchObject({ status: 404, body: { code: 'not-found' } });
  });
});

test('migrations are applied once, by one of several servers, and go on where a crash left them', async () => {
  expect(await migrate(database.db)).toEqual([]);
  // As if it had ended after changing a table and before noting so.
  await database.db.query("DELETE FROM migrations WHERE name >= '002'");
  const applied = await Promise.all([migrate(database.db), migrate(database.db), migrate(database.db)]);
  expect(applied.flat().sort()).toEqual([
    '002_intake.sql',
    '003_steps.sql',
    '004_mappings.sql',
    '005_versions.sql',
    '006_repositories.sql',
    '007_comparisons.sql',
    '008_publications.sql',
    '009_variables.sql',
    '010_deliveries.sql',
    '011_sweeps.sql',
  ]);
});

test('what older projects call conditions are variables, in what is so now, before and undone', async () => {
  const { db } = database;
  const { body } = await ask<{ id: string }>('POST', '/api/projects', { name: 'Older' });
  const { id } = body;
  const change = { kind: 'put', table: 'variables', key: 'c1', value: { name: 'Signed in', initial: false } };
  await ask('POST', `/api/projects/${id}/changes`, { base: 0, label: 'Signed in', change });
  const now = await ask<ProjectState>('GET', `/api/projects/${id}`);
  const { variables, ...rest } = now.body.app;
  const collections = {
    conditions: { name: 'conditions', fields: [{ name: 'name', type: 'text' }], rows: [] },
  };
  await db.query('UPDATE projects SET app = ? WHERE id = ?', [
    JSON.stringify({ ...rest, collections, conditions: variables }),
    id,
  ]);
  await db.query(
    "UPDATE changes SET forward = REPLACE(forward, 'variables', 'conditions') WHERE project_id = ?",
    [id],
  );
  await db.query("DELETE FROM migrations WHERE name = '009_variables.sql'");
  expect(await migrate(db)).toEqual(['009_variables.sql']);
  const [row] = await rowsOf<{ app: string }>(db, 'SELECT app FROM projects WHERE id = ?', [id]);
  expect(JSON.parse(row.app)).toEqual({ ...rest, collections, variables });
  const [step] = await rowsOf<{ forward: string }>(db, 'SELECT forward FROM changes WHERE project_id = ?', [
    id,
  ]);
  expect(JSON.parse(step.forward)).toEqual(change);
});

describe('what the server says of itself', () => {
  test('its errors are those of the catalogue, and the description has them all', async () => {
    const { body } = await ask<{
      paths: Record<string, Record<string, { responses: Record<string, { description: string }> }>>;
      components: { schemas: object };
    }>('GET', '/api/openapi.json');
    const text = JSON.stringify(body);
    for (const [code, { status }] of Object.entries(errors)) {
      expect(text).toContain(`\`${code}\``);
      expect(status).toBeGreaterThanOrEqual(400);
    }
    for (const [, name] of text.matchAll(/"#\/components\/schemas\/(\w+)"/g))
      expect(body.components.schemas).toHaveProperty(name);
  });

  test('every operation that it describes is answered, and it answers no other', async () => {
    const described = Object.values(operations as Record<string, Operation>).map(
      ({ method, path }) => `${method} ${path.replace(/\{(\w+)\}/g, ':$1')}`,
    );
    for (const line of described) {
      const [method, url] = line.split(' ');
      expect(app.hasRoute({ method: method as 'GET', url })).toBe(true);
    }
    const text = app.printRoutes({ commonPrefix: false });
    const answered = [...text.matchAll(/(\/api\/\S+) \(([^)]+)\)/g)].flatMap(([, url, methods]) =>
      methods
        .split(', ')
        .filter((method) => method !== 'HEAD')
        .map((method) => `${method} ${url}`),
    );
    for (const line of answered) expect(described).toContain(line);
  });

  test.each(['design.json', 'app.json'])(
    'the schema of %s is published, and the same as the one in the documents',
    async (name) => {
      const { body } = await ask<{ $schema: string }>('GET', `/api/schemas/${name}`);
      expect(body.$schema).toBe('https://json-schema.org/draft/2020-12/schema');
      const file = path.resolve(__dirname, '../../../../docs/schemas', name);
      expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual(body);
    },
  );
});

describe('wrong requests are answered as such', () => {
  const step = { base: 0, label: 'x', change: setStart(null) };
  test.each<[string, 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', string, unknown, number]>([
    ['a project named by a picture', 'GET', '/api/projects/🦔', undefined, 400],
    ['a project that is not there', 'GET', '/api/projects/abc', undefined, 404],
    ['a change without a body', 'POST', '/api/projects/abc/changes', undefined, 400],
    ['a change that is a list', 'POST', '/api/projects/abc/changes', [], 400],
    ['a change of no project', 'POST', '/api/projects/abc/changes', step, 404],
    ['an undo without a body', 'POST', '/api/projects/abc/undo', undefined, 400],
    ['a step from the future', 'POST', '/api/projects/ID/changes', { ...step, base: 99 }, 400],
    ['a step of no name', 'POST', '/api/projects/ID/changes', { ...step, id: '' }, 400],
    ['an author of another form', 'POST', '/api/projects/ID/changes', { ...step, author: 'x' }, 400],
    ['a project without a body', 'POST', '/api/projects', undefined, 400],
    ['a name without a body', 'PATCH', '/api/projects/ID', undefined, 400],
    [
      'code for a target of every object',
      'GET',
      '/api/projects/ID/code.zip?target=__proto__',
      undefined,
      400,
    ],
    ['code for a target that is none', 'GET', '/api/projects/ID/code.zip?target=toString', undefined, 400],
    ['two targets', 'GET', '/api/projects/ID/code.zip?target=a&target=b', undefined, 400],
    ['history after a word', 'GET', '/api/projects/ID/history?after=x', undefined, 400],
    ['history of no project', 'GET', '/api/projects/abc/history', undefined, 404],
    ['news of no project', 'GET', '/api/events?projects=abc', undefined, 404],
    ['news of nothing', 'GET', '/api/events', undefined, 400],
    ['an asset of no hash', 'GET', '/api/assets/abc', undefined, 400],
    ['an asset without bytes', 'PUT', `/api/assets/${'0'.repeat(64)}`, { a: 1 }, 400],
    ['assets of no list', 'POST', '/api/assets/missing', { hashes: 'x' }, 400],
    ['assets without a body', 'POST', '/api/assets/missing', undefined, 400],
    ['fonts without a body', 'POST', '/api/fonts', undefined, 400],
    [
      '20,000 classes',
      'POST',
      '/api/utilities',
      { config: null, css: '', isLegacy: false, classes: Array(20_000).fill('p-1') },
      400,
    ],
    ['sources of no project', 'GET', '/api/projects/abc/sources', undefined, 404],
    ['a source that is a word', 'POST', '/api/projects/ID/sources/x/refresh', undefined, 400],
    ['a ticket that is none', 'POST', '/api/projects/ID/sources/x/confirm', undefined, 400],
    ['a schema of another document', 'GET', '/api/schemas/other.json', undefined, 400],
    ['JSON that is none', 'POST', '/api/projects', '{', 400],
  ])('%s', async (_, method, url, body, status) => {
    const id = await create();
    const isText = typeof body === 'string';
    const answer = await app.inject({
      method,
      url: encodeURI(url.replace('ID', id)),
      headers: { ...headers, ...(isText ? { 'content-type': 'application/json' } : {}) },
      ...(body === undefined ? {} : { payload: body as object }),
    });
    expect([answer.statusCode, answer.json()]).toEqual([
      status,
      { code: expect.stringMatching(/^[a-z-]+$/), message: expect.stringMatching(/./) },
    ]);
  });

  test('an asset larger than intake reads is refused before it is hashed', async () => {
    const large = new Uint8Array(26 * 2 ** 20);
    expect(
      (await ask('PUT', `/api/assets/${'0'.repeat(64)}`, large, { 'x-file-type': 'image/png' })).status,
    ).toBe(413);
  });

  test('work that is dear is rationed, with when to ask again; steps are not', async () => {
    const id = await create();
    const minute = Math.floor(Date.now() / 60_000);
    for (const at of [minute, minute + 1])
      await database.db.execute('REPLACE INTO spending (spender, minute, spent) VALUES (?, ?, 100000)', [
        '127.0.0.1',
        at,
      ]);
    const refused = await ask('GET', `/api/projects/${id}/code.zip`);
    expect([refused.status, (refused.body as { code: string }).code]).toEqual([429, 'busy']);
    expect(Number(refused.headers['retry-after'])).toBeGreaterThan(0);
    expect((await change(id, 0, setStart('a'))).status).toBe(200);
    await database.db.execute('DELETE FROM spending');
  });
});

describe('an intake', () => {
  const drawing = (color: string) => svgScreen(`<rect width="200" height="80" fill="${color}"/>`);
  const svgScreen = (body: string) =>
    readSvg({
      file: 'home.svg',
      text: `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844">${body}</svg>`,
      screenKey: 'home',
      asset: () => null,
    }).screen!;
  const bring = (id: string, base: number, color: string) =>
    ask<ChangeResult>('POST', `/api/projects/${id}/intake`, {
      base,
      screens: [drawing(color)],
      assets: [],
      notices: [],
    });
  const colorIn = async (id: string): Promise<string> => {
    const { design } = (await ask<ProjectState>('GET', `/api/projects/${id}`)).body;
    return JSON.stringify(design.screens).includes('#111111')
      ? 'old'
      : JSON.stringify(design.screens).includes('#222222')
        ? 'new'
        : 'none';
  };

  test('of a file that is there already replaces its screen; undo and redo bring either back', async () => {
    const id = await create();
    await bring(id, 0, '#111111');
    const { body } = await bring(id, 1, '#222222');
    expect(await colorIn(id)).toBe('new');
    expect(body.revision).toBe(2);
    await ask('POST', `/api/projects/${id}/undo`, { base: 2 });
    expect(await colorIn(id)).toBe('old');
    await ask('POST', `/api/projects/${id}/undo`, { base: 3 });
    expect(await colorIn(id)).toBe('none');
    await ask('POST', `/api/projects/${id}/redo`, { base: 4 });
    await ask('POST', `/api/projects/${id}/redo`, { base: 5 });
    expect(await colorIn(id)).toBe('new');
    // What comes in after travelling does not meet what was there before.
    await ask('POST', `/api/projects/${id}/undo`, { base: 6 });
    expect((await bring(id, 7, '#222222')).status).toBe(200);
    expect(await colorIn(id)).toBe('new');
  });

  test('keeps what was decided about a screen that comes in again', async () => {
    const id = await create();
    await bring(id, 0, '#111111');
    await change(id, 1, putScreen('home', { name: 'Start', route: '/start', use: 'screen', order: 1 }));
    await change(id, 2, putLayer('home:0', { show: false }));
    await bring(id, 3, '#222222');
    const { app: document } = (await ask<ProjectState>('GET', `/api/projects/${id}`)).body;
    expect([document.screens.home.name, document.layers['home:0']]).toEqual(['Start', { show: false }]);
  });

  test('of a screen from elsewhere with a key that is taken gives it another, and both stay', async () => {
    const id = await create();
    await bring(id, 0, '#111111');
    const other = { ...drawing('#222222'), source: { file: 'other.svg', path: '' } };
    const { status } = await ask('POST', `/api/projects/${id}/intake`, {
      base: 1,
      screens: [other],
      assets: [],
      notices: [],
    });
    expect(status).toBe(200);
    const { design } = (await ask<ProjectState>('GET', `/api/projects/${id}`)).body;
    expect(design.screens.map((screen) => screen.key)).toEqual(['home', 'home-2']);
  });

  test('refuses a step about an element that went with it, made by somebody who had not seen that', async () => {
    const id = await create();
    await bring(id, 0, '#111111');
    const gone = svgScreen('<text x="20" y="60" font-size="28">All is new</text>');
    const { status } = await ask('POST', `/api/projects/${id}/intake`, {
      base: 1,
      screens: [gone],
      assets: [],
      notices: [],
      whole: true,
    });
    expect(status).toBe(200);
    const late = await change(id, 1, putLayer('home:0', { role: 'button' }));
    expect([late.status, (late.body as { code?: string }).code]).toEqual([409, 'behind']);
    expect((await change(id, 1, setStart('home'))).status).toBe(200);
    // Once the iteration is taken back, the element is there again.
    await ask('POST', `/api/projects/${id}/undo`, { base: 3, of: 2 });
    const { seq } = (await ask<ProjectState>('GET', `/api/projects/${id}`)).body.history;
    expect((await change(id, seq, putLayer('home:0', { role: 'button' }))).status).toBe(200);
  });

  test('of a next version keeps decisions on their elements, whatever moved, and undo gives back the same bytes', async () => {
    const id = await create();
    await bring(id, 0, '#111111');
    await change(id, 1, putLayer('home:0', { role: 'button', label: 'Dark' }));
    const read = async (): Promise<ProjectState> =>
      (await ask<ProjectState>('GET', `/api/projects/${id}`)).body;
    const before = await read();
    const next = svgScreen(
      '<g id="Line"><rect width="390" height="2" fill="#abc"/></g><rect width="200" height="80" fill="#111111"/>',
    );
    await ask('POST', `/api/projects/${id}/intake`, {
      base: 2,
      screens: [next],
      assets: [],
      notices: [],
      whole: true,
    });
    const after = await read();
    expect(Object.keys(after.app.iterations)).toHaveLength(1);
    const decided = [
      ...Object.keys(after.app.layers),
      ...Object.values(after.app.setAside).map((one) => one.element),
    ];
    expect(decided).toEqual(['home:0']);
    await ask('POST', `/api/projects/${id}/undo`, { base: 3 });
    const back = await read();
    expect(stringifySorted([back.design, back.app])).toBe(stringifySorted([before.design, before.app]));
  });
});

describe('what intake asks the server for', () => {
  test('the faces of a font that is shipped, and none of any other', async () => {
    const { body } = await ask<{ weight: string; data: string }[]>('POST', '/api/fonts', {
      family: 'Inter',
      weights: [400],
      hasItalic: true,
      isIcons: false,
    });
    expect(body.map(({ weight }) => weight)).toEqual(['100 900', '100 900']);
    expect(Buffer.from(body[0].data, 'base64').subarray(0, 4).toString()).toBe('wOF2');
    expect(
      (
        await ask('POST', '/api/fonts', {
          family: '../../etc',
          weights: [],
          hasItalic: false,
          isIcons: false,
        })
      ).body,
    ).toEqual([]);
  });

  test('the style sheet of utility classes, with a configuration that is data', async () => {
    const plan = {
      config: { theme: { extend: { colors: { shed: '#2f4a3a' } } } },
      css: '',
      isLegacy: true,
      classes: ['bg-shed', 'p-4', 'md:flex', 'not-a-class'],
    };
    const { body } = await ask<{ css: string }>('POST', '/api/utilities', plan);
    expect(body.css).toMatch(/\.bg-shed\s*{[^}]*rgb\(47 74 58/);
    expect(body.css).toContain('.md\\:flex');
    expect(body.css).not.toContain('not-a-class');
  });

  test.each([
    ['a program', '@plugin "node:fs";', /not run/],
    ['a file', '@import "/etc/passwd";', /did not come along/],
    ['a configuration file', '@config "./evil.js";', /not run/],
  ])('%s named by a page is not loaded', async (_, css, message) => {
    for (const isLegacy of [false, true]) {
      const { status, body } = await ask<{ message: string }>('POST', '/api/utilities', {
        config: null,
        css,
        isLegacy,
        classes: [],
      });
      expect([status, body.message]).toEqual([400, expect.stringMatching(message)]);
    }
  });

  test('sheets and icons of packages that come with Tovel', async () => {
    const asked = { name: 'bootstrap-icons', version: '1.11.0', file: 'font/bootstrap-icons.css' };
    const { body } = await ask<{ shipped: { sheet: string; files: { path: string; data: string }[] } }>(
      'POST',
      '/api/sheets',
      asked,
    );
    expect(body.shipped.sheet).toBe('font/bootstrap-icons.min.css');
    expect(Buffer.from(body.shipped.files[0].data, 'base64').subarray(0, 4).toString()).toBe('wOF2');
    expect((await ask('POST', '/api/sheets', { ...asked, name: '../../etc' })).body).toEqual({
      shipped: null,
    });
    const icons = await ask<{ drawings: object }>('POST', '/api/icons', {
      library: 'lucide',
      names: ['house', 'of-nobody'],
    });
    expect(Object.keys(icons.body.drawings)).toEqual(['house']);
    expect((await ask('POST', '/api/icons', { library: '../lucide', names: [] })).status).toBe(400);
  });

  test('programs that read text in pictures, under a policy of their own', async () => {
    const { status, headers: answer } = await ask('GET', '/ocr/program/worker.min.js');
    expect(status).toBe(200);
    expect(String(answer['content-security-policy'])).toMatch(/script-src 'self' 'wasm-unsafe-eval'/);
    expect((await ask('GET', '/ocr/core/../../package.json')).status).toBe(404);
  });
});
