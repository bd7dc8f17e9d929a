/** @jest-environment jsdom */
/// <reference lib="dom" />
import fc from 'fast-check';
import { type Expression, literal } from '../../expression/expression.ts';
import { loadedRuntime } from '../../testing/loaded_runtime.ts';
import type { EmittedCollection } from '../form/live/records.ts';
import type { EmittedStep } from '../form/markup.ts';
import { type DoneHere, type Effect, effectsOf, type Known } from './effects.ts';

const TOOLS = [
  { id: 'saw', name: 'Saw', status: 'free' },
  { id: 'drill', name: 'Drill', status: 'out' },
  { id: 'rake', name: 'Rake', status: 'free' },
];
const view = {
  screen: 's',
  within: 'list',
  rows: new Map(TOOLS.slice(0, 2).map(({ id }) => [`row ${id}`, id])),
  hook: 'useTools',
  options: { searched: [], sortedAs: {}, filtered: [], within: [], perPage: 2 },
};
const tools = {
  live: {
    name: 'tools',
    record: 'Tool',
    prefix: '',
    isRemote: false,
    collection: { name: 'tools', fields: [], rows: [] },
  },
  records: TOOLS,
  like: { name: '', status: 'free' },
  lists: new Set([view]),
} as unknown as EmittedCollection;
const loans = {
  ...tools,
  live: {
    ...tools.live,
    name: 'loans',
    isRemote: true,
    collection: { name: 'loans', behind: { fields: { name: 'title' } } },
  },
  records: [],
  lists: new Set(),
} as unknown as EmittedCollection;
const known: Known = {
  collections: new Map([
    ['tools', tools],
    ['loans', loans],
  ]),
  unsure: new Set(),
  variables: { signedIn: false, days: 2 },
  takes: (_collection, does) => does === 'add',
  answers: () => false,
};
const here: DoneHere = {
  row: { records: 'tools', id: 'saw', view, isFirst: true },
  given: {},
  filled: { name: 'Plane', note: 'Sharp' },
  shown: () => 'drill',
  addressOf: (to) => (to === '/guarded' ? null : to),
  over: ['menu'],
  page: {
    isOpen: (id) => (id === 'nowhere' ? null : id.startsWith('first')),
    ticks: (name) => (name === 'all' ? 3 : null),
  },
};

const same = (left: Expression, right: Expression): Expression => ({
  kind: 'compare',
  by: 'equal',
  left,
  right,
});
const field = (of: string, name: string): Expression => ({
  kind: 'field',
  of: { kind: 'item', name: of },
  name,
});
const where = (status: string): Extract<EmittedStep, { kind: 'record' }>['deed'] & { kind: 'remove' } => ({
  kind: 'remove',
  of: { kind: 'where', each: 'one', holds: same(field('one', 'status'), literal(status)) },
});
const record = (
  deed: Extract<EmittedStep, { readonly kind: 'record' }>['deed'],
  records = 'tools',
): EmittedStep => ({ kind: 'record', records, deed });
const set = (condition: string, to: Expression): EmittedStep => ({
  kind: 'set',
  condition,
  to,
  takesEntered: false,
});
const go = (to: string): EmittedStep => ({ kind: 'go', to }) as EmittedStep;
const list = (deed: Extract<EmittedStep, { readonly kind: 'list' }>['deed']): EmittedStep => ({
  kind: 'list',
  listing: { name: 'tools', hook: 'useTools' },
  deed,
});
const discloses = (id: string, does: 'toggle' | 'open' | 'close'): EmittedStep => ({
  kind: 'disclose',
  id,
  does,
});
const slides = { name: 'slides', first: 'first', all: ['first', 'second', 'third'] };
const opens = (overlay: string): EmittedStep => ({ kind: 'open', overlay, arrival: { kind: 'none' } });
const CLOSE: EmittedStep = { kind: 'close' };
const days: Expression = { kind: 'variable', name: 'days' };

