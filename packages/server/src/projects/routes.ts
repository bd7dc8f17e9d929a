import type { FastifyInstance } from 'fastify';
import { ArchiveError, newProject, packProject, type ProjectState, unpackProject } from '@tovel/core';
import { check } from '../http/check.ts';
import { HttpError } from '../http/errors.ts';
import type { Services } from '../services.ts';

type WithId = { Params: { id: string } };

export function projectRoutes(app: FastifyInstance, { projects, history, assets }: Services): void {
  app.get('/api/projects', async () => projects.list());

  app.post('/api/projects', async (request, reply) => {
    const { name } = check(newProject, request.body);
    return reply.code(201).send({ id: await projects.create(name.trim()) });
  });

  app.get<WithId>('/api/projects/:id', async (request, reply): Promise<ProjectState | undefined> => {
    const {
      id,
      name,
      design,
      app: document,
      changedAt,
      revision,
      seq,
    } = await projects.read(request.params.id);
    const tag = `"${revision}-${seq}-${changedAt.getTime()}"`;
    void reply.header('etag', tag).header('cache-control', 'no-cache');
    if (request.headers['if-none-match'] === tag) return reply.code(304).send();
    return {
      id,
      name,
      design,
      app: document,
      history: await history.state(id),
      changedAt: changedAt.toISOString(),
      revision,
    };
  });

  app.patch<WithId>('/api/projects/:id', async (request, reply) => {
    const { name } = check(newProject, request.body);
    await projects.rename(request.params.id, name.trim());
    return reply.code(204).send();
  });

  app.delete<WithId>('/api/projects/:id', async (request, reply) => {
    await projects.setDeleted(request.params.id, true);
    return reply.code(204).send();
  });

  app.post<WithId>('/api/projects/:id/restore', async (request, reply) => {
    await projects.setDeleted(request.params.id, false);
    return reply.code(204).send();
  });

  app.post<WithId>('/api/projects/:id/copy', async (request, reply) =>
    reply.code(201).send({ id: await projects.copy(request.params.id) }),
  );

  app.get<WithId>('/api/projects/:id/archive', async (request, reply) => {
    const { name, design, app: document } = await projects.read(request.params.id);
    const bytes = await assets.many(design.assets.map((asset) => asset.hash));
    const file = `${name.replace(/[^\w -]+/g, '').trim() || 'project'}.tovel`;
    return reply
      .header('content-disposition', `attachment; filename="${file}"`)
      .type('application/zip')
      .send(Buffer.from(packProject({ name, design, app: document, bytes })));
  });

  app.post<{ Querystring: { name?: string } }>('/api/projects/open', async (request, reply) => {
    if (!Buffer.isBuffer(request.body))
      throw new HttpError('archive-invalid', 'Send the .tovel file itself.');
    try {
      const opened = unpackProject(new Uint8Array(request.body), request.query.name);
      const types = new Map(opened.design.assets.map((asset) => [asset.hash, asset.type]));
      for (const [hash, bytes] of opened.bytes)
        if (types.has(hash)) await assets.put(hash, types.get(hash)!, bytes);
      return await reply
        .code(201)
        .send({ id: await projects.create(opened.name.slice(0, 120), opened.design, opened.app) });
    } catch (error) {
      if (error instanceof ArchiveError) throw new HttpError('archive-invalid', error.message);
      throw error;
    }
  });
}
