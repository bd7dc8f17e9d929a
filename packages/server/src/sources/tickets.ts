import { randomUUID } from 'node:crypto';
import { type Database, rowsOf, run } from '../database/pool.ts';
import type { StoredSource } from './store.ts';

type Fetched = Omit<StoredSource, 'id'>;

/** How long what was fetched may wait to be taken in. */
const HOURS = 24;

/** What was fetched and has not been taken in yet; in the database, so that any server can be told that it was. */
export class TicketStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async give({ address, etag, modified, hash }: Fetched): Promise<string> {
    const id = randomUUID();
    await run(
      this.#db,
      'INSERT INTO tickets (id, address, etag, modified, hash, made_at) VALUES (?, ?, ?, ?, ?, ?)',
      [id, address, etag, modified, hash, new Date()],
    );
    await run(this.#db, 'DELETE FROM tickets WHERE made_at < ?', [new Date(Date.now() - HOURS * 3_600_000)]);
    return id;
  }

  /** What was fetched under a ticket; null where it is not there or was taken already. */
  async take(id: string): Promise<Fetched | null> {
    const [row] = await rowsOf<Fetched & { made_at: Date }>(
      this.#db,
      'SELECT address, etag, modified, hash, made_at FROM tickets WHERE id = ?',
      [id],
    );
    if (!row || !(await run(this.#db, 'DELETE FROM tickets WHERE id = ?', [id]))) return null;
    const { made_at: fetchedAt, ...source } = row;
    return { ...source, fetchedAt };
  }
}
