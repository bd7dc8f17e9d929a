import { withOwnBorders } from './own_borders.ts';

const look = (base: Record<string, string>, hover: Record<string, string> = {}) => ({
  base,
  at: {},
  from: {},
  states: { ':hover': hover },
});

test.each([
  ['a line without a width', { 'border-left-style': 'solid' }, '3px'],
  ['a line with one', { 'border-left-style': 'solid', 'border-left-width': '1px' }, '1px'],
  ['no line', { 'border-left-style': 'none' }, undefined],
  ['nothing', {}, undefined],
])('%s is as wide as it was elsewhere', (_, base, expected) => {
  expect(withOwnBorders(look(base)).base['border-left-width']).toBe(expected);
});

test('a line that is there only in a state has its width there', () => {
  const hover = { 'border-top-style': 'dotted' };
  expect(withOwnBorders(look({}, hover)).states[':hover']).toEqual({ ...hover, 'border-top-width': '3px' });
  expect(withOwnBorders(look({ 'border-top-width': '2px' }, hover)).states[':hover']).toEqual(hover);
});
