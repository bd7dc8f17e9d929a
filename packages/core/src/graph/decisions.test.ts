import { openLinkDecisions } from './decisions.ts';
import type { ElementState, Standing } from './graph.ts';

const state = (key: string, label: string, standing: Standing, tag = 'a'): ElementState =>
  ({ element: { key, tag }, label, standing }) as ElementState;

test('what says the same is one decision, on however many screens it waits', () => {
  const elements = new Map([
    ['a', [state('a:1', 'Loans', 'open'), state('a:2', 'Help', 'live'), state('a:3', '', 'open')]],
    [
      'b',
      [state('b:1', 'loans ', 'broken'), state('b:2', 'Loans', 'open', 'button'), state('b:3', '', 'open')],
    ],
    ['c', [state('c:1', 'Sheds', 'still')]],
  ]);
  expect(openLinkDecisions({ elements })).toBe(4);
});
