import {
  type App,
  type ScreenEntry,
  type Delivery,
  type Settings,
  startSchema,
  TABLE_NAMES,
  type TableName,
  type Tables,
  tables,
  type Interaction,
  type Layer,
  type Region,
  type DrawnState,
  type Use,
} from '../model/app.ts';
import { equalJson, isRecord } from '../json/json.ts';
import { assertShape, findProblem, problemText } from '../schema/problem.ts';
import { choice, either, fields, lazy, list, nothing, type Schema, type Shape } from '../schema/schema.ts';
import { noteOrigin, type Written } from './lineage.ts';

export type { TableName, Tables } from '../model/app.ts';

/** Puts a value under a key of a table, or removes the key when the value is null. */
export type Put = {
  [T in TableName]: {
    readonly kind: 'put';
    readonly table: T;
    readonly key: string;
    readonly value: Tables[T] | null;
  };
}[TableName];

/** Makes a screen the first one. */
export interface SetStart {
  readonly kind: 'start';
  readonly value: string | null;
}

/** Several changes that are one step for the person. */
export interface All {
  readonly kind: 'all';
  readonly changes: readonly Change[];
}

/**
 * The only way an app changes. A plain JSON value: it applies, inverts against the document before it, maps
 * through moved keys and serialises as it is.
 */
export type Change = Put | SetStart | All;

export const putScreen = (key: string, value: ScreenEntry | null): Put => ({
  kind: 'put',
  table: 'screens',
  key,
  value,
});
/** Says what a screen is in the app: `of` goes with counterparts and overlays only. */
export function putUse(app: App, key: string, use: Use, of?: string): Put {
  const { of: _of, state: _state, ...entry } = app.screens[key];
  return putScreen(key, { ...entry, use, ...(of ? { of } : {}) });
}
/** Makes a drawing what a screen shows while its list has nothing to show. */
export function putState(app: App, key: string, of: string, state: DrawnState): Put {
  const { of: _of, ...entry } = app.screens[key];
  return putScreen(key, { ...entry, use: 'state', of, state });
}
export const putInteraction = (key: string, value: Interaction | null): Put => ({
  kind: 'put',
  table: 'interactions',
  key,
  value,
});
export const putStill = (key: string, value: boolean): Put => ({
  kind: 'put',
  table: 'still',
  key,
  value: value || null,
});
/** Says of an element what is not as the design has it; nothing left to say removes the entry. */
export const putLayer = (key: string, value: Layer | null): Put => ({
  kind: 'put',
  table: 'layers',
  key,
  value: value && Object.keys(value).length ? value : null,
});
export const putRegion = (key: string, value: Region | null): Put => ({
  kind: 'put',
  table: 'regions',
  key,
  value,
});
export const putSetting = <K extends keyof Settings>(key: K, value: Settings[K] | null): Put => ({
  kind: 'put',
  table: 'settings',
  key,
  value,
});
export const putDelivery = <K extends keyof Delivery>(key: K, value: Delivery[K] | null): Put => ({
  kind: 'put',
  table: 'delivery',
  key,
  value,
});
const putOf =
  <T extends TableName>(table: T) =>
  (name: string, value: Tables[T] | null): Put =>
    ({ kind: 'put', table, key: name, value }) as Put;
/** What is shown in another way than it was drawn; the key is made by `editKey`. */
export const putEdit = putOf('edits');
export const putComponent = putOf('components');
export const putLibrary = putOf('libraries');
export const putToken = putOf('tokens');
export const putLook = putOf('looks');
export const putCollection = putOf('collections');
export const putBinding = putOf('bindings');
export const putDetail = putOf('details');
export const putApi = putOf('apis');
export const putMustHold = putOf('mustHold');
export const putForm = putOf('forms');
export const putHandWritten = putOf('handWritten');
export const putAdded = putOf('added');
export const putDrawer = putOf('drawers');
export const putDisclosure = putOf('disclosures');
export const putDefault = putOf('defaults');
export const putRefused = (proposal: string, value: boolean): Put =>
  putOf('refused')(proposal, value || null);
/** Lets a finding stand, with a reason if one is given; null brings it back. */
export const putDismissed = putOf('dismissed');
export const putVariable = putOf('variables');
export const putRedirect = putOf('redirects');
export const putLayout = putOf('layouts');
export const putJourney = putOf('journeys');
export const putSynonym = putOf('synonyms');
export const putSetAside = putOf('setAside');
export const putIteration = putOf('iterations');
export const putCode = putOf('code');
export const setStart = (value: string | null): SetStart => ({ kind: 'start', value });
export const all = (changes: readonly Change[]): All => ({ kind: 'all', changes });

/** A document under change: a table is copied when it is first written to, so that many changes at once stay linear. */
class Draft {
  private readonly copied = new Map<string, Record<string, unknown>>();
  readonly written: Written[] = [];

  constructor(public app: App) {}

