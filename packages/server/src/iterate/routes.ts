import type { FastifyInstance } from 'fastify';
import { answersSchema, findProblem, problemText } from '@tovel/core';
import { HttpError } from '../http/errors.ts';
import { leftSignal, route } from '../http/route.ts';
import { readDesign, takeInScreens } from '../intake/take_in.ts';
import type { Services } from '../services.ts';

/** A next round waits here, while somebody looks at what it would do; then it is taken in as one step, or put away. */
export function iterateRoutes(app: FastifyInstance, services: Services): void {
  const { assets, projects, rounds, sources, tickets } = services;

  route(app, 'keepRound', async ({ params: { id }, body: { whole, ticket, ...read } }) => {
    await projects.require(id);
    await rounds.keep(id, { read: await readDesign(assets, read), whole, ticket: ticket ?? null });
  });

  route(app, 'round', async ({ params: { id } }) => {
    await projects.require(id);
    return { round: await rounds.head(id) };
  });

  route(app, 'roundRead', async ({ params: { id } }) => {
    await projects.require(id);
    const { read, whole } = await rounds.get(id);
    return { read, whole };
  });

  route(app, 'takeRound', async ({ params: { id }, body, reply }) => {
    const { base, id: step, author, since, whole, answers } = body;
    const wrong = findProblem(answersSchema, answers);
    if (wrong) throw new HttpError('invalid', `answers: ${problemText(wrong)}`);
    await projects.require(id);
    const { read, ticket } = await rounds.get(id);
    const result = await takeInScreens(services, id, { base, id: step, author, since }, read, {
      whole,
      answers,
      signal: leftSignal(reply),
    });
    await rounds.drop(id);
    const source = ticket && (await tickets.take(ticket));
    if (source) await sources.keep(id, source);
    return result;
  });

  route(app, 'dropRound', async ({ params: { id } }) => {
    await projects.require(id);
    await rounds.drop(id);
  });
}
