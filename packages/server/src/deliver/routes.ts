import type { FastifyInstance } from 'fastify';
import { isTarget, targetOf, targets } from '@tovel/core';
import { HttpError } from '../http/errors.ts';
import { leftSignal, route } from '../http/route.ts';
import type { Services } from '../services.ts';

/** The code as a zip, and when it was handed over. */
export function deliverRoutes(
  app: FastifyInstance,
  { projects, assets, threads, deliveries }: Services,
): void {
  route(app, 'deliveries', async ({ params: { id } }) => {
    await projects.require(id);
    return deliveries.list(id);
  });

  route(app, 'code', async ({ params, query, reply }) => {
    if (query.target !== undefined && !isTarget(query.target))
      throw new HttpError('target-unknown', `Code can be written for ${Object.keys(targets).join(', ')}.`);
    const { name, seq, design, app: document } = await projects.read(params.id);
    const target = query.target ?? targetOf(document);
    const signal = leftSignal(reply);
    const { only } = query;
    const code = await threads.run(
      'emitCode',
      { name, design, app: document, target, ...(only === undefined ? {} : { only }) },
      signal,
    );
    if (only !== undefined && !code.texts.length)
      throw new HttpError('file-missing', `The code has no file “${only.slice(0, 200)}”.`);
    const bytes = await assets.many(code.assets.map(({ hash }) => hash));
    const files = code.assets.flatMap(({ path, hash }) => {
      const content = bytes.get(hash);
      return content ? [{ path, bytes: content }] : [];
    });
    const packed = await threads.run(
      'packFiles',
      { texts: code.texts, files: [...files, ...code.record] },
      signal,
    );
    // What is written otherwise than the project says is tried, and what is taken alone goes elsewhere.
    if (only === undefined && target === targetOf(document))
      await deliveries.add(params.id, { seq, name, kind: 'zip' });
    const called = only?.replace(/^.*\//, '').replace(/\.[^.]*$/, '') ?? name;
    const file = `${
      called
        .replace(/[^\w -]+/g, '')
        .trim()
        .replace(/\s+/g, '-')
        .toLowerCase() || 'app'
    }.zip`;
    return reply
      .header('content-disposition', `attachment; filename="${file}"`)
      .type('application/zip')
      .send(Buffer.from(packed));
  });
}
