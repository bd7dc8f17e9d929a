import type { FastifyInstance } from 'fastify';
import { emptyDesign, parseDesign } from '@tovel/core';
import { shippedFont } from '@tovel/reader/shipped_fonts';
import { readOr } from '../http/check.ts';
import { HttpError } from '../http/errors.ts';
import { leftSignal, route } from '../http/route.ts';
import type { Services } from '../services.ts';

/** What was read in the browser comes in here: first the files, by hash, then the screens made of them. */
export function intakeRoutes(
  app: FastifyInstance,
  { history, projects, assets, feed, threads }: Services,
): void {
  route(app, 'putAsset', async ({ params, body, request }) => {
    await assets.put(params.hash, String(request.headers['x-file-type'] ?? ''), new Uint8Array(body));
  });

  route(app, 'asset', async ({ params, reply }) => {
    const { type, bytes } = await assets.get(params.hash);
    // Pages that came in are never shown as pages; a drawing shown by itself runs nothing.
    const shown = /^(image\/(?!openraster)|font\/)/.test(type) ? type : 'text/plain; charset=utf-8';
    return reply
      .header('cache-control', 'private, max-age=31536000, immutable')
      .header('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox")
      .type(shown)
      .send(bytes);
  });

  route(app, 'missingAssets', ({ body }) => assets.missing(body.hashes));

  route(app, 'fonts', async ({ body }) =>
    (await shippedFont(body)).map(({ bytes, ...face }) => ({
      ...face,
      data: Buffer.from(bytes).toString('base64'),
    })),
  );

  route(app, 'utilities', async ({ body, reply }) => {
    const made = await threads.run('compileClasses', body, leftSignal(reply));
    if ('problem' in made) throw new HttpError('invalid', made.problem);
    return made;
  });

  route(app, 'intake', async ({ params: { id }, body, reply }) => {
    const { base, id: step, author, since, whole, ...read } = body;
    const added = readOr('invalid', () => parseDesign({ ...emptyDesign, ...read }));
    const missing = await assets.missing(added.assets.map((asset) => asset.hash));
    if (missing.length)
      throw new HttpError(
        'asset-missing',
        `${missing.length} of the files did not arrive. Bring the batch in again.`,
      );
    const count = added.screens.length === 1 ? added.screens[0].name : `${added.screens.length} screens`;
    const input = { base, id: step, author, since };
    const signal = leftSignal(reply);
    for (;;) {
      const now = await projects.read(id);
      const made = await threads.run(
        'iterate',
        {
          design: now.design,
          app: now.app,
          read: added,
          whole,
          iteration: await projects.nextIteration(id),
        },
        signal,
      );
      try {
        const result = await history.append(id, input, `Bring in ${count}`, (current) => {
          // What was worked out holds for what it was worked out from.
          if (current.seq !== now.seq || current.revision !== now.revision) throw new MovedOn();
          return made;
        });
        feed.wake(id);
        return result;
      } catch (error) {
        if (!(error instanceof MovedOn)) throw error;
      }
    }
  });
}

/** Somebody changed the project while an iteration was worked out. */
class MovedOn extends Error {}
