import type { Element } from '../../model/design.ts';
import { named, screenOf, svg } from '../../testing/build.ts';
import { fieldLabels, tiedLabels } from './field_labels.ts';

const text = named(screenOf(svg('<text x="9" y="20">Saw</text>')), 'Saw');
const element = (
  tag: string,
  content: string | Element[],
  attributes: Record<string, string> = {},
): Element => ({
  ...text,
  key: tag + JSON.stringify(attributes),
  kind: 'box',
  tag,
  text: typeof content === 'string' ? content : '',
  children: typeof content === 'string' ? [] : content,
  attributes,
});
const field = (attributes: Record<string, string> = {}): Element => element('input', '', attributes);

test.each<[string, Element[], string[]]>([
  ['the label before it', [element('label', 'Name'), field()], ['Name']],
  [
    'the row of a box to be ticked',
    [element('td', [field({ type: 'checkbox' })]), element('td', 'Lend a saw')],
    ['Lend a saw'],
  ],
  [
    'the nearest words before a box to be ticked in a long part',
    [
      element(
        'p',
        'What is said here goes on and on, for it is not about the box that comes at the end of it.',
      ),
      element('div', [element('h6', 'Fixed bar'), element('i', '')]),
      element('div', [field({ type: 'checkbox' })]),
      element('p', 'Something else'),
    ],
    ['Fixed bar'],
  ],
  [
    'the first words after it, where none are before',
    [
      element('div', [field({ type: 'checkbox' })]),
      element('p', 'Keep me signed in'),
      element(
        'p',
        'What is said here goes on and on, for it is not about the box that comes before all of it.',
      ),
    ],
    ['Keep me signed in'],
  ],
  [
    'the title of a label without words',
    [element('label', [field({ type: 'file' })], { title: 'Send a picture' })],
    ['Send a picture'],
  ],
  ['nothing where it is tied', [element('label', 'Name', { for: 'n' }), field({ id: 'n' })], []],
  ['nothing where it has a name', [element('label', 'Name'), field({ 'aria-label': 'Your name' })], []],
  ['nothing where there is none', [field()], []],
])('a field is called by %s', (_, children, labels) => {
  expect([...fieldLabels(element('div', children)).values()]).toEqual(labels);
});

test.each<[string, Element[], string[]]>([
  ['the field after it', [element('label', 'Your name'), field()], ['your-name']],
  ['one in a part after it', [element('label', 'Name'), element('div', [field()])], ['name']],
  ['what has an id already', [element('label', 'Name'), field({ id: 'n' })], ['n']],
  [
    'another where that is taken',
    [element('p', '', { id: 'name' }), element('label', 'Name'), field()],
    ['name-2'],
  ],
  ['none of several', [element('label', 'Size'), element('div', [field(), field({ type: 'radio' })])], []],
  ['none behind another', [element('label', 'A'), field(), field({ type: 'text' })], ['a']],
  ['none that is tied', [element('label', 'A'), field({ id: 'n' }), element('label', 'B', { for: 'n' })], []],
  ['none in rows', [element('li', [element('label', 'A'), field()])], []],
])('a label is tied to %s', (_, children, ids) => {
  const root = element('div', children);
  const taken = new Set(children.flatMap(({ attributes }) => attributes?.id ?? []));
  const { forOf, idOf } = tiedLabels(root, taken);
  expect([...forOf.values()]).toEqual(ids);
  expect([...idOf.values()]).toEqual(ids);
  // Over another screen, which may have the same.
  const over = [...tiedLabels(root, taken, 'lend').forOf.values()];
  expect(over.filter((id) => !taken.has(id)).every((id) => id.startsWith('lend-'))).toBe(true);
});
