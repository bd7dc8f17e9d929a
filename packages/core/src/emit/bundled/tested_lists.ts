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

/**
 * What lists that can be searched show when somebody looks for what the first of their records is called.
 * @param placeOf the address of a screen, and what must hold there; null for one that has none
 */
export function testedLists(
  { live, records, lists }: EmittedCollection,
  placeOf: (screen: string) => (Pick<TestedList, 'at'> & Required<Pick<TestedList, 'given'>>) | null,
): TestedList[] {
  const title = live.title;
  if (title === undefined) return [];
  return live.views.flatMap((view): TestedList[] => {
    const place = placeOf(view.screen);
    const { where, searched, perPage } = view.options;
    if (!place || !searched.includes(title) || !lists.has(view)) return [];
    const all = records.filter((record) => isIn(record, where));
    const says = (record: (typeof all)[number], field: string): string => String(record[field] ?? '').trim();
    const first = all.slice(0, perPage).filter((record) => says(record, title) !== '');
    if (first.length < LEAST_RECORDS) return [];
    const search = says(first[0], title);
    const words = search.toLowerCase().split(/\s+/);
    const fits = (record: (typeof all)[number]): boolean =>
      words.every((word) => searched.some((field) => says(record, field).toLowerCase().includes(word)));
    const hides = first
      .filter((record) => !fits(record))
      .map((record) => says(record, title))
      // What says it within a longer text stays.
      .filter((text) => !all.some((record) => fits(record) && says(record, title).includes(text)));
    const { at, given } = place;
    const asked = `${at}?${live.prefix}search=${encodeURIComponent(search)}`;
    return [
      {
        at,
        asked,
        shows: [search],
        hides: [...new Set(hides)],
        ...(Object.keys(given).length ? { given } : {}),
      },
    ];
  });
}

const isIn = (record: Readonly<Record<string, unknown>>, where: Where | undefined): boolean =>
  !where || ('field' in where ? record[where.field] === where.value : where.ids.includes(String(record.id)));

export const listsJson = (lists: readonly TestedList[]): string => `${JSON.stringify(lists, null, 2)}\n`;

/**
 * The part of the app's own tests that asks its lists.
 * @param opening how a test opens an address, as a call of which the argument is given
 * @param closing how it closes what it opened
 */
export const listsTest = (
  opening: (address: string) => string,
  closing: string,
  hasVariables: boolean,
): string => `
interface ListedList {
  at: string;
  asked: string;
  shows: string[];
  hides: string[];
  given?: Record<string, boolean>;
}

const plain = (text: string | null): string => (text ?? '').replace(/\\s+/g, '');
const times = (container: Element, text: string): number =>
  plain(container.textContent).split(plain(text)).length - 1;

test.each(lists as ListedList[])('$asked shows what one looks for', async (list) => {
  const { at, asked, shows, hides${hasVariables ? ', given = {}' : ''} } = list;
${hasVariables ? '  for (const [name, value] of Object.entries(given))\n    setVariable(name as keyof Variables, value);\n' : ''}  const whole = await ${opening('at')};
  const before = hides.map((text) => times(whole.container, text));
  ${closing};
  const { container } = await ${opening('asked')};
  for (const text of shows) expect(times(container, text), text).toBeGreaterThan(0);
  hides.forEach((text, i) => expect(times(container, text), text).toBeLessThan(before[i]));
});
`;
