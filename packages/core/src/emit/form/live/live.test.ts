import { all, applyChange, putCollection, putComponent, putInteraction } from '../../../change/change.ts';
import { makeBindings } from '../../../data/make_bindings.ts';
import { makeWork, sortingHeads } from '../../../data/make_work.ts';
import { withRecord } from '../../../data/records.ts';
import { proposeData } from '../../../data/propose.ts';
import { pressablesOf } from '../../../links/pressable.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { desk, pageOf, tableOf } from '../../../testing/desk.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import type { EmittedProject } from '../../emitted.ts';
import { emitHtml } from '../../html/emit_html.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';

/** A project with all that controls most likely do taken. */
function working(project: Project): Project {
  const found = proposeData(project.design);
  const take = (made: Project, actions: Parameters<typeof makeWork>[2]): Project => ({
    ...made,
    app: applyChange(made.app, makeWork(made, found, actions).change ?? all([])),
  });
  const made = take(project, found.actions);
  return take(
    made,
    Object.values(made.app.collections).flatMap((collection) => sortingHeads(made, collection)),
  );
}

/** A second page that shows some of the members, in another form. */
const active = pageOf('active', 'Active members', (read) => [
  read('h1', { y: '150' }, 'Members'),
  tableOf(
    read,
    ['Name', 'Status'],
    ['Ines Okafor', 'Marit Solberg', 'Wanda Pryce', 'Pia Lund'].map((name) => [name, 'active']),
  ),
]);

const project = working(desk());
const react = emitReact(project, 'Desk');
const vue = emitVue(project, 'Desk');
const textOf = ({ files }: EmittedProject, path: string): string => {
  const found = files.find((file) => file.path === path);
  return found && 'text' in found ? found.text : '';
};

test('what is written for React and for Vue passes their compilers', () => {
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([vue])).toEqual([]);
}, 60_000);

test.each([
  ['a field searches as one types', 'onChange={(event) => members.searchFor(event.target.value)}'],
  ['a head says how it is sorted', "aria-sort={members.sortOf('loans')}"],
  ['and sorts', '<SortButton list={members} field="since">'],
  ['a chip filters', "onClick={() => members.filterBy('status', 'active')}"],
  ['and says whether it is chosen', "aria-pressed={members.filterOf('status') === 'active'}"],
  ['the one for all takes the filter away', "onClick={() => members.filterBy('status')}"],
  ['a choice filters', "onChange={(event) => members.filterBy('street', event.target.value)}"],
  ['and its first option takes that away', 'value="">'],
  ['there is no page before the first', 'disabled={!members.hasPrevious}'],
  ['a page that is not there has no button', 'members.pages >= 3 && ('],
  ['the page that is seen is marked', "aria-current={members.page === 2 ? 'page' : undefined}"],
  ['rows are the records that are seen', 'members.rows.map((member) => ('],
  ['of which there may be none', 'members.found === 0 && ('],
])('React: %s', (_, code) =>
  expect(
    react.files
      .flatMap((file) => ('text' in file && file.path.startsWith('src/screens/') ? [file.text] : []))
      .join('\n')
      .replace(/ className=\{[^}]*\}/g, ''),
  ).toContain(code),
);

test.each([
  ['a field searches as one types', '@input="members.searchFor(($event.target as HTMLInputElement).value)"'],
  ['a head says how it is sorted', `:aria-sort="members.sortOf('loans')"`],
  ['a chip filters', `@click="members.filterBy('status', 'active')"`],
  ['rows are the records that are seen', 'v-for="member in members.rows"'],
])('Vue: %s', (_, code) =>
  expect(
    vue.files.flatMap((file) => ('text' in file && file.path.endsWith('.vue') ? [file.text] : [])).join('\n'),
  ).toContain(code),
);

test('the look of the chosen one goes where the choice goes', () => {
  const screen = textOf(react, 'src/screens/Members/Members.tsx');
  const looks = [...screen.matchAll(/className=\{members\.(?:filterOf|page)[^?]*\? (\S+) : (\S+)\}/g)];
  expect(looks).toHaveLength(6);
  expect(new Set(looks.map(([, on]) => on)).size).toBeLessThanOrEqual(2);
  expect(looks.every(([, on, off]) => on !== off)).toBe(true);
});

