/** @jest-environment jsdom */
/// <reference lib="dom" />
import { type Expression, literal } from '../../expression/expression.ts';
import { loadedRuntime } from '../../testing/loaded_runtime.ts';
import type { EmittedStep, MarkupElement } from '../form/markup.ts';
import { testedChangesIn } from './changes.ts';
import type { Effect, Known } from './effects.ts';

const known: Known = {
  collections: new Map(),
  unsure: new Set(),
  variables: { said: '', signedIn: false, days: 2 },
  takes: () => true,
  answers: () => true,
};
const NO_PAGE = { isOpen: () => null, ticks: () => null };
const here = { shown: () => undefined, addressOf: (to: string) => to, over: [], page: NO_PAGE };
const ENTERED: Expression = { kind: 'prop', name: 'entered' };
const set = (condition: string, to: Expression): EmittedStep => ({
  kind: 'set',
  condition,
  to,
  takesEntered: true,
});
const remembers = set('said', ENTERED);
const element = (
  tag: string,
  attributes: MarkupElement['attributes'],
  children: MarkupElement['children'] = [],
): MarkupElement => ({ tag, key: null, className: null, attributes, children });
const changing = (one: MarkupElement, steps: readonly EmittedStep[] = [remembers]): MarkupElement => ({
  ...one,
  acts: [{ on: 'change', ways: [{ steps }] }],
});
const input = (attributes: MarkupElement['attributes']): MarkupElement => element('input', attributes);
const option = (text: string, attributes: MarkupElement['attributes'] = {}): MarkupElement =>
  element('option', attributes, [{ text }]);
const tested = (...children: MarkupElement[]): ReturnType<typeof testedChangesIn> =>
  testedChangesIn(element('main', {}, children), known, here);

test.each<[string, MarkupElement, string[]]>([
  ['a text', input({}), ['Something else']],
  ['a number', input({ type: 'number', min: '10' }), ['10']],
  ['a box is ticked', input({ type: 'checkbox' }), ['yes']],
  ['one that is ticked no longer', input({ type: 'checkbox', checked: true }), ['no']],
  ['a round button is pressed', input({ type: 'radio', value: 'small' }), ['small']],
  ['but not the one that is', input({ type: 'radio', value: 'small', checked: true }), []],
  ['another is chosen', element('select', {}, [option('Saws'), option('Drills')]), ['Drills']],
  [
    'than the one that is',
    element('select', {}, [option('Saws'), option('Drills', { selected: true })]),
    ['Saws'],
  ],
  ['where there is another', element('select', {}, [option('Saws')]), []],
  ['nothing where nothing can be entered', input({ disabled: true }), []],
  ['nor into a button', input({ type: 'submit' }), []],
  ['nor where it is not there at first', { ...input({}), when: ENTERED }, []],
])('a field is changed: %s', (_, one, says) => {
  const made = tested(changing(one));
  expect(made.map((change) => change.says)).toEqual(says);
  expect(made.map(({ does }) => does)).toEqual(says.map((is) => [{ variable: 'said', is }]));
});

const longer: Expression = { kind: 'text', parts: [literal('No '), ENTERED] };
const list = (deed: Extract<EmittedStep, { readonly kind: 'list' }>['deed']): EmittedStep => ({
  kind: 'list',
  listing: { name: 'tools', hook: 'useTools' },
  deed,
});
const tools = {
  live: { name: 'tools', prefix: 't-', isRemote: false, collection: { name: 'tools', fields: [], rows: [] } },
  records: [],
  lists: new Set([{ hook: 'useTools', options: {}, rows: new Map() }]),
};

test.each<[string, EmittedStep[], Effect[] | null]>([
  ['what is worked out from it', [set('said', longer)], [{ variable: 'said', is: 'No abc' }]],
  ['what it is said to be', [set('signedIn', literal(true))], [{ variable: 'signedIn', is: true }]],
  ['what is said of it', [{ kind: 'say', to: longer, takesEntered: true }], [{ told: 'No abc' }]],
  ['what is looked for', [list({ kind: 'search' })], [{ words: { 't-search': 'abc' } }]],
  ['what is chosen', [list({ kind: 'choose', field: 'kind', all: [] })], [{ words: { 't-kind': 'abc' } }]],
  ['what nobody knows', [set('other', ENTERED)], null],
])('a change does: %s', (_, steps, does) => {
  const field = changing(input({ pattern: 'abc', name: 'it' }), steps);
  const made = testedChangesIn(
    element('main', {}, [field]),
    { ...known, collections: new Map([['tools', tools]]) as unknown as Known['collections'] },
    here,
  );
  expect(made.map((change) => change.does)).toEqual(does ? [does] : []);
});

test('each field is found by what it is called, also among several that are called so', () => {
  const fields = [
    { 'aria-label': 'Tool' },
    { placeholder: 'Tool' },
    { name: 'tool', placeholder: 'Find' },
    { name: 'tool' },
    {},
    { name: 'tool' },
  ];
  const made = tested(
    ...fields.map((attributes, i) =>
      changing(input({ ...(attributes as Record<string, string>), id: String(i) })),
    ),
  );
  const { fieldCalled } = loadedRuntime<{
    fieldCalled(container: Element, called: string): HTMLElement[];
  }>('testing/page.ts');
  const page = document.createElement('main');
  page.append(
    ...fields.map((attributes, i) => {
      const field = document.createElement('input');
      for (const [name, value] of Object.entries({ ...attributes, id: String(i) }))
        field.setAttribute(name, value);
      return field;
    }),
  );
  expect(made.map(({ field, at = 0 }) => fieldCalled(page, field)[at]?.id)).toEqual(
    fields.map((_, i) => String(i)),
  );
});
