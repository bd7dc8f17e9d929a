import { type Expression, literal } from './expression.ts';
import type { Type } from './language.ts';

/** An expression as a text that says it; yes and no in words. A text and a date are one already. */
export function asText(expression: Expression, { kind }: Pick<Type, 'kind'>): Expression {
  if (kind === 'yes-no') return { kind: 'choice', when: expression, yes: literal('yes'), no: literal('no') };
  return kind === 'text' || kind === 'date' ? expression : { kind: 'text', parts: [expression] };
}
