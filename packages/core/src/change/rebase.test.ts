import fc from 'fast-check';
import { emptyApp, type App } from '../model/app.ts';
import {
  all,
  applyChange,
  type Change,
  collisions,
  invertChange,
  putScreen,
  putStill,
  setStart,
} from './change.ts';
import { rebased, valuesIn, valuesOf } from './rebase.ts';

const entry = { name: 'Home', route: '/', use: 'screen', order: 1 } as const;
const app = applyChange(emptyApp, putScreen('home', entry));

test.each<[string, Change, Change, Change | null]>([
  [
    'two fields of one entry both stay',
    putScreen('home', { ...entry, route: '/start' }),
    putScreen('home', { ...entry, name: 'Start' }),
    putScreen('home', { ...entry, name: 'Start', route: '/start' }),
  ],
  [
    'a field that was taken away stays away',
    putScreen('home', { ...entry, params: { id: '1' } }),
    putScreen('home', { ...entry, name: 'Start' }),
    putScreen('home', { ...entry, name: 'Start', params: { id: '1' } }),
  ],
  [
    'the same field of both is for nobody to decide',
    putScreen('home', { ...entry, name: 'First' }),
    putScreen('home', { ...entry, name: 'Start' }),
    null,
  ],
  [
    'the same said twice is said once',
    putScreen('home', { ...entry, name: 'Start' }),
    putScreen('home', { ...entry, name: 'Start' }),
    putScreen('home', { ...entry, name: 'Start' }),
  ],
  [
    'an entry that others removed is for nobody to decide',
    putScreen('home', null),
    putScreen('home', { ...entry, name: 'Start' }),
    null,
  ],
  ['what others did not touch goes as it is', putStill('a', true), setStart('home'), setStart('home')],
])('%s', (_, theirs, mine, made) => {
  expect(rebased(mine, valuesIn(app), applyChange(app, theirs))).toEqual(made);
});

test('a step of several is taken as a whole or not at all', () => {
  const mine = all([putStill('a', true), putScreen('home', { ...entry, name: 'Start' })]);
  const theirs = putScreen('home', { ...entry, name: 'First' });
  expect(rebased(mine, valuesIn(app), applyChange(app, theirs))).toBeNull();
});

test('a step is taken back from beneath another one of the same entry', () => {
  const rename = putScreen('home', { ...entry, name: 'Start' });
  const reroute = putScreen('home', { ...entry, name: 'Start', route: '/start' });
  const now = applyChange(applyChange(app, rename), reroute);
  const back = rebased(invertChange(app, rename), valuesOf(rename, now), now);
  expect(applyChange(now, back!).screens.home).toEqual({ ...entry, route: '/start' });
});

const value = fc.record({
  name: fc.constantFrom('A', 'B', 'C'),
  route: fc.constantFrom('/', '/b', '/c'),
  use: fc.constantFrom('screen' as const, 'skip' as const),
  order: fc.constantFrom(1, 2),
});
const change = fc.oneof(
  fc.tuple(fc.constantFrom('home', 'list'), fc.option(value)).map(([key, one]) => putScreen(key, one)),
  fc.constantFrom('home', 'list', null).map(setStart),
);
const steps = fc.array(change, { minLength: 1, maxLength: 4 }).map(all);
/** A step that writes each place once: what it writes and takes back again it has written all the same. */
const plain = fc
  .uniqueArray(change, {
    minLength: 1,
    maxLength: 3,
    selector: (one) => (one.kind === 'put' ? one.key : one.kind),
  })
  .map(all);

test('what touches other places goes as it is; what is taken keeps all that only others wrote', () => {
  fc.assert(
    fc.property(steps, steps, plain, (first, theirs, mine) => {
      const base: App = applyChange(emptyApp, first);
      const now = applyChange(base, theirs);
      const made = rebased(mine, valuesIn(base), now);
      if (!collisions(mine, [theirs]).length) expect(made).toEqual(mine);
      if (!made) return;
      const after = applyChange(now, made);
      const alone = applyChange(base, mine);
      for (const key of ['home', 'list']) {
        const [a, b, c, d] = [base, now, alone, after].map(
          (one) => (one.screens[key] ?? {}) as Readonly<Record<string, unknown>>,
        );
        for (const field of ['name', 'route', 'use', 'order'])
          if (a[field] === c[field] && c[field] !== undefined && b[field] !== undefined)
            expect(d[field]).toBe(b[field]);
      }
    }),
  );
});
