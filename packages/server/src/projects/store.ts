import { randomBytes } from 'node:crypto';
import {
  type App,
  asWrittenNow,
  type Design,
  emptyApp,
  emptyDesign,
  graphOf,
  type ProjectSummary,
} from '@tovel/core';
import { type Database, inTransaction, type Queryable, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';

/** A project's documents at one place of its history. */
export interface StoredProject {
  readonly id: string;
  readonly name: string;
  readonly seq: number;
  readonly revision: number;
  readonly design: Design;
  readonly app: App;
  readonly changedAt: Date;
}

interface ProjectRow {
  id: string;
  name: string;
  seq: number;
  revision: number;
  app: string;
  screens: number;
  live: number;
  elements: number;
  changed_at: Date;
  deleted_at: Date | null;
}

const newId = (): string =>
  [...randomBytes(12)]
    .map((byte) => 'abcdefghijkmnpqrstuvwxyz23456789'[byte % 32 === 31 ? 30 : byte % 31])
    .join('');

const CACHED = 20;

interface SourceRow {
  readonly address: string;
  readonly etag: string | null;
  readonly modified: string | null;
  readonly hash: string;
  readonly fetched_at: Date;
}

/** Puts a project without a history into the database. */
function inserting(id: string, name: string, design: Design, app: App): (db: Queryable) => Promise<void> {
  const now = new Date();
  const { screens, live, elements } = countsOf(design, app);
  const [appText, designText] = [JSON.stringify(app), JSON.stringify(design)];
  return async (db) => {
    await run(
      db,
      'INSERT INTO projects (id, name, app, screens, live, elements, created_at, changed_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [id, name, appText, screens, live, elements, now, now],
    );
    await run(db, 'INSERT INTO designs (project_id, revision, doc) VALUES (?, 0, ?)', [id, designText]);
  };
}

/** Projects in the database. Documents that were read are kept by their place in history, since they never change. */
export class ProjectStore {
  readonly #db: Database;
  readonly #designs = new Map<string, Design>();
  readonly #apps = new Map<string, App>();

  constructor(db: Database) {
    this.#db = db;
  }

  async list(): Promise<ProjectSummary[]> {
    const rows = await rowsOf<ProjectRow>(
      this.#db,
      'SELECT id, name, screens, live, elements, changed_at, deleted_at FROM projects ORDER BY changed_at DESC, id',
    );
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      screens: row.screens,
      live: row.live,
      elements: row.elements,
      changedAt: row.changed_at.toISOString(),
      deletedAt: row.deleted_at?.toISOString() ?? null,
    }));
  }

  async create(name: string, design: Design = emptyDesign, app: App = emptyApp): Promise<string> {
    const id = newId();
    await inTransaction(this.#db, inserting(id, name, design, app));
    return id;
  }

  async rename(id: string, name: string): Promise<void> {
    if (
      !(await run(
        this.#db,
        'UPDATE projects SET name = ?, changed_at = ? WHERE id = ? AND deleted_at IS NULL',
        [name, new Date(), id],
      ))
    )
      throw missing();
  }

  /** A deleted project stays in the database, so that the deletion can be undone. */
  async setDeleted(id: string, isDeleted: boolean): Promise<void> {
    if (
      !(await run(this.#db, 'UPDATE projects SET deleted_at = ? WHERE id = ?', [
        isDeleted ? new Date() : null,
        id,
      ]))
    )
      throw missing();
  }

  /** A copy begins a history of its own; its screens come from the same places. */
  async copy(id: string): Promise<string> {
    const { name, design, app } = await this.read(id);
    const copy = newId();
    const insert = inserting(copy, `${name} copy`.slice(0, 120), design, app);
    // Read apart from writing, so that copies that are made at once do not wait for each other.
    const sources = await rowsOf<SourceRow>(
      this.#db,
      'SELECT address, etag, modified, hash, fetched_at FROM sources WHERE project_id = ?',
      [id],
    );
    await inTransaction(this.#db, async (db) => {
      await insert(db);
      for (const { address, etag, modified, hash, fetched_at } of sources)
        await run(
          db,
          'INSERT INTO sources (project_id, address, etag, modified, hash, fetched_at) VALUES (?, ?, ?, ?, ?, ?)',
          [copy, address, etag, modified, hash, fetched_at],
        );
    });
    return copy;
  }

  /** @throws HttpError where a project is not there. */
  async require(id: string): Promise<void> {
    const rows = await rowsOf(this.#db, 'SELECT 1 FROM projects WHERE id = ? AND deleted_at IS NULL', [id]);
    if (!rows.length) throw missing();
  }

  /** @param lock whether the row stays locked until the transaction of `db` ends. */
  async read(id: string, db: Queryable = this.#db, lock = false): Promise<StoredProject> {
    const [row] = await rowsOf<Omit<ProjectRow, 'app'>>(
      db,
      `SELECT id, name, seq, revision, changed_at FROM projects WHERE id = ? AND deleted_at IS NULL${lock ? ' FOR UPDATE' : ''}`,
      [id],
    );
    if (!row) throw missing();
    const app = await this.#app(id, row.seq, db, lock);
    // Somebody went on meanwhile.
    if (!app) return this.read(id, db, lock);
    return {
      id,
      name: row.name,
      seq: row.seq,
      revision: row.revision,
      design: await this.design(id, row.revision, db),
      app,
      changedAt: row.changed_at,
    };
  }

  /** The app at a place of the history; null where that is not the last one any more. It is long, and mostly known. */
  async #app(id: string, seq: number, db: Queryable, lock: boolean): Promise<App | null> {
    const key = `${id} ${seq}`;
    const known = this.#apps.get(key);
    if (known) return remember(this.#apps, key, () => known);
    const [row] = await rowsOf<Pick<ProjectRow, 'app'>>(
      db,
      `SELECT app FROM projects WHERE id = ? AND seq = ?${lock ? ' FOR UPDATE' : ''}`,
      [id, seq],
    );
    return row ? remember(this.#apps, key, () => ({ ...emptyApp, ...(JSON.parse(row.app) as App) })) : null;
  }

  /** The design at one of its revisions; these never change and none is ever removed. */
  async design(id: string, revision: number, db: Queryable = this.#db): Promise<Design> {
    const known = this.#designs.get(`${id} ${revision}`);
    if (known) return known;
    const [row] = await rowsOf<{ doc: string }>(
      db,
      'SELECT doc FROM designs WHERE project_id = ? AND revision = ?',
      [id, revision],
    );
    // What was taken in by an older version is read as it would be written now.
    return remember(this.#designs, `${id} ${revision}`, () => asWrittenNow(JSON.parse(row.doc)) as Design);
  }

  /** Writes what a step led to; within the transaction that recorded the step. */
  async write(db: Queryable, project: StoredProject): Promise<void> {
    const { id, seq, revision, design, app, changedAt } = project;
    const { screens, live, elements } = countsOf(design, app);
    await run(
      db,
      'UPDATE projects SET seq = ?, revision = ?, app = ?, screens = ?, live = ?, elements = ?, changed_at = ? WHERE id = ?',
      [seq, revision, JSON.stringify(app), screens, live, elements, changedAt, id],
    );
  }

  async nextRevision(id: string, db: Queryable): Promise<number> {
    const [row] = await rowsOf<{ last: number }>(
      db,
      'SELECT MAX(revision) AS last FROM designs WHERE project_id = ?',
      [id],
    );
    return Number(row.last) + 1;
  }

  /** A number for an iteration that no other of the project has or had, undone ones included. */
  async nextIteration(id: string): Promise<number> {
    const [row] = await rowsOf<{ first: string | null }>(
      this.#db,
      "SELECT JSON_VALUE(doc, '$.iteration') AS first FROM designs WHERE project_id = ? AND revision = 0",
      [id],
    );
    return Number(row?.first ?? 1) + (await this.nextRevision(id, this.#db));
  }

  async writeDesign(db: Queryable, id: string, revision: number, design: Design): Promise<void> {
    await run(db, 'INSERT INTO designs (project_id, revision, doc) VALUES (?, ?, ?)', [
      id,
      revision,
      JSON.stringify(design),
    ]);
  }

  /** Called once a transaction is through: only then are its documents those of this place in history. */
  keep(project: StoredProject): void {
    remember(this.#apps, `${project.id} ${project.seq}`, () => project.app);
    remember(this.#designs, `${project.id} ${project.revision}`, () => project.design);
  }
}

const missing = (): HttpError =>
  new HttpError(
    'project-missing',
    'This project is not here. It may have been deleted: see the Projects page.',
  );

function countsOf(design: Design, app: App): { screens: number; live: number; elements: number } {
  const { screens, counts } = graphOf({ design, app });
  return { screens: screens.length, live: counts.live, elements: counts.elements };
}

function remember<T>(cache: Map<string, T>, key: string, make: () => T): T {
  const value = cache.get(key) ?? make();
  cache.delete(key);
  cache.set(key, value);
  if (cache.size > CACHED) cache.delete(cache.keys().next().value!);
  return value;
}
