import type { FastifyInstance } from 'fastify';
import { addToDesign, emptyDesign, newIntake, parseDesign, takeIn } from '@tovel/core';
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
    const shown = type.startsWith('image/') ? type : 'text/plain; charset=utf-8';
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
        const known = new Set(design.screens.map((screen) => screen.key));
        const clash = added.screens.find((screen) => known.has(screen.key));
        if (clash) throw new HttpError('invalid', `There is a screen with the key ${clash.key} already.`);
        const grown = addToDesign(design, added);
        return { design: grown, change: takeIn({ design: grown, app: document }, added.screens) };
      });
      hub.tell(id, { kind: 'design', revision: result.entry.seq });
      workshop.changed(id);
      return result;
    },
  );
}
