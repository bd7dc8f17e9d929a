import type { AddressInfo } from 'node:net';
import type { FastifyInstance } from 'fastify';
import { HttpError } from './errors.ts';

/**
 * Refuses requests that were not meant for this server: another Host (a name that was pointed at loopback), and
 * changes from another Origin.
 * @param known where it listens; asked of the server itself where that is not said.
 */
export function guard(app: FastifyInstance, known?: number): void {
  app.addHook('onRequest', async (request) => {
    const port = known ?? (app.server.address() as AddressInfo).port;
    const hosts = new Set([`127.0.0.1:${port}`, `localhost:${port}`]);
    const origins = new Set([...hosts].map((host) => `http://${host}`));
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
