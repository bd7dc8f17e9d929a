import type { FastifyInstance } from 'fastify';
import { packZip, targets } from '@tovel/core';
import { HttpError } from '../http/errors.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

export function deliverRoutes(app: FastifyInstance, { projects, assets }: Services): void {
  route(app, 'code', async ({ params, query, reply }) => {
    const { name, ...project } = await projects.read(params.id);
    const wanted = query.target ?? 'react';
    const target = Object.hasOwn(targets, wanted) ? targets[wanted] : null;
    if (!target)
      throw new HttpError('target-unknown', `Code can be written for ${Object.keys(targets).join(', ')}.`);
    const { files } = target.emit(project, name);
    const bytes = await assets.many(files.flatMap((file) => ('asset' in file ? [file.asset] : [])));
    const packed = packZip(
      files.flatMap((file) => {
        const content = 'asset' in file ? bytes.get(file.asset) : new TextEncoder().encode(file.text);
        return content ? [{ path: file.path, bytes: content }] : [];
      }),
    );
    const file = `${
      name
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
