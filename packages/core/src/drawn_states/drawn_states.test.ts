import { all, applyChange, putInteraction } from '../change/change.ts';
import { makeBindings } from '../data/make_bindings.ts';
import { makeWork, sortingHeads } from '../data/make_work.ts';
import { proposeData } from '../data/propose.ts';
import { takenCollection } from '../data/records.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { emitVue } from '../emit/vue/emit_vue.ts';
import { pressTo } from '../model/interaction.ts';
import type { Screen } from '../model/design.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { desk, pageOf } from '../testing/desk.ts';
import { textIn } from '../testing/library.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { vueProblems } from '../testing/vue_problems.ts';
import { stateOf } from '../data/found_states.ts';
import { placeOfState } from './place.ts';
import { takeState } from './take.ts';

const head =
  '<g id="Header"><text x="24" y="50" font-size="24" font-weight="700">Tools to borrow</text></g><g id="Search"><rect x="24" y="80" width="342" height="44" rx="8" fill="#fff" stroke="#888"/><text x="40" y="108" font-size="15">Search the tools</text></g>';
const bar =
  '<g id="Bar" transform="translate(0 780)"><rect width="390" height="64" fill="#fff"/><text x="40" y="38" font-size="13">Tools</text><text x="200" y="38" font-size="13">My loans</text></g>';
const row = (y: number, name: string, shed: string): string =>
  `<g data-name="Tool row" transform="translate(0 ${y})"><rect width="390" height="80" fill="#fff"/><text x="24" y="36" font-size="17" font-weight="700">${name}</text><text x="24" y="60" font-size="14" fill="#666">${shed}</text></g>`;
const rows = `<g id="Tool_list" transform="translate(0 150)">${[
  ['Hedge trimmer', 'Shed 2'],
  ['Pillar drill', 'Workshop'],
  ['Apple press', 'Shed 1'],
  ['Tile cutter', 'Shed 3'],
]
  .map(([name, shed], i) => row(i * 81, name, shed))
  .join('')}</g>`;
const tools = screenOf(svg(head + rows + bar), 'tools');
const drawn = (says: string, more = '') =>
  screenOf(
    svg(
      `${head}<g id="Message" transform="translate(0 260)"><text x="195" y="30" text-anchor="middle" font-size="20" font-weight="700">${says}</text>${more}</g>${bar}`,
    ),
    'other',
  );
const again =
  '<g data-name="Button"><rect x="115" y="60" width="160" height="44" rx="8" fill="#234"/><text x="195" y="88" text-anchor="middle" font-size="15" fill="#fff">Try again</text></g>';

test.each([
  ['Tools, no results', 'No tools found', 'empty'],
  ['Catalogue empty', 'Ask at the desk', 'empty'],
  ['Tools, none found', 'Ask at the desk', 'empty'],
  ['Screen 12', 'No tool like that', 'empty'],
  ['Screen 12', 'Tools cost no money', undefined],
  ['Screen 12', 'You have not borrowed anything yet', 'empty'],
  ['Screen 12', 'Something went wrong', 'failed'],
  ['Tools, offline', 'The sheds are far away', 'failed'],
  ['Tools', 'Loading the tools', 'waiting'],
  ['Help', 'Ask at the desk', undefined],
  ['Error 404', 'Something went wrong', undefined],
])('what is called “%s” and says “%s” is: %s', (name, says, state) => {
  expect(stateOf(tools, drawn(says), name)?.state).toBe(state);
});

test('a screen with rows of its own is no state, nor is one without a list', () => {
  expect(stateOf(tools, tools, 'Tools empty')).toBeNull();
  expect(stateOf(drawn('No tools found'), tools, 'Tools empty')).toBeNull();
});

test('the drawings differ in the smallest part around the list', () => {
  const other = drawn('No tools found');
  const list = tools.root.children.find(({ name }) => name === 'Tool list' || name === 'Tool_list')!;
  const place = placeOfState(tools, other, list.key)!;
  expect(place.within).toBe(tools.root.key);
  expect(place.list).toBe(list.key);
  expect(place.beside).toEqual([]);
  expect(place.shows).toHaveLength(1);
});

/** The desk with all that works, and a drawing of it without members. */
function withState(): Project {
  const none = pageOf('none', 'No members', (read) => [
    read('h1', { y: '150' }, 'Members'),
    read('input', { type: 'search', placeholder: 'Find a member', 'aria-label': 'Find a member' }),
    read('p', { class: 'blank' }, 'No members found here yet'),
  ]);
  const project = desk(none);
  const found = proposeData(project.design);
  const actions = found.actions.filter(({ screen }) => screen === 'members');
  const app = applyChange(project.app, makeWork(project, found, actions).change ?? all([]));
  return { ...project, app: applyChange(app, takeState(app, 'none', 'members', 'empty')) };
}

