import { randomUUID } from 'node:crypto';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { hashOf, kindOfFile, newSource, packZip } from '@tovel/core';
import { check } from '../http/check.ts';
import { HttpError } from '../http/errors.ts';
import type { Services } from '../services.ts';
import { type Fetched, FetchError, type FetchOptions, fetchSafely } from './fetch_safely.ts';
import { fileNameOf, withItsFiles } from './page_files.ts';
import type { StoredSource } from './store.ts';

type WithId = { Params: { id: string } };
type WithSource = { Params: { id: string; source: string } };

/**
 * Screens by link. An answer carries the files as a zip, which the browser reads like any other; the source is kept
 * only once that has been taken in (`confirm`), so that a batch that fails can be fetched again.
 */
export function sourceRoutes(
  app: FastifyInstance,
  { sources, projects }: Services,
  allowed: readonly string[],
): void {
  const waiting = new Map<string, Omit<StoredSource, 'id'>>();

  const bring = async (address: string, options: Omit<FetchOptions, 'allowed'> = {}) => {
    let fetched: Fetched;
    try {
      fetched = await fetchSafely(address, { ...options, allowed });
      if (fetched.status === 304) return null;
      const name = fileNameOf(fetched);
      const kind = kindOfFile(name);
      const isWhole = kind === 'project' || kind === 'archive';
      const bytes = isWhole
        ? fetched.bytes
        : packZip(
            kind === 'html'
              ? await withItsFiles(fetched, { allowed })
              : [{ path: name.replace(/^.*\//, ''), bytes: fetched.bytes }],
          );
      const hash = hashOf(fetched.bytes);
      const ticket = randomUUID();
      waiting.set(ticket, {
        address,
        etag: fetched.etag,
        modified: fetched.modified,
        hash,
        fetchedAt: new Date(),
      });
      if (waiting.size > 200) waiting.delete(waiting.keys().next().value!);
      return { ticket, hash, kind: kind === 'project' ? 'project' : 'files', bytes };
    } catch (error) {
      if (error instanceof FetchError) throw new HttpError('fetch-failed', error.message);
      throw error;
    }
  };

  const send = (
    reply: FastifyReply,
    made: { ticket: string; kind: string; bytes: Uint8Array },
  ): FastifyReply =>
    reply
      .header('x-ticket', made.ticket)
      .header('x-kind', made.kind)
      .type('application/octet-stream')
      .send(Buffer.from(made.bytes));

  app.get<WithId>('/api/projects/:id/sources', (request) => sources.list(request.params.id));

  app.post<WithId>('/api/projects/:id/sources', async (request, reply) => {
    await projects.read(request.params.id);
    const made = await bring(check(newSource, request.body).address.trim());
    return send(reply, made!);
  });

  /** 204 when the source says, or its bytes show, that nothing has changed. */
  app.post<WithSource>('/api/projects/:id/sources/:source/refresh', async (request, reply) => {
    const { id, source } = request.params;
    const known = await sources.get(id, Number(source));
    const made = await bring(known.address, { etag: known.etag, modified: known.modified });
    if (!made || (made.hash === known.hash && !/\.x?html?$/i.test(new URL(known.address).pathname))) {
      await sources.keep(id, { ...known, fetchedAt: new Date() });
      return reply.code(204).send();
    }
    return send(reply, made);
  });

  app.post<{ Params: { id: string; ticket: string } }>(
    '/api/projects/:id/sources/:ticket/confirm',
    async (request, reply) => {
      const source = waiting.get(request.params.ticket);
      if (!source) throw new HttpError('not-found', 'This source was fetched too long ago. Fetch it again.');
      waiting.delete(request.params.ticket);
      await sources.keep(request.params.id, source);
      return reply.code(204).send();
    },
  );

  app.delete<WithSource>('/api/projects/:id/sources/:source', async (request, reply) => {
    await sources.forget(request.params.id, Number(request.params.source));
    return reply.code(204).send();
  });
}
