import type { FastifyInstance } from 'fastify';
import {
  addToDesign,
  emptyDesign,
  equalJson,
  fontRequest,
  newIntake,
  parseDesign,
  takeIn,
  utilityRequest,
  type UtilityPlan,
} from '@tovel/core';
import { shippedFont } from '@tovel/reader/shipped_fonts';
import { compileUtilities } from '@tovel/reader/utilities';
import { check, readOr } from '../http/check.ts';
import { HttpError } from '../http/errors.ts';
import type { Services } from '../services.ts';

/** What was read in the browser comes in here: first the files, by hash, then the screens made of them. */
export function intakeRoutes(app: FastifyInstance, { history, assets, hub, workshop }: Services): void {
  app.put<{ Params: { hash: string } }>('/api/assets/:hash', async (request, reply) => {
    const { hash } = request.params;
    if (!/^[0-9a-f]{64}$/.test(hash) || !Buffer.isBuffer(request.body))
      throw new HttpError('invalid', 'Send the bytes under their SHA-256 in hex.');
    await assets.put(hash, String(request.headers['x-file-type'] ?? ''), new Uint8Array(request.body));
    return reply.code(204).send();
  });

  app.get<{ Params: { hash: string } }>('/api/assets/:hash', async (request, reply) => {
    const { type, bytes } = await assets.get(request.params.hash);
    // Pages that came in are never shown as pages; a drawing shown by itself runs nothing.
    const shown = /^(image\/(?!openraster)|font\/)/.test(type) ? type : 'text/plain; charset=utf-8';
    return reply
      .header('cache-control', 'private, max-age=31536000, immutable')
      .header('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox")
      .type(shown)
      .send(bytes);
  });

  app.post('/api/assets/missing', async (request) => {
    const { hashes } = (request.body ?? {}) as { hashes?: unknown };
    if (!Array.isArray(hashes) || hashes.length > 5000 || !hashes.every((hash) => typeof hash === 'string'))
      throw new HttpError('invalid', 'hashes must be a list of at most 5000.');
    return assets.missing(hashes as string[]);
  });

  app.post('/api/fonts', async (request) =>
    (await shippedFont(check(fontRequest, request.body))).map(({ bytes, ...face }) => ({
      ...face,
      data: Buffer.from(bytes).toString('base64'),
    })),
  );

  app.post('/api/utilities', { bodyLimit: 4 * 2 ** 20 }, async (request) => {
    const plan = check(utilityRequest, request.body) as UtilityPlan;
    try {
      return { css: await compileUtilities(plan) };
    } catch (error) {
      throw new HttpError('invalid', (error as Error).message);
    }
  });

  app.post<{ Params: { id: string } }>(
    '/api/projects/:id/intake',
    { bodyLimit: 200 * 2 ** 20 },
    async (request) => {
      const { base, ...read } = check(newIntake, request.body);
      const added = readOr('invalid', () => parseDesign({ ...emptyDesign, ...read }));
      const missing = await assets.missing(added.assets.map((asset) => asset.hash));
      if (missing.length)
        throw new HttpError(
          'asset-missing',
          `${missing.length} of the files did not arrive. Bring the batch in again.`,
        );
      const { id } = request.params;
      const count = added.screens.length === 1 ? added.screens[0].name : `${added.screens.length} screens`;
      const result = await history.append(id, base, `Bring in ${count}`, ({ design, app: document }) => {
        // A screen may come in again from where it came; another may not take its place.
        const known = new Map(design.screens.map((screen) => [screen.key, screen.source]));
        const clash = added.screens.find(
          ({ key, source }) => known.has(key) && !equalJson(known.get(key), source),
        );
        if (clash) throw new HttpError('invalid', `There is a screen with the key ${clash.key} already.`);
        const grown = addToDesign(design, added);
        return { design: grown, change: takeIn({ design: grown, app: document }, added.screens) };
      });
      hub.tell(id, { kind: 'design', revision: result.revision });
      workshop.changed(id);
      return result;
    },
  );
}
