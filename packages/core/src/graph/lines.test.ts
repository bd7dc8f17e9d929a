import fc from 'fast-check';
import { wired } from '../testing/wired.ts';
import { graphOf } from './graph.ts';
import { drawLines, type LinesDrawing, type LinesInput, lineGroups, linesInput, route } from './lines.ts';

const drawn = (script: string, names = 'abcdef'): LinesDrawing => {
  const project = wired(script, names);
  return drawLines(linesInput(project, graphOf(project), []), new Set());
};
const inWords = ({ stations }: LinesDrawing): string =>
  stations.map(({ key, x, y }) => `${key}${(x - 40) / 176}/${(y - 40) / 52}`).join(' ');

test.each([
  ['', 'abc', 'a0/0 b0/1 c0/2'],
  ['a>b b>c', 'abc', 'a0/0 b1/0 c2/0'],
  ['a>b a>c', 'abc', 'a0/0 b1/0 c1/1'],
  ['a>b a>c b>d', 'abcd', 'a0/0 b1/0 d2/0 c1/1'],
  ['a>b c>d', 'abcd', 'a0/0 b1/0 c0/1 d0/2'],
])('%j of %s stands at %s', (script, names, expected) => {
  expect(inWords(drawn(script, names))).toBe(expected);
});

/** Places that hang together at random, in an order of their own. */
const inputs = fc
  .array(fc.tuple(fc.nat(30), fc.boolean()), { minLength: 1, maxLength: 30 })
  .map((list): LinesInput => {
    const places = list.map(([parent, isRoot], i) => ({
      key: `s${i}`,
      parent: i === 0 || isRoot ? null : `s${parent % i}`,
      isReached: !isRoot || i === 0,
    }));
    const links = places.flatMap(({ key, parent }) => (parent ? [[parent, key] as const] : []));
    return { places, links, groups: [] };
  });

test('no two stations meet, and lines run only across, upright or at 45 degrees', () => {
  fc.assert(
    fc.property(
      inputs,
      fc.array(fc.tuple(fc.nat(29), fc.nat(29)), { maxLength: 30 }),
      fc.constantFrom(0, 0.6, 1.4),
      (input, more, aspect) => {
        const keys = input.places.map((place) => place.key);
        const links = [
          ...input.links,
          ...more.map(([a, b]) => [keys[a % keys.length], keys[b % keys.length]] as const),
        ];
        const { stations, tracks, width, height } = drawLines({ ...input, links }, new Set(), aspect);
        // Nothing is drawn beside the sheet.
        for (const [x, y] of tracks.flatMap(({ points }) => points))
          expect(x >= 0 && y >= 0 && x <= width && y <= height).toBe(true);
        expect(new Set(stations.map(({ x, y }) => `${x} ${y}`)).size).toBe(stations.length);
        expect(stations).toHaveLength(keys.length);
        for (const { points } of tracks)
          points.slice(1).forEach(([x, y], i) => {
            const [dx, dy] = [Math.abs(x - points[i][0]), Math.abs(y - points[i][1])];
            expect(dx < 1e-9 || dy < 1e-9 || Math.abs(dx - dy) < 1e-9).toBe(true);
          });
      },
    ),
  );
});

test('a screen that is added leaves all others in their columns and in their order', () => {
  fc.assert(
    fc.property(inputs, fc.nat(29), (input, parent) => {
      const before = drawLines(input, new Set());
      const added = { key: 'new', parent: `s${parent % input.places.length}`, isReached: true };
      const after = drawLines({ ...input, places: [...input.places, added] }, new Set());
      const others = after.stations.filter((station) => station.key !== 'new');
      expect(others.map(({ key, x }) => [key, x])).toEqual(before.stations.map(({ key, x }) => [key, x]));
      others.forEach((station, i) => expect(station.y).toBeGreaterThanOrEqual(before.stations[i].y));
    }),
  );
});

test('a folded group is one station, with what leads in and out of it', () => {
  const project = wired('a>b b>c c>d d>e', 'abcde');
  const screens = Object.fromEntries(
    Object.entries(project.app.screens).map(([key, entry]) => [
      key,
      { ...entry, route: 'bcd'.includes(key) ? `/desk/${key}` : `/${key}` },
    ]),
  );
  const desk = { ...project, app: { ...project.app, screens } };
  const groups = lineGroups(desk, graphOf(desk), 3);
  expect(groups).toEqual([{ id: 'route desk', name: '/desk', screens: ['b', 'c', 'd'] }]);
  const input = linesInput(desk, graphOf(desk), groups);
  const folded = drawLines(input, new Set(['route desk']));
  expect(inWords(folded)).toBe('a0/0 route desk1/0 e2/0');
  expect(folded.tracks.map(({ from, to }) => `${from}>${to}`)).toEqual(['a>route desk', 'route desk>e']);
  expect(drawLines(input, new Set()).stations).toHaveLength(5);
});

test('a line back on its own row runs below the stations', () => {
  const points = route({ x: 200, y: 40 }, { x: 24, y: 40 });
  expect(Math.max(...points.map(([, y]) => y))).toBeGreaterThan(40);
  expect(points.at(-1)).toEqual([24, 40]);
});

test.each([12, 15, 38, 120])('a star of %i screens uses the whole window', (count) => {
  const keys = Array.from({ length: count }, (_, i) => `s${i}`);
  const input: LinesInput = {
    places: keys.map((key, i) => ({ key, parent: i ? 's0' : null, isReached: true })),
    links: keys.slice(1).map((key) => ['s0', key] as const),
    groups: [],
  };
  const aspect = 0.9;
  const { stations, tracks, width, height } = drawLines(input, new Set(), aspect);
  expect(height / width).toBeGreaterThan(aspect * 0.6);
  expect(height / width).toBeLessThan(aspect * 1.6);
  // No line runs through the name of a station, which stands to its right.
  for (const { points } of tracks)
    points.slice(1).forEach(([x, y], i) => {
      const [from] = points[i];
      if (from !== x) return;
      const [top, bottom] = [Math.min(points[i][1], y), Math.max(points[i][1], y)];
      const struck = stations.filter(
        (one) => x > one.x + 4 && x < one.x + 140 && one.y - 10 > top && one.y - 10 < bottom,
      );
      expect(struck).toEqual([]);
    });
});
