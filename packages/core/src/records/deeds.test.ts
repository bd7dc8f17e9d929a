import { applyChange, type Change, putForm, putInteraction } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { emitVue } from '../emit/vue/emit_vue.ts';
import { graphOf } from '../graph/graph.ts';
import { describeTarget } from '../links/target.ts';
import { pressTo } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { library, textIn } from '../testing/library.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { vueProblems } from '../testing/vue_problems.ts';
import { typedWiring } from '../wire/typed.ts';
import { readDeed } from './deeds.ts';

/** What a typed line does, in words, or why it cannot. */
function typed(project: Project, screen: string, line: string): string {
  const [read] = typedWiring(project, graphOf(project), screen, line);
  if (read.problem !== undefined) return read.problem;
  const { before = [], target } = read.interaction;
  return [...before, target]
    .map((step) => {
      const { label, detail } = describeTarget(project, step);
      return step.kind === 'record' ? `${detail}: ${label}` : label;
    })
    .join(' / ');
}

test.each([
  // What the record at hand says in fields that are called alike goes along.
  ['tool', 'Reserve → add loan', 'loans: Add one: name tool.name, note tool.note'],
  ['tool', "Reserve → add to loans with due = 'Friday'", 'loans: Add one: due “Friday”'],
  [
    'tool',
    'Reserve → add loan, then set status to out, then loans',
    'loans: Add one: name tool.name, note tool.note / tools: status becomes “out” / Loans',
  ],
  ['tool', "Reserve → set note to tool.name + '!'", "tools: note becomes tool.name + '!'"],
  ['tool', 'Reserve → remove tool', 'tools: Remove it'],
  [
    'loans',
    'Saw → set status of tools to free where tool.name === loan.name, then remove loan',
    'tools: status becomes “free” where tool.name === loan.name / loans: Remove it',
  ],
  ['loans', 'Return → remove loan', 'it stands in no row of loans, and its screen shows none of them'],
  ['tool', "Reserve → add loan with price = '3'", 'loans have no field price'],
  [
    'tool',
    'Reserve → remove tools where tool.price',
    'tools have no field price; they have name, status, note',
  ],
  [
    'tool',
    'Reserve → remove tools where tool.name',
    'which records are meant has to be a question: tool.name === …',
  ],
  [
    'loans',
    'Saw → set note of tools to tool.name where tool.status === loan.name',
    'what note becomes is the same for all, and cannot look at each',
  ],
  ['tool', 'Reserve → loans, then add loan', 'no screen is called “loans, then add loan”'],
  ['tool', 'Reserve → add boat', 'no screen is called “add boat”'],
])('on %s, %s', (screen, line, meaning) => {
  expect(typed(library(), screen, line)).toBe(meaning);
});

const deed = (screen: string, line: string): Change => {
  const project = library();
  const [read] = typedWiring(project, graphOf(project), screen, line);
  if (read.problem !== undefined) throw new Error(read.problem);
  return putInteraction(read.element, read.interaction);
};
const working = library(
  deed(
    'tool',
    "Reserve → add loan with name = tool.name, due = first(sort(loans, (one) => one.due)).due, then set status to out, then set note to 'lent', then loans",
  ),
  deed('loans', 'Saw → set status of tools to free where tool.name === loan.name, then remove loan'),
);
const react = emitReact(working, 'Library');
const vue = emitVue(working, 'Library');
test('what is written for React and for Vue passes their compilers', () => {
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([vue])).toEqual([]);
}, 60_000);

test('what is said of the same records is said at once, of the record that the screen shows', () => {
  const code = textIn(react, 'src/screens/Tool/Tool.tsx');
  expect(code).toContain('if (!tool) return;');
  expect(code).toContain(
    'loans.add({ name: tool.name, due: calc.first(calc.sort(loans.all(), (one) => one.due))?.due });',
  );
  expect(code).toContain("tools.change(tool.id, { status: 'out', note: 'lent' });");
  expect(textIn(vue, 'src/screens/Tool/Tool.vue')).toContain('tools.change(toolNow.id,');
});

test('a form that is gone, and a deed that says nothing, are told', () => {
  const project = library();
  const place = { screen: 'tool' };
  const problem = (one: Parameters<typeof readDeed>[1]['deed']): string | undefined =>
    readDeed(project, { collection: 'loans', deed: one }, place).problem;
  expect(problem({ kind: 'add', form: 'tool:9' })).toBe('its form is gone');
  expect(problem({ kind: 'add' })).toBe('nothing is said of what it adds');
  expect(readDeed(project, { collection: 'boats', deed: { kind: 'remove' } }, place).problem).toBe(
    'its collection is gone',
  );
});

test('what a form is filled in with is spoken of by its fields, and what was added by later steps', () => {
  const project = library(
    putForm('tool:', { fields: [{ element: 'tool:1', field: 'note' }], submit: 'tool:0' }),
  );
  expect(
    typed(
      project,
      'tool',
      "Reserve → add loan with name = values.note + '!', then set note of tools to loan.note where tool.name === loan.name",
    ),
  ).toBe(
    "loans: Add what is filled in: name values.note + '!' / tools: note becomes loan.note where tool.name === loan.name",
  );
  const interaction = pressTo({
    kind: 'record',
    collection: 'loans',
    deed: { kind: 'add', form: 'tool:', says: { name: 'values.price' } },
  });
  const app = applyChange(project.app, putInteraction('tool:0', interaction));
  const [state] = graphOf({ ...project, app }).elements.get('tool')!;
  expect(state.problem).toBe('what is filled in have no field price; they have note');
});
