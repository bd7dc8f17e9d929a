import fc from 'fast-check';
import {
  allOf,
  atOneOf,
  choice,
  type Expression,
  literal,
  mapExpression,
  propNamed,
  type Value,
} from '../expression/expression.ts';
import { type Scope, valueOf } from '../expression/value_of.ts';
import * as functions from '../expression/functions.ts';
import { HOSTILE } from '../testing/hostile.ts';
import { type ExpressionNames, printExpression } from './print_expression.ts';
import { quote } from './quoting.ts';

const names: ExpressionNames = {
  prop: (name) => `props[${quote(name)}]`,
  variable: (name) => `variables[${quote(name)}]`,
  parameter: (where, name) => `parameters.${where}[${quote(name)}]`,
  listing: (of, asks, given) => `listings[${quote(of)}](${quote(asks)}, [${given.join(', ')}])`,
  records: (name) => `records[${quote(name)}]`,
  called: (name) => `functions.${name}`,
  path: 'path',
};
const NAMES = ['title', 'isLate', 'two words'];
const scalar = fc.oneof(
  fc.constantFrom<Value>('', 'a', '/loans', 0, 1, -2, 2.5, true, false, undefined),
  fc.constantFrom(...HOSTILE),
) as fc.Arbitrary<string | number | boolean | undefined>;
const named = fc.constantFrom(...NAMES);
const { expression } = fc.letrec<{ expression: Expression }>((tie) => ({
  expression: fc.oneof(
    { maxDepth: 5, depthSize: 'small' },
    scalar.map(literal),
    named.map(propNamed),
    named.map((name): Expression => ({ kind: 'variable', name })),
    fc.record({
      kind: fc.constant('parameter' as const),
      in: fc.constantFrom('path' as const, 'query' as const),
      name: named,
    }),
    fc.record({
      kind: fc.constant('listing' as const),
      of: fc.constant('tools'),
      from: fc.constant('useTools'),
      asks: fc.constantFrom('found', 'sortOf', 'filterOf' as const),
      given: fc.array(fc.constantFrom('name', 3), { maxLength: 1 }),
    }),
    fc.constant<Expression>({ kind: 'records', name: 'tools' }),
    fc.constantFrom('one', 'other').map((name): Expression => ({ kind: 'item', name })),
    fc.record({
      kind: fc.constant('arithmetic' as const),
      by: fc.constantFrom('plus', 'minus', 'times', 'over', 'rest' as const),
      left: tie('expression'),
      right: tie('expression'),
    }),
    fc.record({
      kind: fc.constant('call' as const),
      name: fc.constantFrom(
        'number',
        'count',
        'upper',
        'lower',
        'contains',
        'formatNumber',
        'formatDate',
        'formatMoney' as const,
      ),
      args: fc.array(tie('expression'), { minLength: 2, maxLength: 2 }),
    }),
    fc.record({
      kind: fc.constant('each' as const),
      by: fc.constantFrom('filter', 'sort', 'sum', 'least', 'most' as const),
      list: fc.oneof(fc.constant<Expression>({ kind: 'records', name: 'tools' }), tie('expression')),
      item: fc.constantFrom('one', 'other'),
      of: tie('expression'),
    }),
    fc.record({ kind: fc.constant('field' as const), of: tie('expression'), name: named }),
    fc.array(tie('expression'), { maxLength: 3 }).map((addresses) => atOneOf(...addresses)),
    fc.record({ kind: fc.constant('not' as const), of: tie('expression') }),
    fc.record({
      kind: fc.constantFrom('and' as const, 'or' as const),
      of: fc.array(tie('expression'), { maxLength: 3 }),
    }),
    fc.record({
      kind: fc.constant('compare' as const),
      by: fc.constantFrom('equal', 'different', 'less', 'atMost', 'more', 'atLeast' as const),
      left: tie('expression'),
      right: tie('expression'),
    }),
    fc.tuple(tie('expression'), tie('expression'), tie('expression')).map((three) => choice(...three)),
    fc.record({ kind: fc.constant('text' as const), parts: fc.array(tie('expression'), { maxLength: 3 }) }),
  ) as fc.Arbitrary<Expression>,
}));
const values = fc.dictionary(
  named,
  fc.oneof(scalar, fc.dictionary(named, scalar, { noNullPrototype: true })),
  { noNullPrototype: true },
) as fc.Arbitrary<Record<string, Value>>;
const texts = fc.dictionary(named, fc.string(), { noNullPrototype: true });
const scope: fc.Arbitrary<Required<Scope>> = fc.record({
  props: values,
  // An app has all its variables, and each is something.
  variables: fc.record(
    Object.fromEntries(NAMES.map((name) => [name, scalar.filter((value) => value !== undefined)])),
    { noNullPrototype: true },
  ) as fc.Arbitrary<Record<string, Value>>,
  records: fc.record({
    tools: fc.array(fc.dictionary(named, scalar, { noNullPrototype: true }), { maxLength: 3 }),
  }) as fc.Arbitrary<Record<string, readonly Value[]>>,
  // What is looked at one by one is there.
  items: fc.record({
    one: scalar.filter((value) => value !== undefined),
    other: scalar.filter((value) => value !== undefined),
  }) as fc.Arbitrary<Record<string, Value>>,
  listings: fc.constant({
    tools: (asks: string, given: readonly (string | number)[]): Value =>
      given.length ? `${asks} ${given[0]}` : 7,
  }),
  path: fc.constantFrom('/loans', '/', 'a'),
  parameters: fc.record({ path: texts, query: texts }),
});

