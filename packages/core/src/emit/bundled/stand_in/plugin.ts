import { readdirSync, readFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import path from 'node:path';
import type { Connect, Plugin } from 'vite';
import { type Answer, createStandIn, type StandIn, type StandInPlan } from './answer';

/** Milliseconds that an answer takes, and whether all fail: for trying what the app makes of that. */
const DELAY = Number(process.env.API_DELAY ?? 120);
const isFailing = process.env.API_FAILS === '1';

/** Longest body that is read, in bytes. */
const MOST_BYTES = 1_000_000;

/** `/api/library/tools?page=2`: which stand-in, and what it is asked. */
const ADDRESS = /\/api\/([\w-]+)(\/[^?]*)?(?:\?(.*))?$/;

/**
 * Answers for the APIs that are described in this folder, at `/api/…` beside the app, while the environment does not say
 * where they are. What is changed is remembered while it runs.
 */
export function standIns(): Plugin {
  const running = new Map<string, StandIn>();
  for (const file of readdirSync('api').filter((name) => name.endsWith('.json'))) {
    const name = path.basename(file, '.json');
    const plan = JSON.parse(readFileSync(path.join('api', file), 'utf8')) as StandInPlan;
    running.set(name, createStandIn(plan, `/api/${name}`));
  }
  const handle: Connect.NextHandleFunction = (request, response, next) => {
    const [, name = '', asked = '/', query] = ADDRESS.exec(request.url ?? '') ?? [];
    const standIn = running.get(name);
    if (!standIn) next();
    else if (asked.startsWith('/pictures/')) sendPicture(response, asked);
    else
      void bodyOf(request).then((body) => {
        const answer = standIn.answer(
          {
            method: request.method ?? 'GET',
            path: asked,
            query: Object.fromEntries(new URLSearchParams(query)),
            body,
          },
          { isFailing },
        );
        setTimeout(() => send(response, answer), DELAY);
      });
  };
  return {
    name: 'stand-ins',
    configureServer: ({ middlewares }) => void middlewares.use(handle),
    configurePreviewServer: ({ middlewares }) => void middlewares.use(handle),
  };
}

function send(response: ServerResponse, { status, body }: Answer): void {
  response.statusCode = status;
  response.setHeader('content-type', 'application/json');
  response.end(body === undefined ? undefined : JSON.stringify(body));
}

function sendPicture(response: ServerResponse, asked: string): void {
  try {
    response.end(readFileSync(path.join('src', 'assets', path.basename(asked))));
  } catch {
    send(response, { status: 404 });
  }
}

/** What was sent, as JSON; nothing where it is none. */
async function bodyOf(request: IncomingMessage): Promise<unknown> {
  const pieces: Buffer[] = [];
  let size = 0;
  for await (const piece of request as AsyncIterable<Buffer>) {
    size += piece.length;
    if (size > MOST_BYTES) return undefined;
    pieces.push(piece);
  }
  try {
    return JSON.parse(Buffer.concat(pieces).toString('utf8')) as unknown;
  } catch {
    return undefined;
  }
}
