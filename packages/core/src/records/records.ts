import type { Collection, DrawnRow, RecordField } from '../model/app.ts';
import type { Design, Element } from '../model/design.ts';
import { findElement } from '../model/places.ts';
import { textOf } from '../model/project.ts';

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

function readRecords(
  design: Design,
  { fields, rows, said = {}, more = [] }: Collection,
): readonly DataRecord[] {
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
