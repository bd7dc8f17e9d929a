import type { Note, Seen, ShownElement } from '@tovel/core';
import { type Database, inTransaction, rowsOf, run } from '../database/pool.ts';

/** What a screen of a published app shows, and at which route. */
export interface ShownScreen {
  readonly screen: string;
  readonly route: string;
  readonly elements: readonly ShownElement[];
}

/** Where an app is published, and what. */
export interface StoredPublication {
  readonly project: string;
  readonly host: string;
  readonly port: number;
  /** What is kept of the pass phrase, where one is wanted. */
  readonly pass: string | null;
  /** Whether it is served; what was taken back keeps its address. */
  readonly isOpen: boolean;
  /** Which release it is, from 1. */
  readonly number: number;
  readonly title: string;
  readonly version: string;
  /** The place in the history that was published. */
  readonly seq: number;
  readonly publishedAt: Date;
}

export interface PublishedFile {
  readonly type: string;
  readonly bytes: Buffer;
}

interface Row {
  readonly project_id: string;
  readonly host: string;
  readonly port: number;
  readonly pass: string | null;
  readonly is_open: number;
  readonly number: number;
  readonly title: string;
  readonly version: string;
  readonly seq: number;
  readonly published_at: Date;
}

interface NoteRow {
  readonly id: number;
  readonly version: string;
  readonly path: string;
  readonly screen: string | null;
  readonly element: string | null;
  readonly seen: string;
  readonly text: string;
  readonly author: string;
  readonly left_at: Date;
  readonly answer: string | null;
  readonly settled_at: Date | null;
}

const FIELDS = 'project_id, host, port, pass, is_open, number, title, version, seq, published_at';

export class PublicationStore {
  readonly #db: Database;

  constructor(db: Database) {
    this.#db = db;
  }

  async get(project: string): Promise<StoredPublication | null> {
    const [row] = await rowsOf<Row>(this.#db, `SELECT ${FIELDS} FROM publications WHERE project_id = ?`, [
      project,
    ]);
    return row ? read(row) : null;
  }

  async all(): Promise<StoredPublication[]> {
    return (await rowsOf<Row>(this.#db, `SELECT ${FIELDS} FROM publications ORDER BY port`, [])).map(read);
  }

  /** Freezes what is published, in the place of what was. */
  async put(
    publication: StoredPublication,
    files: ReadonlyMap<string, PublishedFile>,
    shown: readonly ShownScreen[],
  ): Promise<void> {
    const { project, host, port, pass, isOpen, number, title, version, seq, publishedAt } = publication;
    const values = [
      host,
      port,
      pass,
      Number(isOpen),
      number,
      title,
      version,
      seq,
      publishedAt,
      JSON.stringify(shown),
    ];
    await inTransaction(this.#db, async (db) => {
      await run(db, 'DELETE FROM published_files WHERE project_id = ?', [project]);
      await run(
        db,
        `INSERT INTO publications (project_id, host, port, pass, is_open, number, title, version, seq, published_at, shown)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
         ON DUPLICATE KEY UPDATE host = ?, port = ?, pass = ?, is_open = ?, number = ?, title = ?, version = ?, seq = ?,
           published_at = ?, shown = ?`,
        [project, ...values, ...values],
      );
      for (const [path, { type, bytes }] of files)
        await run(db, 'INSERT INTO published_files (project_id, path, type, bytes) VALUES (?, ?, ?, ?)', [
          project,
          path,
          type,
          bytes,
        ]);
    });
  }

  async setOpen(project: string, isOpen: boolean): Promise<void> {
    await run(this.#db, 'UPDATE publications SET is_open = ? WHERE project_id = ?', [
      Number(isOpen),
      project,
    ]);
  }

  async files(project: string): Promise<Map<string, PublishedFile>> {
    const rows = await rowsOf<PublishedFile & { readonly path: string }>(
      this.#db,
      'SELECT path, type, bytes FROM published_files WHERE project_id = ?',
      [project],
    );
    return new Map(rows.map(({ path, type, bytes }) => [path, { type, bytes }]));
  }

  async shown(project: string): Promise<readonly ShownScreen[]> {
    const [row] = await rowsOf<{ readonly shown: string }>(
      this.#db,
      'SELECT shown FROM publications WHERE project_id = ?',
      [project],
    );
    return row ? (JSON.parse(row.shown) as ShownScreen[]) : [];
  }

  /** Notes that visitors left, the newest first. */
  async notes(project: string): Promise<(Note & { readonly seen: Seen })[]> {
    const rows = await rowsOf<NoteRow>(
      this.#db,
      'SELECT id, version, path, screen, element, seen, text, author, left_at, answer, settled_at FROM notes WHERE project_id = ? ORDER BY id DESC LIMIT 1000',
      [project],
    );
    return rows.map(({ left_at: leftAt, settled_at: settledAt, seen, ...note }) => ({
      ...note,
      seen: JSON.parse(seen) as Seen,
      leftAt: leftAt.toISOString(),
      settledAt: settledAt?.toISOString() ?? null,
    }));
  }

  async addNote(
    project: string,
    note: Pick<Note, 'version' | 'path' | 'screen' | 'element' | 'text' | 'author'> & { readonly seen: Seen },
  ): Promise<void> {
    const { version, path, screen, element, seen, text, author } = note;
    await run(
      this.#db,
      'INSERT INTO notes (project_id, version, path, screen, element, seen, text, author, left_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [project, version, path, screen, element, JSON.stringify(seen), text, author, new Date()],
    );
  }

  /** @returns whether there is such a note */
  async answer(project: string, id: number, answer: string | null, isSettled: boolean): Promise<boolean> {
    return (
      (await run(
        this.#db,
        'UPDATE notes SET answer = ?, settled_at = IF(?, COALESCE(settled_at, ?), NULL) WHERE project_id = ? AND id = ?',
        [answer, Number(isSettled), new Date(), project, id],
      )) > 0
    );
  }
}

const read = (row: Row): StoredPublication => ({
  project: row.project_id,
  host: row.host,
  port: row.port,
  pass: row.pass,
  isOpen: Boolean(row.is_open),
  number: row.number,
  title: row.title,
  version: row.version,
  seq: row.seq,
  publishedAt: row.published_at,
});
