import type { FastifyInstance, FastifyReply } from 'fastify';
import { hashOf, kindOfFile, packZip } from '@tovel/core';
import { HttpError } from '../http/errors.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';
import { type Fetched, FetchError, type FetchOptions, fetchSafely } from './fetch_safely.ts';
import { fileNameOf, withItsFiles } from './page_files.ts';

/**
 * Screens by link. An answer carries the files as a zip, which the browser reads like any other; the source is kept
 * only once that has been taken in (`confirm`), so that a batch that fails can be fetched again.
 */
export function sourceRoutes(
  app: FastifyInstance,
  { sources, projects, tickets }: Services,
  allowed: readonly string[],
): void {
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
      const ticket = await tickets.give({
        address,
        etag: fetched.etag,
        modified: fetched.modified,
        hash,
        fetchedAt: new Date(),
      });
      return { ticket, hash, kind: kind === 'project' ? 'project' : 'files', bytes };
    } catch (error) {
      throw asAnswer(error);
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

  route(app, 'sources', async ({ params }) => {
    await projects.require(params.id);
    return sources.list(params.id);
  });

  route(app, 'addSource', async ({ params, body, reply }) => {
    await projects.require(params.id);
    return send(reply, (await bring(body.address.trim()))!);
  });

  // Servers call such documents by many types; what counts is that it is text.
  route(app, 'readAddress', async ({ params, body }) => {
    await projects.require(params.id);
    try {
      const { address, bytes } = await fetchSafely(body.address, { allowed });
      const text = textOf(bytes);
      if (text === null)
        throw new FetchError(`${new URL(address).hostname} sends something that is no text in UTF-8.`);
      return { text };
    } catch (error) {
      throw asAnswer(error);
    }
  });

  // 204 when the source says, or its bytes show, that nothing has changed.
  route(app, 'refreshSource', async ({ params: { id, source }, reply }) => {
    await projects.require(id);
    const known = await sources.get(id, source);
    const made = await bring(known.address, { etag: known.etag, modified: known.modified });
    if (!made || (made.hash === known.hash && !/\.x?html?$/i.test(new URL(known.address).pathname))) {
      await sources.keep(id, { ...known, fetchedAt: new Date() });
      return reply.code(204).send();
    }
    return send(reply, made);
  });

  route(app, 'confirmSource', async ({ params: { id, ticket } }) => {
    await projects.require(id);
    const source = await tickets.take(ticket);
    if (!source) throw new HttpError('not-found', 'This source was fetched too long ago. Fetch it again.');
    await sources.keep(id, source);
  });

  route(app, 'forgetSource', async ({ params }) => {
    await projects.require(params.id);
    await sources.forget(params.id, params.source);
  });
}

/** What is said where an address cannot be fetched. */
const asAnswer = (error: unknown): unknown =>
  error instanceof FetchError ? new HttpError('fetch-failed', error.message) : error;

function textOf(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}
