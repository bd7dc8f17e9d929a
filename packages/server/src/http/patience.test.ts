import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { connect } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import Fastify, { type FastifyInstance } from 'fastify';
import { patience } from './patience.ts';

const SILENCE = 150;
let app: FastifyInstance;
let port: number;

beforeAll(async () => {
  app = Fastify();
  patience(app, SILENCE);
  app.post('/slow', async ({ body }) => {
    await wait(SILENCE * 4);
    return { body };
  });
  await app.listen({ host: '127.0.0.1', port: 0 });
  port = (app.server.address() as AddressInfo).port;
});
afterAll(() => app.close());

/** @returns what comes back, or the code of what went wrong */
const ask = (): Promise<string> =>
  new Promise((resolve) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        path: '/slow',
        method: 'POST',
        headers: { 'content-type': 'application/json' },
      },
      (answer) => {
        let text = '';
        answer.on('data', (part: Buffer) => (text += part.toString()));
        answer.on('end', () => resolve(text));
      },
    );
    asked.on('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
    asked.end('{"a":1}');
  });

test('what takes long to be worked out is waited for', async () => {
  expect(await ask()).toBe('{"body":{"a":1}}');
});

test('who says nothing more in the middle of a request is let go', async () => {
  const socket = connect(port, '127.0.0.1');
  const closed = new Promise<string>((resolve) => socket.once('close', () => resolve('closed')));
  socket.on('error', () => {});
  socket.write(
    'POST /slow HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 9\r\n\r\n{"a"',
  );
  expect(await closed).toBe('closed');
});
