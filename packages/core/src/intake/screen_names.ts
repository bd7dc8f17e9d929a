import { grouped } from '../json/grouped.ts';
import type { Element, Screen } from '../model/design.ts';
import { sentenceCase, uniqueName } from '../model/names.ts';
import { textOf, walkElements } from '../model/project.ts';
import { FIRST_PAGE } from '../vocabulary/addresses.ts';
import { baseName, folderOf } from './files.ts';

const SEPARATOR = /\s+[|·•–—:/-]+\s+|\s*[|»]\s*/;
/** What most titles of a site say is the name of the site. */
const SITE = 0.5;
/** Words that stand before or after what tells titles apart, where this share of them has it. */
const NEARLY_ALL = 0.8;
/** A heading or an entry of a menu that is longer says what stands there, and not what the page is. */
const LONGEST_WORDS = 4;
const LONGEST = 40;

/**
 * Names for the screens of a batch that tell them apart. Of pages, what all titles share is the name of the site and no
 * name of a page: what is left of the title goes before the marked entry of the navigation, a file that is called by a word,
 * and the first heading.
 * No two screens get the same name.
 */
export function withTellingNames(screens: readonly Screen[]): Screen[] {
  const pages = screens.filter(({ title }) => title !== undefined);
  const home = homeFolder(pages.map(({ source }) => source.file));
  const told = namesOfPages(pages, home);
  const taken = new Set<string>();
  const count = countOf(screens.map((screen) => (told.get(screen) ?? screen.name).toLowerCase()));
  return screens.map((screen) => {
    const said = told.get(screen) ?? screen.name;
    const byFile = nameOfFile(screen, home);
    const wanted = count.get(said.toLowerCase())! > 1 && byFile ? byFile : said;
    const name = uniqueName(wanted, (candidate) => taken.has(candidate.toLowerCase()), ' ');
    taken.add(name.toLowerCase());
    return name === screen.name ? screen : { ...screen, name };
  });
}

/**
 * The folder that the first page of a site lies in: that of an index which all pages lie beside or beneath, else the one that
 * most pages lie in; where each lies in one of its own, the one around them.
 * @param files paths of the pages
 */
export function homeFolder(files: readonly string[]): string {
  const indexes = files.filter((file) => FIRST_PAGE.test(baseName(file))).map(folderOf);
  const roof = indexes.find((folder) =>
    files.every((file) => folder === '' || file.startsWith(`${folder}/`)),
  );
  if (roof !== undefined) return roof;
  const counts = [...countOf(files.map(folderOf))].sort(([, a], [, b]) => b - a);
  const [[most, count] = ['', 0]] = counts;
  return count > 1 || counts.length < 2 ? most : folderAround(files);
}

/** The innermost folder that all files lie in. */
function folderAround(files: readonly string[]): string {
  const [first, ...others] = files.map((file) => folderOf(file).split('/'));
  const end = first.findIndex((name, i) => others.some((parts) => parts[i] !== name));
  return (end < 0 ? first : first.slice(0, end)).join('/');
}

/** Nothing of what breaks off, since what follows is the name of the site: “Welcome to”. */
const whole = (name: string): string => (/\s(to|of|at|by|in|for|with|the|a|an|and)$/i.test(name) ? '' : name);

function namesOfPages(pages: readonly Screen[], home: string): ReadonlyMap<Screen, string> {
  const names = new Map<Screen, string>();
  if (pages.length < 2) return names;
  const isWord = (page: Screen): boolean => /^[a-z]{3,}([-_ ][a-z]+)*$/i.test(baseName(page.source.file));
  const parts = siteParts(pages);
  const site = new Set(parts.map((part) => part.toLowerCase()));
  const marked = markedEntries(pages);
  const rest = restsOfTitles(pages, parts);
  const ofTitle = grouped(pages, rest);
  const own = ownParts(pages, parts);
  const kinds: readonly ((page: Screen) => string)[] = [
    (page) => whole(short(own(page))),
    (page) => whole(short(rest(page))),
    // Of several with one title it is that of the one that the others lie beneath.
    (page) => (isAbove(page, ofTitle.get(rest(page))!) ? short(rest(page)) : ''),
    (page) => short(marked(page)),
    (page) => (isWord(page) && !isFirstPage(page) ? nameOfFile(page, home) : ''),
    (page) => (isFirstPage(page) && folderOf(page.source.file) === home ? nameOfFile(page, home) : ''),
    (page) => {
      const heading = short(firstHeading(page.root));
      return site.has(heading.toLowerCase()) ? '' : heading;
    },
    // A long one is written for those who search, and says more than what the page is.
    rest,
    (page) => nameOfFile(page, home),
    // Of several pages with one title the file says which.
    (page) => [short(rest(page)), nameOfFile(page, home).toLowerCase()].filter(Boolean).join(' '),
  ];
  const told = kinds.map((nameOf) => {
    const values = new Map(pages.map((page) => [page, nameOf(page).trim()]));
    const counts = countOf([...values.values()].map((value) => value.toLowerCase()));
    return { values, counts };
  });
  for (const page of pages)
    for (const { values, counts } of told) {
      const value = values.get(page)!;
      if (!value || counts.get(value.toLowerCase())! > 1) continue;
      names.set(page, value);
      break;
    }
  return names;
}

/** Whether a page lies in a folder that all others lie beneath. */
const isAbove = ({ source }: Screen, all: readonly Screen[]): boolean =>
  all.every(
    (other) => other.source === source || folderOf(other.source.file).startsWith(`${folderOf(source.file)}/`),
  );

const partsOf = ({ title = '' }: Screen): string[] =>
  title
    .split(SEPARATOR)
    .map((part) => part.trim())
    .filter(Boolean);

