import { applyChange, putVariable } from '../change/change.ts';
import { graphOf } from '../graph/graph.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { wired } from '../testing/wired.ts';
import { copiedWiring, reciprocalLink, takeCopied } from './copy.ts';
import { describeArrival, describeGesture, describeTarget } from '../links/target.ts';
import { typedWiring } from './typed.ts';

const { design, app: bare } = projectOf(
  screenWith('home', 'Find tools', 'Account', 'Save', 'Save'),
  screenWith('results', 'Back'),
  screenWith('sign-in', 'Go'),
);
const app = applyChange(bare, putVariable('c1', { name: 'Signed in', initial: false }));
const project = { design, app };
const read = (text: string): string =>
  typedWiring(project, graphOf(project), 'home', text)
    .map((line) =>
      line.problem === undefined
        ? `${line.label}, ${describeGesture(project, line.interaction)}: ${describeTarget(project, line.interaction.target).label}, ${describeArrival(line.interaction.arrival)}`
        : line.problem,
    )
    .join('; ');

test.each([
  ['find → Results', 'Find tools, press: Results, none'],
  ['1 -> results', 'Find tools, press: Results, none'],
  ['Account if signed in → results fade', 'Account, press if signed in: Results, fade 240 ms'],
  ['Account if not signed in → sign in', 'Account, press if not signed in: Sign in, none'],
  [
    'Account long press → results push from left 300 ms',
    'Account, long press: Results, push from left 300 ms',
  ],
  ['Account swipe up → back', 'Account, swipe top: Back, none'],
  ['the screen after 2.5 s → results', 'The whole screen, after 2.5 s: Results, none'],
  ['screen key Escape → back', 'The whole screen, key Escape: Back, none'],
  ['Account → desk@mossgate.example', 'Account, press: desk@mossgate.example, none'],
  ['Account => +44 1632 960000', 'Account, press: +441632960000, none'],
  ['Account → signed in: yes', 'Account, press: Signed in: yes, none'],
  ['Save → results', '“Save” is 2 elements here; say which by its number: 3, 4'],
  ['4 → results', 'Save, press: Results, none'],
  ['Nothing → results', 'nothing on this screen is called “Nothing”'],
  ['Account → nowhere', 'no screen is called “nowhere”'],
  ['Account if rich → results', 'there is no condition “rich”'],
  ['Account results', 'write it as element → screen'],
  ['\n\n1 → results\n 2 → results \n', 'Find tools, press: Results, none; Account, press: Results, none'],
])('%j means %s', (text, meaning) => {
  expect(read(text)).toBe(meaning);
});

test('the wiring of one screen is copied to the same elements of another, where they are open', () => {
  const { design: drawn, app: before } = wired('a>c a>b a>d b.', 'abcd');
  const copied = copiedWiring(
    { design: drawn, app: before },
    graphOf({ design: drawn, app: before }),
    'a',
    'b',
  );
  // The first is still, the second would lead to the screen that it is on.
  expect(copied.map(({ label, interactions }) => [label, interactions[0].target])).toEqual([
    ['Three', { kind: 'screen', screen: 'd' }],
  ]);
  const after = applyChange(before, takeCopied(copied));
  expect(
    graphOf({ design: drawn, app: after })
      .departures.get('b')!
      .map((link) => link.to),
  ).toEqual(['d']);
});

test('the way back is the open element that by its name leads back', () => {
  const there = reciprocalLink(graphOf(project), 'home', 'results');
  expect(there?.label).toBe('Back');
  const after = { design, app: applyChange(app, there!.change) };
  expect(graphOf(after).departures.get('results')![0].interaction.target).toEqual({
    kind: 'back',
    fallback: 'home',
  });
  expect(reciprocalLink(graphOf(after), 'home', 'results')).toBeNull();
  expect(reciprocalLink(graphOf(project), 'home', 'sign-in')).toBeNull();
});
