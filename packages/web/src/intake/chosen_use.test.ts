import { type App, applyChange, emptyApp, emptyDesign, putScreen, setStart } from '@tovel/core';
import { type ChosenUse, othersInWords, stepToUse } from './chosen_use';
import { screenEntry as screen } from '../testing/screen_entry';

const app: App = [
  putScreen('a', screen(1)),
  putScreen('b', screen(2)),
  putScreen('c', screen(3, { use: 'overlay', of: 'a' })),
  setStart('b'),
].reduce(applyChange, emptyApp);
const project = { design: emptyDesign, app };

test.each<[string, readonly string[], ChosenUse, string | null, string]>([
  [
    'two are skipped, the start among them',
    ['a', 'b'],
    { use: 'skip' },
    'Skip 2 screens',
    'a skip, b skip, c overlay a',
  ],
  ['one that is skipped already is none', ['a'], { use: 'screen' }, null, ''],
  ['nothing is an overlay of itself', ['a'], { use: 'overlay', of: 'a' }, null, ''],
  [
    'an overlay of another screen',
    ['a', 'c'],
    { use: 'overlay', of: 'b' },
    'Make an overlay of 2 screens',
    'a overlay b, b screen, c overlay b',
  ],
  [
    'a counterpart',
    ['b', 'c'],
    { use: 'counterpart', of: 'a' },
    'Make a counterpart of 2 screens',
    'a screen, b counterpart a, c counterpart a',
  ],
])('%s', (_, keys, use, label, uses) => {
  const step = stepToUse(project, keys, use);
  expect(step?.label ?? null).toBe(label);
  if (!step) return;
  const after = applyChange(app, step.change);
  expect(
    Object.entries(after.screens)
      .map(([key, { use: is, of }]) => [key, is, of].filter(Boolean).join(' '))
      .join(', '),
  ).toBe(uses);
  expect(after.start).toBe(keys.includes('b') ? null : 'b');
});

test.each([
  [['screen', 'screen'], ''],
  [['counterpart', 'counterpart', 'overlay'], ' and 2 counterparts, 1 overlay'],
  [['skip', 'state', 'skip'], ' and 1 state, 2 skipped'],
] as const)('what else there is of %j', (uses, words) => {
  expect(othersInWords(uses)).toBe(words);
});
