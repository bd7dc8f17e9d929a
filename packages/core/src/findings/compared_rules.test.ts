import type { SweptFault } from '../compare/width_faults.ts';
import { applyChange, putScreen } from '../change/change.ts';
import { wired } from '../testing/wired.ts';
import { comparedFindings, type KeptScore } from './compared_rules.ts';

const scores = (script: string, more: Partial<KeptScore> = {}): KeptScore[] =>
  script.split(' ').map((one, seq) => {
    const [percent, causes = '1'] = one.split('/');
    return {
      screen: 'a',
      drawing: 'a',
      width: 1280,
      reference: 'source',
      seq,
      iteration: 1,
      percent: Number(percent),
      causes: Number(causes),
      ...more,
    };
  });

test.each<[what: string, scores: KeptScore[], told: string[]]>([
  ['one comparison', scores('4'), []],
  ['better than before', scores('4 0.2'), []],
  ['worse', scores('0.1 4.2'), ['A at 1280 px differs by 4.20 %, and by 0.10 % in iteration 1, step 0.']],
  [
    'worse, and seen once more',
    scores('3 0.1 4.2 4.2'),
    ['A at 1280 px differs by 4.20 %, and by 0.10 % in iteration 1, step 1.'],
  ],
  ['worse, and mended', scores('0.1 4.2 0.1'), []],
  ['worse by what somebody decided', scores('0.1/0 4.2/0'), []],
  ['hardly worse', scores('0.1 0.15'), []],
  ['a little worse where much differs', scores('10 10.5'), []],
  ['further from a version, as it should be', scores('0.1 4.2', { reference: 'version-3' }), []],
  ['a screen that is not there', scores('0.1 4.2', { screen: 'gone' }), []],
  ['each width for itself', [...scores('4'), ...scores('0.1', { width: 390 })], []],
])('of %s it is told what became worse', (_, all, told) => {
  expect(comparedFindings(wired('a>b'), all, []).map(({ message }) => message)).toEqual(told);
});

test('what breaks at a width is a warning, once for all that is wrong in one way; what is hard to read or to press is told; of what is left out, nothing', () => {
  const fault = (kind: SweptFault['kind'], says: string): SweptFault => ({
    id: kind,
    kind,
    name: 'Search',
    box: { x: 0, y: 0, width: 10, height: 10 },
    says,
    widths: [320, 400],
  });
  const project = wired('a>b');
  const sweeps = [
    {
      screen: 'a',
      faults: [
        fault('overflow', 'sticks out by 120 px'),
        fault('overflow', 'sticks out by 20 px'),
        fault('text', 'is 9 px high'),
      ],
    },
  ];
  expect(comparedFindings(project, [], sweeps)).toEqual([
    expect.objectContaining({
      code: 'breaks-at-width',
      level: 'warning',
      screen: 'a',
      message: '“Search” on A: sticks out by 120 px at 320 to 400 px, and 1 more like it.',
    }),
    expect.objectContaining({ code: 'hard-at-width', level: 'info' }),
  ]);
  const without = applyChange(project.app, putScreen('a', { ...project.app.screens.a, use: 'skip' }));
  expect(comparedFindings({ ...project, app: without }, [], sweeps)).toEqual([]);
});
