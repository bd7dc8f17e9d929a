import {
  applyChange,
  type Change,
  type ChangeResult,
  collisions,
  composeKeys,
  type Conflict,
  type Design,
  type EntryHead,
  type EntryRole,
  type HistoryEntry,
  historyState,
  type HistoryState,
  inTheWay,
  invertKeys,
  keyMapOf,
  type KeyMapping,
  mapChange,
  invertChange,
  type Reader,
  sameKeys,
  speaksOfGone,
  standings,
  type StandingStep,
} from '@tovel/core';
import { type Database, inTransaction, type Queryable, rowsOf, run } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';
import type { ProjectStore, StoredProject } from '../projects/store.ts';

/** The client's place in history is behind, and somebody wrote what it writes: what it missed goes back with it. */
export class Behind extends Error {
  readonly conflict: Conflict;

  constructor(conflict: Conflict) {
    super(conflict.message);
    this.conflict = conflict;
  }
}

/** What a step says of itself. */
export interface StepInput {
  /** The place in the history that it was made on. */
  readonly base: number;
  /** The author's name for it: said twice, it is done once. */
  readonly id?: string;
  readonly author?: string;
  /** The place in the history when the author's window was opened. */
  readonly since?: number;
}

interface ChangeRow {
  seq: number;
  role: EntryRole;
  of_seq: number | null;
  label: string;
  author: string | null;
  step_id: string | null;
  forward: string;
  inverse: string;
  made_at: Date;
  revision_before: number | null;
  revision_after: number | null;
  mapping: string | null;
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
  /** With what moves the design: where its keys went. */
  readonly mapping?: KeyMapping | null;
  /** It was made of what is there now, and so collides with nothing. */
  readonly isFresh?: boolean;
}

const HEAD = 'seq, role, of_seq, label, author';
/** Histories whose heads are kept. */
const KEPT = 50;

/** The history of each project: appended to in sequence, never rewritten. */
export class HistoryStore {
  readonly #db: Database;
  readonly #projects: ProjectStore;
  /** Heads of entries that were read, from the first on: they never change, so only later ones are asked for. */
  readonly #heads = new Map<string, EntryHead[]>();

  constructor(db: Database, projects: ProjectStore) {
    this.#db = db;
    this.#projects = projects;
  }

  /** What undo and redo act on for a reader, at a place of the history. */
  async state(
    project: string,
    seq: number,
    reader?: Reader,
    db: Queryable = this.#db,
  ): Promise<HistoryState> {
    return { ...historyState(await this.#headsUpTo(project, seq, db), reader), seq };
  }

  /** A project and its history at one and the same moment. */
  async snapshot(
    project: string,
    author?: string,
  ): Promise<StoredProject & { readonly history: HistoryState }> {
    return inTransaction(
      this.#db,
      async (db) => {
        const stored = await this.#projects.read(project, db);
        const reader = author ? { author, since: stored.seq } : undefined;
        return { ...stored, history: await this.state(project, stored.seq, reader, db) };
      },
      'snapshot',
    );
  }

  async after(project: string, seq: number, db: Queryable = this.#db): Promise<HistoryEntry[]> {
    const rows = await rowsOf<ChangeRow>(
      db,
      `SELECT ${HEAD}, step_id, forward FROM changes WHERE project_id = ? AND seq > ? ORDER BY seq`,
      [project, seq],
    );
    return rows.map(entryOf);
  }

  /**
   * Appends a step that was made on place `base`. When this returns, the step is on disk. Where others came first but
   * wrote other places, it follows theirs; what was missed is in the answer.
   * @throws Behind when others wrote the same place.
   */
  append(
    project: string,
    input: StepInput,
    label: string,
    make: (current: StoredProject) => { change: Change; design?: Design; mapping?: KeyMapping },
  ): Promise<ChangeResult> {
    return this.#step(project, input, async (current) => {
      const made = make(current);
      return { role: 'do', label, ...made, isFresh: made.design !== undefined };
    });
  }

