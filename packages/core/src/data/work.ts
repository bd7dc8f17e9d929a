import type { Change } from '../change/change.ts';
import type { Collection, Interaction } from '../model/app.ts';
import type { DataRecord } from '../records/records.ts';
import type { CollectionProposal } from './collections.ts';

/** A collection that a control can be about: taken, or taken along. */
export interface KnownCollection {
  readonly id: string;
  readonly collection: Collection;
  readonly records: readonly DataRecord[];
  /** What it is taken from; not there where it is taken. */
  readonly proposal?: CollectionProposal;
}

/** What a control is to do, as it is put into the app. */
export interface PlannedDeed {
  readonly interaction: Interaction;
  /** Key of what does it, where that is not the control itself. */
  readonly at?: string;
  /** Whether it takes the place of what the control did. */
  readonly replaces?: boolean;
  readonly along?: Change;
  readonly of?: KnownCollection;
}
