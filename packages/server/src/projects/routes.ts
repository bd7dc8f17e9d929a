import type { FastifyInstance } from 'fastify';
import { ArchiveError, packProject, unpackProject } from '@tovel/core';
import { HttpError } from '../http/errors.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

export function projectRoutes(app: FastifyInstance, { projects, history, assets }: Services): void {
  route(app, 'projects', () => projects.list());

  route(app, 'createProject', async ({ body }) => ({ id: await projects.create(body.name.trim()) }));

  route(app, 'project', async ({ params, query, request, reply }) => {
    const { seq, changedAt, ...project } = await history.snapshot(params.id, query.author);
    const tag = `"${project.revision}-${seq}-${changedAt.getTime()}-${query.author ?? ''}"`;
    void reply.header('etag', tag).header('cache-control', 'no-cache');
    if (request.headers['if-none-match'] === tag) return reply.code(304).send();
    return { ...project, changedAt: changedAt.toISOString() };
  });

  route(app, 'renameProject', ({ params, body }) => projects.rename(params.id, body.name.trim()));
  route(app, 'deleteProject', ({ params }) => projects.setDeleted(params.id, true));
  route(app, 'restoreProject', ({ params }) => projects.setDeleted(params.id, false));
  route(app, 'copyProject', async ({ params }) => ({ id: await projects.copy(params.id) }));

  route(app, 'archive', async ({ params, reply }) => {
    const { name, design, app: document } = await projects.read(params.id);
    const bytes = await assets.many(design.assets.map((asset) => asset.hash));
    const file = `${name.replace(/[^\w -]+/g, '').trim() || 'project'}.tovel`;
    return reply
      .header('content-disposition', `attachment; filename="${file}"`)
      .type('application/zip')
      .send(Buffer.from(packProject({ name, design, app: document, bytes })));
  });

  route(app, 'openArchive', async ({ query, body }) => {
    try {
      const opened = unpackProject(new Uint8Array(body), query.name);
      const types = new Map(opened.design.assets.map((asset) => [asset.hash, asset.type]));
      for (const [hash, bytes] of opened.bytes)
        if (types.has(hash)) await assets.put(hash, types.get(hash)!, bytes);
      const name = opened.name.trim().slice(0, 120) || 'Untitled';
      return { id: await projects.create(name, opened.design, opened.app) };
    } catch (error) {
      if (error instanceof ArchiveError) throw new HttpError('archive-invalid', error.message);
      throw error;
    }
  });
}
