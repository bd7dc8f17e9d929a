import type { Design, WaitingRound } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';

export interface Round {
  readonly read: Design;
  readonly whole: boolean;
  /** Of what was fetched for a source. */
  readonly ticket: string | null;
}

/** Next rounds of screens that were read and wait to be taken in: one a project, the last that came. */
export class RoundStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async keep(project: string, { read, whole, ticket }: Round): Promise<void> {
    await run(
      this.#db,
      'REPLACE INTO rounds (project_id, doc, whole, ticket, screens, made_at) VALUES (?, ?, ?, ?, ?, ?)',
      [project, JSON.stringify(read), whole ? 1 : 0, ticket, read.screens.length, new Date()],
    );
  }

  async head(project: string): Promise<WaitingRound> {
    const [row] = await rowsOf<{ whole: number; screens: number; made_at: Date }>(
      this.#db,
      'SELECT whole, screens, made_at FROM rounds WHERE project_id = ?',
      [project],
    );
    return row ? { whole: row.whole === 1, screens: row.screens, madeAt: row.made_at.toISOString() } : null;
  }

  /** @throws HttpError where none waits. */
  async get(project: string): Promise<Round> {
    const [row] = await rowsOf<{ doc: string; whole: number; ticket: string | null }>(
      this.#db,
      'SELECT doc, whole, ticket FROM rounds WHERE project_id = ?',
      [project],
    );
    if (!row)
      throw new HttpError('not-found', 'No next round waits here. It was taken in, or put away, elsewhere.');
    return { read: JSON.parse(row.doc) as Design, whole: row.whole === 1, ticket: row.ticket };
  }

  async drop(project: string): Promise<void> {
    await run(this.#db, 'DELETE FROM rounds WHERE project_id = ?', [project]);
  }
}
