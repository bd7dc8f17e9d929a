import http from 'node:http';
import { type Note, type ProjectState, type PublicationAnswer, readSvg } from '@tovel/core';
import { startTestApp, type TestApp } from '../testing/app.ts';

const PORT = 4993;
let app: TestApp['app'];
let services: TestApp['services'];
let stop: TestApp['stop'];

beforeAll(async () => {
  ({ app, services, stop } = await startTestApp(PORT));
  await services.publisher.open(PORT + 10);
});
afterAll(() => stop());

async function ask<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', url: string, body?: object) {
  const response = await app.inject({
    method,
    url,
    headers: { host: `127.0.0.1:${PORT}` },
    ...(body ? { payload: body } : {}),
  });
  return { status: response.statusCode, body: (response.body ? response.json() : null) as T };
}

const drawn = (label: string) =>
  readSvg({
    file: 'home.svg',
    text: `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844"><g id="a" data-name="Button"><rect x="20" y="40" width="300" height="44" fill="#234"/><text x="40" y="66">${label}</text></g></svg>`,
    screenKey: 'home',
    asset: () => null,
  }).screen!;

async function project(label = 'Borrow'): Promise<string> {
  const { body } = await ask<ProjectState>('POST', '/api/projects', { name: 'Desk' });
  await ask('POST', `/api/projects/${body.id}/intake`, {
    base: 0,
    screens: [drawn(label)],
    assets: [],
    notices: [],
  });
  return body.id;
}

const wanted = { title: 'The <desk>', version: '1', host: '127.0.0.1' };
const publish = (id: string, more: object = {}) =>
  ask<PublicationAnswer>('POST', `/api/projects/${id}/publication`, { ...wanted, ...more });
const addressIn = ({ body }: { body: PublicationAnswer }): string => body.publication!.address;

test('an app is frozen under an address of its own, published anew there, taken back, and served again after a restart', async () => {
  const id = await project();
  const first = await publish(id);
  expect(first.body.publication).toMatchObject({ number: 1, isOpen: true, hasPass: false, problem: null });
  expect(first.body.publication!.code).toContain('<svg');
  const address = addressIn(first);
  const page = await fetch(`${address}some/where`);
  expect(page.headers.get('content-security-policy')).toContain("default-src 'none'; script-src 'self'");
  expect(await page.text()).toContain('<title>The &lt;desk&gt;</title>');
  const code = await (await fetch(`${address}_app/app.js`)).text();
  expect(code).toContain('Borrow');
  expect((await fetch(`${address}_vendor/react.js`)).status).toBe(200);
  expect((await fetch(`${address}_app/other.js`)).status).toBe(404);

  // What is published stays as it was, whatever the project becomes.
  const { app: document, history } = (await ask<ProjectState>('GET', `/api/projects/${id}`)).body;
  const key = Object.keys(document.screens)[0];
  await ask('POST', `/api/projects/${id}/changes`, {
    base: history.seq,
    label: 'Another name',
    change: { kind: 'put', table: 'screens', key, value: { ...document.screens[key], route: '/moved' } },
  });
  expect(await (await fetch(`${address}_app/app.js`)).text()).toBe(code);
  const second = await publish(id, { version: '2' });
  expect(second.body.publication).toMatchObject({ number: 2, version: '2', address });
  expect(await (await fetch(`${address}_app/app.js`)).text()).toContain('/moved');

  await services.publisher.close();
  await expect(fetch(address)).rejects.toThrow();
  await services.publisher.open(PORT + 10);
  expect((await fetch(address)).status).toBe(200);

  expect((await ask('DELETE', `/api/projects/${id}/publication`)).status).toBe(204);
  await expect(fetch(address)).rejects.toThrow();
  expect(
    (await ask<PublicationAnswer>('GET', `/api/projects/${id}/publication`)).body.publication,
  ).toMatchObject({
    isOpen: false,
    address,
  });
});

test('each app has an origin of its own, and an address that this machine has not is refused', async () => {
  const [one, two] = [await publish(await project()), await publish(await project())];
  expect(new URL(addressIn(one)).origin).not.toBe(new URL(addressIn(two)).origin);
  const refused = await ask<{ message: string }>('POST', `/api/projects/${await project()}/publication`, {
    ...wanted,
    host: '203.0.113.9',
  });
  expect([refused.status, refused.body.message]).toEqual([
    422,
    'This machine has no address 203.0.113.9. Choose one of those that are offered.',
  ]);
});