test.each<[string, EmittedStep[], Effect[] | null]>([
  ['a value', [set('signedIn', literal(true))], [{ variable: 'signedIn', is: true }]],
  [
    'one that is worked out from others, the last of two',
    [
      set('days', { kind: 'arithmetic', by: 'plus', left: days, right: literal(3) } as Expression),
      set('days', { kind: 'arithmetic', by: 'plus', left: days, right: literal(1) } as Expression),
    ],
    [{ variable: 'days', is: 6 }],
  ],
  ['what depends on the day is not told', [set('days', { kind: 'call', name: 'today', args: [] })], []],
  ['nor what nobody knows', [set('other', literal(1))], []],
  ['what is said', [{ kind: 'say', to: literal('Done'), takesEntered: false }], [{ told: 'Done' }]],
  ['where it leads', [go('/loans')], [{ to: '/loans' }]],
  ['but not past a guard', [go('/guarded')], []],
  ['a list is sorted', [list({ kind: 'sort', field: 'name' })], [{ words: { sort: 'name' } }]],
  ['and filtered', [list({ kind: 'filter', field: 'status', value: 'out' })], [{ words: { status: 'out' } }]],
  ['by nothing', [list({ kind: 'filter', field: 'status' })], [{ words: { status: null } }]],
  ['its next page', [list({ kind: 'page', to: 'next' })], [{ words: { page: '2' } }]],
  ['there is none before the first', [list({ kind: 'page', to: 'previous' })], []],
  ['which another screen does not say', [list({ kind: 'sort', field: 'name' }), go('/x')], [{ to: '/x' }]],
  [
    'the record of the row goes',
    [record({ kind: 'remove', of: { kind: 'row' } })],
    [{ records: 'tools', more: -1 }],
  ],
  [
    'that of the screen says something',
    [record({ kind: 'set', to: [['status', literal('lost')]], of: { kind: 'shown' } })],
    [{ records: 'tools', id: 'drill', says: { status: 'lost' } }],
  ],
  ['all that are free go', [record(where('free'))], [{ records: 'tools', more: -2 }]],
  [
    'one is added as the form says, and no longer free',
    [
      record({ kind: 'add', fields: ['name'], says: [['status', literal('new')]], as: 'tool' }),
      record({
        kind: 'set',
        to: [['status', literal('out')]],
        of: {
          kind: 'where',
          each: 'one',
          holds: same(field('one', 'name'), field('tool', 'name')),
        },
      }),
    ],
    [
      { records: 'tools', more: 1 },
      { records: 'tools', says: { name: 'Plane', status: 'out' } },
    ],
  ],
  [
    'of what an API keeps what it has a property for',
    [record({ kind: 'add', fields: ['name', 'note'], says: [] }, 'loans')],
    [
      { records: 'loans', more: 1 },
      { records: 'loans', says: { name: 'Plane' } },
    ],
  ],
  ['a part opens', [discloses('second', 'toggle')], [{ part: 'second', isOpen: true }]],
  ['and closes', [discloses('first', 'toggle')], [{ part: 'first', isOpen: false }]],
  [
    'as it is by then',
    [discloses('first', 'close'), discloses('first', 'toggle')],
    [{ part: 'first', isOpen: true }],
  ],
  ['one that is not there does not', [discloses('nowhere', 'open')], []],
  ['what another screen does not show', [discloses('second', 'open'), go('/x')], [{ to: '/x' }]],
  [
    'of several parts another is shown',
    [{ kind: 'disclose', id: 'second', does: 'open', choice: slides }],
    [
      { part: 'first', isOpen: false },
      { part: 'second', isOpen: true },
    ],
  ],
  [
    'the one before the first is the last',
    [{ kind: 'turn', choice: slides, by: -1 }],
    [
      { part: 'first', isOpen: false },
      { part: 'third', isOpen: true },
    ],
  ],
  ['something opens over what is open', [opens('sure')], [{ over: ['menu', 'sure'] }]],
  ['and closes, and what is under it', [opens('sure'), CLOSE, CLOSE], [{ over: [] }]],
  ['what is as it was is not told', [opens('sure'), CLOSE], []],
  ['what is copied', [{ kind: 'browser', does: 'copy', text: 'Saw' }], [{ copied: 'Saw' }]],
  ['what is printed', [{ kind: 'browser', does: 'print' }], [{ printed: 1 }]],
  ['what is asked for anew', [{ kind: 'browser', does: 'refetch' }], [{ answered: true }]],
  ['boxes that are ticked', [{ kind: 'browser', does: 'tick', name: 'all' }], [{ ticked: 3 }]],
  ['but not those that nobody knows', [{ kind: 'browser', does: 'tick', name: 'some' }], []],
  ['what an API refuses cannot be done', [record({ kind: 'remove', of: { kind: 'shown' } }, 'loans')], null],
  ['nor what it is asked wrongly', [{ kind: 'call', api: 'a', name: 'b', sends: null }], null],
])('effects: %s', (_, steps, effects) => expect(effectsOf(steps, known, here)).toEqual(effects));

test('what is done in a row of a list that is not drawn so cannot be done', () => {
  const removed = [record({ kind: 'remove', of: { kind: 'row' } })];
  expect(effectsOf(removed, known, { ...here, row: null })).toBeNull();
});

interface Tool {
  id: string;
  name: string;
  status: string;
}
interface Records {
  all(): readonly Tool[];
  add(values: Partial<Tool>): Tool;
  change(which: string | ((tool: Tool) => boolean), values: Partial<Tool>): void;
  remove(which: string | ((tool: Tool) => boolean)): void;
}
const { createRecords } = loadedRuntime<{
  createRecords(name: string, first: readonly Tool[], like: Omit<Tool, 'id'>): Records;
}>('records/records.ts');
const { effectSeen } = loadedRuntime<{
  effectSeen(expected: Effect, now: object, before: object): Effect;
}>('testing/effects.ts');

const status = fc.constantFrom('free', 'out', 'lost');
const deed = fc.oneof(
  fc.record({ kind: fc.constant('add' as const), status }),
  fc.record({ kind: fc.constant('remove' as const), status }),
  fc.record({ kind: fc.constant('set' as const), status, to: status }),
  fc.record({ kind: fc.constant('row' as const), to: status }),
);

test('what is told beforehand of records is what the app makes of them', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 1, maxLength: 5 }), (deeds) => {
      localStorage.clear();
      const records = createRecords('tools', TOOLS, { name: '', status: 'free' });
      const moment = (): object => ({
        address: '/',
        variables: {},
        told: '',
        records: { tools: records.all() },
      });
      const before = moment();
      const steps = deeds.map((one): EmittedStep => {
        switch (one.kind) {
          case 'add':
            records.add({ name: 'Plane', status: one.status });
            return record({ kind: 'add', fields: ['name'], says: [['status', literal(one.status)]] });
          case 'remove':
            records.remove((tool) => tool.status === one.status);
            return record(where(one.status));
          case 'set':
            records.change((tool) => tool.status === one.status, { status: one.to });
            return record({ kind: 'set', to: [['status', literal(one.to)]], of: where(one.status).of });
          case 'row':
            records.change('saw', { status: one.to });
            return record({ kind: 'set', to: [['status', literal(one.to)]], of: { kind: 'row' } });
        }
      });
      const effects = effectsOf(steps, known, here)!;
      expect(effects.map((effect) => effectSeen(effect, moment(), before))).toEqual(effects);
    }),
  );
});
