/** What is worked out from records and texts. */

/** A value as a number: of a text the number in it; 0 where there is none. */
export function number(value: unknown): number {
  if (typeof value === 'number') return Number.isNaN(value) ? 0 : value;
  const found = /-?\d[\d,]*(\.\d+)?/.exec(String(value ?? ''));
  return found ? Number(found[0].replaceAll(',', '')) : 0;
}

const listed = <T>(list: readonly T[] | undefined): readonly T[] =>
  Array.isArray(list) ? list : [];
/** Of a list of texts each once, in order. */
export const unique = (list: readonly string[] | undefined): readonly string[] => [
  ...new Set(listed(list)),
];

/** What each of them says, as a list of texts. */
export const map = <T>(
  list: readonly T[] | undefined,
  of: (item: T) => unknown,
): readonly string[] => listed(list).map((item) => words(of(item)));

/** A list of texts with one more, unless it is there. */
export const including = (list: readonly string[] | undefined, text: unknown): readonly string[] =>
  unique([...listed(list), words(text)]);

/** A list of texts without one. */
export const without = (list: readonly string[] | undefined, text: unknown): readonly string[] =>
  listed(list).filter((one) => one !== words(text));

/** A list of texts without one that is in it, or with one that is not. */
export const toggled = (list: readonly string[] | undefined, text: unknown): readonly string[] =>
  holds(list, text) ? without(list, text) : including(list, text);

/** Whether a text is in a list. */
export const holds = (list: readonly string[] | undefined, text: unknown): boolean =>
  listed(list).includes(words(text));

export const join = (list: readonly string[] | undefined, between: unknown): string =>
  listed(list).join(words(between));

/** The record of this id; nothing where there is none. */
export const byId = <T extends { id: string }>(
  list: readonly T[] | undefined,
  id: unknown,
): T | undefined => listed(list).find((one) => one.id === id);

const words = (value: unknown): string =>
  value === undefined || value === null || typeof value === 'object' ? '' : String(value);

export const count = (list: readonly unknown[] | undefined): number => listed(list).length;

export const filter = <T>(
  list: readonly T[] | undefined,
  holds: (item: T) => unknown,
): readonly T[] => listed(list).filter((item) => holds(item));

const byWords = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** In the order of what each says: numbers by their size, texts as people sort them. */
export const sort = <T>(list: readonly T[] | undefined, by: (item: T) => unknown): readonly T[] =>
  [...listed(list)].sort((one, other) => {
    const [a, b] = [by(one), by(other)];
    return typeof a === 'number' && typeof b === 'number'
      ? a - b
      : byWords.compare(words(a), words(b));
  });

/** The first of them; nothing where there is none. */
export const first = <T>(list: readonly T[] | undefined): T | undefined => listed(list)[0];

export const sum = <T>(list: readonly T[] | undefined, of: (item: T) => unknown): number =>
  listed(list).reduce((total, item) => total + number(of(item)), 0);

/** The smallest of these, and the largest; 0 where there is none. */
export const least = <T>(list: readonly T[] | undefined, of: (item: T) => unknown): number =>
  listed(list).length ? Math.min(...listed(list).map((item) => number(of(item)))) : 0;
export const most = <T>(list: readonly T[] | undefined, of: (item: T) => unknown): number =>
  listed(list).length ? Math.max(...listed(list).map((item) => number(of(item)))) : 0;

/** An address that can be gone to: one on the web, of mail or of a telephone; nothing for any other. */
export const address = (value: unknown): string | undefined =>
  /^(https?:|mailto:|tel:)/i.test(words(value).trim()) ? words(value).trim() : undefined;

export const upper = (text: unknown): string => words(text).toUpperCase();
export const lower = (text: unknown): string => words(text).toLowerCase();
export const contains = (text: unknown, part: unknown): boolean =>
  lower(text).includes(lower(part));

/** The day that it is, as `2026-03-01`. */
export const today = (): string => new Date().toLocaleDateString('sv');

export const formatNumber = (value: unknown): string => number(value).toLocaleString();

/** @param currency its three letters */
export function formatMoney(value: unknown, currency: unknown): string {
  const code = /^[A-Z]{3}$/.test(words(currency)) ? words(currency) : 'EUR';
  return number(value).toLocaleString(undefined, { style: 'currency', currency: code });
}

/** A date as people write it; what is none stays as it is. */
export function formatDate(value: unknown): string {
  const time = Date.parse(words(value));
  return Number.isNaN(time)
    ? words(value)
    : new Date(time).toLocaleDateString(undefined, { dateStyle: 'medium' });
}