test('a pass phrase is asked for before anything is seen, kept from one release to the next, and guessed at only so often', async () => {
  const id = await project();
  const address = addressIn(await publish(id, { pass: 'open sesame' }));
  for (const path of ['', '_app/app.js', '_notes', 'index.html'])
    expect((await fetch(address + path)).status).toBe(401);
  const enter = (phrase: string) =>
    fetch(`${address}_enter`, { method: 'POST', body: new URLSearchParams({ phrase }), redirect: 'manual' });
  expect(await (await enter('wrong')).text()).toContain('That is not the pass phrase.');
  const entered = await enter('open sesame');
  const cookie = entered.headers.get('set-cookie')!;
  expect([entered.status, cookie]).toEqual([302, expect.stringMatching(/HttpOnly; SameSite=Strict/)]);
  const headers = { cookie: cookie.split(';')[0] };
  expect((await fetch(address, { headers })).status).toBe(200);
  await publish(id, { version: '2' });
  expect((await fetch(address)).status).toBe(401);
  expect((await fetch(address, { headers })).status).toBe(200);
  // Another phrase makes what browsers keep worthless.
  await publish(id, { pass: 'another one' });
  expect((await fetch(address, { headers })).status).toBe(401);
  const guesses = await Promise.all(Array.from({ length: 14 }, () => enter('guess')));
  expect(guesses.map(({ status }) => status)).toContain(429);
  await publish(id, { pass: null });
  expect((await fetch(address)).status).toBe(200);
});

test('a name that was pointed at it, and a page of another origin, are refused', async () => {
  const address = new URL(addressIn(await publish(await project())));
  const status = await new Promise<number | undefined>((resolve, reject) => {
    http
      .get({ host: address.hostname, port: address.port, headers: { host: 'evil.example' } }, (response) => {
        response.resume();
        resolve(response.statusCode);
      })
      .on('error', reject);
  });
  expect(status).toBe(421);
  const foreign = await fetch(`${address.href}_notes`, {
    method: 'POST',
    headers: { origin: 'http://evil.example', 'content-type': 'application/json' },
    body: '{}',
  });
  expect(foreign.status).toBe(403);
});

test('a note comes to its element, is answered and settled, and stays when the app is published anew', async () => {
  const id = await project();
  const address = addressIn(await publish(id));
  expect(await (await fetch(`${address}?notes`)).text()).toContain('/_notes.js');
  expect(await (await fetch(address)).text()).not.toContain('/_notes.js');
  expect(await (await fetch(`${address}_notes.js`)).text()).toContain('Leave a note');
  const leave = (note: object) =>
    fetch(`${address}_notes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(note),
    });
  const seen = { tag: 'button', says: 'Borrow', nth: 0, nthOfTag: 0 };
  expect((await leave({ path: '/', text: ' Too small ', author: 'Ada', seen })).status).toBe(201);
  expect((await leave({ path: '/gone', text: 'Where is this?', seen: { ...seen, says: '?' } })).status).toBe(
    201,
  );
  const refused = await leave({ path: '/', text: '', seen });
  expect([refused.status, await refused.text()]).toEqual([400, 'Write what the note says.']);
  const notes = (await ask<Note[]>('GET', `/api/projects/${id}/notes`)).body;
  expect(notes).toMatchObject([
    { text: 'Where is this?', author: '', screen: null, element: null },
    { text: 'Too small', author: 'Ada', screen: 'home', element: 'home:0', version: '1', settledAt: null },
  ]);
  const url = `/api/projects/${id}/notes/${notes[1].id}`;
  expect((await ask('PUT', url, { answer: 'Larger now', isSettled: true })).status).toBe(204);
  expect((await ask('PUT', `/api/projects/${id}/notes/999999`, { isSettled: true })).status).toBe(404);
  await publish(id, { version: '2' });
  const shown = (await (await fetch(`${address}_notes`)).json()) as object[];
  expect(shown[1]).toMatchObject({ text: 'Too small', answer: 'Larger now', isSettled: true });
  const many = await Promise.all(Array.from({ length: 30 }, () => leave({ path: '/', text: 'x', seen })));
  expect(many.map(({ status }) => status)).toContain(429);
});