test('records are written once, with the list that each screen shows of them', () => {
  const shown = working(desk(active));
  const emitted = emitReact(shown, 'Desk');
  const records = textOf(emitted, 'src/data/members.ts');
  expect(records.match(/Ines Okafor/g)).toHaveLength(1);
  expect(records).toContain("where: (one) => one.status === 'active'");
  expect(records).toContain("sortedAs: { loans: 'number', since: 'date' }");
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

test('lists are asked and controls are pressed by the app’s own test, which is there only where there are some', () => {
  const { lists, forms, deeds } = JSON.parse(textOf(react, 'src/behaviour.json')) as Record<
    string,
    unknown[]
  >;
  const names = ['Marit Solberg', 'Teodor Banks', 'Wanda Pryce', 'Jonas Ekwall', 'Pia Lund'];
  expect(lists).toEqual([
    { at: '/members', asked: '/members', shows: ['Ines Okafor', ...names], hides: [] },
    { at: '/members', asked: '/members?search=Ines%20Okafor', shows: ['Ines Okafor'], hides: names },
    {
      at: '/members',
      asked: '/members?street=Alder%20Lane',
      shows: ['Ines Okafor', 'Wanda Pryce'],
      hides: ['Marit Solberg', 'Teodor Banks', 'Jonas Ekwall', 'Pia Lund'],
    },
    {
      at: '/members',
      asked: '/members?status=active',
      shows: ['Ines Okafor', 'Marit Solberg', 'Wanda Pryce', 'Pia Lund'],
      hides: ['Teodor Banks', 'Jonas Ekwall'],
    },
  ]);
  expect(forms).toEqual([]);
  expect(deeds).toContainEqual({
    from: '/members',
    role: 'button',
    name: 'Loans',
    does: [{ words: { sort: 'loans' } }],
  });
  expect(textOf(vue, 'src/behaviour.json')).toBe(textOf(react, 'src/behaviour.json'));
  for (const test of [textOf(react, 'src/behaviour.test.tsx'), textOf(vue, 'src/behaviour.test.ts')]) {
    expect(test).toContain("test.each(lists)('$asked shows what it is asked for'");
    expect(test).not.toContain('forms');
  }
  expect(textOf(emitReact(desk(), 'Desk'), 'src/behaviour.json')).toBe('');
});

test('records that no screen shows are seen by lists that change', () => {
  const [id, collection] = Object.entries(project.app.collections)[0];
  const wider = withRecord(collection, { name: 'Ylva Norr', loans: '7' });
  const app = applyChange(project.app, putCollection(id, wider));
  const emitted = emitReact({ ...project, app }, 'Desk');
  const records = textOf(emitted, 'src/data/members.ts');
  expect(records).toMatch(/id: 'ylva-norr', name: 'Ylva Norr'.*loans: '7'/);
  expect(records).not.toContain('where');
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

test('a screen that a row leads to shows the record that its address says', () => {
  const toolPage = pageOf('tool', 'Tool', (read) => [
    read('h1', { y: '20' }, 'Saw'),
    read('p', { y: '60' }, 'free'),
    read('p', { y: '90' }, 'Bring it back clean'),
  ]);
  const tools = pageOf('tools', 'Tools', (read) => [
    read('h1', { y: '150' }, 'Tools'),
    tableOf(
      read,
      ['Name', 'Status'],
      [
        ['Saw', 'free'],
        ['Drill', 'out'],
        ['Long ladder', 'free'],
      ].map(([name, status], i) => [read('a', { href: '#', y: `${240 + 30 * i}` }, name), status]),
    ),
  ]);
  const drawn = projectOf(tools, toolPage);
  const [first] = pressablesOf(drawn.design.screens[0]).filter(({ label }) => label === 'Saw');
  const wired = {
    ...drawn,
    app: applyChange(
      drawn.app,
      putInteraction(first.element.key, {
        on: 'press',
        target: { kind: 'screen', screen: 'tool' },
        arrival: { kind: 'none' },
      }),
    ),
  };
  const found = proposeData(drawn.design);
  const { change, made } = makeBindings(wired, found, found.bindings);
  expect(made.map(({ source }) => source).sort()).toEqual(['tool.name', 'tool.status']);
  const shown = { ...wired, app: applyChange(wired.app, change!) };
  expect(shown.app.screens.tool).toMatchObject({ route: '/tool/:toolId', params: { toolId: 'saw' } });
  const [one, other] = [emitReact(shown, 'Tools'), emitVue(shown, 'Tools')];
  expect(textOf(one, 'src/screens/Tool/Tool.tsx')).toContain('const tool = useTool();');
  expect(textOf(one, 'src/screens/Tool/Tool.tsx')).toContain('{tool?.name}');
  expect(
    one.files
      .flatMap((file) => ('text' in file && /screens\/Tools/.test(file.path) ? [file.text] : []))
      .join(''),
  ).toContain('to={`/tool/${tool.id}`}');
  expect(typeErrors([one])).toEqual([]);
  expect(vueProblems([other])).toEqual([]);
}, 60_000);

/** Loans, each with what takes it away. */
const loans = pageOf('loans', 'Loans', (read) => [
  read('h1', { y: '150' }, 'Loans'),
  tableOf(
    read,
    ['Tool', 'Due', ''],
    [
      ['Saw', '3 March 2026'],
      ['Drill', '4 March 2026'],
      ['Ladder', '9 March 2026'],
    ].map((cells, i) => [
      ...cells,
      read('button', { type: 'button', x: '300', y: `${240 + 30 * i}` }, 'Delete'),
    ]),
  ),
]);

test('a control in a row does something to the record of its row', () => {
  const shown = working(projectOf(loans));
  expect(Object.values(shown.app.interactions).filter(({ target }) => target.kind === 'record')).toHaveLength(
    1,
  );
  const [made, other] = [emitReact(shown, 'Loans'), emitVue(shown, 'Loans')];
  const row = made.files.find(({ path }) => /components\/.*Row\.tsx$/.test(path));
  expect(row && 'text' in row ? row.text : '').toContain('loans.remove(id);');
  expect(typeErrors([made])).toEqual([]);
  expect(vueProblems([other])).toEqual([]);
}, 60_000);

test('two lists of the same records on one screen show what each of them showed', () => {
  const rows = (read: Parameters<Parameters<typeof pageOf>[2]>[0], tools: readonly string[], y: number) =>
    tools.map((tool, i) => [
      tool,
      `${3 + i} March 2026`,
      read('button', { type: 'button', x: '300', y: `${y + 30 * i}` }, 'Delete'),
    ]);
  const both = working(
    projectOf(
      pageOf('loans', 'Loans', (read) => [
        read('h1', { y: '150' }, 'Loans'),
        tableOf(read, ['Tool', 'Due', ''], rows(read, ['Saw', 'Drill', 'Ladder'], 240)),
        tableOf(read, ['Tool', 'Due', ''], rows(read, ['Rasp', 'Vice', 'Plane', 'Level'], 540)),
      ]),
    ),
  );
  for (const made of [emitReact(both, 'Loans'), emitVue(both, 'Loans')]) {
    const texts = made.files.flatMap((file) => ('text' in file ? [file] : []));
    const screen = texts.find(({ path }) => /screens\/Loans\/Loans\.(tsx|vue)$/.test(path))!.text;
    const data = texts.find(({ path }) => path.endsWith('data/loans.ts'))!.text;
    expect(screen.match(/\bloans\.rows\b/g)).toHaveLength(1);
    expect(screen.match(/use\w*Loans\w*\(\)/g)).toEqual(['useLoans()']);
    expect(data).toMatch(/where: [^;]*'saw'[^;]*'ladder'/);
    expect(texts.some(({ path, text }) => /Loans\.data\.tsx?$/.test(path) && text.includes("'Vice'"))).toBe(
      true,
    );
  }
  expect(typeErrors([emitReact(both, 'Loans')])).toEqual([]);
  expect(vueProblems([emitVue(both, 'Loans')])).toEqual([]);
}, 60_000);

test('plain pages stay as they were drawn', () => {
  const page = emitHtml(project, 'Desk').files.flatMap((file) => ('text' in file ? [file.text] : []));
  expect(page.join('\n')).toContain('Teodor Banks');
  expect(page.join('\n')).not.toContain('searchFor');
});

test('an app in which nothing is done to records comes without what is for that', () => {
  const paths = emitReact(desk(), 'Desk').files.map(({ path }) => path);
  expect(paths.filter((path) => path.startsWith('src/data/'))).toEqual([]);
});

test('a field in a bar of many screens searches no list of one of them', () => {
  const bar = (read: Parameters<Parameters<typeof pageOf>[2]>[0]) =>
    read('header', { y: '0' }, read('input', { type: 'search', placeholder: 'Search here' }));
  const table = (read: Parameters<Parameters<typeof pageOf>[2]>[0]) =>
    tableOf(
      read,
      ['Name', 'Status'],
      ['Saw', 'Drill', 'Long ladder'].map((name) => [name, 'free']),
    );
  const pages = ['a', 'b', 'c'].map((key, i) =>
    pageOf(key, key, (read) => [bar(read), ...(i ? [] : [table(read)])]),
  );
  const bare = projectOf(...pages);
  const fields = pages.map(({ root }) => {
    let found = '';
    walkElements(root, ({ key, tag }) => void (tag === 'header' && (found = key)));
    return found;
  });
  const found = proposeData(bare.design);
  const searching = found.actions.filter(({ does }) => does === 'search');
  expect(makeWork(bare, found, searching).made).toHaveLength(1);
  const app = applyChange(
    bare.app,
    putComponent('bar', { name: 'Bar', kind: 'component', places: fields, props: {} } as never),
  );
  const { made, left } = makeWork({ ...bare, app }, found, searching);
  expect(made).toEqual([]);
  expect(left.map(({ why }) => why)).toContain(
    'it stands on 3 screens, of which 1 shows records: what it looks through is not said',
  );
});