test('what was drawn is shown while no record fits, in place of the list and of what is said by itself', () => {
  const project = withState();
  const react = emitReact(project, 'Desk');
  const code = react.files
    .flatMap((file) => ('text' in file && /screens\/Members\//.test(file.path) ? [file.text] : []))
    .join('\n');
  expect(code).toContain('No members found here yet');
  expect(code).not.toContain('Nothing fits.');
  expect(code).toMatch(/\{members\.found === 0 && <p[^>]*>No members found here yet/);
  expect(code).toMatch(/\{members\.found !== 0 && \(\s*<table/);
  // What looks for members stays, so that one finds some again.
  expect(code).toMatch(/^ {6}<select/m);
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Desk')])).toEqual([]);
}, 60_000);

test('what led to the drawing leads to the screen, and it is no screen of its own', () => {
  const project = projectOf(tools, drawn('Something went wrong', again));
  const [row] = tools.root.children[2].children;
  const wired = applyChange(
    project.app,
    putInteraction(row.key, pressTo({ kind: 'screen', screen: 'other' })),
  );
  const app = applyChange(wired, takeState(wired, 'other', 'tools', 'failed'));
  expect(app.interactions[row.key].target).toEqual({ kind: 'screen', screen: 'tools' });
  expect(app.screens.other).toMatchObject({ use: 'state', of: 'tools', state: 'failed' });
});

test('a table that the drawing has, too, with its head alone, stays', () => {
  const cell = (tag: string, text: string, column: number, y: number): string =>
    `<${tag} data-box="${20 + column * 200} ${y} 180 30">${text}</${tag}>`;
  const row = (texts: readonly string[], tag: string, y: number): string =>
    `<tr data-box="20 ${y} 600 34">${texts.map((text, i) => cell(tag, text, i, y)).join('')}</tr>`;
  const page = (key: string, rows: string, more = '', title = 'Trips'): Screen =>
    pageOfHtml(
      `<nav data-box="0 0 900 20"><a href="a.html" data-box="0 0 80 20">Harbour</a><a href="b.html" data-box="100 0 80 20">Boats</a></nav><main data-box="0 20 900 600"><h1 data-box="20 20 300 30">${title}</h1><p data-box="20 50 300 20">All that left the harbour this month</p><table data-box="20 80 600 200"><thead data-box="20 80 600 34">${row(['Boat', 'Skipper', 'State'], 'th', 80)}</thead>${rows}</table>${more}</main>`,
      key,
    );
  const trips = [
    ['Otter', 'Ann Lowe', 'Out'],
    ['Heron', 'Ben Marsh', 'Back'],
    ['Teal', 'Cara Holt', 'Late'],
    ['Swift', 'Edda Rook', 'Out'],
  ];
  const body = `<tbody data-box="20 120 600 160">${trips.map((texts, i) => row(texts, 'td', 120 + i * 40)).join('')}</tbody>`;
  const own = page('trips', body);
  const none = page('none', '', '<p data-box="20 300 600 40">No trip like that</p>');
  const [h1, , table] = own.root.children[1].children;
  expect(placeOfState(own, none, table.key)).toMatchObject({
    list: table.key,
    keepsList: true,
    beside: [],
    shows: [none.root.children[1].children[3].key],
  });
  expect(placeOfState(own, page('other', '', '<p>No</p>'), h1.key)?.keepsList ?? false).toBe(false);
  expect(stateOf(own, none, 'Other')?.state).toBe('empty');
  // Who is called otherwise is another screen, and what is hidden says nothing.
  const said = '<p data-box="20 300 600 40">No trip like that</p>';
  expect(stateOf(own, page('other', '', said, 'Otter'), 'Other')).toBeNull();
  expect(stateOf(own, page('other', '', said.replace('<p', '<p hidden')), 'Other')).toBeNull();
  const drawnBoth = projectOf(own, none);
  const found = proposeData(drawnBoth.design);
  const taken = makeBindings(drawnBoth, found, found.bindings).app;
  const heads = makeWork({ ...drawnBoth, app: taken }, found, [
    ...sortingHeads(drawnBoth, takenCollection(found.collections[0])),
  ]);
  const app = applyChange(heads.app, takeState(heads.app, 'none', 'trips', 'empty'));
  const react = emitReact({ ...drawnBoth, app }, 'Boats');
  const code = textIn(react, 'src/screens/Trips/Trips.tsx');
  expect(code.match(/<thead/g)).toHaveLength(1);
  expect(code).toMatch(/\{trips\.found === 0 && <p[^>]*>No trip like that/);
  expect(typeErrors([react])).toEqual([]);
}, 60_000);
