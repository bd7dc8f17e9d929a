import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, reactive } from 'vue';
import { askedOf, givenFor, listingOfGiven, type RemoteListing } from './asked';
import type { Listing, ListingOptions } from './listing';
import type { Kept } from './records';
import type { Given, Remote } from './remote';
import { useWords } from './useWords';

/**
 * A list of records that an API keeps, as the address says that it is looked at. What was seen last stays until what is asked
 * for is there.
 * @param prefix before each of its words in the address, where several lists stand on a page
 */
export function useRemoteListing<T extends Kept>(
  remote: Remote<T>,
  options: ListingOptions<T>,
  prefix = '',
): RemoteListing<T> {
  const [words, write] = useWords(prefix);
  const asked = computed(() => askedOf(remote.source.does, words.value, options));
  const { data, error, isPending, refetch } = useQuery({
    queryKey: [remote.source.name, 'list', asked],
    queryFn: ({ signal }) => givenFor(remote, asked.value, signal),
    placeholderData: keepPreviousData,
  });
  const listing = computed(() => {
    const given = (data.value as Given<T> | undefined) ?? { rows: [] };
    return listingOfGiven(given, asked.value, words.value, options, write);
  });
  const names = Object.keys(listing.value) as (keyof Listing<T>)[];
  const values = names.map((name) => [name, computed(() => listing.value[name])] as const);
  const { all, find, add, change, remove } = remote;
  const made = {
    ...Object.fromEntries(values),
    all,
    find,
    add,
    change,
    remove,
    isWaiting: isPending,
    problem: computed(() => error.value?.message ?? ''),
    retry: () => void refetch(),
  };
  return reactive(made) as unknown as RemoteListing<T>;
}