  apply(change: Change): this {
    if (change.kind === 'all') for (const step of change.changes) this.apply(step);
    else if (change.kind === 'put') this.put(change);
    else if (this.app.start !== change.value) {
      this.app = { ...this.app, start: change.value };
      this.written.push({ table: 'start', key: '' });
    }
    return this;
  }

  private put({ table: name, key, value }: Put): void {
    const table: Readonly<Record<string, unknown>> = this.app[name];
    if (equalJson(Object.hasOwn(table, key) ? table[key] : null, value)) return;
    let after = this.copied.get(name);
    if (!after) {
      after = { ...table };
      this.copied.set(name, after);
      this.app = { ...this.app, [name]: after };
    }
    if (value === null) delete after[key];
    else after[key] = value;
    this.written.push({ table: name, key });
  }
}

/** The app after a change. An app that the change leaves as it was is returned itself. */
export function applyChange(app: App, change: Change): App {
  const draft = new Draft(app).apply(change);
  noteOrigin(draft.app, app, draft.written);
  return draft.app;
}

/** The change that leads from `applyChange(app, change)` back to `app`. Takes the document before. */
export function invertChange(app: App, change: Change): Change {
  switch (change.kind) {
    case 'start':
      return setStart(app.start);
    case 'put': {
      const table: Readonly<Record<string, unknown>> = app[change.table];
      return { ...change, value: Object.hasOwn(table, change.key) ? table[change.key] : null } as Put;
    }
    case 'all': {
      const draft = new Draft(app);
      const inverses = change.changes.map((step) => {
        const inverse = invertChange(draft.app, step);
        draft.apply(step);
        return inverse;
      });
      return all(inverses.reverse());
    }
  }
}

/** What a change writes, as comparable words: `screens/home`, `start`. */
export function touchedBy(change: Change): Set<string> {
  if (change.kind === 'all') return new Set(change.changes.flatMap((c) => [...touchedBy(c)]));
  return new Set([change.kind === 'start' ? 'start' : `${change.table}/${change.key}`]);
}

/** What both changes write. Empty when the one can follow the other without either losing anything. */
export function collisions(mine: Change, theirs: readonly Change[]): string[] {
  const taken = new Set(theirs.flatMap((c) => [...touchedBy(c)]));
  return [...touchedBy(mine)].filter((place) => taken.has(place));
}

const MAX_CHANGES = 20_000;

/** Deepest nesting of changes within changes. */
const DEEPEST = 3;

/**
 * Reads a change that came from outside.
 * @throws RangeError that says which part is wrong and why.
 */
export function parseChange(json: unknown, depth = 0): Change {
  if (!isRecord(json)) throw new RangeError('change: expected an object');
  switch (json.kind) {
    case 'start':
      assertShape(startSchema, json.value, 'change: start');
      return setStart(json.value as string | null);
    case 'put': {
      const table = json.table as TableName;
      if (!Object.hasOwn(tables, String(table)))
        throw new RangeError(`change: unknown table "${String(table)}"; there are ${TABLE_NAMES.join(', ')}`);
      const problem = putProblem(table, json.key, json.value);
      if (problem) throw new RangeError(`change: ${problem}`);
      return { kind: 'put', table, key: json.key, value: json.value } as Put;
    }
    case 'all': {
      const { changes } = json;
      if (!Array.isArray(changes) || changes.length > MAX_CHANGES)
        throw new RangeError(`change: changes: expected a list of at most ${MAX_CHANGES}`);
      if (depth > DEEPEST) throw new RangeError('change: nested too deeply');
      return all(changes.map((c) => parseChange(c, depth + 1)));
    }
    default:
      throw new RangeError(`change: unknown kind "${String(json.kind)}"`);
  }
}

const putSchema: Shape = {
  shape: 'either',
  says: 'expected what belongs into the table',
  of: TABLE_NAMES.map((table): Shape => ({
    shape: 'fields',
    required: {
      kind: choice(['put']),
      table: choice([table]),
      key: tables[table].key,
      value: either('expected a value, or null', tables[table].value as Schema<unknown>, nothing),
    },
    optional: {},
  })),
};

/** A change as it is described to others; what comes in is read by `parseChange`, which says more of what is wrong. */
export const changeSchema: Schema<Change> = lazy('Change', () => anyChange as Schema<Change>);
const anyChange: Shape = {
  shape: 'either',
  says: 'expected a change',
  of: [
    putSchema,
    fields({ kind: choice(['start']), value: startSchema }),
    fields({ kind: choice(['all']), changes: list(changeSchema, { max: MAX_CHANGES }) }),
  ],
};

/** What is wrong with putting a value, or null, under a key of a table; null when nothing is. */
export function putProblem(name: TableName, key: unknown, value: unknown): string | null {
  const table = tables[name];
  const wrongKey = findProblem(table.key, key);
  if (wrongKey) return `${name}: ${problemText(wrongKey)}`;
  const wrong = value === null ? null : findProblem(table.value, value);
  if (wrong) return `${name}/${String(key)}: ${problemText(wrong)}`;
  return table.problem?.(String(key), value) ?? null;
}
