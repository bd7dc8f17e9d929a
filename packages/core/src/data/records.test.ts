import fc from 'fast-check';
import { applyChange, putCollection, putComponent, putRefused } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { settle } from '../layers/settle.ts';
import type { Collection } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { findCollections } from './collections.ts';
import { openCollections } from './open_collections.ts';
import {
  collectionProposalId,
  sayInCollection,
  sayInRecord,
  tableOf,
  takenCollection,
  takeTable,
  withField,
  withoutRecord,
  withRecord,
} from './records.ts';
import { isRecordSchema, recordSchema, takeSchema } from './record_schema.ts';
import { recordsOf, titleField } from '../records/records.ts';
import { csvOf, jsonOf, readTable } from './table_text.ts';

const TOOLS = [
  ['Pillar drill', 'free', '£4'],
  ['Tile cutter', 'out', '£6'],
  ['Loft ladder', 'free', '£3'],
];
const shelf = (key: string) =>
  screenOf(
    svg(
      `<text x="16" y="48" font-size="26" font-weight="700">Tools to borrow</text><g id="Rows">${TOOLS.map(
        ([name, state, price], i) =>
          `<g data-name="Tool row"><rect x="16" y="${90 + 72 * i}" width="358" height="64" rx="8" fill="#fff" stroke="#ddd"/><text x="32" y="${118 + 72 * i}" font-size="16" font-weight="700">${name}</text><text x="32" y="${138 + 72 * i}" font-size="13" fill="#555">${state}</text><text x="320" y="${126 + 72 * i}" font-size="15">${price}</text></g>`,
      ).join('')}</g>`,
    ),
    key,
  );

const project = ((): Project => {
  const made = projectOf(shelf('shelf'), shelf('sheds'));
  const [proposal] = findCollections(made.design.screens);
  return { ...made, app: applyChange(made.app, putCollection('tools', takenCollection(proposal))) };
})();
const { tools } = project.app.collections;
const [title] = tools.fields;
const recordsIn = (one: Project) => recordsOf(settle(one).design, one.app.collections.tools);
const namesIn = (one: Project): string[] => recordsIn(one).map(({ values }) => values[title.name].text);

test('what is drawn in two lists is one record in two places', () => {
  expect(namesIn(project)).toEqual(['Pillar drill', 'Tile cutter', 'Loft ladder']);
  expect(recordsIn(project).map(({ rows }) => rows.length)).toEqual([2, 2, 2]);
});

test('what is written in a record is said wherever it is shown, and can be taken back', () => {
  const [record] = recordsIn(project);
  const change = sayInRecord(record, title.name, 'Bench drill')!;
  const app = applyChange(project.app, change);
  expect(Object.values(app.edits)).toEqual(['Bench drill', 'Bench drill']);
  expect(namesIn({ ...project, app })).toEqual(['Bench drill', 'Tile cutter', 'Loft ladder']);
  expect(sayInRecord(record, title.name, 'Pillar drill')).toBeNull();
  expect(sayInRecord(record, 'nothing', 'x')).toBeNull();
});

test('rows that are no longer drawn are left out, and nothing breaks', () => {
  const design = { ...project.design, screens: project.design.screens.slice(1) };
  const records = recordsOf(design, tools);
  expect(records.map(({ rows }) => rows.length)).toEqual([1, 1, 1]);
  expect(recordsOf({ ...design, screens: [] }, tools)).toEqual([]);
});

test('a field that is called otherwise keeps what it shows', () => {
  const next: Collection = withField(tools, title.name, { ...title, name: 'label' });
  expect(recordsOf(project.design, next)[1].values.label.text).toBe('Tile cutter');
  expect(tableOf(next, recordsOf(project.design, next))[0]).toContain('label');
});

const heads = tools.fields.map(({ name }) => name);

test.each([
  ['the same', (lines: string[][]) => lines, 0, []],
  ['one value more', (lines: string[][]) => lines.with(1, lines[1].with(0, 'Saw')), 1, []],
  ['columns in another order', (lines: string[][]) => lines.map((line) => line.toReversed()), 0, []],
  [
    'a column of nobody',
    (lines: string[][]) => lines.map((line, i) => [...line, i ? 'x' : 'weight']),
    0,
    [[1, '“weight” is no field, and was left out']],
  ],
  [
    'more lines than rows',
    (lines: string[][]) => [...lines, ['Saw', '£1', 'free'], ['Axe', '£1', 'free']],
    6,
    [],
  ],
  [
    'a line with too many cells',
    (lines: string[][]) => lines.with(2, [...lines[2], 'extra']),
    0,
    [[3, '4 cells under 3 heads; what is beyond was left out']],
  ],
  [
    'no heads',
    () => [['1', '2']],
    0,
    [[1, `no column is called as a field: expected some of ${heads.join(', ')}`]],
  ],
  ['nothing', () => [], 0, [[1, `no column is called as a field: expected some of ${heads.join(', ')}`]]],
] as const)('a table with %s', (_, change, changed, problems) => {
  const records = recordsIn(project);
  const taken = takeTable('tools', tools, records, change(tableOf(tools, records)));
  expect(taken.changed).toBe(changed);
  expect(taken.problems.map(({ line, message }) => [line, message])).toEqual(problems);
});

