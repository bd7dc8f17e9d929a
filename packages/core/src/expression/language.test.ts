import fc from 'fast-check';
import { printExpression } from '../emit/print_expression.ts';
import { HOSTILE } from '../testing/hostile.ts';
import { completionsAt } from './completions.ts';
import { type KnownNames, parseExpression } from './language.ts';
import { type Scope, valueOf } from './value_of.ts';

const known: KnownNames = {
  collections: {
    tools: [
      { name: 'name', type: 'text' },
      { name: 'price', type: 'money' },
      { name: 'status', type: 'one-of' },
      { name: 'due', type: 'date' },
    ],
    members: [{ name: 'name', type: 'text' }],
    loans: [
      { name: 'tool', type: 'text', refersTo: { of: 'tools', by: 'name' } },
      { name: 'by', type: 'text', refersTo: { of: 'members', by: 'name' } },
    ],
  },
  variables: {
    picked: { kind: 'list' },
    held: { kind: 'record', of: 'tools' },
    spare: { kind: 'record', of: 'tools' },
    signedIn: { kind: 'yes-no' },
    chosen: { kind: 'number' },
    view: { kind: 'text', choices: ['list', 'grid'] },
  },
  lists: { tools: { name: 'tools', hook: 'useTools' } },
};
const scope: Scope = {
  records: {
    tools: [
      { id: 'saw', name: 'Saw', price: '£12.50', status: 'free', due: '2026-03-01' },
      { id: 'drill', name: 'Drill', price: '£4', status: 'out', due: '' },
      { id: 'press', name: 'Press', price: '£1,100', status: 'free' },
    ],
    members: [],
    loans: [
      { id: '1', tool: 'Drill', by: 'Pia' },
      { id: '2', tool: 'Saw', by: 'Ines' },
    ],
  },
  variables: { signedIn: true, chosen: 2, view: 'grid', picked: ['saw', 'rake'], held: 'drill', spare: '' },
  listings: { tools: (asks) => ({ first: 1, last: 2, found: 3, page: 1, pages: 2 })[asks as 'first'] },
};

test.each<[string, unknown]>([
  ['count(tools)', 3],
  ['count(members) + 1', 1],
  ['chosen * 2 + 1', 5],
  ["view === 'grid' && chosen > 1", true],
  ['`${view}: ${chosen}`', 'grid: 2'],
  ["count(filter(tools, (tool) => tool.status === 'free'))", 2],
  ['sum(tools, (tool) => tool.price)', 1116.5],
  ['sum(filter(tools, (one) => one.price > 10), (one) => one.price * 2)', 2225],
  ['most(tools, (tool) => tool.price) - least(tools, (tool) => tool.price)', 1096],
  ["`${count(tools)} tools, ${count(filter(tools, (t) => t.status === 'out'))} out`", '3 tools, 1 out'],
  ["'Hello ' + upper('you')", 'Hello YOU'],
  ['first(sort(tools, (tool) => tool.price)).name', 'Drill'],
  ["first(filter(tools, (tool) => tool.status === 'gone')).name", undefined],
  ["signedIn ? 'in' : 'out'", 'in'],
  ['!signedIn || count(tools) > 2', true],
  ['-2 * (3 + 4) % 5', -4],
  ["contains('Pillar Drill', 'drill') && signedIn", true],
  ['firstShown(tools)', 1],
  ['first(loans).tool.status', 'out'],
  ['first(loans).by.name', undefined],
  ["count(filter(loans, (loan) => loan.tool.status === 'out'))", 1],
  ['sum(loans, (tool) => tool.tool.price)', 16.5],
  ['map(tools, (tool) => tool.status)', ['free', 'out', 'free']],
  ['unique(map(tools, (tool) => tool.status))', ['free', 'out']],
  ["join(unique(map(tools, (tool) => tool.status)), ' or ')", 'free or out'],
  ['count(picked) + count(unique(map(loans, (loan) => loan.tool)))', 4],
  ["holds(picked, 'saw') && !holds(picked, 'Saw')", true],
  ["toggled(picked, 'saw')", ['rake']],
  ["toggled(picked, 'axe')", ['saw', 'rake', 'axe']],
  ["including(without(picked, 'saw'), 'rake')", ['rake']],
  [
    'map(unique(map(tools, (tool) => tool.status)), (status) => count(filter(tools, (tool) => tool.status === status)))',
    ['2', '1'],
  ],
  ["filter(picked, (one) => contains(one, 'a'))", ['saw', 'rake']],
  ['sort(picked, (one) => one)', ['rake', 'saw']],
  ['held.name', 'Drill'],
  ['spare.name', undefined],
  ["spare ? spare.name : 'none'", 'none'],
  ['count(filter(tools, (tool) => tool === held))', 1],
  ['first(tools) === held || held !== spare', true],
  ['`${firstShown(tools)} to ${lastShown(tools)} of ${found(tools)}`', '1 to 2 of 3'],
])('%s comes to %j', (source, value) => {
  const parsed = parseExpression(source, known);
  expect(parsed.problem).toBeUndefined();
  if (!parsed.problem) expect(valueOf(parsed.expression, scope)).toEqual(value);
});

