import fc from 'fast-check';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import { screenOf, screenWith, svg } from '../testing/build.ts';
import { editScreen } from '../testing/edit_tree.ts';
import { bestAssignment } from './assign.ts';
import { matchDesigns } from './design.ts';
import { matchElements } from './elements.ts';
import { matchScreens } from './screens.ts';
import { commonRun } from './sequence.ts';

const row = (i: number, name: string, place: string): string =>
  `<g><rect x="24" y="${100 + i * 70}" width="342" height="60" rx="6" fill="#eee"/><text x="40" y="${125 + i * 70}" font-size="16">${name}</text><text x="40" y="${148 + i * 70}" font-size="13" fill="#666">${place}</text></g>`;
const bar = (active: string): string =>
  ['Tools', 'Loans', 'Help']
    .map(
      (name, i) =>
        `<text x="${40 + i * 110}" y="800" font-size="14" fill="${name === active ? '#060' : '#999'}">${name}</text>`,
    )
    .join('');
const tools = [
  ['Hedge trimmer', 'Shed 1'],
  ['Pillar drill', 'Shed 2'],
  ['Apple press', 'Shed 2'],
  ['Tile cutter', 'Shed 1'],
] as const;
const list = (rows: readonly (readonly [string, string])[], before = '', key = 'list'): Screen =>
  screenOf(
    svg(
      `${before}<text x="24" y="60" font-size="28">Catalogue</text>${rows.map(([name, place], i) => row(i, name, place)).join('')}${bar('Tools')}`,
    ),
    key,
  );

const shown = (element: Element): string =>
  element.text ?? [...element.children].map(shown).filter(Boolean).join(' ');
const pairsByText = (a: Screen, b: Screen): Record<string, string> =>
  Object.fromEntries(
    matchElements(a.root, b.root)
      .filter(({ old }) => old.kind === 'text')
      .map(({ old, now }) => [shown(old), shown(now)]),
  );

test('a screen matched with itself is itself, surely', () => {
  const screen = list(tools);
  const pairs = matchElements(screen.root, structuredClone(screen.root));
  expect(pairs).toHaveLength(elementsByKey(screen).size);
  for (const { old, now, score } of pairs) expect([now.key, score > 0.7]).toEqual([old.key, true]);
});

test.each<[string, Screen, Record<string, string>]>([
  [
    'something put first',
    list(tools, '<g><rect width="390" height="2" fill="#123"/></g>'),
    { Catalogue: 'Catalogue', 'Hedge trimmer': 'Hedge trimmer', Help: 'Help' },
  ],
  [
    'a row put in',
    list([tools[0], ['Leaf blower', 'Shed 3'], ...tools.slice(1)]),
    { 'Hedge trimmer': 'Hedge trimmer', 'Pillar drill': 'Pillar drill', 'Tile cutter': 'Tile cutter' },
  ],
  ['a row taken out', list([tools[0], ...tools.slice(2)]), { 'Apple press': 'Apple press' }],
  [
    'rows in another order',
    list(tools.toReversed()),
    { 'Hedge trimmer': 'Hedge trimmer', 'Tile cutter': 'Tile cutter' },
  ],
  [
    'a text with other words',
    list([['Hedge trimmer, long', 'Shed 1'], ...tools.slice(1)]),
    { 'Hedge trimmer': 'Hedge trimmer, long', 'Pillar drill': 'Pillar drill' },
  ],
  [
    'a number that changed',
    list([['Hedge trimmer', 'Shed 7'], ...tools.slice(1)]),
    { 'Hedge trimmer': 'Hedge trimmer', 'Apple press': 'Apple press' },
  ],
])('%s', (_, now, expected) => {
  expect(pairsByText(list(tools), now)).toMatchObject(expected);
});

test('after edits by chance nearly all elements are found again, and hardly one is taken for another', () => {
  let [right, found, all] = [0, 0, 0];
  for (let seed = 1; seed <= 60; seed++) {
    const before = list(tools);
    const { screen, was } = editScreen(before, seed);
    const stay = new Set([...was.values()].filter((key) => key !== null));
    all += stay.size;
    for (const { old, now } of matchElements(before.root, screen.root)) {
      found++;
      if (was.get(now.key) === old.key) right++;
    }
  }
  expect([right / found > 0.95, right / all > 0.95]).toEqual([true, true]);
});

