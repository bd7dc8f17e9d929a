import { onScopeDispose, shallowRef, type ShallowRef } from 'vue';
import type { Kept, Records } from './records';

/** The records of a collection as they are. */
export function useRecords<T extends Kept>(
  records: Records<T>,
): Readonly<ShallowRef<readonly T[]>> {
  const all = shallowRef(records.all());
  onScopeDispose(records.subscribe(() => (all.value = records.all())));
  return all;
}
