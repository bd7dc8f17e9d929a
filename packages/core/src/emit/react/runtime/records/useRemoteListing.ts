import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { askedOf, givenFor, listingOfGiven, type RemoteListing } from './asked';
import type { ListingOptions } from './listing';
import type { Kept } from './records';
import type { Remote } from './remote';
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
  const asked = askedOf(remote.source.does, words, options);
  const { data, error, isPending, refetch } = useQuery({
    queryKey: [remote.source.name, 'list', asked],
    queryFn: ({ signal }) => givenFor(remote, asked, signal),
    placeholderData: keepPreviousData,
  });
  const { all, find, add, change, remove } = remote;
  return {
    ...listingOfGiven(data ?? { rows: [] }, asked, words, options, write),
    all,
    find,
    add,
    change,
    remove,
    isWaiting: isPending,
    problem: error?.message ?? '',
    retry: () => void refetch(),
  };
}
