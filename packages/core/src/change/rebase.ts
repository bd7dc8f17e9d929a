import type { App, TableName } from '../model/app.ts';
import { equalJson, isRecord } from '../json/json.ts';
import { all, applyChange, type Change, type Put } from './change.ts';

/** What stood at a place of the app when a change was made: the value, or null where there was none. */
export type Before = (table: TableName | 'start', key: string) => unknown;

const valueAt = (app: App, table: TableName | 'start', key: string): unknown => {
  if (table === 'start') return app.start;
  const entries: Readonly<Record<string, unknown>> = app[table];
  return Object.hasOwn(entries, key) ? entries[key] : null;
};

/** What stands at each place of an app. */
export const valuesIn =
  (app: App): Before =>
  (table, key) =>
    valueAt(app, table, key);

/** What a change wrote at each place that it touches; elsewhere what stands in an app. */
export function valuesOf(change: Change, app: App): Before {
  const written = new Map<string, unknown>();
  noteWritten(change, written);
  return writtenOr(written, valuesIn(app));
}

const writtenOr =
  (written: ReadonlyMap<string, unknown>, otherwise: Before): Before =>
  (table, key) =>
    written.has(`${table} ${key}`) ? written.get(`${table} ${key}`) : otherwise(table, key);

/**
 * A change that was made on other values, as it has to be to be made on an app: of an entry that others wrote meanwhile,
 * their fields stay and its own fields are written.
 * @param before what the change was made on
 * @returns null where both wrote the same, and not the same to it
 */
export function rebased(change: Change, before: Before, app: App): Change | null {
  switch (change.kind) {
    case 'start': {
      const was = before('start', '');
      return equalJson(was, app.start) || equalJson(app.start, change.value) ? change : null;
    }
    case 'put': {
      const was = before(change.table, change.key);
      const is = valueAt(app, change.table, change.key);
      if (equalJson(was, is) || equalJson(is, change.value)) return change;
      const value = merged(was, is, change.value);
      return value === undefined ? null : ({ ...change, value } as Put);
    }
    case 'all': {
      const done: Change[] = [];
      const written = new Map<string, unknown>();
      // What the change itself wrote before is what its later parts were made on.
      const beforeStep = writtenOr(written, before);
      let after = app;
      for (const step of change.changes) {
        const one = rebased(step, beforeStep, after);
        if (!one) return null;
        done.push(one);
        after = applyChange(after, one);
        noteWritten(step, written);
      }
      return done.every((one, i) => one === change.changes[i]) ? change : all(done);
    }
  }
}

function noteWritten(change: Change, written: Map<string, unknown>): void {
  if (change.kind === 'all') for (const one of change.changes) noteWritten(one, written);
  else if (change.kind === 'start') written.set('start ', change.value);
  else written.set(`${change.table} ${change.key}`, change.value);
}

/** Two changes of one entry as one, field by field; undefined where both wrote one field and not the same to it. */
function merged(was: unknown, theirs: unknown, mine: unknown): unknown {
  if (!isRecord(was) || !isRecord(theirs) || !isRecord(mine)) return undefined;
  const made: Record<string, unknown> = {};
  for (const name of new Set([...Object.keys(theirs), ...Object.keys(mine), ...Object.keys(was)])) {
    const [a, b, c] = [was, theirs, mine].map((entry) => (Object.hasOwn(entry, name) ? entry[name] : null));
    const value = equalJson(a, b) ? c : equalJson(a, c) || equalJson(b, c) ? b : undefined;
    if (value === undefined) return undefined;
    if (value !== null) made[name] = value;
  }
  return made;
}
