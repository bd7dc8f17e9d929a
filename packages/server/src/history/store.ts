import {
  applyChange,
  type Change,
  type ChangeResult,
  type Conflict,
  type Design,
  type EntryHead,
  type EntryRole,
  type HistoryEntry,
  historyState,
  type HistoryState,
  invertChange,
} from '@tovel/core';
import { type Database, inTransaction, type Queryable, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';
import type { ProjectStore, StoredProject } from '../projects/store.ts';

/** The client's place in history is behind: what it missed goes back with it. */
export class Behind extends Error {
  readonly conflict: Conflict;

  constructor(conflict: Conflict) {
    super(conflict.message);
    this.conflict = conflict;
  }
}

interface ChangeRow {
  seq: number;
  role: EntryRole;
  of_seq: number | null;
  label: string;
  forward: string;
  inverse: string;
  revision_before: number | null;
  revision_after: number | null;
}

interface Step {
  readonly role: EntryRole;
  readonly of?: number;
  readonly label: string;
  readonly change: Change;
  /** With an intake: what the design becomes. */
  readonly design?: Design;
  /** With undoing or redoing an intake: the revision of the design that it goes to. */
  readonly revision?: number | null;
}

/** The history of each project: appended to in sequence, never rewritten. */
export class HistoryStore {
  readonly #db: Database;
  readonly #projects: ProjectStore;

  constructor(db: Database, projects: ProjectStore) {
    this.#db = db;
    this.#projects = projects;
  }

  async state(project: string, db: Queryable = this.#db): Promise<HistoryState> {
    const rows = await rowsOf<ChangeRow>(
      db,
      'SELECT seq, role, of_seq, label FROM changes WHERE project_id = ? ORDER BY seq',
      [project],
    );
    return historyState(rows.map(headOf));
  }

  async after(project: string, seq: number, db: Queryable = this.#db): Promise<HistoryEntry[]> {
    const rows = await rowsOf<ChangeRow>(
      db,
      'SELECT seq, role, of_seq, label, forward FROM changes WHERE project_id = ? AND seq > ? ORDER BY seq',
      [project, seq],
    );
    return rows.map((row) => ({ ...headOf(row), change: JSON.parse(row.forward) as Change }));
  }

  /**
   * Appends a step that was made on place `base`. When this returns, the step is on disk.
   * @throws Behind when others came first.
   */
  append(
    project: string,
    base: number,
    label: string,
    make: (current: StoredProject) => { change: Change; design?: Design },
  ): Promise<ChangeResult> {
    return this.#step(project, base, async (current) => ({ role: 'do', label, ...make(current) }));
  }

  undo(project: string, base: number): Promise<ChangeResult> {
    return this.#step(project, base, async (_, db) => {
      const { undo } = await this.state(project, db);
      if (!undo) throw new HttpError('nothing-to-undo', 'There is nothing to undo.');
      const { inverse, before } = await this.#changeAt(project, undo.seq, db);
      return { role: 'undo', of: undo.seq, label: undo.label, change: inverse, revision: before };
    });
  }

  redo(project: string, base: number): Promise<ChangeResult> {
    return this.#step(project, base, async (_, db) => {
      const { redo } = await this.state(project, db);
      if (!redo) throw new HttpError('nothing-to-redo', 'There is nothing to redo.');
      const of = redo.of ?? redo.seq;
      const { forward, after } = await this.#changeAt(project, of, db);
      return { role: 'redo', of, label: redo.label, change: forward, revision: after };
    });
  }

  async #changeAt(
    project: string,
    seq: number,
    db: Queryable,
  ): Promise<{ forward: Change; inverse: Change; before: number | null; after: number | null }> {
    const [row] = await rowsOf<ChangeRow>(
      db,
      'SELECT forward, inverse, revision_before, revision_after FROM changes WHERE project_id = ? AND seq = ?',
      [project, seq],
    );
    return {
      forward: JSON.parse(row.forward) as Change,
      inverse: JSON.parse(row.inverse) as Change,
      before: row.revision_before,
      after: row.revision_after,
    };
  }

  async #step(
    id: string,
    base: number,
    make: (current: StoredProject, db: Queryable) => Promise<Step>,
  ): Promise<ChangeResult> {
    const { project, entry, history } = await inTransaction(this.#db, async (db) => {
      const current = await this.#projects.read(id, db, true);
      if (current.seq !== base) throw await this.#behind(id, base, db);
      const step = await make(current, db);
      const seq = current.seq + 1;
      const changedAt = new Date();
      const revision = step.design
        ? await this.#projects.nextRevision(id, db)
        : (step.revision ?? current.revision);
      const design =
        step.design ??
        (revision === current.revision ? current.design : await this.#projects.design(id, revision, db));
      const isMoved = revision !== current.revision;
      const next: StoredProject = {
        ...current,
        seq,
        revision,
        design,
        app: applyChange(current.app, step.change),
        changedAt,
      };
      const inverse = invertChange(current.app, step.change);
      await run(
        db,
        'INSERT INTO changes (project_id, seq, role, of_seq, label, forward, inverse, made_at, revision_before, revision_after) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
        [
          id,
          seq,
          step.role,
          step.of ?? null,
          step.label.slice(0, 300),
          JSON.stringify(step.change),
          JSON.stringify(inverse),
          changedAt,
          isMoved ? current.revision : null,
          isMoved ? revision : null,
        ],
      );
      if (step.design) await this.#projects.writeDesign(db, id, revision, step.design);
      await this.#projects.write(db, next);
      const made: HistoryEntry = {
        seq,
        role: step.role,
        ...(step.of ? { of: step.of } : {}),
        label: step.label,
        change: step.change,
      };
      return { project: next, entry: made, history: await this.state(id, db) };
    });
    this.#projects.keep(project);
    return { entry, history, changedAt: project.changedAt.toISOString(), revision: project.revision };
  }

  async #behind(project: string, base: number, db: Queryable): Promise<Behind> {
    const missed = await this.after(project, base, db);
    const count = missed.length === 1 ? 'one change' : `${missed.length} changes`;
    return new Behind({
      code: 'behind',
      message: `The project has moved on by ${count}.`,
      missed,
      history: await this.state(project, db),
    });
  }
}

const headOf = (row: ChangeRow): EntryHead => ({
  seq: row.seq,
  role: row.role,
  ...(row.of_seq ? { of: row.of_seq } : {}),
  label: row.label,
});
