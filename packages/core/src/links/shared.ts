import type { SharedPair } from '../model/app.ts';
import type { Element } from '../model/design.ts';
import { type Project, screensByKey, textOf, walkElements } from '../model/project.ts';
import { findElement } from '../model/places.ts';
import { componentAround } from './wiring.ts';

/** At most so many elements move at once. */
const MOST = 4;

/**
 * Elements around a pressed one that are also on the screen it leads to, for a transition in which they move: the same
 * picture, the same text; and where a row leads to its detail, its largest picture to the largest there.
 */
export function sharedPairs(project: Project, pressed: string, screen: string): SharedPair[] {
  const { design } = project;
  const around = findElement(design, componentAround(project, pressed)?.place ?? pressed);
  const there = screensByKey(design).get(screen);
  if (!around || !there) return [];
  const goals = leavesOf(there.root);
  const pairs: SharedPair[] = [];
  const taken = new Set<string>();
  const pair = (from: Element, to: Element | undefined): void => {
    if (!to || taken.has(to.key) || pairs.length >= MOST) return;
    taken.add(to.key);
    pairs.push({ from: from.key, to: to.key });
  };
  const own = leavesOf(around);
  for (const leaf of own) {
    const text = leaf.kind === 'text' ? textOf(leaf).toLowerCase() : '';
    if (leaf.asset)
      pair(
        leaf,
        goals.find((goal) => goal.asset === leaf.asset),
      );
    else if (text.length > 2)
      pair(
        leaf,
        goals.find((goal) => goal.kind === 'text' && textOf(goal).toLowerCase() === text),
      );
  }
  const [picture, goal] = [largestPicture(own), largestPicture(goals)];
  if (picture && goal && !pairs.some(({ from }) => from === picture.key)) pair(picture, goal);
  return pairs;
}

const isPicture = ({ kind, box }: Element): boolean =>
  (kind === 'image' || kind === 'vector') && Math.min(box.width, box.height) >= 32;

function leavesOf(root: Element): Element[] {
  const leaves: Element[] = [];
  walkElements(root, (element) => {
    if (element.hidden) return false;
    const isLeaf = element.kind === 'text' || element.kind === 'image' || element.kind === 'vector';
    if (isLeaf && element !== root) leaves.push(element);
    return !isLeaf;
  });
  return leaves;
}

const largestPicture = (elements: readonly Element[]): Element | null =>
  elements
    .filter(isPicture)
    .reduce<Element | null>(
      (best, one) =>
        best && best.box.width * best.box.height >= one.box.width * one.box.height ? best : one,
      null,
    );

/** A text of a list item that a link can pass on, by the key of its element. */
export interface RowField {
  readonly field: string;
  readonly text: string;
}

/** The texts of the row that an element stands in; empty where it stands in none. */
export function rowFields(project: Project, element: string): RowField[] {
  const { design } = project;
  const around = componentAround(project, element);
  const row = around && findElement(design, around.place);
  if (!around || !row || around.places.length < 2) return [];
  return leavesOf(row)
    .filter((leaf) => leaf.kind === 'text' && textOf(leaf))
    .map((leaf) => ({ field: leaf.key, text: textOf(leaf) }));
}
