import { hash } from '../json/hash.ts';

/** Several places that are built alike, as a proposal. */
export interface ComponentProposal {
  /** Stays the same while the places do: what was refused does not come back unless they change. */
  readonly id: string;
  readonly kind: 'component' | 'list';
  readonly name: string;
  /** Element keys, in reading order; of a list its rows. */
  readonly places: readonly string[];
  /** Of a list: the element that holds the rows. */
  readonly within?: string;
  /** How many elements need not be written again. */
  readonly saves: number;
  readonly confidence: number;
  readonly reason: string;
}

/** A proposal, with what it could be called besides where another has its name. */
export interface Named extends ComponentProposal {
  readonly others: readonly string[];
}

export const idOf = (kind: string, places: readonly string[]): string =>
  `${kind} ${hash(places.toSorted().join(' '))}`;
