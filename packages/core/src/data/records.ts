import { all, type Change, putCollection, putEdit } from '../change/change.ts';
import { type Collection, type FieldType, MOST_RECORDS, type RecordField } from '../model/app.ts';
import { editKey } from '../model/edit_key.ts';
import { recordName, uniqueName } from '../model/names.ts';
import type { DataRecord } from '../records/records.ts';
import type { Sought } from '../described/match.ts';
import type { CollectionProposal } from './collections.ts';

/** The id of a proposal, the same while its rows are. */
export const collectionProposalId = ({ places }: Pick<CollectionProposal, 'places'>): string =>
  `collection ${places.map(({ within }) => within).join(' ')}`;

/** What a field is called in a record, which has an id of its own. */
const ownName = (name: string, collection: string): string =>
  name === 'id' ? `${recordName(collection)}Id` : name;

/** A collection as an API is searched for it: its fields with what each says where it is drawn. */
export const soughtCollection = ({ name, fields, places }: CollectionProposal): Sought => ({
  name,
  fields: fields.map((field) => ({
    ...field,
    said: places.flatMap(({ records }) => records.flatMap((record) => record[field.name] ?? [])),
  })),
});

/** A proposal as what is kept when somebody takes it. */
export const takenCollection = ({ name, fields, places }: CollectionProposal): Collection => ({
  name,
  fields: fields.map(({ name: field, label, type, choices }) => ({
    name: ownName(field, name),
    type,
    ...(label ? { label } : {}),
    ...(choices?.length ? { choices } : {}),
  })),
  rows: places.flatMap(({ within, rows, shows }) =>
    rows.map((element, i) => ({
      element,
      within,
      shows: Object.fromEntries(
        Object.entries(shows).flatMap(([field, keys]) =>
          keys[i] === null ? [] : [[ownName(field, name), keys[i]]],
        ),
      ),
    })),
  ),
});

/** The change after which a record says something else in a field, wherever that is shown; null where nothing can be written. */
export function sayInRecord({ values }: DataRecord, field: string, text: string): Change | null {
  const value = values[field];
  if (!value?.isText || value.text === text) return null;
  return all(value.elements.map((key) => putEdit(editKey(key, 'text'), text)));
}

/** The collection with what a record says in a field that no row of it shows. */
function withSaid(collection: Collection, record: DataRecord, field: string, text: string): Collection {
  const { said = {}, more = [] } = collection;
  if (record.rows.length)
    return { ...collection, said: { ...said, [record.id]: { ...said[record.id], [field]: text } } };
  return {
    ...collection,
    more: more.map((one) =>
      `further ${one.id}` === record.id ? { ...one, says: { ...one.says, [field]: text } } : one,
    ),
  };
}

const isOnScreen = ({ values }: DataRecord, field: string): boolean =>
  (values[field]?.elements.length ?? 0) > 0 || values[field]?.isText === false;

/** The change after which a record of a collection says something else: on the screens, or where none shows it. */
export function sayInCollection(
  id: string,
  collection: Collection,
  record: DataRecord,
  field: string,
  text: string,
): Change | null {
  if (isOnScreen(record, field)) return sayInRecord(record, field, text);
  const known = collection.fields.find(({ name }) => name === field);
  if (!known || known.type === 'picture' || (record.values[field]?.text ?? '') === text) return null;
  return putCollection(id, withSaid(collection, record, field, text));
}

/** Whether what a record says in a field can be written. */
export const canSay = (record: DataRecord, { name, type }: RecordField): boolean =>
  isOnScreen(record, name) ? record.values[name].isText : type !== 'picture';

/** The collection with further records, which no screen shows as they are drawn. */
function withRecords(
  collection: Collection,
  further: readonly Readonly<Record<string, string>>[],
): Collection {
  const more = [...(collection.more ?? [])];
  const ids = new Set(more.map(({ id }) => id));
  for (const says of further) {
    const id = uniqueName(String(more.length + 1), (one) => ids.has(one), '.');
    ids.add(id);
    more.push({ id, says });
  }
  return { ...collection, more };
}

/** The collection with one more record, which no screen shows as it is drawn. */
export const withRecord = (collection: Collection, says: Readonly<Record<string, string>> = {}): Collection =>
  withRecords(collection, [says]);

/** The collection without a record that no screen shows; those that are drawn stay. */
export const withoutRecord = (collection: Collection, { id }: DataRecord): Collection => ({
  ...collection,
  more: (collection.more ?? []).filter((one) => `further ${one.id}` !== id),
});

/** A collection with another field in the place of one; what its rows show goes along under its new name. */
export function withField(collection: Collection, name: string, field: RecordField): Collection {
  const isSame = field.name === name;
  const renamed = <T>(by: Readonly<Record<string, T>>): Readonly<Record<string, T>> =>
    isSame
      ? by
      : Object.fromEntries(
          Object.entries(by).map(([one, value]) => [one === name ? field.name : one, value]),
        );
  const { said, more, behind } = collection;
  return {
    ...collection,
    fields: collection.fields.map((one) => (one.name === name ? field : one)),
    rows: isSame ? collection.rows : collection.rows.map((row) => ({ ...row, shows: renamed(row.shows) })),
    ...(said
      ? { said: Object.fromEntries(Object.entries(said).map(([key, says]) => [key, renamed(says)])) }
      : {}),
    ...(more ? { more: more.map((one) => ({ ...one, says: renamed(one.says) })) } : {}),
    ...(behind ? { behind: { ...behind, fields: renamed(behind.fields) } } : {}),
  };
}

