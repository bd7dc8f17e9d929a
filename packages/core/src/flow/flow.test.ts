import fc from 'fast-check';
import {
  all,
  applyChange,
  type Change,
  putVariable,
  putInteraction,
  putJourney,
  putScreen,
  putStill,
} from '../change/change.ts';
import { equalJson } from '../json/json.ts';
import type { Arrival, Interaction, Target } from '../model/app.ts';
import { EASINGS, GESTURES, pressTo, SIDES } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { behaving } from '../testing/behaving.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { library } from '../testing/library.ts';
import { completeFlow } from './complete_flow.ts';
import { printFlow } from './print_flow.ts';
import { readFlow } from './read_flow.ts';

const made = (project: Project, ...changes: Change[]): Project => ({
  ...project,
  app: applyChange(project.app, all(changes)),
});
const desk = (): Project =>
  made(
    projectOf(
      screenWith('home', 'Tools', 'Saw', 'Saw', 'Say "hi"'),
      screenWith('tools', 'Back', 'Filter'),
      screenWith('sign-in', 'Go in'),
    ),
    putVariable('c1', { name: 'Signed in', initial: false }),
  );
const read = (project: Project, text: string): Project => {
  const { change, problems } = readFlow(project, text);
  expect(problems).toEqual([]);
  return change ? made(project, change) : project;
};

test('an app that does all that elements can do is read back as it is', () => {
  const project = behaving();
  const text = printFlow(project, 'Desk');
  expect(readFlow(project, text)).toEqual({ change: null, problems: [], untold: [] });
  expect(text).toMatch(
    /^ {2}press "Saw" -> "Tool" with toolId "saw" by shared 300 ms moving "Saw" to "Reserve" on "Tool"$/m,
  );
});

test('a sheet that is taken into a project without any wiring wires it as it was', () => {
  const project = behaving();
  const { app } = project;
  const bare = made(
    project,
    ...Object.keys(app.interactions).map((key) => putInteraction(key, null)),
    ...Object.entries(app.screens).map(([key, { guard: _guard, params: _params, ...entry }]) =>
      putScreen(key, entry),
    ),
  );
  const text = printFlow(project, 'Desk');
  expect(printFlow(read(bare, text), 'Desk')).toBe(text);
});

