import { best } from './Jump';

const of = (id: string, label: string, detail: string) => ({ id, label, detail });
const all = [
  of('finding 1', 'Something is a proposed heading of a screen that opens over', 'finding'),
  of('finding 2', 'People rarely open settings, and press on each day', 'finding'),
  of('screen a', 'Proposals', '/proposals'),
  of('screen b', 'Loans', '/loans'),
  of('element 1', 'Proposed', 'on Loans'),
  of('command', 'Take all that is proposed', 'command'),
];
const found = (typed: string, lately: readonly string[] = []): string[] =>
  best(all, typed, lately).map(({ id }) => id);

test('words come before beginnings and letters, and a sentence is shown for its words alone', () => {
  expect(found('proposed')).toEqual(['element 1', 'command', 'finding 1']);
  expect(found('prop')[0]).toBe('screen a');
  expect(found('lns')).toEqual(['screen b']);
});

test('what was gone to lately comes before its equals', () => {
  expect(found('', ['command', 'screen b']).slice(0, 2)).toEqual(['command', 'screen b']);
  expect(found('propo', ['element 1'])[0]).toBe('element 1');
});
