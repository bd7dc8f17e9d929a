/** Which element of a page is meant, told by what anybody sees of it; `elementSeen` of the core reads it the same way. */
export interface Seen {
  readonly tag: string;
  readonly says: string;
  /** Which of the elements of this tag that say the same, and which of all of this tag, from 0. */
  readonly nth: number;
  readonly nthOfTag: number;
}

const LONGEST = 120;

/** What an element says: its label, what it is for a picture or a field, or its text. */
export function saidBy(element: Element): string {
  const named = ['aria-label', 'alt', 'placeholder']
    .map((name) => element.getAttribute(name)?.trim())
    .find(Boolean);
  return (named ?? element.textContent ?? '').replace(/\s+/g, ' ').trim().slice(0, LONGEST);
}

/** The same for people to read: what stands in lines of its own is parted. */
export function readAs(element: Element): string {
  const said = saidBy(element);
  const { innerText } = element as Partial<HTMLElement>;
  const shown = (innerText ?? '').replace(/\s+/g, ' ').trim();
  return said === element.textContent?.replace(/\s+/g, ' ').trim().slice(0, LONGEST) && shown
    ? shown.slice(0, LONGEST)
    : said;
}

const withTag = (tag: string): Element[] => [...document.body.querySelectorAll(tag)];

export function seenOf(element: Element): Seen {
  const tag = element.localName;
  const says = saidBy(element);
  const ofTag = withTag(tag);
  const alike = ofTag.filter((one) => saidBy(one) === says);
  return {
    tag,
    says,
    nth: Math.max(0, alike.indexOf(element)),
    nthOfTag: Math.max(0, ofTag.indexOf(element)),
  };
}

/** The element that says the same, or null. */
export function elementAlike(seen: Seen): Element | null {
  const alike = withTag(seen.tag).filter((one) => saidBy(one) === seen.says);
  return alike[seen.nth] ?? alike[0] ?? null;
}

/** The element that says the same, else the one at the same place among those of its tag. */
export const elementMeant = (seen: Seen): Element | null =>
  elementAlike(seen) ?? withTag(seen.tag)[seen.nthOfTag] ?? null;
