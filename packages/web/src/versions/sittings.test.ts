import type { TimelineStep } from '@tovel/core';
import { linesOf, momentInWords, stepInWords } from './sittings';

const step = (seq: number, madeAt: string, more: Partial<TimelineStep> = {}): TimelineStep => ({
  seq,
  role: 'do',
  label: `Step ${seq}`,
  madeAt,
  standing: 'done',
  screens: [],
  isIteration: false,
  of: undefined,
  author: undefined,
  ...more,
});

test('steps without a long pause are one sitting, with the names at their places', () => {
  const lines = linesOf(
    [
      step(4, '2026-11-25T12:00:00Z'),
      step(3, '2026-11-25T11:45:00Z'),
      step(2, '2026-11-25T10:00:00Z'),
      step(1, '2026-11-24T10:00:00Z'),
    ],
    [{ id: 1, name: 'Review', seq: 3, madeAt: '2026-11-25T13:00:00Z' }],
  );
  expect(
    lines.map((line) =>
      line.kind === 'sitting'
        ? `${line.steps}: ${line.from.slice(8, 16)} to ${line.to.slice(8, 16)}`
        : `${line.step.seq} ${line.versions.map(({ name }) => name).join()}`,
    ),
  ).toEqual([
    '2: 25T11:45 to 25T12:00',
    '4 ',
    '3 Review',
    '1: 25T10:00 to 25T10:00',
    '2 ',
    '1: 24T10:00 to 24T10:00',
    '1 ',
  ]);
});

test.each([
  [{ label: 'Wire “Cancel”', screens: ['reserve'] }, 'Reserve: Wire “Cancel”'],
  [{ label: 'Rename Reserve to Lend', screens: ['reserve'] }, 'Rename Reserve to Lend'],
  [{ label: 'Take 12 roles', screens: ['reserve', 'home'] }, 'Take 12 roles'],
  [{ label: 'Wire', screens: ['gone'] }, 'Wire'],
  [{ label: 'Wire', screens: ['reserve'], role: 'undo' as const }, 'Took back “Reserve: Wire”'],
  [{ label: 'Wire', screens: [], role: 'redo' as const }, 'Made again “Wire”'],
])('%j reads %s', (more, words) => {
  const nameOf = (key: string): string | null => (key === 'reserve' ? 'Reserve' : null);
  expect(stepInWords(step(1, '2026-11-25T12:00:00Z', more), nameOf)).toBe(words);
});

test('a moment is told as a person would', () => {
  const now = new Date('2026-11-25T12:00:00');
  expect(momentInWords('2026-11-25T09:00:00', now)).toMatch(/^Today /);
  expect(momentInWords('2026-11-24T23:00:00', now)).toMatch(/^Yesterday /);
  expect(momentInWords('2026-11-01T09:00:00', now)).toMatch(/2026/);
});
