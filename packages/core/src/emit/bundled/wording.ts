import type { EmittedFile } from '../emitted.ts';
import type { EmittedList } from '../form/components/lists.ts';
import type { Prop } from '../form/components/template.ts';
import { isCodeName, pascalCase } from '../../model/names.ts';
import { quote } from '../quoting.ts';
import type { LiveUse } from '../form/markup.ts';
import type { Around } from './dialect.ts';

/** The type of a prop. @param drawing the framework's own for what is drawn */
export function propType(prop: Prop, drawing: string): string {
  switch (prop.kind) {
    case 'flag':
      return 'boolean';
    case 'drawing':
      return drawing;
    case 'list':
      return `${prop.fields ? recordType(prop.fields, drawing) : 'string'}[]`;
    case 'choice':
      return (prop.choices ?? []).map(quote).join(' | ');
    default:
      return 'string';
  }
}

/** The type of a record in a list that is given as a whole. */
const recordType = (fields: readonly Prop[], drawing: string): string =>
  `{ ${['id: string', ...fields.map((one) => `${one.name}${one.isOptional ? '?' : ''}: ${propType(one, drawing)}`)].join('; ')} }`;

/** Whether what shows a list is given something for each of it. */
export const givesProps = ({ records, items }: EmittedList): boolean =>
  items !== undefined || records.some((record) => Object.keys(record).length > 1);

/** The type of the constant that holds a list. @param classProp what a class is given by, where it is a prop */
export function listType(list: EmittedList, classProp?: string): string {
  const props = `${list.component}Props`;
  if (list.prop !== undefined) return `${props}['${list.prop}']`;
  if (!givesProps(list)) return '{ id: string }[]';
  const given = list.isClassed && classProp !== undefined ? `Omit<${props}, '${classProp}'>` : props;
  return `(${given} & { id: string })[]`;
}

/** Whether something is given drawn: as it is, or within a list. */
export const isDrawn = ({ kind, fields = [] }: Prop): boolean => kind === 'drawing' || fields.some(isDrawn);

/** What one of a list's records is called: `tools` → `tool`. */
export function rowName(data: string): string {
  const row = data.replace(/(?:ies)$/, 'y').replace(/s$/, '') || 'row';
  return row === data || !isCodeName(row) ? 'row' : row;
}

/** The constant that holds all records of a collection: `tools` → `allTools`. */
export const allNamed = (records: string): string => `all${pascalCase(records)}`;

/** The function that gives them. */
export const hookForAll = (records: string): string => `useAll${pascalCase(records)}`;

/** What each prop of a row is given: by its name, the expression. */
export const liveProps = (
  list: string,
  row: string,
  given: LiveUse['given'],
): (readonly [name: string, value: string])[] =>
  Object.entries(given).map(([name, from]) => [
    name,
    'property' in from
      ? `${row}.${from.property}`
      : 'before' in from
        ? `\`${from.before}\${${row}.id}${from.behind}\``
        : from.is === 'first'
          ? 'i === 0'
          : `i === ${list}.rows.length - 1`,
  ]);

/** The file of the navigation that holds something: called after it, but for what belongs together. */
export const navigationFile = (name: string): string =>
  name === 'useAfter' || name === 'useKey' ? 'moments' : name;

/** The sheet beside a file, where it has styles of its own. */
export const sheetFile = (path: string, { css }: Around): EmittedFile[] =>
  css.text ? [{ path: `${path}.module.css`, ...css }] : [];
