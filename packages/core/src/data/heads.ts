import { grouped } from '../json/grouped.ts';
import type { Guesses } from '../roles/guess.ts';
import type { Sight } from '../roles/sight.ts';
import type { Column } from './columns.ts';

/** The row that says what the columns are, with what it says. */
export interface Head {
  readonly row: Sight | null;
  readonly cells: readonly { readonly text: string; readonly x: number; readonly right: number }[];
}

/** Heads are short, and there are at least two of them. */
const HEAD_LETTERS = 40;

export function headOf(
  rows: readonly Sight[],
  inner: Sight,
  table: Sight | null,
  guesses: Guesses,
): Head | null {
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

/** What the head over a column says. */
export function headOver(head: Head, { cells }: Column): string | null {
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
