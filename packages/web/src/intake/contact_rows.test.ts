import { applyChange, emptyApp, putScreen, type App } from '@tovel/core';
import {
  cardSize,
  keyInNextRow,
  keysOf,
  rowWith,
  type SheetCard,
  sheetCards,
  sheetLengths,
  type SheetRow,
  sheetRows,
  sortScreens,
} from './contact_rows';
import { screenEntry as screen } from '../testing/screen_entry';

const app: App = [
  putScreen('a', screen(1, { name: 'Zebra' })),
  putScreen('b', screen(2, { name: 'Apple 10' })),
  putScreen('c', screen(3, { use: 'counterpart', of: 'a' })),
  putScreen('d', screen(4, { use: 'overlay', of: 'a' })),
  putScreen('e', screen(5, { use: 'skip' })),
  putScreen('f', screen(6, { use: 'overlay', of: 'e', name: 'Apple 9' })),
].reduce(applyChange, emptyApp);
const keys = ['a', 'b', 'c', 'd', 'e', 'f'];
const sizeOf = (): { width: number; height: number } => ({ width: 400, height: 800 });

test('counterparts and overlays stand beneath theirs, and come out when theirs is skipped', () => {
  const { used, skipped } = sheetCards(app, keys);
  expect(used.map((card) => [card.key, card.attached.map(({ key }) => key).join('')])).toEqual([
    ['a', 'cd'],
    ['b', ''],
    ['f', ''],
  ]);
  expect(skipped.map((card) => card.key)).toEqual(['e']);
});

test.each([
  ['order', 'abf'],
  ['name', 'fba'],
  ['trouble', 'baf'],
] as const)('by %s', (by, expected) => {
  const findings = [
    { id: '', code: 'x', level: 'warning' as const, screen: 'b', element: null, message: '' },
  ];
  const graph = { departures: new Map() } as never;
  expect(sortScreens(['a', 'b', 'f'], by, { app, graph, findings }).join('')).toBe(expected);
});

test('by flow the start is first and what nobody reaches last', () => {
  const link = (to: string) => ({ to });
  const graph = { departures: new Map([['b', [link('f')]]]) } as never;
  expect(
    sortScreens(['a', 'b', 'f'], 'flow', { app: { ...app, start: 'b' }, graph, findings: [] }).join(''),
  ).toBe('bfa');
});

test('rows break at the width, hold the tallest of their cards, and name the skipped', () => {
  const cards = sheetCards(app, keys);
  const scale = 0.25;
  const rows = sheetRows(cards, sizeOf, 250, scale);
  expect(
    rows.map((row) => (row.kind === 'head' ? row.title : row.cards.map((card) => card.key).join(''))),
  ).toEqual(['a', 'bf', 'Skipped', 'e']);
  const first = cardSize(cards.used[0], sizeOf, scale);
  expect(rows[0].height).toBe(first.height + sheetLengths.gap);
  expect(first.height).toBeGreaterThan(cardSize(cards.used[1], sizeOf, scale).height);
});

const card = (key: string, ...attached: string[]): SheetCard => ({
  key,
  attached: attached.map((under) => ({ key: under, use: 'counterpart' as const })),
});
const rowsOf = (...rows: (readonly SheetCard[] | string)[]): SheetRow[] =>
  rows.map((row) =>
    typeof row === 'string'
      ? { kind: 'head', title: row, count: 1, height: 30 }
      : { kind: 'cards', cards: row, height: 200 },
  );
const sheet = rowsOf('Screens', [card('a'), card('b', 'b390'), card('c')], [card('d')], 'Skipped', [
  card('e'),
  card('f'),
]);

test('screens come one after the other, each with those that hang on it', () => {
  expect(keysOf(sheet).join(' ')).toBe('a b b390 c d e f');
  expect(['a', 'b390', 'f', 'gone'].map((key) => rowWith(sheet, key))).toEqual([1, 1, 4, -1]);
});

test.each<[from: string, by: 1 | -1, to: string | null]>([
  ['c', 1, 'd'],
  ['d', -1, 'a'],
  ['b390', 1, 'd'],
  ['d', 1, 'e'],
  ['f', -1, 'd'],
  ['f', 1, null],
  ['a', -1, null],
])('from %s, %i row on', (from, by, to) => {
  expect(keyInNextRow(sheet, from, by)).toBe(to);
});
