import {
  all,
  applyChange,
  type Change,
  putBinding,
  putCollection,
  putInteraction,
  putLayer,
  putVariable,
} from '../../../change/change.ts';
import { findingsOf } from '../../../findings/rules.ts';
import type { Target } from '../../../model/app.ts';
import { pressTo } from '../../../model/interaction.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { library, textIn } from '../../../testing/library.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { printHtml } from '../../html/print_html.ts';
import { emitHtml } from '../../html/emit_html.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';
import { EmissionPlan, emitScreenOf } from '../plan.ts';

const page = pageOfHtml(
  `<main><h1>Tools</h1><select aria-label="Kind"><option>Any kind</option><option>Saws</option></select>
   <a href="x.html">Handbook</a><p style="color: rgb(1, 2, 3)">Mine</p><p style="color: rgb(200, 0, 0)">Yours</p>
   <div role="img" aria-label="Loans a month">drawn</div>
   <ul><li><span>Saw</span><b>free</b></li><li><span>Drill</span><b>out</b></li><li><span>Press</span><b>free</b></li></ul></main>`,
);

test.each([
  ['React', emitReact, /checked=\{tellMe\}/, /value=\{packets\}/, /default(Value|Checked)/],
  [
    'Vue',
    emitVue,
    /:checked="variables\.tellMe"/,
    /:value="variables\.packets"/,
    /[^:](value="2"|checked[ />])/,
  ],
] as const)(
  'in %s fields say what is remembered at each moment, once',
  (_, emit, checked, value, not) => {
    const fields = pageOfHtml(
      '<main><input type="checkbox" checked aria-label="Tell me"><input value="2" aria-label="Packets"></main>',
    );
    const [box, number] = fields.root.children[0].children.map(({ key }) => key);
    const remembers = (key: string, id: string, to: string): Change[] => [
      putBinding(key, { value: id }),
      putInteraction(key, { ...pressTo({ kind: 'set', condition: id, value: to }), on: 'change' }),
    ];
    const bare = projectOf(fields);
    const change = all([
      putVariable('tellMe', { name: 'Tell me', initial: true }),
      putVariable('packets', { name: 'Packets', type: 'number', initial: 2 }),
      ...remembers(box, 'tellMe', '!tellMe'),
      ...remembers(number, 'packets', 'entered'),
    ]);
    const project = { ...bare, app: applyChange(bare.app, change) };
    const emission = emit(project, 'Seeds');
    const code = emission.files
      .flatMap((file) => ('text' in file ? [String(file.text)] : []))
      .find((text) => checked.test(text));
    expect(code).toMatch(value);
    expect(code).not.toMatch(not);
    expect(emit === emitReact ? typeErrors([emission]) : vueProblems([emission])).toEqual([]);
    // Plain pages remember nothing, and say what was drawn.
    const html = emitHtml(project, 'Seeds').files.flatMap((file) =>
      file.path.endsWith('.html') && 'text' in file ? [String(file.text)] : [],
    );
    expect(html.join('')).toMatch(/<input[^>]*value="2"/);
  },
  60_000,
);

/** The keys of the elements of a tag, in order. */
function keysOf(tag: string): string[] {
  const keys: string[] = [];
  walkElements(page.root, (element) => {
    if (element.tag === tag) keys.push(element.key);
  });
  return keys;
}
const [[select], [link], [mine, yours], [list], rows] = ['select', 'a', 'p', 'ul', 'li'].map(keysOf);
const [chart] = keysOf('div').filter((key) => key !== page.root.key);

/** Tools that a list of the page shows, with the variables that are spoken of here. */
function shed(...more: readonly Change[]): Project {
  const project = projectOf(page);
  const [spans, states] = ['span', 'b'].map(keysOf);
  const change = all([
    putCollection('tools', {
      name: 'tools',
      fields: [
        { name: 'name', type: 'text', required: true },
        { name: 'status', type: 'one-of', byDefault: 'free' },
        { name: 'manual', type: 'link' },
      ],
      rows: rows.map((element, i) => ({
        element,
        within: list,
        shows: { name: spans[i], status: states[i] },
      })),
      more: [{ id: '1', says: { name: 'Rake', status: 'lent', manual: 'https://example.org/rake' } }],
    }),
    putVariable('status', { name: 'Status', type: 'text', initial: 'free' }),
    putVariable('picked', { name: 'Picked', type: 'list', initial: ['Saw'] }),
    ...more,
  ]);
  return { ...project, app: applyChange(project.app, change) };
}

