import type { FastifyInstance } from 'fastify';
import { HttpError } from './errors.ts';

/**
 * Refuses requests that were not meant for this server: another Host (a name that was pointed at loopback), and
 * changes from another Origin.
 */
export function guard(app: FastifyInstance, port: number): void {
  const hosts = new Set([`127.0.0.1:${port}`, `localhost:${port}`]);
  const origins = new Set([...hosts].map((host) => `http://${host}`));
  app.addHook('onRequest', async (request) => {
    if (!hosts.has(request.headers.host ?? ''))
      throw new HttpError('host-refused', `This server answers to http://127.0.0.1:${port} only.`);
    const { origin } = request.headers;
    const isChange = request.method !== 'GET' && request.method !== 'HEAD';
    if (isChange && origin !== undefined && !origins.has(origin))
      throw new HttpError('origin-refused', 'Changes are taken from the application itself only.');
    if (isChange && request.headers['sec-fetch-site'] === 'cross-site')
      throw new HttpError('origin-refused', 'Changes are taken from the application itself only.');
  });
}
