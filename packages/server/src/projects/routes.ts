import type { FastifyInstance } from 'fastify';
import { HttpError } from '../http/errors.ts';
import { leftSignal, route } from '../http/route.ts';
import type { Services } from '../services.ts';

export function projectRoutes(app: FastifyInstance, { projects, history, assets, threads }: Services): void {
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
    const packed = await threads.run(
      'packArchive',
      { name, design, app: document, bytes },
      leftSignal(reply),
    );
    const file = `${name.replace(/[^\w -]+/g, '').trim() || 'project'}.tovel`;
    return reply
      .header('content-disposition', `attachment; filename="${file}"`)
      .type('application/zip')
      .send(Buffer.from(packed));
  });

  route(app, 'openArchive', async ({ query, body, reply }) => {
    const read = await threads.run(
      'unpackArchive',
      { bytes: new Uint8Array(body), name: query.name },
      leftSignal(reply),
    );
    if ('problem' in read) throw new HttpError('archive-invalid', read.problem);
    const { name, design, app: document, bytes } = read.opened;
    const types = new Map(design.assets.map((asset) => [asset.hash, asset.type]));
    for (const [hash, content] of bytes)
      if (types.has(hash)) await assets.put(hash, types.get(hash)!, content);
    return { id: await projects.create(name.trim().slice(0, 120) || 'Untitled', design, document) };
  });
}
