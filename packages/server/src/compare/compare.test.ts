import {
  applyChange,
  type App,
  type ComparisonAnswer,
  type ComparisonScore,
  type Design,
  emptyApp,
  emptyDesign,
  hashOf,
  putEdit,
  readBatch,
  type HeardAnswer,
  type SweepKept,
  type SweptAnswer,
  takeIn,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import type { FastifyInstance } from 'fastify';
import { createRunServer } from '../run/run_server.ts';
import { startTestApp, type TestApp } from '../testing/app.ts';

const PORT = 4931;
const PAGE = `<!doctype html><html><head><title>Shed</title><style>
body{margin:0;font:16px sans-serif;color:#15211f;background:#fff}
h1{font-size:30px;margin:24px}
p{margin:24px;width:520px}
</style></head><body><h1>The shed</h1><p>Two saws and a drill.</p></body></html>`;

let testApp: TestApp;
let run: FastifyInstance;
let id: string;
let app: App;
let design: Design;

beforeAll(async () => {
  testApp = await startTestApp(PORT);
  const { services } = testApp;
  run = await createRunServer(services, PORT, PORT + 1);
  await run.listen({ host: '127.0.0.1', port: PORT + 1 });
  const host = new HeadlessHost();
  const bytes = new TextEncoder().encode(PAGE);
  const read = await readBatch([{ path: 'shed.html', bytes }], host);
  await host.close();
  design = { ...emptyDesign, screens: [...read.screens], assets: [...read.assets] };
  await services.assets.put(hashOf(bytes), 'text/html', bytes);
  app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  id = await services.projects.create('Compared', design, app);
});
afterAll(async () => {
  await run.close();
  await testApp.stop();
});

const headers = { host: `127.0.0.1:${PORT}` };
async function ask<T>(
  method: 'GET' | 'POST',
  url: string,
  payload?: object,
): Promise<{ status: number; body: T }> {
  const answer = await testApp.app.inject({ method, url, headers, ...(payload ? { payload } : {}) });
  return { status: answer.statusCode, body: answer.json<T>() };
}
const compare = (width: number, more: object = {}) =>
  ask<ComparisonAnswer>('POST', `/api/projects/${id}/comparisons`, { drawing: 'shed', width, ...more });

test('what runs is held against its source, with pictures, and is kept as a score', async () => {
  const { status, body } = await compare(640);
  expect(status).toBe(200);
  expect(body).toMatchObject({ percent: 0, causes: [], problems: [], view: { screen: 'shed', width: 640 } });
  const picture = await testApp.app.inject({ url: `/api/compared/${body.pictures.running}`, headers });
  expect(picture.headers['content-type']).toBe('image/png');
  expect(picture.rawPayload.subarray(1, 4).toString()).toBe('PNG');
  const { body: scores } = await ask<ComparisonScore[]>('GET', `/api/projects/${id}/comparisons`);
  expect(scores).toMatchObject([{ screen: 'shed', width: 640, percent: 0, causes: 0, reference: 'source' }]);
}, 60_000);

test('a step is seen in pixels and told as a decision; against the version before it, it is a cause', async () => {
  const heading = design.screens[0].root.children[0];
  const change = putEdit(`${heading.key}||font-size`, '20px');
  const sent = await ask('POST', `/api/projects/${id}/changes`, { base: 0, label: 'Smaller', change });
  expect(sent.status).toBe(200);
  const { body: now } = await compare(640);
  expect(now.percent).toBeGreaterThan(0);
  expect(now.causes[0]).toMatchObject({
    says: 'font-size 20 px, was 30 px',
    element: heading.key,
    isDecided: true,
    sets: { 'font-size': '30px' },
  });
  const { body: before } = await compare(640, { version: 0 });
  expect(before.causes[0]).toMatchObject({ says: 'font-size 20 px, was 30 px' });
}, 60_000);

test('a sweep says at which widths something sticks out', async () => {
  const { status, body } = await ask<SweptAnswer>('POST', `/api/projects/${id}/sweeps`, { screen: 'shed' });
  expect(status).toBe(200);
  const overflow = body.faults.find(({ kind }) => kind === 'overflow');
  expect(overflow).toMatchObject({ name: 'Two saws and a drill.', widths: [320, 400, 480] });
  const { body: kept } = await ask<SweepKept[]>('GET', `/api/projects/${id}/sweeps`);
  expect(kept).toMatchObject([{ screen: 'shed', seq: 1, faults: body.faults }]);
  // Seventeen layouts, while all cores may be busy with other tests.
}, 180_000);

test('a screen is listened to once, and again when something changed', async () => {
  const listen = () =>
    ask<HeardAnswer>('POST', `/api/projects/${id}/listenings`, { screen: 'shed', width: 640 });
  const { status, body } = await listen();
  expect(status).toBe(200);
  expect(body).toMatchObject({ width: 640, stops: [] });
  expect((await testApp.app.inject({ url: `/api/compared/${body.picture}`, headers })).statusCode).toBe(200);
  expect((await listen()).body.picture).toBe(body.picture);
  const gone = await ask<{ message: string }>('POST', `/api/projects/${id}/listenings`, {
    screen: 'nothing',
    width: 640,
  });
  expect([gone.status, gone.body.message]).toEqual([404, expect.stringMatching(/no such screen/)]);
}, 60_000);

test.each([
  [{ drawing: 'nothing', width: 640 }, 404, /nothing to compare with/],
  [{ drawing: 'shed', width: 640, reference: 'picture' }, 422, /No picture came along/],
  [{ drawing: 'shed', width: 5 }, 400, /width/],
])('%j is refused in words', async (payload, status, says) => {
  const answer = await ask<{ message: string }>('POST', `/api/projects/${id}/comparisons`, payload);
  expect([answer.status, answer.body.message]).toEqual([status, expect.stringMatching(says)]);
});

test('a picture that is not kept is said', async () => {
  const { status } = await ask('GET', `/api/compared/${'a'.repeat(64)}`);
  expect(status).toBe(404);
});

test.each(['pages', 'vue'])(
  'what runs is held against what it is as %s, with what was decided',
  async (reference) => {
    const { status, body } = await compare(640, { reference });
    expect(status).toBe(200);
    expect(body).toMatchObject({ percent: 0, causes: [], problems: [] });
  },
  60_000,
);
