import fc from 'fast-check';
import { onceFor, onceForBoth, whileSame } from './once_for.ts';

test.each([[undefined], [null], [0], ['said'], [{}]])(
  'what follows from an object is worked out once, also %p',
  (value) => {
    let times = 0;
    const follows = onceFor<object, unknown>(() => {
      times++;
      return value;
    });
    const [one, other] = [{}, {}];
    expect([follows(one), follows(one), follows(other)]).toEqual([value, value, value]);
    expect(times).toBe(2);
  },
);

test('what fails is tried again', () => {
  let times = 0;
  const follows = onceFor<object, number>(() => {
    if (!times++) throw new Error('not yet');
    return times;
  });
  const one = {};
  expect(() => follows(one)).toThrow('not yet');
  expect([follows(one), follows(one)]).toEqual([2, 2]);
});

test('with other values the answer is what it would be without memory, and those of before are worked out anew only where one differs', () => {
  const objects = [{ n: 1 }, { n: 2 }, { n: 3 }];
  const calls = fc.array(fc.tuple(fc.nat(2), fc.nat(2), fc.nat(1)), { maxLength: 40 });
  fc.assert(
    fc.property(calls, (all) => {
      let times = 0;
      const plain = (of: { n: number }, by: number, and: object): string =>
        `${of.n} ${by} ${objects.indexOf(and as { n: number })}`;
      const follows = whileSame((of: { n: number }, by: number, and: object) => {
        times++;
        return plain(of, by, and);
      });
      const last = new Map<number, string>();
      let expected = 0;
      for (const [of, by, and] of all) {
        expect(follows(objects[of], by, objects[and])).toBe(plain(objects[of], by, objects[and]));
        if (last.get(of) !== `${by} ${and}`) expected++;
        last.set(of, `${by} ${and}`);
      }
      expect(times).toBe(expected);
    }),
  );
});

test('of two, an object and an object or a key, each pair is worked out once', () => {
  const said: string[] = [];
  const [a, b] = [{ n: 'a' }, { n: 'b' }];
  const follows = onceForBoth((of: { n: string }, other: { n: string } | string): string => {
    said.push(`${of.n} ${typeof other === 'string' ? other : other.n}`);
    return said.at(-1)!;
  });
  expect([follows(a, b), follows(b, a), follows(a, 'b'), follows(a, b), follows(a, 'b')]).toEqual([
    'a b',
    'b a',
    'a b',
    'a b',
    'a b',
  ]);
  expect(said).toEqual(['a b', 'b a', 'a b']);
});
