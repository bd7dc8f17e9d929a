import { always, type EditCondition } from '../model/edit_key.ts';
import { overriddenAt } from './overridden.ts';

const style = {
  base: { color: 'red', 'font-size': '20px', padding: '8px' },
  at: { 800: { 'font-size': '16px' }, 500: { 'font-size': '14px', color: 'red', width: '100%' } },
  from: { 1200: { padding: '12px' }, 1400: { padding: '16px' } },
};
const upTo = (width: number): EditCondition => ({ kind: 'upTo', width });
const from = (width: number): EditCondition => ({ kind: 'from', width });

test.each<[condition: EditCondition, width: number, expected: object[]]>([
  // What says the same is no difference; what is said at a narrow width alone is one.
  [always, 390, [{ condition: upTo(500), values: { 'font-size': '14px', width: '100%' } }]],
  [always, 500, [{ condition: upTo(500), values: { 'font-size': '14px', width: '100%' } }]],
  [always, 700, [{ condition: upTo(800), values: { 'font-size': '16px' } }]],
  [always, 1000, []],
  [always, 1300, [{ condition: from(1200), values: { padding: '12px' } }]],
  // The later of two that both hold says it.
  [always, 1500, [{ condition: from(1400), values: { padding: '16px' } }]],
  [upTo(800), 390, [{ condition: upTo(500), values: { 'font-size': '14px', width: '100%' } }]],
  [upTo(500), 390, []],
  // It holds at other widths, or nothing is said under it.
  [upTo(500), 700, []],
  [upTo(600), 390, []],
  [{ kind: 'state', state: 'hover' }, 390, []],
])('what is said %j at %d px', (condition, width, expected) => {
  expect(overriddenAt(style, condition, width)).toEqual(expected);
});
