/** What a page keeps room for and does not show before a script gives it a class: parts that fade in once they are there. */

import { withoutTransitions } from './stillness.ts';

/** Fainter than this, nothing is seen. */
const SEEN = 0.05;
/** What is smaller than this, in px, is no part of a page. */
const LEAST_SIZE = 8;
/** Parts with a sibling that lies over so much of them, of 1, are one of several of which one is shown. */
const LEAST_OVER = 0.25;
/** So many rules are looked at. */
const MOST_RULES = 2000;
/** What people do to a page: what such a rule shows waits for that. */
const BY_HAND = /:(hover|focus|active|checked|target|focus-within|focus-visible|open|popover-open)\b/;
const BY_HAND_ANYWHERE = new RegExp(BY_HAND, 'g');
const CONTROLS = 'input, select, textarea, button, option';
/** What opens something that stands beside it. */
const OPENERS = 'button, summary, [role="button"], a[href^="#"], a[href^="javascript:"], a:not([href])';

interface FadingRule {
  /** Its selector without one of its classes, or without what is done by hand. */
  readonly selector: string;
  /** The class; none where it is done by hand. */
  readonly name?: string;
}

/**
 * Shows what a page fades in by a class once its scripts have run, as it is then. What somebody opens, points at or chooses
 * stays as it is.
 * @returns what is shown
 */
export function showAwaited(document: Document): readonly Element[] {
  const rules = fadingRules(document);
  if (!rules.length) return [];
  const view = document.defaultView!;
  const isFaint = (element: Element): boolean => Number(view.getComputedStyle(element).opacity) < SEEN;
  // What is shown is seen at once.
  const undo = withoutTransitions(document);
  const shown: Element[] = [];
  const visit = (element: Element): void => {
    if (isFaint(element)) {
      if (!isAwaited(element, rules) || !showByClass(element, rules, isFaint)) return;
      shown.push(element);
    }
    for (const child of element.children) visit(child);
  };
  visit(document.body);
  undo();
  return shown;
}

/** Rules that say how faint something is, once for each class that they speak of. */
function fadingRules(document: Document): FadingRule[] {
  const view = document.defaultView!;
  const found: FadingRule[] = [];
  const visit = (rules: CSSRuleList): void => {
    for (const rule of rules) {
      if (found.length >= MOST_RULES) return;
      if (!(rule instanceof view.CSSStyleRule)) {
        if ('cssRules' in rule) visit(rule.cssRules as CSSRuleList);
        continue;
      }
      if (rule.style.opacity === '' || rule.selectorText.includes('::')) continue;
      for (const selector of rule.selectorText.split(/,(?![^(]*\))/)) {
        if (BY_HAND.test(selector)) {
          if (Number(rule.style.opacity) >= SEEN)
            found.push({ selector: filled(selector.replace(BY_HAND_ANYWHERE, '')) });
          continue;
        }
        const names = Array.from(selector.matchAll(/\.([\w-]+)/g), ([, name]) => name);
        for (const name of new Set(names))
          found.push({
            selector: filled(
              selector
                .replaceAll(`:not(.${name})`, '')
                .replaceAll(new RegExp(`\\.${name}(?![\\w-])`, 'g'), ''),
            ),
            name,
          });
      }
    }
  };
  for (const sheet of document.styleSheets) {
    try {
      visit(sheet.cssRules);
    } catch {
      // A sheet of elsewhere says nothing.
    }
  }
  return found;
}

/** A selector in which something was taken out, with all elements where nothing is left. */
const filled = (selector: string): string =>
  selector
    .trim()
    .replace(/^(?=[>+~])/, '* ')
    .replace(/([>+~])\s*(?=[>+~]|$)/g, '$1 *')
    .replace(/^$/, '*');

const matches = (element: Element, selector: string): boolean => {
  try {
    return element.matches(selector);
  } catch {
    return false;
  }
};

/** Whether an element has room of its own in the page, and nobody shows it by hand. */
function isAwaited(element: Element, rules: readonly FadingRule[]): boolean {
  const document = element.ownerDocument;
  const { position, visibility } = document.defaultView!.getComputedStyle(element);
  const box = element.getBoundingClientRect();
  if (position === 'absolute' || position === 'fixed' || visibility !== 'visible') return false;
  if (box.width < LEAST_SIZE || box.height < LEAST_SIZE || element.matches(CONTROLS)) return false;
  if (rules.some(({ name, selector }) => name === undefined && matches(element, selector))) return false;
  if (element.id && isNamed(document, element.id)) return false;
  const others = [...(element.parentElement?.children ?? [])].filter((other) => other !== element);
  const isOver = (other: Element): boolean =>
    sharedArea(box, other.getBoundingClientRect()) > LEAST_OVER * box.width * box.height;
  return !others.some((other) => other.matches(OPENERS) || isOver(other));
}

/** Whether a control says that it opens what has this id. */
const isNamed = (document: Document, id: string): boolean => {
  const said = CSS.escape(id);
  return !!document.querySelector(
    `[aria-controls~="${said}"], [href="#${said}"], [data-target="#${said}"], [data-bs-target="#${said}"], [popovertarget="${said}"]`,
  );
};

function sharedArea(a: DOMRect, b: DOMRect): number {
  const width = Math.min(a.right, b.right) - Math.max(a.left, b.left);
  const height = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
  return width > 0 && height > 0 ? width * height : 0;
}

/** Gives an element, or what it stands in, the class that lets it be seen. @returns whether there is one */
function showByClass(
  element: Element,
  rules: readonly FadingRule[],
  isFaint: (element: Element) => boolean,
): boolean {
  const { parentElement, ownerDocument } = element;
  const holders = new Set([
    element,
    parentElement ?? element,
    ownerDocument.body,
    ownerDocument.documentElement,
  ]);
  for (const { selector, name } of rules) {
    if (name === undefined || !matches(element, selector)) continue;
    for (const holder of holders) {
      if (holder.classList.contains(name)) continue;
      // What other parts are called by says what a part is, and not that scripts have run.
      if (holder !== element && ownerDocument.querySelector(`.${CSS.escape(name)}`)) continue;
      holder.classList.add(name);
      if (!isFaint(element)) return true;
      holder.classList.remove(name);
    }
  }
  return false;
}
