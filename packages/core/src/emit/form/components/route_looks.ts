import { choice, type Expression, literal } from '../../../expression/expression.ts';
import type { MarkupElement } from '../markup.ts';

type Variant = NonNullable<MarkupElement['variant']>;

/** How something looks by the present route: the first look whose question is answered by yes, or that of all other routes. */
export interface RouteLooks {
  readonly looks: readonly { readonly when: Expression; readonly value: string }[];
  readonly otherwise: string;
}

/** How an element looks by the present route; null where that depends on anything else. */
export function routeLooks({ by, classes }: Variant): RouteLooks | null {
  if ('true' in classes)
    return isRouteTerm(by) ? { looks: [{ when: by, value: 'true' }], otherwise: 'false' } : null;
  const looks: { when: Expression; value: string }[] = [];
  let rest = by;
  for (; rest.kind === 'choice'; rest = rest.no) {
    const value = textIn(rest.yes);
    if (value === null || !isRouteTerm(rest.when)) return null;
    looks.push({ when: rest.when, value });
  }
  const otherwise = textIn(rest);
  return looks.length && otherwise !== null ? { looks, otherwise } : null;
}

/** By what a variant tells its looks apart: in the order in which it asks the present route, else as they are said. */
export function valuesInOrder(variant: Variant): string[] {
  const told = routeLooks(variant);
  return told ? [...told.looks.map(({ value }) => value), told.otherwise] : Object.keys(variant.classes);
}

/** The same looks, decided by other questions. */
export const lookAsked = ({ looks, otherwise }: RouteLooks, whens: readonly Expression[]): Expression =>
  looks[0].value === 'true'
    ? whens[0]
    : looks.reduceRight<Expression>(
        (no, { value }, i) => choice(whens[i], literal(value), no),
        literal(otherwise),
      );

/** Whether nodes look so by the present route, each by its own questions, but as many of them; or have one look. */
export function areByRoute(...nodes: readonly MarkupElement[]): boolean {
  const told = nodes.flatMap(({ variant }) => (variant ? [routeLooks(variant)] : []));
  return new Set(told.map((one) => one?.looks.length ?? 0)).size <= 1 && !told.includes(null);
}

/** Whether a term asks for the present route and for nothing else, or asks for nothing. */
export function isRouteTerm(term: Expression | undefined): boolean {
  switch (term?.kind) {
    case undefined:
      return true;
    case 'at':
      return term.addresses.every(({ kind }) => kind === 'literal');
    case 'not':
      return isRouteTerm(term.of);
    case 'and':
    case 'or':
      return term.of.every(isRouteTerm);
    default:
      return false;
  }
}

const textIn = (term: Expression): string | null =>
  term.kind === 'literal' && typeof term.value === 'string' ? term.value : null;
