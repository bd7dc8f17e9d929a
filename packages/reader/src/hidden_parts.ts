/** What a page hides until something opens it, and what it takes to see it as it would look then. */

import { declaredBy } from './declared_rules.ts';

/** A rule that lets something be seen, or that hides what lacks a class. */
interface ShowingRule {
  readonly selector: string;
  /** Classes that its selector speaks of, and what its last part asks of an element itself. */
  readonly classes: readonly string[];
  readonly subject: { readonly classes: readonly string[]; readonly tag: string; readonly isOther: boolean };
}

interface SayingRule {
  readonly selector: string;
  readonly properties: readonly string[];
}

/** A rule that shows something while what it stands in, or stands after, is pointed at. */
interface PointingRule {
  /** Its selector without the pointing. */
  readonly selector: string;
  readonly subject: ShowingRule['subject'];
  readonly style: CSSStyleDeclaration;
}

/** A rule for what stands behind a box, while that is ticked, or the chosen one of several. */
interface TickingRule {
  readonly selector: string;
  readonly subject: ShowingRule['subject'];
  readonly properties: readonly string[];
  readonly isShowing: boolean;
}

/** Takes back what was done to an element. */
type Undo = () => void;

/** So many rules are tried on what is hidden; libraries have some hundreds. */
const MOST_RULES = 5000;
/** Boxes of a page that are tried. */
const MOST_BOXES = 200;

export class HiddenParts {
  readonly #document: Document;
  readonly #rules: readonly ShowingRule[];
  /** Rules that hold only where something has a class that nothing in the page has, by that class. */
  readonly #saidWith: ReadonlyMap<string, readonly SayingRule[]>;
  readonly #pointing: readonly PointingRule[];
  readonly #ticking: readonly TickingRule[];
  readonly #boxes: readonly HTMLInputElement[];
  readonly #opened = new Map<HTMLInputElement, Element>();

  constructor(document: Document, isOwn: (sheet: CSSStyleSheet) => boolean) {
    this.#document = document;
    const { showing, saidWith, pointing, ticking } = rulesOf(document, isOwn);
    const boxes = document.querySelectorAll<HTMLInputElement>('input[type=checkbox], input[type=radio]');
    this.#boxes = ticking.length ? [...boxes].slice(0, MOST_BOXES) : [];
    this.#ticking = ticking;
    this.#rules = showing;
    this.#pointing = pointing;
    this.#saidWith = saidWith;
  }

  /**
   * Whether an element takes its place but is not seen, while the page has a class that would let it be seen, or shows it
   * while something is pointed at or ticked: faded out, invisible, or folded to nothing.
   */
  isClosed(element: Element): boolean {
    return (
      this.#isUnseen(element) &&
      (this.#classesThatShow(element).length > 0 ||
        this.#shownByPointing(element).length > 0 ||
        this.#boxFor(element) !== null)
    );
  }

  /** Whether a hidden element has room in the flow, and is only seen through while nothing points at what it stands in. */
  isFaintInFlow(element: Element): boolean {
    const { position, opacity, visibility, float, pointerEvents } = this.#lookOf(element);
    const { width, height } = element.getBoundingClientRect();
    return (
      Number(opacity) < SEEN &&
      visibility === 'visible' &&
      // What cannot be pressed while it is not seen is opened, as a menu is.
      pointerEvents !== 'none' &&
      /^(static|relative)$/.test(position) &&
      float === 'none' &&
      width > 0 &&
      height > 0 &&
      this.#classesThatShow(element).length === 0 &&
      this.#boxFor(element) === null &&
      this.#shownByPointing(element).some(({ style }) => style.opacity !== '')
    );
  }

  /** What a box shows when it is ticked, of what was looked at so far. */
  openedBy(box: HTMLInputElement): Element | null {
    return this.#opened.get(box) ?? null;
  }

  /** The box that shows a hidden element when it is ticked. */
  #boxFor(element: Element): HTMLInputElement | null {
    for (const { selector, subject, isShowing } of this.#ticking) {
      if (!isShowing || !mayBeSubject(element, subject) || !matches(element, selector.replace(TICKED, '')))
        continue;
      for (const box of this.#boxes) {
        if (box.checked) continue;
        let undo = ticked(box);
        const isMatched = matches(element, selector);
        undo();
        // How it looks takes the browser far longer than whether a rule is about it.
        if (!isMatched) continue;
        const before = this.#seenness(element);
        undo = ticked(box);
        const isShown = this.#seenness(element) > before;
        undo();
        if (!isShown) continue;
        this.#opened.set(box, element);
        return box;
      }
    }
    return null;
  }

