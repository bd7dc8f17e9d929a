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
  if (!isSamePart(a.part, b.part)) return false;
  if (a.use || b.use || !!a.asset !== !!b.asset) return false;
  // What already depends on a prop, within another component, has to depend on the same.
  if (ownTerms(a, [a.when]) !== ownTerms(b, [b.when])) return false;
  if (openTerm(a) !== openTerm(b) && !(isRouteTerm(openAt(a)) && isRouteTerm(openAt(b)))) return false;
  if (aspectTerms(a) !== aspectTerms(b)) return false;
  if (variantTerm(a) !== variantTerm(b) && !(isOwnWay(a, b) || isOwnWay(b, a) || areByRoute(a, b)))
    return false;
  if (a.link?.kind !== b.link?.kind) return false;
  if ((a.acts || b.acts) && JSON.stringify(a.acts) !== JSON.stringify(b.acts)) return false;
  if (a.link?.kind === 'disclose' && b.link?.kind === 'disclose')
    return isSamePart({ ...a.link, id: '' }, { ...b.link, id: '' });
  if (a.link?.kind === 'file' && JSON.stringify(a.link) !== JSON.stringify(b.link)) return false;
  if (a.link && b.link && 'arrival' in a.link && 'arrival' in b.link)
    return JSON.stringify(a.link.arrival) === JSON.stringify(b.link.arrival);
  return true;
}

/** Whether parts that open and close, or what opens them, do so alike, whichever is open at first. */
function isSamePart<T extends { readonly isOpen?: unknown }>(a: T | undefined, b: T | undefined): boolean {
  if (!a || !b) return a === b;
  const [{ isOpen: _a, ...one }, { isOpen: _b, ...other }] = [a, b];
  return JSON.stringify(one) === JSON.stringify(other);
}
