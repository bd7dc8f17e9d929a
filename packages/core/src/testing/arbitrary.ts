import fc from 'fast-check';
import { type Change } from '../change/change.ts';
import type {
  Added,
  App,
  Arrival,
  Component,
  Drawer,
  Given,
  Interaction,
  Journey,
  Layer,
  Layout,
  Region,
  ScreenEntry,
  Step,
  Target,
  Token,
} from '../model/app.ts';

/** Few keys, so that generated changes meet each other. */
const key = fc.constantFrom(
  'home',
  'list',
  'detail',
  'home:0',
  'home:0/1',
  'list:2',
  'toString',
  'constructor',
);

const entry: fc.Arbitrary<ScreenEntry> = fc.record({
  name: fc.constantFrom('Home', 'List', 'Detail'),
  route: fc.constantFrom('/', '/list', '/list/detail'),
  use: fc.constantFrom('screen' as const, 'skip' as const, 'overlay' as const, 'planned' as const),
  order: fc.integer({ min: -5, max: 5 }),
});

const ms = fc.integer({ min: 0, max: 999 });
const from = fc.constantFrom('left' as const, 'top' as const);
const easing = fc.constantFrom('linear' as const, 'ease-in' as const);
const needed: { requiredKeys: ['kind', 'ms'] } = { requiredKeys: ['kind', 'ms'] };
const arrival: fc.Arbitrary<Arrival> = fc.oneof(
  fc.constant<Arrival>({ kind: 'none' }),
  fc.record({ kind: fc.constantFrom('fade' as const, 'scale' as const), ms, easing, delay: ms }, needed),
  fc.record({ kind: fc.constantFrom('slide' as const, 'push' as const), from, ms }),
  fc.record({
    kind: fc.constant('shared' as const),
    ms,
    pairs: fc.array(fc.record({ from: key, to: key }), { maxLength: 2 }),
  }),
);

const condition = fc.constantFrom('signed-in', 'open');
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ kind: fc.constant('open' as const), overlay: key }),
  fc.constant<Step>({ kind: 'close' }),
  fc.record({ kind: fc.constant('set' as const), condition, value: fc.boolean() }),
);
const target: fc.Arbitrary<Target> = fc.oneof(
  fc.record(
    {
      kind: fc.constant('screen' as const),
      screen: key,
      params: fc.constantFrom<Readonly<Record<string, Given>>>({ id: 'a' }, { id: { field: '0/1' } }),
      query: fc.constant({ sort: 'name' }),
    },
    { requiredKeys: ['kind', 'screen'] },
  ),
  fc.record({ kind: fc.constant('anchor' as const), screen: key, element: key }),
  fc.constant<Target>({ kind: 'back' }),
  fc.record({ kind: fc.constant('back' as const), fallback: key }),
  fc.constant<Target>({ kind: 'external', href: 'https://example.org/' }),
  fc.constant<Target>({ kind: 'file', asset: 'a'.repeat(64), name: 'Plan.pdf' }),
  step,
);

const interaction: fc.Arbitrary<Interaction> = fc.record(
  {
    on: fc.constantFrom('press' as const, 'hover' as const, 'after' as const),
    ms,
    when: fc.record({ condition, is: fc.boolean() }),
    before: fc.array(step, { maxLength: 2 }),
    target,
    arrival,
    everywhere: fc.constant(true as const),
  },
  { requiredKeys: ['on', 'target', 'arrival'] },
);
const interactionKeys = fc.oneof(key, fc.constantFrom('home:0|2', 'list:2|3'));
const journey: fc.Arbitrary<Journey> = fc.record({
  name: fc.constantFrom('Borrow', 'Return'),
  start: key,
  steps: fc.array(
    fc.oneof(
      fc.record({ kind: fc.constant('do' as const), interaction: interactionKeys, to: key }),
      fc.record({ kind: fc.constant('enter' as const), element: key, text: fc.constantFrom('', 'saw') }),
    ),
    { maxLength: 3 },
  ),
});
const layout: fc.Arbitrary<Layout> = fc.record({
  name: fc.constantFrom('Desk', 'Public'),
  screens: fc.uniqueArray(key, { minLength: 1, maxLength: 3 }),
});

const layer: fc.Arbitrary<Layer> = fc
  .record(
    {
      show: fc.boolean(),
      name: fc.constantFrom('One', 'Two'),
      role: fc.constantFrom('button', 'none'),
      flat: fc.constant(true as const),
    },
    { requiredKeys: [] },
  )
  .filter((made) => Object.keys(made).length > 0);

const region: fc.Arbitrary<Region> = fc.record({
  kind: fc.constantFrom('box' as const, 'text' as const),
  name: fc.constantFrom('One', 'Two'),
  box: fc.record({
    x: fc.integer({ min: 0, max: 90 }),
    y: fc.integer({ min: 0, max: 90 }),
    width: fc.integer({ min: 1, max: 90 }),
    height: fc.integer({ min: 1, max: 90 }),
  }),
});

