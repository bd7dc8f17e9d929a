import type { Change } from './change.ts';

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
}

export type EntryHead = Pick<HistoryEntry, 'seq' | 'role' | 'of' | 'label'>;

/** What undo and redo would act on next. */
export interface HistoryState {
  readonly seq: number;
  readonly undo: EntryHead | null;
  readonly redo: EntryHead | null;
}

/**
 * Finds what undo and redo act on. A new step forgets what could be redone, as everywhere.
 * @param entries oldest first.
 */
export function historyState(entries: readonly EntryHead[]): HistoryState {
  const done: EntryHead[] = [];
  const undone: EntryHead[] = [];
  for (const entry of entries) {
    if (entry.role === 'do') {
      done.push(entry);
      undone.length = 0;
    } else if (entry.role === 'undo') undone.push(done.pop() ?? entry);
    else done.push(undone.pop() ?? entry);
  }
  return { seq: entries.at(-1)?.seq ?? 0, undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null };
}
