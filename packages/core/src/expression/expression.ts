import type * as functions from './functions.ts';

/**
 * What can be asked of a list: how many records there are, fit and are seen; which page it is and of how many; what is
 * looked for; how it is sorted and what is filtered by a field.
 */
export type ListingQuestion =
  | 'total'
  | 'found'
  | 'first'
  | 'last'
  | 'page'
  | 'pages'
  | 'hasPrevious'
  | 'hasNext'
  | 'isWaiting'
  | 'problem'
  | 'sought'
  | 'sortOf'
  | 'arrowOf'
  | 'filterOf';

/** A function that can be called with values. */
export type CalledFunction = Exclude<keyof typeof functions, EachFunction>;

/** A function that looks at each of a list. */
export type EachFunction = 'filter' | 'sort' | 'sum' | 'least' | 'most' | 'map';

/** What an expression can come to. */
export type Value =
  string | number | boolean | undefined | readonly Value[] | { readonly [field: string]: Value };

export type Comparison = 'equal' | 'different' | 'less' | 'atMost' | 'more' | 'atLeast';

/**
 * A value that is worked out while the app runs, whatever it is written in. `and` and `or` give one of their operands,
 * as those of JavaScript do: what counts as no is `false`, `0`, an empty text, and what is not there.
 */
export type Expression =
  | { readonly kind: 'literal'; readonly value: string | number | boolean | undefined }
  /** What the component is given. */
  | { readonly kind: 'prop'; readonly name: string }
  /** What the app remembers. */
  | { readonly kind: 'variable'; readonly name: string }
  /** A field of a record; nothing where there is no record. */
  | { readonly kind: 'field'; readonly of: Expression; readonly name: string }
  /** What the address says, in its path or its query. */
  | { readonly kind: 'parameter'; readonly in: 'path' | 'query'; readonly name: string }
  /** All records of a collection, by the name that it has in code. */
  | { readonly kind: 'records'; readonly name: string }
  /** The record that a screen shows: its name there, the collection, and what gives it. */
  | { readonly kind: 'record'; readonly name: string; readonly of: string; readonly from: string }
  /** One of the records that something looks at each of. */
  | { readonly kind: 'item'; readonly name: string }
  | {
      readonly kind: 'arithmetic';
      readonly by: 'plus' | 'minus' | 'times' | 'over' | 'rest';
      readonly left: Expression;
      readonly right: Expression;
    }
  | { readonly kind: 'call'; readonly name: CalledFunction; readonly args: readonly Expression[] }
  /** A function that looks at each of a list. */
  | {
      readonly kind: 'each';
      readonly by: EachFunction;
      readonly list: Expression;
      readonly item: string;
      readonly of: Expression;
    }
  /** What a list of records says of how it is shown, by the name that it has where it stands. */
  | {
      readonly kind: 'listing';
      readonly of: string;
      /** What gives it that name. */
      readonly from: string;
      readonly asks: ListingQuestion;
      readonly given: readonly (string | number)[];
    }
  /** Whether a part is open, by its id; `of` is what is asked, `first` the one of several that is shown at first. */
  | { readonly kind: 'disclosed'; readonly of: string; readonly first?: string; readonly id: Expression }
  /** Whether the present address is one of these. */
  | { readonly kind: 'at'; readonly addresses: readonly Expression[] }
  | { readonly kind: 'not'; readonly of: Expression }
  | { readonly kind: 'and' | 'or'; readonly of: readonly Expression[] }
  | {
      readonly kind: 'compare';
      readonly by: Comparison;
      readonly left: Expression;
      readonly right: Expression;
    }
  | {
      readonly kind: 'choice';
      readonly when: Expression;
      readonly yes: Expression;
      readonly no: Expression;
    }
  /** One text of several parts; a part that is not there is left out. */
  | { readonly kind: 'text'; readonly parts: readonly Expression[] };

export const literal = (value: string | number | boolean | undefined): Expression => ({
  kind: 'literal',
  value,
});
export const propNamed = (name: string): Expression => ({ kind: 'prop', name });
/** What a list says of itself. */
export const listing = (
  { name, hook }: { readonly name: string; readonly hook: string },
  asks: ListingQuestion,
  ...given: readonly (string | number)[]
): Expression => ({ kind: 'listing', of: name, from: hook, asks, given });
export const atOneOf = (...addresses: readonly Expression[]): Expression => ({ kind: 'at', addresses });
export const equals = (left: Expression, right: string | number): Expression => ({
  kind: 'compare',
  by: 'equal',
  left,
  right: literal(right),
});
export function not(of: Expression): Expression {
  if (of.kind === 'not') return of.of;
  if (of.kind === 'compare' && of.by === 'equal') return { ...of, by: 'different' };
  return { kind: 'not', of };
}
export const choice = (when: Expression, yes: Expression, no: Expression): Expression => ({
  kind: 'choice',
  when,
  yes,
  no,
});

