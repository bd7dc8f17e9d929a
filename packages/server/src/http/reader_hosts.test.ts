import { mkdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { FastifyInstance } from 'fastify';
import { startTestApp, type TestApp } from '../testing/app.ts';
import { createApp } from './app.ts';

const PORT = 4996;
let started: TestApp;
let app: FastifyInstance;

beforeAll(async () => {
  started = await startTestApp(PORT);
  const web = path.join(started.folder, 'web');
  await mkdir(path.join(web, 'assets'), { recursive: true });
  for (const file of ['index.html', 'reader.html', 'assets/reader.js'])
    await writeFile(path.join(web, file), file);
  app = await createApp(started.services, { port: PORT, runPort: PORT + 1, web });
});
afterAll(async () => {
  await app.close();
  await started.stop();
});

test.each([
  ['the document in which pages are read', 'GET', '/reader.html', 200],
  ['its script', 'GET', '/assets/reader.js', 200],
  ['another document', 'GET', '/index.html', 421],
  ['the application', 'GET', '/', 421],
  ['data', 'GET', '/api/projects', 421],
  ['what is beside its script', 'GET', '/assets/%2e%2e/index.html', 421],
  ['a change', 'POST', '/api/projects', 421],
] as const)('a host in which pages are read is asked for %s', async (_, method, url, status) => {
  const host = `reader-2.localhost:${PORT}`;
  expect((await app.inject({ method, url, headers: { host } })).statusCode).toBe(status);
});

test.each(['reader-2.localhost:80', `reader.localhost:${PORT}`, `reader-2.localhost.evil.example:${PORT}`])(
  'nothing is read at %s',
  async (host) => {
    const answer = await app.inject({ method: 'GET', url: '/reader.html', headers: { host } });
    expect(answer.statusCode).toBe(421);
  },
);

test('only the application has the document in a frame, and it may do little', async () => {
  const headers = { host: `reader-1.localhost:${PORT}` };
  const { headers: said } = await app.inject({ method: 'GET', url: '/reader.html', headers });
  expect(said['x-frame-options']).toBeUndefined();
  expect(said['content-security-policy']).toMatch(
    new RegExp(
      `^default-src 'none'; script-src 'self';.*frame-ancestors http://127.0.0.1:${PORT} http://localhost:${PORT}$`,
    ),
  );
});
