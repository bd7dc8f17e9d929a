import { findLists } from '../components/find.ts';
import { grouped } from '../json/grouped.ts';
import type { FieldType } from '../model/app.ts';
import type { Screen } from '../model/design.ts';
import { singular, uniqueName } from '../model/names.ts';
import { wordOfClasses, wordOfLayer } from '../roles/called.ts';
import { type Guesses, inferRoles } from '../roles/infer.ts';
import { hasParent, type ScreenSight, type Sight, sightOf } from '../roles/sight.ts';
import { type Cell, type Column, columnsOf } from './columns.ts';
import { choicesOf, typeOfValues } from './value_types.ts';
import { collectionIn, collectionOf, fieldIn } from './names.ts';

/** A field of the records of a collection. */
export interface ProposedField {
  readonly name: string;
  /** How it is called on the screen; empty where nothing there calls it. */
  readonly label: string;
  readonly type: FieldType;
  /** Of one-of: what was drawn. */
  readonly choices?: readonly string[];
}

/** Where the records of a collection are drawn. */
export interface CollectionPlace {
  /** Key of the screen. */
  readonly screen: string;
  /** Key of the element that holds the rows. */
  readonly within: string;
  /** Keys of the rows, in reading order. */
  readonly rows: readonly string[];
  /** Keys of what shows each field in each row, by the name of the field. */
  readonly shows: Readonly<Record<string, readonly (string | null)[]>>;
  /** What each row says, by the name of the field. */
  readonly records: readonly Readonly<Record<string, string>>[];
}

