import { type EntryHead, historyState } from './history.ts';

/** `+` a step, `-` undo, `=` redo; the state as what undo and redo would act on. */
function after(script: string): string {
  const entries: EntryHead[] = [];
  for (const sign of script) {
    const seq = entries.length + 1;
    const { undo, redo } = historyState(entries);
    const role = sign === '+' ? 'do' : sign === '-' ? 'undo' : 'redo';
    const of = sign === '-' ? undo?.seq : sign === '=' ? redo?.seq : undefined;
    entries.push({ seq, role, label: `step ${seq}`, ...(of ? { of } : {}) });
  }
  const { undo, redo } = historyState(entries);
  return `${undo?.seq ?? '·'} ${redo?.seq ?? '·'}`;
}

test.each([
  ['', '· ·'],
  ['+', '1 ·'],
  ['++', '2 ·'],
  ['++-', '1 2'],
  ['++--', '· 1'],
  ['++-=', '2 ·'],
  ['++--==', '2 ·'],
  ['++--=', '1 2'],
  ['++-+', '4 ·'],
  ['+-+', '3 ·'],
  ['+++-+-', '2 5'],
  ['+++---===', '3 ·'],
])('%s leads to %s', (script, expected) => {
  expect(after(script)).toBe(expected);
});

test('the place in history is the number of the last entry', () => {
  expect(
    historyState([
      { seq: 1, role: 'do', label: 'a' },
      { seq: 2, role: 'undo', of: 1, label: 'a' },
    ]).seq,
  ).toBe(2);
});
