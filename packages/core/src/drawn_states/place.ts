import { surePairs } from '../match/sure_pairs.ts';
import type { Element, Screen } from '../model/design.ts';
import { parentsByKey } from '../model/places.ts';
import { textOf } from '../model/project.ts';

/** Where on a screen stands what another drawing shows while a list of it has nothing to show. */
export interface StatePlace {
  /** Key of the element of the screen in which the two drawings differ. */
  readonly within: string;
  /** Key of what in it is the list, or holds it; and of what else is in it and not in the other drawing. */
  readonly list: string;
  /** Whether the other drawing has it, too, without its rows: the head of a table stays. */
  readonly keepsList: boolean;
  readonly beside: readonly string[];
  /** Keys of elements of the other drawing that stand there instead. */
  readonly shows: readonly string[];
}

/**
 * Holds a screen against a drawing of one of its states: the smallest part around the list that both have, and what either has in
 * it alone. Null where the other drawing has nothing of its own there.
 * @param list key of the element that holds the rows
 */
export function placeOfState(screen: Screen, other: Screen, list: string): StatePlace | null {
  const pairs = surePairs(screen, other);
  const parents = parentsByKey(screen);
  for (let at = parents.get(list); at; at = parents.get(at.key)) {
    const counterpart = at === screen.root ? other.root : pairs.get(at.key);
    if (!counterpart) continue;
    const inOther = new Set(counterpart.children.map(({ key }) => key));
    const same = at.children.flatMap((child) => {
      const pair = pairs.get(child.key);
      return pair && inOther.has(pair.key) && !holds(child, list) && saysMuchTheSame(child, pair)
        ? [[child.key, pair.key] as const]
        : [];
    });
    const holder = at.children.find((child) => holds(child, list))!;
    const emptied = pairs.get(holder.key);
    const keepsList = emptied !== undefined && inOther.has(emptied.key) && isEmptied(holder, emptied);
    if (keepsList) same.push([holder.key, emptied.key]);
    const [kept, known] = [new Set(same.map(([key]) => key)), new Set(same.map(([, key]) => key))];
    const shows = counterpart.children.filter((child) => isSeen(child) && !known.has(child.key));
    if (!shows.length) continue;
    const gone = at.children.filter((child) => isSeen(child) && !kept.has(child.key));
    return {
      within: at.key,
      list: holder.key,
      keepsList,
      beside: gone.flatMap((child) => (child === holder ? [] : [child.key])),
      shows: shows.map(({ key }) => key),
    };
  }
  return null;
}

/** Of what two say in common, from where on it is the same: a count may be another one. */
const LEAST_WORDS = 0.5;

/** Whether two elements say for the most part the same; what stands at one place for another reason says something else. */
function saysMuchTheSame(a: Element, b: Element): boolean {
  const [first, second] = [a, b].map(
    (element) =>
      new Set(
        textOf(element)
          .toLowerCase()
          .match(/\p{L}+/gu) ?? [],
      ),
  );
  const common = [...first].filter((word) => second.has(word)).length;
  return common >= LEAST_WORDS * Math.max(first.size, second.size);
}

/** Whether one is another as it begins, without what comes after: a table with its head alone. */
function isEmptied(list: Element, other: Element): boolean {
  const [whole, begun] = [list, other].map((element) => textOf(element).replace(/\s+/g, ' ').trim());
  return list.tag === other.tag && begun !== '' && begun.length < whole.length && whole.startsWith(begun);
}

const holds = (element: Element, key: string): boolean =>
  element.key === key || element.children.some((child) => holds(child, key));

/** Text between elements that is only space is nobody's. */
const isSeen = ({ tag, text, hidden }: Element): boolean =>
  !hidden && (tag !== undefined || (text ?? '').trim() !== '');