test('records can be more than those that are drawn, and say more than rows show', () => {
  const records = recordsIn(project);
  const [name] = heads;
  const wider: Collection = { ...tools, fields: [...tools.fields, { name: 'kind', type: 'one-of' }] };
  const said = sayInCollection('tools', wider, records[0], 'kind', 'Garden')!;
  const { collections } = applyChange(project.app, said);
  expect(recordsOf(project.design, collections.tools)[0].values.kind).toEqual({
    text: 'Garden',
    elements: [],
    isText: true,
  });
  const more = withRecord(withRecord(collections.tools, { [name]: 'Axe' }));
  const all = recordsOf(project.design, more);
  expect(all).toHaveLength(records.length + 2);
  expect(all.at(-2)!.values[name].text).toBe('Axe');
  const renamed = withField(more, 'kind', { name: 'sort', type: 'text' });
  expect(recordsOf(project.design, renamed)[0].values.sort.text).toBe('Garden');
  const again = applyChange(project.app, sayInCollection('tools', more, all.at(-1)!, name, 'Rake')!)
    .collections.tools;
  expect(recordsOf(project.design, again).at(-1)!.values[name].text).toBe('Rake');
  expect(recordsOf(project.design, withoutRecord(again, all.at(-2)!)).map(({ id }) => id)).toEqual(
    [...records, all.at(-1)!].map(({ id }) => id),
  );
});

test('a table that is far too long is taken as far as it goes, and says so', () => {
  const lines = [heads, ...Array.from({ length: 100_000 }, (_, i) => [`Tool ${i}`, '£1', 'free'])];
  lines[50_000] = ['too', 'many', 'cells', 'here'];
  const taken = takeTable('tools', tools, recordsIn(project), lines);
  expect(taken.problems.map(({ message }) => message).join()).toMatch(
    /at most 5000 records beyond those that are drawn; what comes from here on was left out/,
  );
  const made = applyChange(project.app, taken.change!).collections.tools;
  expect(made.more).toHaveLength(5000);
  expect(made.more!.at(-1)!.says[heads[0]]).toBe('Tool 5002');
});

test.each([
  [
    'too many cells',
    ['Saw', '£3', 'free', 'more'],
    'Line 50000: 4 cells under 3 heads; what is beyond was left out',
  ],
  ['too few', ['Saw', '£3'], 'Line 50000: 2 cells under 3 heads; the others stay empty'],
  [
    'no number',
    ['Saw', 'much', 'free'],
    'Line 50000: “much” is no number for price; it is kept as it stands',
  ],
])('a wrong line far down is told: %s', (_what, wrong, says) => {
  const lines = [
    ['name', 'price', 'status'],
    ...Array.from({ length: 60_000 }, (_, i) => [`Tool ${i}`, i % 2 ? '£1' : '–', 'free']),
  ];
  lines[49_999] = wrong;
  const fields = [
    { name: 'name', type: 'text' },
    { name: 'price', type: 'money' },
    { name: 'status', type: 'text' },
  ] as const;
  const { problems } = takeTable('tools', { name: 'tools', fields, rows: [] }, [], lines);
  expect(problems.map(({ line, message }) => `Line ${line}: ${message}`)).toEqual([
    expect.stringContaining('Line 5002: a collection has at most 5000 records'),
    says,
  ]);
});

test('any values that are written come back as they were written, by CSV and by JSON', () => {
  const value = fc
    .string({ unit: 'grapheme', minLength: 1, maxLength: 12 })
    .filter((text) => text.trim() === text && text !== '');
  const lines = fc
    .array(fc.tuple(value, value, value), { minLength: 1, maxLength: 4 })
    .map((rows) => [['a', 'b', 'c'], ...rows]);
  fc.assert(
    fc.property(lines, (table) => {
      expect(readTable(csvOf(table))).toEqual({ lines: table, problems: [] });
      expect(readTable(jsonOf(table))).toEqual({ lines: table, problems: [] });
    }),
  );
});

test('numbers and yes or no are such in JSON, and come back as records say them', () => {
  const table = [
    ['name', 'loans', 'late', 'shelf'],
    ['Saw', '2', 'yes', '007'],
    ['Drill', '', 'no', '2.50'],
  ];
  const json = jsonOf(table, ['text', 'number', 'yes-no', 'number']);
  expect(JSON.parse(json)).toEqual([
    { name: 'Saw', loans: 2, late: true, shelf: '007' },
    { name: 'Drill', late: false, shelf: '2.50' },
  ]);
  expect(readTable(json)).toEqual({ lines: table, problems: [] });
});

test.each([
  ['', 'there is nothing in it'],
  ['[1, 2]', 'expected a list of records, as [{"name": "Saw"}]'],
  ['[{"a": 1', /^it is no JSON: /],
  ['a,b\n"x', /quote/],
])('%j is told', (text, message) => {
  const { problems } = readTable(text);
  expect(problems[0].message).toMatch(message);
});