test('an element has at most one partner, and it is of the other version', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 0, max: 12 }), (seed, edits) => {
      const before = list(tools);
      const { screen } = editScreen(before, seed, edits);
      const pairs = matchElements(before.root, screen.root);
      expect(new Set(pairs.map(({ old }) => old)).size).toBe(pairs.length);
      expect(new Set(pairs.map(({ now }) => now)).size).toBe(pairs.length);
      for (const { old, now, score } of pairs) {
        expect(elementsByKey(before).get(old.key)).toBe(old);
        expect(elementsByKey(screen).get(now.key)).toBe(now);
        expect(score >= 0 && score <= 1).toBe(true);
      }
    }),
    { numRuns: 60 },
  );
});

describe('screens', () => {
  const file = (screen: Screen, name: string): Screen => ({
    ...screen,
    source: { ...screen.source, file: name },
  });
  const home = screenWith('home', 'Browse', 'Loans');
  const detail = screenWith('detail', 'Reserve', 'Report damage', 'Back to the list');

  test('are known by what they show when their files are renamed', () => {
    const pairs = matchScreens(
      [home, detail, list(tools)],
      [file(detail, 'x.svg'), file(home, 'y.svg'), list(tools)],
    );
    expect(pairs.map(({ old, now, kinship }) => [old.key, now.source.file, kinship])).toEqual([
      ['home', 'y.svg', 'same'],
      ['detail', 'x.svg', 'same'],
      ['list', 'list.svg', 'same'],
    ]);
  });

  test('that came or went have no partner', () => {
    const found = matchDesigns({ screens: [home, detail] }, { screens: [detail, list(tools)] });
    expect([found.gone.map(({ key }) => key), found.fresh.map(({ key }) => key)]).toEqual([
      ['home'],
      ['list'],
    ]);
  });

  test('that were parted say from where, and their elements are found', () => {
    const [first, rest] = [
      list(tools.slice(0, 2)),
      screenOf(svg(row(0, 'Apple press', 'Shed 2') + row(1, 'Tile cutter', 'Shed 1')), 'more'),
    ];
    const found = matchDesigns({ screens: [list(tools)] }, { screens: [first, rest] });
    expect(found.screens.map(({ now, kinship }) => [now.key, kinship])).toEqual([
      ['list', 'same'],
      ['more', 'part'],
    ]);
    const went = found.pairs.filter(({ to }) => to === rest).map(({ old }) => shown(old));
    expect(went).toEqual(expect.arrayContaining(['Apple press', 'Tile cutter']));
  });
});

test('the best assignment has the greatest sum, as trying all shows', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 3, maxLength: 3 }), {
        minLength: 1,
        maxLength: 4,
      }),
      (rows) => {
        const best = (i: number, used: readonly number[]): number =>
          i === rows.length
            ? 0
            : Math.max(
                best(i + 1, used),
                ...rows[i].map((worth, j) => (used.includes(j) ? 0 : worth + best(i + 1, [...used, j]))),
              );
        const found = bestAssignment(
          rows.map((row_) => Float64Array.from(row_)),
          3,
        );
        const sum = rows.reduce((all, row_, i) => all + (found[i] < 0 ? 0 : row_[found[i]]), 0);
        expect(sum).toBe(best(0, []));
      },
    ),
  );
});

test.each([
  [[1, 2, 3], [1, 2, 3], 3],
  [[1, 2, 3], [0, 1, 3], 2],
  [[1, 2, 3, 4], [3, 4, 1, 2], 2],
  [[], [1], 0],
])('of %j and %j as many as can be keep their order', (a, b, count) => {
  for (const work of [1e6, 0]) {
    const pairs = commonRun(a, b, work);
    expect(pairs).toHaveLength(count);
    expect(pairs.every(([i, j]) => a[i] === b[j])).toBe(true);
  }
});