describe('whatever a project says', () => {
  const elements = ['home:0', 'home:1', 'home:2', 'tools:1', 'home:'];
  const element = fc.constantFrom(...elements);
  const screen = fc.constantFrom('home', 'tools', 'sign-in');
  const text = fc.string({ unit: 'grapheme', maxLength: 12 }).map((typed) => `x${typed}`);
  const word = fc.stringMatching(/^[a-z]\w{0,8}$/);
  const timing = {
    ms: fc.nat(900),
    easing: fc.option(fc.constantFrom(...EASINGS), { nil: undefined }),
    delay: fc.option(fc.nat(90), { nil: undefined }),
  };
  const side = fc.constantFrom(...SIDES);
  const arrival: fc.Arbitrary<Arrival> = fc.oneof(
    fc.constant({ kind: 'none' } as const),
    fc.record({ kind: fc.constant('fade' as const), ...timing }),
    fc.record({ kind: fc.constant('push' as const), from: side, ...timing }),
    fc.record({
      kind: fc.constant('shared' as const),
      ...timing,
      pairs: fc.array(fc.record({ from: element, to: element }), { maxLength: 2 }),
    }),
  );
  const given = fc.oneof(
    text,
    element.map((field) => ({ field })),
  );
  const steps = [
    fc.record({ kind: fc.constant('open' as const), overlay: screen }),
    fc.constant({ kind: 'close' } as const),
    fc.record({ kind: fc.constant('set' as const), condition: fc.constant('c1'), value: fc.boolean() }),
    fc.record({
      kind: fc.constant('disclose' as const),
      part: element,
      does: fc.constantFrom('toggle', 'open', 'close'),
    }),
    fc.record({
      kind: fc.constant('record' as const),
      collection: fc.constant('gone'),
      deed: fc.oneof(
        fc.constant({ kind: 'remove' } as const),
        fc.record({ kind: fc.constant('set' as const), field: word, value: text }),
      ),
    }),
  ] as const;
  const target: fc.Arbitrary<Target> = fc.oneof(
    ...steps,
    fc.record(
      {
        kind: fc.constant('screen' as const),
        screen,
        params: fc.dictionary(word, given, { minKeys: 1, maxKeys: 2 }),
        query: fc.dictionary(word, text, { minKeys: 1, maxKeys: 2 }),
      },
      { requiredKeys: ['kind', 'screen'] },
    ),
    fc.record({ kind: fc.constant('back' as const), fallback: screen }, { requiredKeys: ['kind'] }),
    fc.constant({ kind: 'anchor', screen: 'tools', element: 'tools:1' } as const),
    fc.record({
      kind: fc.constant('list' as const),
      collection: fc.constant('gone'),
      deed: fc.oneof(
        fc.constantFrom({ kind: 'search' } as const, { kind: 'more' } as const),
        fc.record({
          kind: fc.constant('page' as const),
          to: fc.constantFrom('next' as const, 'last' as const, 7),
        }),
        fc.record({
          kind: fc.constant('choose' as const),
          field: word,
          all: fc.array(text, { maxLength: 2 }),
        }),
        fc.record(
          {
            kind: fc.constant('filter' as const),
            field: word,
            value: text,
            part: fc.constant(true as const),
          },
          { requiredKeys: ['kind', 'field'] },
        ),
      ),
    }),
  ) as fc.Arbitrary<Target>;
  const interaction = fc
    .record(
      {
        on: fc.constantFrom(...GESTURES.filter((one) => !['key', 'swipe', 'after'].includes(one))),
        target,
        arrival,
        when: fc.record({ condition: fc.constant('c1'), is: fc.boolean() }),
        before: fc.array(fc.oneof(...steps), { minLength: 1, maxLength: 2 }),
        everywhere: fc.constant(true as const),
      },
      { requiredKeys: ['on', 'target', 'arrival'] },
    )
    .map((value) => JSON.parse(JSON.stringify(value)) as Interaction);

  test('is read back as the same, on the project itself and on one that says nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(element, interaction), { maxLength: 5 }),
        fc.array(fc.constantFrom('home:3', 'tools:0'), { maxLength: 2 }),
        fc.string({ maxLength: 12 }).map((typed) => `x${typed}`),
        (links, still, name) => {
          const bare = desk();
          const project = made(
            bare,
            ...new Map(links.map(([key, value]) => [key, putInteraction(key, value)])).values(),
            ...still.map((key) => putStill(key, true)),
            putJourney('j1', {
              name,
              start: 'home',
              steps: [{ kind: 'enter', element: 'home:1', text: name }],
            }),
          );
          const sheet = printFlow(project, name);
          expect(readFlow(project, sheet)).toEqual({ change: null, problems: [], untold: [] });
          const again = read(bare, sheet);
          expect(again.app.still).toEqual(project.app.still);
          expect(equalJson(again.app.interactions, project.app.interactions)).toBe(true);
          expect(printFlow(again, name)).toBe(sheet);
        },
      ),
      { numRuns: 300 },
    );
  });
});

const lines = (project: Project, edit: (text: string) => string): Project =>
  read(project, edit(printFlow(project, 'Desk')));

