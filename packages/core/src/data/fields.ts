import type { FieldType } from '../model/app.ts';
import { plural, singular, uniqueName } from '../model/names.ts';
import { wordOfLayer } from '../roles/called.ts';
import type { Guesses } from '../roles/guess.ts';
import type { Sight } from '../roles/sight.ts';
import { type Cell, type Column, columnsOf } from './columns.ts';
import { type Head, headOver } from './heads.ts';
import { fieldIn } from './names.ts';
import { choicesOf, typeOfValues } from './value_types.ts';

/** A field of the records of a collection. */
export interface ProposedField {
  readonly name: string;
  /** How it is called on the screen; empty where nothing there calls it. */
  readonly label: string;
  readonly type: FieldType;
  /** Of one-of: what was drawn. */
  readonly choices?: readonly string[];
}

/** A field with what shows it in each row. */
export interface FoundField extends ProposedField {
  readonly column: Column;
}

/** What rows say of themselves in each row alike: labels of what stands beside. */
export function fieldsOf(rows: readonly Sight[], head: Head | null, guesses: Guesses): FoundField[] {
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
      (isPressedOften(column) || isSame || (over.trim() === '' && !said.size))
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
        : fieldName(column, caption, type, values, fields);
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
  const word = lastWord(sight.element.classes ?? '') ?? CLASS_WORDS.exec(sight.words)?.[1];
  if (!word || /^(text|body|icon)$/.test(word)) return null;
  if (/^(avatar|image|photo|thumbnail|logo)$/.test(word)) return 'picture';
  return word === 'badge' || word === 'tag' ? 'status' : word;
}

/** What the first class of several that has such a word says last: of `user-cell-email` that is `email`. */
function lastWord(classes: string): string | undefined {
  for (const one of classes.split(/\s+/)) {
    const words = one
      .replace(/(?<=[a-z])(?=[A-Z])/g, '-')
      .toLowerCase()
      .split(/[-_]+/);
    const said = words.findLast((word) => CLASS_WORDS.exec(word)?.[1] === word);
    if (said !== undefined) return said;
  }
  return undefined;
}

/** A name for a field that no head and no label calls. */
function fieldName(
  { cells }: Column,
  label: string,
  type: FieldType,
  values: readonly string[],
  before: readonly ProposedField[],
): string {
  const there = cells.filter((one) => one !== null);
  const [cell] = there;
  const said = label && label.split(/\s+/).length <= 5 ? fieldIn(label) : '';
  if (said) return said;
  const word = classWord(cell);
  if (word) return word;
  // What each row has another of is called by none of them.
  const layers = new Set(there.map(({ sight }) => wordOfLayer(sight.element)));
  const drawn = cell.sight.isAuthored || layers.size > 1 ? '' : fieldIn([...layers][0]);
  if (drawn && drawn.length > 2 && !/^(text|label|box|icon)\d*$/.test(drawn)) return drawn;
  const byType = NAMED_BY_TYPE[type];
  if (byType) return byType;
  const words =
    values.reduce((sum, value) => sum + value.split(/\s+/).length, 0) / Math.max(1, values.length);
  const isFirst = !before.some(({ type: other }) => other === 'text');
  if (type === 'number') return 'count';
  const held = namedByHeld(values);
  if (held) return held;
  if (isFirst && words <= 8) return isHeading(cell) || words > 3 ? 'title' : 'name';
  return words > 6 ? 'description' : 'detail';
}

/** What texts are called that all hold an amount of money, `€ 9.50 an hour`, or all count the same thing: `6 seats`. */
function namedByHeld(values: readonly string[]): string | null {
  const said = values.map((value) => value.trim()).filter(Boolean);
  if (said.length < 2) return null;
  const isShort = said.every((value) => value.split(/\s+/).length <= 5);
  if (isShort && said.every((value) => /[$€£¥₹]\s?\d|\d\s?[$€£¥₹]/.test(value))) return 'price';
  const counted = new Set(said.map((value) => /^\d[\d.,]*\s+(\p{L}{3,20})$/u.exec(value)?.[1].toLowerCase()));
  const words = new Set([...counted].map((word) => word && singular(word)));
  const [word] = counted;
  return words.size === 1 && word ? fieldIn(plural(singular(word))) : null;
}

const isHeading = ({ sight }: Cell): boolean => /^h[1-6]$/.test(sight.element.tag ?? '');