const STATES = 'map(tools, (tool) => tool.status)';
const bound = shed(
  putBinding(select, { options: STATES }),
  putBinding(link, { to: 'first(tools).manual' }),
  putBinding(mine, { marked: "holds(picked, 'Saw')", like: yours }),
  putLayer(chart, { role: 'chart', chart: 'line', label: 'Tools by status' }),
  putBinding(chart, {
    labels: `unique(${STATES})`,
    values: `map(unique(${STATES}), (state) => count(filter(tools, (tool) => tool.status === state)))`,
  }),
  putBinding(list, { rows: 'sort(filter(tools, (tool) => tool.status === status), (tool) => tool.name)' }),
);
const react = emitReact(bound, 'Shed');
const vue = emitVue(bound, 'Shed');
const screenOf = ({ files }: typeof react, ending: string): string =>
  files
    .flatMap((file) =>
      'text' in file && file.path.startsWith('src/screens/') && file.path.endsWith(ending) ? [file.text] : [],
    )
    .join('\n');

test('what is written of bound elements passes the compilers of React and Vue', () => {
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([vue])).toEqual([]);
}, 60_000);

test.each([
  ['a choice offers what its list says, after what says that nothing is chosen', '<option>Any kind</option>'],
  ['each once', '{calc.unique(calc.map(allTools, (tool) => tool.status)).map((option) => ('],
  ['known by what it says', '<option key={option}>{option}</option>'],
  ['a link leads where an address says', 'href={calc.address(calc.first(allTools)?.manual)}'],
  ['an element looks like another while something holds', "calc.holds(picked, 'Saw') ? styles."],
  ['a chart draws what is worked out', 'kind="line"'],
  ['and is called as somebody said', 'label="Tools by status"'],
])('React: %s', (_, code) => expect(screenOf(react, '.tsx')).toContain(code));

