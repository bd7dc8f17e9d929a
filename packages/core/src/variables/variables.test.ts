import fc from 'fast-check';
import { behaving } from '../testing/behaving.ts';
import { type App, emptyApp, type Variable } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import { describeSetting, saidText, sayingFor, settingsOffered, typedSetting } from './settings.ts';
import { usesOfVariable } from './uses.ts';
import { derivedVariables, sayingOf, settingOf, valuesOfVariables } from './variables.ts';

const variables: App['variables'] = {
  c1: { name: 'Signed in', initial: false },
  days: { name: 'Days', type: 'number', initial: 2 },
  view: { name: 'View', type: 'one-of', choices: ['list', 'grid'], initial: 'list' },
  note: { name: 'Note', type: 'text', initial: '' },
  due: { name: 'Due', type: 'date', initial: '2026-03-01' },
  long: { name: 'Long', initial: false, says: 'days > 3 && signedIn' },
  picked: { name: 'Picked', type: 'list', initial: [] },
  held: { name: 'Held', type: 'record', of: 'tools', initial: '' },
  free: {
    name: 'Free',
    type: 'number',
    initial: 0,
    says: "count(filter(tools, (tool) => tool.status === 'free'))",
  },
};
const app: App = {
  ...emptyApp,
  variables,
  collections: {
    tools: {
      name: 'tools',
      fields: [
        { name: 'name', type: 'text' },
        { name: 'status', type: 'one-of' },
      ],
      rows: [],
    },
  },
};
const tools = [
  { id: 'saw', name: 'Saw', status: 'free' },
  { id: 'drill', name: 'Drill', status: 'out' },
];
const set = (condition: string, value: boolean | string) => ({ kind: 'set', condition, value }) as const;

test.each<[string, boolean | string]>([
  ['c1', true],
  ['c1', '!signedIn'],
  ['c1', 'days > 3'],
  ['days', 'days + 1'],
  ['days', 'entered'],
  ['view', "'grid'"],
  ['view', 'entered'],
  ['view', "view === 'grid' ? 'list' : 'grid'"],
  ['view', "signedIn ? view : 'list'"],
  ['note', '`${days} days`'],
  ['note', 'entered'],
  ['due', 'today()'],
  ['due', "'2026-04-01'"],
  ['due', "''"],
  ['picked', 'toggled(picked, entered)'],
  ['picked', 'map(tools, (tool) => tool.name)'],
  ['held', 'first(tools)'],
  ['held', 'held'],
  ['held', "''"],
  ['days', 'count(tools)'],
  ['note', 'held.name'],
])('%s can become %s', (condition, value) => {
  expect(settingOf(app, set(condition, value)).problem).toBeUndefined();
});

test.each<[string, boolean | string, RegExp]>([
  ['gone', true, /its variable is gone/],
  ['long', true, /Long is worked out, and cannot be set/],
  ['days', true, /Days is not yes or no/],
  ['c1', 'days', /Signed in is yes or no, and that is not/],
  ['days', "'three'", /Days is a number, and that is not/],
  ['view', "'rows'", /View is list or grid, and that is not/],
  ['view', 'note', /View is list or grid, and that is not/],
  ['due', "'soon'", /Due is a date, and that is not/],
  ['days', 'count(toils)', /nothing is called toils/],
  ['picked', 'note', /Picked is a list of texts, and that is not/],
  ['held', "'saw'", /Held is one record of its collection, and that is not/],
  ['held', 'tools', /Held is one record of its collection, and that is not/],
  ['free', '3', /Free is worked out, and cannot be set/],
  ['days', 'dais + 1', /nothing is called dais; there are/],
])('%s cannot become %s', (condition, value, why) => {
  expect(settingOf(app, set(condition, value)).problem).toMatch(why);
});

test.each<[string, boolean | string | null, string]>([
  ['Days: one more', null, ''],
  ['days = days * 2', 'days * 2', 'Days: days * 2'],
  ['Signed in: yes', true, 'Signed in: yes'],
  ['signed in = !signedIn', '!signedIn', 'Signed in: the other way round'],
  ['View: grid', "'grid'", 'View: “grid”'],
  ['view = rows', null, ''],
  ["Note: it's here", "'it\\'s here'", "Note: “it's here”"],
  ['Note = entered', 'entered', 'Note: what is entered'],
  ['Shed: 3', null, ''],
])('typed %s means %j', (typed, value, says) => {
  const meant = typedSetting(app, typed);
  expect(meant?.value ?? null).toEqual(value);
  if (meant) expect(describeSetting(app, meant)).toBe(says);
});

