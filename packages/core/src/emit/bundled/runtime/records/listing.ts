import type { Kept, Records } from './records';

/** How a list is looked at. What is not said is as it is by itself. */
export interface Query {
  search?: string;
  /** A field; with a minus before it from the last to the first. */
  sort?: string;
  /** What each field has to say. */
  filters: Readonly<Record<string, string>>;
  /** From 1 on. */
  page?: number;
  /** How many pages are shown as one. */
  more?: number;
}

export interface ListingOptions<T> {
  /** Which of all records are in the list, in which order. */
  of?: (all: readonly T[]) => readonly T[];
  /** Only these records are in the list at all. */
  where?: (record: T) => boolean;
  /** Fields that are searched. */
  searched?: readonly (keyof T & string)[];
  /** Fields that are sorted otherwise than as texts. */
  sortedAs?: Readonly<Partial<Record<keyof T & string, 'number' | 'date'>>>;
  /** Fields that are filtered by, and those of them that hold what is filtered by within what they say. */
  filtered?: readonly (keyof T & string)[];
  within?: readonly (keyof T & string)[];
  /** How many records are one page; all where that is not said. */
  perPage?: number;
}

/** What is seen of a list. */
export interface Seen<T> {
  rows: readonly T[];
  /** How many records there are, and how many of them fit. */
  total: number;
  found: number;
  /** Which of those that fit are seen, from 1 on; 0 where none is. */
  first: number;
  last: number;
  page: number;
  pages: number;
}

const texts = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });
const plain = (value: unknown): string =>
  String(value ?? '')
    .trim()
    .toLowerCase();

/** The records of a list as they are looked at. */
export function seenOf<T extends Kept>(
  records: readonly T[],
  query: Query,
  options: ListingOptions<T>,
): Seen<T> {
  const given = options.of ? options.of(records) : records;
  const all = options.where ? given.filter(options.where) : given;
  const words = plain(query.search).split(/\s+/).filter(Boolean);
  const fitting = all.filter(
    (record) =>
      words.every((word) =>
        (options.searched ?? []).some((field) => plain(record[field]).includes(word)),
      ) &&
      Object.entries(query.filters).every(([field, value]) => {
        const says = plain(record[field as keyof T]);
        return options.within?.includes(field as keyof T & string)
          ? says.includes(plain(value))
          : says === plain(value);
      }),
  );
  const sorted = sortedBy(fitting, query.sort ?? '', options);
  const perPage = options.perPage ?? Math.max(1, sorted.length);
  const pages = Math.max(1, Math.ceil(sorted.length / perPage));
  const page = Math.min(Math.max(1, query.page ?? 1), pages);
  const start = (page - 1) * perPage;
  const rows = sorted.slice(start, start + perPage * Math.max(1, query.more ?? 1));
  return {
    rows,
    total: all.length,
    found: sorted.length,
    first: rows.length ? start + 1 : 0,
    last: start + rows.length,
    page,
    pages,
  };
}

function sortedBy<T>(
  records: readonly T[],
  sort: string,
  { sortedAs }: ListingOptions<T>,
): readonly T[] {
  if (!sort) return records;
  const field = sort.replace(/^-/, '') as keyof T & string;
  const value = (record: T): string => String(record[field] ?? '').trim();
  const kind = sortedAs?.[field];
  const size = (text: string): number =>
    kind === 'date' ? Date.parse(text) : Number(text.replace(/[^\d.-]/g, '') || 'none');
  const compare = (a: T, b: T): number => {
    const [left, right] = [value(a), value(b)];
    if (!kind) return texts.compare(left, right);
    const difference = size(left) - size(right);
    // What is no number and no date is sorted as a text.
    return Number.isNaN(difference) ? texts.compare(left, right) : difference;
  };
  const sorted = [...records].sort(compare);
  return sort.startsWith('-') ? sorted.reverse() : sorted;
}

/** What is kept in the address of how a list is looked at. */
export type Words = Readonly<Record<string, string | undefined>>;

/** How an address says that a list is looked at. */
export const queryOf = (words: Words, filtered: readonly string[] = []): Query => ({
  search: words.search,
  sort: words.sort,
  filters: Object.fromEntries(
    filtered.flatMap((field) => (words[field] ? [[field, words[field]]] : [])),
  ),
  page: Number(words.page) || undefined,
  more: Number(words.more) || undefined,
});

/** A list of records, with what can be done to it. */
export interface Listing<T> extends Seen<T> {
  hasPrevious: boolean;
  hasNext: boolean;
  /** What is looked for. */
  sought: string;
  searchFor: (text: string) => void;
  /** By a field; by the same one again the other way round. */
  sortBy: (field: keyof T & string) => void;
  sortOf: (field: keyof T & string) => 'ascending' | 'descending' | 'none';
  arrowOf: (field: keyof T & string) => string;
  /** Only records that say this; all where nothing is said. */
  filterBy: (field: keyof T & string, value?: string) => void;
  filterOf: (field: keyof T & string) => string;
  goTo: (page: number | 'next' | 'previous' | 'first' | 'last') => void;
  showMore: () => void;
}

/** A list of records that are changed where it stands, too. */
export type KeptListing<T extends Kept> = Listing<T> &
  Pick<Records<T>, 'all' | 'find' | 'add' | 'change' | 'remove'>;

/** @param write what it becomes in the address; nothing for what is no longer said */
export function listingOf<T extends Kept>(
  records: readonly T[],
  words: Words,
  options: ListingOptions<T>,
  write: (words: Words) => void,
): Listing<T> {
  const query = queryOf(words, options.filtered);
  return lookedAt(seenOf(records, query, options), query, words, write);
}

/** What can be done to what is seen of a list. */
export function lookedAt<T extends Kept>(
  seen: Seen<T>,
  query: Query,
  words: Words,
  write: (words: Words) => void,
): Listing<T> {
  const { page, pages } = seen;
  const sortOf = (field: string) =>
    query.sort === field ? 'ascending' : query.sort === `-${field}` ? 'descending' : 'none';
  /** What changes which records are seen begins at the first page. */
  const anew = (next: Words): void =>
    write({ ...words, page: undefined, more: undefined, ...next });
  return {
    ...seen,
    hasPrevious: page > 1,
    hasNext: seen.last < seen.found,
    sought: query.search ?? '',
    searchFor: (text) => anew({ search: text || undefined }),
    sortBy: (field) => anew({ sort: sortOf(field) === 'ascending' ? `-${field}` : field }),
    sortOf,
    arrowOf: (field) => ({ ascending: ' ↑', descending: ' ↓', none: '' })[sortOf(field)],
    filterBy: (field, value) => anew({ [field]: value || undefined }),
    filterOf: (field) => query.filters[field] ?? '',
    goTo: (to) => {
      const wanted =
        to === 'next'
          ? page + 1
          : to === 'previous'
            ? page - 1
            : to === 'first'
              ? 1
              : to === 'last'
                ? pages
                : to;
      const next = Math.min(Math.max(1, wanted), pages);
      write({ ...words, more: undefined, page: next > 1 ? String(next) : undefined });
    },
    showMore: () => write({ ...words, more: String((query.more ?? 1) + 1) }),
  };
}
