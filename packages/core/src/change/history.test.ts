import { putStill, setStart } from './change.ts';
import { type EntryHead, historyState, inTheWay, isOwnStep } from './history.ts';

/** `a` and `b` are steps of two windows, `-` an undo and `=` a redo by the window named after it. */
function play(script: string): EntryHead[] {
  const entries: EntryHead[] = [];
  const put = (entry: Omit<EntryHead, 'seq'>): void =>
    void entries.push({ seq: entries.length + 1, ...entry });
  for (let i = 0; i < script.length; i++) {
    const sign = script[i];
    if (sign !== '-' && sign !== '=') {
      put({ role: 'do', label: `step ${entries.length + 1}`, author: `d.${sign}` });
      continue;
    }
    const author = `d.${script[++i]}`;
    const { undo, redo } = historyState(entries, { author, since: 0 });
    const of = sign === '-' ? undo : redo;
    if (of) put({ role: sign === '-' ? 'undo' : 'redo', of: of.seq, label: of.label, author });
  }
  return entries;
}
const stateOf = (script: string, window = 'a'): string => {
  const { undo, redo } = historyState(play(script), { author: `d.${window}`, since: 0 });
  return `${undo?.seq ?? '·'} ${redo?.seq ?? '·'}`;
};

test.each([
  ['', '· ·'],
  ['a', '1 ·'],
  ['aa', '2 ·'],
  ['aa-a', '1 2'],
  ['aa-a-a', '· 1'],
  ['aa-a=a', '2 ·'],
  ['aa-a-a=a=a', '2 ·'],
  ['aa-a-a=a', '1 2'],
  ['aa-aa', '4 ·'],
  ['a-aa', '3 ·'],
  ['aaa-aa-a', '2 5'],
  ['aaa-a-a-a=a=a=a', '3 ·'],
  ['ab', '1 ·'],
  ['ab-a', '2 1'],
  ['aab-a', '1 2'],
  ['aab-ab', '1 2'],
  ['b', '1 ·'],
  ['ba-b', '2 1'],
])('%s leads to %s', (script, expected) => expect(stateOf(script)).toBe(expected));

test('undo in one window leaves the steps of another, and each can redo its own', () => {
  expect(stateOf('ab-a', 'b')).toBe('2 1');
  expect(stateOf('ab-a-b', 'b')).toBe('· 2');
  expect(stateOf('ab-a-b', 'a')).toBe('· 1');
});

test('the place in history is the number of the last entry', () => {
  expect(historyState(play('a-a')).seq).toBe(2);
});

test.each([
  [{ seq: 9, author: 'd.a' }, true],
  [{ seq: 3, author: 'd.b' }, true],
  [{ seq: 9, author: 'd.b' }, false],
  [{ seq: 3, author: 'e.b' }, false],
  [{ seq: 3 }, false],
])('%j is one’s own: %s', (head, isOwn) => expect(isOwnStep(head, { author: 'd.a', since: 5 })).toBe(isOwn));

test('what wrote the same place later is in the way', () => {
  const later = [
    { label: 'Elsewhere', change: putStill('b', true) },
    { label: 'Start there', change: setStart('b') },
  ];
  expect(inTheWay(setStart('a'), later)).toEqual(['Start there']);
  expect(inTheWay(putStill('a', true), later)).toEqual([]);
});
