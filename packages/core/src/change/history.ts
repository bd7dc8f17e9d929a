import { type Change, collisions } from './change.ts';

/** Why an entry was written: by the person, or by undoing or redoing another entry. */
export type EntryRole = 'do' | 'undo' | 'redo';

/** One step of a project's history. Entries are only ever appended; `seq` counts from 1 without gaps. */
export interface HistoryEntry {
  readonly seq: number;
  readonly role: EntryRole;
  /** For `undo` and `redo`: the `do` entry that is taken back or made again. */
  readonly of?: number;
  /** What the step did, in words: `Wire “Browse” to Catalogue`. */
  readonly label: string;
  readonly change: Change;
  /** Name that its author gave to the step, so that saying it twice does it once. */
  readonly id?: string;
  /** Who made it: a device and a window of it, `device.window`. */
  readonly author?: string;
}

export type EntryHead = Omit<HistoryEntry, 'change' | 'id'>;

/** What undo and redo would act on next. */
export interface HistoryState {
  readonly seq: number;
  readonly undo: EntryHead | null;
  readonly redo: EntryHead | null;
}

/** Who looks at a history: a window of a device, and the place that the history was at when the window opened. */
export interface Reader {
  /** `device.window` */
  readonly author: string;
  /** What the same device did up to here counts as one's own. */
  readonly since: number;
}

/** The device of an author. */
export const deviceOf = (author: string): string => author.split('.')[0];

/** Whether a step is a reader's own: made in the same window, or on the same device before the window was opened. */
export const isOwnStep = (head: Pick<EntryHead, 'seq' | 'author'>, reader: Reader): boolean =>
  head.author === reader.author ||
  (head.author !== undefined &&
    head.seq <= reader.since &&
    deviceOf(head.author) === deviceOf(reader.author));

/** A step that counts, or is undone, since the entry `at`. */
export interface StandingStep {
  readonly step: EntryHead;
  readonly at: number;
}

/** The steps that count at the end of a history, and those that are undone; each the most recent last. */
export interface Standings {
  readonly done: readonly StandingStep[];
  readonly undone: readonly StandingStep[];
}

/**
 * Which steps count. One that is undone or redone may be any; a step forgets what its own author could redo, as
 * everywhere, and leaves alone what others could.
 * @param entries oldest first.
 */
export function standings(entries: Iterable<EntryHead>): Standings {
  const done = new Map<number, StandingStep>();
  const undone = new Map<number, StandingStep>();
  for (const entry of entries) {
    const at = entry.seq;
    if (entry.role === 'do') {
      done.set(at, { step: entry, at });
      for (const [seq, { step }] of undone) if (step.author === entry.author) undone.delete(seq);
      continue;
    }
    const [from, to] = entry.role === 'undo' ? [done, undone] : [undone, done];
    const moved = from.get(entry.of ?? -1);
    if (!moved) continue;
    from.delete(moved.step.seq);
    to.set(moved.step.seq, { step: moved.step, at });
  }
  return { done: [...done.values()], undone: [...undone.values()] };
}

/**
 * What undo and redo act on: a reader's own last step, and where there is none, the last one of anybody.
 * @param entries oldest first.
 */
export function historyState(entries: readonly EntryHead[], reader?: Reader): HistoryState {
  const { done, undone } = standings(entries);
  const last = (steps: readonly StandingStep[]): EntryHead | null =>
    (reader && steps.findLast(({ step }) => isOwnStep(step, reader))?.step) ?? steps.at(-1)?.step ?? null;
  return { seq: entries.at(-1)?.seq ?? 0, undo: last(done), redo: last(undone) };
}

/**
 * The later steps that a step cannot be taken back or made again without losing: they wrote the same places.
 * @param later what was written after it, oldest first, and counts.
 */
export const inTheWay = (
  change: Change,
  later: readonly Pick<HistoryEntry, 'change' | 'label'>[],
): string[] =>
  later.filter((entry) => collisions(change, [entry.change]).length > 0).map(({ label }) => label);
