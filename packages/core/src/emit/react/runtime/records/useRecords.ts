import { useSyncExternalStore } from 'react';
import type { Kept, Records } from './records';

/** The records of a collection as they are. */
export const useRecords = <T extends Kept>(records: Records<T>): readonly T[] =>
  useSyncExternalStore(records.subscribe, records.all);
