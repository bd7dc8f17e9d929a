import type { Notice } from '../model/design.ts';
import { noticeCauses } from './notice_causes.ts';

const notice = (level: Notice['level'], file: string, message: string): Notice => ({
  level,
  code: 'any',
  file,
  message,
});

test('what is said of several files is said once, what costs most first', () => {
  expect(
    noticeCauses([
      notice('info', 'a.html', 'A script was left out. (3 times)'),
      notice('warning', 'a.html', 'The sheet is missing.'),
      notice('info', 'b.html', 'A script was left out. (5 times)'),
      notice('warning', 'b.html', 'The sheet is missing.'),
      notice('warning', 'b.html', 'The sheet is missing.'),
      notice('error', 'c.svg', 'It is broken. (2 times)'),
    ]).map(({ level, message, files }) => [level, message, ...files]),
  ).toEqual([
    ['error', 'It is broken. (2 times)', 'c.svg'],
    ['warning', 'The sheet is missing.', 'a.html', 'b.html'],
    ['info', 'A script was left out.', 'a.html', 'b.html'],
  ]);
});

test('what informs of many things is said once, and what has to be brought is said of each', () => {
  const of = (level: Notice['level'], sentence: string): Notice[] =>
    ['a', 'b', 'c', 'd'].map((name) => notice(level, 'a.html', `“${name}” ${sentence}`));
  expect(
    noticeCauses([...of('info', 'is hidden.'), ...of('warning', 'is missing.')]).map(
      ({ message }) => message,
    ),
  ).toEqual([
    '“a” is missing.',
    '“b” is missing.',
    '“c” is missing.',
    '“d” is missing.',
    '“a” is hidden. The same is true of 3 more.',
  ]);
});

test('of many things that did not come along some are named, and how many there are', () => {
  const missed = ['a', 'b', 'c', 'd', 'e'].map((name): Notice => ({
    ...notice('warning', 'a.html', `The picture “${name}.png” did not come along; bring it in.`),
    code: 'html-missing',
  }));
  expect(noticeCauses(missed).map(({ message }) => message)).toEqual([
    'The picture “a.png” did not come along; bring it in. The same is true of “b.png”, “c.png” and 2 more.',
  ]);
  expect(noticeCauses(missed.slice(0, 3))).toHaveLength(3);
});