test.each<[string, (text: string) => string, (project: Project) => unknown, unknown]>([
  [
    'a link',
    (text) => text.replace('screen "Home" at /home', '$&\n  press "Saw" #2 -> "Tools" by fade 200 ms'),
    ({ app }) => app.interactions['home:2'],
    { on: 'press', target: { kind: 'screen', screen: 'tools' }, arrival: { kind: 'fade', ms: 200 } },
  ],
  [
    'another route',
    (text) => text.replace('at /tools', 'at /catalogue'),
    ({ app }) => app.screens.tools.route,
    '/catalogue',
  ],
  [
    'another name for what is at the same route',
    (text) => text.replace('screen "Tools" at', 'screen "Catalogue" at'),
    ({ app }) => [app.screens.tools.name, Object.keys(app.screens).length],
    ['Catalogue', 3],
  ],
  [
    'a screen that nobody drew',
    (text) => `${text}\nplanned "Help" at /help\n`,
    ({ app }) => app.screens['planned-help'],
    { name: 'Help', route: '/help', use: 'planned', order: 4 },
  ],
  [
    'a guard that names a condition which is told further down',
    (text) =>
      `${text.replace('screen "Tools" at /tools', '$&\n  needs not "Late" else "Sign in"')}\ncondition "Late" yes\n`,
    ({ app }) => [app.screens.tools.guard, app.variables.late],
    [
      { condition: 'late', is: false, otherwise: 'sign-in' },
      { name: 'Late', initial: true },
    ],
  ],
  [
    'nothing of what a line said that was taken away',
    (text) => text.replace('variable "Signed in" no\n', ''),
    ({ app }) => app.variables,
    {},
  ],
])('who writes %s gets it', (_, edit, look, expected) => expect(look(lines(desk(), edit))).toEqual(expected));

test('a screen that a sheet does not tell of stays, with all that it does, and is named', () => {
  const project = made(desk(), putStill('tools:0', true));
  const sheet = printFlow(project, 'Desk').replace(/screen "Tools"[\s\S]*?\n\n/, '');
  const { change, problems, untold } = readFlow(project, sheet);
  expect({ change, problems, untold }).toEqual({ change: null, problems: [], untold: ['Tools'] });
});

test.each<[string, string, Partial<ReturnType<typeof readFlow>['problems'][number]>]>([
  [
    'screen "Home" at /home\n  press "Sow" -> "Tools"',
    'like it',
    { line: 2, column: 9, length: 5, message: 'There is no element “Sow” on “Home”. Do you mean “Saw”?' },
  ],
  [
    'screen "Home" at /home\n  press "Saw" #9 -> "Home"',
    'too many',
    { line: 2, column: 9, message: 'There are only 4 “Saw” on “Home”.' },
  ],
  [
    'screen "Home" at /home\n  press "Saw" "Home"',
    'no arrow',
    { line: 2, column: 15, message: '“Home” is not what can stand here; expected on, if, or ->.' },
  ],
  ['screen "Home" at /home\n  press "Saw" ->', 'an end', { line: 2, column: 17 }],
  ['screen "Home" at /home\n  press "Saw -> "Home"', 'an open text', { line: 2 }],
  [
    '  press "Saw" -> "Home"',
    'no screen',
    {
      line: 1,
      column: 3,
      message: 'This line stands further in, but no screen and no journey stands above it.',
    },
  ],
  ['screen "Home" at nowhere', 'no path', { line: 1, column: 18 }],
  ['screen "Home" at /a{b}', 'no route', { line: 1 }],
  ['start "Nowhere"', 'no such screen', { line: 1, column: 7, message: 'There is no screen “Nowhere”.' }],
  [
    'overlay "Nothing"',
    'no drawing',
    { line: 1, message: 'There is no drawing “Nothing” that could open over a screen.' },
  ],
  ['screen "Home" at /home\n  press "Saw" -> back then close', 'no step', { line: 2 }],
  [
    'screen "Home" at /home\njourney "A" from "Home"\n  use "Saw" to "Home"',
    'nothing done',
    { line: 3, message: 'Nothing is done there: say on its screen first what it does.' },
  ],
  ['jump "Home"', 'no word', { line: 1, column: 1, length: 4 }],
])('%j is told of, with its place: %s', (text, _, expected) => {
  const { problems, change } = readFlow(desk(), text);
  expect(problems[0]).toMatchObject(expected);
  expect(change).toBeNull();
});

