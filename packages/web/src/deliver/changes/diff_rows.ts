import { diffLines } from 'diff';

/** A line of a text before and after, or a gap of lines that stay as they are. */
export type DiffRow =
  | {
      readonly kind: 'same' | 'out' | 'in';
      readonly text: string;
      /** From 1; where it was, and where it is. */
      readonly before: number | null;
      readonly after: number | null;
    }
  | { readonly kind: 'gap'; readonly count: number };

/** Lines that are shown around what changed. */
const AROUND = 3;

/** Two texts line by line, with what changed and a few lines around it. */
export function diffRows(before: string, after: string): DiffRow[] {
  const rows: Exclude<DiffRow, { kind: 'gap' }>[] = [];
  let [old, now] = [1, 1];
  for (const { value, added, removed } of diffLines(before, after))
    for (const text of value.replace(/\n$/, '').split('\n')) {
      if (added) rows.push({ kind: 'in', text, before: null, after: now++ });
      else if (removed) rows.push({ kind: 'out', text, before: old++, after: null });
      else rows.push({ kind: 'same', text, before: old++, after: now++ });
    }
  const isNear = rows.map((_, i) =>
    rows.slice(Math.max(0, i - AROUND), i + AROUND + 1).some(({ kind }) => kind !== 'same'),
  );
  const shown: DiffRow[] = [];
  let count = 0;
  for (const [i, row] of rows.entries()) {
    if (!isNear[i]) {
      count++;
      continue;
    }
    if (count) shown.push({ kind: 'gap', count });
    count = 0;
    shown.push(row);
  }
  if (count) shown.push({ kind: 'gap', count });
  return shown;
}