test('what a spreadsheet copies is read, with its first mark left out', () => {
  expect(readTable('\uFEFFname\tprice\r\nSaw\t£3\r\n').lines).toEqual([
    ['name', 'price'],
    ['Saw', '£3'],
  ]);
});

test('a hundred thousand lines with one that is wrong are read, and that line is told', () => {
  const lines = Array.from({ length: 100_000 }, (_, i) => `Saw ${i},£${i}`);
  lines[70_000] = 'Saw,"£3';
  const { lines: read, problems } = readTable(`name,price\n${lines.join('\n')}`);
  expect(read.length).toBeGreaterThan(70_000);
  expect(problems).toHaveLength(1);
});

test('a record has a schema', () => {
  expect(recordSchema(tools)).toMatchObject({
    title: 'tools',
    type: 'object',
    properties: { [title.name]: { type: 'string' } },
  });
});

test('what calls records says something of its own in each row', () => {
  const { fields, rows } = tools;
  const [name] = fields;
  const state = fields.find(({ type }) => type === 'one-of')!;
  expect(titleField(project.design, tools)).toBe(name);
  // A text that says the same in several rows calls none of them.
  const swapped = [{ ...state, type: 'text' as const }, name];
  expect(titleField(project.design, { fields: swapped, rows })).toBe(name);
  // Where no text does, another field may.
  const untitled = swapped.map((field) => (field === name ? { ...field, type: 'number' as const } : field));
  expect(titleField(project.design, { fields: untitled, rows })?.name).toBe(name.name);
});

test('the fields of a schema are taken, and what it does not have stays', () => {
  const text = JSON.stringify({
    type: 'object',
    properties: {
      [title.name]: { type: 'string', title: 'Tool' },
      weight: { type: 'number' },
      'in stock': { type: 'boolean' },
      kind: { enum: ['garden', 'wood'] },
      parts: { type: 'array' },
      '???': { type: 'string' },
    },
  });
  expect(isRecordSchema(text)).toBe(true);
  expect(isRecordSchema('[{"name": "Saw"}]')).toBe(false);
  const { change, changed, problems } = takeSchema('tools', tools, text);
  expect(changed).toBe(4);
  expect(problems).toEqual([
    '“parts” holds more than one value, and no field does',
    '“???” is no name that a field can have',
  ]);
  const { fields } = applyChange(project.app, change!).collections.tools;
  expect(fields.slice(0, tools.fields.length).map(({ name }) => name)).toEqual(
    tools.fields.map(({ name }) => name),
  );
  expect(fields.slice(tools.fields.length)).toEqual([
    { name: 'weight', type: 'number' },
    { name: 'inStock', type: 'yes-no' },
    { name: 'kind', type: 'one-of', choices: ['garden', 'wood'] },
  ]);
  expect(takeSchema('tools', { ...tools, fields }, text).change).toBeNull();
});

test('the schema of any collection gives its fields back', () => {
  const types = [
    'text',
    'number',
    'money',
    'percent',
    'date',
    'time',
    'yes-no',
    'email',
    'link',
    'picture',
  ] as const;
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...types), { minLength: 1, maxLength: 9 }), (chosen) => {
      const fields = chosen.map((type, i) => ({ name: `field${i}`, type }));
      const schema = JSON.stringify(recordSchema({ name: 'things', fields, rows: [] }));
      const { change } = takeSchema('things', { name: 'things', fields: [], rows: [] }, schema);
      expect(applyChange(project.app, change!).collections.things.fields).toEqual(fields);
    }),
  );
});

test('the records of a list are called as the collection, and their fields as its fields', () => {
  const places = recordsIn(project).flatMap(({ rows }) => rows.map(({ element }) => element));
  const app = applyChange(project.app, putComponent('c1', { name: 'Row', kind: 'list', places }));
  const texts = emitReact({ ...project, app }, 'App').files.flatMap((file) =>
    'text' in file && /\.data\.tsx?$/.test(file.path) ? [file.text] : [],
  );
  expect(texts).toHaveLength(2);
  for (const text of texts) {
    expect(text).toContain('export const tools: ');
    for (const { name } of tools.fields) expect(text).toContain(` ${name}: `);
  }
});

test('a proposed collection waits until it is taken or refused', () => {
  const made = projectOf(shelf('shelf'), shelf('sheds'));
  const found = findCollections(made.design.screens);
  const waiting = (app: typeof made.app): number => openCollections(app, found).length;
  expect(waiting(made.app)).toBe(1);
  expect(waiting(project.app)).toBe(0);
  expect(waiting(applyChange(made.app, putRefused(collectionProposalId(found[0]), true)))).toBe(0);
  // Of what is taken of one screen alone the rest waits.
  const half = { ...tools, rows: tools.rows.slice(0, 3) };
  expect(waiting(applyChange(made.app, putCollection('tools', half)))).toBe(1);
});
