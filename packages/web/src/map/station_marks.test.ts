import type { Station } from '@tovel/core';
import { nearest, notesOf } from './station_marks';

const station = (key: string, x: number, y: number): Station => ({
  key,
  x,
  y,
  isReached: true,
});
const all = [
  station('start', 0, 0),
  station('right', 100, 10),
  station('far', 300, 0),
  station('below', 20, 120),
  station('aside', 60, 90),
];

test.each<[way: string, dx: number, dy: number, from: number, to: string | undefined]>([
  ['to the right', 1, 0, 0, 'right'],
  ['down', 0, 1, 0, 'below'],
  ['back to the left', -1, 0, 1, 'start'],
  ['on from there', 1, 0, 1, 'far'],
  ['where nothing is', 1, 0, 2, undefined],
  ['up to the first', 0, -1, 3, 'aside'],
])('by arrow %s', (_, dx, dy, from, to) => {
  expect(nearest(all, all[from], dx, dy)?.key).toBe(to);
});

test('a group says how many screens it stands for, a screen what is open there', () => {
  const marks = { notes: new Map([['start', '2 open']]), bad: new Set<string>() };
  expect(all.slice(0, 2).map((one) => notesOf(one, marks))).toEqual(['2 open', '']);
  expect(notesOf({ ...all[1], members: ['a', 'b', 'c'] }, marks)).toBe('3 screens, press to unfold');
});
