import { computed, reactive } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import {
  type KeptListing,
  type Listing,
  listingOf,
  type ListingOptions,
  type Words,
} from './listing';
import type { Kept, Records } from './records';
import { useRecords } from './useRecords';

/**
 * A list of records as the address says that it is looked at.
 * @param prefix before each of its words in the address, where several lists stand on a page
 */
export function useListing<T extends Kept>(
  records: Records<T>,
  options: ListingOptions<T>,
  prefix = '',
): KeptListing<T> {
  const route = useRoute();
  const router = useRouter();
  const all = useRecords(records);
  const write = (next: Words): void => {
    const query = { ...route.query };
    for (const [name, value] of Object.entries(next))
      if (value) query[prefix + name] = value;
      else delete query[prefix + name];
    void router.replace({ query, hash: route.hash });
  };
  const listing = computed(() => {
    const words: Record<string, string> = {};
    for (const [name, value] of Object.entries(route.query))
      if (name.startsWith(prefix) && typeof value === 'string')
        words[name.slice(prefix.length)] = value;
    return listingOf(all.value, words, options, write);
  });
  const names = Object.keys(listing.value) as (keyof Listing<T>)[];
  const values = names.map((name) => [name, computed(() => listing.value[name])] as const);
  const { add, change, remove } = records;
  const made = { ...Object.fromEntries(values), add, change, remove };
  return reactive(made) as unknown as KeptListing<T>;
}
