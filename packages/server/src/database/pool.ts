import mysql from 'mysql2/promise';
import type { DatabaseAddress } from './private_server.ts';

export type Database = mysql.Pool;
/** A pool, or one connection of it within a transaction. */
export type Queryable = Pick<mysql.Pool, 'execute'>;

export function openPool(address: DatabaseAddress | string): Database {
  const common: mysql.PoolOptions = {
    connectionLimit: 10,
    timezone: 'Z',
    dateStrings: false,
    multipleStatements: false,
    enableKeepAlive: true,
    maxIdle: 4,
  };
  return typeof address === 'string'
    ? mysql.createPool({ ...common, uri: address })
    : mysql.createPool({ ...common, ...address });
}

export type Row = mysql.RowDataPacket;

/** Rows of a parameterised statement. */
export async function rowsOf<T>(
  db: Queryable,
  sql: string,
  values: readonly (string | number | Date | Buffer | null)[] = [],
): Promise<T[]> {
  const [rows] = await db.execute<Row[]>(sql, [...values]);
  return rows as T[];
}

/** Runs a statement; returns how many rows it touched. */
export async function run(
  db: Queryable,
  sql: string,
  values: readonly (string | number | Date | Buffer | null)[] = [],
): Promise<number> {
  const [result] = await db.execute<mysql.ResultSetHeader>(sql, [...values]);
  return result.affectedRows;
}

/** What a transaction that met another is answered with; it left nothing behind and can be done again. */
const MET = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);
const MOST_ATTEMPTS = 4;

/**
 * Does work in a transaction: all of it is kept, or, when it throws, none. One that met another is done again, from the
 * start, so the work must not do anything else.
 * @param kind a snapshot sees one moment of the database and writes nothing.
 */
export async function inTransaction<T>(
  pool: Database,
  work: (db: Queryable) => Promise<T>,
  kind: 'change' | 'snapshot' = 'change',
): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await once(pool, work, kind);
    } catch (error) {
      if (attempt >= MOST_ATTEMPTS || !MET.has((error as { code?: string }).code ?? '')) throw error;
    }
  }
}

async function once<T>(
  pool: Database,
  work: (db: Queryable) => Promise<T>,
  kind: 'change' | 'snapshot',
): Promise<T> {
  const connection = await pool.getConnection();
  try {
    if (kind === 'snapshot') await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY');
    else await connection.beginTransaction();
    const result = await work(connection);
    await connection.commit();
    return result;
  } catch (error) {
    await connection.rollback().catch(() => connection.destroy());
    throw error;
  } finally {
    connection.release();
  }
}
