import { type CodeDelivery, type ProjectState, readSvg } from '@tovel/core';
import { startTestApp, type TestApp } from '../testing/app.ts';

const PORT = 4973;
let app: TestApp['app'];
let stop: TestApp['stop'];

beforeAll(async () => {
  ({ app, stop } = await startTestApp(PORT));
});
afterAll(() => stop());

const ask = (method: 'GET' | 'POST' | 'PATCH', url: string, body?: object) =>
  app.inject({ method, url, headers: { host: `127.0.0.1:${PORT}` }, ...(body ? { payload: body } : {}) });

const screen = readSvg({
  file: 'home.svg',
  text: '<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844"><text x="40" y="66">Borrow</text></svg>',
  screenKey: 'home',
  asset: () => null,
}).screen!;

test('the whole code is remembered to be handed over, once for what it was, and nothing else is', async () => {
  const { id } = (await ask('POST', '/api/projects', { name: 'Desk' })).json<ProjectState>();
  const url = `/api/projects/${id}`;
  const handedOver = async () =>
    (await ask('GET', `${url}/deliveries`))
      .json<CodeDelivery[]>()
      .map(({ kind, name, seq }) => `${kind} ${name} ${seq}`);
  await ask('POST', `${url}/intake`, { base: 0, screens: [screen], assets: [], notices: [] });
  expect(await handedOver()).toEqual([]);
  // A part, and what is only tried.
  const part = await ask('GET', `${url}/code.zip?only=${encodeURIComponent('src/screens/Home/Home.tsx')}`);
  expect(part.statusCode).toBe(200);
  expect((await ask('GET', `${url}/code.zip?target=vue`)).statusCode).toBe(200);
  expect(await handedOver()).toEqual([]);
  await ask('GET', `${url}/code.zip`);
  await ask('GET', `${url}/code.zip?target=react`);
  expect(await handedOver()).toEqual(['zip Desk 1']);
  // Under another name the code is another one.
  await ask('PATCH', url, { name: 'Front desk' });
  await ask('GET', `${url}/code.zip`);
  expect(await handedOver()).toEqual(['zip Front desk 1', 'zip Desk 1']);
});

test('of a project that is not there nothing was handed over', async () => {
  expect((await ask('GET', '/api/projects/aaaaaaaaaaaa/deliveries')).statusCode).toBe(404);
});
