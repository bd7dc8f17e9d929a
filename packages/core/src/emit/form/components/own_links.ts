import { atOneOf, type Expression, mapExpression } from '../../../expression/expression.ts';
import { isElement, type MarkupElement } from '../markup.ts';

/** The address of the link around each node, as far as nodes depend on whether it is the present one. */
const addresses = new WeakMap<MarkupElement, string>();

/** The address of the link around a node, where that is known. */
export const addressAt = (node: MarkupElement): string | undefined => addresses.get(node);

/** What stands for another node is within the same link. */
export function keepAddress(of: MarkupElement, node: MarkupElement): void {
  const address = addresses.get(of);
  if (address !== undefined) addresses.set(node, address);
}

/** Notes for all nodes within a link where it leads, so that `pathname === '/there'` is the same for each link. */
export function noteAddresses(node: MarkupElement, address: string | null = null): void {
  // Where an outer component says where it leads, no address is the one that it leads to.
  const own = node.link?.kind === 'go' ? (node.slots?.to ? null : node.link.to) : address;
  if (own !== null) addresses.set(node, own);
  for (const child of node.children) if (isElement(child)) noteAddresses(child, own);
}

/** Terms of a node with the address of its own link made neutral. */
export function ownTerms(node: MarkupElement, terms: readonly (Expression | undefined)[]): string {
  if (!terms.some(Boolean)) return '';
  const address = addresses.get(node);
  return JSON.stringify(
    terms.map((term) =>
      term && address !== undefined ? renamedAddress(term, address, OWN_ADDRESS) : (term ?? null),
    ),
  );
}

/** Stands for the address of the link that a term is within. */
const OWN_ADDRESS: Expression = { kind: 'parameter', in: 'path', name: '' };

/** The terms of what asks whether its own link is the present one, and nothing else. */
export const OWN_WAY = JSON.stringify([atOneOf(OWN_ADDRESS)]);

/** A term that looks at something else than this one address where it asks whether that is the present one. */
export const renamedAddress = (term: Expression, address: string, other: Expression): Expression =>
  mapExpression(term, (part) =>
    part.kind === 'at'
      ? atOneOf(
          ...part.addresses.map((one) => (one.kind === 'literal' && one.value === address ? other : one)),
        )
      : part,
  );
