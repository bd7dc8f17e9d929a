import type { AddressInfo } from 'node:net';
import type { FastifyInstance } from 'fastify';
import { HttpError } from './errors.ts';

/** A host of its own for each page that is read at the same time: a browser keeps hosts apart. */
const READER_HOST = /^reader-\d\.localhost:\d+$/;

/**
 * Refuses requests that were not meant for this server: another Host (a name that was pointed at loopback), and
 * changes from another Origin.
 * @param known where it listens; asked of the server itself where that is not said.
 * @param readers whether hosts in which pages are read get the document that does so, and nothing else
 */
export function guard(app: FastifyInstance, known?: number, readers = false): void {
  app.addHook('onRequest', async (request) => {
    const port = known ?? (app.server.address() as AddressInfo).port;
    const hosts = new Set([`127.0.0.1:${port}`, `localhost:${port}`]);
    const origins = new Set([...hosts].map((host) => `http://${host}`));
    const host = request.headers.host ?? '';
    const isReader = readers && READER_HOST.test(host) && host.endsWith(`:${port}`);
    if (isReader && request.method === 'GET' && /^\/(?:reader\.html|assets\/[^?#]*)$/.test(request.url))
      return;
    if (!hosts.has(host))
      throw new HttpError('host-refused', `This server answers to http://127.0.0.1:${port} only.`);
    const { origin } = request.headers;
    const isChange = request.method !== 'GET' && request.method !== 'HEAD';
    if (isChange && origin !== undefined && !origins.has(origin))
      throw new HttpError('origin-refused', 'Changes are taken from the application itself only.');
    if (isChange && request.headers['sec-fetch-site'] === 'cross-site')
      throw new HttpError('origin-refused', 'Changes are taken from the application itself only.');
  });
}
