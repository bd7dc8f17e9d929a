import { existsSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import Fastify, { type FastifyInstance } from 'fastify';
import { guard } from '../http/guard.ts';
import { folderFiles } from '../demo/folder_files.ts';
import { hashOf, packZip, typeOfFile } from '@tovel/core';

/**
 * A stand-in for the service that a design team would share its screens from: on loopback, it serves the demo's
 * iterations as zips and as single files, and the description of its API, with ETags, so that bringing in by link and
 * refreshing can be tried.
 */
export function createDesignHost(folder: string): FastifyInstance {
  const app = Fastify({ logger: false });
  guard(app);
  app.setErrorHandler((error: Error & { statusCode?: number }, _, reply) =>
    reply
      .code(error.statusCode ?? 500)
      .type('text/plain; charset=utf-8')
      .send(error.message),
  );
  const iterations = async (): Promise<string[]> =>
    (await readdir(folder, { withFileTypes: true }))
      .filter((entry) => entry.isDirectory() && /^iteration-\d+$/.test(entry.name))
      .map((entry) => entry.name)
      .sort((a, b) => Number(a.slice(10)) - Number(b.slice(10)));

  app.get('/', async (_, reply) => {
    const names = await iterations();
    const list = names.map((name) => `<li><a href="/mossgate/${name}.zip">${name}.zip</a></li>`).join('');
    return reply
      .type('text/html; charset=utf-8')
      .send(
        `<!doctype html><title>Shared designs</title><h1>Mossgate Tool Library</h1><ul>${list}<li><a href="/mossgate/latest.zip">latest.zip</a></li></ul>`,
      );
  });

  app.get('/mossgate/openapi.yaml', async (request, reply) => {
    const bytes = new Uint8Array(await readFile(path.join(folder, 'openapi.yaml')));
    return sendWithTag(request.headers['if-none-match'], reply, bytes, 'application/yaml');
  });

  app.get<{ Params: { name: string } }>('/mossgate/:name', async (request, reply) => {
    const names = await iterations();
    const wanted = request.params.name.replace(/\.zip$/, '');
    const name = wanted === 'latest' ? names.at(-1) : names.find((known) => known === wanted);
    if (!name) return reply.code(404).send('There is no such iteration.');
    return sendWithTag(
      request.headers['if-none-match'],
      reply,
      packZip(await folderFiles(path.join(folder, name))),
      'application/zip',
    );
  });

  app.get<{ Params: { name: string; '*': string } }>('/mossgate/:name/*', async (request, reply) => {
    const root = path.join(folder, request.params.name);
    const file = path.resolve(root, request.params['*']);
    const isInside = (await iterations()).includes(request.params.name) && file.startsWith(root + path.sep);
    if (!isInside || !existsSync(file)) return reply.code(404).send('There is no such file.');
    return sendWithTag(
      request.headers['if-none-match'],
      reply,
      new Uint8Array(await readFile(file)),
      typeOfFile(file),
    );
  });
  return app;
}

function sendWithTag(
  known: string | undefined,
  reply: {
    header(n: string, v: string): unknown;
    code(n: number): { send(v?: unknown): unknown };
    type(t: string): { send(v: unknown): unknown };
  },
  bytes: Uint8Array,
  type: string,
): unknown {
  const tag = `"${hashOf(bytes).slice(0, 32)}"`;
  reply.header('etag', tag);
  return known === tag ? reply.code(304).send() : reply.type(type).send(Buffer.from(bytes));
}
