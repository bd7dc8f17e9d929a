import type { DesignSource } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';

/** What was said of a source when it was last fetched. */
export interface StoredSource {
  readonly id: number;
  readonly address: string;
  readonly etag: string | null;
  readonly modified: string | null;
  readonly hash: string | null;
  readonly fetchedAt: Date;
}

interface SourceRow extends Omit<StoredSource, 'fetchedAt'> {
  readonly fetched_at: Date;
}

/** The places on the web that a project's screens come from. */
export class SourceStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async list(project: string): Promise<DesignSource[]> {
    const rows = await rowsOf<SourceRow>(
      this.#db,
      'SELECT id, address, fetched_at FROM sources WHERE project_id = ? ORDER BY id',
      [project],
    );
    return rows.map((row) => ({
      id: Number(row.id),
      address: row.address,
      fetchedAt: row.fetched_at.toISOString(),
    }));
  }

  async get(project: string, id: number): Promise<StoredSource> {
    const [row] = await rowsOf<SourceRow>(this.#db, 'SELECT * FROM sources WHERE project_id = ? AND id = ?', [
      project,
      id,
    ]);
    if (!row) throw new HttpError('not-found', 'This source is not part of the project.');
    return { ...row, id: Number(row.id), fetchedAt: row.fetched_at };
  }

  /** Remembers a source, or what it said this time. Returns its id. */
  async keep(project: string, source: Omit<StoredSource, 'id'>): Promise<number> {
    const { address, etag, modified, hash, fetchedAt } = source;
    const [known] = await rowsOf<{ id: number }>(
      this.#db,
      'SELECT id FROM sources WHERE project_id = ? AND address = ?',
      [project, address],
    );
    if (known) {
      await run(
        this.#db,
        'UPDATE sources SET etag = ?, modified = ?, hash = ?, fetched_at = ? WHERE id = ?',
        [etag, modified, hash, fetchedAt, known.id],
      );
      return Number(known.id);
    }
    await run(
      this.#db,
      'INSERT INTO sources (project_id, address, etag, modified, hash, fetched_at) VALUES (?, ?, ?, ?, ?, ?)',
      [project, address, etag, modified, hash, fetchedAt],
    );
    return this.keep(project, source);
  }

  async forget(project: string, id: number): Promise<void> {
    await run(this.#db, 'DELETE FROM sources WHERE project_id = ? AND id = ?', [project, id]);
  }
}
