import { applyChange, putCollection, putComponent, putDetail } from '../change/change.ts';
import { findCollections } from '../data/collections.ts';
import { takenCollection } from '../data/records.ts';
import { recordsOf } from '../records/records.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import type { Element, Screen } from '../model/design.ts';
import { findElement } from '../model/places.ts';
import { type Project, textOf, walkElements } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { answered, type Answers, proposedAnswer } from './answers.ts';
import { applyIteration } from './apply.ts';
import { planIteration } from './plan.ts';
import { decideBoth } from './resolve.ts';

const row = (name: string, i: number, more = ''): string =>
  `<g id="Row_${name}" data-name="Row ${name}"><rect x="24" y="${100 + i * 70}" width="342" height="60" fill="#eee"/><text x="40" y="${125 + i * 70}" font-size="16">${name}</text><text x="40" y="${145 + i * 70}" font-size="12">back on day ${name.length}</text>${more.replaceAll('Y', String(125 + i * 70))}</g>`;
const shelf = (rows: readonly string[], more = ''): Screen =>
  screenOf(
    svg(
      `<g id="List">${rows.map((name, i) => row(name, i, more)).join('')}</g><text x="24" y="60" font-size="28">Shelf</text>`,
    ),
    'shelf',
  );
const names = ['Saw', 'Drill', 'Ladder'];
const before = shelf(names);

/** The rows of a screen, by what they are called. */
function rowsOf(screen: Screen): Map<string, Element> {
  const found = new Map<string, Element>();
  walkElements(screen.root, (element) => {
    const name = /^Row (\w+)$/.exec(element.name)?.[1];
    if (name) found.set(name, element);
  });
  return found;
}

const project: Project = (() => {
  const made = projectOf(before);
  const places = names.map((name) => rowsOf(before).get(name)!.key);
  return {
    ...made,
    app: applyChange(made.app, putComponent('c1', { name: 'Loans', kind: 'list', places })),
  };
})();

function taken(now: Screen, answers: Answers = {}) {
  const plan = answered(planIteration(project, [now], { whole: true }), answers);
  const { design, change } = applyIteration(project, plan, { assets: [], notices: [] }, 2);
  const app = applyChange(project.app, change);
  const placed = (app.components['c1']?.places ?? []).map((key) => {
    const element = findElement(design, key);
    return element && textOf(element).split(' ')[0];
  });
  return { plan, app, placed };
}

test.each([
  ['first', ['Press', ...names]],
  ['among the others', ['Saw', 'Press', 'Drill', 'Ladder']],
  ['last', [...names, 'Press']],
  ['two at once', ['Saw', 'Press', 'Planer', 'Drill', 'Ladder']],
])('a row that is put in, %s, joins the list where it stands', (_, now) => {
  const { plan, placed } = taken(shelf(now));
  expect(placed).toEqual(now.map((name) => expect.stringContaining(name)));
  expect(plan.asks).toEqual([]);
});

test('what stands beside the rows and is built otherwise joins no list', () => {
  const now = screenOf(
    svg(
      `<g id="List">${names.map((name, i) => row(name, i)).join('')}<g id="More"><rect x="24" y="400" width="342" height="60" fill="#eee"/><text x="40" y="435" font-size="16">All of them</text></g></g><text x="24" y="60" font-size="28">Shelf</text>`,
    ),
    'shelf',
  );
  expect(taken(now).app.components['c1'].places).toHaveLength(3);
});

