import type { Expression } from '../../expression/expression.ts';
import { type ExpressionNames, printExpression } from '../print_expression.ts';
import { allNamed } from '../bundled/wording.ts';
import { quote } from '../quoting.ts';

/** An expression as it stands in a component, where props and variables are names. */
export const code = (expression: Expression, names: Partial<ExpressionNames> = {}): string =>
  printExpression(expression, { ...NAMES, ...names });

/** An expression before `&&` or `?`. */
export const variableCode = (expression: Expression): string =>
  /^(choice|or)$/.test(expression.kind) ? `(${code(expression)})` : code(expression);

const NAMES: ExpressionNames = {
  prop: (name) => name,
  variable: (name) => name,
  parameter: (where, name) => (where === 'path' ? `params.${name}` : `query.get(${quote(name)})`),
  listing: (of, asks, given) => `${of}.${asks}${given.length ? `(${given.join(', ')})` : ''}`,
  records: allNamed,
  called: (name) => `calc.${name}`,
  path: 'pathname',
};
