import fc from 'fast-check';
import { findingsOf } from '../findings/rules.ts';
import { wired } from '../testing/wired.ts';
import { analysisOf, gatesTo, shortestWay } from './analysis.ts';
import { graphOf, type ScreenGraph } from './graph.ts';

const NAMES = 'abcdef';
const graphFrom = (script: string): ScreenGraph => graphOf(wired(script, NAMES));
const inWords = (pairs: ReadonlyMap<string, unknown>): string =>
  [...pairs]
    .map(([key, value]) => `${key}${String(value)}`)
    .sort()
    .join(' ');

test.each([
  ['', 'a0', '', ''],
  ['a>b b>c a>c', 'a0 b1 c1', 'ba ca', ''],
  ['a>b a>c b>d c>d d>e', 'a0 b1 c1 d2 e3', 'ba ca da ed', ''],
  ['a>b b>a b>c', 'a0 b1 c2', 'ba cb', ''],
  ['a>b b>c c>b', 'a0 b1 c2', 'ba cb', 'bc'],
  ['a>b b>c c>b c><', 'a0 b1 c2', 'ba cb', ''],
  ['a>b b>c c>b b>^', 'a0 b1 c2', 'ba cb', ''],
  ['a>b b>c c>b c>d d!', 'a0 b1 c2', 'ba cb', 'bc'],
  ['a>b b>b', 'a0 b1', 'ba', ''],
  ['c>d d>c e>f f>e', 'a0', '', 'cd ef'],
])('%j: depths %j, gates %j, traps %j', (script, depths, gates, traps) => {
  const { depth, gate, traps: groups } = analysisOf(graphFrom(script));
  expect(inWords(depth)).toBe(depths);
  expect(inWords(gate)).toBe(gates);
  expect(groups.map((group) => group.join('')).join(' ')).toBe(traps);
});

test('without a start nothing is deep and nothing is a gate', () => {
  const { depth, gate } = analysisOf(graphFrom('a>b a!'));
  expect([depth.size, gate.size]).toEqual([0, 0]);
});

test.each([
  ['a>b b>c a>c', 'a', 'c', 'a>c'],
  ['a>b b>c c>d', 'a', 'd', 'a>b b>c c>d'],
  ['a>b b>c', 'c', 'a', null],
  ['a>b b>c b!', 'a', 'c', null],
  ['a>b', 'a', 'a', ''],
])('%j: the shortest way from %s to %s is %j', (script, from, to, way) => {
  const found = shortestWay(graphFrom(script), from, to);
  expect(found?.map((link) => `${link.from}>${link.to}`).join(' ') ?? null).toBe(way);
});

describe('for every graph', () => {
  const letter = fc.constantFrom(...NAMES);
  const scripts = fc
    .uniqueArray(fc.tuple(letter, letter), { maxLength: 14, selector: ([from, to]) => from + to })
    .map((pairs) =>
      pairs.filter(([from], i) => pairs.slice(0, i).filter(([other]) => other === from).length < 3),
    );
  /** What is reached from a screen without entering another, by walking as far as it goes. */
  const walk = (pairs: readonly (readonly [string, string])[], from: string, without = ''): Set<string> => {
    const seen = new Set(from === without ? [] : [from]);
    for (let i = 0; i < NAMES.length; i++)
      for (const [x, y] of pairs) if (seen.has(x) && y !== without) seen.add(y);
    return seen;
  };
  const each = (check: (pairs: [string, string][], graph: ScreenGraph) => void): void =>
    fc.assert(
      fc.property(scripts, (pairs) => check(pairs, graphFrom(pairs.map(([x, y]) => `${x}>${y}`).join(' ')))),
      { numRuns: 60 },
    );

  test('a gate is what nobody gets around', () =>
    each((pairs, graph) => {
      const reached = walk(pairs, 'a');
      for (const key of reached) {
        const gates = [...NAMES].filter(
          (gate) => gate !== key && reached.has(gate) && !walk(pairs, 'a', gate).has(key),
        );
        expect([...gatesTo(graph, key)].sort()).toEqual(gates);
      }
    }));

  test('depth is the length of a shortest way, whose links join', () =>
    each((_, graph) => {
      const { depth } = analysisOf(graph);
      for (const key of NAMES) {
        const way = shortestWay(graph, 'a', key);
        expect(way?.length).toBe(depth.get(key));
        way?.forEach((link, i) => expect(link.from).toBe(i ? way[i - 1].to : 'a'));
      }
    }));

  test('a trap is what nobody leaves and everybody in it gets round', () =>
    each((pairs, graph) => {
      const expected = [...NAMES].filter((key) => {
        const from = walk(pairs, key);
        return from.size > 1 && !from.has('a') && [...from].every((other) => walk(pairs, other).has(key));
      });
      expect(analysisOf(graph).traps.flat().sort()).toEqual(expected);
    }));
});

test('what is far away and what is a trap is said with the way there', () => {
  const project = wired('a>b b>c c>d d>e e>f f>a', NAMES);
  const said = (code: string, of = project) =>
    findingsOf(of)
      .filter((finding) => finding.code === code)
      .map(({ screen, message }) => `${screen}: ${message}`);
  expect(said('far-away')).toEqual(['f: F is 5 presses from A: A → B → C → D → E → F.']);
  expect(said('trap')).toEqual([]);
  expect(said('trap', wired('a>b b>c c>b', NAMES))).toEqual([
    'b: Nobody gets out of B and C once there: they lead only to each other. Wire an element of one to another screen or to Back.',
  ]);
});
