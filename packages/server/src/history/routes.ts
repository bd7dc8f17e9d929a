import type { FastifyInstance } from 'fastify';
import { type ChangeResult, parseChange } from '@tovel/core';
import { readOr } from '../http/check.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

export function historyRoutes(app: FastifyInstance, { history, projects, feed }: Services): void {
  const tell = (project: string, result: ChangeResult): ChangeResult => {
    feed.wake(project);
    return result;
  };

  route(app, 'change', async ({ params, body: { label, change, ...input } }) => {
    const read = readOr('invalid', () => parseChange(change));
    return tell(params.id, await history.append(params.id, input, label, () => ({ change: read })));
  });

  route(app, 'undo', async ({ params, body }) => tell(params.id, await history.undo(params.id, body)));
  route(app, 'redo', async ({ params, body }) => tell(params.id, await history.redo(params.id, body)));

  route(app, 'history', async ({ params, query }) => {
    await projects.require(params.id);
    return history.after(params.id, query.after ?? 0);
  });

  route(app, 'events', ({ query, reply }) => feed.subscribe(query.projects.split(','), reply));
}
