import { applyChange, type Component, emptyApp, type Prop, putComponent } from '@tovel/core';
import { freeId, isComponentName, joining, splitting, withPropNamed } from './repeat_changes';

const card: Component = { name: 'Card', kind: 'component', places: ['a', 'b', 'c', 'd'] };
const row: Component = { name: 'Row', kind: 'component', places: ['d', 'e'] };
const app = [putComponent('c1', card), putComponent('c4', row)].reduce(applyChange, emptyApp);
const placesOf = (components: Readonly<Record<string, Component>>) =>
  Object.fromEntries(Object.entries(components).map(([id, { places }]) => [id, places.join('')]));

test.each([
  [{}, 0, 'c1'],
  [app.components, 0, 'c5'],
  [app.components, 2, 'c7'],
])('an id that is free', (components, more, id) => {
  expect(freeId(components, more)).toBe(id);
});

test.each([
  ['StatCard', true],
  ['card2', true],
  ['2cards', false],
  ['Stat card', false],
  ['', false],
])('whether a component can be called "%s"', (name, can) => {
  expect(isComponentName(name)).toBe(can);
});

test('places are split off, and join again', () => {
  const apart = applyChange(app, splitting('c1', card, new Set(['b', 'd']), 'c5'));
  expect(placesOf(apart.components)).toEqual({ c1: 'ac', c4: 'de', c5: 'bd' });
  expect(apart.components.c5.name).toBe('Card2');
  const { c1, c5 } = apart.components;
  const whole = applyChange(apart, joining('c1', c1, { id: 'c5', component: c5 }));
  expect(placesOf(whole.components)).toEqual({ c1: 'acbd', c4: 'de' });
  // What is only proposed gives its places, and those that are there already are there once.
  const more = applyChange(app, joining('c1', card, { id: null, component: row }));
  expect(placesOf(more.components)).toEqual({ c1: 'abcde', c4: 'de' });
});

const props = [{ name: 'title' }, { name: 'text' }] as unknown as Prop[];

test.each<[what: string, prop: string, next: string, names: Record<string, string> | null]>([
  ['one as it was found', 'text', 'body', { heading: 'title', text: 'body' }],
  ['one that has another name already', 'title', 'caption', { heading: 'caption' }],
  ['no name of another one', 'title', 'text', null],
  ['no name that code cannot have', 'title', 'a title', null],
])('a prop is renamed: %s', (_, prop, next, names) => {
  const named: Component = { ...card, props: { heading: 'title' } };
  const found = props.find(({ name }) => name === prop)!;
  expect(withPropNamed(named, props, found, next)?.props ?? null).toEqual(names);
});
