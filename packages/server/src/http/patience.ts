import type { FastifyInstance } from 'fastify';

/**
 * How long a connection may be silent, in ms, while a request is on its way in or its answer on its way out. What takes longer to
 * be worked out than that is waited for: the one who asked has nothing to say meanwhile.
 */
export function patience(app: FastifyInstance, silence: number): void {
  app.server.setTimeout(silence);
  app.addHook('preHandler', async ({ raw }) => void raw.socket.setTimeout?.(0));
  app.addHook('onSend', async ({ raw }) => void raw.socket.setTimeout?.(silence));
}