/** All of these, each said once; null for none. */
export function allOf(terms: readonly Expression[]): Expression | null {
  const said = new Map(terms.flatMap(conjuncts).map((term) => [JSON.stringify(term), term]));
  const of = [...said.values()];
  return of.length > 1 ? { kind: 'and', of } : (of[0] ?? null);
}

/** What all has to hold for an expression to hold. */
export const conjuncts = (expression: Expression): readonly Expression[] =>
  expression.kind === 'and' ? expression.of.flatMap(conjuncts) : [expression];

/** The expressions that an expression is made of. */
export function partsOf(expression: Expression): readonly Expression[] {
  switch (expression.kind) {
    case 'literal':
    case 'prop':
    case 'variable':
    case 'parameter':
    case 'listing':
    case 'records':
    case 'record':
    case 'item':
      return [];
    case 'disclosed':
      return [expression.id];
    case 'call':
      return expression.args;
    case 'each':
      return [expression.list, expression.of];
    case 'field':
    case 'not':
      return [expression.of];
    case 'at':
      return expression.addresses;
    case 'and':
    case 'or':
      return expression.of;
    case 'compare':
    case 'arithmetic':
      return [expression.left, expression.right];
    case 'choice':
      return [expression.when, expression.yes, expression.no];
    case 'text':
      return expression.parts;
  }
}

/** The expression with each part of it, and at last itself, replaced by what `change` makes of it. */
export function mapExpression(
  expression: Expression,
  change: (expression: Expression) => Expression,
): Expression {
  const inner = (one: Expression): Expression => mapExpression(one, change);
  switch (expression.kind) {
    case 'literal':
    case 'prop':
    case 'variable':
    case 'parameter':
    case 'listing':
    case 'records':
    case 'record':
    case 'item':
      return change(expression);
    case 'disclosed':
      return change({ ...expression, id: inner(expression.id) });
    case 'call':
      return change({ ...expression, args: expression.args.map(inner) });
    case 'each':
      return change({ ...expression, list: inner(expression.list), of: inner(expression.of) });
    case 'field':
    case 'not':
      return change({ ...expression, of: inner(expression.of) });
    case 'at':
      return change({ ...expression, addresses: expression.addresses.map(inner) });
    case 'and':
    case 'or':
      return change({ ...expression, of: expression.of.map(inner) });
    case 'compare':
    case 'arithmetic':
      return change({ ...expression, left: inner(expression.left), right: inner(expression.right) });
    case 'choice':
      return change({
        ...expression,
        when: inner(expression.when),
        yes: inner(expression.yes),
        no: inner(expression.no),
      });
    case 'text':
      return change({ ...expression, parts: expression.parts.map(inner) });
  }
}

/** Visits an expression and all parts of it, from the outside inwards. */
export function eachPart(expression: Expression, visit: (part: Expression) => void): void {
  visit(expression);
  for (const part of partsOf(expression)) eachPart(part, visit);
}

/** Whether an expression, or a part of it, is such a one. */
export const mentions = (expression: Expression, test: (part: Expression) => boolean): boolean =>
  test(expression) || partsOf(expression).some((part) => mentions(part, test));

/**
 * Whether an expression looks at records, one of them or all.
 * @param inside what is called so within the expression that it is a part of, and is no record at hand
 */
export function looksAtRecords(expression: Expression, inside: ReadonlySet<string> = new Set()): boolean {
  switch (expression.kind) {
    case 'records':
    case 'record':
      return true;
    case 'item':
      return !inside.has(expression.name);
    case 'each':
      return (
        looksAtRecords(expression.list, inside) ||
        looksAtRecords(expression.of, new Set([...inside, expression.item]))
      );
    default:
      return partsOf(expression).some((part) => looksAtRecords(part, inside));
  }
}

/** Whether an expression looks at the present address. */
export const usesAddress = (expression: Expression): boolean =>
  mentions(expression, ({ kind }) => kind === 'at');

/** Names of the props that an expression looks at, in order. */
export const propsOf = (expression: Expression): ReadonlySet<string> => namesOf(expression, 'prop');
/** Names of the variables that an expression looks at, in order. */
export const variablesOf = (expression: Expression): ReadonlySet<string> => namesOf(expression, 'variable');

/** Names of the collections all of whose records an expression looks at, in order. */
export const collectionsOf = (expression: Expression): ReadonlySet<string> => namesOf(expression, 'records');

function namesOf(expression: Expression, kind: 'prop' | 'variable' | 'records'): ReadonlySet<string> {
  const names = new Set<string>();
  eachPart(expression, (part) => {
    if (part.kind === kind) names.add(part.name);
  });
  return names;
}
