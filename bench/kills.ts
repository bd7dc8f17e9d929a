/**
 * Four people write without pause while the server, the database, or both are killed again and again: whether a step
 * that was said to be saved is ever lost, or one that was said again is done twice; and how long until steps are saved
 * again. `npm run bench -- kills [ROUNDS]`
 */
import { setTimeout as pause } from 'node:timers/promises';
import { type ProjectState, putStill } from '@tovel/core';
import { ProjectSession } from '../packages/web/src/project/session.ts';
import { RunningServer } from './running_server.ts';

const rounds = Number(process.argv[2] ?? 20);
const WRITERS = 4;

const server = await new RunningServer().start();
try {
  const { id } = await server.ask<{ id: string }>('POST', '/api/projects', { name: 'Killed' });
  const saved = new Map<string, number>();
  let isOver = false;
  let made = 0;
  const writers = await Promise.all(
    Array.from({ length: WRITERS }, async (_, n) => {
      const author = `device${n}.window`;
      const session = new ProjectSession(
        await server.ask<ProjectState>('GET', `/api/projects/${id}`),
        server.sessionApi(id, author),
        author,
      );
      return { session, n };
    }),
  );
  const writing = writers.map(async ({ session, n }) => {
    for (let step = 0; !isOver; step++) {
      const key = `s:${n}-${step}`;
      session.change(`Step ${step}`, putStill(key, true));
      made++;
      await session.settled();
      saved.set(key, Date.now());
    }
  });
  const back = { server: [] as number[], database: [] as number[], both: [] as number[] };
  const kinds = { server: 0, database: 0, both: 0 };
  for (let round = 0; round < rounds; round++) {
    await pause(300 + Math.random() * 900);
    const kind = (['server', 'database', 'both'] as const)[round % 3];
    kinds[kind]++;
    const before = Date.now();
    if (kind !== 'server') process.kill(server.databasePid, 'SIGKILL');
    if (kind !== 'database') {
      await server.end('SIGKILL');
      await server.start();
    }
    while (![...saved.values()].some((at) => at > before + 50)) await pause(20);
    back[kind].push(Date.now() - before);
  }
  isOver = true;
  await Promise.all(writing);
  const { app, history } = await server.ask<ProjectState>('GET', `/api/projects/${id}`);
  const lost = [...saved.keys()].filter((key) => !app.still[key]).length;
  const worst = Object.entries(back).map(([kind, times]) => `${kind} ${Math.max(...times)} ms`);
  console.log(
    `${rounds} kills (${kinds.server} of the server, ${kinds.database} of the database, ${kinds.both} of both) under ${WRITERS} writers: ${saved.size} steps said to be saved, ${lost} lost, ${history.seq - made} done twice; saved again at worst after: ${worst.join(', ')} (a start of the server included)`,
  );
} finally {
  await server.dispose();
}
process.exit(0);