  #shownByPointing(element: Element): PointingRule[] {
    return this.#pointing.filter(
      ({ selector, subject }) => mayBeSubject(element, subject) && matches(element, selector),
    );
  }

  /**
   * Shows a hidden element as the page would, as far as its style sheets say how.
   * @returns what takes that back, and the properties that are said of elements in it only while it is shown
   */
  show(element: Element): { readonly undo: Undo; readonly said: (inner: Element) => readonly string[] } {
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
    for (const name of ['display', 'visibility', 'opacity', 'height', 'max-height', 'grid-template-rows'])
      style.removeProperty(name);
    const given = this.#classesThatShow(element);
    for (const [holder, name] of given) {
      holder.classList.add(name);
      undo.push(() => holder.classList.remove(name));
    }
    const box = given.length ? null : this.#boxFor(element);
    if (box) undo.push(ticked(box));
    const pointed = given.length || box ? [] : this.#shownByPointing(element);
    for (const { style: shown } of pointed)
      for (const name of shown) style.setProperty(name, shown.getPropertyValue(name), 'important');
    const seen = this.#lookOf(element);
    if (seen.display === 'none') style.setProperty('display', 'revert', 'important');
    if (this.#lookOf(element).display === 'none') style.setProperty('display', 'block', 'important');
    if (seen.visibility !== 'visible') style.setProperty('visibility', 'visible', 'important');
    if (Number(seen.opacity) < SEEN) style.setProperty('opacity', '1', 'important');
    const saying = box ? this.#ticking : given.flatMap(([, name]) => this.#saidWith.get(name) ?? []);
    return {
      undo: () => undo.toReversed().forEach((one) => one()),
      said: (inner) => [
        ...saying.flatMap(({ selector, properties }) => (matches(inner, selector) ? properties : [])),
        ...(inner === element ? pointed.flatMap(({ style: shown }) => [...shown]) : []),
      ],
    };
  }

  #lookOf(element: Element): CSSStyleDeclaration {
    return this.#document.defaultView!.getComputedStyle(element);
  }

  #isUnseen(element: Element): boolean {
    const { display, visibility, opacity } = this.#lookOf(element);
    if (display === 'none' || Number(opacity) < SEEN) return true;
    const parent = element.parentElement;
    if (visibility !== 'visible' && parent && this.#lookOf(parent).visibility === 'visible') return true;
    return this.#isFolded(element);
  }

  /** Whether no line of what is in an element is seen, since it is too low; a grid can fold the only thing in it. */
  #isFolded(element: Element): boolean {
    const { display, overflowY, paddingTop, paddingBottom } = this.#lookOf(element);
    if (display.endsWith('grid') && element.children.length === 1) return this.#isFolded(element.children[0]);
    const room = element.clientHeight - parseFloat(paddingTop) - parseFloat(paddingBottom);
    return overflowY === 'hidden' && room < 1 && element.scrollHeight > element.clientHeight + LEAST_FOLDED;
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
    const { display, visibility, opacity } = this.#lookOf(element);
    return (
      (display === 'none' ? 0 : 4) +
      (visibility === 'visible' ? 1 : 0) +
      (Number(opacity) < SEEN ? 0 : 1) +
      (this.#isFolded(element) ? 0 : 1)
    );
  }

  #candidates(element: Element, holder: Element): string[] {
    const found = new Set<string>();
    for (const { selector, classes, subject } of this.#rules) {
      if (!mayBeSubject(element, subject)) continue;
      const isMatched = matches(element, selector);
      for (const name of classes) {
        if (found.has(name) || holder.classList.contains(name)) continue;
        const isNegative = selector.includes(`:not(.${name})`);
        if (isMatched || isNegative) {
          if (isMatched && isNegative) found.add(name);
          continue;
        }
        holder.classList.add(name);
        if (matches(element, selector)) found.add(name);
        holder.classList.remove(name);
      }
    }
    return [...found];
  }
}

/** What is folded away is higher than this, in px. */
const LEAST_FOLDED = 8;

/** Fainter than this, nothing is seen. */
const SEEN = 0.05;

/** Whether a rule can be about an element that has one class more; at once where it cannot. */
const mayBeSubject = (element: Element, { classes, tag, isOther }: ShowingRule['subject']): boolean =>
  (!tag || tag === element.localName) &&
  (isOther || (classes.length === 0 ? tag !== '' : classes.some((name) => element.classList.contains(name))));

function subjectOf(selector: string): ShowingRule['subject'] {
  const last = (/[^\s>+~]+$/.exec(selector.replace(/:not\([^)]*\)/g, ''))?.[0] ?? '').trim();
  return {
    classes: classesIn(last),
    tag: /^[a-z][\w-]*/i.exec(last)?.[0].toLowerCase() ?? '',
    isOther: /[#[:]/.test(last),
  };
}

