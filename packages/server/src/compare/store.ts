import { type Database, rowsOf, run } from '../database/pool.ts';

/** How near what ran was to its reference, at one place of a project's history. */
export interface Score {
  readonly screen: string;
  readonly drawing: string;
  readonly width: number;
  readonly reference: string;
  readonly seq: number;
  readonly iteration: number;
  /** Differing pixels, in percent. */
  readonly percent: number;
  /** How many causes were told that nobody decided. */
  readonly causes: number;
  readonly at: string;
}

interface Row extends Omit<Score, 'at'> {
  readonly compared_at: Date;
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
