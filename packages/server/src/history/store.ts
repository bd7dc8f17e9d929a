import {
  all,
  type App,
  applyChange,
  type Change,
  changeBetween,
  type ChangeResult,
  composeKeys,
  type Conflict,
  type Design,
  deviceOf,
  emptyApp,
  type EntryHead,
  type EntryRole,
  type HistoryEntry,
  type HistoryState,
  inTheWay,
  invertKeys,
  keyMapOf,
  keysBetween,
  type KeyMapping,
  mapChange,
  invertChange,
  rebased,
  type Reader,
  sameKeys,
  screensTouched,
  speaksOfGone,
  type Timeline,
  valuesIn,
  valuesOf,
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
  standing: 'done' | 'undone' | 'dropped' | null;
  standing_at: number | null;
  screens: string | null;
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

/**
 * Hears of a step while it is being written, so that what follows from it can begin. A step may be made out more than once.
 * @param next what the project becomes
 * @param written gives what it became once that is on disk; null where it was not written
 */
export type Foresee = (next: StoredProject, change: Change, written: Promise<StoredProject | null>) => void;

const HEAD = 'seq, role, of_seq, label, author';
/** Each so many steps the document is kept as it is, so that any place in a history is so few steps away at most. */
const SNAPSHOT_EVERY = 100;
/** Steps that a timeline gives at once. */
const PAGE = 200;

/** The history of each project: appended to in sequence, never rewritten. */
export class HistoryStore {
  readonly #db: Database;
  readonly #projects: ProjectStore;
  readonly #foresee: Foresee;

  constructor(db: Database, projects: ProjectStore, foresee: Foresee = () => {}) {
    this.#db = db;
    this.#projects = projects;
    this.#foresee = foresee;
  }

  /** What undo and redo act on for a reader: a step of their own, and where there is none, the last one of anybody. */
  async state(
    project: string,
    seq: number,
    reader?: Reader,
    db: Queryable = this.#db,
  ): Promise<HistoryState> {
    const last = async (standing: 'done' | 'undone'): Promise<EntryHead | null> => {
      const find = (own: string, values: readonly (string | number)[]): Promise<ChangeRow[]> =>
        rowsOf<ChangeRow>(
          db,
          `SELECT ${HEAD} FROM changes WHERE project_id = ? AND standing = ?${own} ORDER BY standing_at DESC LIMIT 1`,
          [project, standing, ...values],
        );
      const [own] = reader
        ? await find(" AND (author = ? OR (seq <= ? AND SUBSTRING_INDEX(author, '.', 1) = ?))", [
            reader.author,
            reader.since,
            deviceOf(reader.author),
          ])
        : [];
      const [row] = own ? [own] : await find('', []);
      return row ? headOf(row) : null;
    };
    return { seq, undo: await last('done'), redo: await last('undone') };
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
    return this.#travel(project, input, 'undo');
  }

  /** Makes a step again that was taken back: the one that is named, or the author's own last one. */
  redo(project: string, input: StepInput & { readonly of?: number }): Promise<ChangeResult> {
    return this.#travel(project, input, 'redo');
  }

  #travel(
    project: string,
    input: StepInput & { readonly of?: number },
    role: 'undo' | 'redo',
  ): Promise<ChangeResult> {
    return this.#step(project, input, async (current, db) => {
      const of = input.of ?? (await this.state(project, current.seq, readerOf(input), db))[role]?.seq;
      const [row] = await rowsOf<ChangeRow>(
        db,
        `SELECT ${HEAD}, forward, inverse, revision_before, revision_after, mapping, standing, standing_at FROM changes WHERE project_id = ? AND seq = ?`,
        [project, of ?? -1],
      );
      const isUndo = role === 'undo';
      if (row?.standing !== (isUndo ? 'done' : 'undone'))
        throw new HttpError(`nothing-to-${role}`, `There is nothing to ${role}.`);
      const change = JSON.parse(isUndo ? row.inverse : row.forward) as Change;
      const revision = isUndo ? row.revision_before : row.revision_after;
      const mapping = row.mapping === null ? null : (JSON.parse(row.mapping) as KeyMapping);
      const rows = await rowsOf<ChangeRow>(
        db,
        // What was there before a step that is made again, and came back before it, is what it was made on.
        `SELECT ${HEAD}, step_id, forward, revision_after FROM changes WHERE project_id = ? AND standing = 'done' AND ${isUndo ? 'standing_at' : 'seq'} > ? AND seq <> ? ORDER BY ${isUndo ? 'standing_at' : 'seq'}`,
        [project, isUndo ? row.standing_at! : row.seq, row.seq],
      );
      const moved = mapping && (isUndo ? invertKeys(mapping) : mapping);
      const others = JSON.parse(isUndo ? row.forward : row.inverse) as Change;
      const onNow = rows.length ? rebased(change, valuesOf(others, current.app), current.app) : change;
      // What somebody did over again already is theirs.
      const isDone = onNow !== null && applyChange(current.app, onNow) === current.app;
      const inIts = rows.filter(
        (other) =>
          // Designs come one after the other, and what is said of what goes with one would be said of nothing.
          (revision !== null && other.revision_after !== null) ||
          (moved && speaksOfGone(entryOf(other).change, moved)) ||
          ((!onNow || isDone) && inTheWay(change, [entryOf(other)]).length > 0),
      );
      if (inIts.length || !onNow) throw inTheWayOf(isUndo ? 'undone' : 'made again', inIts);
      return { role, of: row.seq, label: row.label, change: onNow, revision, mapping: moved, isFresh: true };
    });
  }

  /** Steps in words, the newest first; of one screen, or with words in them, where that is asked. */
  async timeline(
    project: string,
    { before, words, screen, only }: { before?: number; words?: string; screen?: string; only?: string },
  ): Promise<Timeline> {
    const like = (text: string): string => `%${text.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
    const asked: [string, string | number][] = [
      ...(before === undefined ? [] : [['seq < ?', before] as [string, number]]),
      ...(words ?? '')
        .split(/\s+/)
        .filter(Boolean)
        .map((word): [string, string] => ['label LIKE ?', like(word)]),
      ...(screen ? [['screens LIKE ?', like(`|${screen}|`)] as [string, string]] : []),
    ];
    const rows = await rowsOf<ChangeRow>(
      this.#db,
      `SELECT ${HEAD}, made_at, standing, revision_after, screens FROM changes WHERE ${['project_id = ?', ...(only ? ["role = 'do' AND revision_after IS NOT NULL"] : []), ...asked.map(([where]) => where)].join(' AND ')} ORDER BY seq DESC LIMIT ${PAGE + 1}`,
      [project, ...asked.map(([, value]) => value)],
    );
    const shown = rows.slice(0, PAGE);
    return {
      steps: shown.map((row) => ({
        ...headOf(row),
        madeAt: row.made_at.toISOString(),
        standing: row.standing,
        screens: (row.screens ?? '').split('|').filter(Boolean),
        isIteration: row.role === 'do' && row.revision_after !== null,
      })),
      before: rows.length > PAGE ? shown.at(-1)!.seq : null,
    };
  }

  /** The documents as they were at a place of the history. */
  async at(project: string, seq: number, db: Queryable = this.#db): Promise<StoredProject> {
    const head = await this.#projects.read(project, db);
    if (seq === head.seq) return head;
    if (seq > head.seq)
      throw new HttpError('not-found', `The history has ${head.seq} steps; there is no place ${seq} in it.`);
    const [kept] = await rowsOf<{ seq: number; app: string }>(
      db,
      'SELECT seq, app FROM snapshots WHERE project_id = ? AND seq >= ? ORDER BY seq LIMIT 1',
      [project, seq],
    );
    const later = await rowsOf<ChangeRow>(
      db,
      'SELECT inverse FROM changes WHERE project_id = ? AND seq > ? AND seq <= ? ORDER BY seq DESC',
      [project, seq, kept?.seq ?? head.seq],
    );
    const from: App = kept ? { ...emptyApp, ...(JSON.parse(kept.app) as App) } : head.app;
    const app = applyChange(from, all(later.map(({ inverse }) => JSON.parse(inverse) as Change)));
    const [moved] = await rowsOf<ChangeRow>(
      db,
      'SELECT revision_before FROM changes WHERE project_id = ? AND seq > ? AND revision_before IS NOT NULL ORDER BY seq LIMIT 1',
      [project, seq],
    );
    const [made] = await rowsOf<ChangeRow>(
      db,
      'SELECT made_at FROM changes WHERE project_id = ? AND seq = ?',
      [project, seq],
    );
    const revision = moved?.revision_before ?? head.revision;
    return {
      ...head,
      seq,
      revision,
      design: await this.#projects.design(project, revision, db),
      app,
      changedAt: made?.made_at ?? head.changedAt,
    };
  }

  /** Makes a project again what it was at a place of its history. That is a step like any other. */
  async goBack(project: string, input: StepInput, seq: number, label: string): Promise<ChangeResult> {
    const then = await this.at(project, seq);
    return this.#step(project, input, async (current) => {
      const change = changeBetween(current.app, then.app);
      const isMoved = current.revision !== then.revision;
      return {
        role: 'do',
        label,
        change,
        isFresh: true,
        ...(isMoved ? { revision: then.revision, mapping: keysBetween(current.design, then.design) } : {}),
      };
    });
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
    const writing = this.#write(id, input, make, (next, change) => this.#foresee(next, change, written));
    const written = writing.then(
      ({ project }) => {
        if (project) this.#projects.keep(project);
        return project;
      },
      () => null,
    );
    await written;
    return (await writing).result;
  }

  /**
   * Writes a step; `project` is null where it had been written before.
   * @param foresee told what it makes of the project, before that is written
   */
  #write(
    id: string,
    input: StepInput,
    make: (current: StoredProject, db: Queryable) => Promise<Step>,
    foresee: (next: StoredProject, change: Change) => void,
  ): Promise<{ readonly project: StoredProject | null; readonly result: ChangeResult }> {
    const { base } = input;
    return inTransaction(this.#db, async (db) => {
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
      const change = mapChange(asked.change, keyMapOf(moved)) ?? asked.change;
      const made =
        asked.isFresh || !missed.length
          ? change
          : rebased(change, valuesIn((await this.at(id, base, db)).app), current.app);
      if (!made) throw await this.#behind(id, current.seq, missed, input, db);
      const step: Step = { ...asked, change: made };
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
      foresee(next, step.change);
      const inverse = invertChange(current.app, step.change);
      await run(
        db,
        'INSERT INTO changes (project_id, seq, role, of_seq, label, forward, inverse, made_at, revision_before, revision_after, step_id, author, mapping, standing, standing_at, screens) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
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
          step.role === 'do' ? 'done' : null,
          step.role === 'do' ? seq : null,
          `|${screensTouched({ design, app: next.app }, step.change).join('|')}|`.slice(0, 60_000),
        ],
      );
      if (step.role === 'do')
        // As everywhere, a step forgets what its own author could redo, and leaves alone what others could.
        await run(
          db,
          "UPDATE changes SET standing = 'dropped' WHERE project_id = ? AND standing = 'undone' AND author <=> ?",
          [id, input.author ?? null],
        );
      else
        await run(db, 'UPDATE changes SET standing = ?, standing_at = ? WHERE project_id = ? AND seq = ?', [
          step.role === 'undo' ? 'undone' : 'done',
          seq,
          id,
          step.of!,
        ]);
      if (seq % SNAPSHOT_EVERY === 0)
        await run(db, 'INSERT INTO snapshots (project_id, seq, app) VALUES (?, ?, ?)', [
          id,
          seq,
          JSON.stringify(next.app),
        ]);
      if (step.design) await this.#projects.writeDesign(db, id, revision, step.design);
      await this.#projects.write(db, next);
      const entry: HistoryEntry = {
        seq,
        role: step.role,
        ...(step.of ? { of: step.of } : {}),
        label: step.label.slice(0, 300),
        change: step.change,
        ...(input.id ? { id: input.id } : {}),
        ...(input.author ? { author: input.author } : {}),
      };
      return {
        project: next,
        result: {
          entry,
          missed,
          history: await this.state(id, seq, readerOf(input), db),
          changedAt: changedAt.toISOString(),
          revision,
        },
      };
    });
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

/** Later steps keep what they wrote: a step is taken back or made again only where that touches none of it. */
function inTheWayOf(what: string, later: readonly ChangeRow[]): HttpError {
  const names = later.slice(-3).map(({ label }) => `“${label}”`);
  return new HttpError(
    'step-in-the-way',
    `This cannot be ${what} before what came after it: ${names.join(', ')}${later.length > 3 ? ` and ${later.length - 3} more` : ''}.`,
  );
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
