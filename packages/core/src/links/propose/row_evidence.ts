import type { Sight } from '../../roles/sight.ts';
import type { Evidence, Names, Pressed } from './evidence.ts';

/** Words by which a screen is about one thing out of many. */
const DETAIL = [
  'detail',
  'single',
  'item',
  'post',
  'article',
  'product',
  'profile',
  'entry',
  'record',
  'story',
];

/** Evidence from here on speaks for the other rows, too. */
const SURE = 0.45;

/** Fewer rows than this are no list. */
const ROWS = 3;

/**
 * What rows of a list say of each other: where one leads to a screen for sure, its like lead there too, and rows with
 * different texts lead to a screen that by its name is about one of many.
 */
export function fromRows(
  list: readonly { readonly element: Pressed; readonly evidence: readonly Evidence[] }[],
  names: ReadonlyMap<string, Names>,
): Map<Pressed, Evidence[]> {
  const groups = new Map<string, { readonly element: Pressed; readonly evidence: readonly Evidence[] }[]>();
  for (const one of list) {
    if (one.element.menu) continue;
    const key = placeInRow(one.element.sight);
    if (!key) continue;
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  const details = [...names].filter(([, own]) =>
    [...own.title, ...own.file].some((word) => DETAIL.includes(word)),
  );
  const found = new Map<Pressed, Evidence[]>();
  for (const group of groups.values()) {
    const labels = new Set(group.map(({ element }) => element.label));
    if (group.length < ROWS || labels.size < group.length * 0.6) continue;
    const votes = new Map<string, number>();
    for (const { evidence } of group) {
      const best = evidence.reduce<Evidence | null>(
        (top, one) => (top && top.strength >= one.strength ? top : one),
        null,
      );
      if (best && best.strength >= SURE) votes.set(best.to, (votes.get(best.to) ?? 0) + 1);
    }
    // What one row of many happens to be called like says nothing of the others.
    for (const [to, count] of votes) if (group.length > ROWS && count < group.length / 3) votes.delete(to);
    // Rows that lead to as many places as there are rows are a menu.
    const [to, count] = [...votes].sort((a, b) => b[1] - a[1])[0] ?? [];
    const isOne = to !== undefined && votes.size === 1;
    const own = group[0].element.screen;
    for (const { element } of group) {
      if (isOne && to !== own)
        found.set(element, [
          {
            kind: 'row',
            to,
            strength: count! > 1 ? 0.8 : 0.66,
            reason: 'another row of its list leads there',
          },
        ]);
      else if (!votes.size && details.length === 1 && details[0][0] !== own && element.words.length)
        found.set(element, [
          {
            kind: 'row',
            to: details[0][0],
            strength: 0.5,
            reason: 'rows of a list lead to the screen about one of them',
          },
        ]);
    }
  }
  return found;
}

/** Rows and cards of things say or show more than one thing each; a button, a chip or a day of a calendar does not. */
const LEAST_CONTENTS = 2;
const contentsOf = (sight: Sight): number =>
  Number(sight.hasOwnText || sight.element.kind === 'image') +
  sight.children.reduce((sum, child) => sum + contentsOf(child), 0);

/** A name for where an element stands in a row of a repeated run, the same for all its rows; null outside of any. */
function placeInRow(sight: Sight): string | null {
  const path: number[] = [];
  for (let at = sight, up = 0; at.parent && up < 5; at = at.parent, up++) {
    const like = at.parent.children.filter((other) => isLike(other, at));
    if (like.length >= ROWS && contentsOf(at) >= LEAST_CONTENTS)
      return `${at.parent.element.key} ${lookOf(at)} ${path.join('/')}`;
    path.push(at.index);
  }
  return null;
}

const lookOf = ({ element }: Sight): string => `${element.tag ?? element.kind} ${element.classes ?? ''}`;

const isLike = (a: Sight, b: Sight): boolean =>
  lookOf(a) === lookOf(b) &&
  Math.abs(a.element.box.width - b.element.box.width) < 4 &&
  a.children.length === b.children.length;
