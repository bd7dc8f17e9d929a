import type { Element } from '../model/design.ts';
import { textOf, walkElements } from '../model/project.ts';

/** Which element of one drawing of a screen is which of another; keys of the one by keys of the other. */
export type ElementPairs = ReadonlyMap<string, string>;

/**
 * Finds the same elements in two drawings of one screen: first what says the same, then what is called the same, each
 * in reading order; then, from the leaves upwards, the containers that hold most of the same. Linear in the elements.
 */
export function matchElements(a: Element, b: Element): ElementPairs {
  const pairs = new Map<string, string>([[b.key, a.key]]);
  const taken = new Set<string>([a.key]);
  const pair = (from: Element, to: Element): void => {
    pairs.set(from.key, to.key);
    taken.add(to.key);
  };
  const leavesOf = (root: Element): Element[] => {
    const leaves: Element[] = [];
    walkElements(root, (element) => {
      if (element.hidden) return false;
      if (element !== root && isLeaf(element)) leaves.push(element);
      return !isLeaf(element);
    });
    return leaves;
  };
  const [leavesA, leavesB] = [leavesOf(a), leavesOf(b)];
  for (const says of [saying, naming]) {
    const index = new Map<string, Element[]>();
    for (const leaf of leavesA) {
      const word = taken.has(leaf.key) ? null : says(leaf);
      if (word !== null) index.set(word, [...(index.get(word) ?? []), leaf]);
    }
    for (const leaf of leavesB) {
      const word = pairs.has(leaf.key) ? null : says(leaf);
      const same = word === null ? undefined : index.get(word)?.find((other) => !taken.has(other.key));
      if (same) pair(leaf, same);
    }
  }
  matchContainers(a, b, pairs, pair, taken);
  return pairs;
}

const isLeaf = (element: Element): boolean =>
  !element.children.length || element.children.every((child) => child.tag === undefined);

/** What a leaf shows, if that tells it from others. */
function saying(element: Element): string | null {
  const text = textOf(element).toLowerCase();
  if (text) return `${element.kind} ${text}`;
  if (element.asset) return `asset ${element.asset}`;
  const label =
    element.attributes?.['aria-label'] ?? element.attributes?.placeholder ?? element.attributes?.alt;
  return label ? `${element.kind} ${label.toLowerCase()}` : null;
}

/** How a leaf that shows no text is called. */
const naming = (element: Element): string | null =>
  element.kind !== 'text' && element.name && !GIVEN.has(element.name)
    ? `${element.kind} ${element.name.toLowerCase()}`
    : null;

/** Names that Tovel gives where the file has none. */
const GIVEN = new Set(['box', 'group', 'vector', 'image', 'div', 'span']);

function matchContainers(
  a: Element,
  b: Element,
  pairs: ReadonlyMap<string, string>,
  pair: (from: Element, to: Element) => void,
  taken: ReadonlySet<string>,
): void {
  const parentsA = parentsOf(a);
  const byKey = new Map<string, Element>();
  walkElements(a, (element) => void byKey.set(element.key, element));
  const visit = (element: Element): void => {
    element.children.forEach(visit);
    if (pairs.has(element.key) || isLeaf(element) || element.hidden) return;
    const votes = new Map<string, number>();
    let voters = 0;
    for (const child of element.children) {
      const same = pairs.get(child.key);
      if (same === undefined) continue;
      voters++;
      const parent = parentsA.get(same);
      if (parent) votes.set(parent, (votes.get(parent) ?? 0) + 1);
    }
    const [best] = [...votes].filter(([key]) => !taken.has(key)).sort((x, y) => y[1] - x[1]);
    const to = best && byKey.get(best[0]);
    if (to && best[1] * 2 > voters && to.kind === element.kind) pair(element, to);
  };
  visit(b);
}

function parentsOf(root: Element): Map<string, string> {
  const parents = new Map<string, string>();
  walkElements(root, (element) => element.children.forEach((child) => parents.set(child.key, element.key)));
  return parents;
}
