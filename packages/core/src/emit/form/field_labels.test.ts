import type { Element } from '../../model/design.ts';
import { named, screenOf, svg } from '../../testing/build.ts';
import { fieldLabels } from './field_labels.ts';

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
