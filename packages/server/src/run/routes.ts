import type { FastifyInstance } from 'fastify';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

/** What is asked about running apps; they themselves are served on another port. */
export function runRoutes(app: FastifyInstance, { projects, workshop }: Services): void {
  route(app, 'placeInCode', async ({ params: { id }, query: { line, column } }) => {
    await projects.require(id);
    return { place: line && column !== undefined ? await workshop.where(id, line, column) : null };
  });
}
