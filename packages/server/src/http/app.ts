import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import compress from '@fastify/compress';
import helmet from '@fastify/helmet';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance, type FastifyReply, type FastifyServerOptions } from 'fastify';
import { documentSchema, type ErrorCode, errorStatus, limits, openApi } from '@tovel/core';
import { type Config, packageFolder } from '../config.ts';
import { compareRoutes } from '../compare/routes.ts';
import { libraryRoutes } from '../library/routes.ts';
import { deliverRoutes } from '../deliver/routes.ts';
import { historyRoutes } from '../history/routes.ts';
import { Behind } from '../history/store.ts';
import { intakeRoutes } from '../intake/routes.ts';
import { HOST_TOKEN } from '../repository/host.ts';
import { repositoryRoutes } from '../repository/routes.ts';
import { iterateRoutes } from '../iterate/routes.ts';
import { versionRoutes } from '../versions/routes.ts';
import { projectRoutes } from '../projects/routes.ts';
import { runRoutes } from '../run/routes.ts';
import { sourceRoutes } from '../sources/routes.ts';
import type { Services } from '../services.ts';
import { databaseError, HttpError } from './errors.ts';
import { guard } from './guard.ts';
import { patience } from './patience.ts';
import { publishRoutes } from '../publish/routes.ts';
import { ration } from './ration.ts';
import { route } from './route.ts';

/** What the browser needs to read text in pictures: the programs and the English data, from their packages. */
function recognitionFolders(): (readonly [prefix: string, folder: string])[] {
  const require = createRequire(path.join(packageFolder(), 'package.json'));
  const folderOf = (name: string): string => path.dirname(require.resolve(`${name}/package.json`));
  return [
    ['/ocr/program/', path.join(folderOf('tesseract.js'), 'dist')],
    ['/ocr/core/', folderOf('tesseract.js-core')],
    ['/ocr/data/', path.join(folderOf('@tesseract.js-data/eng'), '4.0.0_best_int')],
  ];
}

/** In ms. */
const LONGEST_SILENCE = 60_000;

/**
 * What a document in which pages are read may do: run its own script, and show what came along within pages. Only the application
 * has it.
 */
const readerPolicy = (port: number): string =>
  `default-src 'none'; script-src 'self'; style-src 'unsafe-inline'; img-src data: blob:; font-src data: blob:; base-uri 'none'; form-action 'none'; frame-ancestors http://127.0.0.1:${port} http://localhost:${port}`;

const say = (
  reply: FastifyReply,
  code: ErrorCode,
  message: string,
  status = errorStatus(code),
): FastifyReply => reply.code(status).send({ code, message });

/** The server of the interface and its data. */
export async function createApp(
  services: Services,
  config: Pick<Config, 'port' | 'runPort' | 'web'> &
    Partial<Pick<Config, 'allowedHosts' | 'designPort' | 'repositoryPort'>>,
  logger: FastifyServerOptions['logger'] = false,
): Promise<FastifyInstance> {
  const app = Fastify({
    logger,
    bodyLimit: 2 * 2 ** 20,
    // What is under way when the server stops is answered; connections that only wait are closed.
    forceCloseConnections: 'idle',
    return503OnClosing: false,
    requestTimeout: 60_000,
    keepAliveTimeout: 30_000,
  });
  // Somebody who sends a letter at a time holds a connection no longer than this.
  app.server.headersTimeout = 15_000;
  patience(app, LONGEST_SILENCE);
  guard(app, config.port, true);
  const run = `http://127.0.0.1:${config.runPort} http://localhost:${config.runPort}`;
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:', 'blob:'],
        connectSrc: ["'self'"],
        frameSrc: ["'self'", 'blob:', ...run.split(' '), `http://*.localhost:${config.port}`],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  });
  await app.register(compress, { threshold: 4096 });
  ration(app, services.db);
  app.addContentTypeParser(
    'application/octet-stream',
    { parseAs: 'buffer', bodyLimit: limits.projectBytes },
    (_, body, done) => done(null, body),
  );

  app.setErrorHandler((error: Error & { statusCode?: number; code?: string }, request, reply) => {
    if (error instanceof Behind) return reply.code(409).send(error.conflict);
    const known = error instanceof HttpError ? error : databaseError(error);
    if (known) {
      if (known.statusCode >= 500) request.log.error(error);
      if (known.retryAfter !== undefined) void reply.header('retry-after', String(known.retryAfter));
      return reply.code(known.statusCode).send({ code: known.code, message: known.message });
    }
    if (error.statusCode === 413)
      return say(reply, 'too-large', 'This is more than is taken at once. Bring it in in parts.');
    if (error.statusCode && error.statusCode < 500)
      return say(reply, 'invalid', error.message, error.statusCode);
    request.log.error(error);
    return say(
      reply,
      'failed',
      'Something went wrong on the server; nothing was changed. Its log says more.',
    );
  });

  route(app, 'settings', async () => ({
    runPort: config.runPort,
    designPort: config.designPort ?? null,
    repositories: config.repositoryPort
      ? { address: `http://127.0.0.1:${config.repositoryPort}`, token: HOST_TOKEN }
      : null,
  }));
  const description = JSON.stringify(openApi());
  route(app, 'openApi', ({ reply }) => reply.type('application/json').send(description));
  route(app, 'schema', ({ params, reply }) =>
    reply.type('application/schema+json').send(JSON.stringify(documentSchema(params.name))),
  );
  projectRoutes(app, services);
  historyRoutes(app, services);
  intakeRoutes(app, services);
  iterateRoutes(app, services);
  versionRoutes(app, services);
  deliverRoutes(app, services);
  repositoryRoutes(app, services);
  compareRoutes(app, services);
  libraryRoutes(app, services);
  runRoutes(app, services);
  publishRoutes(app, services);
  sourceRoutes(app, services, config.allowedHosts ?? []);

  for (const [prefix, folder] of recognitionFolders()) {
    await app.register(fastifyStatic, {
      root: folder,
      prefix,
      decorateReply: false,
      serveDotFiles: false,
      cacheControl: false,
      // Compiled code runs in the worker that reads text, and there only: its answer brings a policy of its own.
      setHeaders: (reply) => {
        void reply.header('cache-control', 'public, max-age=86400');
        void reply.header(
          'content-security-policy',
          "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'",
        );
      },
    });
  }
  if (existsSync(config.web)) {
    await app.register(fastifyStatic, {
      root: config.web,
      wildcard: false,
      setHeaders: (reply, file) => {
        void reply.header(
          'cache-control',
          /assets\//.test(file) ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
        if (path.basename(file) !== 'reader.html') return;
        void reply.removeHeader('x-frame-options');
        void reply.header('content-security-policy', readerPolicy(config.port));
      },
    });
  }
  app.setNotFoundHandler((request, reply) => {
    const isPage =
      request.method === 'GET' &&
      !request.url.startsWith('/api/') &&
      !/\.\w+$/.test(request.url.split('?')[0]) &&
      existsSync(config.web);
    if (isPage) return reply.sendFile('index.html');
    return say(reply, 'not-found', `There is nothing at ${request.url.slice(0, 200)}.`);
  });
  return app;
}
