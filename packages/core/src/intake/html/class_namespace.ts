import { grouped } from '../../json/grouped.ts';
import type { Element, Screen } from '../../model/design.ts';
import { SETS_ONE_PROPERTY } from '../../roles/called.ts';

/** What is before so many other first words of classes tells no thing from another. */
const LEAST_FOLLOWING = 6;
/** The share of what holds something whose classes begin with it, of what has a class. */
const LEAST_SHARE = 0.2;
/** What is no such sign may be a word, and names a thing unless most classes begin with it. */
const isSign = (beginning: string): boolean => beginning.length < 3 || !/[aeiouy]/.test(beginning);
const LEAST_SHARE_OF_WORD = 0.5;

/** The share of the classes that begin with it whose rest pages have that are there already. */
const LEAST_THERE = 0.6;

/**
 * Pages without what their authors put before all of their classes, as libraries do: `card__title` of `ab-card__title`. It is
 * before many different words, is no class itself, and is on much of what holds something; `btn` of `btn-primary` is a class, and
 * what only icons have names the set that they are of. Where a few pages come after others, it is what those had before them.
 * @param there classes of pages that are there already, as they are told
 */
export function withoutNamespaces(
  screens: readonly Screen[],
  there: readonly string[] = [],
): readonly Screen[] {
  const spaces = namespacesIn(
    screens.filter(isPage).map(({ root }) => root),
    new Set(there),
  );
  if (!spaces.size) return screens;
  const told = (classes: string): string =>
    classes
      .split(/\s+/)
      .map((name) => (spaces.has(beginningOf(name)) ? restOf(name) : name))
      .join(' ');
  const visit = (element: Element): Element => ({
    ...element,
    ...(element.classes ? { classes: told(element.classes) } : {}),
    children: element.children.map(visit),
  });
  return screens.map((screen) => (isPage(screen) ? { ...screen, root: visit(screen.root) } : screen));
}

/** All classes of the pages of a design, each once. */
export function classesOf(screens: readonly Screen[]): readonly string[] {
  const found = new Set<string>();
  const visit = (element: Element): void => {
    for (const name of namesOf(element)) found.add(name);
    element.children.forEach(visit);
  };
  for (const screen of screens) if (isPage(screen)) visit(screen.root);
  return [...found];
}

/** Only pages have a title. */
const isPage = ({ title }: Screen): boolean => title !== undefined;

const namesOf = ({ classes = '' }: Element): readonly string[] => classes.split(/\s+/).filter(Boolean);

/** What stands before the first dash of a class; nothing where that is no beginning of others. */
const beginningOf = (name: string): string => /^([a-z]{1,8})[-_]+[a-z]/.exec(name)?.[1] ?? '';
const restOf = (name: string): string => name.replace(/^[a-z]+[-_]+/, '');

function namespacesIn(roots: readonly Element[], there: ReadonlySet<string>): ReadonlySet<string> {
  const names = new Set<string>();
  const times = new Map<string, number>();
  let holders = 0;
  const visit = (element: Element): void => {
    const own = namesOf(element);
    for (const name of own) names.add(name);
    if (own.length && element.children.length) {
      holders++;
      for (const beginning of new Set(own.map(beginningOf)))
        times.set(beginning, (times.get(beginning) ?? 0) + 1);
    }
    element.children.forEach(visit);
  };
  roots.forEach(visit);
  const beginningsThere = new Set([...there].map(beginningOf));
  const found = [...grouped([...names], beginningOf)].filter(([beginning, all]) => {
    if (!beginning || names.has(beginning) || SETS_ONE_PROPERTY.has(beginning)) return false;
    const known = all.filter((name) => there.has(restOf(name))).length;
    if (known > 1 && known >= all.length * LEAST_THERE && !beginningsThere.has(beginning)) return true;
    const least = isSign(beginning) ? LEAST_SHARE : LEAST_SHARE_OF_WORD;
    const following = new Set(all.map((name) => name.split(/[-_]+/)[1]));
    return following.size >= LEAST_FOLLOWING && (times.get(beginning) ?? 0) >= holders * least;
  });
  return new Set(found.map(([beginning]) => beginning));
}
