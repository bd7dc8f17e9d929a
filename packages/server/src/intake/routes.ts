import type { FastifyInstance } from 'fastify';
import { shippedFont } from '@tovel/renderer/shipped/fonts';
import { shippedIcons } from '@tovel/renderer/shipped/icons';
import { shippedSheet } from '@tovel/renderer/shipped/sheets';
import { HttpError } from '../http/errors.ts';
import { leftSignal, route } from '../http/route.ts';
import type { Services } from '../services.ts';
import { readDesign, takeInScreens } from './take_in.ts';

const inBase64 = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64');

/** What was read in the browser comes in here: first the files, by hash, then the screens made of them. */
export function intakeRoutes(app: FastifyInstance, services: Services): void {
  const { assets, threads } = services;

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
      data: inBase64(bytes),
    })),
  );

  route(app, 'sheets', async ({ body }) => {
    const found = await shippedSheet(body);
    if (!found) return { shipped: null };
    const files = found.files.map(({ path, bytes }) => ({
      path,
      data: inBase64(bytes),
    }));
    return { shipped: { ...found, files } };
  });

  route(app, 'icons', async ({ body }) => ({ drawings: await shippedIcons(body.library, body.names) }));

  route(app, 'utilities', async ({ body, reply }) => {
    const made = await threads.run('compileClasses', body, leftSignal(reply));
    if ('problem' in made) throw new HttpError('invalid', made.problem);
    return made;
  });

  route(app, 'intake', async ({ params: { id }, body, reply }) => {
    const { base, id: step, author, since, whole, ...read } = body;
    const added = await readDesign(assets, read);
    return takeInScreens(services, id, { base, id: step, author, since }, added, {
      whole,
      answers: {},
      signal: leftSignal(reply),
    });
  });
}
