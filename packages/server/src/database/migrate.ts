import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { packageFolder } from '../config.ts';
import { type Database, rowsOf, run } from './pool.ts';

/** Brings the database to the newest form: every numbered file that it has not had yet, in order. */
export async function migrate(
  db: Database,
  folder = path.join(packageFolder(), 'migrations'),
): Promise<string[]> {
  await run(
    db,
    'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(100) NOT NULL PRIMARY KEY, applied_at DATETIME(3) NOT NULL) ENGINE=InnoDB',
  );
  const done = new Set(
    (await rowsOf<{ name: string }>(db, 'SELECT name FROM migrations')).map((row) => row.name),
  );
  const applied: string[] = [];
  for (const name of readdirSync(folder)
    .filter((file) => /^\d{3}_.*\.sql$/.test(file))
    .sort()) {
    if (done.has(name)) continue;
    // Statements that change tables end a transaction of themselves, so each file is written to be small.
    for (const statement of statementsIn(readFileSync(path.join(folder, name), 'utf8')))
      await run(db, statement);
    await run(db, 'INSERT INTO migrations (name, applied_at) VALUES (?, ?)', [name, new Date()]);
    applied.push(name);
  }
  return applied;
}

export const statementsIn = (sql: string): string[] =>
  sql
    .split(/;\s*(?:\n|$)/)
    .map((statement) => statement.trim())
    .filter(Boolean);
