/** What a page hides until something opens it, and what it takes to see it as it would look then. */

/** A rule that lets something be seen, or that hides what lacks a class. */
interface ShowingRule {
  readonly selector: string;
  /** Classes that its selector speaks of. */
  readonly classes: readonly string[];
}

/** Takes back what was done to an element. */
type Undo = () => void;

/** So many rules are tried on what is hidden; libraries have some hundreds. */
const MOST_RULES = 5000;

export class HiddenParts {
  readonly #document: Document;
  readonly #rules: readonly ShowingRule[];

  constructor(document: Document, isOwn: (sheet: CSSStyleSheet) => boolean) {
    this.#document = document;
    this.#rules = showingRules(document, isOwn);
  }

  /**
   * Whether an element takes its place but is not seen, while the page has a class that would let it be seen: faded out,
   * invisible, or folded to nothing.
   */
  isClosed(element: Element): boolean {
    return this.#isUnseen(element) && this.#classesThatShow(element).length > 0;
  }

  /** Shows a hidden element as the page would, as far as its style sheets say how. */
  show(element: Element): Undo {
    const undo: Undo[] = [];
    const style = (element as HTMLElement).style;
    const written = element.getAttribute('style');
    undo.push(() =>
      written === null ? element.removeAttribute('style') : element.setAttribute('style', written),
    );
    if (element.hasAttribute('hidden')) {
      const value = element.getAttribute('hidden')!;
      element.removeAttribute('hidden');
      undo.push(() => element.setAttribute('hidden', value));
    }
    if (element.localName === 'dialog' && !element.hasAttribute('open')) {
      element.setAttribute('open', '');
      undo.push(() => element.removeAttribute('open'));
    }
    for (const name of ['display', 'visibility', 'opacity', 'height', 'max-height'])
      style.removeProperty(name);
    for (const [holder, name] of this.#classesThatShow(element)) {
      holder.classList.add(name);
      undo.push(() => holder.classList.remove(name));
    }
    const seen = this.#lookOf(element);
    if (seen.display === 'none') style.setProperty('display', 'revert', 'important');
    if (this.#lookOf(element).display === 'none') style.setProperty('display', 'block', 'important');
    if (seen.visibility !== 'visible') style.setProperty('visibility', 'visible', 'important');
    if (Number(seen.opacity) < SEEN) style.setProperty('opacity', '1', 'important');
    return () => undo.toReversed().forEach((one) => one());
  }

  #lookOf(element: Element): CSSStyleDeclaration {
    return this.#document.defaultView!.getComputedStyle(element);
  }

  #isUnseen(element: Element): boolean {
    const { display, visibility, opacity, height, overflowY } = this.#lookOf(element);
    if (display === 'none' || Number(opacity) < SEEN) return true;
    const parent = element.parentElement;
    if (visibility !== 'visible' && parent && this.#lookOf(parent).visibility === 'visible') return true;
    return height === '0px' && overflowY === 'hidden' && element.scrollHeight > 8;
  }

  /** Classes that together let an element be seen, each with the element that gets it: itself, or what it stands in. */
  #classesThatShow(element: Element): [Element, string][] {
    const parent = element.parentElement;
    const holders = [element, ...(parent && parent !== this.#document.body ? [parent] : [])];
    const given: [Element, string][] = [];
    for (const holder of holders) {
      for (const name of this.#candidates(element, holder)) {
        if (!this.#isUnseen(element)) break;
        const before = this.#seenness(element);
        holder.classList.add(name);
        if (this.#seenness(element) > before) given.push([holder, name]);
        else holder.classList.remove(name);
      }
      if (!this.#isUnseen(element)) break;
    }
    const isSeen = !this.#isUnseen(element);
    for (const [holder, name] of given) holder.classList.remove(name);
    return isSeen || given.some(([holder]) => holder === element) ? given : [];
  }

  /** How much of what hides an element is not so. */
  #seenness(element: Element): number {
    const { display, visibility, opacity, height } = this.#lookOf(element);
    return (
      (display === 'none' ? 0 : 4) +
      (visibility === 'visible' ? 1 : 0) +
      (Number(opacity) < SEEN ? 0 : 1) +
      (height === '0px' ? 0 : 1)
    );
  }

  #candidates(element: Element, holder: Element): string[] {
    const found = new Set<string>();
    for (const { selector, classes } of this.#rules)
      for (const name of classes) {
        if (found.has(name) || holder.classList.contains(name)) continue;
        const isNegative = selector.includes(`:not(.${name})`);
        if (matches(element, selector)) {
          if (isNegative) found.add(name);
          continue;
        }
        if (isNegative) continue;
        holder.classList.add(name);
        if (matches(element, selector)) found.add(name);
        holder.classList.remove(name);
      }
    return [...found];
  }
}

/** Fainter than this, nothing is seen. */
const SEEN = 0.05;

function matches(element: Element, selector: string): boolean {
  try {
    return element.matches(selector);
  } catch {
    return false;
  }
}

/** Rules whose subject is known by more than the class that shows it. */
function showingRules(document: Document, isOwn: (sheet: CSSStyleSheet) => boolean): ShowingRule[] {
  const view = document.defaultView!;
  const known = new Set<string>();
  for (const element of document.querySelectorAll('[class]'))
    for (const name of element.classList) known.add(name);
  const found: ShowingRule[] = [];
  const visit = (rules: CSSRuleList): void => {
    for (const rule of rules) {
      if (found.length >= MOST_RULES) return;
      if (rule instanceof view.CSSStyleRule) {
        const says = showsOrHides(rule.style);
        if (!says) continue;
        for (const selector of rule.selectorText.split(/,(?![^(]*\))/)) {
          const single = selector.trim();
          const classes = [...single.matchAll(/\.((?:\\.|[\w-])+)/g)].map(([, name]) =>
            name.replaceAll('\\', ''),
          );
          const isNegative = /:not\(\.[\w-]+\)/.test(single);
          if (says === 'hides' ? !isNegative : classes.length < 2 && !/[#[]/.test(single)) continue;
          // One class may be missing in the page, or stand elsewhere in it.
          if (
            classes.filter((name) => !known.has(name)).length > 1 ||
            /:(hover|focus|active)|::/.test(single)
          )
            continue;
          found.push({ selector: single, classes: [...new Set(classes)] });
        }
      } else if ('cssRules' in rule && !(rule instanceof view.CSSKeyframesRule)) {
        if (rule instanceof view.CSSMediaRule && !view.matchMedia(rule.conditionText).matches) continue;
        visit(rule.cssRules as CSSRuleList);
      }
    }
  };
  for (const sheet of document.styleSheets) if (!isOwn(sheet)) visit(sheet.cssRules);
  return found;
}

function showsOrHides(style: CSSStyleDeclaration): 'shows' | 'hides' | null {
  const { display, visibility, opacity, height, maxHeight } = style;
  if (
    display === 'none' ||
    visibility === 'hidden' ||
    opacity === '0' ||
    height === '0px' ||
    maxHeight === '0px'
  )
    return 'hides';
  return display || visibility === 'visible' || opacity || height || maxHeight ? 'shows' : null;
}