describe('a list whose rows are built otherwise', () => {
  const now = shelf(
    names,
    '<circle cx="340" cy="Y" r="9" fill="#a33"/><text x="300" y="Y" font-size="12">late</text>',
  );

  test('is asked about, in words, and stays one until that is decided', () => {
    const { plan, app } = taken(now);
    expect(plan.asks.map(({ id, why }) => [id, why])).toEqual([['rows c1', 'template']]);
    expect(plan.asks[0].rows!.rebuilt).toContain('a text more');
    expect(proposedAnswer(plan.asks[0])).toEqual({ kind: 'own' });
    expect(app.components['c1'].places).toHaveLength(3);
    const [[id, aside]] = Object.entries(app.setAside);
    expect(aside).toMatchObject({ standing: 'both', entries: [{ table: 'components', key: 'c1' }] });
    expect(applyChange(app, decideBoth(app, id, 'design')).components).toEqual({});
    expect(applyChange(app, decideBoth(app, id, 'own')).components['c1']).toBeDefined();
  });

  test.each([
    ['kept', { kind: 'own' } as const, 3],
    ['taken apart', { kind: 'design' } as const, undefined],
  ])('is %s', (_, answer, count) => {
    const { app } = taken(now, { 'rows c1': answer });
    expect(app.components['c1']?.places.length).toBe(count);
    expect(app.setAside).toEqual({});
  });
});

/** The records of the shelf after its rows came anew, with what is asked. */
function recordsOfNext(now: readonly string[]) {
  const made = projectOf(before);
  const [proposal] = findCollections(made.design.screens);
  const records: Project = {
    ...made,
    app: applyChange(made.app, putCollection('loans', takenCollection(proposal))),
  };
  const plan = planIteration(records, [shelf(now)], { whole: true });
  const { design, change } = applyIteration(records, plan, { assets: [], notices: [] }, 2);
  const { loans } = applyChange(records.app, change).collections;
  const [title] = loans.fields;
  const read = recordsOf(design, loans);
  return { read, asks: plan.asks, names: read.map(({ values }) => values[title.name].text) };
}

test('a row that is put in is a record, with what it says in each field', () => {
  const { read, names: said } = recordsOfNext(['Saw', 'Press', 'Drill', 'Ladder']);
  expect(said).toEqual(['Saw', 'Press', 'Drill', 'Ladder']);
  expect(Object.keys(read[1].values)).toEqual(Object.keys(read[0].values));
});

test('a row that is gone is no record any more, and nothing is asked about it', () => {
  const { asks, names: said } = recordsOfNext(['Saw', 'Ladder']);
  expect(said).toEqual(['Saw', 'Ladder']);
  expect(asks).toEqual([]);
});

/** The lines of the delivered code that are others in the second of two projects, of one and the other. */
function linesChanged(one: Project, other: Project): { readonly out: string[]; readonly come: string[] } {
  const lines = (project: Project): string[] =>
    emitReact(project, 'App').files.flatMap((file) =>
      'text' in file && file.path.startsWith('src/')
        ? file.text.split('\n').map((line) => `${file.path}: ${line}`)
        : [],
    );
  const [was, is] = [lines(one), lines(other)];
  const without = (some: string[], others: string[]): string[] =>
    some.filter((line) => !others.includes(line));
  return { out: without(was, is), come: without(is, was) };
}

/** A project with a round that draws its rows otherwise. */
function after(of: Project, now: readonly string[]): Project {
  const plan = planIteration(of, [shelf(now)], { whole: true });
  const { design, change } = applyIteration(of, plan, { assets: [], notices: [] }, 2);
  return { design, app: applyChange(of.app, change) };
}

test.each([
  ['of a list', project],
  [
    'of a collection',
    {
      ...project,
      app: [
        putCollection('loans', takenCollection(findCollections(project.design.screens)[0])),
        putDetail('shelf', { collection: 'loans', parameter: 'loan' }),
      ].reduce(applyChange, project.app),
    },
  ],
])('a row %s that says something else is known by what it was: that text alone changes', (_, of) => {
  const first = after(of, names);
  const second = after(first, ['Saw', 'Drill', 'Steps!']);
  const { out, come } = linesChanged(first, second);
  // What the list's own test looks for is said once more there.
  const code = (lines: readonly string[]): string[] =>
    lines.filter((line) => !line.startsWith('src/behaviour.json: '));
  expect(code(come)).toHaveLength(1);
  expect(come.length).toBeLessThanOrEqual(2);
  expect(come.map((line) => line.replace('Steps!', 'Ladder'))).toEqual(out);
  // A further one has a name that none has.
  const more = after(second, ['Ladder', 'Saw', 'Drill', 'Steps!']);
  expect(linesChanged(second, more).come.join('\n')).toMatch(/id: 'ladder-2'/);
});