test('any text is read or told of', () => {
  const parts = fc.constantFrom(
    'screen ',
    'press ',
    '"Home"',
    '"',
    ' -> ',
    '\n  ',
    '\n',
    '#2',
    '/x',
    ' by fade ',
    '9 ms',
    'key ',
    '--',
    'é',
    '\\',
  );
  fc.assert(
    fc.property(fc.array(fc.oneof(parts, fc.string({ maxLength: 4 }))), (pieces) => {
      const project = desk();
      const { change, problems } = readFlow(project, pieces.join(''));
      if (problems.length) expect(change).toBeNull();
      else if (change) applyChange(project.app, change);
    }),
    { numRuns: 500 },
  );
});

test.each([
  ['scr|', ['screen']],
  [
    'screen "Home" at /home\n  press |',
    ['everywhere', '"Tools"', '"Saw"', '"Saw" #2', '"Say \\"hi\\""', 'if', '->'],
  ],
  ['screen "Home" at /home\n  press "sa|', ['"Saw"', '"Saw" #2', '"Say \\"hi\\""']],
  ['screen "Home" at /home\n  press "Saw" -> "|\nscreen "Tools" at /tools', ['"Home"', '"Tools"']],
  ['screen "Home" at /home\n  press "Unknown" -> op|', ['open']],
  ['condition "Late" no\nscreen "Home" at /home\n  press "Saw" if not |', ['"Late"']],
  ['screen "Home" at /home\n  press "Saw" -> "Home" by sl|', ['slide']],
])('at | in %j one can go on with %j', (marked, expected) => {
  const at = marked.indexOf('|');
  const { completions } = completeFlow(desk(), marked.replace('|', ''), at);
  expect(completions.map(({ text }) => text)).toEqual(expected);
});

test('variables of all kinds are written on a line each, and read back as they are', () => {
  const project = behaving();
  const text = printFlow(project, 'All');
  expect(text.match(/^variable .*$/gm)).toEqual([
    'variable "Signed in" no',
    'variable "Chosen" number "0" kept device',
    'variable "Many" always "chosen > 2" as yes-no',
    'variable "Note" text "it\'s" kept screen',
    'variable "Said" always "`${upper(note)}: ${chosen}`" as text',
    'variable "View" of "list" or "grid" first "list" kept address',
  ]);
  expect(text).toContain('press "One more" -> set "Chosen" to "chosen + 1"');
  expect(readFlow(project, text)).toEqual({ change: null, problems: [], untold: [] });
});

test('lists and records that are remembered, and what is worked out as such, are read back as they are', () => {
  const project = library(
    putVariable('picked', { name: 'Picked', type: 'list', initial: ['Saw', 'Drill'] }),
    putVariable('names', {
      name: 'Names',
      type: 'list',
      initial: [],
      says: 'map(tools, (tool) => tool.name)',
    }),
    putVariable('held', { name: 'Held', type: 'record', of: 'tools', initial: '' }),
    putVariable('best', { name: 'Best', type: 'record', of: 'tools', initial: '', says: 'first(tools)' }),
    putInteraction('tool:1', pressTo({ kind: 'browser', does: 'tick' })),
  );
  const text = printFlow(project, 'All');
  expect(text.match(/^variable .*$/gm)).toEqual([
    'variable "Best" always "first(tools)" as record in "tools"',
    'variable "Held" record in "tools"',
    'variable "Names" always "map(tools, (tool) => tool.name)" as list',
    'variable "Picked" list holding "Saw" and "Drill"',
  ]);
  expect(text).toContain('-> tick');
  expect(readFlow(project, text)).toEqual({ change: null, problems: [], untold: [] });
});
