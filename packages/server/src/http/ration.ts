import type { FastifyInstance } from 'fastify';
import type { Cost } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';
import { HttpError } from './errors.ts';

/** What one address may spend in a minute on work that is rationed: packing, fetching, compiling. */
const HEAVY_A_MINUTE = 600;

/**
 * Rations what is dear. Looks and steps are not counted: a step is bounded by the lock of its project, and fifty people
 * behind one address make many. What is spent is kept in the database, so that several servers share one purse.
 */
export function ration(app: FastifyInstance, db: Database): void {
  app.addHook('preHandler', async (request) => {
    const { cost } = request.routeOptions.config as { cost?: Cost };
    if (cost !== 'heavy') return;
    const minute = Math.floor(Date.now() / 60_000);
    const spender = request.ip.slice(0, 120);
    await run(
      db,
      'INSERT INTO spending (spender, minute, spent) VALUES (?, ?, 1) ON DUPLICATE KEY UPDATE spent = spent + 1',
      [spender, minute],
    );
    const [row] = await rowsOf<{ spent: number }>(
      db,
      'SELECT spent FROM spending WHERE spender = ? AND minute = ?',
      [spender, minute],
    );
    if (row.spent === 1) await run(db, 'DELETE FROM spending WHERE minute < ?', [minute - 2]);
    if (row.spent > HEAVY_A_MINUTE)
      throw new HttpError(
        'busy',
        `More than ${HEAVY_A_MINUTE} pieces of work were asked for within a minute. Ask again in a moment.`,
        60 - Math.floor((Date.now() / 1000) % 60),
      );
  });
}
