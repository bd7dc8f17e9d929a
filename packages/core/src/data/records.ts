import { all, type Change, putEdit } from '../change/change.ts';
import type { Collection, DrawnRow, RecordField } from '../model/app.ts';
import type { Design, Element } from '../model/design.ts';
import { editKey } from '../model/edit_key.ts';
import { findElement } from '../model/places.ts';
import { textOf } from '../model/project.ts';
import type { CollectionProposal } from './collections.ts';
import { ticked } from './columns.ts';

/** What a record says in one field, and the elements that show it. */
export interface DataValue {
  readonly text: string;
  /** Of a picture: its file. */
  readonly asset?: string;
  /** Keys of the elements that show it, the first first. */
  readonly elements: readonly string[];
  /** Whether it is a text that can be written anew. */
  readonly isText: boolean;
}

/** One record: what its rows say, wherever it is drawn. */
export interface DataRecord {
  /** Key of the first row that shows it. */
  readonly id: string;
  readonly rows: readonly DrawnRow[];
  /** By the name of the field; none for what no row of it shows. */
  readonly values: Readonly<Record<string, DataValue>>;
}

/** The id of a proposal, the same while its rows are. */
export const collectionProposalId = ({ places }: Pick<CollectionProposal, 'places'>): string =>
  `collection ${places.map(({ within }) => within).join(' ')}`;

/** A proposal as what is kept when somebody takes it. */
export const takenCollection = ({ name, fields, places }: CollectionProposal): Collection => ({
  name,
  fields: fields.map(({ name: field, label, type, choices }) => ({
    name: field,
    type,
    ...(label ? { label } : {}),
    ...(choices?.length ? { choices } : {}),
  })),
  rows: places.flatMap(({ within, rows, shows }) =>
    rows.map((element, i) => ({
      element,
      within,
      shows: Object.fromEntries(
        Object.entries(shows).flatMap(([field, keys]) => (keys[i] === null ? [] : [[field, keys[i]]])),
      ),
    })),
  ),
});

const known = new WeakMap<Design, WeakMap<Collection, readonly DataRecord[]>>();

/**
 * The records of a collection as the screens show them, in reading order. Rows on several screens that say the same in the
 * field that calls a record are one record. Rows that are no longer drawn are left out.
 * @param design as it is in the app, with all edits
 */
export function recordsOf(design: Design, collection: Collection): readonly DataRecord[] {
  let of = known.get(design);
  if (!of) known.set(design, (of = new WeakMap()));
  let records = of.get(collection);
  if (!records) of.set(collection, (records = readRecords(design, collection)));
  return records;
}

function readRecords(design: Design, { fields, rows }: Collection): readonly DataRecord[] {
  const elementOf = (key: string | undefined): Element | null | undefined =>
    key === undefined ? undefined : findElement(design, key);
  const callsIt = fields.find(({ type }) => type === 'text')?.name;
  const groups = new Map<string, DrawnRow[]>();
  for (const row of rows) {
    if (!elementOf(row.element)) continue;
    const titled = callsIt === undefined ? undefined : elementOf(row.shows[callsIt]);
    const title = titled ? textOf(titled) : '';
    // Within one list two rows are two records, even where they say the same.
    const wanted = title.toLowerCase();
    const known = wanted ? groups.get(wanted) : undefined;
    if (known && !known.some(({ within }) => within === row.within)) known.push(row);
    else groups.set(known || !wanted ? `${wanted} ${row.element}` : wanted, [row]);
  }
  return [...groups.values()].map((group): DataRecord => ({
    id: group[0].element,
    rows: group,
    values: Object.fromEntries(
      fields.flatMap((field): [string, DataValue][] => {
        const shown = group.flatMap(({ shows }) => elementOf(shows[field.name]) ?? []);
        return shown.length ? [[field.name, valueOf(field, shown)]] : [];
      }),
    ),
  }));
}

