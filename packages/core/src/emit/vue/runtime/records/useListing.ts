import { computed, reactive } from 'vue';
import { type KeptListing, type Listing, listingOf, type ListingOptions } from './listing';
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
  const listing = computed(() => listingOf(rows.value, words.value, options, write));
  const names = Object.keys(listing.value) as (keyof Listing<T>)[];
  const values = names.map((name) => [name, computed(() => listing.value[name])] as const);
  const { all, find, add, change, remove } = records;
  const made = { ...Object.fromEntries(values), all, find, add, change, remove };
  return reactive(made) as unknown as KeptListing<T>;
}
