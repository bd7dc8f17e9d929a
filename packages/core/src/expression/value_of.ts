import * as functions from './functions.ts';
import type { Comparison, Expression, ListingQuestion, Value } from './expression.ts';

/** What expressions are worked out from. */
export interface Scope {
  readonly props?: Readonly<Record<string, Value>>;
  readonly variables?: Readonly<Record<string, Value>>;
  /** The records of each collection. */
  readonly records?: Readonly<Record<string, readonly Value[]>>;
  readonly items?: Readonly<Record<string, Value>>;
  /** What lists say of themselves. */
  readonly listings?: Readonly<
    Record<string, (asks: ListingQuestion, given: readonly (string | number)[]) => Value>
  >;
  /** The present path, and what it and the query say by name. */
  readonly path?: string;
  readonly parameters?: { readonly [where in 'path' | 'query']?: Readonly<Record<string, string>> };
}

/** What an expression comes to. Never throws: what is not there is `undefined`. */
export function valueOf(expression: Expression, scope: Scope): Value {
  switch (expression.kind) {
    case 'literal':
      return expression.value;
    case 'prop':
      return own(scope.props, expression.name);
    case 'variable':
      return own(scope.variables, expression.name);
    case 'parameter':
      return own(scope.parameters?.[expression.in], expression.name);
    case 'records':
      return own(scope.records, expression.name) ?? [];
    case 'record':
    case 'item':
      return own(scope.items, expression.name);
    case 'arithmetic':
      return calculated(expression.by, valueOf(expression.left, scope), valueOf(expression.right, scope));
    case 'call': {
      const call = functions[expression.name] as (...args: readonly Value[]) => Value;
      return call(...expression.args.map((one) => valueOf(one, scope)));
    }
    case 'each': {
      const list = valueOf(expression.list, scope);
      return functions[expression.by](Array.isArray(list) ? (list as readonly Value[]) : [], (item) =>
        valueOf(expression.of, { ...scope, items: { ...scope.items, [expression.item]: item } }),
      );
    }
    case 'disclosed':
      return expression.first === valueOf(expression.id, scope);
    case 'listing':
      return scope.listings && Object.hasOwn(scope.listings, expression.of)
        ? scope.listings[expression.of](expression.asks, expression.given)
        : undefined;
    case 'field': {
      const record = valueOf(expression.of, scope);
      return isRecord(record) ? own(record, expression.name) : undefined;
    }
    case 'at':
      return expression.addresses.some((one) => valueOf(one, scope) === scope.path);
    case 'not':
      return !valueOf(expression.of, scope);
    case 'and':
    case 'or': {
      let value: Value = expression.kind === 'and';
      for (const one of expression.of) {
        value = valueOf(one, scope);
        if (!value === (expression.kind === 'and')) return value;
      }
      return value;
    }
    case 'compare':
      return compared(expression.by, valueOf(expression.left, scope), valueOf(expression.right, scope));
    case 'choice':
      return valueOf(valueOf(expression.when, scope) ? expression.yes : expression.no, scope);
    case 'text':
      return expression.parts.map((part) => shown(valueOf(part, scope))).join('');
  }
}

function calculated(by: Extract<Expression, { kind: 'arithmetic' }>['by'], left: Value, right: Value): Value {
  const [a, b] = [left as number, right as number];
  switch (by) {
    case 'plus':
      return a + b;
    case 'minus':
      return a - b;
    case 'times':
      return a * b;
    case 'over':
      return a / b;
    case 'rest':
      return a % b;
  }
}

const own = (values: Readonly<Record<string, Value>> | undefined, name: string): Value =>
  values && Object.hasOwn(values, name) ? values[name] : undefined;

const isRecord = (value: Value): value is { readonly [field: string]: Value } =>
  typeof value === 'object' && !Array.isArray(value);

/** A value within a text. */
export const shown = (value: Value): string => (value === undefined ? '' : String(value));

function compared(by: Comparison, left: Value, right: Value): boolean {
  // Values of different kinds are held against each other as the language of the written code does it.
  const [a, b] = [left as never, right as never];
  switch (by) {
    case 'equal':
      return a === b;
    case 'different':
      return a !== b;
    case 'less':
      return a < b;
    case 'atMost':
      return a <= b;
    case 'more':
      return a > b;
    case 'atLeast':
      return a >= b;
  }
}
