import fc from 'fast-check';
import {
  all,
  applyChange,
  type Change,
  putVariable,
  putInteraction,
  putMustHold,
  putScreen,
} from '../change/change.ts';
import { graphOf } from '../graph/graph.ts';
import { Walk } from '../journeys/walk.ts';
import type { Interaction, Target } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { to } from '../testing/wired.ts';
import { explore } from './explore.ts';
import { stateFindingsOf } from '../findings/state_rules.ts';
import { statePlan } from './plan.ts';

const base = projectOf(
  screenWith('home', 'Tools', 'Account', 'Sign out'),
  screenWith('sign-in', 'Sign in', 'Back'),
  screenWith('account', 'Ask', 'Back'),
  screenWith('ask', 'Yes', 'No'),
);
const { screens } = base.app;
const made = (...changes: Change[]): Project => ({
  ...base,
  app: applyChange(
    base.app,
    all([
      putVariable('c1', { name: 'Signed in', initial: false }),
      putVariable('c2', { name: 'Paid', initial: false }),
      putScreen('account', {
        ...screens.account,
        guard: { condition: 'c1', is: true, otherwise: 'sign-in' },
      }),
      putScreen('ask', {
        ...screens.ask,
        use: 'overlay',
        overlay: { kind: 'dialog', modal: true, escape: false, outside: false },
      }),
      putInteraction('home:1', to({ kind: 'screen', screen: 'account' })),
      putInteraction('home:2', to({ kind: 'set', condition: 'c1', value: false })),
      putInteraction('sign-in:0', {
        ...to({ kind: 'screen', screen: 'account' }),
        before: [{ kind: 'set', condition: 'c1', value: true }],
      }),
      putInteraction('account:0', to({ kind: 'open', overlay: 'ask' })),
      putInteraction('account:1', to({ kind: 'back' })),
      putInteraction('ask:1', to({ kind: 'close' })),
      ...changes,
    ]),
  ),
});
const told = (project: Project): string[] =>
  stateFindingsOf(project, graphOf(project)).map(({ code, message }) => `${code}: ${message}`);
const when = (target: Target, condition: string, is: boolean): Interaction => ({
  ...to(target),
  when: { condition, is },
});

test('of an app in which all comes to pass there is nothing to tell', () => {
  expect(told(made())).toEqual([]);
});

test.each<[string, readonly Change[], RegExp]>([
  [
    'what is done in a state that never comes',
    [putInteraction('home:0', when({ kind: 'screen', screen: 'sign-in' }, 'c2', true))],
    /^never-done: What “Tools” on Home does when paid is true is never done/,
  ],
  [
    'a screen whose variables are never so together',
    [
      // Who signs in has not paid, who pays is signed out.
      putInteraction('home:0', to({ kind: 'screen', screen: 'sign-in' })),
      putInteraction('home:1', when({ kind: 'screen', screen: 'account' }, 'c2', true)),
      putInteraction('home:2', {
        ...to({ kind: 'set', condition: 'c2', value: true }),
        before: [{ kind: 'set', condition: 'c1', value: false }],
      }),
      putInteraction('sign-in:0', {
        ...to({ kind: 'screen', screen: 'home' }),
        before: [
          { kind: 'set', condition: 'c1', value: true },
          { kind: 'set', condition: 'c2', value: false },
        ],
      }),
    ],
    /^never-shown: Account is never shown: “Signed in” true and “Paid” true are never so together/,
  ],
  [
    'an overlay that is closed only while something holds',
    [putInteraction('ask:1', when({ kind: 'close' }, 'c2', true))],
    /^overlay-trap: Nobody gets out of Ask after “Account”, “Sign in”, “Ask”/,
  ],
  [
    'what somebody stated, and what leads there otherwise',
    [
      putMustHold('h1', { kind: 'unless', screen: 'sign-in', condition: 'c1', is: true }),
      putMustHold('h2', { kind: 'unless', screen: 'account', condition: 'c1', is: true }),
    ],
    /^must-hold: It is stated that nobody is on Sign in unless signed in is true, but “Account” leads there all the same/,
  ],
  [
    'a screen that has to be passed and is not',
    [
      putMustHold('h1', { kind: 'through', screen: 'account', gate: 'sign-in' }),
      putVariable('c1', { name: 'Signed in', initial: true }),
    ],
    /^must-hold: It is stated that nobody gets to Account without having been on Sign in, but “Account” leads/,
  ],
])('%s is told', (_, changes, message) => {
  expect(told(made(...changes)).join('\n')).toMatch(message);
});

