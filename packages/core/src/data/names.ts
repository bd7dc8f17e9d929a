import { camelCase, capital, isUncountable, plural, singular } from '../model/names.ts';
import { wordsIn } from '../roles/called.ts';

/** Words of headings that say that there is a list, not of what. */
const ABOUT_LISTS = new Set(
  'table tables list lists all recent latest our new top data datatable example simple striped hover hoverable bordered responsive condensed full featured with without the a an of and for in on at to your my overview view manage management popular featured more other related here is are dark light plain background basic default card cards panel block grid results section item items row rows record records fixed header footer features sample small compact inverse inverted stretched stretch horizontal vertical info contextual default'.split(
    ' ',
  ),
);

/** When something was, and no thing. */
const SINCE = /\bago\b|\b(\d+|an?|few) (seconds?|minutes?|hours?|days?|weeks?|months?|years?)\b/i;

/**
 * What a heading over rows says that they are: the last noun that is not about lists, in the plural; null where it says
 * nothing. `Recent orders` → `orders`, `Tools in the sheds` → `tools`.
 */
export function collectionIn(heading: string): string | null {
  if (SINCE.test(heading)) return null;
  // What comes after a preposition says where or how, not what.
  const [head] = heading.split(
    /\s+(?:in|on|at|of|for|from|with|by|within|near|to|you|we|i|that|which|this|last)\s+|[:–—(|,]/i,
  );
  const all = wordsIn(head);
  const words = all.filter((word) => word.length > 1 && !ABOUT_LISTS.has(word) && !isAdjective(word));
  if (!words.length || words.length > 4) return null;
  const saysList = /\b(table|list|directory|catalogue|catalog|library)\b/i.test(head);
  const at = words.findLastIndex((word) => saysList || isPlural(word));
  return at < 0 ? null : joined(words, at);
}

/** What rows are whose author gave this name to them, or to what holds them: `Tool row` → `tools`. */
export function collectionOf(name: string): string | null {
  const words = wordsIn(name.replace(/([a-z])([A-Z])/g, '$1 $2')).filter(
    (word) =>
      word.length > 2 && !ABOUT_LISTS.has(word) && !STRUCTURE.has(singular(word)) && !isAdjective(word),
  );
  return words.length && words.length < 4 ? joined(words, words.length - 1) : null;
}

/** What says how something is: `hoverable`, `animated`. */
const isAdjective = (word: string): boolean => /[a-z]{3}[ai]ble$|[a-z]{3}[^e]ed$/.test(word);

/** Fields that people have, and few other things. */
const OF_PEOPLE = new Set(
  'firstName lastName username email phone age salary birthday dateOfBirth position office department'.split(
    ' ',
  ),
);
/** Fields of a figure on a tile: what it counts, and how many. */
const OF_FIGURES = /^(name|title|label|detail|number|count|share|price|amount|status)\d?$/;
const MOST_FIGURES = 8;

/**
 * What records are that nothing calls anything: by their fields, else after the screen that they stand on; null where neither
 * says anything.
 * @param rows how many of them there are
 */
export function collectionBy(
  fields: readonly { readonly name: string; readonly type: string }[],
  rows: number,
  screen: string,
): string | null {
  const names = fields.filter(({ type }) => type !== 'picture').map(({ name }) => name);
  const isNamed = names.some((name) => /name/i.test(name));
  if (isNamed && names.filter((name) => OF_PEOPLE.has(name)).length > 1) return 'people';
  const isCounted = fields.some(
    ({ name, type }) => type === 'number' || type === 'money' || /^(number|count|amount|share)$/.test(name),
  );
  if (isCounted && rows <= MOST_FIGURES && names.every((name) => OF_FIGURES.test(name))) return 'figures';
  const word = wordOfScreen(screen);
  return collectionIn(screen) ?? (word && `${word}Rows`);
}

/** What a screen is called, as the beginning of a name; null where that is no word. */
const wordOfScreen = (screen: string): string | null =>
  /^\p{L}{3}/u.test(screen) ? camelCase(screen) : null;

/** `dashboardFigures`, where others have figures, too. */
export function onScreen(name: string, screen: string): string {
  const word = wordOfScreen(screen);
  return word && !name.startsWith(word) ? word + capital(name) : name;
}

/** Words for what rows are made of and stand in, whatever they say. */
const STRUCTURE = new Set(
  'row item card list table group wrapper cell tile body page main content container dashboard account section panel media object flex text title head heading box col column inner outer layout area widget well field form complete icon font thumb thumbnail button link badge label module tab pane slide wrap post-preview nav sidebar'.split(
    ' ',
  ),
);

const isPlural = (word: string): boolean =>
  isUncountable(word) ||
  (word.length > 3 &&
    word.endsWith('s') &&
    !/(ss|us|is|ous|ness|details|settings|news|status|analytics|sales|progress)$/.test(word));

const joined = (words: readonly string[], at: number): string | null =>
  /[aeiouy]/.test(words[at])
    ? camelCase(
        [...(words.length === 2 && at === 1 ? [words[0]] : []), plural(singular(words[at]))].join(' '),
      )
    : null;

/** A label as the name of a field: `Date of birth` → `dateOfBirth`, `Price (£)` → `price`. */
export function fieldIn(label: string): string {
  const plain = label
    .replace(/\([^)]*\)/g, ' ')
    .replace(/[*:?!…]/g, ' ')
    .replace(/\be-mail\b/gi, 'email')
    .replace(/#|(?<=^|\s)n[or]\.?\s*$/gi, ' number ')
    .replace(/[’']s\b/g, '')
    .replace(/[’']/g, '')
    .trim();
  const words = plain
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .filter(
      (word, _, all) =>
        all.length <= 2 || !/^(enter|your|please|the|a|an|type|select|choose|here|pick)$/i.test(word),
    );
  // Numbers count what was drawn; at the end they tell two fields apart.
  const telling = words.filter((word, at) => !/^\d+$/.test(word) || at === words.length - 1);
  const [first] = telling;
  const isAsked = /^(enter|type|select|choose|your|please|pick)$/i.test(first ?? '') && telling.length > 1;
  const kept = isAsked ? telling.slice(1) : telling;
  const name = camelCase(kept.slice(0, 4).join(' '));
  return /^[a-z]/i.test(name) ? name : '';
}
