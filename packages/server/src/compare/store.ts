import type { KeptScore, KeptSweep, SweptFault } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';

/** How near what ran was to its reference, and when it was looked at. */
export interface Score extends KeptScore {
  readonly at: string;
}

interface Row extends Omit<Score, 'at'> {
  readonly compared_at: Date;
}

/** What was found of a screen from narrow to wide, at the last place of the history at which it was looked at. */
export interface Swept extends KeptSweep {
  readonly seq: number;
  readonly at: string;
}

/** Scores that are told of a project. */
const MOST = 5000;

export class ComparisonStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async put(project: string, score: Omit<Score, 'at'>): Promise<void> {
    const { screen, drawing, width, reference, seq, iteration, percent, causes } = score;
    await run(
      this.#db,
      'REPLACE INTO comparisons (project_id, screen, drawing, width, reference, seq, iteration, percent, causes, compared_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [project, screen, drawing, width, reference, seq, iteration, percent, causes, new Date()],
    );
  }

  async putSweep(project: string, { screen, seq, faults }: Omit<Swept, 'at'>): Promise<void> {
    await run(
      this.#db,
      'REPLACE INTO sweeps (project_id, screen, seq, faults, swept_at) VALUES (?, ?, ?, ?, ?)',
      [project, screen, seq, JSON.stringify(faults), new Date()],
    );
  }

  async sweepsOf(project: string): Promise<Swept[]> {
    const rows = await rowsOf<{ screen: string; seq: number; faults: string; swept_at: Date }>(
      this.#db,
      'SELECT screen, seq, faults, swept_at FROM sweeps WHERE project_id = ? ORDER BY screen',
      [project],
    );
    return rows.map(({ screen, seq, faults, swept_at: at }) => ({
      screen,
      seq,
      faults: JSON.parse(faults) as SweptFault[],
      at: at.toISOString(),
    }));
  }

  /** All that were kept, oldest first. */
  async of(project: string): Promise<Score[]> {
    const rows = await rowsOf<Row>(
      this.#db,
      `SELECT screen, drawing, width, reference, seq, iteration, percent, causes, compared_at FROM comparisons WHERE project_id = ? ORDER BY seq DESC, compared_at DESC LIMIT ${MOST}`,
      [project],
    );
    return rows.reverse().map(({ compared_at: at, ...score }) => ({ ...score, at: at.toISOString() }));
  }
}
