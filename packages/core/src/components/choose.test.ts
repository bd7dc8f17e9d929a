import fc from 'fast-check';
import type { Screen } from '../model/design.ts';
import type { Sight } from '../roles/sight.ts';
import { screenOf, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { type Candidate, choose, saidAs } from './choose.ts';
import { groupsOf } from './groups.ts';

const label = (x: number, y: number, text: string): string =>
  `<text x="${x}" y="${y}" font-size="14">${text}</text>`;
const chip = (x: number, y: number, text: string): string =>
  `<g data-name="Chip"><rect x="${x}" y="${y}" width="80" height="28" rx="14" fill="#eef"/>${label(x + 8, y + 18, text)}</g>`;
const card = (x: number, y: number, title: string, more = ''): string =>
  `<g data-name="Card"><rect x="${x}" y="${y}" width="300" height="120" rx="8" fill="#fff" stroke="#ddd"/>${label(x + 8, y + 24, title)}${label(x + 8, y + 50, 'Due today')}${label(x + 8, y + 70, 'Shed 2')}${more}</g>`;
const column = (y: number, inner: string): string =>
  `<g><rect x="0" y="${y}" width="390" height="0"/>${inner}</g>`;

const screens = (...drawn: readonly string[]): Screen[] => drawn.map((one, i) => screenOf(svg(one), `s${i}`));
const candidates = (of: readonly Screen[]): Candidate[] =>
  groupsOf(of).map((sights) => ({ kind: 'component', sights }));
const chosenOf = (of: readonly Screen[]): string[] =>
  choose(candidates(of)).map(
    ({ candidate: { sights } }) => `${sights.length} ${sights[0].element.name || sights[0].element.kind}`,
  );

test.each<[string, string[], string[]]>([
  ['what stands once is none', [card(20, 20, 'Saw'), label(9, 40, 'Rules')], []],
  [
    'what is around each card is none',
    [column(0, card(20, 20, 'Saw')), column(0, card(20, 20, 'Drill')), column(0, card(20, 20, 'Rasp'))],
    ['3 Card'],
  ],
  [
    'what only ever stands in a card is a part of it',
    ['Saw', 'Drill', 'Rasp'].map((name) => card(20, 20, name, chip(40, 100, 'Near'))),
    ['3 Card'],
  ],
  [
    'what stands elsewhere, too, is one of its own',
    [
      ...['Saw', 'Drill', 'Rasp'].map((name) => card(20, 20, name, chip(40, 100, 'Near'))),
      ...['Wood', 'Garden', 'Bike', 'Metal'].map((name) => chip(20, 20, name)),
    ],
    ['3 Card', '7 Chip'],
  ],
  [
    'what holds much here and little there is none',
    [
      card(20, 20, 'Saw'),
      card(
        20,
        20,
        'Drill',
        Array.from(
          { length: 40 },
          (_, i) => `<rect x="${30 + i * 5}" y="100" width="4" height="${9 + i}"/>`,
        ).join(''),
      ),
    ],
    [],
  ],
])('%s', (_, drawn, expected) => {
  // Beside it stands what differs from screen to screen, so that nothing is most of its screen.
  const beside = (i: number): string =>
    Array.from(
      { length: 12 },
      (__, n) =>
        `<rect x="${n * 9}" y="${600 + n * 11 * (i + 1)}" width="${5 + n + i}" height="${6 + n}" fill="#a${n % 10}b"/>`,
    ).join('');
  expect(chosenOf(screens(...drawn.map((one, i) => one + beside(i))))).toEqual(expected);
});

test.each([
  ['a sentence with something marked in it', 'Lend it with <b>NAME</b> or ask for it at the desk', 0],
  ['a mark before a text', '<b>NAME</b> Lend it', 1],
  ['a sentence that is the same', 'Lend it with <b>a card</b> or ask for it at the desk', 1],
])('%s is %#', (_, html, count) => {
  const pages = ['Saw', 'Drill', 'Rasp', 'Plane'].map((name, i) =>
    pageOfHtml(
      `<h1>${name}</h1><p class="hint" style="background-color:#eee;border-top-left-radius:4px;padding-top:4px">${html.replace('NAME', name)}</p>${'<hr>'.repeat(i)}`,
      name,
    ),
  );
  expect(choose(candidates(pages)).length).toBe(count);
});

test.each([
  ['a.html', '../a.html', true],
  ['./a.html#top', '../../x/a.html#top', true],
  ['a.html', 'b.html', false],
  ['a.html', 'a.html#top', false],
  ['https://one.example/a.html', 'https://two.example/a.html', false],
])('a bar whose link leads to %s says the same as one to %s: %s', (one, other, is) => {
  const bar = (href: string) => pageOfHtml(`<p>Tools <a href="${href}">All</a></p>`).root.children[0];
  expect(saidAs(bar(one)) === saidAs(bar(other))).toBe(is);
});

test('what differs in more than a component can be given is none', () => {
  const wide = (n: number): string =>
    `<g data-name="Sheet"><rect x="0" y="0" width="300" height="400" rx="4" fill="#fff" stroke="#ddd"/>${Array.from({ length: 12 }, (_, i) => label(10, 20 + i * 20, `Line ${i} of ${n}`)).join('')}</g>`;
  const rest = Array.from(
    { length: 14 },
    (_, n) => `<rect x="${n * 20}" y="600" width="9" height="9"/>`,
  ).join('');
  expect(chosenOf(screens(`${wide(1)}${rest}`, `${wide(2)}${rest}`, `${wide(3)}${rest}`))).not.toContain(
    '3 Sheet',
  );
});

test('places overlap only by standing within each other, and no element is the place of two', () => {
  const part = fc.oneof(
    fc.constantFrom('Saw', 'Drill').map((name) => (y: number) => card(20, y, name)),
    fc.constantFrom('Saw', 'Drill').map((name) => (y: number) => card(20, y, name, chip(40, y + 90, 'Near'))),
    fc.constantFrom('Wood', 'Bike').map((name) => (y: number) => chip(20, y, name)),
    fc.constantFrom('Wood', 'Bike').map((name) => (y: number) => column(y, chip(20, y, name))),
  );
  const page = fc.array(part, { minLength: 1, maxLength: 5 });
  fc.assert(
    fc.property(fc.array(page, { minLength: 1, maxLength: 4 }), (pages) => {
      const all = screens(...pages.map((parts) => parts.map((one, i) => one(20 + i * 140)).join('')));
      const found = choose(candidates(all));
      const placed = new Map<Sight, number>();
      for (const { candidate, saves } of found) {
        expect(saves).toBeGreaterThan(0);
        candidate.sights.forEach((sight) => placed.set(sight, (placed.get(sight) ?? 0) + 1));
      }
      // The first place of something goes on being written, and so may be the place of something else that it holds alone.
      for (const { candidate } of found)
        expect(candidate.sights.filter((sight) => placed.get(sight)! > 1).length).toBeLessThan(2);
    }),
    { numRuns: 60 },
  );
});

test('heads of tables that say different things are no component; those that say the same are', () => {
  const table = (key: string, heads: readonly string[]): Screen =>
    pageOfHtml(
      `<table><thead><tr>${heads.map((head) => `<th class="head"><span>${head}</span></th>`).join('')}</tr></thead><tbody><tr><td>${key}</td></tr></tbody></table>`,
      key,
    );
  const tags = (...pages: Screen[]): string[] =>
    choose(candidates(pages)).map(({ candidate: { sights } }) => sights[0].element.tag!);
  const heads = ['Tool', 'Shed', 'Status', 'Due'];
  expect(tags(table('a', heads), table('b', ['Name', 'Since', 'Loans', 'Fee']))).not.toContain('tr');
  expect(tags(table('a', heads), table('b', heads), table('c', heads))).toEqual(
    expect.arrayContaining([expect.stringMatching(/^(tr|thead|table)$/)]),
  );
});
