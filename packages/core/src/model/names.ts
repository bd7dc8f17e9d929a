/** Turns a name into the form that identifiers of its kind take. */

import { isObjectMember } from '../json/json.ts';

const words = (name: string): string[] =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    // What stands for a letter parts no word: `What's new`.
    .replace(/(?<=\p{L})['’ʼ](?=\p{L})/gu, '')
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    // One letter is a word, too: `CaseACocher`; several of capitals are one, `PDFs` as well.
    .replace(/([A-Z])(?=[A-Z][a-z]{2})/g, '$1 ')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((w) => w.toLowerCase());

/** A word with a capital at its beginning; the rest as it is. */
export const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

/** A word with a small letter at its beginning; the rest as it is. */
export const uncapital = (word: string): string => word.charAt(0).toLowerCase() + word.slice(1);

/** `Tool detail` → `tool-detail`; empty when nothing of the name can be kept. */
export const kebabCase = (name: string): string => words(name).join('-');

/** `Tool detail` → `ToolDetail`; never starts with a digit. */
export const pascalCase = (name: string): string =>
  words(name)
    .map(capital)
    .join('')
    .replace(/^(?=\d)/, 'N');

/** `Tool detail` → `toolDetail`; never starts with a digit. */
export const camelCase = (name: string): string => uncapital(pascalCase(name));

/** `tool-detail_2` → `Tool detail 2`. */
export function sentenceCase(name: string): string {
  const text = name.replace(/[-_]+/g, ' ').replace(/\s+/g, ' ').trim();
  return capital(text);
}

/** The first of `name`, `name-2`, `name-3` … that is not taken. */
export function uniqueName(name: string, isTaken: (candidate: string) => boolean, joint = '-'): string {
  if (!isTaken(name)) return name;
  for (let n = 2; ; n++) if (!isTaken(`${name}${joint}${n}`)) return `${name}${joint}${n}`;
}

/** The first of several names that is not taken; where all are, the first one with a number, as `uniqueName` gives it. */
export const firstFree = (
  names: readonly [string, ...string[]],
  isTaken: (candidate: string) => boolean,
  joint?: string,
): string => names.find((name) => !isTaken(name)) ?? uniqueName(names[0], isTaken, joint);

const KEPT_WORDS =
  'abstract any arguments as async await boolean break case catch class const continue debugger declare default delete do else enum eval export extends false finally for from function get if implements import in instanceof interface let module namespace never new null number object of package private protected public readonly require return set static string super switch symbol this throw true try typeof undefined unknown var void while with yield';
/** What emitted files take from the language, its libraries and each other under these very names. */
const USED_NAMES =
  'App Array Back FieldMessage Form Values calc Component ComponentType Variables Date Element Error Fragment Function Go Guard HTMLElement JSON Map Math Navigate NaN NotFound Number Object Outlet Overlay OverlayProvider Promise React ReactNode Record Redirect RegExp RouteObject Screen Set Shell String Symbol children variables copyText disclosure document fill fetch gestures global globalThis go history id key location navigation overlays pathname params pressable ref routes saveFile self sessionStorage setVariable styles submitting useAfter useVariables useGo useKey useLocation useOverlays window';
const taken: ReadonlySet<string> = new Set([...KEPT_WORDS.split(' '), ...USED_NAMES.split(' ')]);

/** Whether something in emitted code can be called this. */
export const isCodeName = (name: string): boolean =>
  /^[A-Za-z_$][\w$]*$/.test(name) && !taken.has(name) && !isObjectMember(name);

/** Names of files: those that differ in large and small letters only are one on some disks, and to compilers everywhere. */
export class FileNames {
  readonly #names: Set<string>;

  constructor(names: Iterable<string> = []) {
    this.#names = new Set([...names].map((name) => name.toLowerCase()));
  }

  has(name: string): boolean {
    return this.#names.has(name.toLowerCase());
  }

  add(name: string): void {
    this.#names.add(name.toLowerCase());
  }
}

/** The first of `wanted`, `wanted2` … that code can have and that is not taken; of `otherwise` where there is no name. */
export function uniqueCodeName(
  wanted: string,
  otherwise: string,
  isTaken: (candidate: string) => boolean,
): string {
  const base = /^[A-Za-z_$][\w$]*$/.test(wanted) ? wanted : otherwise;
  return uniqueName(base, (candidate) => !isCodeName(candidate) || isTaken(candidate), '');
}

/** A name in code for each key, after what it is called; each another one. */
export function codeNames(
  keys: readonly string[],
  nameOf: (key: string) => string,
  otherwise: string,
): Map<string, string> {
  const names = new Map<string, string>();
  const used = new Set<string>();
  for (const key of keys) {
    const name = uniqueCodeName(camelCase(nameOf(key)), otherwise, (candidate) => used.has(candidate));
    used.add(name);
    names.set(key, name);
  }
  return names;
}

/** Words that are the same for one and for many. */
const UNCOUNTABLE = new Set(
  'news stock equipment staff people media inventory history activity content'.split(' '),
);

/** Whether a word is the same for one and for many. */
export const isUncountable = (word: string): boolean => UNCOUNTABLE.has(word);

/** The one of many: `categories` → `category`, `boxes` → `box`. */
export function singular(word: string): string {
  if (UNCOUNTABLE.has(word) || word.length < 4) return word;
  if (word.endsWith('people')) return word;
  if (word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  if (/(ss|sh|ch|x|z)es$/.test(word)) return word.slice(0, -2);
  if (/(ss|us|is)$/.test(word)) return word;
  return word.replace(/s$/, '');
}

/** Shorter words can end in an s by themselves: `bus`, `lens`. */
const LONGEST_IN_S = 4;

/** Many of one: `category` → `categories`. */
export function plural(word: string): string {
  if (UNCOUNTABLE.has(word) || word === 'people') return word;
  // What is called by many already is not called by more: `TableControls`.
  if (/[^su]s$/.test(word) && word.length > LONGEST_IN_S && singular(word) !== word) return word;
  if (/[^aeiou]y$/.test(word)) return word.replace(/y$/, 'ies');
  if (/(s|sh|ch|x|z)$/.test(word)) return `${word}es`;
  return `${word}s`;
}

/** The name of one record: `tools` → `tool`. */
export const recordName = (collection: string): string =>
  collection.replace(/[A-Z]?[a-z]+$/, (word) => {
    const one = singular(word.toLowerCase());
    return /^[A-Z]/.test(word) ? one.replace(/^./, (letter) => letter.toUpperCase()) : one;
  });

/** What one of a collection's records is called in code where it stands by itself: `tools` → `tool`. */
export function recordVariable(collection: string): string {
  const one = camelCase(recordName(collection));
  return one === collection || !isCodeName(one) ? 'record' : one;
}
