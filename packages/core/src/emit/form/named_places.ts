import { eachPart, type Expression, mapExpression, propNamed, propsOf } from '../../expression/expression.ts';
import { camelCase, uniqueCodeName } from '../../model/names.ts';
import { type MarkupElement, textIn, visitTerms, withAllTerms } from './markup.ts';

/** Where one is, under a name. */
export interface NamedPlace {
  readonly name: string;
  readonly expression: Expression;
}

type At = Extract<Expression, { readonly kind: 'at' }>;

/** Longer texts are no names, and longer lists of places no good ones. */
const LONGEST_TEXT = 24;
const LONGEST_NAME = 40;

/**
 * Gives a name to each question whether one is at some place that markup asks more than once, and asks by the name: as a
 * person would write it once above the markup. Called after the addresses, which stay when texts change.
 * @param taken names that are given otherwise
 */
export function withNamedPlaces(
  root: MarkupElement,
  taken: ReadonlySet<string>,
): { readonly root: MarkupElement; readonly places: readonly NamedPlace[] } {
  const asked = new Map<string, { expression: At; count: number; says: string }>();
  visitTerms(root, (term, at) =>
    eachPart(term, (part) => {
      if (part.kind !== 'at' || propsOf(part).size) return;
      const key = JSON.stringify(part);
      const known = asked.get(key);
      if (known) known.count++;
      else asked.set(key, { expression: part, count: 1, says: textIn(at) });
    }),
  );
  const names = new Map<string, NamedPlace>();
  for (const [key, { expression, count, says }] of asked) {
    if (count < 2) continue;
    const name = uniqueCodeName(
      camelCase(nameOf(expression, says)),
      'isHere',
      (one) => taken.has(one) || [...names.values()].some((other) => other.name === one),
    );
    names.set(key, { name, expression });
  }
  if (!names.size) return { root, places: [] };
  const renamed = (term: Expression): Expression =>
    mapExpression(term, (part) => {
      const known = part.kind === 'at' ? names.get(JSON.stringify(part)) : undefined;
      return known ? propNamed(known.name) : part;
    });
  return { root: withAllTerms(root, renamed), places: [...names.values()] };
}

/** `is at tables`, `is at buttons or cards`; of more places what the first element that asks says. */
function nameOf({ addresses }: At, says: string): string {
  const words = addresses.map((address) => {
    const route = address.kind === 'literal' ? String(address.value) : '';
    return route.split('/').filter(Boolean).at(-1) ?? 'start';
  });
  const listed = `is at ${words.join(' or ')}`;
  if (words.length < 3 && listed.length <= LONGEST_NAME) return listed;
  return says && says.length <= LONGEST_TEXT ? `is in ${says}` : `is at ${words[0]} and others`;
}
