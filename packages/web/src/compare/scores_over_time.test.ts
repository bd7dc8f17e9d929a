import type { ComparisonScore } from '@tovel/core';
import { scoresOverTime } from './scores_over_time';

const score = (seq: number, width: number, percent: number): ComparisonScore => ({
  screen: 'home',
  drawing: 'home',
  width,
  reference: 'source',
  seq,
  iteration: 1,
  percent,
  causes: 0,
  at: '2026-11-27T00:00:00.000Z',
});

test.each([
  ['nothing', [], []],
  [
    'each place once, whatever order they come in',
    [score(4, 390, 1), score(0, 1280, 3), score(0, 390, 5)],
    [
      [0, 4, 5],
      [4, 2, 3],
    ],
  ],
  ['the last of a place', [score(1, 390, 2), score(1, 390, 0)], [[1, 0, 0]]],
])('%s', (_, scores, expected) =>
  expect(scoresOverTime(scores).map(({ seq, mean, worst }) => [seq, mean, worst])).toEqual(expected),
);
