import { isElement, isText, type MarkupElement } from './form/markup.ts';
import { type EmissionPlan, emitScreenOf } from './form/plan.ts';

/** An element as a page shows it: what tells it from others to somebody who only sees the page. */
export interface ShownElement {
  readonly key: string;
  readonly tag: string;
  /** What it says: its label, what it is for a picture or a field, or its text, as `spoken` writes it. */
  readonly says: string;
}

/** What somebody pointed at in a page. */
export interface Seen {
  readonly tag: string;
  readonly says: string;
  /** Which of the elements of this tag that say the same, and which of all of this tag, from 0. */
  readonly nth: number;
  readonly nthOfTag: number;
}

/** So much of what an element says is enough to know it. */
const LONGEST = 120;

/** What an element says, on one line and not too long. */
export const spoken = (text: string): string => text.replace(/\s+/g, ' ').trim().slice(0, LONGEST);

/** The elements of a screen in the order in which its page has them. */
export function shownElements(plan: EmissionPlan, screen: string): ShownElement[] {
  const found: ShownElement[] = [];
  const visit = (node: MarkupElement): void => {
    if (node.key) found.push({ key: node.key, tag: node.tag, says: saidBy(node) });
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(emitScreenOf(plan, screen).root);
  return found;
}

/** The element that somebody pointed at, or null where none is like it. */
export function elementSeen(elements: readonly ShownElement[], seen: Seen): string | null {
  const ofTag = elements.filter(({ tag }) => tag === seen.tag);
  const alike = ofTag.filter(({ says }) => says === seen.says);
  return (alike[seen.nth] ?? alike[0] ?? ofTag[seen.nthOfTag])?.key ?? null;
}

/** How somebody would point at an element among others. */
export function seenAs(elements: readonly ShownElement[], key: string): Seen | null {
  const element = elements.find((one) => one.key === key);
  if (!element) return null;
  const { tag, says } = element;
  const ofTag = elements.filter((one) => one.tag === tag);
  const alike = ofTag.filter((one) => one.says === says);
  return { tag, says, nth: alike.indexOf(element), nthOfTag: ofTag.indexOf(element) };
}

function saidBy(node: MarkupElement): string {
  for (const name of ['aria-label', 'alt', 'placeholder']) {
    const said = node.attributes[name];
    if (typeof said === 'string' && said.trim()) return spoken(said);
  }
  return spoken(textsIn(node));
}

const textsIn = (node: MarkupElement): string =>
  node.children
    .map((child) => (isText(child) ? child.text : isElement(child) ? textsIn(child) : ''))
    .join('');
