import type { Version } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';

/** Names of places in histories. The places themselves are never lost, named or not. */
export class VersionStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async list(project: string): Promise<Version[]> {
    const rows = await rowsOf<{ id: number; name: string; seq: number; made_at: Date }>(
      this.#db,
      'SELECT id, name, seq, made_at FROM versions WHERE project_id = ? ORDER BY seq DESC, id DESC',
      [project],
    );
    return rows.map(({ id, name, seq, made_at: madeAt }) => ({
      id,
      name,
      seq,
      madeAt: madeAt.toISOString(),
    }));
  }

  async add(project: string, name: string, seq: number): Promise<Version> {
    await run(this.#db, 'INSERT INTO versions (project_id, seq, name, made_at) VALUES (?, ?, ?, ?)', [
      project,
      seq,
      name,
      new Date(),
    ]);
    const [newest] = (await this.list(project)).sort((a, b) => b.id - a.id);
    return newest;
  }

  async rename(project: string, id: number, name: string): Promise<void> {
    if (
      !(await run(this.#db, 'UPDATE versions SET name = ? WHERE project_id = ? AND id = ?', [
        name,
        project,
        id,
      ]))
    )
      throw missing();
  }

  async forget(project: string, id: number): Promise<void> {
    if (!(await run(this.#db, 'DELETE FROM versions WHERE project_id = ? AND id = ?', [project, id])))
      throw missing();
  }
}

const missing = (): HttpError => new HttpError('not-found', 'This version is not named any more.');
