import type { App } from './app.ts';

/** Longer beginnings of names are none. */
const MOST_WORDS = 3;
/** What stands on more screens than these is not called after the first of them. */
const FEW_SCREENS = 5;

/**
 * What tells something from others of its name by the screens that it is on, as beginnings of a name, the best first: the words
 * that the names of all of them begin with; of a few screens the name of the first.
 */
export function toldByScreens({ screens }: Pick<App, 'screens'>, keys: Iterable<string>): string[] {
  const names = [...new Set(keys)].map((key) => screens[key].name);
  const [first = [], ...others] = names.map((name) => name.split(/\s+/));
  const shared = first.filter((word, i) => others.every((words) => words[i] === word));
  const told = names.length <= FEW_SCREENS ? [shared, first] : [shared];
  return told.flatMap((words) => {
    const letters = words.filter((word) => /^\p{L}/u.test(word));
    return letters.length && letters.length <= MOST_WORDS ? [letters.join(' ')] : [];
  });
}
