import type { Expression } from '../../../expression/expression.ts';
import { type MarkupElement, openAt } from '../markup.ts';
import { addressAt, OWN_WAY, ownTerms } from './own_links.ts';
import { areByRoute, isRouteTerm } from './route_looks.ts';

/** Whether two terms say the same. */
export const isSameTerm = (a: Expression | undefined, b: Expression | undefined): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);

/** What says which look each aspect has, with its own link made neutral. */
const aspectTerms = (node: MarkupElement): string =>
  ownTerms(
    node,
    (node.aspects ?? []).map(({ by }) => by),
  );

/** The same of all that it looks like. */
const variantTerm = (node: MarkupElement): string => ownTerms(node, [node.variant?.by]);

/** Whether one looks whether its own link is the present one, and the other has one look. */
const isOwnWay = (one: MarkupElement, other: MarkupElement): boolean =>
  !other.variant && variantTerm(one) === OWN_WAY && addressAt(other) !== undefined;

const openTerm = (node: MarkupElement): string => ownTerms(node, [openAt(node)]);

/** Whether two nodes can be one with slots. */
export function isCompatible(a: MarkupElement, b: MarkupElement): boolean {
  if (a.tag !== b.tag || a.form !== b.form) return false;
  if (a.use || b.use || !!a.asset !== !!b.asset) return false;
  // What already depends on a prop, within another component, has to depend on the same.
  if (ownTerms(a, [a.when]) !== ownTerms(b, [b.when])) return false;
  if (openTerm(a) !== openTerm(b) && !(isRouteTerm(openAt(a)) && isRouteTerm(openAt(b)))) return false;
  if (aspectTerms(a) !== aspectTerms(b)) return false;
  if (variantTerm(a) !== variantTerm(b) && !(isOwnWay(a, b) || isOwnWay(b, a) || areByRoute(a, b)))
    return false;
  return wayOf(a) === wayOf(b);
}

/**
 * What an element does, and what opens and closes it, as far as elements have to agree on it to be one: nothing for what does
 * nothing and is always there.
 */
export function wayOf({ link, part, acts, form }: MarkupElement): string {
  if (!link && !part && !acts) return '';
  const { isOpen: _, ...opens } = part ?? {};
  return JSON.stringify([form ?? null, part ? opens : null, link ? linkWay(link) : null, acts ?? null]);
}

function linkWay(link: NonNullable<MarkupElement['link']>): unknown {
  if (link.kind === 'disclose') {
    const { isOpen: _, id: _id, ...opens } = link;
    return opens;
  }
  if (link.kind === 'file') return link;
  return 'arrival' in link ? [link.kind, link.arrival] : link.kind;
}
