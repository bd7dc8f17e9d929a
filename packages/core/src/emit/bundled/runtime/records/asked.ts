import {
  type Listing,
  type ListingOptions,
  listingOf,
  lookedAt,
  queryOf,
  type Words,
} from './listing';
import type { Kept } from './records';
import type { Asked, Given, Remote, Source } from './remote';

/** A list of records that an API keeps. */
export type RemoteListing<T extends Kept> = Listing<T> &
  Pick<Remote<T>, 'all' | 'find' | 'add' | 'change' | 'remove'> & {
    /** Whether the first answer is still to come. */
    isWaiting: boolean;
    /** Why there is no answer; nothing where there is one. */
    problem: string;
    retry: () => void;
  };

/** What the API is asked for so that it gives just what is seen; null where all records have to be there for that. */
export function askedOf<T extends Kept>(
  { pages, search, sort = [], filter = [] }: Source<T>['does'],
  words: Words,
  { of, where, within = [], filtered, perPage }: ListingOptions<T>,
): Asked | null {
  const query = queryOf(words, filtered);
  const sorted = query.sort?.replace(/^-/, '');
  const can =
    pages &&
    !of &&
    !where &&
    perPage !== undefined &&
    (!query.search || search) &&
    (!sorted || (sort as readonly string[]).includes(sorted)) &&
    Object.keys(query.filters).every(
      (field) =>
        (filter as readonly string[]).includes(field) &&
        !(within as readonly string[]).includes(field),
    );
  if (!can) return null;
  const more = Math.max(1, query.more ?? 1);
  return {
    search: query.search,
    sort: query.sort,
    filters: query.filters,
    page: more > 1 ? 1 : Math.max(1, query.page ?? 1),
    perPage: perPage * more,
  };
}

/** What the API is to be asked for the records of a list. */
export const givenFor = <T extends Kept>(
  remote: Remote<T>,
  asked: Asked | null,
  signal: AbortSignal,
): Promise<Given<T>> =>
  asked ? remote.source.list(asked, signal) : remote.all(signal).then((rows) => ({ rows }));

/** A list as it is seen, from what the API gave. */
export function listingOfGiven<T extends Kept>(
  { rows, total }: Given<T>,
  asked: Asked | null,
  words: Words,
  options: ListingOptions<T>,
  write: (words: Words) => void,
): Listing<T> {
  if (!asked) return listingOf(rows, words, options, write);
  const { page = 1, perPage = rows.length } = asked;
  const start = (page - 1) * perPage;
  // Where nobody says how many there are, a full page has another one behind it.
  const found = total ?? start + rows.length + (rows.length === perPage ? 1 : 0);
  const seen = {
    rows,
    total: found,
    found,
    first: rows.length ? start + 1 : 0,
    last: start + rows.length,
    page,
    pages: Math.max(1, Math.ceil(found / Math.max(1, perPage))),
  };
  return lookedAt(seen, queryOf(words, options.filtered), words, write);
}
