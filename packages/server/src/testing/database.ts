import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { migrate } from '../database/migrate.ts';
import { type Database, openPool } from '../database/pool.ts';
import { type PrivateDatabase, startPrivateDatabase } from '../database/private_server.ts';

export interface TestDatabase {
  readonly db: Database;
  readonly server: PrivateDatabase;
  readonly folder: string;
  stop(): Promise<void>;
}

/** A MariaDB of the test's own, in a folder of its own; nothing of the user's is touched. */
export async function startTestDatabase(): Promise<TestDatabase> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-db-'));
  const server = await startPrivateDatabase(folder);
  const db = openPool(server.address);
  await migrate(db);
  return {
    db,
    server,
    folder,
    async stop() {
      await db.end();
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