/** Parts of titles that say the site and not the page. */
function siteParts(pages: readonly Screen[]): string[] {
  const counts = countOf(pages.flatMap((page) => [...new Set(partsOf(page))]));
  const site = [...counts].flatMap(([part, count]) =>
    count >= Math.max(2, pages.length * SITE) ? [part] : [],
  );
  // What says the site and more of it, on several pages, says no page either.
  const isMore = (part: string, count: number): boolean =>
    count > 1 && site.some((one) => part.startsWith(`${one} `) || part.endsWith(` ${one}`));
  return [...counts].flatMap(([part, count]) => (site.includes(part) || isMore(part, count) ? [part] : []));
}

/**
 * The one part of a title that no other has, where it has others that say which part of the site a page is in.
 * @param site parts that say the site
 */
function ownParts(pages: readonly Screen[], site: readonly string[]): (page: Screen) => string {
  const counts = countOf(
    pages.flatMap((page) => [...new Set(partsOf(page).map((part) => part.toLowerCase()))]),
  );
  return (page) => {
    const left = partsOf(page).filter((part) => !site.includes(part));
    const own = left.filter((part) => counts.get(part.toLowerCase()) === 1);
    return own.length === 1 && left.length > 1 ? own[0] : '';
  };
}

/**
 * What is left of titles without what they share.
 * @param site parts that say the site
 */
function restsOfTitles(pages: readonly Screen[], site: readonly string[]): (page: Screen) => string {
  const words = new Map(
    pages.map((page) => [
      page,
      partsOf(page)
        .filter((part) => !site.includes(part))
        .flatMap((part) => part.split(/\s+/)),
    ]),
  );
  for (const take of ['shift', 'pop'] as const)
    for (;;) {
      const filled = [...words.values()].filter((some) => some.length > 0);
      const edge = (some: readonly string[]): string => (take === 'shift' ? some[0] : some.at(-1)!);
      const [[most, times] = ['', 0]] = [...countOf(filled.map(edge))].sort(([, a], [, b]) => b - a);
      if (filled.length < 3 || times < filled.length * NEARLY_ALL) break;
      for (const some of filled) if (edge(some) === most) some[take]();
    }
  return (page) => words.get(page)!.join(' ');
}

const CURRENT = /(^|\s)(active|current|selected|is-active|is-current)(\s|$)/;

/** What the entries of a menu say, and which of them is marked as where one is. */
interface Menu {
  readonly texts: Set<string>;
  marked: string | null;
}

function menusOf(root: Element): Menu[] {
  const menus = new Map<Element, Menu>();
  walkElements(root, (element, parents) => {
    if (element.hidden) return false;
    const list = parents.findLast(({ tag }) => LISTS.has(tag ?? ''));
    if (!list || (element.tag !== 'a' && element.tag !== 'li')) return true;
    const menu = menus.get(list) ?? { texts: new Set<string>(), marked: null };
    menus.set(list, menu);
    const text = seenText(element);
    menu.texts.add(text);
    const isMarked =
      (element.attributes?.['aria-current'] ?? 'false') !== 'false' || CURRENT.test(element.classes ?? '');
    if (isMarked) menu.marked ??= text;
    return true;
  });
  return [...menus.values()];
}
const LISTS: ReadonlySet<string> = new Set(['nav', 'ul', 'ol', 'aside']);

/** The text of an element without what is only read aloud. */
function seenText(element: Element): string {
  const { width, height } = element.box;
  if (width <= 1 && height <= 1) return '';
  const inner = element.children.map(seenText).join(' ');
  return `${element.text ?? ''} ${inner}`.replace(/\s+/g, ' ').trim();
}

/** A menu is that of another page where it says at least this share of the same. */
const SAME_MENU = 0.5;

/**
 * The entry that a menu of a page marks as where one is: a menu that another page has, too, with another mark. What is marked on
 * one page alone is a sample of how marked entries look, or a tab.
 */
export function markedEntries(pages: readonly Screen[]): (page: Screen) => string {
  const menus = new Map(pages.map((page) => [page, menusOf(page.root)]));
  const isShared = (page: Screen, { texts, marked }: Menu): boolean =>
    [...menus].some(
      ([other, list]) =>
        other !== page &&
        list.some(
          (menu) =>
            menu.marked !== marked &&
            menu.texts.has(marked!) &&
            [...texts].filter((text) => menu.texts.has(text)).length >= Math.max(2, texts.size * SAME_MENU),
        ),
    );
  return (page) => menus.get(page)!.find((menu) => menu.marked && isShared(page, menu))?.marked ?? '';
}

function firstHeading(root: Element): string {
  let found = '';
  walkElements(root, (element) => {
    if (found || element.hidden) return false;
    if (element.tag === 'h1') found = textOf(element);
    return !found;
  });
  return found;
}

const short = (text: string): string =>
  text.length <= LONGEST && text.split(/\s+/).length <= LONGEST_WORDS && /\p{L}/u.test(text) ? text : '';

/**
 * `blog-post.html`: “Blog post”; the first page of a folder is called after that.
 * @param home the folder whose first page is that of the site
 */
function nameOfFile({ source }: Screen, home: string): string {
  const base = baseName(source.file);
  if (!FIRST_PAGE.test(base)) return sentenceCase(base).slice(0, 60);
  const folder = folderOf(source.file);
  return folder === home ? 'Home' : sentenceCase(folder.replace(/^.*\//, '')).slice(0, 60);
}

/** Whether a screen is the first page of a site, by its file. */
export const isFirstPage = ({ title, source }: Screen): boolean =>
  title !== undefined && FIRST_PAGE.test(baseName(source.file));

function countOf(values: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return counts;
}