/** Ticks a box; which of several was chosen before comes back. */
function ticked(box: HTMLInputElement): Undo {
  const others =
    box.type === 'radio' && box.name
      ? [...box.ownerDocument.querySelectorAll<HTMLInputElement>('input[type=radio]')].filter(
          (one) => one.checked && one.name === box.name,
        )
      : [];
  box.checked = true;
  return () => {
    box.checked = false;
    for (const other of others) other.checked = true;
  };
}

function matches(element: Element, selector: string): boolean {
  try {
    return element.matches(selector);
  } catch {
    return false;
  }
}

/** Rules that show or hide what is known by more than the class that shows it, and those that wait for a class. */
function rulesOf(
  document: Document,
  isOwn: (sheet: CSSStyleSheet) => boolean,
): {
  readonly showing: ShowingRule[];
  readonly saidWith: ReadonlyMap<string, SayingRule[]>;
  readonly pointing: PointingRule[];
  readonly ticking: TickingRule[];
} {
  const view = document.defaultView!;
  const known = new Set<string>();
  for (const element of document.querySelectorAll('[class]'))
    for (const name of element.classList) known.add(name);
  const found: ShowingRule[] = [];
  const saidWith = new Map<string, SayingRule[]>();
  const pointing: PointingRule[] = [];
  const ticking: TickingRule[] = [];
  const visit = (rules: CSSRuleList, parent: string | null): void => {
    for (const rule of rules) {
      const declared = declaredBy(rule, parent);
      if (declared) {
        const { selector, style } = declared;
        const says = showsOrHides(style);
        for (const one of selector.split(/,(?![^(]*\))/)) {
          const single = one.trim();
          const classes = classesIn(single);
          const isNegative = /:not\(\.[\w-]+\)/.test(single);
          const needed = classesIn(single.replace(/:not\([^)]*\)/g, '')).filter((name) => !known.has(name));
          const still = single.replace(POINTED, '');
          if (says === 'shows' && still !== single && isAround(single) && pointing.length < MOST_RULES)
            pointing.push({ selector: still, subject: subjectOf(still), style });
          const isTicked = TICKED.test(single) && !/:checked/.test(lastOf(single));
          if (isTicked && ticking.length < MOST_RULES)
            ticking.push({
              selector: single,
              subject: subjectOf(single),
              properties: [...style],
              isShowing: says === 'shows',
            });
          // One class may be missing in the page.
          if (needed.length > 1 || /:(hover|focus|active)|::/.test(single)) continue;
          const [waitsFor] = needed;
          if (waitsFor !== undefined) {
            if (!saidWith.has(waitsFor)) saidWith.set(waitsFor, []);
            saidWith.get(waitsFor)!.push({ selector: single, properties: [...style] });
          }
          if (!says || found.length >= MOST_RULES) continue;
          if (says === 'hides' ? !isNegative : classes.length < 2 && !/[#[]/.test(single)) continue;
          found.push({ selector: single, classes: [...new Set(classes)], subject: subjectOf(single) });
        }
        const { cssRules } = rule as CSSStyleRule;
        if (cssRules?.length) visit(cssRules, selector);
      } else if ('cssRules' in rule && !(rule instanceof view.CSSKeyframesRule)) {
        if (rule instanceof view.CSSMediaRule && !view.matchMedia(rule.conditionText).matches) continue;
        visit(rule.cssRules as CSSRuleList, parent);
      }
    }
  };
  for (const sheet of document.styleSheets) if (!isOwn(sheet)) visit(sheet.cssRules, null);
  return { showing: found, saidWith, pointing, ticking };
}

const POINTED = /:(?:hover|focus-within)(?![\w-])/g;
const TICKED = /:checked(?![\w-])/;

const lastOf = (selector: string): string => /[^\s>+~]+$/.exec(selector)?.[0] ?? '';

/** Whether it is something around or before what a rule is about that has to be pointed at. */
function isAround(selector: string): boolean {
  const last = lastOf(selector);
  return !/:(hover|focus|active)|::/.test(last) && !/:(focus(?!-within)|active)/.test(selector);
}

const classesIn = (selector: string): string[] =>
  [...selector.matchAll(/\.((?:\\.|[\w-])+)/g)].map(([, name]) => name.replaceAll('\\', ''));

function showsOrHides(style: CSSStyleDeclaration): 'shows' | 'hides' | null {
  const { display, visibility, opacity, height, maxHeight, gridTemplateRows } = style;
  if (
    display === 'none' ||
    visibility === 'hidden' ||
    opacity === '0' ||
    height === '0px' ||
    maxHeight === '0px' ||
    gridTemplateRows === '0fr'
  )
    return 'hides';
  return display || visibility === 'visible' || opacity || height || maxHeight || gridTemplateRows
    ? 'shows'
    : null;
}
