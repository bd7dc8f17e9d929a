import fc from 'fast-check';
import {
  all,
  applyChange,
  type Change,
  putBinding,
  putCollection,
  putForm,
  putInteraction,
  putVariable,
} from '../change/change.ts';
import { findingsOf } from '../findings/rules.ts';
import type { App, Target } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import { type Project, walkElements } from '../model/project.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { renameCollection, renameField, renameVariable, respelled } from './rename.ts';

const page = pageOfHtml(
  `<main><p>Two</p><p>Chosen</p><b>Saw</b><form><input aria-label="Name"><button>Add</button></form>
   <ul><li><span>Saw</span><i>free</i><button>Lend</button></li><li><span>Drill</span><i>out</i><button>Lend</button></li></ul></main>`,
);
function keysOf(tag: string): string[] {
  const keys: string[] = [];
  walkElements(page.root, (element) => void (element.tag === tag && keys.push(element.key)));
  return keys;
}
const [[counts, says], [bold], [form], [field], [list], rows, names, states, [adds, lends]] = [
  'p',
  'b',
  'form',
  'input',
  'ul',
  'li',
  'span',
  'i',
  'button',
].map(keysOf);

const step = (target: Target): Change => putInteraction(lends, pressTo(target));
const bare = projectOf(page);
const changes = [
  putVariable('v1', { name: 'Days', type: 'number', initial: 2 }),
  putVariable('v2', { name: 'Twice', type: 'number', initial: 0, says: 'days * 2 + count(tools)' }),
  putCollection('tools', {
    name: 'tools',
    fields: [
      { name: 'name', type: 'text' },
      { name: 'status', type: 'text' },
    ],
    rows: rows.map((element, i) => ({ element, within: list, shows: { name: names[i], status: states[i] } })),
  }),
  putBinding(counts, { text: "`${count(filter(tools, one => one.status === 'free'))} for ${days} days`" }),
  putBinding(says, { text: "'days of tools.status'", shown: 'days > 1 && twice > 3' }),
  putBinding(bold, { text: 'first(tools).name' }),
  putForm(form, { fields: [{ element: field, field: 'name' }], submit: adds }),
  putInteraction(adds, {
    ...pressTo({ kind: 'set', condition: 'v1', value: 'days + 1' }),
    before: [
      {
        kind: 'record',
        collection: 'tools',
        deed: { kind: 'add', form, says: { status: 'upper(values.name)' } },
      },
    ],
  }),
  step({
    kind: 'record',
    collection: 'tools',
    deed: { kind: 'set', field: 'status', says: 'tool.name', where: "tool.status === 'free'" },
  }),
];
const project: Project = { ...bare, app: applyChange(bare.app, all(changes)) };

/** What cannot be done or read of a project. */
const problems = (app: App): string[] =>
  findingsOf({ ...project, app })
    .filter(({ code }) => /^(expression|variable|broken|record)/.test(code))
    .map(({ code, message }) => `${code}: ${message}`);

const after = (change: Change): App => applyChange(project.app, change);

test('nothing is wrong with the project before', () => expect(problems(project.app)).toEqual([]));

test('a variable is called otherwise wherever it is spoken of, and nowhere else', () => {
  const app = after(renameVariable(project, 'v1', 'So many days'));
  expect(app.variables.v2.says).toBe('soManyDays * 2 + count(tools)');
  expect(app.bindings[counts].text).toContain('for ${soManyDays} days');
  expect(app.bindings[says]).toEqual({
    text: "'days of tools.status'",
    shown: 'soManyDays > 1 && twice > 3',
  });
  expect(app.interactions[adds].target).toMatchObject({ value: 'soManyDays + 1' });
  expect(problems(app)).toEqual([]);
});

test('one that takes the name of another in code leaves that its own', () => {
  const app = after(renameVariable(project, 'v1', 'Twice'));
  expect(problems(app)).toEqual([]);
  expect(app.variables.v1.name).toBe('Twice');
});

test('a collection, with the records of it', () => {
  const app = after(renameCollection(project, 'tools', 'machines'));
  expect(app.collections.tools.name).toBe('machines');
  expect(app.bindings[bold].text).toBe('first(machines).name');
  expect(app.bindings[counts].text).toContain("count(filter(machines, one => one.status === 'free'))");
  expect(app.interactions[lends].target).toMatchObject({
    deed: { says: 'machine.name', where: "machine.status === 'free'" },
  });
  expect(app.variables.v2.says).toBe('days * 2 + count(machines)');
  expect(problems(app)).toEqual([]);
});

test('a field, also where steps and forms call it', () => {
  const { fields } = project.app.collections.tools;
  let app = after(renameField(project, 'tools', 'status', { ...fields[1], name: 'state' }));
  expect(app.bindings[counts].text).toContain("one.state === 'free'");
  expect(app.interactions[lends].target).toMatchObject({
    deed: { field: 'state', where: "tool.state === 'free'" },
  });
  expect(app.interactions[adds].before).toMatchObject([{ deed: { says: { state: 'upper(values.name)' } } }]);
  app = applyChange(app, renameField({ ...project, app }, 'tools', 'name', { ...fields[0], name: 'title' }));
  expect(app.forms[form].fields).toEqual([{ element: field, field: 'title' }]);
  expect(app.interactions[adds].before).toMatchObject([{ deed: { says: { state: 'upper(values.title)' } } }]);
  expect(app.bindings[bold].text).toBe('first(tools).title');
  expect(problems(app)).toEqual([]);
});

test('calling all of it otherwise and back again leaves the app as it was', () => {
  const word = fc
    .stringMatching(/^[a-z]{5,9}$/)
    .filter((one) => !/^(tools?|first|count|upper|lower|today)$/.test(one));
  fc.assert(
    fc.property(word, fc.constantFrom('variable', 'collection', 'field'), (name, what) => {
      const renamed = (app: App, to: string, from: string): App => {
        const now = { ...project, app };
        const [title] = app.collections.tools.fields;
        return applyChange(
          app,
          what === 'variable'
            ? renameVariable(now, 'v1', to)
            : what === 'collection'
              ? renameCollection(now, 'tools', to)
              : renameField(now, 'tools', from, { ...title, name: to }),
        );
      };
      const [first] = { variable: ['Days'], collection: ['tools'], field: ['name'] }[what];
      const there = renamed(project.app, name, first);
      expect(problems(there)).toEqual([]);
      expect(renamed(there, first, name)).toEqual(project.app);
    }),
    { numRuns: 40 },
  );
});

test('what cannot be read stays as it is', () => {
  const known = { collections: {}, variables: { days: { kind: 'number' as const } }, lists: {} };
  expect(respelled('days +', known, () => 'weeks')).toBe('days +');
  expect(respelled('days + 1', known, () => 'weeks')).toBe('weeks + 1');
});
