import type { MarkupElement, PropValue } from '../markup.ts';
import { atOneOf, literal, propNamed } from '../../../expression/expression.ts';
import { drawingsIn } from '../icons.ts';
import { withFixedRows, withRowsOfScreen } from './lists.ts';

const use = (component: string, props: Record<string, PropValue>, more: Partial<MarkupElement> = {}) =>
  ({
    tag: component,
    key: `x:${component}`,
    className: null,
    attributes: {},
    children: [],
    use: { component, props },
    ...more,
  }) satisfies MarkupElement;
const body = (...children: MarkupElement[]): MarkupElement => ({
  tag: 'tbody',
  key: 'x:1',
  className: null,
  attributes: {},
  children,
});
const cells = (names: readonly string[]): MarkupElement[] => names.map((name) => use('Cell', { name }));

test('rows that are given drawings which look otherwise by the route are none of a list', () => {
  const drawing = (more: object): PropValue => ({
    node: { tag: 'svg', key: null, className: null, attributes: {}, children: [], ...more },
  });
  const row = (i: number, more: object = {}): MarkupElement => ({
    tag: 'Entry',
    key: `r${i}`,
    className: null,
    attributes: {},
    children: [],
    use: { component: 'Entry', props: { name: `Entry ${i}`, icon: drawing(more) } },
  });
  const nav = (more?: object): MarkupElement => ({
    tag: 'nav',
    key: 'n',
    className: null,
    attributes: {},
    children: [0, 1, 2, 3, 4].map((i) => row(i, more)),
  });
  const variant = { by: atOneOf(literal('/saws')), classes: { true: 'a', false: 'b' } };
  expect(withRowsOfScreen(nav(), []).lists).toHaveLength(1);
  expect(withRowsOfScreen(nav({ variant }), []).lists).toEqual([]);
});

test('rows of a component that never change are a list', () => {
  const made = withFixedRows({
    root: body(use('Head', {}), ...cells(['Hoe', 'Rake', 'Rake', 'Saw']), use('Foot', {})),
    props: [{ name: 'cells' }],
  });
  expect(made.root.children.map((child) => ('list' in child ? child.list.data : 'one'))).toEqual([
    'one',
    'cells2',
    'one',
  ]);
  expect(made.lists).toEqual([
    {
      data: 'cells2',
      component: 'Cell',
      records: [
        { id: 'hoe', name: 'Hoe' },
        { id: 'rake', name: 'Rake' },
        { id: 'rake-2', name: 'Rake' },
        { id: 'saw', name: 'Saw' },
      ],
      rows: ['x:Cell', 'x:Cell', 'x:Cell', 'x:Cell'],
    },
  ]);
});

test.each<[string, MarkupElement[]]>([
  ['say nothing', [use('Dot', {}), use('Dot', {}), use('Dot', {}), use('Dot', {})]],
  ['are few', cells(['Hoe', 'Rake', 'Saw'])],
  [
    'depend on what is given',
    [...cells(['a', 'b', 'c']), use('Cell', { name: { given: propNamed('title') } })],
  ],
  [
    'are not always there',
    [...cells(['a', 'b', 'c']), use('Cell', { name: 'd' }, { when: propNamed('isLong') })],
  ],
  ['are placed apart', [...cells(['a', 'b', 'c']), use('Cell', { name: 'd' }, { className: 'last' })]],
  ['hold something', [...cells(['a', 'b', 'c']), use('Cell', { name: 'd' }, { children: [{ text: 'x' }] })]],
  ['are of several kinds', [...cells(['a', 'b']), use('Head', {}), ...cells(['c', 'd'])]],
])('rows that %s stand one by one', (_, children) => {
  const component = { root: body(...children), props: [] };
  expect(withFixedRows(component)).toBe(component);
});

test('rows are known by what they say, and not by how they look or where they lead', () => {
  const looks = ['red', 'blue', 'green', 'plain'];
  const rows = ['Hoe', 'Rake', 'Saw', 'Vice'].map((name, i) =>
    use('Cell', { color: looks[i], part: `${looks[i]}-menu`, name }),
  );
  const { lists } = withFixedRows({ root: body(...rows), props: [] });
  expect(lists![0].records.map(({ id }) => id)).toEqual(['hoe', 'rake', 'saw', 'vice']);
});

const sign = (n: number): PropValue => ({
  node: {
    tag: 'svg',
    key: null,
    className: null,
    attributes: {},
    children: [{ tag: 'path', key: null, className: null, attributes: { d: `M0 ${n}h9` }, children: [] }],
  },
});

test('rows of a screen may be given drawings, which are called after what their row says', () => {
  const tiles = ['Hoe', 'Rake', 'Saw', 'Vice'].map((name, i) => use('Tile', { name, icon: sign(i) }));
  const known = { data: 'tiles', component: 'Tile', records: [], rows: [] };
  const { root, lists } = withRowsOfScreen(body(...tiles), [known]);
  expect(lists.map(({ data, records }) => [data, records.map(({ name }) => name)])).toEqual([
    ['tiles', []],
    ['tiles2', ['Hoe', 'Rake', 'Saw', 'Vice']],
  ]);
  expect(drawingsIn(root).map(({ beside }) => beside)).toEqual(['Hoe', 'Rake', 'Saw', 'Vice']);
  const few = body(...tiles.slice(1));
  expect(withRowsOfScreen(few, [known])).toEqual({ root: few, lists: [known] });
});
