import { camelCase } from '../../../model/names.ts';
import type { Element, Screen } from '../../../model/design.ts';
import { textOf } from '../../../model/project.ts';
import { canBeProp } from './prop_names.ts';

/** Heads with more words than this say something of a column, and do not name it. */
const MOST_WORDS = 3;
/** A head as short as this is an abbreviation, where its author wrote it out besides. */
const ABBREVIATED = 3;
/** What a field cannot be called besides: rows are known by an id, and what begins so is no text. */
const KEPT = /^(id|is[A-Z].*|has[A-Z].*|on[A-Z].*)$/;

const known = new WeakMap<Screen, ReadonlyMap<string, string>>();

/** What the cells of tables say is called after the heads of their columns: names of fields, by the elements that say it. */
export function columnFields(screen: Screen): ReadonlyMap<string, string> {
  let fields = known.get(screen);
  if (!fields) {
    const found = new Map<string, string>();
    const visit = (element: Element): void => {
      if (element.tag === 'table') nameCells(element, found);
      element.children.forEach(visit);
    };
    visit(screen.root);
    known.set(screen, (fields = found));
  }
  return fields;
}

function nameCells(table: Element, found: Map<string, string>): void {
  const rows = rowsIn(table);
  const isHead = (row: Element): boolean =>
    row.children.length > 1 && row.children.every(({ tag }) => tag === 'th');
  const head = rows.find(isHead);
  if (!head) return;
  const names = cellsIn(head).flatMap(([cell, at]) => {
    const name = fieldNamed(cell);
    return name === null ? [] : [[at, name] as const];
  });
  // Two columns of one name are told apart by what they say.
  const count = (name: string): number => names.filter(([, other]) => other === name).length;
  const nameAt = new Map(names.filter(([, name]) => count(name) === 1));
  for (const row of rows)
    if (!isHead(row))
      for (const [cell, at] of cellsIn(row)) {
        const name = nameAt.get(at);
        const saying = name === undefined ? null : sayingIn(cell);
        if (saying) found.set(saying.key, name!);
      }
}

/** The rows of a table, and of no table within it. */
const rowsIn = (table: Element): Element[] =>
  table.children.flatMap((child) =>
    child.tag === 'tr' ? [child] : child.tag === 'table' ? [] : rowsIn(child),
  );

/** The cells of a row, each with the column that it begins in. */
function cellsIn(row: Element): [cell: Element, at: number][] {
  let at = 0;
  return row.children.map((cell) => {
    const own = at;
    at += Number(cell.attributes?.colspan ?? 1) || 1;
    return [cell, own];
  });
}

function fieldNamed(head: Element): string | null {
  const said = textOf(head).trim();
  const written = said.length <= ABBREVIATED ? (titleIn(head) ?? said) : said;
  const words = written
    .replace(/\s*\([^)]*\)$/, '')
    .replace(/(?<=\p{L})\.(?=\s|$)/gu, '')
    .replace(/^(no|nr|#)$/i, 'code')
    .replace(/(?<=\s)(no|nr|#)$/i, 'number');
  if (!/^[\p{L}\s-]+$/u.test(words) || words.split(/\s+/).length > MOST_WORDS) return null;
  const name = camelCase(words);
  return canBeProp(name) && !KEPT.test(name) ? name : null;
}

const titleIn = ({ attributes, children }: Element): string | undefined =>
  attributes?.title ?? children.map(titleIn).find(Boolean);

/** The element that says what a cell says first. */
function sayingIn(cell: Element): Element | null {
  if (cell.text?.trim()) return cell;
  for (const child of cell.children) {
    if (child.tag === undefined && child.text?.trim()) return cell;
    const found = sayingIn(child);
    if (found) return found;
  }
  return null;
}
