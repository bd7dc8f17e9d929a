import { diffRows } from './diff_rows';

const lines = (from: number, to: number): string =>
  Array.from({ length: to - from + 1 }, (_, i) => `line ${String(from + i)}\n`).join('');

test('what changed stands with three lines around it, the rest is counted', () => {
  const rows = diffRows(lines(1, 20), lines(1, 9) + 'new\n' + lines(11, 20));
  expect(rows.map((row) => (row.kind === 'gap' ? `… ${row.count}` : `${row.kind} ${row.text}`))).toEqual([
    '… 6',
    'same line 7',
    'same line 8',
    'same line 9',
    'out line 10',
    'in new',
    'same line 11',
    'same line 12',
    'same line 13',
    '… 7',
  ]);
  expect(rows[4]).toEqual({ kind: 'out', text: 'line 10', before: 10, after: null });
  expect(rows[6]).toEqual({ kind: 'same', text: 'line 11', before: 11, after: 11 });
});

test('a text that is new is all in', () => {
  expect(diffRows('', 'a\nb\n').map(({ kind }) => kind)).toEqual(['in', 'in']);
});