/** What written code comes to. */
const run = (
  code: string,
  { props, variables, records, items, listings, path, parameters }: Scope,
): unknown =>
  // oxlint-disable-next-line no-implied-eval, no-new-func
  (
    new Function(
      'props',
      'variables',
      'records',
      'one',
      'other',
      'functions',
      'listings',
      'path',
      'parameters',
      `return ${code};`,
    ) as (...all: unknown[]) => unknown
  )(props, variables, records, items?.one, items?.other, functions, listings, path, parameters);

test('an expression comes to the same value printed as interpreted', () => {
  fc.assert(
    fc.property(expression, scope, (one, around) => {
      expect(run(printExpression(one, names), around)).toEqual(valueOf(one, around));
    }),
    { numRuns: 2000 },
  );
});

test('what is replaced by itself is the same expression', () => {
  fc.assert(
    fc.property(expression, (one) => {
      expect(mapExpression(one, (part) => part)).toEqual(one);
    }),
  );
});

test.each<[Expression, string]>([
  [propNamed('title'), 'title'],
  [atOneOf(literal('/loans')), "pathname === '/loans'"],
  [{ kind: 'not', of: atOneOf(literal('/loans')) }, "pathname !== '/loans'"],
  [{ kind: 'not', of: atOneOf(literal('/a'), literal('/b')) }, "!['/a', '/b'].includes(pathname)"],
  [atOneOf(literal('/a'), propNamed('to')), "['/a', to].includes(pathname)"],
  [choice(propNamed('isLate'), literal('late'), literal(undefined)), "isLate ? 'late' : undefined"],
  [allOf([propNamed('a'), allOf([propNamed('b'), propNamed('a')])!])!, 'a && b'],
  [
    {
      kind: 'and',
      of: [propNamed('a'), { kind: 'or', of: [propNamed('b'), { kind: 'not', of: propNamed('c') }] }],
    },
    'a && (b || !c)',
  ],
  [
    { kind: 'text', parts: [literal('Hello ${'), propNamed('name'), literal('`')] },
    "`Hello \\${${name ?? ''}\\``",
  ],
  [{ kind: 'field', of: propNamed('tool'), name: 'due' }, 'tool?.due'],
  [
    { kind: 'compare', by: 'more', left: { kind: 'variable', name: 'count' }, right: literal(0) },
    'count > 0',
  ],
])('%j is written %s', (one, code) => {
  expect(
    printExpression(one, {
      prop: (name) => name,
      variable: (name) => name,
      parameter: (_, name) => name,
      records: (name) => name,
      called: (name) => name,
      listing: (of, asks) => `${of}.${asks}`,
      path: 'pathname',
    }),
  ).toBe(code);
});