test('Vue: the same', () => {
  const code = screenOf(vue, '.vue');
  expect(code).toContain('<option v-for="option in calc.unique(');
  expect(code).toContain(':href="calc.address(');
  expect(code).toMatch(/<Chart .*:values="calc\.map\(/);
});

test('which records a list shows follows variables, in React and in Vue', () => {
  const [inReact, inVue] = [react, vue].map((one) => textIn(one, 'src/data/tools.ts'));
  expect(inReact).toContain('const { status } = useVariables();');
  expect(inReact).toContain('of: (all) => calc.sort(calc.filter(all, (tool) => tool.status === status)');
  expect(inVue).toContain('(tool) => tool.status === variables.status)');
});

test('a new record says what was said for it, and one that must say something always does', () => {
  const code = textIn(react, 'src/data/tools.ts');
  expect(code).toContain("status: 'free',");
  expect(code).toMatch(/\{\s*name: '',\s*status: 'free'/);
  expect(code).toMatch(/^ {2}name: string;$/m);
});

test('charts take their library along, and an app without one does not', () => {
  const dependencies = (project: Project): string[] =>
    Object.keys(
      (JSON.parse(textIn(emitReact(project, 'Shed'), 'package.json')) as { dependencies: object })
        .dependencies,
    );
  expect(dependencies(bound)).toContain('chart.js');
  expect(dependencies(shed())).not.toContain('chart.js');
});

test('pictures show what can be chosen at first, and charts and lists as they were drawn', () => {
  const picture = printHtml(emitScreenOf(new EmissionPlan(bound), page.key), () => '');
  expect(picture.match(/<option[^>]*>[^<]*/g)?.map((one) => one.replace(/<[^>]*>/, ''))).toEqual([
    'Any kind',
    'free',
    'out',
    'lent',
  ]);
  expect(picture).not.toContain('<Chart');
  const pages = emitHtml(bound, 'Shed').files.flatMap((file) => ('text' in file ? [file.text] : []));
  expect(pages.join('\n')).toContain('Saws');
});

test.each<[string, Parameters<typeof putBinding>[1], RegExp]>([
  [select, { options: 'count(tools)' }, /a list of texts/],
  [mine, { text: 'tools' }, /count\(…\) says how many/],
  [mine, { text: 'picked' }, /join\(…/],
  [mine, { rows: 'tools' }, /no list of records is drawn here/],
  [list, { rows: 'picked' }, /it has to be records/],
  [chart, { values: 'tools' }, /a list of what to draw/],
])(
  'of %s, %j cannot be worked out, and is told',
  (key, binding, message) => {
    const project = shed(putBinding(key, binding));
    const found = findingsOf(project).filter(({ code }) => code === 'expression');
    expect(found.map((one) => one.message).join()).toMatch(message);
    expect(typeErrors([emitReact(project, 'Shed')])).toEqual([]);
  },
  60_000,
);

test('a list follows variables that are worked out from its records, and no file has to be there before itself', () => {
  const project = shed(
    putBinding(list, { rows: 'filter(tools, (tool) => tool.status === status || many)' }),
    putVariable('many', { name: 'Many', initial: false, says: 'count(tools) > 2' }),
  );
  expect(findingsOf(project).filter(({ code }) => code === 'expression')).toEqual([]);
  const [inReact, inVue] = [emitReact(project, 'Shed'), emitVue(project, 'Shed')];
  expect(typeErrors([inReact])).toEqual([]);
  expect(vueProblems([inVue])).toEqual([]);
  for (const emitted of [inReact, inVue]) {
    const importsOf = (path: string): string[] =>
      [...textIn(emitted, path).matchAll(/ from '(.*)';/g)].map(([, from]) => from);
    expect(importsOf('src/data/tools.ts')).toEqual(
      expect.arrayContaining(['../state/variables', './tools.records']),
    );
    expect(importsOf('src/state/variables.ts')).toContain('../data/tools.records');
    expect(importsOf('src/data/tools.records.ts')).toEqual(['../records/records']);
  }
}, 60_000);

/** Steps of the library: pressing on a row, and on the screen of one tool. */
const set = (condition: string, value: string): Target => ({ kind: 'set', condition, value });
const remembering = library(
  putVariable('held', { name: 'Held', type: 'record', of: 'tools', initial: '' }),
  putVariable('late', { name: 'Late', type: 'record', of: 'loans', initial: '' }),
  putVariable('notes', { name: 'Notes', type: 'list', initial: [], kept: 'address' }),
  putVariable('free', {
    name: 'Free',
    type: 'number',
    initial: 0,
    says: "count(filter(tools, (tool) => tool.status === 'free'))",
  }),
  putVariable('some', { name: 'Some', initial: false, says: 'free > 0' }),
  putInteraction('tool:0', {
    ...pressTo({ kind: 'say', text: '`${tool.name}, ${free} free, ${held.name}`' }),
    before: [set('held', 'tool'), set('notes', 'toggled(notes, tool.name)')] as never,
    when: { condition: 'some', is: true },
  }),
  putInteraction('loans:0', pressTo(set('late', 'loan'))),
  putInteraction('loans:2', pressTo(set('late', "''"))),
  putBinding('loans:2', { text: "late ? late.name : 'none'" }),
);

test('variables hold records and lists, and are worked out from records', () => {
  const [inReact, inVue] = [emitReact(remembering, 'Library'), emitVue(remembering, 'Library')];
  expect(typeErrors([inReact])).toEqual([]);
  expect(vueProblems([inVue])).toEqual([]);
  const store = textIn(inReact, 'src/state/variables.ts');
  expect(store).toContain('notes: readonly string[];');
  expect(store).toContain('free: () => calc.count(calc.filter(tools.all(), ');
  expect(store).toContain('follows: [tools],');
  expect(textIn(inVue, 'src/state/variables.ts')).toContain('follows: [tools],');
  const tool = textIn(inReact, 'src/screens/Tool/Tool.tsx');
  expect(tool).toContain('if (!tool) return;');
  expect(tool).toContain("setVariable('held', tool.id);");
  expect(tool).toContain("setVariable('notes', (now) => calc.toggled(now.notes, tool.name));");
}, 60_000);

test('a page leaves out what is said of records, also of one that is remembered', () => {
  const project = library(
    putVariable('held', { name: 'Held', type: 'record', of: 'tools', initial: '' }),
    putInteraction('tool:0', pressTo({ kind: 'say', text: '`${count(tools)} tools`' })),
    putBinding('loans:2', { text: "held ? 'one is held' : 'none'" }),
  );
  const text = emitHtml(project, 'Library')
    .files.flatMap((file) => ('text' in file ? [file.text] : []))
    .join('\n');
  expect(text).not.toMatch(/one is held|\.all\(\)|byId\(tools/);
});

test('a page has no records: what is worked out from them stays what it is at first', () => {
  const { files } = emitHtml(remembering, 'Library');
  const [variables] = files.flatMap((file) =>
    'text' in file && file.path === 'app/variables.js' ? [file.text] : [],
  );
  expect(variables).toMatch(/free: 1,/);
  expect(variables).toMatch(/notes: \[\]/);
});
