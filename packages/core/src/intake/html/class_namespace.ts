import type { Element, Screen } from '../../model/design.ts';
import { SETS_ONE_PROPERTY } from '../../roles/called.ts';

/** What is before so many other first words of classes tells no thing from another. */
const LEAST_FOLLOWING = 6;
/** The share of what holds something whose classes begin with it, of what has a class. */
const LEAST_SHARE = 0.2;
/** What is no such sign may be a word, and names a thing unless most classes begin with it. */
const isSign = (beginning: string): boolean => beginning.length < 3 || !/[aeiouy]/.test(beginning);
const LEAST_SHARE_OF_WORD = 0.5;

/**
 * Pages without what their authors put before all of their classes, as libraries do: `card__title` of `ab-card__title`. It is
 * before many different words, is no class itself, and is on much of what holds something; `btn` of `btn-primary` is a class, and
 * what only icons have names the set that they are of.
 */
export function withoutNamespaces(screens: readonly Screen[]): readonly Screen[] {
  const spaces = namespacesIn(screens.filter(isPage).map(({ root }) => root));
  if (!spaces.size) return screens;
  const told = (classes: string): string =>
    classes
      .split(/\s+/)
      .map((name) => (spaces.has(beginningOf(name)) ? name.replace(/^[a-z]+[-_]+/, '') : name))
      .join(' ');
  const visit = (element: Element): Element => ({
    ...element,
    ...(element.classes ? { classes: told(element.classes) } : {}),
    children: element.children.map(visit),
  });
  return screens.map((screen) => (isPage(screen) ? { ...screen, root: visit(screen.root) } : screen));
}

/** Only pages have a title. */
const isPage = ({ title }: Screen): boolean => title !== undefined;

/** What stands before the first dash of a class; nothing where that is no beginning of others. */
const beginningOf = (name: string): string => /^([a-z]{1,8})[-_]+[a-z]/.exec(name)?.[1] ?? '';

function namespacesIn(roots: readonly Element[]): ReadonlySet<string> {
  const names = new Set<string>();
  const following = new Map<string, Set<string>>();
  const times = new Map<string, number>();
  let holders = 0;
  const visit = (element: Element): void => {
    const own = element.classes?.split(/\s+/).filter(Boolean) ?? [];
    for (const name of own) {
      if (names.has(name)) continue;
      names.add(name);
      const beginning = beginningOf(name);
      if (!beginning) continue;
      const [, next] = name.split(/[-_]+/);
      following.set(beginning, (following.get(beginning) ?? new Set()).add(next));
    }
    if (own.length && element.children.length) {
      holders++;
      for (const beginning of new Set(own.map(beginningOf)))
        times.set(beginning, (times.get(beginning) ?? 0) + 1);
    }
    element.children.forEach(visit);
  };
  roots.forEach(visit);
  const found = [...following].filter(([beginning, next]) => {
    const least = isSign(beginning) ? LEAST_SHARE : LEAST_SHARE_OF_WORD;
    return (
      next.size >= LEAST_FOLLOWING &&
      !names.has(beginning) &&
      !SETS_ONE_PROPERTY.has(beginning) &&
      (times.get(beginning) ?? 0) >= holders * least
    );
  });
  return new Set(found.map(([beginning]) => beginning));
}
