import type { CodeDelivery } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';

/** So many are told; older ones are named places of the history at best. */
const MOST = 30;

/** When the code of projects was handed over, and of which places of their histories. The code itself follows from those. */
export class DeliveryStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  /** The newest first. */
  async list(project: string): Promise<CodeDelivery[]> {
    const rows = await rowsOf<{
      id: number;
      seq: number;
      name: string;
      kind: CodeDelivery['kind'];
      made_at: Date;
    }>(
      this.#db,
      'SELECT id, seq, name, kind, made_at FROM deliveries WHERE project_id = ? ORDER BY made_at DESC, id DESC LIMIT ?',
      [project, MOST],
    );
    return rows.map(({ made_at: madeAt, ...delivery }) => ({ ...delivery, madeAt: madeAt.toISOString() }));
  }

  /** The same code handed over again in the same way is one delivery, the later one. */
  async add(
    project: string,
    { seq, name, kind }: Pick<CodeDelivery, 'seq' | 'name' | 'kind'>,
  ): Promise<void> {
    const now = new Date();
    await run(
      this.#db,
      'INSERT INTO deliveries (project_id, seq, name, kind, made_at) VALUES (?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE made_at = ?',
      [project, seq, name, kind, now, now],
    );
  }
}
