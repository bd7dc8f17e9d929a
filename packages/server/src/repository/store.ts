import { type Database, rowsOf, run } from '../database/pool.ts';

/** Where a project's code is pushed to, and what was pushed last. The token is in no store. */
export interface StoredRepository {
  readonly address: string;
  readonly branch: string;
  readonly pushed: { readonly commit: string; readonly seq: number; readonly at: string } | null;
}

interface Row {
  readonly address: string;
  readonly branch: string;
  readonly commit_hash: string | null;
  readonly seq: number | null;
  readonly pushed_at: Date | null;
}

export class RepositoryStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async get(project: string): Promise<StoredRepository | null> {
    const [row] = await rowsOf<Row>(
      this.#db,
      'SELECT address, branch, commit_hash, seq, pushed_at FROM repositories WHERE project_id = ?',
      [project],
    );
    if (!row) return null;
    const { address, branch, commit_hash: commit, seq, pushed_at: at } = row;
    const pushed =
      commit !== null && seq !== null && at !== null ? { commit, seq, at: at.toISOString() } : null;
    return { address, branch, pushed };
  }

  /** What was pushed elsewhere says nothing of another address or branch. */
  async connect(project: string, address: string, branch: string): Promise<void> {
    const known = await this.get(project);
    if (known?.address === address && known.branch === branch) return;
    await run(this.#db, 'REPLACE INTO repositories (project_id, address, branch) VALUES (?, ?, ?)', [
      project,
      address,
      branch,
    ]);
  }

  async pushed(project: string, commit: string, seq: number): Promise<void> {
    await run(
      this.#db,
      'UPDATE repositories SET commit_hash = ?, seq = ?, pushed_at = ? WHERE project_id = ?',
      [commit, seq, new Date(), project],
    );
  }

  async disconnect(project: string): Promise<void> {
    await run(this.#db, 'DELETE FROM repositories WHERE project_id = ?', [project]);
  }
}
