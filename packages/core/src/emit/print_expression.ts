import type { Comparison, Expression, ListingQuestion } from '../expression/expression.ts';
import { quote } from './quoting.ts';

/** How a target writes what expressions look at. */
export interface ExpressionNames {
  readonly prop: (name: string) => string;
  readonly variable: (name: string) => string;
  readonly parameter: (where: 'path' | 'query', name: string) => string;
  /** @param given as they are written */
  readonly listing: (of: string, asks: ListingQuestion, given: readonly string[]) => string;
  /** All records of a collection. */
  readonly records: (name: string) => string;
  /** A function that expressions can call. */
  readonly called: (name: string) => string;
  /** A record that a screen shows and that is there; by its name, where it may not be, if nothing is said. */
  readonly record?: (name: string) => string;
  /** The present path. */
  readonly path: string;
}

const BINDS = { choice: 1, or: 2, and: 3, equal: 4, order: 5, plus: 6, times: 7, not: 8, member: 9 } as const;

const SIGNS = { plus: '+', minus: '-', times: '*', over: '/', rest: '%' } as const;

const OPERATORS: Readonly<Record<Comparison, string>> = {
  equal: '===',
  different: '!==',
  less: '<',
  atMost: '<=',
  more: '>',
  atLeast: '>=',
};

/** Writes an expression as one of TypeScript, with no more brackets than it needs. */
export const printExpression = (expression: Expression, names: ExpressionNames): string =>
  print(expression, names).code;

interface Printed {
  readonly code: string;
  /** How tightly its outermost operator binds. */
  readonly binds: number;
}

function print(expression: Expression, names: ExpressionNames): Printed {
  const inner = (one: Expression, least: number): string => {
    const { code, binds } = print(one, names);
    return binds < least ? `(${code})` : code;
  };
  switch (expression.kind) {
    case 'literal':
      return { code: literalCode(expression.value), binds: BINDS.member };
    case 'prop':
      return { code: names.prop(expression.name), binds: BINDS.member };
    case 'variable':
      return { code: names.variable(expression.name), binds: BINDS.member };
    case 'parameter':
      return { code: names.parameter(expression.in, expression.name), binds: BINDS.member };
    case 'records':
      return { code: names.records(expression.name), binds: BINDS.member };
    case 'record':
      return { code: names.record?.(expression.name) ?? expression.name, binds: BINDS.member };
    case 'item':
      return { code: expression.name, binds: BINDS.member };
    case 'arithmetic': {
      const binds = /^(plus|minus)$/.test(expression.by) ? BINDS.plus : BINDS.times;
      const left = inner(expression.left, binds);
      return { code: `${left} ${SIGNS[expression.by]} ${inner(expression.right, binds + 1)}`, binds };
    }
    case 'call':
      return {
        code: `${names.called(expression.name)}(${expression.args.map((one) => inner(one, BINDS.choice)).join(', ')})`,
        binds: BINDS.member,
      };
    case 'each': {
      const body = inner(expression.of, BINDS.choice);
      return {
        code: `${names.called(expression.by)}(${inner(expression.list, BINDS.choice)}, (${expression.item}) => ${body})`,
        binds: BINDS.member,
      };
    }
    case 'listing':
      return {
        code: names.listing(expression.of, expression.asks, expression.given.map(literalCode)),
        binds: BINDS.member,
      };
    case 'disclosed':
      return {
        code: `${expression.of}.isOpen(${inner(expression.id, BINDS.choice)})`,
        binds: BINDS.member,
      };
    case 'field': {
      const isPlain = /^[a-z_]\w*$/i.test(expression.name);
      const dot = isThere(expression.of, names) ? (isPlain ? '.' : '') : '?.';
      const name = isPlain ? expression.name : `[${quote(expression.name)}]`;
      return { code: inner(expression.of, BINDS.member) + dot + name, binds: BINDS.member };
    }
    case 'at': {
      const [only, ...more] = expression.addresses;
      if (only === undefined) return { code: 'false', binds: BINDS.member };
      if (!more.length) return { code: `${names.path} === ${inner(only, BINDS.order)}`, binds: BINDS.equal };
      const list = expression.addresses.map((one) => inner(one, BINDS.choice)).join(', ');
      return { code: `[${list}].includes(${names.path})`, binds: BINDS.member };
    }
    case 'not': {
      const [only, ...more] = expression.of.kind === 'at' ? expression.of.addresses : [];
      if (only !== undefined && !more.length)
        return { code: `${names.path} !== ${inner(only, BINDS.order)}`, binds: BINDS.equal };
      return { code: `!${inner(expression.of, BINDS.not)}`, binds: BINDS.not };
    }
    case 'and':
    case 'or': {
      const { kind, of } = expression;
      if (!of.length) return { code: String(kind === 'and'), binds: BINDS.member };
      if (of.length === 1) return print(of[0], names);
      return {
        code: of.map((one) => inner(one, BINDS[kind] + 1)).join(kind === 'and' ? ' && ' : ' || '),
        binds: BINDS[kind],
      };
    }
    case 'compare': {
      const binds = /^(equal|different)$/.test(expression.by) ? BINDS.equal : BINDS.order;
      const [left, right] = [expression.left, expression.right].map((one) => inner(one, binds + 1));
      return { code: `${left} ${OPERATORS[expression.by]} ${right}`, binds };
    }
    case 'choice':
      return {
        code: `${inner(expression.when, BINDS.choice + 1)} ? ${inner(expression.yes, BINDS.choice)} : ${inner(expression.no, BINDS.choice)}`,
        binds: BINDS.choice,
      };
    case 'text':
      return { code: textCode(expression.parts, names), binds: BINDS.member };
  }
}

/** Whether a record is there in any case: one of several, or one that is asked for before. */
const isThere = ({ kind }: Expression, names: ExpressionNames): boolean =>
  kind === 'item' || (kind === 'record' && names.record !== undefined);

function literalCode(value: string | number | boolean | undefined): string {
  if (typeof value === 'string') return quote(value);
  // A minus before a number binds as an operator does.
  return typeof value === 'number' && (value < 0 || Object.is(value, -0)) ? `(${value})` : String(value);
}

function textCode(parts: readonly Expression[], names: ExpressionNames): string {
  if (parts.every((part) => part.kind === 'literal')) return quote(parts.map(literalText).join(''));
  let code = '';
  let text = '';
  const flush = (): void => {
    code += text.replace(/[\\`]|\$(?=\{)/g, '\\$&').replace(/\r/g, '\\r');
    text = '';
  };
  for (const part of parts) {
    if (part.kind === 'literal') {
      text += literalText(part);
      continue;
    }
    flush();
    const value = mayBeMissing(part) ? `${wrapped(part, names)} ?? ''` : printExpression(part, names);
    code += `\${${value}}`;
  }
  flush();
  return `\`${code}\``;
}

const literalText = ({ value }: Extract<Expression, { readonly kind: 'literal' }>): string =>
  value === undefined ? '' : String(value);

/** As an operand of `??`, which stands beside neither `&&` nor `||` without brackets. */
function wrapped(part: Expression, names: ExpressionNames): string {
  const { code, binds } = print(part, names);
  return binds < BINDS.equal ? `(${code})` : code;
}

const mayBeMissing = ({ kind }: Expression): boolean =>
  ['prop', 'parameter', 'field', 'item', 'choice', 'and', 'or'].includes(kind);
