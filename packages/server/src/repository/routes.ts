import type { FastifyInstance } from 'fastify';
import type { MergeSide } from '@tovel/core';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';
import { checkedAddress, checkedBranch } from './address.ts';

/** The code of a project in a repository of its team: what is there, what pushing would do, and pushing. */
export function repositoryRoutes(app: FastifyInstance, { projects, repositories }: Services): void {
  route(app, 'repository', async ({ params: { id } }) => {
    await projects.require(id);
    return { repository: await repositories.get(id) };
  });

  route(app, 'connectRepository', async ({ params: { id }, body: { address, branch, token } }) => {
    await projects.require(id);
    await repositories.connect(id, checkedAddress(address), checkedBranch(branch), token);
    return { repository: await repositories.get(id) };
  });

  route(app, 'branches', async ({ params: { id }, body: { address, token } }) => {
    await projects.require(id);
    return { branches: await repositories.branches(id, checkedAddress(address), token) };
  });

  route(app, 'disconnectRepository', async ({ params: { id } }) => {
    await projects.require(id);
    await repositories.disconnect(id);
  });

  route(app, 'lookIntoRepository', async ({ params: { id }, body: { answers } }) => {
    const { head, commits, message, plan } = await repositories.look(id, sides(answers));
    const { target, files, asks, notices, added, offers } = plan;
    return {
      head,
      target,
      commits: [...commits],
      files: files.map(({ path, fate, movedFrom, byLines, before, after }) => ({
        path,
        fate,
        movedFrom,
        byLines,
        // What stays as it is need not be seen.
        ...(fate === 'same' || fate === 'kept' ? {} : { before, after }),
      })),
      asks: asks.map((ask) => ({ ...ask })),
      notices: [...notices],
      added: [...added],
      offers: offers.map((offer) => ({ ...offer })),
      message,
    };
  });

  route(app, 'push', ({ params: { id }, body: { head, answers, message } }) =>
    repositories.push(id, head, sides(answers), message),
  );
}

const sides = (
  answers: readonly { readonly id: string; readonly side: MergeSide }[],
): Map<string, MergeSide> => new Map(answers.map(({ id, side }) => [id, side]));
