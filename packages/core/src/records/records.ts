import { grouped } from '../json/grouped.ts';
import type { App, Collection, DrawnRow, RecordField } from '../model/app.ts';
import type { Design, Element } from '../model/design.ts';
import { kebabCase } from '../model/names.ts';
import { findElement } from '../model/places.ts';
import { textOf } from '../model/project.ts';
import { keptRows, recordIds } from './kept_rows.ts';

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
  /** Key of the first row that shows it; of one that no screen shows `further` and its own id. */
  readonly id: string;
  readonly rows: readonly DrawnRow[];
  /** By the name of the field; none for what no row of it shows. */
  readonly values: Readonly<Record<string, DataValue>>;
}

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

/** Where more of the rows of a list than this say something of their own, that is what they are called. */
const OWN = 0.8;
/** What can call a record where no text does. */
const CALLING: ReadonlySet<RecordField['type']> = new Set(['one-of', 'number', 'email', 'phone', 'link']);

/**
 * The field that calls the records of a collection: the first text that says another thing in almost each row of a list; where
 * there is none, another field that does; else the first text.
 */
export function titleField(
  design: Design,
  { fields, rows }: Pick<Collection, 'fields' | 'rows'>,
): RecordField | undefined {
  const before = titles.get(rows);
  if (before?.design === design && before.fields === fields) return before.title;
  const title = findTitle(design, fields, rows);
  titles.set(rows, { design, fields, title });
  return title;
}

const titles = new WeakMap<
  Collection['rows'],
  {
    readonly design: Design;
    readonly fields: Collection['fields'];
    readonly title: RecordField | undefined;
  }
>();

function findTitle(
  design: Design,
  fields: Collection['fields'],
  rows: Collection['rows'],
): RecordField | undefined {
  const lists = grouped(rows, ({ within }) => within);
  const isOwn = ({ name }: RecordField): boolean => {
    let [said, own] = [0, 0];
    for (const list of lists.values()) {
      const texts = list.flatMap(({ shows }) => {
        const element = shows[name] === undefined ? null : findElement(design, shows[name]);
        const text = element ? textOf(element).trim().toLowerCase() : '';
        return text ? [text] : [];
      });
      said += texts.length;
      own += new Set(texts).size;
    }
    return said > 0 && own >= said * OWN;
  };
  const texts = fields.filter(({ type }) => type === 'text');
  return (
    texts.find(isOwn) ??
    fields.find((field) => CALLING.has(field.type) && isOwn(field)) ??
    texts[0] ??
    fields.find(isOwn)
  );
}

/**
 * The records of a collection by what they are known by in the code: as before, else what they are called, in small letters.
 * @param code how the code was written when the last iteration came in
 */
export function recordsById(
  design: Design,
  collection: Collection,
  code: App['code'],
): Map<string, DataRecord> {
  const kept = new Map([...keptRows({ code }).values()].flatMap((rows) => [...rows]));
  const named = titleField(design, collection)?.name;
  const records = recordsOf(design, collection);
  const before = ({ rows }: DataRecord): string | undefined =>
    rows.flatMap(({ element }) => kept.get(element) ?? [])[0]?.id;
  const ids = recordIds(records, before, ({ values }) =>
    kebabCase(named === undefined ? '' : (values[named]?.text ?? '')).slice(0, 80),
  );
  return new Map(records.map((record, i) => [ids[i], record]));
}

function readRecords(
  design: Design,
  { fields, rows, said = {}, more = [] }: Collection,
): readonly DataRecord[] {
  const elementOf = (key: string | undefined): Element | null | undefined =>
    key === undefined ? undefined : findElement(design, key);
  const callsIt = titleField(design, { fields, rows })?.name;
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
  const plain = (text: string | undefined): DataValue | undefined =>
    text === undefined ? undefined : { text, elements: [], isText: true };
  const drawn = [...groups.values()].map((group): DataRecord => ({
    id: group[0].element,
    rows: group,
    values: Object.fromEntries(
      fields.flatMap((field): [string, DataValue][] => {
        const shown = group.flatMap(({ shows }) => elementOf(shows[field.name]) ?? []);
        const value = shown.length ? valueOf(field, shown) : plain(said[group[0].element]?.[field.name]);
        return value ? [[field.name, value]] : [];
      }),
    ),
  }));
  const further = more.map(({ id, says }): DataRecord => ({
    id: `further ${id}`,
    rows: [],
    values: Object.fromEntries(
      fields.flatMap(({ name }): [string, DataValue][] => {
        const value = plain(says[name]);
        return value ? [[name, value]] : [];
      }),
    ),
  }));
  return [...drawn, ...further];
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

/** What a box to tick says. */
export const ticked = ({ attributes }: Element): 'yes' | 'no' =>
  attributes?.checked === undefined ? 'no' : 'yes';
