import fc from 'fast-check';
import { applyChange, putComponent } from '../../../change/change.ts';
import type { Project } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { drawnBothWays } from '../../../testing/expand.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';
import type { StyleRule } from '../markup.ts';
import { EmissionPlan, emitScreenOf } from '../plan.ts';
import { extractionOf } from './extraction.ts';
import { placedLook, placedVariants, type RowPlace, rowPlaces } from './row_places.ts';

const look = (base: StyleRule['base'], more: Partial<StyleRule> = {}): StyleRule => ({
  className: 'row',
  key: null,
  base,
  at: {},
  from: {},
  states: {},
  ...more,
});

const LINE = { 'border-top-style': 'solid', 'border-top-width': '1px' };
const UNDER = { 'border-bottom-width': '2px' };

test.each<{
  name: string;
  rows: readonly (readonly [RowPlace, StyleRule])[];
  within?: string;
  base?: StyleRule['base'];
  states: StyleRule['states'] | null;
}>([
  {
    name: 'the first has no line',
    rows: [
      ['first', look({ color: 'red' })],
      ['between', look({ color: 'red', ...LINE })],
      ['last', look({ color: 'red', ...LINE })],
    ],
    base: { color: 'red' },
    states: { ':not(:first-child)': LINE },
  },
  {
    name: 'the last has none, in what stands in the row',
    rows: [
      ['first', look(UNDER)],
      ['between', look(UNDER)],
      ['last', look({})],
    ],
    within: 'tr',
    base: {},
    states: { ':is(tr:not(:last-child) > *)': UNDER },
  },
  {
    name: 'the first has another one',
    rows: [
      ['first', look({ 'margin-top': '0px' })],
      ['between', look({ 'margin-top': '8px' })],
      ['last', look({ 'margin-top': '8px' })],
    ],
    base: { 'margin-top': '8px' },
    states: { ':first-child': { 'margin-top': '0px' } },
  },
  {
    name: 'both ends are round, and a row that is alone is at both',
    rows: [
      ['first', look({ 'border-top-left-radius': '4px' })],
      ['between', look({})],
      ['last', look({ 'border-bottom-left-radius': '4px' })],
      ['only', look({ 'border-top-left-radius': '4px', 'border-bottom-left-radius': '4px' })],
    ],
    base: {},
    states: {
      ':first-child': { 'border-top-left-radius': '4px' },
      ':last-child': { 'border-bottom-left-radius': '4px' },
    },
  },
  {
    name: 'a row that is alone looks otherwise',
    rows: [
      ['first', look({ 'padding-top': '4px' })],
      ['between', look({})],
      ['last', look({})],
      ['only', look({})],
    ],
    states: null,
  },
  {
    name: 'another colour says something of the first',
    rows: [
      ['first', look({ color: 'red' })],
      ['between', look({})],
      ['last', look({})],
    ],
    states: null,
  },
  {
    name: 'one between has it, too',
    rows: [
      ['first', look({})],
      ['between', look(LINE)],
      ['between', look({})],
      ['last', look(LINE)],
    ],
    states: null,
  },
  {
    name: 'of two rows either may be the one that differs',
    rows: [
      ['first', look({})],
      ['last', look(LINE)],
    ],
    states: null,
  },
  {
    name: 'a width says the same otherwise',
    rows: [
      ['first', look({}, { at: { 575: { 'border-top-width': '0px' } } })],
      ['between', look(LINE, { at: { 575: { 'border-top-width': '0px' } } })],
      ['last', look(LINE, { at: { 575: { 'border-top-width': '0px' } } })],
    ],
    states: null,
  },
])('what sets rows off: $name', ({ rows, within = null, base, states }) => {
  const made = placedLook(
    rows.map(([, one]) => one),
    rows.map(([place]) => place),
    within,
  );
  if (!states) expect(made).toBeNull();
  else expect(made).toMatchObject({ base, states });
});

const FIRST = ['none', 'less', 'more'] as const;

const rowHtml = (
  place: readonly boolean[],
  first: (typeof FIRST)[number],
  end: boolean,
  word: string,
): string => {
  const [isFirst, isLast] = place;
  const line = isFirst
    ? {
        none: 'border-top-style:solid;border-top-width:1px',
        less: '',
        more: 'border-top-style:solid;border-top-width:4px',
      }[first]
    : 'border-top-style:solid;border-top-width:1px';
  const under = isLast && end ? 'padding-bottom:9px' : '';
  return `<tr><td style="color:red;${line};${under}">${word}</td><td style="${line};${under}">2 of ${word}</td></tr>`;
};

