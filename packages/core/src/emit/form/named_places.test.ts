import { atOneOf, choice, literal, propNamed } from '../../expression/expression.ts';
import { looksAtAddress, type MarkupElement } from './markup.ts';
import { withNamedPlaces } from './named_places.ts';

const at = (...routes: string[]) => atOneOf(...routes.map(literal));
const node = (more: Partial<MarkupElement> = {}, ...children: MarkupElement['children']): MarkupElement => ({
  tag: 'div',
  key: null,
  className: null,
  attributes: {},
  children,
  ...more,
});

test('what is asked twice has a name after its addresses, and is asked by it', () => {
  const root = node(
    {},
    node(
      { variant: { by: at('/buttons', '/cards'), classes: { true: 'a', false: 'b' } } },
      { text: 'Components' },
    ),
    node({ when: at('/buttons', '/cards') }),
    node({ when: at('/tables') }),
  );
  const { root: made, places } = withNamedPlaces(root, new Set());
  expect(places).toEqual([{ name: 'isAtButtonsOrCards', expression: at('/buttons', '/cards') }]);
  expect(made.children[0]).toMatchObject({ variant: { by: propNamed('isAtButtonsOrCards') } });
  expect(made.children[1]).toMatchObject({ when: propNamed('isAtButtonsOrCards') });
  // What is asked once stands where it is asked.
  expect(made.children[2]).toEqual(root.children[2]);
});

test('what a component is given, alone or in a list, asks where one is, too', () => {
  const marked = (): MarkupElement =>
    node({ tag: 'svg', variant: { by: at('/saws'), classes: { true: 'a', false: 'b' } } });
  const use = (props: NonNullable<MarkupElement['use']>['props']): MarkupElement =>
    node({ use: { component: 'Entry', props } });
  const root = node({}, use({ icon: { node: marked() } }), use({ icon: { node: marked() } }));
  expect(looksAtAddress(root)).toBe(true);
  expect(looksAtAddress(use({ icons: { items: [{ icon: { node: marked() } }] } }))).toBe(true);
  expect(looksAtAddress(use({ icon: { node: node({ tag: 'svg' }) } }))).toBe(false);
  const { root: made, places } = withNamedPlaces(root, new Set());
  expect(places).toEqual([{ name: 'isAtSaws', expression: at('/saws') }]);
  expect(looksAtAddress(made)).toBe(false);
});

test('names are those of nothing else; of many places it is that of what asks first', () => {
  const twice = (...routes: string[]) => [
    node({ when: at(...routes) }, { text: 'Utilities' }),
    node({ when: at(...routes) }),
  ];
  const root = node(
    {},
    ...twice('/tools/saw'),
    ...twice('/loans'),
    ...twice('/a', '/b', '/c'),
    ...twice('/'),
  );
  expect(withNamedPlaces(root, new Set(['isAtLoans'])).places.map(({ name }) => name)).toEqual([
    'isAtSaw',
    'isAtLoans2',
    'isInUtilities',
    'isAtStart',
  ]);
});

test('what depends on what a component is given is not named, and choices within choices are', () => {
  const depends = atOneOf(propNamed('to'));
  const chosen = choice(at('/a'), literal('x'), choice(at('/a'), literal('y'), literal('z')));
  const root = node({ when: depends }, node({ when: depends }), { text: '', given: chosen });
  const { places } = withNamedPlaces(root, new Set());
  expect(places.map(({ name }) => name)).toEqual(['isAtA']);
});
