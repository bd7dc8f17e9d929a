import fc from 'fast-check';
import { stringifySorted } from '../json/json.ts';
import { emptyApp, type Interaction } from '../model/app.ts';
import * as arbitrary from '../testing/arbitrary.ts';
import {
  all,
  applyChange,
  type Change,
  collisions,
  invertChange,
  parseChange,
  putInteraction,
  putScreen,
  putStill,
  setStart,
  type TableName,
  touchedBy,
} from './change.ts';
import { isKeyedByDesign, mapChange } from './map_keys.ts';

const wire: Interaction = {
  on: 'press',
  target: { kind: 'screen', screen: 'list' },
  arrival: { kind: 'none' },
};
const home = { name: 'Home', route: '/', use: 'screen', order: 1 } as const;

describe('apply and invert', () => {
  test('a change and its inverse give the very same document', () => {
    fc.assert(
      fc.property(arbitrary.app, arbitrary.change, (app, change) => {
        const back = applyChange(applyChange(app, change), invertChange(app, change));
        expect(stringifySorted(back)).toBe(stringifySorted(app));
      }),
      { numRuns: 500 },
    );
  });

  test('a long history unwinds step by step to where it began', () => {
    fc.assert(
      fc.property(arbitrary.app, fc.array(arbitrary.change, { maxLength: 40 }), (app, changes) => {
        const inverses: Change[] = [];
        let now = app;
        for (const change of changes) {
          inverses.unshift(invertChange(now, change));
          now = applyChange(now, change);
        }
        expect(stringifySorted(inverses.reduce(applyChange, now))).toBe(stringifySorted(app));
      }),
    );
  });

  test('the inverse of the inverse does the same again', () => {
    fc.assert(
      fc.property(arbitrary.app, arbitrary.change, (app, change) => {
        const after = applyChange(app, change);
        const again = applyChange(app, invertChange(after, invertChange(app, change)));
        expect(stringifySorted(again)).toBe(stringifySorted(after));
      }),
    );
  });

  test('an app that a change leaves as it was is returned itself', () => {
    const app = applyChange(emptyApp, putScreen('home', home));
    for (const change of [
      putScreen('home', { ...home }),
      putStill('home:1', false),
      setStart(null),
      all([]),
    ]) {
      expect(applyChange(app, change)).toBe(app);
    }
  });

  test('a document is never changed in place', () => {
    fc.assert(
      fc.property(arbitrary.app, arbitrary.change, (app, change) => {
        const before = stringifySorted(app);
        applyChange(app, change);
        expect(stringifySorted(app)).toBe(before);
      }),
    );
  });
});

describe('serialise', () => {
  test('a change survives JSON and the gate from outside', () => {
    fc.assert(
      fc.property(arbitrary.change, (change) => {
        expect(parseChange(JSON.parse(JSON.stringify(change)))).toEqual(change);
      }),
    );
  });

  const refused: readonly [what: string, json: unknown, message: RegExp][] = [
    ['nothing', null, /expected an object/],
    ['an unknown kind', { kind: 'drop' }, /unknown kind "drop"/],
    ['an unknown table', { kind: 'put', table: 'users', key: 'a', value: null }, /unknown table "users"/],
    ['a table of the prototype', { kind: 'put', table: 'toString', key: 'a', value: null }, /unknown table/],
    [
      'a key that would change the prototype',
      { kind: 'put', table: 'still', key: '__proto__', value: true },
      /not allowed/,
    ],
    [
      'a screen without a route',
      { kind: 'put', table: 'screens', key: 'a', value: { name: 'A', use: 'screen', order: 1 } },
      /route/,
    ],
    [
      'a screen with more than it has',
      { kind: 'put', table: 'screens', key: 'a', value: { ...home, html: '<b>' } },
      /unspecified|unknown|html/,
    ],
    [
      'a target of no kind',
      { kind: 'put', table: 'interactions', key: 'a', value: { ...wire, target: { kind: 'shell' } } },
      /target\/kind: expected one of/,
    ],
    [
      'a script as an address',
      putInteraction('a', { ...wire, target: { kind: 'external', href: 'javascript:alert(1)' } }),
      /external address/,
    ],
    ['an endless transition', putInteraction('a', { ...wire, arrival: { kind: 'fade', ms: 1e9 } }), /ms/],
    [
      'too deep a nest',
      [1, 2, 3, 4, 5].reduce<unknown>((inner) => ({ kind: 'all', changes: [inner] }), {
        kind: 'start',
        value: null,
      }),
      /nested too deeply/,
    ],
  ];
  test.each(refused)('%s is refused in words', (_, json, message) => {
    expect(() => parseChange(json)).toThrow(message);
  });
});

describe('map', () => {
  const moved = (key: string): string | null =>
    key === 'home:1' ? 'home:2' : key === 'list' ? 'catalogue' : key === 'home:9' ? null : key;

  const rows: readonly [what: string, change: Change, expected: Change | null][] = [
    ['a key that moved', putStill('home:1', true), putStill('home:2', true)],
    ['a key that is gone', putStill('home:9', true), null],
    [
      'a target that moved',
      putInteraction('home:1', wire),
      putInteraction('home:2', { ...wire, target: { kind: 'screen', screen: 'catalogue' } }),
    ],
    ['a start that moved', setStart('list'), setStart('catalogue')],
    ['a part that is gone', all([putStill('home:9', true), setStart('list')]), all([setStart('catalogue')])],
    ['all parts gone', all([putStill('home:9', true)]), null],
  ];
  test.each(rows)('%s', (_, change, expected) => {
    expect(mapChange(change, moved)).toEqual(expected);
  });

  test('a target that is gone keeps its key, so that the link is listed as broken', () => {
    const change = putInteraction('home:0', { ...wire, target: { kind: 'screen', screen: 'home:9' } });
    expect(mapChange(change, moved)).toEqual(change);
  });

  test('where nothing moved the change itself comes back', () => {
    fc.assert(
      fc.property(arbitrary.change, (change) => expect(mapChange(change, (key) => key)).toEqual(change)),
    );
  });

  test('what a mapped change writes is what it wrote, under the new keys', () => {
    const rename = (key: string): string => `new-${key}`;
    fc.assert(
      fc.property(arbitrary.change, (change) => {
        const mapped = mapChange(change, rename)!;
        const keys = [...touchedBy(change)].map((place) => {
          const table = place.split('/')[0] as TableName;
          // Of what is said by rule and element, the words after the rule are keys.
          if (table === 'refused' || table === 'dismissed') return place.replace(/ /g, ' new-');
          // Settings are of the project, not of a key in it.
          return place === 'start' || !isKeyedByDesign(table) ? place : place.replace('/', '/new-');
        });
        expect([...touchedBy(mapped)].sort()).toEqual(keys.sort());
      }),
    );
  });
});

test('changes of different places do not collide, and lead to the same document in either order', () => {
  fc.assert(
    fc.property(arbitrary.app, arbitrary.change, arbitrary.change, (app, mine, theirs) => {
      fc.pre(collisions(mine, [theirs]).length === 0);
      const [a, b] = [
        applyChange(applyChange(app, mine), theirs),
        applyChange(applyChange(app, theirs), mine),
      ];
      expect(stringifySorted(a)).toBe(stringifySorted(b));
    }),
  );
});

test('what both write is named', () => {
  expect(
    collisions(all([putStill('a', true), setStart('b')]), [setStart(null), putScreen('a', null)]),
  ).toEqual(['start']);
});
