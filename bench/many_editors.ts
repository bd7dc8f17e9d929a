/**
 * Fifty people on one project, at the pace of people, all from one address: whether everything that was made is kept,
 * how long a step takes to be saved, and how long until all windows show it. Beside it the same number of bare requests,
 * which sets the scale. `npm run bench -- many_editors [PEOPLE...]`
 */
import { setTimeout as pause } from 'node:timers/promises';
import { type App, type ProjectEvent, type ProjectState, putStill } from '@tovel/core';
import { ProjectSession } from '../packages/web/src/project/session.ts';
import { RunningServer } from './running_server.ts';

const SECONDS = 30;
/** Between two steps of one person, in ms: from one to five seconds. */
const paceOf = (): number => 1000 + Math.random() * 4000;

const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.max(0, Math.ceil(values.length * share) - 1)] ?? 0;

const server = await new RunningServer().start();

/** What a window does: the very session of the interface, over HTTP, with the news of the server. */
async function openWindow(id: string, n: number, latencies: number[]): Promise<ProjectSession> {
  const author = `device${n}.window`;
  const api = server.sessionApi(id, author);
  const session = new ProjectSession(
    await api.project(),
    {
      ...api,
      change: async (project, step) => {
        const begun = performance.now();
        const made = await api.change(project, step);
        latencies.push(performance.now() - begun);
        return made;
      },
    },
    author,
  );
  void (async () => {
    const stream = await fetch(`${server.base}/api/events?projects=${id}`);
    let text = '';
    for await (const part of stream.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
        const line = text.slice(0, end);
        text = text.slice(end + 2);
        if (line.startsWith('data: ')) session.hear(JSON.parse(line.slice(6)) as ProjectEvent);
      }
    }
  })().catch(() => {});
  return session;
}

try {
  for (const people of process.argv
    .slice(2)
    .map(Number)
    .concat(process.argv.length > 2 ? [] : [10, 50])) {
    const { id } = await server.ask<{ id: string }>('POST', '/api/projects', { name: `With ${people}` });
    const latencies: number[] = [];
    const windows = await Promise.all(Array.from({ length: people }, (_, n) => openWindow(id, n, latencies)));
    const end = Date.now() + SECONDS * 1000;
    let made = 0;
    await Promise.all(
      windows.map(async (session, n) => {
        for (let step = 0; Date.now() < end; step++) {
          await pause(paceOf());
          made++;
          session.change(`Step ${step} of ${n}`, putStill(`s:${n}-${step}`, true));
        }
        await session.settled();
      }),
    );
    const settled = Date.now();
    const { app } = await server.ask<ProjectState>('GET', `/api/projects/${id}`);
    const isSame = (other: App): boolean => Object.keys(other.still).length === Object.keys(app.still).length;
    while (!windows.every((session) => isSame(session.getState().app)) && Date.now() < settled + 20_000)
      await pause(10);
    const together = windows.filter((session) => isSame(session.getState().app)).length;
    const plain: number[] = [];
    for (let i = 0; i < 200; i++) {
      const begun = performance.now();
      await server.ask('GET', '/api/settings');
      plain.push(performance.now() - begun);
    }
    console.log(
      `${people} people, ${made} steps in ${SECONDS} s: lost ${made - Object.keys(app.still).length}; ${together} of ${people} windows the same ${Date.now() - settled} ms after the last answer; a step saved p50 ${percentile(latencies, 0.5).toFixed(0)} ms, p95 ${percentile(latencies, 0.95).toFixed(0)} ms, worst ${Math.max(...latencies).toFixed(0)} ms; a bare request p50 ${percentile(plain, 0.5).toFixed(1)} ms`,
    );
  }
} finally {
  await server.dispose();
}
process.exit(0);