test.each<[string, string, string]>([
  ['Saved', "'Saved'", '“Saved”'],
  ["It's here", "'It\\'s here'", "“It's here”"],
  ['`${days} days`', '`${days} days`', '`${days} days`'],
  ['days', 'days', 'days'],
])('“say %s” says %s', (typed, text, words) => {
  expect(sayingFor(app, typed)).toBe(text);
  expect(sayingOf(app, text).problem).toBeUndefined();
  expect(saidText(text)).toBe(words);
});

test('all that is offered can be done, and is said in words that differ', () => {
  const offered = settingsOffered(app);
  expect(offered.map((one) => settingOf(app, one.set).problem)).toEqual(offered.map(() => undefined));
  expect(new Set(offered.map(({ says }) => says)).size).toBe(offered.length);
  expect(offered.map(({ says }) => says)).toContain('Days: one more');
});

test('what is worked out from records follows them, and tells which', () => {
  const { derived, problems } = derivedVariables(app);
  expect(problems.size).toBe(0);
  expect(derived.find(({ id }) => id === 'free')?.looksAt).toEqual(['tools']);
  expect(valuesOfVariables(app, new Map(), { tools }).free).toBe(1);
  expect(valuesOfVariables(app).free).toBe(0);
});

test('what comes from an API is not asked for by the way', () => {
  const behind = { api: 'a', list: 'listTools', key: 'id', fields: {} };
  const document = JSON.stringify({
    openapi: '3.1.0',
    paths: {
      '/tools': {
        get: {
          operationId: 'listTools',
          responses: {
            200: {
              content: {
                'application/json': {
                  schema: {
                    type: 'array',
                    items: { type: 'object', properties: { id: { type: 'string' } } },
                  },
                },
              },
            },
          },
        },
      },
    },
  });
  const remote: App = {
    ...app,
    apis: { a: { name: 'A', document } },
    collections: { tools: { ...app.collections.tools, behind } },
  };
  expect(derivedVariables(remote).problems.has('free')).toBe(false);
  expect(settingOf(remote, set('days', 'count(tools)')).problem).toBeUndefined();
});

test('what is worked out comes after what it looks at; circles and what cannot be read are told', () => {
  const { derived, problems } = derivedVariables({
    ...app,
    variables: {
      ...variables,
      b: { name: 'B', type: 'number', initial: 0, says: 'a + 1' },
      a: { name: 'A', type: 'number', initial: 0, says: 'days * 2' },
      x: { name: 'X', initial: false, says: '!y' },
      y: { name: 'Y', initial: false, says: '!x' },
      z: { name: 'Z', initial: false, says: 'count(toils) > 0' },
      n: { name: 'N', type: 'number', initial: 0, says: 'signedIn' },
    },
  });
  const order = derived.map(({ id }) => id);
  expect(order.indexOf('a')).toBeLessThan(order.indexOf('b'));
  expect(order).toContain('long');
  expect([...problems.keys()].sort()).toEqual(['n', 'x', 'y', 'z']);
  expect(problems.get('x')).toMatch(/itself|cannot be worked out/);
  expect(problems.get('z')).toMatch(/nothing is called toils/);
});

test('values follow what is set, whatever it is', () => {
  expect(valuesOfVariables(app)).toEqual({
    signedIn: false,
    days: 2,
    view: 'list',
    picked: [],
    held: '',
    free: 0,
    note: '',
    due: '2026-03-01',
    long: false,
  });
  fc.assert(
    fc.property(fc.integer(), fc.boolean(), (days, signedIn) => {
      const now = valuesOfVariables(
        app,
        new Map<string, number | boolean>([
          ['days', days],
          ['c1', signedIn],
        ]),
      );
      expect(now.long).toBe(days > 3 && signedIn);
    }),
  );
});

test('where a variable is spoken of is found', () => {
  const { app: whole } = behaving();
  const what = (id: string): string[] => usesOfVariable(whole, id).map((use) => use.what);
  expect(what('c1').toSorted()).toEqual(['guards', 'looks', 'sets', 'sets']);
  expect(what('chosen').toSorted()).toEqual(['derives', 'derives', 'sets', 'sets', 'sets', 'sets', 'shows']);
  expect(what('note').toSorted()).toEqual(['derives', 'sets']);
  expect(what('said')).toEqual(['shows']);
  // What is done to records can look at it.
  const deed = { kind: 'set', field: 'status', says: "days > 3 ? 'long' : 'short'" } as const;
  const interactions = { 'home:0': pressTo({ kind: 'record', collection: 'loans', deed }) };
  expect(usesOfVariable({ ...emptyApp, variables, interactions }, 'days')).toContainEqual({
    what: 'looks',
    element: 'home:0',
  });
  const nowhere: Variable = { name: 'Nowhere', initial: false };
  expect(usesOfVariable({ ...whole, variables: { ...whole.variables, nowhere } }, 'nowhere')).toEqual([]);
});
