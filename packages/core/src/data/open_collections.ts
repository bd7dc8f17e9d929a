import type { App } from '../model/app.ts';
import type { CollectionProposal } from './collections.ts';
import { collectionProposalId } from './records.ts';

/** Proposed collections that nobody has taken or refused, in their order. */
export function openCollections(
  { collections, refused }: Pick<App, 'collections' | 'refused'>,
  proposals: readonly CollectionProposal[],
): CollectionProposal[] {
  const held = new Set(Object.values(collections).flatMap(({ rows }) => rows.map(({ element }) => element)));
  return proposals.filter(
    (one) =>
      !refused[collectionProposalId(one)] &&
      !one.places.every(({ rows }) => rows.every((row) => held.has(row))),
  );
}