const editKeys = fc.constantFrom('home:0||color', 'home:0|hover|color', 'list:2|<=600|padding-top');
const component: fc.Arbitrary<Component> = fc.record({
  name: fc.constantFrom('Card', 'Row'),
  kind: fc.constantFrom('component' as const, 'list' as const),
  places: fc.uniqueArray(key, { minLength: 1, maxLength: 3 }),
});
const token: fc.Arbitrary<Token> = fc.record({
  kind: fc.constantFrom('color' as const, 'space' as const),
  value: fc.constantFrom('#123456', '8px'),
  from: fc.array(fc.constantFrom('#123456', '8px', '9px'), { maxLength: 3 }),
});
const added: fc.Arbitrary<Added> = fc.record(
  {
    kind: fc.constantFrom('button' as const, 'divider' as const),
    text: fc.constantFrom('', 'Go'),
    within: key,
    after: key,
  },
  { requiredKeys: ['kind', 'text', 'within'] },
);
const drawer: fc.Arbitrary<Drawer> = fc.record(
  {
    below: fc.integer({ min: 300, max: 900 }),
    side: fc.constantFrom('left' as const, 'right' as const),
    name: fc.constant('Menu'),
    opener: key,
  },
  { requiredKeys: ['below', 'side', 'name'] },
);

const orNull = <T>(values: fc.Arbitrary<T>): fc.Arbitrary<T | null> => fc.option(values, { nil: null });

const single: fc.Arbitrary<Change> = fc.oneof(
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('screens' as const),
    key,
    value: orNull(entry),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('interactions' as const),
    key: interactionKeys,
    value: orNull(interaction),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('still' as const),
    key,
    value: orNull(fc.constant(true as const)),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('layers' as const),
    key,
    value: orNull(layer),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('regions' as const),
    key,
    value: orNull(region),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('settings' as const),
    key: fc.constant('groups' as const),
    value: orNull(fc.constantFrom('container' as const, 'picture' as const)),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('dismissed' as const),
    key,
    value: orNull(fc.constant(true as const)),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('edits' as const),
    key: editKeys,
    value: orNull(fc.constantFrom('12px', '#123456')),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('components' as const),
    key: fc.constantFrom('c1', 'c2'),
    value: orNull(component),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('tokens' as const),
    key: fc.constantFrom('ink', 'gap-2'),
    value: orNull(token),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('added' as const),
    key,
    value: orNull(added),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('drawers' as const),
    key,
    value: orNull(drawer),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('defaults' as const),
    key: fc.constantFrom('text' as const, 'vector' as const),
    value: orNull(fc.constantFrom('paragraph', 'icon')),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('refused' as const),
    key: fc.constantFrom('role home:0 button', 'component x'),
    value: orNull(fc.constant(true as const)),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('conditions' as const),
    key: condition,
    value: orNull(fc.record({ name: fc.constantFrom('Signed in', 'Open'), initial: fc.boolean() })),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('redirects' as const),
    key: fc.constantFrom('/old', '/old/:id'),
    value: orNull(fc.record({ to: key })),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('layouts' as const),
    key: fc.constantFrom('l1', 'l2'),
    value: orNull(layout),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('journeys' as const),
    key: fc.constantFrom('j1', 'j2'),
    value: orNull(journey),
  }),
  fc.record({
    kind: fc.constant('put' as const),
    table: fc.constant('synonyms' as const),
    key: fc.constantFrom('basket', 'help'),
    value: orNull(fc.constantFrom('cart', 'support')),
  }),
  fc.record({ kind: fc.constant('start' as const), value: orNull(key) }),
);

/** Any change, also several in one. */
export const change: fc.Arbitrary<Change> = fc.oneof(
  { weight: 4, arbitrary: single },
  {
    weight: 1,
    arbitrary: fc.record({ kind: fc.constant('all' as const), changes: fc.array(single, { maxLength: 6 }) }),
  },
);

/** Any app that changes can lead to. */
export const app: fc.Arbitrary<App> = fc.record({
  format: fc.constant('tovel-app/1' as const),
  start: orNull(key),
  screens: fc.dictionary(key, entry, { noNullPrototype: true }),
  interactions: fc.dictionary(interactionKeys, interaction, { noNullPrototype: true }),
  still: fc.dictionary(key, fc.constant(true as const), { noNullPrototype: true }),
  layers: fc.dictionary(key, layer, { noNullPrototype: true }),
  regions: fc.dictionary(key, region, { noNullPrototype: true }),
  settings: fc.record(
    { groups: fc.constantFrom('container' as const, 'picture' as const) },
    { requiredKeys: [] },
  ),
  dismissed: fc.dictionary(key, fc.constant(true as const), { noNullPrototype: true }),
  edits: fc.dictionary(editKeys, fc.constantFrom('12px', '1px'), { noNullPrototype: true }),
  components: fc.dictionary(fc.constantFrom('c1', 'c2'), component, { noNullPrototype: true }),
  tokens: fc.dictionary(fc.constantFrom('ink', 'gap-2'), token, { noNullPrototype: true }),
  added: fc.dictionary(key, added, { noNullPrototype: true }),
  drawers: fc.dictionary(key, drawer, { noNullPrototype: true }),
  defaults: fc.dictionary(fc.constant('text'), fc.constant('paragraph'), { noNullPrototype: true }),
  refused: fc.dictionary(key, fc.constant(true as const), { noNullPrototype: true }),
  conditions: fc.constant({ open: { name: 'Open', initial: true } }),
  redirects: fc.dictionary(fc.constant('/old'), fc.record({ to: key }), { noNullPrototype: true }),
  layouts: fc.dictionary(fc.constantFrom('l1', 'l2'), layout, { noNullPrototype: true }),
  journeys: fc.dictionary(fc.constantFrom('j1', 'j2'), journey, { noNullPrototype: true }),
  synonyms: fc.constant({}),
});
