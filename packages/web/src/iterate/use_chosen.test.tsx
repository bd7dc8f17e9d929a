import type { IterationReport, ReportedAsk, RoundScreen } from '@tovel/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { screenAtFirst, useChosen } from './use_chosen';
import type { OpenRound } from './use_round';

const ask = (id: string, screen: string): ReportedAsk =>
  ({ id, element: id, screen, label: id, candidates: [{ element: `new ${id}` }], why: 'unsure' }) as never;
const screens = [
  { old: 'desk', now: 'desk2', name: 'Desk', standing: 'same' },
  { old: 'loans', now: 'loans2', name: 'Loans', standing: 'changed' },
  { old: 'tools', now: 'tools2', name: 'Tools', standing: 'changed' },
];
const report = { screens, asks: [ask('save', 'tools'), ask('lend', 'loans')] } as unknown as IterationReport;

test.each<[what: string, report: IterationReport | null, ask: ReportedAsk | null, at: number | null]>([
  ['nothing is known yet', null, null, null],
  ['that of the decision', report, report.asks[0], 2],
  ['the first that changed, where nothing is to be decided', report, null, 1],
  ['the first, where nothing changed', { ...report, screens: report.screens.slice(0, 1) }, null, 0],
])('the screen at first: %s', (_, given, one, at) => {
  expect(screenAtFirst(given, one)).toBe(at);
});

const pageOf = (at: number): RoundScreen =>
  ({
    before: null,
    after: null,
    differences: [],
    kept: [],
    shown: { 'new save': 'shown save', other: 'shown other' },
    incoming: { 'shown other': 'other' },
    named: [{ key: 'other', label: `Other of ${at}` }],
  }) as unknown as RoundScreen;

const opened = () => {
  const answered: unknown[] = [];
  const round = {
    report,
    screen: async (at: number) => pageOf(at),
    answer: (...given: unknown[]) => void answered.push(given),
  } as unknown as OpenRound;
  const { result } = renderHook(() => useChosen(round), { wrapper: MemoryRouter });
  return { result, answered };
};

test('the first decision is shown with what is proposed for it; pointing at another marks that until it is answered', async () => {
  const { result, answered } = opened();
  await waitFor(() => expect(result.current.page).not.toBeNull());
  expect(result.current.current?.name).toBe('Tools');
  expect(result.current.marks).toEqual({ olds: ['save'], nows: ['shown save'] });
  act(() => result.current.point('shown other'));
  expect(result.current.pointed).toEqual({ key: 'other', label: 'Other of 2' });
  expect(result.current.marks.nows).toEqual(['shown other']);
  act(() => result.current.onAnswer('save', { kind: 'none' } as never));
  expect(result.current.pointed).toBeNull();
  expect(answered).toEqual([['save', { kind: 'none' }]]);
});

test('on a screen that is chosen only its own decisions are there', async () => {
  const { result } = opened();
  await act(async () => result.current.chooseScreen(1));
  await waitFor(() => expect(result.current.page?.named[0].label).toBe('Other of 1'));
  expect(result.current.asks.map(({ id }) => id)).toEqual(['lend']);
  await act(async () => result.current.chooseScreen(0));
  expect(result.current.asks).toEqual([]);
  expect(result.current.ofAsk).toBeNull();
  await act(async () => result.current.chooseScreen(null));
  expect(result.current.asks).toHaveLength(2);
});
