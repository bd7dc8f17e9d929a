import type { FastifyInstance } from 'fastify';
import { HttpError } from '../http/errors.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

/** What a project was: its steps in words, places with names, and any of them again. */
export function versionRoutes(app: FastifyInstance, { history, projects, versions, feed }: Services): void {
  route(app, 'timeline', async ({ params: { id }, query }) => {
    await projects.require(id);
    return history.timeline(id, query);
  });

  route(app, 'past', async ({ params: { id, seq }, reply }) => {
    const { changedAt, seq: at, ...project } = await history.at(id, seq);
    void reply.header('cache-control', 'private, max-age=3600');
    return {
      ...project,
      changedAt: changedAt.toISOString(),
      history: { seq: at, undo: null, redo: null },
    };
  });

  route(app, 'goBack', async ({ params: { id }, body: { to, label, ...input } }) => {
    const result = await history.goBack(id, input, to, label);
    feed.wake(id);
    return result;
  });

  route(app, 'versions', async ({ params: { id } }) => {
    await projects.require(id);
    return versions.list(id);
  });

  route(app, 'nameVersion', async ({ params: { id }, body: { name, seq } }) => {
    const { seq: head } = await projects.read(id);
    if (seq > head)
      throw new HttpError('not-found', `The history has ${head} steps; there is no place ${seq} in it.`);
    return versions.add(id, name.trim(), seq);
  });

  route(app, 'renameVersion', async ({ params: { id, version }, body }) => {
    await projects.require(id);
    await versions.rename(id, version, body.name.trim());
  });

  route(app, 'forgetVersion', async ({ params: { id, version } }) => {
    await projects.require(id);
    await versions.forget(id, version);
  });
}
