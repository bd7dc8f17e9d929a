import { movedBy } from './grid_keys';

test.each([
  ['ArrowDown', false, 1, 1],
  ['ArrowUp', false, 0, 1],
  ['ArrowLeft', false, 0, 0],
  ['ArrowRight', false, 0, 2],
  ['End', false, 0, 2],
  ['End', true, 4, 2],
  ['Home', true, 0, 0],
  ['PageDown', false, 4, 1],
  ['ArrowDown', true, 4, 1],
])('%s (with Ctrl: %s) leads to row %s, column %s', (key, isControl, row, column) => {
  expect(movedBy(key, isControl, { row: 0, column: 1 }, 5, 3)).toEqual({ row, column });
});

test('other keys lead nowhere', () => {
  expect(movedBy('a', false, { row: 0, column: 0 }, 5, 3)).toBeNull();
});
