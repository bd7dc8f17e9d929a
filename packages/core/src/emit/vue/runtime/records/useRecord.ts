import { computed, type ComputedRef } from 'vue';
import { useRoute } from 'vue-router';
import type { Kept, Records } from './records';
import { useRecords } from './useRecords';

/** The record whose id a parameter of the address says; nothing where there is none. */
export function useRecord<T extends Kept>(
  records: Records<T>,
  parameter: string,
): ComputedRef<T | undefined> {
  const route = useRoute();
  const all = useRecords(records);
  return computed(() => all.value.find((record) => record.id === route.params[parameter]));
}