test.each<[string, RegExp, string]>([
  ['', /nothing is written yet/, ''],
  ['count(tools', /ends too early/, ''],
  ['count(tols)', /nothing is called tols; there are tools, members, loans, picked/, 'tols'],
  ['counts(tools)', /there is no function counts; there are count, filter/, 'counts'],
  ['tools', /./, ''],
  ['`${picked}`', /write join\(…/, 'picked'],
  ['picked === picked', /a list cannot be held against a list/, 'picked === picked'],
  ['unique(tools)', /unique takes a list of texts/, 'tools'],
  ["holds(tools, 'saw')", /holds takes a list of texts/, 'tools'],
  ['map(view, (one) => one)', /map takes records or a list/, 'view'],
  ['map(picked, (one) => one.name)', /only a record has fields/, 'name'],
  ['map(tools, (one) => one)', /say which field of it/, 'one'],
  ['held + 1', /a record is no number/, 'held'],
  ['first(loans).tool.colour', /tools have no field colour/, 'colour'],
  ['first(tools).name.status', /only a record has fields/, 'status'],
  ['held === first(loans)', /a record cannot be held against a record/, 'held === first(loans)'],
  ['`${tools} there`', /count\(tools\)/, 'tools'],
  ['sum(tools, (tool) => tool.prize)', /tools have no field prize; they have name, price/, 'prize'],
  ['sum(tools)', /sum takes 2 values, not 1/, 'sum(tools)'],
  ['sum(tools, 3)', /\(one\) => one\.name/, '3'],
  ['filter(tools, (members) => true)', /something else is called members/, 'members'],
  ['found(members)', /no list of members stands on this screen/, 'members'],
  ['signedIn == true', /write === instead of ==/, 'signedIn == true'],
  ['signedIn = true', /write === to hold/, 'signedIn = true'],
  ['signedIn + 1', /yes-no is no number/, 'signedIn'],
  ["view === 'rows'", /it is never “rows”, but list, grid/, "view === 'rows'"],
  ["signedIn === 'x'", /a yes-no cannot be held against a text/, "signedIn === 'x'"],
  ['tools.name', /tools are many/, 'tools.name'],
  ['count(tools) count(tools)', /ends before this/, 'count(tools)'],
  ["'not closed", /text is not closed/, "'"],
  ['window.location', /nothing is called window/, 'window'],
  ['(() => { while (true); })()', /no function/, ''],
  ['new Date()', /cannot be used/, 'new Date()'],
  ['this', /cannot be used/, 'this'],
  ['[1, 2]', /cannot be used/, '[1, 2]'],
  ['/a/.test(1)', /no function/, ''],
])('%s is refused: %s', (source, message, at) => {
  const parsed = parseExpression(source, known);
  if (source === 'tools') return expect(parsed.problem).toBeUndefined();
  expect(parsed.problem?.message).toMatch(message);
  if (at && parsed.problem) expect(source.slice(parsed.problem.start, parsed.problem.end)).toBe(at);
});

test('what is far too long or too deep is refused, and not gone through', () => {
  expect(parseExpression('1 + '.repeat(1000), known).problem?.message).toMatch(/at most 2000 letters/);
  expect(parseExpression(`${'('.repeat(900)}1${')'.repeat(900)}`, known).problem?.message).toMatch(
    /too deep/,
  );
  expect(parseExpression(`${'!'.repeat(900)}signedIn`, known).problem?.message).toMatch(/too deep/);
});

test('any text is read or refused with a place in it, and what is read can be worked out', () => {
  const pieces = fc.constantFrom(
    'count(',
    'tools',
    ')',
    ' + ',
    '`',
    '${',
    '}',
    "'",
    'filter(tools, (t) => ',
    't.name',
    ' === ',
    '!',
    '?',
    ':',
    '.',
    '3',
    'constructor',
    '__proto__',
    'signedIn',
    ...HOSTILE.slice(0, 20),
  );
  fc.assert(
    fc.property(fc.array(pieces, { maxLength: 8 }), (parts) => {
      const source = parts.join('');
      const parsed = parseExpression(source, known);
      if (parsed.problem) {
        expect(parsed.problem.message).not.toBe('');
        expect(parsed.problem.start).toBeLessThanOrEqual(source.length);
      } else valueOf(parsed.expression, scope);
    }),
    { numRuns: 3000 },
  );
});

test('what is read and written is the same again', () => {
  const names = {
    prop: (name: string) => name,
    variable: (name: string) => name,
    parameter: () => '',
    listing: (of: string, asks: string) =>
      `${{ first: 'firstShown', last: 'lastShown' }[asks] ?? asks}(${of})`,
    records: (name: string) => name,
    called: (name: string) => name,
    path: '',
  };
  for (const source of [
    "count(filter(tools, (tool) => tool.status === 'free' && !signedIn))",
    "signedIn ? 'in' : `${count(tools) * 2} out`",
    'firstShown(tools) + lastShown(tools)',
  ]) {
    const parsed = parseExpression(source, known);
    expect(!parsed.problem && printExpression(parsed.expression, names).replaceAll('?.', '.')).toBe(source);
  }
});

test.each<[string, string[]]>([
  ['cou', ['count(']],
  ['sum(tools, (tool) => tool.pr', ['price']],
  ['sum(tools, (tool) => to', ['tool', 'tools', 'toggled(', 'today(']],
  ['filter(members, (one) => one.', ['name']],
  ['count(tools)', []],
  ["'cou", []],
  ['`cou', []],
  ['`${count(tools)} cou', []],
  ['`${fou', ['found(']],
  ['tools.na', []],
  ['signed', ['signedIn']],
])('after %s there can stand %j', (source, texts) => {
  expect(completionsAt(source, source.length, known).completions.map(({ text }) => text)).toEqual(texts);
});
