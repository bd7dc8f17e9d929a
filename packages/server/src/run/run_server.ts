import { setTimeout as wait } from 'node:timers/promises';
import compress from '@fastify/compress';
import { bridgeScript, buildVendor, bundledPage, vendorFile } from '@tovel/renderer';
import Fastify, { type FastifyInstance } from 'fastify';
import { HttpError } from '../http/errors.ts';
import { guard } from '../http/guard.ts';
import { leftSignal } from '../http/route.ts';
import type { Services } from '../services.ts';
import { StandIns, triedAs } from './stand_ins.ts';

const TYPES: Readonly<Record<string, string>> = {
  js: 'text/javascript; charset=utf-8',
  css: 'text/css; charset=utf-8',
};

/** Serves generated apps, each under its project's id, on an origin of their own. Nothing outside is ever reached. */
export async function createRunServer(
  services: Services,
  appPort: number,
  runPort: number,
): Promise<FastifyInstance> {
  const { workshop, assets, comparing } = services;
  comparing.servedAt(`http://127.0.0.1:${runPort}`);
  const appOrigins = `http://127.0.0.1:${appPort} http://localhost:${appPort}`;
  const app = Fastify({
    logger: false,
    routerOptions: { caseSensitive: true },
    // Whoever draws a running app keeps connections open, and waits for nothing when the server ends.
    forceCloseConnections: true,
  });
  await app.register(compress);
  guard(app, runPort);
  // Ready when somebody asks for it.
  void buildVendor();
  const policy = `default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors ${appOrigins}`;
  app.addHook(
    'onSend',
    async (_, reply) =>
      void reply
        .header('content-security-policy', policy)
        // A process of its own where there is one: neither waits for the other.
        .header('origin-agent-cluster', '?1')
        .header('x-content-type-options', 'nosniff')
        .header('referrer-policy', 'no-referrer'),
  );
  app.setErrorHandler((error: Error & { statusCode?: number }, _, reply) =>
    reply
      .code(error.statusCode ?? 500)
      .type('text/plain; charset=utf-8')
      .send(error.message),
  );

  app.get<{ Params: { name: string } }>('/_vendor/:name', async (request, reply) => {
    const file = await vendorFile(request.params.name);
    if (!file) throw new HttpError('not-found', 'No such file.');
    return reply.header('cache-control', 'private, max-age=3600').type(TYPES.js).send(Buffer.from(file));
  });

  app.get('/_bridge.js', async (request, reply) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '');
    return reply
      .type(TYPES.js)
      .header('cache-control', 'no-store')
      .send(await bridgeScript(`http://${host}:${appPort}`));
  });

  // It goes no further than this machine, and comes anew after each change: pressing it takes longer than it saves.
  const isOwn = { compress: false } as const;
  type AskedFile = { Params: { id: string; name: string }; Querystring: { beyond?: string } };
  app.get<AskedFile>('/:id/_app/:name', isOwn, async (request, reply) => {
    const { id } = request.params;
    const beyond = Number(request.query.beyond);
    const left = leftSignal(reply);
    const { files, error } = await (beyond
      ? workshop.withStep(id, beyond, left)
      : workshop.current(id, left));
    const extension = request.params.name.replace(/^.*\./, '');
    void reply.header('cache-control', 'no-store').type(TYPES[extension] ?? 'text/plain');
    if (error && extension === 'js')
      return reply.send(
        `document.body.textContent = ${JSON.stringify(`This app does not build: ${error}`)};`,
      );
    return reply.send(Buffer.from(files.get(request.params.name) ?? ''));
  });

  app.get<{ Params: { id: string; name: string } }>('/:id/_assets/:name', async (request, reply) => {
    const built = await workshop.current(request.params.id, leftSignal(reply));
    const hash = built.assets.get(request.params.name);
    if (!hash) throw new HttpError('not-found', 'No such picture.');
    const { type, bytes } = await assets.get(hash);
    return reply.header('cache-control', 'private, max-age=31536000, immutable').type(type).send(bytes);
  });

  const standIns = new StandIns();
  app.get<{ Params: { id: string; name: string; file: string } }>(
    '/:id/api/:name/pictures/:file',
    async (request, reply) => reply.redirect(`/${request.params.id}/_assets/${request.params.file}`),
  );
  app.delete<{ Params: { id: string } }>('/:id/api', async (request, reply) => {
    standIns.reset(request.params.id);
    return reply.code(204).send();
  });
  app.route<{ Params: { id: string; name: string; '*': string } }>({
    method: ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'],
    url: '/:id/api/:name/*',
    handler: async (request, reply) => {
      const { id, name, '*': asked } = request.params;
      const built = await workshop.current(id, leftSignal(reply));
      const standIn = standIns.of(id, built, name);
      if (!standIn) throw new HttpError('not-found', `This app asks no API “${name}”.`);
      const { delay, ...mood } = triedAs(request.headers['x-tried']);
      const query = Object.fromEntries(new URL(request.url, 'http://run').searchParams);
      const answer = standIn.answer(
        { method: request.method, path: `/${asked}`, query, body: request.body },
        mood,
      );
      await wait(delay, null, { signal: leftSignal(reply) }).catch(() => {});
      return reply
        .code(answer.status)
        .header('cache-control', 'no-store')
        .header('x-operation', encodeURIComponent(answer.operation ?? ''))
        .type('application/json; charset=utf-8')
        .send(answer.body === undefined ? '' : JSON.stringify(answer.body));
    },
  });

  app.get<{ Params: { id: string } }>('/:id', async (request, reply) =>
    reply.redirect(`/${request.params.id}/`),
  );
  app.get<{ Params: { id: string } }>('/:id/*', async (request, reply) => {
    const { page } = await workshop.current(request.params.id, leftSignal(reply));
    const bridge = '<script type="module" src="/_bridge.js"></script>';
    const html = bundledPage(page, `/${request.params.id}/`, bridge);
    return reply.type('text/html; charset=utf-8').header('cache-control', 'no-store').send(html);
  });
  return app;
}
