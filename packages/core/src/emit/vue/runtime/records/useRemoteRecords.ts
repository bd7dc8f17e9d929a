import { useQuery } from '@tanstack/vue-query';
import { computed, type ComputedRef } from 'vue';
import { givenFor } from './asked';
import type { Kept } from './records';
import type { Given, Remote } from './remote';

/** All records that an API keeps of one kind; none until they are there. */
export function useRemoteRecords<T extends Kept>(remote: Remote<T>): ComputedRef<readonly T[]> {
  const { data } = useQuery({
    queryKey: [remote.source.name, 'list', null],
    queryFn: ({ signal }) => givenFor(remote, null, signal),
  });
  return computed(() => (data.value as Given<T> | undefined)?.rows ?? []);
}
