import type { MarkupElement, PropValue } from '../markup.ts';
import { withGivenLists } from './given_lists.ts';

const node = (more: Partial<MarkupElement>): MarkupElement => ({
  tag: 'div',
  key: null,
  className: null,
  attributes: {},
  children: [],
  ...more,
});
const icon: PropValue = {
  node: node({ tag: 'svg', className: 'icon', use: { component: 'BoldIcon', props: {} } }),
};
const pressed: PropValue = {
  node: node({ tag: 'a', link: { kind: 'href', href: 'https://shed.example/' } as never }),
};
const toolbar = (count: number, more: PropValue, said: Record<string, PropValue> = {}): MarkupElement =>
  node({
    children: [
      node({
        use: {
          component: 'Toolbar',
          props: {
            ...said,
            items: { items: Array.from({ length: count }, (_, i) => ({ id: `${i}`, sign: more })) },
          },
        },
      }),
    ],
  });
const givenIn = ({ children: [first] }: MarkupElement): string | undefined => {
  const given = (first as MarkupElement).use!.props.items;
  return typeof given === 'object' && 'items' in given ? given.as : undefined;
};

test.each<[string, MarkupElement, string | undefined]>([
  ['a short list stays where it is given', toolbar(3, 'x'), undefined],
  ['a long one is a constant, called after what shows it', toolbar(12, 'x'), 'toolbarItems'],
  ['or after what is said beside it', toolbar(12, 'x', { label: 'Text size' }), 'textSizeItems'],
  ['drawings may stand in it', toolbar(12, icon), 'toolbarItems'],
  ['few drawings are short', toolbar(4, icon), undefined],
  ['what leads somewhere stays with what knows where it is', toolbar(12, pressed), undefined],
])('%s', (_, root, as) => {
  const made = withGivenLists(root, [], () => false);
  expect(givenIn(made.root)).toBe(as);
  expect(made.lists.map(({ data }) => data)).toEqual(as === undefined ? [] : [as]);
});

test('a name that is taken gets a number', () => {
  const { lists } = withGivenLists(toolbar(12, 'x'), [], (name) => name === 'toolbarItems');
  expect(lists.map(({ data }) => data)).toEqual(['toolbarItems2']);
});