/** Records of one kind that screens show, as a proposal. */
export interface CollectionProposal {
  readonly name: string;
  readonly places: readonly CollectionPlace[];
  readonly fields: readonly ProposedField[];
  /** How many different records were drawn. */
  readonly records: number;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

interface FoundField extends ProposedField {
  readonly column: Column;
}

interface FoundList {
  readonly screen: Screen;
  readonly within: Sight;
  readonly rows: readonly Sight[];
  readonly fields: readonly FoundField[];
  readonly name: string;
  /** Whether what it is called was said, and not made up from what it is built of. */
  readonly isNamed: boolean;
  readonly hasHead: boolean;
  readonly confidence: number;
  readonly reason: string;
}

/** What records are called that nothing calls anything. */
const NO_NAME = 'records';
/** Two lists are of one collection when so much of their fields is the same. */
const SAME_FIELDS = 0.25;

/** The collections that lists and tables of all screens show, the surest first. */
export function findCollections(screens: readonly Screen[]): CollectionProposal[] {
  const lists = screens.flatMap(listsOf);
  const groups: FoundList[][] = [];
  for (const list of lists) {
    const same = groups.find(([first]) => areSame(first, list));
    if (same) same.push(list);
    else groups.push([list]);
  }
  const taken = new Set<string>();
  return groups
    .map((group) => proposalOf(group))
    .sort((a, b) => b.confidence - a.confidence || b.records - a.records)
    .map((proposal) => {
      const name = uniqueName(proposal.name, (one) => taken.has(one), '');
      taken.add(name);
      return { ...proposal, name };
    });
}

function areSame(a: FoundList, b: FoundList): boolean {
  const names = new Set(a.fields.map(({ name }) => name));
  const shared = b.fields.filter(({ name }) => names.has(name)).length;
  const likeness = shared / Math.max(1, new Set([...names, ...b.fields.map(({ name }) => name)]).size);
  return a.name === b.name && a.name !== NO_NAME
    ? likeness >= SAME_FIELDS
    : likeness > 0.8 && a.fields.length > 2 && a.hasHead === b.hasHead && hasSameRecord(a, b);
}

/** Whether some record of one list stands in the other. */
function hasSameRecord(a: FoundList, b: FoundList): boolean {
  const said = (list: FoundList): Set<string> =>
    new Set(list.rows.map((_, i) => recordOf(list, i).join('|')).filter((text) => text.length > 12));
  const known = said(a);
  return [...said(b)].some((one) => known.has(one));
}

const recordOf = ({ fields }: FoundList, row: number): string[] =>
  fields.map(({ column }) => column.cells[row]?.text ?? '').filter(Boolean);

function proposalOf(group: readonly FoundList[]): CollectionProposal {
  const best = group.reduce((most, list) => (list.confidence > most.confidence ? list : most));
  const fields = new Map<string, ProposedField>();
  for (const list of [best, ...group.filter((one) => one !== best)])
    for (const { column: _column, ...field } of list.fields)
      if (!fields.has(field.name)) fields.set(field.name, field);
  const places = group.map((list): CollectionPlace => ({
    screen: list.screen.key,
    within: list.within.element.key,
    rows: list.rows.map(({ element }) => element.key),
    shows: Object.fromEntries(
      list.fields.map(({ name, column }) => [
        name,
        column.cells.map((cell) => cell?.sight.element.key ?? null),
      ]),
    ),
    records: list.rows.map((_, i) =>
      Object.fromEntries(
        list.fields.flatMap(({ name, column }) => {
          const cell = column.cells[i];
          return cell ? [[name, valueOf(cell)]] : [];
        }),
      ),
    ),
  }));
  const distinct = new Set(places.flatMap(({ records }) => records.map((record) => JSON.stringify(record))));
  const more = group.length > 1 ? `; ${group.length} lists show the same kind of record` : '';
  return {
    name: best.name,
    places,
    fields: [...fields.values()],
    records: distinct.size,
    confidence: Math.min(0.97, best.confidence + (group.length > 1 ? 0.04 : 0)),
    reason: best.reason + more,
  };
}

/** What a cell says as a value: of a picture its file, of a box to tick whether it is. */
function valueOf({ kind, text, sight }: Cell): string {
  const { element } = sight;
  if (kind === 'picture') return element.asset ?? text;
  if (kind === 'check') return element.attributes?.checked === undefined ? 'no' : 'yes';
  if (kind === 'progress') return element.attributes?.['aria-valuenow'] ?? element.attributes?.value ?? text;
  return text;
}

/** What has more fields than this, and no heads, is no record. */
const MOST_FIELDS = 12;
/** Places in which a list is no list of records. */
const NO_PLACE: ReadonlySet<string> = new Set([
  'navigation',
  'contentinfo',
  'tablist',
  'radiogroup',
  'chart',
]);
const NO_PLACE_WORDS =
  / (breadcrumbs?|pagination|pager|paginate|menu|navbar|nav|sidebar|toolbar|dropdown|tabs?|tabbar|legend|steps|stepper|wizard|carousel|slider|social|socials|footer|chips?|filters?|toast|calendar|keypad|sharing) /;

/** Containers around a list whose names say what it is for, at most so many further out. */
const MOST_AROUND = 3;
const AROUND_WORDS =
  / (breadcrumbs?|pagination|pager|menu|navbar|nav|sidebar|toolbar|dropdown|legend|social|socials|footer|toast|calendar) /;

function isInNoPlace(inner: Sight, guesses: Guesses): boolean {
  let depth = 0;
  return hasParent(inner, (parent) => {
    const isNear = depth++ < MOST_AROUND && parent.parent !== null;
    return (
      NO_PLACE.has(guesses.get(parent.element.key)?.role ?? '') || (isNear && AROUND_WORDS.test(parent.words))
    );
  });
}

function listsOf(screen: Screen): FoundList[] {
  const sight = sightOf(screen);
  const guesses = inferRoles(screen);
  const isNoPlace = (one: Sight): boolean =>
    NO_PLACE.has(guesses.get(one.element.key)?.role ?? '') || NO_PLACE_WORDS.test(one.words);
  return findLists(screen).flatMap((list): FoundList[] => {
    const rows = list.places.map((key) => sight.byKey.get(key)!).filter(({ element }) => !element.hidden);
    const inner = sight.byKey.get(list.within!)!;
    if (rows.length < 2 || isNoPlace(inner) || isInNoPlace(inner, guesses)) return [];
    if (rows.some((row) => holdsField(row, guesses))) return [];
    const table = tableAround(inner, guesses);
    const head = headOf(rows, inner, table, guesses);
    const body = rows.filter((row) => row !== head?.row);
    const found = fieldsOf(body, head, guesses);
    const [named, isNamed] = nameOf(body, table ?? inner, found, sight, guesses, list.name);
    const texts = found.filter(({ type }) => type !== 'picture' && type !== 'yes-no').length;
    if (!body.length || !texts || (found.length < 2 && !head) || (!head && found.length > MOST_FIELDS))
      return [];
    if (!head && isMenu(body, found, guesses)) return [];
    const filled = shareFilled(found, body.length);
    const confidence = head
      ? 0.82 + Math.min(0.1, body.length * 0.02) + (isNamed ? 0.03 : 0)
      : 0.35 +
        Math.min(0.2, body.length * 0.04) +
        Math.min(0.15, found.length * 0.04) +
        0.15 * filled +
        (isNamed ? 0.05 : 0);
    return [
      {
        screen,
        within: table ?? inner,
        rows: body,
        fields: found,
        name: named,
        isNamed,
        hasHead: head !== null,
        confidence: Math.round(Math.min(0.95, confidence) * 100) / 100,
        reason: `${body.length} rows of one kind with ${found.length} ${found.length === 1 ? 'field' : 'fields'}${head ? ', named by the heads of their columns' : ''}`,
      },
    ];
  });
}

const holdsField = (sight: Sight, guesses: Guesses): boolean => {
  const role = guesses.get(sight.element.key)?.role;
  return (
    ((role === 'textbox' || role === 'combobox') && sight.element.tag !== undefined) ||
    sight.children.some((child) => holdsField(child, guesses))
  );
};

/** Rows that only lead somewhere: one text each, with a picture at most. */
function isMenu(rows: readonly Sight[], fields: readonly ProposedField[], guesses: Guesses): boolean {
  const texts = fields.filter(({ type }) => type !== 'picture').length;
  const areLinks = rows.every((row) => {
    const role = guesses.get(row.element.key)?.role;
    return (
      role === 'link' ||
      (row.children.length === 1 && guesses.get(row.children[0].element.key)?.role === 'link')
    );
  });
  return texts < 2 && areLinks;
}

const shareFilled = (fields: readonly FoundField[], rows: number): number =>
  fields.reduce((sum, { column }) => sum + column.cells.filter((cell) => cell !== null).length, 0) /
  Math.max(1, fields.length * rows);

function tableAround(inner: Sight, guesses: Guesses): Sight | null {
  for (let at: Sight | null = inner, depth = 0; at && depth < 3; at = at.parent, depth++)
    if (guesses.get(at.element.key)?.role === 'table') return at;
  return null;
}

/** The row that says what the columns are, with what it says. */
interface Head {
  readonly row: Sight | null;
  readonly cells: readonly { readonly text: string; readonly x: number; readonly right: number }[];
}

/** Heads are short, and there are at least two of them. */
const HEAD_LETTERS = 40;

function headOf(rows: readonly Sight[], inner: Sight, table: Sight | null, guesses: Guesses): Head | null {
  const isHead = (row: Sight): boolean =>
    row.children.length > 1 &&
    row.children.every((cell) => guesses.get(cell.element.key)?.role === 'columnheader');
  const take = (row: Sight, own: Sight | null): Head => ({
    row: own,
    cells: row.children
      .filter(({ element }) => !element.hidden)
      .map(({ text, element: { box } }) => ({ text, x: box.x, right: box.x + box.width })),
  });
  if (rows.length > 2 && isHead(rows[0])) return take(rows[0], rows[0]);
  if (table) {
    const all: Sight[] = [];
    const visit = (sight: Sight): void => {
      if (guesses.get(sight.element.key)?.role === 'row') all.push(sight);
      else sight.children.forEach(visit);
    };
    visit(table);
    // Of several rows of heads the last says most.
    const heads = all.filter((row) => isHead(row) && row.element.box.y <= rows[0].element.box.y);
    if (heads.length) return take(heads.at(-1)!, null);
    // A table without heads of its own whose first row looks otherwise than the rest.
    const [first, second] = rows;
    if (rows.length > 2 && first && isBolder(first, second)) return take(first, first);
  }
  return drawnHead(rows, inner);
}

const isBolder = (a: Sight, b: Sight): boolean => {
  const weight = (row: Sight): number => Math.min(...row.children.map(({ fontWeight }) => fontWeight));
  return (
    a.children.length > 1 && a.children.length === b.children.length && weight(a) >= 600 && weight(b) < 600
  );
};

/** Texts above the first row that stand where its texts stand. */
function drawnHead(rows: readonly Sight[], inner: Sight): Head | null {
  const [first] = rows;
  const around = inner.parent ? [inner, inner.parent] : [inner];
  for (const holder of around) {
    const before = holder.children.filter(
      ({ element: { box, hidden } }) =>
        !hidden && box.y + box.height <= first.element.box.y + 4 && first.element.box.y - box.y < 80,
    );
    const texts = before
      .flatMap((one) => (one.children.length > 1 ? one.children : [one]))
      .filter(({ text, children }) => text !== '' && text.length <= HEAD_LETTERS && children.length < 2);
    const lines = grouped(texts, ({ element }) => String(Math.round(element.box.y / 6)));
    for (const line of lines.values()) {
      if (line.length < 2) continue;
      const columns = new Set(first.children.map(({ element }) => Math.round(element.box.x)));
      const fitting = line.filter(({ element }) =>
        [...columns].some((x) => Math.abs(x - element.box.x) <= 16),
      );
      const areWords = line.filter(({ text }) => /^\p{L}/u.test(text)).length >= line.length * 0.75;
      if (areWords && fitting.length >= 2 && fitting.length >= line.length * 0.6)
        return {
          row: null,
          cells: line.map(({ text, element: { box } }) => ({ text, x: box.x, right: box.x + box.width })),
        };
    }
  }
  return null;
}

/** What rows say of themselves in each row alike: labels of what stands beside. */
function fieldsOf(rows: readonly Sight[], head: Head | null, guesses: Guesses): FoundField[] {
  if (!rows.length) return [];
  const columns = columnsOf(rows, guesses);
  const texts = (column: Column): string[] =>
    column.cells.flatMap((cell) => (cell ? [cell.text.trim()] : []));
  const fields: FoundField[] = [];
  const taken = new Set<string>();
  const withText = new Set(
    columns.flatMap((column) =>
      head && column.cells.some((cell) => cell?.kind === 'text')
        ? [headOver(head, column)?.trim() ?? '']
        : [],
    ),
  );
  let label = '';
  for (const column of columns) {
    const [cell] = column.cells.filter((one) => one !== null);
    if (!cell) continue;
    const values = texts(column);
    const said = new Set(values.filter(Boolean));
    const over = head && cell.sight.parent ? headOver(head, column) : null;
    const isSame = said.size <= 1 && rows.length > 1;
    // What every row says alike does something, or calls what comes next.
    if (cell.kind === 'text' && isSame && (cell.isPressed || !over)) {
      label = !cell.isPressed && IS_LABEL.test(values[0] ?? '') ? values[0] : '';
      continue;
    }
    if (cell.kind === 'text' && cell.isPressed && !over) continue;
    if (
      over !== null &&
      /^(actions?|options?|edit|delete|manage|operations?|view|tools|#)?$/i.test(over.trim()) &&
      (isPressedOften(column) || (over.trim() === '' && !said.size))
    )
      continue;
    if (cell.kind === 'check' && rows.length > 1 && (over === null || over.trim() === '')) continue;
    const own = over?.trim() ?? '';
    const isFurther = own !== '' && fields.some((field) => field.label === own && field.type !== 'picture');
    const caption = over?.trim() || label.replace(/[:\s]+$/, '');
    label = '';
    const type = typeOf(cell, values, caption || (classWord(cell) ?? ''));
    if (type === null) continue;
    // Several pictures in one column are one field.
    if (
      type === 'picture' &&
      own !== '' &&
      fields.some((field) => field.label === own && field.type === 'picture')
    )
      continue;
    const wanted =
      isFurther || (own !== '' && type === 'picture')
        ? partName(caption, cell, type, withText.has(own))
        : fieldName(cell, caption, type, values, fields);
    const name = uniqueName(wanted, (one) => taken.has(one), '');
    taken.add(name);
    fields.push({
      name,
      label: caption,
      type,
      column,
      ...(type === 'one-of' ? { choices: choicesOf(values).slice(0, 12) } : {}),
    });
  }
  return fields;
}

/** A text that calls what stands after it. */
const IS_LABEL = /^\p{L}[\p{L} ]{1,24}:?$/u;

const isPressedOften = ({ cells }: Column): boolean =>
  cells.filter((cell) => cell?.isPressed).length * 2 >= cells.filter((cell) => cell !== null).length;

/** What the head over a column says. */
function headOver(head: Head, { cells }: Column): string | null {
  const votes = new Map<string, number>();
  for (const cell of cells) {
    if (!cell) continue;
    const { box } = cell.sight.element;
    const middle = box.x + box.width / 2;
    const over =
      head.cells.find(({ x, right }) => middle >= x && middle <= right) ??
      head.cells.find(({ x }) => Math.abs(x - box.x) <= 16);
    if (over) votes.set(over.text, (votes.get(over.text) ?? 0) + 1);
  }
  return [...votes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

function typeOf(cell: Cell, values: readonly string[], label: string): FieldType | null {
  if (cell.kind === 'picture') return 'picture';
  if (cell.kind === 'check') return 'yes-no';
  if (cell.kind === 'progress') return 'percent';
  if (!values.some((value) => /[\p{L}\p{N}]/u.test(value))) return null;
  return typeOfValues(values, label);
}

const NAMED_BY_TYPE: Readonly<Partial<Record<FieldType, string>>> = {
  picture: 'picture',
  email: 'email',
  phone: 'phone',
  date: 'date',
  time: 'time',
  money: 'price',
  percent: 'share',
  link: 'link',
  'one-of': 'status',
};
const CLASS_WORDS =
  /\b(title|name|author|date|time|price|status|category|description|subtitle|caption|excerpt|summary|email|phone|location|address|role|position|company|count|quantity|amount|rating|message|comment|user|username|tag|badge|avatar|image|photo|picture|thumbnail|logo|icon|number|value|quote|text|body)\b/;

/** A name for what stands in a column beside what the column is called after. */
function partName(caption: string, cell: Cell, type: FieldType, isBesideText: boolean): string {
  const own = fieldIn(caption);
  if (type === 'picture') return own && !isBesideText ? own : 'picture';
  const said = classWord(cell);
  if (said) return said;
  return NAMED_BY_TYPE[type] && type !== 'one-of' ? NAMED_BY_TYPE[type] : own ? `${own}Detail` : 'detail';
}

/** What its author's classes call it, if one of them is a word for a field. */
function classWord({ sight }: Cell): string | null {
  const [, word] = CLASS_WORDS.exec(sight.words) ?? [];
  if (!word || /^(text|body|icon)$/.test(word)) return null;
  if (/^(avatar|image|photo|thumbnail|logo)$/.test(word)) return 'picture';
  return word === 'badge' || word === 'tag' ? 'status' : word;
}

/** A name for a field that no head and no label calls. */
function fieldName(
  cell: Cell,
  label: string,
  type: FieldType,
  values: readonly string[],
  before: readonly ProposedField[],
): string {
  const said = label && label.split(/\s+/).length <= 5 ? fieldIn(label) : '';
  if (said) return said;
  const word = classWord(cell);
  if (word) return word;
  const drawn = cell.sight.isAuthored ? '' : fieldIn(wordOfLayer(cell.sight.element));
  if (drawn && drawn.length > 2 && !/^(text|label|box|icon)\d*$/.test(drawn)) return drawn;
  const byType = NAMED_BY_TYPE[type];
  if (byType) return byType;
  const words =
    values.reduce((sum, value) => sum + value.split(/\s+/).length, 0) / Math.max(1, values.length);
  const isFirst = !before.some(({ type: other }) => other === 'text');
  if (type === 'number') return 'count';
  if (isFirst && words <= 8) return isHeading(cell) || words > 3 ? 'title' : 'name';
  return words > 6 ? 'description' : 'detail';
}

const isHeading = ({ sight }: Cell): boolean => /^h[1-6]$/.test(sight.element.tag ?? '');

/** Whether the head of a column calls what the rows are, and not something of them. */
const callsThings = (label: string): boolean =>
  /^\p{L}+( \p{L}+)?$/u.test(label) &&
  !/\b(name|title|id|no|number|date|time|description|order|rank|first|last|city|country|office|position|street|address|email|function|type|reason|detail|qty|platform|engine)\b/i.test(
    label,
  );

/** How far above its rows what calls a list stands, in px. */
const NEAR = 160;

/** What the records are called, and whether somebody said so. */
function nameOf(
  rows: readonly Sight[],
  holder: Sight,
  fields: readonly FoundField[],
  screen: ScreenSight,
  guesses: Guesses,
  listName: string,
): readonly [name: string, isNamed: boolean] {
  const caption = holder.children.find(({ element }) => element.tag === 'caption')?.text;
  const heading = caption || headingOver(holder, screen, guesses);
  const said = heading ? collectionIn(heading) : null;
  if (said) return [said, true];
  // What its author called the rows, the list or what is around it.
  for (const one of [rows[0], holder]) {
    const word = one.isAuthored ? wordOfClasses(one.element.classes ?? '') : wordOfLayer(one.element);
    const found = collectionOf(word);
    if (found) return [found, !one.isAuthored];
  }
  // A first column that calls its things: `Product`, `Tool`.
  const first = fields.slice(0, 3).find(({ label, type }) => type === 'text' && callsThings(label));
  if (first) {
    const found = collectionOf(first.label);
    if (found) return [found, true];
  }
  return [collectionOf(listName) ?? NO_NAME, false];
}

/** The heading that stands over a list, nearest first. */
function headingOver(holder: Sight, screen: ScreenSight, guesses: Guesses): string | null {
  const { box } = holder.element;
  let best: { readonly text: string; readonly far: number } | null = null;
  for (const sight of screen.all) {
    if (guesses.get(sight.element.key)?.role !== 'heading' || !sight.text || sight.text.length > 60) continue;
    const own = sight.element.box;
    const far = box.y - (own.y + own.height);
    const isOver = far >= -4 && far < NEAR && own.x < box.x + box.width && own.x + own.width > box.x - 40;
    if (isOver && !hasParent(sight, (parent) => parent === holder) && (!best || far < best.far))
      best = { text: sight.text, far };
  }
  return best?.text ?? null;
}

/** The name of one record: `tools` → `tool`. */
export const recordName = (collection: string): string =>
  collection.replace(/[A-Z]?[a-z]+$/, (word) => {
    const one = singular(word.toLowerCase());
    return /^[A-Z]/.test(word) ? one.replace(/^./, (letter) => letter.toUpperCase()) : one;
  });
