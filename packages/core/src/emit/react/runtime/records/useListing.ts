import { useSearchParams } from 'react-router';
import { type KeptListing, listingOf, type ListingOptions, type Words } from './listing';
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
  const all = useRecords(records);
  const [params, setParams] = useSearchParams();
  const words: Record<string, string> = {};
  for (const [name, value] of params)
    if (name.startsWith(prefix)) words[name.slice(prefix.length)] = value;
  const write = (next: Words): void => {
    setParams(
      (before) => {
        for (const [name, value] of Object.entries(next))
          if (value) before.set(prefix + name, value);
          else before.delete(prefix + name);
        return before;
      },
      { replace: true, preventScrollReset: true },
    );
  };
  const { add, change, remove } = records;
  return { ...listingOf(all, words, options, write), add, change, remove };
}