const pageWith = (count: number, first: (typeof FIRST)[number], end: boolean, key: string) =>
  pageOfHtml(
    `<h1>${key}</h1><table><tbody>${Array.from({ length: count }, (_, i) =>
      rowHtml([i === 0, i === count - 1], first, end, `${key} ${i}`),
    ).join('')}</tbody></table>`,
    key,
  );

function tables(first: (typeof FIRST)[number], end: boolean, ...counts: readonly number[]): Project {
  const pages = counts.map((count, i) => pageWith(count, first, end, `page${i}`));
  const bare = projectOf(...pages);
  const places = pages.flatMap(({ root }) => root.children[1].children[0].children.map(({ key }) => key));
  const app = applyChange(bare.app, putComponent('row', { name: 'ToolRow', kind: 'list', places }));
  return { ...bare, app };
}

test('rows that are set off by where they stand draw what they drew', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...FIRST),
      fc.boolean(),
      fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 3 }),
      (first, end, counts) => {
        const project = tables(first, end, ...counts);
        for (const { made, plain } of drawnBothWays(project)) expect(made).toEqual(plain);
        const isTold = counts.some((count) => count > 2) && counts.reduce((sum, one) => sum + one) > 2;
        if (!isTold || first === 'none') return;
        const [row] = extractionOf(new EmissionPlan(project)).components;
        expect(row.props.filter(({ kind }) => kind !== 'text')).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

test('they are written as a person would, in both targets', () => {
  const project = tables('less', false, 4, 3);
  const emitted = [emitReact(project, 'Tools'), emitVue(project, 'Tools')];
  for (const { files } of emitted) {
    const css = files
      .flatMap((file) => ('text' in file && file.path.endsWith('.css') ? file.text : []))
      .join('');
    expect(css).toMatch(/tr:not\(:first-child\) > \.[\w-]+ \{\n {2}border-top-style: solid/);
    expect(css).not.toContain(':is(');
  }
  expect(typeErrors([emitted[0]])).toEqual([]);
}, 60_000);

test('rows beside what comes and goes have no place that is always theirs', () => {
  const { root } = emitScreenOf(new EmissionPlan(tables('less', false, 3)), 'page0');
  const body = root.children[1];
  const [table] = 'children' in body ? body.children : [];
  const rows = 'children' in table ? table.children.flatMap((row) => ('tag' in row ? [row] : [])) : [];
  expect(rowPlaces(rows, [root])).toEqual(['first', 'between', 'last']);
  expect(rowPlaces(rows.slice(1), [root])).toEqual(['between', 'last']);
  const [one, ...others] = rows;
  const sometimes = { ...one, when: { kind: 'prop', name: 'isLong' } as const };
  const parent = { ...one, children: [sometimes, ...others] };
  expect(rowPlaces(others, [parent])).toBeNull();
  expect(rowPlaces([], [root])).toEqual([]);
});

describe('rows whose looks something around them decides', () => {
  const SPACE = { 'margin-top': '4px' };
  const entry = (base: StyleRule['base'], marked: StyleRule['base'] = { ...base, color: 'red' }) => ({
    node: {
      tag: 'a',
      key: 'k',
      className: null,
      attributes: {},
      children: [],
      variant: {
        by: { kind: 'prop', name: 'isActive' } as const,
        classes: { true: 'entryActive', false: 'entry' },
      },
    },
    rules: new Map([
      ['entryActive', look(marked, { className: 'entryActive' })],
      ['entry', look(base, { className: 'entry' })],
    ]),
    route: null,
  });
  const rows: readonly RowPlace[] = ['first', 'between', 'last'];

  test('have one look each, with what sets the first one off said by its place', () => {
    const placed = placedVariants([entry({}), entry(SPACE), entry(SPACE)], rows);
    const looks = placed.map(({ node, rules }) =>
      Object.values(node.variant!.classes).map((name) => rules.get(name!)),
    );
    for (const [marked, plain] of looks) {
      expect([marked!.base, marked!.states]).toEqual([{ color: 'red' }, { ':not(:first-child)': SPACE }]);
      expect([plain!.base, plain!.states]).toEqual([{}, { ':not(:first-child)': SPACE }]);
    }
  });

  test.each([
    ['one looks otherwise besides', [entry({}), entry(SPACE), entry({ ...SPACE, opacity: '.5' })]],
    ['one is marked otherwise', [entry({}), entry(SPACE), entry(SPACE, { ...SPACE, color: 'blue' })]],
  ])('stay as they are where %s', (_, places) => expect(placedVariants(places, rows)).toBe(places));
});
