import type { Guesses } from '../roles/guess.ts';
import type { Sight } from '../roles/sight.ts';

/** What one row has at one place. */
export interface Cell {
  readonly sight: Sight;
  readonly kind: 'text' | 'picture' | 'check' | 'progress';
  /** What it says; of a picture its alternative text. */
  readonly text: string;
  /** Whether it is pressed to do something, and says what. */
  readonly isPressed: boolean;
  /** How it looks in a word, by which it is found in the other rows. */
  readonly look: string;
  /** Place in its row: structure, and px from the row's corner. */
  readonly path: string;
  readonly x: number;
  readonly y: number;
}

/** What all rows of a list have at the same place. */
export interface Column {
  /** One for each row, in order; null where a row has none. */
  readonly cells: readonly (Cell | null)[];
}

/** Rows with more parts than this are no records. */
const MOST_CELLS = 40;
/** Two cells are the same field from this likeness on. */
const ALIKE = 3;

/**
 * What rows of one kind hold, laid over each other: texts, pictures, boxes to tick and bars, each with what every row has
 * there. Cells of other rows go to the column that they are most alike, by structure, look and place.
 */
export function columnsOf(rows: readonly Sight[], guesses: Guesses): Column[] {
  const all = rows.map((row) => cellsOf(row, guesses).slice(0, MOST_CELLS));
  const model = all.reduce((most, cells) => (cells.length > most.length ? cells : most), all[0] ?? []);
  const columns = model.map((cell) => ({ model: cell, cells: all.map((): Cell | null => null) }));
  all.forEach((cells, row) => {
    const pairs = cells
      .flatMap((cell) => columns.map((column, at) => ({ cell, at, likeness: likeness(cell, column.model) })))
      .filter((pair) => pair.likeness >= ALIKE)
      .sort((a, b) => b.likeness - a.likeness);
    const taken = new Set<Cell>();
    for (const { cell, at } of pairs) {
      if (taken.has(cell) || columns[at].cells[row]) continue;
      columns[at].cells[row] = cell;
      taken.add(cell);
    }
  });
  return columns;
}

function likeness(a: Cell, b: Cell): number {
  if (a.kind !== b.kind) return 0;
  const isNear = Math.abs(a.x - b.x) <= 12;
  return (
    (a.path === b.path ? 3 : 0) +
    (a.look === b.look ? 2 : 0) +
    (isNear ? 1.5 : 0) +
    (Math.abs(a.y - b.y) <= 8 ? 1 : 0)
  );
}

/** Inline parts of one text are read as that text. */
const INLINE = new Set([
  'b',
  'strong',
  'em',
  'i',
  'u',
  'small',
  'mark',
  'sup',
  'sub',
  'abbr',
  'time',
  'br',
  'code',
]);

/** What a row shows, each once, in reading order. */
export function cellsOf(row: Sight, guesses: Guesses): Cell[] {
  const cells: Cell[] = [];
  const { box: at } = row.element;
  const put = (
    sight: Sight,
    kind: Cell['kind'],
    path: string,
    isPressed: boolean,
    text = sight.text,
  ): void => {
    const { element, fontSize, fontWeight } = sight;
    const look = [element.tag, element.classes ?? '', fontSize, fontWeight >= 600, kind].join(' ');
    cells.push({
      sight,
      kind,
      text,
      isPressed,
      look,
      path,
      x: element.box.x - at.x,
      y: element.box.y - at.y,
    });
  };
  const visit = (sight: Sight, path: string, isPressed: boolean): void => {
    const { element, children } = sight;
    if (element.hidden) return;
    const role = guesses.get(element.key)?.role;
    if (role === 'checkbox' || role === 'switch' || role === 'radio') return put(sight, 'check', path, false);
    if (role === 'textbox' || role === 'combobox' || role === 'slider') return;
    if (role === 'progressbar') return put(sight, 'progress', path, false);
    if (element.kind === 'image' || role === 'avatar' || (role === 'image' && element.kind !== 'box'))
      return put(sight, 'picture', path, false, element.attributes?.alt ?? '');
    if (element.kind === 'vector' || role === 'icon') return;
    const pressed = isPressed || role === 'button';
    const inner = children.filter((child) => !child.element.hidden);
    const isOneText =
      sight.text !== '' &&
      (sight.hasOwnText || !inner.some((child) => child.text !== '')) &&
      inner.every((child) => child.text === '' || INLINE.has(child.element.tag ?? ''));
    if (isOneText) {
      put(sight, 'text', path, pressed);
      for (const child of inner) if (child.element.kind === 'image') visit(child, `${path}/i`, pressed);
      return;
    }
    if (sight.hasOwnText && sight.text !== '') put(sight, 'text', path, pressed, ownText(sight));
    inner.forEach((child, i) => visit(child, `${path}/${i}${child.element.kind[0]}`, pressed));
  };
  row.children.forEach((child, i) => visit(child, `${i}${child.element.kind[0]}`, false));
  if (row.hasOwnText && !cells.length) put(row, 'text', '', false);
  return cells;
}

const ownText = ({ element }: Sight): string =>
  (
    element.text ??
    element.children.flatMap((child) => (child.tag === undefined ? (child.text ?? '') : [])).join(' ')
  )
    .replace(/\s+/g, ' ')
    .trim();
