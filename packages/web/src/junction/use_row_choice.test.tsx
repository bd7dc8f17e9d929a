import type { ElementState } from '@tovel/core';
import { act, renderHook } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { useRowChoice } from './use_row_choice';

const state = (key: string, links = 0): ElementState =>
  ({
    element: { key },
    label: key,
    number: 1,
    wired: Array.from({ length: links }, () => ({ interaction: {} })),
  }) as unknown as ElementState;
const listed = [state('save', 2), state('back', 1), state('menu')];

const chosen = () => {
  const { result } = renderHook(() => useRowChoice(listed), { wrapper: MemoryRouter });
  return {
    now: () => result.current,
    on: (work: (choice: ReturnType<typeof useRowChoice>) => void) => act(() => work(result.current)),
  };
};

test('a line is chosen alone, or with others; a line that is gone leaves its element chosen', () => {
  const { now, on } = chosen();
  expect(now().rows.map(({ id }) => id)).toEqual(['save', 'save|2', 'back', 'menu']);
  on((choice) => choice.choose('save', false));
  on((choice) => choice.choose('menu', true));
  expect(now().chosen.map(({ id }) => id)).toEqual(['menu', 'save']);
  on((choice) => choice.choose('back', false));
  expect(now().chosen.map(({ id }) => id)).toEqual(['back']);
  on((choice) => choice.choose('save|3', false));
  expect(now().selected?.id).toBe('save');
  on((choice) => choice.markAll());
  expect(now().chosen).toHaveLength(4);
});

test('what is typed on a line before its field is there is kept, and ends with another line', () => {
  const { now, on } = chosen();
  on((choice) => choice.type('menu', 's'));
  // Its field came with the drawing: what is typed from now on goes there.
  expect(now().typed).toBe('s');
  expect(now().selected?.id).toBe('menu');
  on((choice) => choice.choose('back', false));
  expect(now().typed).toBeNull();
  expect(now().typedOn('menu')).toBe('');
});

test('what was pressed on the stage is a line, though it was none before', () => {
  const { now, on } = chosen();
  on((choice) => choice.pickOnStage(state('picture')));
  expect(now().rows.at(-1)).toMatchObject({ id: 'picture', state: { number: 4 } });
  expect(now().selected?.id).toBe('picture');
  on((choice) => choice.pickOnStage(state('back', 1)));
  expect(now().rows.map(({ id }) => id)).toEqual(['save', 'save|2', 'back', 'menu']);
});
