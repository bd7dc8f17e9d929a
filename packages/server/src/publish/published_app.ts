import compress from '@fastify/compress';
import rateLimit from '@fastify/rate-limit';
import { elementSeen, escapeText, type Note, RouteMatcher, type Seen, spoken } from '@tovel/core';
import Fastify, { type FastifyInstance, type FastifyReply, type FastifyRequest } from 'fastify';
import { number, object, string } from 'yup';
import { StandIns, triedAs } from '../run/stand_ins.ts';
import { isPass, isTicket, ticketFor } from './pass.ts';
import type { PublicationStore, PublishedFile, ShownScreen, StoredPublication } from './store.ts';

/** What one visitor may ask for in a minute: anything, notes, and guesses of a pass phrase. */
const MOST = { asked: 1200, notes: 20, guesses: 10 };
const COOKIE = 'entered';
/** How a page is asked for with notes. */
const NOTES_SCRIPT = '/_notes.js';

const newNote = object({
  path: string().max(500).matches(/^\//, 'A note needs the path that it is about.').required(),
  text: string().trim().min(1, 'Write what the note says.').max(2000).required('Write what the note says.'),
  author: string().trim().max(80).default(''),
  seen: object({
    tag: string()
      .matches(/^[a-z][a-z0-9-]{0,30}$/)
      .required(),
    says: string().max(200).defined(),
    nth: number().integer().min(0).max(100_000).required(),
    nthOfTag: number().integer().min(0).max(100_000).required(),
  })
    .required()
    .noUnknown(),
}).noUnknown();

export interface Published {
  readonly publication: StoredPublication;
  readonly files: ReadonlyMap<string, PublishedFile>;
  readonly shown: readonly ShownScreen[];
}

/**
 * Serves one published app, and nothing else: its files as they were frozen, stand-ins for the APIs that it asks, and notes.
 * @param onNote is called when somebody left one
 */
export async function createPublishedApp(
  { publication, files, shown }: Published,
  store: PublicationStore,
  notesScript: () => Promise<string>,
  onNote: () => void,
): Promise<FastifyInstance> {
  const { project, host, port, pass, title, version } = publication;
  const app = Fastify({ logger: false, bodyLimit: 16 * 1024, forceCloseConnections: true });
  await app.register(compress);
  await app.register(rateLimit, { max: MOST.asked, timeWindow: '1 minute' });
  app.addContentTypeParser('application/x-www-form-urlencoded', { parseAs: 'string' }, (_, body, done) =>
    done(null, Object.fromEntries(new URLSearchParams(body as string))),
  );
  const names = new Set([`${host}:${port}`, ...(host === '127.0.0.1' ? [`localhost:${port}`] : [])]);
  app.addHook('onRequest', async (request, reply) => {
    // A name that somebody pointed here is not this address, and no other page changes anything.
    if (!names.has(request.headers.host ?? ''))
      return reply.code(421).send('This is no address of this app.');
    const { origin } = request.headers;
    if (request.method !== 'GET' && origin !== undefined && !names.has(origin.replace(/^http:\/\//, '')))
      return reply.code(403).send('Only this app itself may do that.');
    if (pass !== null && request.url !== '/_enter' && !isTicket(ticketIn(request), pass))
      return sendPage(reply.code(401), enterPage(title, null));
    return undefined;
  });
  app.addHook('onSend', async (_, reply) => {
    void reply
      .header(
        'content-security-policy',
        "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
      )
      .header('x-content-type-options', 'nosniff')
      // A form has to say where it comes from, and other places learn nothing.
      .header('referrer-policy', 'same-origin');
  });
  app.setErrorHandler((error: Error & { statusCode?: number }, _, reply) =>
    reply
      .code(error.statusCode ?? (error.name === 'ValidationError' ? 400 : 500))
      .type('text/plain; charset=utf-8')
      .send(error.statusCode === 429 ? 'Too much was asked within a minute. Wait a moment.' : error.message),
  );

  app.post<{ Body: { phrase?: string } }>(
    '/_enter',
    { config: { rateLimit: { max: MOST.guesses, timeWindow: '1 minute' } } },
    async (request, reply) => {
      if (pass === null) return reply.redirect('/');
      if (!(await isPass(String(request.body?.phrase ?? ''), pass)))
        return sendPage(reply.code(401), enterPage(title, 'That is not the pass phrase.'));
      return reply
        .header('set-cookie', `${COOKIE}=${ticketFor(pass)}; Path=/; HttpOnly; SameSite=Strict`)
        .redirect('/');
    },
  );

  const matcher = new RouteMatcher(shown.map(({ route }) => route));
  app.get('/_notes', async () =>
    (await store.notes(project)).map(({ path, text, author, answer, settledAt, seen }) => ({
      path,
      text,
      author,
      answer,
      isSettled: settledAt !== null,
      seen,
    })),
  );
  app.post(
    '/_notes',
    { config: { rateLimit: { max: MOST.notes, timeWindow: '1 minute' } } },
    async (request, reply) => {
      const { path, text, author, seen } = newNote.validateSync(request.body);
      const at = matcher.match(path.replace(/[?#].*$/, ''));
      const place = at ? shown[at.route] : null;
      await store.addNote(project, {
        version,
        path,
        text,
        author,
        screen: place?.screen ?? null,
        element: place ? elementSeen(place.elements, { ...seen, says: spoken(seen.says) }) : null,
        seen: seen as Seen,
      } satisfies Omit<Note, 'id' | 'leftAt' | 'answer' | 'settledAt'> & { seen: Seen });
      onNote();
      return reply.code(201).send({ ok: true });
    },
  );
  app.get(NOTES_SCRIPT, async (_, reply) =>
    reply.type('text/javascript; charset=utf-8').send(await notesScript()),
  );

  const standIns = new StandIns();
  app.get<{ Params: { file: string } }>('/api/:name/pictures/:file', async (request, reply) =>
    reply.redirect(`/_assets/${encodeURIComponent(request.params.file)}`),
  );
  app.route<{ Params: { name: string; '*': string } }>({
    method: ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'],
    url: '/api/:name/*',
    handler: async (request, reply) => {
      const { name, '*': asked } = request.params;
      const plans = new Map<string, string>();
      const plan = files.get(`api/${name}.json`);
      if (plan) plans.set(name, plan.bytes.toString());
      const standIn = standIns.of(project, { standIns: plans }, name, `/api/${name}`);
      if (!standIn) return reply.code(404).send({ message: `This app asks no API “${name}”.` });
      const query = Object.fromEntries(new URL(request.url, 'http://app').searchParams);
      const answer = standIn.answer(
        { method: request.method, path: `/${asked}`, query, body: request.body },
        triedAs(undefined),
      );
      return reply
        .code(answer.status)
        .header('cache-control', 'no-store')
        .type('application/json; charset=utf-8')
        .send(answer.body === undefined ? '' : JSON.stringify(answer.body));
    },
  });

  app.get('/*', async (request: FastifyRequest, reply) => {
    const { pathname, searchParams } = new URL(request.url, 'http://app');
    const path = decodeURIComponent(pathname).slice(1);
    const file = path.startsWith('api/') || path === PAGE ? undefined : files.get(path);
    if (file) return reply.header('cache-control', 'private, max-age=60').type(file.type).send(file.bytes);
    if (/^_(app|assets|vendor)\//.test(path)) return reply.code(404).send('There is no such file.');
    const page = files.get(PAGE)!.bytes.toString();
    return sendPage(
      reply,
      searchParams.has('notes')
        ? page.replace('</head>', `<script type="module" src="${NOTES_SCRIPT}"></script></head>`)
        : page,
    );
  });
  return app;
}

const ticketIn = ({ headers }: FastifyRequest): string | undefined =>
  /(?:^|;\s*)entered=([0-9a-f]+)/.exec(headers.cookie ?? '')?.[1];

/** Where the page of an app lies among its files. */
export const PAGE = 'index.html';

const sendPage = (reply: FastifyReply, html: string): FastifyReply =>
  reply.type('text/html; charset=utf-8').header('cache-control', 'no-store').send(html);

const enterPage = (title: string, problem: string | null): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escapeText(title)}</title>
<style>
body { font: 16px/1.5 system-ui, sans-serif; color: #15211f; background: #fbfbf8; display: grid; place-content: center; min-height: 90vh; margin: 16px; }
form { display: grid; gap: 12px; width: min(320px, 90vw); }
h1 { font-size: 20px; margin: 0; }
input, button { font: inherit; padding: 8px 12px; border: 1px solid #87938c; border-radius: 0; }
button { background: #15211f; color: #fbfbf8; border-color: #15211f; cursor: pointer; }
p { margin: 0; color: #b3261e; }
</style>
</head>
<body>
<form method="post" action="/_enter">
<h1>${escapeText(title)}</h1>
<label for="phrase">Pass phrase</label>
<input id="phrase" name="phrase" type="password" autocomplete="current-password" required autofocus>
${problem ? `<p role="alert">${escapeText(problem)}</p>` : ''}
<button>Enter</button>
</form>
</body>
</html>`;
