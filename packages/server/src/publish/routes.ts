import type { FastifyInstance } from 'fastify';
import { HttpError } from '../http/errors.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';
import { hosts, type Publisher } from './publisher.ts';

/** The app for others: published under an address of its own, taken back, and what visitors said of it. */
export function publishRoutes(
  app: FastifyInstance,
  { projects, publisher, publications, feed }: Services,
): void {
  route(app, 'publication', async ({ params: { id } }) => {
    await projects.require(id);
    return answerOf(publisher, id);
  });

  route(app, 'publish', async ({ params: { id }, body: { title, version, host, pass } }) => {
    await publisher.publish(id, { title: title.trim(), version: version.trim(), host, pass });
    return answerOf(publisher, id);
  });

  route(app, 'takeBack', async ({ params: { id } }) => {
    await projects.require(id);
    if (!(await publications.get(id))) throw new HttpError('not-found', 'This app is not published.');
    await publisher.takeBack(id);
  });

  route(app, 'notes', async ({ params: { id } }) => {
    await projects.require(id);
    return (await publications.notes(id)).map(({ seen: _seen, ...note }) => note);
  });

  route(app, 'answerNote', async ({ params: { id, note }, body: { answer, isSettled } }) => {
    await projects.require(id);
    if (!(await publications.answer(id, note, answer || null, isSettled)))
      throw new HttpError('not-found', 'This note is not here.');
    feed.tell(id, { kind: 'noted', project: id });
  });
}

async function answerOf(publisher: Publisher, project: string) {
  const published = await publisher.get(project);
  return {
    hosts: hosts(),
    publication: published && {
      address: published.address,
      code: published.code,
      title: published.stored.title,
      version: published.stored.version,
      number: published.stored.number,
      seq: published.stored.seq,
      publishedAt: published.stored.publishedAt.toISOString(),
      hasPass: published.stored.pass !== null,
      isOpen: published.stored.isOpen,
      problem: published.problem,
    },
  };
}
