import type { MarkupElement } from '../markup.ts';
import {
  fieldByContent,
  flagByAttributes,
  flagOfAttribute,
  type PropHint,
  propNameFor,
} from './prop_names.ts';

test.each<[string, string[], string | null]>([
  ['addresses of mail', ['ada@mossgate.example', 'bo@mossgate.example'], 'email'],
  ['numbers of telephones', ['+49 30 1234567', '(030) 123 45 67'], 'phone'],
  ['numbers that begin with nothing', ['001401', '001402'], 'code'],
  ['plain numbers', ['87956621', '87952421'], 'count'],
  ['amounts of money', ['€ 20', '€ 4.50'], 'price'],
  ['shares', ['20 %', '4%'], 'share'],
  ['dates', ['2018-12-10', '2019-01-02'], 'date'],
  ['days', ['15 Dec 2017', '3 May 2018'], 'date'],
  ['times', ['10:30', '9:15'], 'time'],
  ['states', ['free today', 'lent'], 'status'],
  ['names', ['Saw', 'Drill'], null],
  ['nothing', ['', ' '], null],
])('%s are told by what they look like', (_, texts, field) => expect(fieldByContent(texts)).toBe(field));

const node = (className: string | null = null, text = '', tag = 'td'): MarkupElement => ({
  tag,
  key: null,
  className,
  attributes: {},
  children: text ? [{ text }] : [],
});
const hint = (more: Partial<PropHint>): PropHint => ({
  kind: 'flag',
  tag: 'td',
  node: node(),
  prefix: 'is',
  isLabel: false,
  ...more,
});

test.each<[string, PropHint, string[], string]>([
  ['by the look', hint({ word: 'large' }), [], 'isLarge'],
  ['in colours by nothing', hint({ otherwise: 'red' }), [], 'isMarked'],
  ['besides another one by its colour', hint({ otherwise: 'red' }), ['isMarked'], 'isRed'],
  [
    'besides both by its part, too',
    hint({ otherwise: 'red', node: node('icon2') }),
    ['isMarked', 'isRed'],
    'isIconRed',
  ],
  ['by a number where nothing else tells', hint({}), ['isMarked'], 'isMarked2'],
  ['by what is there', hint({ prefix: 'has', node: node(null, 'Sold out') }), [], 'hasSoldOut'],
  ['by there being a number', hint({ prefix: 'has', node: node(null, '4') }), [], 'hasNumber'],
  ['by there being a picture', hint({ prefix: 'has', node: node(null, '', 'img') }), [], 'hasImage'],
])('a flag is called %s', (_, given, taken, name) => expect(propNameFor(given, new Set(taken))).toBe(name));

test.each([
  ['disabled', 'isDisabled'],
  ['aria-current', 'isCurrent'],
  ['id', 'hasAnchor'],
  ['title', 'hasTitle'],
  ['aria-label', 'hasLabel'],
  ['data-count', 'hasCount'],
  ['aria-describedby', 'hasDescribedby'],
])('a flag by which %s is there or not is called %s', (attribute, name) =>
  expect(flagOfAttribute(attribute)).toBe(name),
);

test.each<[string, (Record<string, string> | null)[], (boolean | undefined)[], string | undefined]>([
  ['what is disabled', [{ disabled: '' }, {}], [true, false], 'isDisabled'],
  ['what is not', [{ disabled: '' }, {}], [false, true], undefined],
  ['what some disabled ones are', [{ disabled: '' }, { disabled: '' }], [true, false], undefined],
  ['what says nothing of how it is', [{ title: 'Saw' }, {}], [true, false], undefined],
  ['what is there or not', [{ disabled: '' }, null], [true, false], undefined],
  ['what is not everywhere', [{ required: '' }, null, {}], [true, undefined, false], 'isRequired'],
])('a look of %s is called by that', (_, attributes, values, name) =>
  expect(
    flagByAttributes(
      attributes.map((own) => own && { ...node(null, '', 'input'), attributes: own }),
      values,
    ),
  ).toBe(name),
);

test.each(['style', 'class', 'key', 'slot', 'children'])(
  'what frameworks give each component is no prop of one: %s',
  (called) => expect(propNameFor(hint({ kind: 'text', called }), new Set())).toBe(`${called}Text`),
);

test('other props are told apart by words before they are by numbers', () => {
  const text = hint({ kind: 'text', texts: ['Saw', 'Drill'] });
  expect(propNameFor(text, new Set())).toBe('name');
  expect(propNameFor(text, new Set(['name']))).toBe('text');
  expect(propNameFor(text, new Set(['name', 'text']))).toBe('detail');
  const choice = hint({ kind: 'choice', node: node('badgeIcon3') });
  expect(propNameFor(choice, new Set())).toBe('variant');
  expect(propNameFor(choice, new Set(['variant']))).toBe('badgeIconVariant');
});
