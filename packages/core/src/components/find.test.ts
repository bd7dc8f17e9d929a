import { screenOf, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import type { Screen } from '../model/design.ts';
import { findComponents, findLists } from './find.ts';

const card = (x: number, y: number, name: string, more = ''): string =>
  `<g data-name="Loan card"><rect x="${x}" y="${y}" width="342" height="90" rx="8" fill="#fff" stroke="#ddd"/><image x="${x + 10}" y="${y + 10}" width="60" height="60" xlink:href="known.png"/><text x="${x + 90}" y="${y + 36}" font-size="16" font-weight="700">${name}</text><text x="${x + 90}" y="${y + 60}" font-size="13">Due today</text>${more}</g>`;
const header = (title: string): string =>
  `<g data-name="Header"><rect width="390" height="60" fill="#eee"/><path d="M20 30 C22 20 30 20 34 30" stroke="#222" fill="none"/><text x="60" y="38" font-size="18" font-weight="700">${title}</text></g>`;
const text = (y: number): string =>
  `<text x="24" y="${y}" font-size="14">Some words that stand on their own here.</text>`;

const loans = screenOf(
  svg(
    `${header('Loans')}<g id="Loans">${card(24, 100, 'Saw')}${card(24, 200, 'Drill')}${card(24, 300, 'Ladder')}</g>${text(500)}`,
  ),
  'loans',
);
const tools = screenOf(svg(`${header('Tools')}${text(120)}${text(180)}`), 'tools');
const rules = screenOf(svg(`${header('Rules')}${text(120)}`), 'rules');

test('rows within one parent are a list, called after what they are called', () => {
  const [list] = findLists(loans);
  expect(list).toMatchObject({ kind: 'list', name: 'LoanCard', within: 'loans:1' });
  expect(list.places).toEqual(['loans:1/0', 'loans:1/1', 'loans:1/2']);
});

test('what stands on several screens is a component', () => {
  const found = findComponents([loans, tools, rules]);
  expect(found.find((proposal) => proposal.name === 'Header')).toMatchObject({
    kind: 'component',
    places: ['loans:0', 'tools:0', 'rules:0'],
    reason: '3 places on 3 screens are built the same',
  });
});

test('what saves most comes first, and names differ', () => {
  const found = findComponents([loans, tools, rules]);
  expect(found.map((proposal) => proposal.saves)).toEqual(
    found.map((proposal) => proposal.saves).sort((a, b) => b - a),
  );
  expect(new Set(found.map((proposal) => proposal.name)).size).toBe(found.length);
});

test('what only stands within a larger part is left to that', () => {
  const found = findComponents([loans, tools, rules]);
  const inside = found.filter((proposal) => proposal.places.some((key) => key.startsWith('loans:0/')));
  expect(inside).toEqual([]);
});

test('a proposal keeps its id while its places stay, whatever the order of the screens', () => {
  const ids = (screens: readonly Screen[]): string[] =>
    findComponents(screens)
      .map((proposal) => proposal.id)
      .sort();
  expect(ids([rules, loans, tools])).toEqual(ids([loans, tools, rules]));
});

test('a part that has something more is still one of its kind', () => {
  const badge = '<g data-name="Badge"><rect x="300" y="110" width="50" height="20" fill="#fe9"/></g>';
  const screen = screenOf(
    svg(
      `<g id="All">${card(24, 100, 'Saw', badge)}${card(24, 200, 'Drill')}${card(24, 300, 'Ladder')}</g>${text(500)}`,
    ),
    'all',
  );
  expect(findLists(screen)[0].places).toHaveLength(3);
});

test('a screen on which nothing repeats has no proposals', () => {
  expect(findComponents([rules])).toEqual([]);
});

test('the time grows with the screens, not with their square', () => {
  const many = (n: number): Screen[] =>
    Array.from({ length: n }, (_, i) =>
      screenOf(svg(`${header(`Page ${i}`)}${card(24, 100, `Tool ${i}`)}${text(400)}`), `s${i}`),
    );
  // The number of proposals stays the same, however many screens share them.
  expect(findComponents(many(40)).length).toBe(findComponents(many(10)).length);
});

test.each([
  [4, 1],
  [2, 0],
])('%i pictures in frames of one kind are %i gallery', (count, lists) => {
  const frame = (i: number): string =>
    `<g data-name="Photo"><rect x="${24 + i * 90}" y="100" width="80" height="80" fill="#fff" stroke="#ddd"/><image x="${28 + i * 90}" y="104" width="72" height="72" xlink:href="known.png"/></g>`;
  const screen = screenOf(
    svg(`<g id="Photos">${Array.from({ length: count }, (_, i) => frame(i)).join('')}</g>${text(300)}`),
    'photos',
  );
  expect(findLists(screen)).toHaveLength(lists);
});

test.each([
  ['large drawings', 100, 1],
  ['icons', 24, 0],
])('%s in frames are a gallery as pictures are, or none', (_, size, lists) => {
  const frame = (i: number): string =>
    `<g data-name="Partner"><rect x="24" y="${20 + i * 140}" width="300" height="120" fill="#fff" stroke="#ddd"/><path d="M28 ${24 + i * 140} c${size} 0 ${size} ${size} 0 ${size} c-9 ${i} ${-9 - i} -20 0 ${-size}z" fill="#${i}3${i}"/></g>`;
  const screen = screenOf(
    svg(`<g id="Partners">${[0, 1, 2, 3, 4].map(frame).join('')}</g>${text(800)}`),
    'partners',
  );
  expect(findLists(screen)).toHaveLength(lists);
});

const stretch = (inside: string, column = 'col', section = 'pale'): string =>
  `<section class="${section}"><div class="wide"><div class="line"><div class="${column}">${inside}</div></div></div></section>`;
const sections = (columns: readonly string[], section = (i: number): string => `pale${i % 2}`): Screen =>
  pageOfHtml(
    columns
      .map((column, i) =>
        stretch(
          [
            `<h2>Shed ${i}</h2>`,
            [
              '<p>Rule</p>',
              '<ul><li>Saw</li><li>Axe</li></ul>',
              '<table><tr><td>9</td><td>17</td></tr></table>',
            ][i % 3].repeat(1 + 4 * i),
          ].join(''),
          column,
          section(i),
        ),
      )
      .join(''),
  );

test.each([
  ['of one look are a section', sections(Array(8).fill('col'), () => 'pale'), ['Section'], 4],
  ['stand in a container, where only that is the same', sections(Array(8).fill('col')), ['Container'], 3],
  ['are nothing, where there are few', sections(['col', 'col', 'col', 'col']), [], 0],
  ['are nothing, where their columns differ', sections(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h']), [], 0],
])('boxes around stretches of a page %s', (_, page, names, around) => {
  const found = findComponents([page]).filter(({ reason }) => reason.includes('same around'));
  expect(found.map(({ name }) => name)).toEqual(names);
  for (const { places, saves } of found) {
    expect(places.length).toBeGreaterThan(4);
    expect(saves).toBe((places.length - 1) * around);
  }
});

test('nothing within quoted code is a component or a list, however it is coloured', () => {
  const line = (name: string): string =>
    `<span style="color:gray">&lt;<b style="color:blue">${name}</b> <i style="color:red">"${name}"</i>&gt;</span>`;
  const lines = ['one', 'two', 'three', 'four', 'five', 'six'].map(line).join('');
  const found = (tag: string) => findComponents([pageOfHtml(`<h1>Code</h1><${tag}>${lines}</${tag}>`)]);
  expect(found('div')).not.toEqual([]);
  expect(found('pre')).toEqual([]);
});

test.each([
  [6, 1],
  [3, 0],
])('%i rows with a sign and a word each make %i components', (count, components) => {
  const rows = Array.from(
    { length: count },
    (_, i) => `<div class="legend-row"><i class="dot"></i>Shed ${i}</div>`,
  );
  const page = pageOfHtml(`<main><h1>Sheds</h1><p>Where tools are</p><div>${rows.join('')}</div></main>`);
  expect(findComponents([page]).map(({ places }) => places.length)).toEqual(components ? [count] : []);
});

test('what is the very same on two pages is a component, however much of it is one already', () => {
  const entry = (name: string): string =>
    `<li class="bar-entry"><div><div><a href="${name}.html"><i>*</i><b>+</b><u>-</u><s>/</s><span>${name}</span></a></div></div></li>`;
  const names = Array.from({ length: 40 }, (_, i) => `Shelf ${i}`);
  const more = Array.from({ length: 12 }, (_, i) => `<p>Rule ${i}</p>`).join('');
  const bar = `<div class="bar"><div><div><ul>${names.map(entry).join('')}</ul>${more}</div></div></div>`;
  const page = (key: string, rest: string): Screen =>
    pageOfHtml(`<main>${bar}<h1>${key}</h1>${rest}</main>`, key);
  const long = Array.from({ length: 600 }, (_, i) => `<p>Line ${i}</p>`).join('');
  const other = `<ul>${['Rules', 'Help', 'Map', 'News', 'Jobs', 'Press'].map(entry).join('')}</ul>`;
  const pages = [
    page('one', long),
    page('two', long.replaceAll('Line', 'Row')),
    pageOfHtml(other + long, 'three'),
  ];
  const found = findComponents(pages).map(({ name, places }) => [name, places.length]);
  expect(found).toContainEqual(['BarEntry', 86]);
  expect(found).toContainEqual(['Bar', 2]);
});