  /**
   * Takes back a step: the one that is named, or the author's own last one.
   * @throws HttpError when there is none, or a later step wrote the same place.
   */
  undo(project: string, input: StepInput & { readonly of?: number }): Promise<ChangeResult> {
    return this.#step(project, input, async (current, db) => {
      const heads = await this.#headsUpTo(project, current.seq, db);
      const { done } = standings(heads);
      const of = input.of ?? historyState(heads, readerOf(input)).undo?.seq;
      const at = done.findIndex(({ step }) => step.seq === of);
      if (at < 0) throw new HttpError('nothing-to-undo', 'There is nothing to undo.');
      const { step } = done[at];
      const later = done.filter((other) => other.at > done[at].at);
      const { inverse, before, mapping } = await this.#changeAt(project, step.seq, db);
      await this.#refuseInTheWay(project, 'undone', inverse, before !== null, later, db);
      return {
        role: 'undo',
        of: step.seq,
        label: step.label,
        change: inverse,
        revision: before,
        mapping: mapping && invertKeys(mapping),
        isFresh: true,
      };
    });
  }

  redo(project: string, input: StepInput & { readonly of?: number }): Promise<ChangeResult> {
    return this.#step(project, input, async (current, db) => {
      const heads = await this.#headsUpTo(project, current.seq, db);
      const { done, undone } = standings(heads);
      const of = input.of ?? historyState(heads, readerOf(input)).redo?.seq;
      const found = undone.find(({ step }) => step.seq === of);
      if (!found) throw new HttpError('nothing-to-redo', 'There is nothing to redo.');
      const { step } = found;
      // What was there before it and came back before it is what it was made on.
      const later = done.filter((other) => other.step.seq > step.seq);
      const { forward, after, mapping } = await this.#changeAt(project, step.seq, db);
      await this.#refuseInTheWay(project, 'made again', forward, after !== null, later, db);
      return {
        role: 'redo',
        of: step.seq,
        label: step.label,
        change: forward,
        revision: after,
        mapping,
        isFresh: true,
      };
    });
  }

  /** Later steps keep what they wrote: a step is taken back or made again only where that touches none of it. */
  async #refuseInTheWay(
    project: string,
    what: string,
    change: Change,
    movesDesign: boolean,
    later: readonly StandingStep[],
    db: Queryable,
  ): Promise<void> {
    if (!later.length) return;
    const first = Math.min(...later.map(({ step }) => step.seq));
    const wanted = new Set(later.map(({ step }) => step.seq));
    const entries = (await this.after(project, first - 1, db)).filter(({ seq }) => wanted.has(seq));
    const labels = movesDesign ? entries.map(({ label }) => label) : inTheWay(change, entries);
    if (!labels.length) return;
    const names = labels.slice(-3).map((label) => `“${label}”`);
    throw new HttpError(
      'step-in-the-way',
      `This cannot be ${what} before what came after it: ${names.join(', ')}${labels.length > 3 ? ` and ${labels.length - 3} more` : ''}.`,
    );
  }

  async #headsUpTo(project: string, seq: number, db: Queryable): Promise<readonly EntryHead[]> {
    let heads = this.#heads.get(project) ?? [];
    const last = heads.at(-1)?.seq ?? 0;
    if (last < seq) {
      const rows = await rowsOf<ChangeRow>(
        db,
        `SELECT ${HEAD} FROM changes WHERE project_id = ? AND seq > ? AND seq <= ? ORDER BY seq`,
        [project, last, seq],
      );
      heads = [...heads, ...rows.map(headOf)];
    }
    // Somebody may have read on meanwhile.
    if (heads.length > (this.#heads.get(project)?.length ?? 0)) {
      this.#heads.delete(project);
      this.#heads.set(project, heads);
      if (this.#heads.size > KEPT) this.#heads.delete(this.#heads.keys().next().value!);
    }
    return heads.at(-1)?.seq === seq ? heads : heads.slice(0, seq);
  }

  async #changeAt(
    project: string,
    seq: number,
    db: Queryable,
  ): Promise<{
    forward: Change;
    inverse: Change;
    before: number | null;
    after: number | null;
    mapping: KeyMapping | null;
  }> {
    const [row] = await rowsOf<ChangeRow>(
      db,
      'SELECT forward, inverse, revision_before, revision_after, mapping FROM changes WHERE project_id = ? AND seq = ?',
      [project, seq],
    );
    return {
      forward: JSON.parse(row.forward) as Change,
      inverse: JSON.parse(row.inverse) as Change,
      before: row.revision_before,
      after: row.revision_after,
      mapping: row.mapping === null ? null : (JSON.parse(row.mapping) as KeyMapping),
    };
  }

  /** Where keys went after a place in the history. */
  async #keysSince(project: string, seq: number, db: Queryable): Promise<KeyMapping> {
    const rows = await rowsOf<ChangeRow>(
      db,
      'SELECT mapping FROM changes WHERE project_id = ? AND seq > ? AND mapping IS NOT NULL ORDER BY seq',
      [project, seq],
    );
    return rows.reduce((moved, row) => composeKeys(moved, JSON.parse(row.mapping!) as KeyMapping), sameKeys);
  }

  /** The answer to a step that was said before: it is done already. */
  async #saidBefore(
    id: string,
    { id: step, base, ...input }: StepInput,
    current: StoredProject,
    db: Queryable,
  ): Promise<ChangeResult | null> {
    if (!step) return null;
    const [row] = await rowsOf<ChangeRow>(
      db,
      `SELECT ${HEAD}, step_id, forward, made_at FROM changes WHERE project_id = ? AND step_id = ?`,
      [id, step],
    );
    if (!row) return null;
    const entry = entryOf(row);
    return {
      entry,
      missed: (await this.after(id, base, db)).filter(({ seq }) => seq < entry.seq),
      history: await this.state(id, entry.seq, readerOf(input), db),
      changedAt: row.made_at.toISOString(),
      revision: current.revision,
    };
  }

  async #step(
    id: string,
    input: StepInput,
    make: (current: StoredProject, db: Queryable) => Promise<Step>,
  ): Promise<ChangeResult> {
    const { base } = input;
    const { project, result } = await inTransaction(this.#db, async (db) => {
      const current = await this.#projects.read(id, db, true);
      const known = await this.#saidBefore(id, input, current, db);
      if (known) return { project: null, result: known };
      if (base > current.seq)
        throw new HttpError('invalid', `base: the history has ${current.seq} steps, not ${base}.`);
      const asked = await make(current, db);
      const missed = current.seq > base ? await this.after(id, base, db) : [];
      const moved = asked.isFresh || !missed.length ? sameKeys : await this.#keysSince(id, base, db);
      // What it is about went with an iteration that its author had not seen.
      if (speaksOfGone(asked.change, moved)) throw await this.#behind(id, current.seq, missed, input, db);
      const step: Step = { ...asked, change: mapChange(asked.change, keyMapOf(moved)) ?? asked.change };
      if (
        !step.isFresh &&
        collisions(
          step.change,
          missed.map((entry) => entry.change),
        ).length
      )
        throw await this.#behind(id, current.seq, missed, input, db);
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
        'INSERT INTO changes (project_id, seq, role, of_seq, label, forward, inverse, made_at, revision_before, revision_after, step_id, author, mapping) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
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
          input.id ?? null,
          input.author ?? null,
          step.mapping ? JSON.stringify(step.mapping) : null,
        ],
      );
      if (step.design) await this.#projects.writeDesign(db, id, revision, step.design);
      await this.#projects.write(db, next);
      const made: HistoryEntry = {
        seq,
        role: step.role,
        ...(step.of ? { of: step.of } : {}),
        label: step.label.slice(0, 300),
        change: step.change,
        ...(input.id ? { id: input.id } : {}),
        ...(input.author ? { author: input.author } : {}),
      };
      const { change: _change, id: _id, ...head } = made;
      const heads = [...(await this.#headsUpTo(id, current.seq, db)), head];
      return {
        project: next,
        result: {
          entry: made,
          missed,
          history: { ...historyState(heads, readerOf(input)), seq },
          changedAt: changedAt.toISOString(),
          revision,
        },
      };
    });
    if (project) this.#projects.keep(project);
    return result;
  }

  async #behind(
    project: string,
    seq: number,
    missed: HistoryEntry[],
    input: StepInput,
    db: Queryable,
  ): Promise<Behind> {
    const count = missed.length === 1 ? 'one change' : `${missed.length} changes`;
    return new Behind({
      code: 'behind',
      message: `The project has moved on by ${count}.`,
      missed,
      history: await this.state(project, seq, readerOf(input), db),
    });
  }
}

const readerOf = ({ author, since = 0 }: Pick<StepInput, 'author' | 'since'>): Reader | undefined =>
  author ? { author, since } : undefined;

const headOf = (row: ChangeRow): EntryHead => ({
  seq: row.seq,
  role: row.role,
  ...(row.of_seq ? { of: row.of_seq } : {}),
  label: row.label,
  ...(row.author ? { author: row.author } : {}),
});

const entryOf = (row: ChangeRow): HistoryEntry => ({
  ...headOf(row),
  change: JSON.parse(row.forward) as Change,
  ...(row.step_id ? { id: row.step_id } : {}),
});
