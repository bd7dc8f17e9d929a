import fc from 'fast-check';
import { matchElements } from '../match/elements.ts';
import { screenOf, svg } from '../testing/build.ts';
import { editScreen } from '../testing/edit_tree.ts';
import { differencesOf, pairsByKey } from './elements.ts';

const label = (x: number, y: number, text: string, more = ''): string =>
  `<text x="${x}" y="${y}" font-size="16" ${more}>${text}</text>`;
const group = (name: string, inner: string): string => `<g id="${name}" data-name="${name}">${inner}</g>`;

/** What differs between two drawings, as `label: what`. */
function between(before: string, after: string): string[] {
  const [old, now] = [screenOf(svg(before)), screenOf(svg(after))];
  return differencesOf(old, now, matchElements(old.root, now.root)).map(
    ({ label: called, olds, nows, says }) =>
      `${called}${Math.max(olds.length, nows.length) > 1 ? ` and ${Math.max(olds.length, nows.length) - 1} more` : ''}: ${says}`,
  );
}

const head = label(20, 40, 'Tools to borrow', 'id="head"');
const row = (y: number, name: string, note: string): string =>
  group(`row-${name}`, label(20, y, name) + label(20, y + 20, note));

test.each([
  ['nothing', head, head, []],
  [
    'a text',
    head + label(20, 80, 'back Thursday', 'id="note"'),
    head + label(20, 80, 'back Friday', 'id="note"'),
    ['back Friday: text was “back Thursday”, is “back Friday”'],
  ],
  [
    'a colour',
    head + label(20, 80, 'Borrow', 'id="b" fill="#000000"'),
    head + label(20, 80, 'Borrow', 'id="b" fill="#ff0000"'),
    ['Borrow: color was #000000, is #ff0000'],
  ],
  ['a place', head + label(20, 80, 'Borrow'), head + label(20, 104, 'Borrow'), ['Borrow: 24 px lower']],
  [
    'something new',
    head + row(80, 'Drill', 'free'),
    head + row(80, 'Drill', 'free') + label(20, 400, 'Near'),
    ['Near: new'],
  ],
  [
    'something gone',
    head + row(80, 'Drill', 'free') + label(20, 400, 'Near'),
    head + row(80, 'Drill', 'free'),
    ['Near: gone'],
  ],
])('%s is said once, in words', (_, before, after, says) => {
  expect(between(before, after)).toEqual(says);
});

test('what moves by the same distance is one line, and what stands in it is not said again', () => {
  const rows = (by: number): string =>
    ['Drill', 'Saw', 'Ladder'].map((name, i) => row(80 + 60 * i + by, name, `free ${i}`)).join('');
  expect(between(head + rows(0), head + rows(24))).toEqual(['Drill free 0 and 2 more: 24 px lower']);
});

test('the same change of many is one line', () => {
  const rows = (fill: string): string =>
    ['Drill', 'Saw', 'Ladder'].map((name, i) => label(20, 80 + 40 * i, name, `fill="${fill}"`)).join('');
  expect(between(head + rows('#111111'), head + rows('#222222'))).toEqual([
    'Drill and 2 more: color was #111111, is #222222',
  ]);
});

test('a screen differs in nothing from itself, and every difference names what is there', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), (seed) => {
      const old = screenOf(svg(head + row(80, 'Drill', 'free') + row(140, 'Saw', 'in repair')), 's');
      expect(differencesOf(old, old, pairsByKey(old, old))).toEqual([]);
      const { screen: now } = editScreen(old, seed);
      const keys = (screen: typeof old): string => JSON.stringify(screen);
      for (const one of differencesOf(old, now, matchElements(old.root, now.root))) {
        expect(one.says).not.toBe('');
        for (const key of one.olds) expect(keys(old)).toContain(JSON.stringify(key));
        for (const key of one.nows) expect(keys(now)).toContain(JSON.stringify(key));
      }
    }),
    { numRuns: 60 },
  );
});
