import type { EmittedStep, MarkupElement } from '../form/markup.ts';
import type { Known } from './effects.ts';
import { testedFormsIn, type FieldRule } from './forms.ts';

const known: Known = {
  collections: new Map(),
  unsure: new Set(),
  variables: { signedIn: false },
  takes: () => true,
  answers: () => true,
};
const NO_PAGE = { isOpen: () => null, ticks: () => null };
const here = { shown: () => undefined, addressOf: (to: string) => to, over: [], page: NO_PAGE };
const element = (
  tag: string,
  attributes: MarkupElement['attributes'],
  children: MarkupElement['children'] = [],
): MarkupElement => ({ tag, key: null, className: null, attributes, children });
const field = (attributes: MarkupElement['attributes']): MarkupElement =>
  element('input', { name: 'it', ...attributes });
const signsIn: EmittedStep = {
  kind: 'set',
  condition: 'signedIn',
  to: { kind: 'literal', value: true },
  takesEntered: false,
};
const form = (...children: MarkupElement[]): MarkupElement => ({
  ...element('form', {}, children),
  isChecked: true,
  acts: [{ on: 'submit', ways: [{ steps: [signsIn] }] }],
});
const tested = (root: MarkupElement, rule: FieldRule | null = null): ReturnType<typeof testedFormsIn> =>
  testedFormsIn(element('main', {}, [root]), known, here, () => rule);

test.each<[string, MarkupElement, string | null]>([
  ['a text', field({}), 'Something else'],
  ['as many letters as it takes', field({ maxlength: '4' }), 'Some'],
  ['and as many as it needs', field({ type: 'password', minlength: '16' }), 'Something elsexx'],
  ['an address', field({ type: 'email' }), 'somebody@example.org'],
  ['a number that is not too small', field({ type: 'number', min: '10' }), '10'],
  ['a day that is not too late', field({ type: 'date', max: '2020-01-01' }), '2020-01-01'],
  ['what looks as it has to', field({ pattern: '[0-9]{5}' }), '12345'],
  ['what it is filled in with already', field({ pattern: 'TL-[0-9]+', value: 'TL-7' }), 'TL-7'],
  ['nothing that nobody knows', field({ pattern: 'TL-[0-9]+' }), null],
  [
    'what one can choose',
    element('select', { name: 'it' }, [
      element('option', { value: '' }, [{ text: 'Choose' }]),
      element('option', {}, [{ text: 'Saw' }]),
    ]),
    'Saw',
  ],
  ['nothing where nothing can be chosen', element('select', { name: 'it' }), null],
  ['a tick where there has to be one', field({ type: 'checkbox', required: true }), 'yes'],
  ['none where not', field({ type: 'checkbox' }), 'no'],
  ['one of several', field({ type: 'radio', value: 'small' }), 'small'],
])('a form is filled in: %s', (_, one, filled) =>
  expect(tested(form(one)).map((made) => made.filled?.it ?? null)).toEqual(
    filled === null && !one.attributes.required ? [] : [filled],
  ),
);

test('what stands behind a field says what it takes', () => {
  expect(tested(form(field({})), { isNumber: true })[0].filled).toEqual({ it: '4' });
  expect(tested(form(field({})), { isNumber: false, choices: ['out'] })[0].filled).toEqual({ it: 'out' });
});

test('a field that has to say the same does, and one that nobody can fill in is left out', () => {
  const again = element('input', { name: 'again', type: 'password', 'data-same': 'it', required: true });
  const [made] = tested(
    form(field({ type: 'password', required: true }), again, field({ name: 'photo', type: 'file' })),
  );
  expect(made).toEqual({
    fields: ['it', 'again', 'photo'],
    needs: ['it', 'again'],
    filled: { it: 'Something else', again: 'Something else' },
    does: [{ variable: 'signedIn', is: true }],
  });
});

test('of two forms with the same fields each is found', () => {
  const both = element('main', {}, [
    form(field({ required: true })),
    form(field({ required: true }), field({ name: 'more' })),
  ]);
  expect(tested(both).map(({ fields, at = 0 }) => [fields, at])).toEqual([
    [['it'], 0],
    [['it', 'more'], 0],
  ]);
  const twice = element('main', {}, [form(field({})), form(field({}))]);
  expect(tested(twice).map(({ at = 0 }) => at)).toEqual([0, 1]);
});
