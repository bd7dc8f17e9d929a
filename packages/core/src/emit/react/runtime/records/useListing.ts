import { type KeptListing, listingOf, type ListingOptions } from './listing';
import type { Kept, Records } from './records';
import { useRecords } from './useRecords';
import { useWords } from './useWords';

/**
 * A list of records as the address says that it is looked at.
 * @param prefix before each of its words in the address, where several lists stand on a page
 */
export function useListing<T extends Kept>(
  records: Records<T>,
  options: ListingOptions<T>,
  prefix = '',
): KeptListing<T> {
  const rows = useRecords(records);
  const [words, write] = useWords(prefix);
  const { all, find, add, change, remove } = records;
  return { ...listingOf(rows, words, options, write), all, find, add, change, remove };
}
