import {
  type ChangeResult,
  type Conflict,
  type ProjectState,
  pressTo,
  putInteraction,
  readSvg,
} from '@tovel/core';
import { startTestApp, type TestApp } from '../testing/app.ts';

const PORT = 4997;
let app: TestApp['app'];
let stop: TestApp['stop'];

beforeAll(async () => {
  ({ app, stop } = await startTestApp(PORT));
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

const drawn = (...labels: string[]) =>
  readSvg({
    file: 'home.svg',
    text: `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844">${labels
      .map(
        (label, i) =>
          `<g id="${label}" data-name="Button"><rect x="20" y="${40 + 60 * i}" width="300" height="44" fill="#234"/><text x="40" y="${66 + 60 * i}">${label}</text></g>`,
      )
      .join('')}</svg>`,
    screenKey: 'home',
    asset: () => null,
  }).screen!;
const read = (...labels: string[]) => ({ screens: [drawn(...labels)], assets: [], notices: [] });

/** A project of one screen whose “Browse” leads outside. */
async function wired(): Promise<{ id: string; browse: string }> {
  const { body: made } = await ask<{ id: string }>('POST', '/api/projects', { name: 'Rounds' });
  await ask('POST', `/api/projects/${made.id}/intake`, { base: 0, ...read('Browse', 'Loans') });
  const { body } = await ask<ProjectState>('GET', `/api/projects/${made.id}`);
  const browse = body.design.screens[0].root.children[0].key;
  await ask('POST', `/api/projects/${made.id}/changes`, {
    base: 1,
    label: 'Wire',
    change: putInteraction(browse, pressTo({ kind: 'external', href: 'https://example.org/' })),
  });
  return { id: made.id, browse };
}

test('a round waits, changes nothing, is taken in as one step with its answers, and is taken back', async () => {
  const { id, browse } = await wired();
  const path = `/api/projects/${id}`;
  expect((await ask<{ round: null }>('GET', `${path}/round`)).body).toEqual({ round: null });
  expect((await ask('PUT', `${path}/round`, { ...read('Loans', 'Discover'), whole: true })).status).toBe(204);
  expect((await ask('GET', `${path}/round`)).body).toMatchObject({ round: { screens: 1, whole: true } });
  const before = (await ask<ProjectState>('GET', path)).body;
  expect(before.history.seq).toBe(2);
  const { body: held } = await ask<{ read: { screens: (typeof before)['design']['screens'] } }>(
    'GET',
    `${path}/round/read`,
  );
  const discover = held.read.screens[0].root.children[1].key;
  const taken = await ask<ChangeResult & Conflict>('POST', `${path}/round/take`, {
    base: 2,
    id: 'take-the-round',
    whole: true,
    answers: { [browse]: { kind: 'on', element: discover } },
  });
  expect([taken.status, taken.body.entry.seq]).toEqual([200, 3]);
  const after = (await ask<ProjectState>('GET', path)).body;
  expect(after.design.screens[0].root.children.map(({ name }) => name)).toHaveLength(2);
  expect(after.app.interactions[browse]).toBeDefined();
  expect((await ask('GET', `${path}/round`)).body).toEqual({ round: null });
  expect((await ask('GET', `${path}/round/read`)).status).toBe(404);
  expect((await ask('POST', `${path}/undo`, { base: 3 })).status).toBe(200);
  const undone = (await ask<ProjectState>('GET', path)).body;
  expect([undone.design, undone.app]).toEqual([before.design, before.app]);
});

test('a round that is put away is gone, and another one takes the place of one that waits', async () => {
  const { id } = await wired();
  const path = `/api/projects/${id}/round`;
  await ask('PUT', path, { ...read('Loans'), whole: false });
  await ask('PUT', path, { ...read('Loans', 'Help', 'More'), whole: true });
  expect((await ask('GET', path)).body).toMatchObject({ round: { whole: true } });
  expect((await ask('DELETE', path)).status).toBe(204);
  expect((await ask('GET', path)).body).toEqual({ round: null });
});

test.each([
  ['a screen that is none', { ...read('A'), screens: [{ key: 'x' }] }, 400],
  [
    'a file that did not arrive',
    { ...read('A'), assets: [{ hash: 'a'.repeat(64), type: 'image/png', size: 1, file: 'a.png' }] },
    404,
  ],
])('%s is refused, and what waits stays', async (_, body, status) => {
  const { id } = await wired();
  const path = `/api/projects/${id}/round`;
  await ask('PUT', path, { ...read('Loans'), whole: false });
  expect((await ask('PUT', path, { ...body, whole: false })).status).toBe(status);
  expect((await ask('GET', path)).body).toMatchObject({ round: { screens: 1 } });
});

test.each([
  ['no answers', { whole: true }],
  ['answers of no kind', { whole: true, answers: { 'home:0': { kind: 'eat' } } }],
  ['no word on what came in', { answers: {} }],
])('%s: said, and nothing is taken in', async (_, body) => {
  const { id } = await wired();
  await ask('PUT', `/api/projects/${id}/round`, { ...read('Loans'), whole: true });
  expect((await ask('POST', `/api/projects/${id}/round/take`, { base: 2, ...body })).status).toBe(400);
  expect((await ask<ProjectState>('GET', `/api/projects/${id}`)).body.history.seq).toBe(2);
});
