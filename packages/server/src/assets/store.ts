import { createHash } from 'node:crypto';
import { ASSET_TYPES } from '@tovel/core';
import { type Database, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';

const TYPES: ReadonlySet<string> = new Set(ASSET_TYPES);

export interface StoredAsset {
  readonly type: string;
  readonly bytes: Buffer;
}

/** Files by the SHA-256 of their bytes: equal files are stored once, and none is ever overwritten. */
export class AssetStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  /** @throws HttpError when the bytes are not those the hash names. */
  async put(hash: string, type: string, bytes: Uint8Array): Promise<void> {
    if (!TYPES.has(type)) throw new HttpError('asset-type', `Files of type ${type} are not kept.`);
    if (createHash('sha256').update(bytes).digest('hex') !== hash)
      throw new HttpError(
        'asset-mismatch',
        'The bytes are not those that the name says; the file was damaged on its way. Send it again.',
      );
    await run(this.#db, 'INSERT IGNORE INTO assets (hash, type, size, bytes) VALUES (?, ?, ?, ?)', [
      hash,
      type,
      bytes.length,
      Buffer.from(bytes),
    ]);
  }

  async get(hash: string): Promise<StoredAsset> {
    const [row] = await rowsOf<StoredAsset>(this.#db, 'SELECT type, bytes FROM assets WHERE hash = ?', [
      hash,
    ]);
    if (!row) throw new HttpError('asset-missing', 'This file is not here.');
    return row;
  }

  /** Those of the hashes that are not stored yet. */
  async missing(hashes: readonly string[]): Promise<string[]> {
    if (!hashes.length) return [];
    const rows = await rowsOf<{ hash: string }>(
      this.#db,
      `SELECT hash FROM assets WHERE hash IN (${hashes.map(() => '?').join(', ')})`,
      hashes,
    );
    const known = new Set(rows.map((row) => row.hash));
    return hashes.filter((hash) => !known.has(hash));
  }

  async many(hashes: readonly string[]): Promise<Map<string, Uint8Array>> {
    const found = new Map<string, Uint8Array>();
    for (const hash of hashes) {
      const [row] = await rowsOf<StoredAsset>(this.#db, 'SELECT type, bytes FROM assets WHERE hash = ?', [
        hash,
      ]);
      if (row) found.set(hash, new Uint8Array(row.bytes));
    }
    return found;
  }
}
