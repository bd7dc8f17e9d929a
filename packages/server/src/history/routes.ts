import type { FastifyInstance } from 'fastify';
import { type ChangeResult, historyStep, newChange, parseChange } from '@tovel/core';
import { check, readOr } from '../http/check.ts';
import type { Services } from '../services.ts';
import { Behind } from './store.ts';

type WithId = { Params: { id: string } };

export function historyRoutes(app: FastifyInstance, { history, hub, workshop }: Services): void {
  const tell = (project: string, result: ChangeResult): ChangeResult => {
    const isTravel = result.entry.role !== 'do';
    hub.tell(
      project,
      isTravel ? { kind: 'design', revision: result.revision } : { kind: 'changed', seq: result.entry.seq },
    );
    workshop.changed(project);
    return result;
  };

  app.post<WithId>('/api/projects/:id/changes', async (request) => {
    const { base, label, change } = check(newChange, request.body);
    const read = readOr('invalid', () => parseChange(change));
    return tell(
      request.params.id,
      await history.append(request.params.id, base, label, () => ({ change: read })),
    );
  });

  app.post<WithId>('/api/projects/:id/undo', async (request) =>
    tell(request.params.id, await history.undo(request.params.id, check(historyStep, request.body).base)),
  );
  app.post<WithId>('/api/projects/:id/redo', async (request) =>
    tell(request.params.id, await history.redo(request.params.id, check(historyStep, request.body).base)),
  );

  app.get<WithId & { Querystring: { after?: string } }>('/api/projects/:id/history', async (request) =>
    history.after(request.params.id, Number(request.query.after ?? 0) || 0),
  );

  app.get<WithId>('/api/projects/:id/events', (request, reply) => hub.subscribe(request.params.id, reply));
}

/** How a conflict is answered: 409, with what was missed. */
export const behindReply = (error: unknown): object | null =>
  error instanceof Behind ? error.conflict : null;