/** What cannot be taken from a table that somebody pasted or chose. */
export interface TableProblem {
  /** Line of the table, from 1; the heads are line 1. */
  readonly line: number;
  readonly message: string;
}

export interface TableTaken {
  readonly change: Change | null;
  /** How many values are others after it. */
  readonly changed: number;
  readonly problems: readonly TableProblem[];
}

/** Fields whose values are numbers, with what else they say. */
const NUMBERS: ReadonlySet<FieldType> = new Set<FieldType>(['number', 'money', 'percent']);

/** What is wrong with a value of a field, which is kept as it stands; null where nothing is. Dashes stand for none. */
function misfit({ name, type }: RecordField, text: string): string | null {
  const wanted =
    NUMBERS.has(type) && !/\d/.test(text)
      ? 'number'
      : type === 'email' && !text.includes('@')
        ? 'e-mail address'
        : null;
  return wanted && !/^[-–—]?$/.test(text)
    ? `“${text}” is no ${wanted} for ${name}; it is kept as it stands`
    : null;
}

/** Problems are listed up to here. */
const MOST_PROBLEMS = 20;

/**
 * Takes what a table says into records, line by line in their order: its heads are names or labels of fields. Nothing is
 * lost: what has no field, no record or no text to stand in is told.
 * @param lines of cells, the heads first
 */
export function takeTable(
  id: string,
  collection: Collection,
  records: readonly DataRecord[],
  lines: readonly (readonly string[])[],
): TableTaken {
  const problems: TableProblem[] = [];
  const tell = (line: number, message: string): void => {
    if (problems.length < MOST_PROBLEMS) problems.push({ line, message });
  };
  const [heads = [], ...rest] = lines;
  const wanted = heads.map((head) => {
    const plain = head.trim().toLowerCase();
    return collection.fields.find(
      ({ name, label }) => name.toLowerCase() === plain || (label ?? '').toLowerCase() === plain,
    );
  });
  if (!wanted.some((field) => field !== undefined)) {
    const names = collection.fields.map(({ name }) => name).join(', ');
    tell(1, `no column is called as a field: expected some of ${names}`);
    return { change: null, changed: 0, problems };
  }
  heads.forEach((head, i) => {
    if (!wanted[i] && head.trim()) tell(1, `“${head.trim()}” is no field, and was left out`);
  });
  const changes: Change[] = [];
  let next = collection;
  let changed = 0;
  let isFull = false;
  const further: Readonly<Record<string, string>>[] = [];
  rest.forEach((cells, i) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    if (cells.length !== heads.length)
      tell(
        i + 2,
        `${cells.length} cells under ${heads.length} heads; ${cells.length > heads.length ? 'what is beyond was left out' : 'the others stay empty'}`,
      );
    cells.forEach((cell, at) => {
      const wrong = wanted[at] && misfit(wanted[at], cell.trim());
      if (wrong) tell(i + 2, wrong);
    });
    const record = records[i];
    if (!record) {
      if ((next.more?.length ?? 0) + further.length >= MOST_RECORDS) {
        if (!isFull)
          tell(
            i + 2,
            `a collection has at most ${MOST_RECORDS} records beyond those that are drawn; what comes from here on was left out`,
          );
        isFull = true;
        return;
      }
      const says = Object.fromEntries(
        cells.flatMap((cell, at) => {
          const field = wanted[at];
          return field && field.type !== 'picture' && cell.trim() ? [[field.name, cell.trim()]] : [];
        }),
      );
      further.push(says);
      changed += Object.keys(says).length;
      return;
    }
    cells.forEach((cell, at) => {
      const field = wanted[at];
      if (!field) return;
      const value = record.values[field.name];
      if (!canSay(record, field)) {
        if (cell.trim() && cell.trim() !== value?.text)
          tell(i + 2, `${field.name} is no text that can be written here`);
        return;
      }
      if (isOnScreen(record, field.name)) {
        const change = sayInRecord(record, field.name, cell.trim());
        if (!change) return;
        changes.push(change);
        changed++;
      } else if ((value?.text ?? '') !== cell.trim()) {
        next = withSaid(next, record, field.name, cell.trim());
        changed++;
      }
    });
  });
  if (further.length) next = withRecords(next, further);
  if (next !== collection) changes.push(putCollection(id, next));
  return { change: changes.length ? all(changes) : null, changed, problems };
}

/** Records as a table: names of fields, then a line a record. */
export const tableOf = ({ fields }: Collection, records: readonly DataRecord[]): string[][] => [
  fields.map(({ name }) => name),
  ...records.map(({ values }) => fields.map(({ name }) => values[name]?.text ?? '')),
];
