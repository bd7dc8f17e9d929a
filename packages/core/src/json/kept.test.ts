import fc from 'fast-check';
import { kept, keptFlat, keptList, keptMap } from './kept.ts';

/** What comes back out of JSON, which has no zero below zero. */
const json = fc.jsonValue().map((value) => JSON.parse(JSON.stringify(value)) as typeof value);

test('what is kept says what there is now, whatever was before', () => {
  fc.assert(fc.property(json, json, (before, now) => expect(kept(before, now)).toEqual(now)));
});

test('what is equal to what was before is the very same', () => {
  fc.assert(
    fc.property(json, (value) => {
      const again = JSON.parse(JSON.stringify(value)) as typeof value;
      expect(JSON.stringify(kept(value, again))).toBe(JSON.stringify(again));
      if (JSON.stringify(value) === JSON.stringify(again)) expect(kept(value, again)).toBe(value);
    }),
  );
});

test('of what differs in part, the other parts are the very same', () => {
  const before = { one: { a: [1, 2] }, other: { b: 3 } };
  const now = kept(before, { one: { a: [1, 2] }, other: { b: 4 } });
  expect(now).toEqual({ one: { a: [1, 2] }, other: { b: 4 } });
  expect(now.one).toBe(before.one);
});

test.each([
  ['keys in another order', { a: 1, b: 2 }, { b: 2, a: 1 }],
  ['a key more', { a: 1 }, { a: 1, b: undefined }],
  ['a list and an object', [1], { 0: 1 }],
  ['what is no plain object', new Map([['a', 1]]), new Map([['a', 1]])],
])('another value is not taken for the one before: %s', (_, before, now) => {
  expect(kept<unknown>(before, now)).toBe(now);
});

test('neither value is changed', () => {
  const before = Object.freeze({ a: Object.freeze([1, 2]), b: 1 });
  const now = Object.freeze({ a: Object.freeze([1, 2]), b: 2 });
  expect(kept<unknown>(before, now)).toEqual({ a: [1, 2], b: 2 });
});

test('an object whose values were kept is held against them alone', () => {
  const part = { a: 1 };
  const before = { part };
  expect(keptFlat(before, { part })).toBe(before);
  const now = { part: { a: 1 } };
  expect(keptFlat(before, now)).toBe(now);
});

test('lists are held against each other place by place', () => {
  const before = [{ a: 1 }, { a: 2 }];
  const now = keptList(before, [{ a: 1 }, { a: 3 }, { a: 4 }]);
  expect(now).toEqual([{ a: 1 }, { a: 3 }, { a: 4 }]);
  expect(now[0]).toBe(before[0]);
  expect(keptList(before, [{ a: 1 }, { a: 2 }])).toBe(before);
});

test('maps are held against each other by their keys', () => {
  const before = new Map([
    ['a', { n: 1 }],
    ['b', { n: 2 }],
  ]);
  expect(
    keptMap(
      before,
      new Map([
        ['a', { n: 1 }],
        ['b', { n: 2 }],
      ] as const),
    ),
  ).toBe(before);
  const now = keptMap(before, new Map([['b', { n: 2 }]]));
  expect([...now]).toEqual([['b', { n: 2 }]]);
  expect(now.get('b')).toBe(before.get('b'));
});
