import fc from 'fast-check';
import { putInteraction, putLayer } from './change.ts';
import {
  composeKeys,
  invertKeys,
  keyMapOf,
  type KeyMapping,
  keysFrom,
  sameKeys,
  speaksOfGone,
} from './key_mapping.ts';
import { mapChange } from './map_keys.ts';

const OLD = ['a', 'b', 'c', 'd'];

/** A mapping of some keys to others, and what there is after it. Generations keep new keys apart. */
function mappingFrom(
  keys: readonly string[],
  generation: number,
): fc.Arbitrary<{ mapping: KeyMapping; after: string[] }> {
  const fresh = [1, 2, 3].map((n) => `${generation}.${n}`);
  return fc
    .record({
      to: fc.dictionary(
        fc.constantFrom(...keys),
        fc.subarray([...fresh, ...keys.slice(0, 1)], { maxLength: 2 }),
        {
          maxKeys: 3,
          noNullPrototype: true,
        },
      ),
      made: fc.subarray(fresh),
    })
    .map(({ to, made }) => {
      const targets = new Set(Object.values(to).flat());
      // A key that others go to, and that is there itself, says so.
      const whole = {
        ...Object.fromEntries(
          [...targets].filter((key) => keys.includes(key) && !to[key]).map((key) => [key, [key]]),
        ),
        ...to,
      };
      const reached = new Set(Object.values(whole).flat());
      const mapping = composeKeys({ to: whole, made: made.filter((key) => !reached.has(key)) }, sameKeys);
      const after = new Set([...keys.flatMap((key) => keysFrom(mapping, key)), ...mapping.made]);
      return { mapping, after: [...after] };
    })
    .filter(({ after }) => after.length > 0);
}

const sorted = (keys: readonly string[]): string[] => [...new Set(keys)].sort();

test.each<[string, KeyMapping, string, string[]]>([
  ['what moved', { to: { a: ['x'] }, made: [] }, 'a', ['x']],
  ['what was parted', { to: { a: ['x', 'y'] }, made: [] }, 'a', ['x', 'y']],
  ['what is gone', { to: { a: [] }, made: [] }, 'a', []],
  ['anything else', { to: { a: [] }, made: ['n'] }, 'b', ['b']],
])('%s is found', (_, mapping, key, expected) => {
  expect(keysFrom(mapping, key)).toEqual(expected);
});

test('inverted twice a mapping is itself, and the way back leads to where a key came from', () => {
  fc.assert(
    fc.property(mappingFrom(OLD, 1), ({ mapping }) => {
      const back = invertKeys(mapping);
      expect(invertKeys(back)).toEqual(mapping);
      for (const key of OLD)
        for (const target of keysFrom(mapping, key)) expect(keysFrom(back, target)).toContain(key);
    }),
  );
});

test('one after the other is the same as both at once, in whatever way they are put together', () => {
  fc.assert(
    fc.property(
      mappingFrom(OLD, 1).chain((first) =>
        mappingFrom(first.after, 2).chain((second) =>
          mappingFrom(second.after, 3).map(
            (third) => [first.mapping, second.mapping, third.mapping] as const,
          ),
        ),
      ),
      ([one, two, three]) => {
        const both = composeKeys(one, two);
        for (const key of OLD)
          expect(sorted(keysFrom(both, key))).toEqual(
            sorted(keysFrom(one, key).flatMap((target) => keysFrom(two, target))),
          );
        expect(composeKeys(both, three)).toEqual(composeKeys(one, composeKeys(two, three)));
        expect(composeKeys(one, sameKeys)).toEqual(one);
      },
    ),
  );
});

test('a change goes along, and one about something that is gone is known', () => {
  const mapping: KeyMapping = { to: { 'home:1': ['home:2.4'], 'home:2': [] }, made: [] };
  const layer = putLayer('home:1', { role: 'button' });
  expect(mapChange(layer, keyMapOf(mapping))).toEqual(putLayer('home:2.4', { role: 'button' }));
  expect(
    [layer, putLayer('home:2', { role: 'button' })].map((change) => speaksOfGone(change, mapping)),
  ).toEqual([false, true]);
  const link = putInteraction('home:1', {
    on: 'press',
    target: { kind: 'anchor', screen: 'home', element: 'home:2' },
    arrival: { kind: 'none' },
  });
  expect(speaksOfGone(link, mapping)).toBe(true);
});
