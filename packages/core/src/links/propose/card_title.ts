import { hasParent, type Sight } from '../../roles/sight.ts';
import type { Names } from './evidence.ts';
import { wordsIn } from './words.ts';

/** Words that say that one goes on, and not where: what the card is about says that. */
const ONWARD = new Set(
  'preview demo detail info information learn explore visit start started continue try enter launch live open view'.split(
    ' ',
  ),
);
/** What is said of a card is around what is pressed within so many elements. */
const MOST_AROUND = 6;
/** A card has at most so many things that are pressed. */
const MOST_PRESSED = 4;
const LONGEST_TITLE = 60;
/** So many cards that are called as screens are a gallery of them, where they are most of the cards. */
const LEAST_CARDS = 3;

/**
 * What the card is called that something is pressed in which says only that one goes on: “Preview” beneath “Forum”.
 * @param said on what is pressed; nothing on a picture
 * @param words of that, without those that say nothing anywhere
 * @param isPressed whether an element is pressed itself
 * @param menu the list that it stands in: a card is within it
 * @returns null where it says more, or stands in no card
 */
export function cardTitle(
  sight: Sight,
  said: string,
  words: readonly string[],
  roleOf: (sight: Sight) => string,
  isPressed: (sight: Sight) => boolean,
  menu: Sight | null,
): string | null {
  // A sign or a number says which of many.
  if ((said && !/\p{L}/u.test(said)) || !words.every((word) => ONWARD.has(word))) return null;
  for (let [at, up] = [sight, 0]; at.parent?.parent && up < MOST_AROUND; at = at.parent, up++) {
    const around = at.parent;
    if (around === menu) return null;
    if (pressedIn(around, isPressed) > MOST_PRESSED) return null;
    const title = titleIn(around, sight, roleOf);
    // What is in brackets is said aside.
    if (title) return title.length <= LONGEST_TITLE ? title.replace(/(?<=.)\s*\([^)]*\)$/, '') : null;
  }
  return null;
}

/** Whether cards with these titles are a gallery of screens, and not of whatever else. */
export function areScreens(
  titles: readonly string[],
  names: ReadonlyMap<string, Names>,
  same: (words: readonly string[]) => string[],
): boolean {
  const called = new Set([...names.values()].flatMap(({ title, file }) => [sorted(title), sorted(file)]));
  const screens = new Set(
    titles.map((title) => sorted(same(wordsIn(title)))).filter((one) => one && called.has(one)),
  );
  return screens.size >= LEAST_CARDS && screens.size * 2 >= titles.length;
}

const sorted = (words: readonly string[]): string => words.toSorted().join(' ');

const pressedIn = (around: Sight, isPressed: (sight: Sight) => boolean): number =>
  around.children.reduce((sum, child) => sum + (isPressed(child) ? 1 : pressedIn(child, isPressed)), 0);

/** What the first heading within an element says, or what is called a title; not around what is pressed. */
function titleIn(around: Sight, pressed: Sight, roleOf: (sight: Sight) => string): string | null {
  for (const child of around.children) {
    if (child === pressed || child.element.hidden) continue;
    const found = titleIn(child, pressed, roleOf);
    if (found) return found;
    const isTitle = roleOf(child) === 'heading' || / (title|heading|caption) /.test(child.words);
    if (isTitle && !hasParent(pressed, (parent) => parent === child)) return firstText(child);
  }
  return null;
}

/** What is said first: badges and counts beside it are no part of a title. */
function firstText(sight: Sight): string | null {
  if (sight.hasOwnText) return sight.text.trim() || null;
  for (const child of sight.children) {
    const found = firstText(child);
    if (found) return found;
  }
  return null;
}
