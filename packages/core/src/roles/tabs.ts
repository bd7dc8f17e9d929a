import type { Box } from '../model/design.ts';
import { areCalledAlike } from './called.ts';
import { guess, PRESSED, type RoleContext } from './evidence.ts';
import type { RoleGuess } from './guess.ts';
import { hasParent, type Sight } from './sight.ts';

/** So many parts that are shown in turn have tabs. */
const LEAST = 2;
const MOST = 12;
/** What a tab says is short. */
const LONGEST = 40;
/** How many containers further out than the parts their tabs may stand. */
const FURTHEST = 3;
/** How far from each other, in px, they are at most. */
const FAR = 100;
/** So many entries say something in words; others may be pictures. */
const IN_WORDS = 0.6;
const SURE = 0.88;

/**
 * Tabs by what they choose among: of several parts in one place one is shown, and beside that place stand as many short entries.
 * Calls `take` for each entry, or the control in it, and for what holds them.
 */
export function findTabs(context: RoleContext, take: (sight: Sight, guess: RoleGuess) => void): void {
  const taken = new Set<Sight>();
  for (const place of context.screen.all) {
    const count = partsIn(place);
    const list = count ? listBeside(place, count, context) : null;
    if (!list || taken.has(list)) continue;
    taken.add(list);
    take(list, guess('tablist', SURE, `it has an entry for each of ${count} parts of which one is shown`));
    for (const entry of entriesOf(list, count))
      take(
        controlIn(entry, context),
        guess('tab', SURE, `it stands for one of ${count} parts that are shown in turn`),
      );
  }
}

/** How many parts stand in a place of which one is shown at a time; 0 where that is none. */
function partsIn({ children }: Sight): number {
  if (children.length < LEAST || children.length > MOST) return 0;
  const [first] = children;
  const shown = children.filter(({ element }) => !element.hidden);
  const areParts = children.every(
    ({ element, text, children: inner }) =>
      (element.kind === 'box' || element.kind === 'text') &&
      element.tag === first.element.tag &&
      areCalledAlike(element, first.element) &&
      (text !== '' || inner.length > 0),
  );
  return shown.length === 1 && areParts ? children.length : 0;
}

/** What holds so many entries and stands beside a place, nearest first, as it is seen before that place first. */
function listBeside(place: Sight, count: number, context: RoleContext): Sight | null {
  let at: Sight = place;
  for (let out = 0; at.parent && out <= FURTHEST; at = at.parent, out++) {
    const { children } = at.parent;
    const beside = [...children.slice(0, at.index).reverse(), ...children.slice(at.index + 1)];
    for (const other of beside) {
      const found = listIn(other, count, context);
      if (found && isNear(found.element.box, place.element.box)) return found;
    }
  }
  return null;
}

/** Whether one box stands right over, under or beside another. */
function isNear(one: Box, other: Box): boolean {
  const across = gapOf(one.x, one.width, other.x, other.width);
  const along = gapOf(one.y, one.height, other.y, other.height);
  return Math.max(across, along) <= FAR && Math.min(across, along) <= 0;
}

/** How far two stretches are from each other; less than 0 where they overlap. */
const gapOf = (a: number, length: number, b: number, other: number): number =>
  Math.max(a - (b + other), b - (a + length));

function listIn(sight: Sight, count: number, context: RoleContext): Sight | null {
  if (sight.element.hidden) return null;
  if (isList(sight, count, context)) return sight;
  for (const child of sight.children) {
    const found = listIn(child, count, context);
    if (found) return found;
  }
  return null;
}

/** The entries that something has for so many parts: all in it, or those of one kind where a title stands beside them. */
function entriesOf({ children }: Sight, count: number): readonly Sight[] {
  const kinds = children.map(({ element }) => `${element.tag} ${element.classes?.split(/\s+/)[0] ?? ''}`);
  const starts = Array.from({ length: children.length - count + 1 }, (_, i) => i);
  const first = starts.find((i) => kinds.slice(i, i + count).every((kind) => kind === kinds[i])) ?? 0;
  return children.slice(first, first + count);
}

/** So much more than entries may stand among them. */
const MOST_ODD = 1;

function isList(sight: Sight, count: number, context: RoleContext): boolean {
  const { children } = sight;
  const isPressed = (one: Sight): boolean => PRESSED.includes(context.roleOf(one));
  if (isPressed(sight) || hasParent(sight, isPressed)) return false;
  if (children.length < count || children.length > count + MOST_ODD) return false;
  const entries = entriesOf(sight, count);
  return (
    entries.length === count &&
    entries.every(({ element }) => !element.hidden && element.tag === entries[0].element.tag) &&
    entries.every(({ text }) => text.length <= LONGEST) &&
    entries.filter(({ text }) => /\p{L}/u.test(text)).length >= count * IN_WORDS &&
    entries.every((entry) => {
      const control = controlIn(entry, context);
      return PRESSED.includes(context.roleOf(control)) || control.cursor === 'pointer';
    })
  );
}

/** What is pressed in an entry: the one thing in it that looks so, else the entry itself. */
function controlIn(entry: Sight, { roleOf }: RoleContext): Sight {
  for (let at = entry; ; at = at.children[0]) {
    if (PRESSED.includes(roleOf(at))) return at;
    if (at.children.length !== 1) return entry;
  }
}