test('a way that breaks what was stated can be kept, and is a journey that holds', () => {
  const project = made(putMustHold('h1', { kind: 'unless', screen: 'sign-in', condition: 'c1', is: true }));
  const [{ fix }] = stateFindingsOf(project, graphOf(project));
  const app = applyChange(project.app, fix!.change);
  expect(Object.values(app.journeys)).toEqual([
    {
      name: 'Against: nobody is on Sign in unless signed in is true',
      start: 'home',
      steps: [{ kind: 'do', interaction: 'home:1', to: 'sign-in' }],
    },
  ]);
});

test('of too many states only ways are told, not what never is', () => {
  const project = made(putInteraction('home:0', when({ kind: 'screen', screen: 'sign-in' }, 'c2', true)));
  const explored = explore(statePlan(project, graphOf(project)), 2);
  expect(explored.isWhole).toBe(false);
  expect(explored.states).toBe(2);
});

const KEYS = ['a', 'b', 'c', 'd'];
const CONDITIONS = ['c1', 'c2', 'c3'];
const target = fc.oneof(
  fc.constantFrom(...KEYS.slice(0, 3)).map((screen): Target => ({ kind: 'screen', screen })),
  fc.constant<Target>({ kind: 'open', overlay: 'd' }),
  fc.constant<Target>({ kind: 'close' }),
  fc.constant<Target>({ kind: 'back' }),
  fc
    .tuple(fc.constantFrom(...CONDITIONS), fc.boolean())
    .map(([condition, value]): Target => ({ kind: 'set', condition, value })),
);
const condition = fc.record({ condition: fc.constantFrom(...CONDITIONS), is: fc.boolean() });
const links = fc.array(
  fc.record({
    element: fc.constantFrom(...KEYS.flatMap((key) => [0, 1, 2].map((i) => `${key}:${i}`))),
    target,
    when: fc.option(condition),
  }),
  { maxLength: 16 },
);
const guards = fc.record({
  b: fc.option(condition),
  c: fc.option(condition),
});

/** A small app with whatever is wired in it. */
function anyApp(
  wired: readonly { element: string; target: Target; when: { condition: string; is: boolean } | null }[],
  guarded: Readonly<Record<'b' | 'c', { condition: string; is: boolean } | null>>,
): Project {
  const project = projectOf(...KEYS.map((key) => screenWith(key, 'One', 'Two', 'Three')));
  const entries = project.app.screens;
  return {
    ...project,
    app: applyChange(
      project.app,
      all([
        ...CONDITIONS.map((id) => putVariable(id, { name: id, initial: id === 'c1' })),
        putScreen('d', {
          ...entries.d,
          use: 'overlay',
          overlay: { kind: 'dialog', modal: true, escape: false, outside: false },
        }),
        ...(['b', 'c'] as const).flatMap((key) =>
          guarded[key]
            ? [putScreen(key, { ...entries[key], guard: { ...guarded[key], otherwise: 'a' } })]
            : [],
        ),
        ...wired.map(({ element, target: leads, when: needed }) =>
          putInteraction(element, { ...to(leads), ...(needed ? { when: needed } : {}) }),
        ),
      ]),
    ),
  };
}

test('whoever walks about sees nothing and does nothing that was not found, and breaks only rules that are told', () => {
  fc.assert(
    fc.property(
      links,
      guards,
      condition,
      fc.constantFrom(...KEYS),
      fc.array(fc.nat(), { maxLength: 40 }),
      (wired, guarded, stated, screen, choices) => {
        const before = anyApp(wired, guarded);
        const rule = putMustHold('h1', { kind: 'unless', screen, ...stated });
        const project = { ...before, app: applyChange(before.app, rule) };
        const graph = graphOf(project);
        const explored = explore(statePlan(project, graph));
        expect(explored.isWhole).toBe(true);
        const facts = new Map(CONDITIONS.map((id) => [id, project.app.variables[id].initial]));
        const walk = new Walk(project, graph, graph.start!);
        const look = (): void => {
          expect(explored.seen).toContain(walk.place);
          expect(explored.seen).toContain(walk.screen);
          if ((walk.place === screen || walk.screen === screen) && facts.get(stated.condition) !== stated.is)
            expect(explored.broken.map((one) => one.rule)).toContain('h1');
        };
        look();
        for (const choice of choices) {
          const can = (graph.elements.get(walk.place) ?? [])
            .flatMap((state) => state.wired)
            .filter((one) => !one.problem && walk.holds(one));
          if (!can.length) break;
          const one = can[choice % can.length];
          expect(explored.done).toContain(one.key);
          for (const step of [...(one.interaction.before ?? []), one.interaction.target])
            if (step.kind === 'set') facts.set(step.condition, step.value);
          walk.do(one);
          look();
        }
      },
    ),
    { numRuns: 300 },
  );
});