function valueOf(field: RecordField, shown: readonly Element[]): DataValue {
  const [first] = shown;
  if (field.type === 'picture')
    return {
      text: first.attributes?.alt ?? '',
      ...(first.asset ? { asset: first.asset } : {}),
      elements: shown.map(({ key }) => key),
      isText: false,
    };
  if (field.type === 'yes-no' && first.tag === 'input')
    return {
      text: ticked(first),
      elements: shown.map(({ key }) => key),
      isText: false,
    };
  const text = textOf(first);
  return {
    text: text || (first.attributes?.['aria-valuenow'] ?? first.attributes?.value ?? ''),
    // Elsewhere it may be said in other words; those stay as they are.
    elements: shown.filter((element) => textOf(element) === text).map(({ key }) => key),
    isText: text !== '' || field.type === 'text',
  };
}

/** The change after which a record says something else in a field, wherever that is shown; null where nothing can be written. */
export function sayInRecord({ values }: DataRecord, field: string, text: string): Change | null {
  const value = values[field];
  if (!value?.isText || value.text === text) return null;
  return all(value.elements.map((key) => putEdit(editKey(key, 'text'), text)));
}

/** A collection with another field in the place of one; what its rows show goes along under its new name. */
export function withField(collection: Collection, name: string, field: RecordField): Collection {
  const renamed = (shows: DrawnRow['shows']): DrawnRow['shows'] =>
    Object.fromEntries(
      Object.entries(shows).map(([one, element]) => [one === name ? field.name : one, element]),
    );
  return {
    ...collection,
    fields: collection.fields.map((one) => (one.name === name ? field : one)),
    rows:
      field.name === name
        ? collection.rows
        : collection.rows.map((row) => ({ ...row, shows: renamed(row.shows) })),
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

/** Problems are listed up to here. */
const MOST_PROBLEMS = 20;

/**
 * Takes what a table says into records, line by line in their order: its heads are names or labels of fields. Nothing is
 * lost: what has no field, no record or no text to stand in is told.
 * @param lines of cells, the heads first
 */
export function takeTable(
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
  rest.forEach((cells, i) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    if (cells.length > heads.length)
      tell(i + 2, `${cells.length} cells under ${heads.length} heads; what is beyond was left out`);
    const record = records[i];
    if (!record) {
      if (i === records.length)
        tell(i + 2, `only ${records.length} rows are drawn; what comes from here on was left out`);
      return;
    }
    cells.forEach((cell, at) => {
      const field = wanted[at];
      if (!field) return;
      const value = record.values[field.name];
      if (!value?.isText) {
        if (cell.trim() && cell.trim() !== value?.text)
          tell(i + 2, `${field.name} is no text that can be written here`);
        return;
      }
      const change = sayInRecord(record, field.name, cell.trim());
      if (change) changes.push(change);
    });
  });
  return { change: changes.length ? all(changes) : null, changed: changes.length, problems };
}

/** Records as a table: names of fields, then a line a record. */
export const tableOf = ({ fields }: Collection, records: readonly DataRecord[]): string[][] => [
  fields.map(({ name }) => name),
  ...records.map(({ values }) => fields.map(({ name }) => values[name]?.text ?? '')),
];

const JSON_TYPES: Readonly<Record<RecordField['type'], Readonly<Record<string, unknown>>>> = {
  text: { type: 'string' },
  number: { type: 'number' },
  money: { type: 'string', description: 'an amount with its currency' },
  percent: { type: 'number', description: 'of a hundred' },
  date: { type: 'string', format: 'date' },
  time: { type: 'string', format: 'time' },
  'yes-no': { type: 'boolean' },
  'one-of': { type: 'string' },
  email: { type: 'string', format: 'email' },
  phone: { type: 'string' },
  link: { type: 'string', format: 'uri' },
  picture: { type: 'string', format: 'uri-reference' },
};

/** The JSON Schema (2020-12) of one record of a collection. */
export const recordSchema = ({ name, fields }: Collection): Readonly<Record<string, unknown>> => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: name,
  type: 'object',
  properties: Object.fromEntries(
    fields.map(({ name: field, label, type, choices }) => [
      field,
      {
        ...JSON_TYPES[type],
        ...(label ? { title: label } : {}),
        ...(type === 'one-of' && choices?.length ? { enum: choices } : {}),
      },
    ]),
  ),
});
