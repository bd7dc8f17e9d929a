import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { packageFolder } from '../config.ts';
import { type Database, rowsOf, run } from './pool.ts';

/** A server that holds the lock says so again well before this is over, or has ended. */
const LOCK_SECONDS = 30;
const WAIT_SECONDS = 120;

/**
 * Brings the database to the newest form: every numbered file that it has not had yet, in order. Of several servers that
 * start at once, one does it and the others wait. Changes of tables end a transaction of themselves, so a file is written
 * to be run again: after a crash in the middle, the next start begins at the statement that was not through.
 * @returns the files that were applied here.
 */
export async function migrate(
  db: Database,
  folder = path.join(packageFolder(), 'migrations'),
): Promise<string[]> {
  await run(
    db,
    'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(100) NOT NULL PRIMARY KEY, applied_at DATETIME(3) NOT NULL) ENGINE=InnoDB',
  );
  const files = readdirSync(folder)
    .filter((file) => /^\d{3}_.*\.sql$/.test(file))
    .sort();
  const waiting = async (): Promise<string[]> => {
    const rows = await rowsOf<{ name: string }>(db, 'SELECT name FROM migrations');
    return files.filter((file) => !rows.some((row) => row.name === file));
  };
  if (!(await waiting()).length) return [];
  const lock = await takeLock(db);
  try {
    const applied: string[] = [];
    for (const name of await waiting()) {
      for (const statement of statementsIn(readFileSync(path.join(folder, name), 'utf8'))) {
        await run(db, statement);
        await lock.hold();
      }
      await run(db, 'INSERT INTO migrations (name, applied_at) VALUES (?, ?)', [name, new Date()]);
      applied.push(name);
    }
    return applied;
  } finally {
    await lock.release();
  }
}

/** A lock in a table, since those of the server do not reach over a cluster. */
async function takeLock(db: Database): Promise<{ hold(): Promise<void>; release(): Promise<void> }> {
  await run(
    db,
    'CREATE TABLE IF NOT EXISTS migration_lock (id TINYINT NOT NULL PRIMARY KEY, holder CHAR(36) NOT NULL, until DATETIME(3) NOT NULL) ENGINE=InnoDB',
  );
  await run(db, "INSERT IGNORE INTO migration_lock (id, holder, until) VALUES (1, '', '2000-01-01')");
  const holder = randomUUID();
  const hold = async (): Promise<boolean> =>
    (await run(
      db,
      'UPDATE migration_lock SET holder = ?, until = UTC_TIMESTAMP(3) + INTERVAL ? SECOND WHERE id = 1 AND (holder = ? OR until < UTC_TIMESTAMP(3))',
      [holder, LOCK_SECONDS, holder],
    )) > 0;
  const deadline = Date.now() + WAIT_SECONDS * 1000;
  while (!(await hold())) {
    if (Date.now() > deadline)
      throw new Error(
        'Another server has been changing the tables of the database for two minutes. See its log; start this one again when it is done.',
      );
    await pause(200);
  }
  return {
    hold: async () => {
      if (!(await hold())) throw new Error('Another server began to change the tables meanwhile.');
    },
    release: async () => {
      await run(db, "UPDATE migration_lock SET holder = '', until = '2000-01-01' WHERE holder = ?", [holder]);
    },
  };
}

export const statementsIn = (sql: string): string[] =>
  sql
    .split(/;\s*(?:\n|$)/)
    .map((statement) => statement.trim())
    .filter(Boolean);
