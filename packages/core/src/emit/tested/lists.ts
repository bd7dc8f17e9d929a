import type { Where } from '../form/live/live.ts';
import type { EmittedCollection } from '../form/live/records.ts';

/** A list of the app as its own test asks it: where it stands, what is looked for, and what is seen of it then. */
export interface TestedList {
  readonly at: string;
  /** The same address with what is looked for. */
  readonly asked: string;
  /** Texts that stand there as often as before, and texts that stand there less often. */
  readonly shows: readonly string[];
  readonly hides: readonly string[];
  /** Variables that have to be so for its screen to be shown. */
  readonly given?: Readonly<Record<string, boolean>>;
}

/** Fewer records tell nothing apart. */
const LEAST_RECORDS = 2;
/** So many are looked for by their names. */
const MOST_TITLES = 6;

type Row = EmittedCollection['records'][number];

/**
 * What lists show: their records, those that one looks for, those that say something, and those of the next page.
 * @param placeOf the address of a screen, and what must hold there; null for one that has none
 */
export function testedLists(
  { live, records, lists }: EmittedCollection,
  placeOf: (screen: string) => (Pick<TestedList, 'at'> & Required<Pick<TestedList, 'given'>>) | null,
): TestedList[] {
  const { title, isRemote } = live;
  const given = live.collection.behind?.fields ?? {};
  const isThere = (field: string): boolean => !isRemote || Object.hasOwn(given, field);
  if (title === undefined || !isThere(title)) return [];
  const calledOf = (record: Row): string => says(record, title);
  const calling = new Set(
    live.collection.rows.flatMap(({ element, shows }) => (Object.hasOwn(shows, title) ? [element] : [])),
  );
  return [...lists].flatMap((view): TestedList[] => {
    // Not all lists say what their records are called.
    const place = [...view.rows.keys()].every((row) => calling.has(row)) ? placeOf(view.screen) : null;
    const { of, where, searched, filtered, within, perPage = Infinity } = view.options;
    if (!place || of) return [];
    const all = records.filter((record) => isIn(record, where));
    const first = all.slice(0, perPage).filter((record) => calledOf(record) !== '');
    if (!first.length) return [];
    const { at } = place;
    const needs = Object.keys(place.given).length ? { given: place.given } : {};
    /** What is seen where some of the records are asked for; nothing where that tells nothing. */
    const asking = (words: string, seen: readonly Row[]): TestedList[] => {
      const shows = titles(seen.slice(0, perPage), title);
      // What says it within a longer text stays.
      const hides = titles(
        first.filter((record) => !seen.some((one) => calledOf(one).includes(calledOf(record)))),
        title,
      );
      return shows.length && hides.length ? [{ at, asked: `${at}?${words}`, shows, hides, ...needs }] : [];
    };
    const word = (name: string, value: string): string =>
      `${encodeURIComponent(live.prefix + name)}=${encodeURIComponent(value)}`;
    const isTold = first.length >= LEAST_RECORDS;
    const sought = calledOf(first[0]).toLowerCase().split(/\s+/);
    return [
      { at, asked: at, shows: titles(first, title), hides: [], ...needs },
      ...(isTold && searched.includes(title)
        ? asking(
            word('search', calledOf(first[0])),
            all.filter((record) =>
              sought.every((one) =>
                searched.some((field) => says(record, field).toLowerCase().includes(one)),
              ),
            ),
          )
        : []),
      ...filtered.flatMap((field) => {
        const value = says(first[0], field);
        if (!isTold || value === '' || within.includes(field) || !isThere(field)) return [];
        const wanted = value.toLowerCase();
        return asking(
          word(field, value),
          all.filter((record) => says(record, field).toLowerCase() === wanted),
        );
      }),
      ...(all.length > perPage ? asking(word('page', '2'), all.slice(perPage)) : []),
    ];
  });
}

const says = (record: Row, field: string): string => String(record[field] ?? '').trim();

const titles = (records: readonly Row[], title: string): string[] =>
  [...new Set(records.map((record) => says(record, title)))]
    .filter((text) => text !== '')
    .slice(0, MOST_TITLES);

/** Whether a record is among those of a list. */
export const isIn = (record: Row, where: Where | undefined): boolean =>
  !where || ('field' in where ? record[where.field] === where.value : where.ids.includes(record.id));
