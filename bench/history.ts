/**
 * Histories of 2,000 and of 20,000 steps on a real database: opening the project, one edit, one undo, the first page of
 * the timeline, a search in it, and a state of long ago; beside writing one row and committing it.
 */
import { performance } from 'node:perf_hooks';
import { putScreen, putStill } from '@tovel/core';
import { createServices } from '../packages/server/src/services.ts';
import { startTestDatabase } from '../packages/server/src/testing/database.ts';

const RUNS = 9;
const row = (what: string, ...cells: string[]): void =>
  console.log(`  ${what.padEnd(44)}${cells.map((cell) => cell.padStart(14)).join('')}`);

/** The middle of several runs, in ms. */
async function median(work: (run: number) => Promise<unknown>): Promise<string> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const begin = performance.now();
    await work(run);
    times.push(performance.now() - begin);
  }
  return `${times.sort((a, b) => a - b)[RUNS >> 1].toFixed(1)} ms`;
}

const database = await startTestDatabase();
const services = createServices(database.db, { error: () => {} });
const { history, projects } = services;
try {
  const cells = new Map<string, string[]>();
  const note = (what: string, cell: string): void => void cells.set(what, [...(cells.get(what) ?? []), cell]);
  const sizes = [2_000, 20_000];
  for (const size of sizes) {
    const id = await projects.create(`Of ${size}`);
    const entry = { name: 'Home', route: '/', use: 'screen', order: 1 } as const;
    for (let base = 0; base < size; base++)
      await history.append(
        id,
        { base, author: `d.w${base % 3}` },
        base % 50 ? `Step ${base}` : `Rename Home to ${base}`,
        () => ({
          change:
            base % 50
              ? putStill(`home:${base % 700}`, base % 2 === 0)
              : putScreen('home', { ...entry, name: `${base}` }),
        }),
      );
    // A server that has just been started knows none of it.
    const fresh = () => createServices(database.db, { error: () => {} });
    let head = size;
    note('open the project', await median(() => fresh().history.snapshot(id, 'd.w1')));
    note(
      'one edit',
      await median(() =>
        history.append(id, { base: head++, author: 'd.w1' }, 'Edit', () => ({
          change: putStill(`x:${head}`, true),
        })),
      ),
    );
    note('one undo', await median(() => history.undo(id, { base: head++, author: 'd.w1' })));
    note('the newest steps', await median(() => history.timeline(id, {})));
    note('steps with words in them', await median(() => history.timeline(id, { words: 'rename 150' })));
    note('a state of long ago', await median((run) => fresh().history.at(id, Math.floor(size / 3) + run)));
    note(
      'one row, for comparison',
      await median((run) =>
        database.db.query('INSERT INTO versions (project_id, seq, name, made_at) VALUES (?, ?, ?, ?)', [
          id,
          run,
          'x',
          new Date(),
        ]),
      ),
    );
  }
  row('', ...sizes.map((size) => `${size} steps`));
  for (const [what, some] of cells) row(what, ...some);
} finally {
  await services.workshop.close();
  await services.threads.close();
  await database.stop();
}
