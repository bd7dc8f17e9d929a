import { useQuery } from '@tanstack/vue-query';
import { computed, type ComputedRef } from 'vue';
import { useRoute } from 'vue-router';
import type { Kept } from './records';
import { type Given, oneOf, type Remote } from './remote';

/** The record whose id a parameter of the address says; nothing until it is there, and where there is none. */
export function useRemoteRecord<T extends Kept>(
  remote: Remote<T>,
  parameter: string,
): ComputedRef<T | undefined> {
  const route = useRoute();
  const id = computed(() => String(route.params[parameter] ?? ''));
  const { data } = useQuery({
    queryKey: [remote.source.name, 'one', id],
    queryFn: ({ signal }) => oneOf(remote, id.value, signal),
    enabled: computed(() => id.value !== ''),
  });
  return computed(() => (data.value as Given<T> | undefined)?.rows[0]);
}
