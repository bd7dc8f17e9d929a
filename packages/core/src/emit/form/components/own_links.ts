import { atOneOf, type Expression, literal, mapExpression } from '../../../expression/expression.ts';
import { equalJson } from '../../../json/json.ts';
import { isElement, type MarkupElement } from '../markup.ts';

/** Where the link around a node leads, or which part the control around it opens, as far as nodes depend on that. */
export interface OwnLink {
  readonly address?: string;
  readonly part?: string;
}
export const NO_LINK: OwnLink = {};
const own = new WeakMap<MarkupElement, OwnLink>();

/** The link or control that a node is within, which it may be itself. */
export const ownLinkOf = (node: MarkupElement): OwnLink => own.get(node) ?? NO_LINK;

/** The address of the link around a node, where that is known. */
export const addressAt = (node: MarkupElement): string | undefined => ownLinkOf(node).address;

/** What stands for another node is within the same link. */
export function keepAddress(of: MarkupElement, node: MarkupElement): void {
  const link = own.get(of);
  if (link !== undefined) own.set(node, link);
}

/**
 * Notes for all nodes within a link where it leads, so that `pathname === '/there'` is the same for each link; and for those
 * within what opens a part which that is.
 */
export function noteAddresses(node: MarkupElement, outer: OwnLink = NO_LINK): void {
  const link = linkOf(node) ?? outer;
  if (link !== NO_LINK) own.set(node, link);
  for (const child of node.children) if (isElement(child)) noteAddresses(child, link);
}

/** Where a link leads; undefined for what is none. */
export function linkOf({ link, slots }: MarkupElement): OwnLink | undefined {
  if (link?.kind !== 'go' && link?.kind !== 'disclose') return undefined;
  // Where an outer component says where it leads, no address is the one that it leads to.
  if (slots?.to) return NO_LINK;
  return link.kind === 'go' ? { address: link.to } : { part: link.id };
}

/** Terms of a node with the address of its own link made neutral. */
export function ownTerms(node: MarkupElement, terms: readonly (Expression | undefined)[]): string {
  if (!terms.some(Boolean)) return '';
  const link = ownLinkOf(node);
  return JSON.stringify(terms.map((term) => (term ? renamedLink(term, link, OWN) : null)));
}

/** Stands for the address of the link that a term is within. */
const OWN: Expression = { kind: 'parameter', in: 'path', name: '' };

/** The terms of what asks whether its own link is the present one, and nothing else. */
export const OWN_WAY = JSON.stringify([atOneOf(OWN)]);

/** A term that looks at something else than this one link where it asks whether that is the present one, or what it opens is open. */
export const renamedLink = (term: Expression, { address, part }: OwnLink, other: Expression): Expression =>
  address === undefined && part === undefined
    ? term
    : mapExpression(term, (one) => {
        if (one.kind === 'at' && address !== undefined)
          return atOneOf(
            ...one.addresses.map((at) => (at.kind === 'literal' && at.value === address ? other : at)),
          );
        const isPart = one.kind === 'disclosed' && part !== undefined && equalJson(one.id, literal(part));
        return isPart ? { ...one, id: other } : one;
      });
