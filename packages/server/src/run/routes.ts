import type { FastifyInstance } from 'fastify';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

/** What is asked about running apps; they themselves are served on another port. */
export function runRoutes(app: FastifyInstance, { projects, workshop }: Services): void {
  route(app, 'placeInCode', async ({ params: { id }, query: { script, line, column } }) => {
    await projects.require(id);
    const isSaid = script !== undefined && line && column !== undefined;
    return { place: isSaid ? await workshop.where(id, script, line, column) : null };
  });
}
