import type { Expression } from '../../../expression/expression.ts';
import { onceFor } from '../../../json/once_for.ts';
import { type MarkupElement, openAt } from '../markup.ts';
import { addressAt, OWN_WAY, ownTerms } from './own_links.ts';
import { areByRoute, isRouteTerm } from './route_looks.ts';

/** Whether two terms say the same. */
export const isSameTerm = (a: Expression | undefined, b: Expression | undefined): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);

/** What nodes are held against each other by, many times over, with their own links made neutral. */
const traitsOf = onceFor((node: MarkupElement) => ({
  /** What it is left out without. */
  when: ownTerms(node, [node.when]),
  open: ownTerms(node, [openAt(node)]),
  /** What says which look each aspect has. */
  aspects: ownTerms(
    node,
    (node.aspects ?? []).map(({ by }) => by),
  ),
  /** What says what all of it looks like. */
  variant: ownTerms(node, [node.variant?.by]),
  way: wayOf(node),
}));

/** Whether one looks whether its own link is the present one, and the other has one look. */
const isOwnWay = (one: MarkupElement, other: MarkupElement): boolean =>
  !other.variant && traitsOf(one).variant === OWN_WAY && addressAt(other) !== undefined;

/** Whether two nodes can be one with slots. */
export function isCompatible(a: MarkupElement, b: MarkupElement): boolean {
  if (a.tag !== b.tag || a.form !== b.form) return false;
  if (a.use || b.use || !!a.asset !== !!b.asset) return false;
  const [one, other] = [traitsOf(a), traitsOf(b)];
  // What already depends on a prop, within another component, has to depend on the same.
  if (one.when !== other.when) return false;
  if (one.open !== other.open && !(isRouteTerm(openAt(a)) && isRouteTerm(openAt(b)))) return false;
  if (one.aspects !== other.aspects) return false;
  if (one.variant !== other.variant && !(isOwnWay(a, b) || isOwnWay(b, a) || areByRoute(a, b))) return false;
  return one.way === other.way;
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
