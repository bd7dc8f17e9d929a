import {
  contrastBetween,
  type HeardContrast,
  type HeardHeading,
  type HeardLandmark,
  type HeardRule,
  type HeardStop,
  leastContrast,
} from '@tovel/core';
import { groundBehind } from './ground.ts';

/** As much of axe-core as is asked of it; it is put into the page before. */
interface Axe {
  setup(root: Element): void;
  teardown(): void;
  run(root: Document, options: unknown): Promise<{ readonly violations: readonly Violation[] }>;
  readonly commons: {
    readonly text: { accessibleText(element: Element): string };
    readonly aria: { getRole(element: Element): string | null };
  };
}
interface Violation {
  readonly id: string;
  readonly impact: HeardRule['impact'] | null;
  readonly help: string;
  readonly nodes: readonly { readonly element?: Element }[];
}

declare const axe: Axe;

/** What is asked of a page that is listened to. */
export interface Listening {
  rules(): Promise<HeardRule[]>;
  headings(): HeardHeading[];
  landmarks(): HeardLandmark[];
  /** Where the focus is, with a number that tells elements apart; null where it is nowhere. */
  stop(): (HeardStop & { readonly number: number }) | null;
  /** The contrast of an element's text as it is now; null where that cannot be told. */
  contrast(number: number, state: HeardContrast['state']): HeardContrast | null;
  /** How many elements the Tab key should come to. */
  reachable(): number;
}

const RULES = {
  resultTypes: ['violations'],
  elementRef: true,
  runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] },
};
/** Places of a rule that are told. */
const MOST_PLACES = 40;
const LANDMARKS = /^(banner|complementary|contentinfo|form|main|navigation|region|search)$/;
const LONGEST = 80;

const boxOf = (element: Element): HeardStop['box'] => {
  const { x, y, width, height } = element.getBoundingClientRect();
  return {
    x: Math.round(x + window.scrollX),
    y: Math.round(y + window.scrollY),
    width: Math.round(width),
    height: Math.round(height),
  };
};

const isShown = (element: Element): boolean =>
  element.checkVisibility({ visibilityProperty: true }) && !element.closest('[aria-hidden="true"]');

/** What depends on whether the focus is on an element, and can be seen. */
function lookOf(element: Element): string {
  const style = getComputedStyle(element);
  return [
    style.outlineStyle === 'none' || parseFloat(style.outlineWidth) === 0
      ? ''
      : [style.outlineStyle, style.outlineWidth, style.outlineColor],
    style.boxShadow,
    style.backgroundColor,
    style.color,
    style.borderTopColor,
    style.textDecorationLine,
  ].join('|');
}

const FOCUSABLE =
  'a[href], area[href], button, input:not([type="hidden"]), select, textarea, summary, iframe, audio[controls], video[controls], [contenteditable], [tabindex]';

/** Makes a page answer what it is to those who hear it; the looks of what can have the focus are noted as they are without. */
export function listen(): Listening {
  const focusable = [...document.querySelectorAll(FOCUSABLE)];
  const atRest = new Map(focusable.map((element) => [element, lookOf(element)]));
  const numbered = [...focusable];
  const said = <T>(ask: () => T): T => {
    axe.setup(document.documentElement);
    try {
      return ask();
    } finally {
      axe.teardown();
    }
  };
  const nameOf = (element: Element): string => axe.commons.text.accessibleText(element).slice(0, LONGEST);
  return {
    async rules() {
      const { violations } = await axe.run(document, RULES);
      return violations.map(({ id, impact, help, nodes }) => ({
        id,
        impact: impact ?? 'minor',
        says: help,
        places: nodes.slice(0, MOST_PLACES).flatMap(({ element }) =>
          element
            ? [
                {
                  says: (element.textContent || element.localName)
                    .replace(/\s+/g, ' ')
                    .trim()
                    .slice(0, LONGEST),
                  box: boxOf(element),
                },
              ]
            : [],
        ),
      }));
    },
    headings: () =>
      said(() =>
        [...document.querySelectorAll('h1, h2, h3, h4, h5, h6, [role="heading"]')]
          .filter(isShown)
          .map((element) => ({
            level: Number(
              element.getAttribute('aria-level') ?? /^h([1-6])$/.exec(element.localName)?.[1] ?? 2,
            ),
            says: nameOf(element) || (element.textContent ?? '').trim().slice(0, LONGEST),
            box: boxOf(element),
          })),
      ),
    landmarks: () =>
      said(() =>
        [...document.querySelectorAll('main, nav, header, footer, aside, form, section, search, [role]')]
          .filter(isShown)
          .flatMap((element) => {
            const role = axe.commons.aria.getRole(element) ?? '';
            return LANDMARKS.test(role) ? [{ role, name: nameOf(element), box: boxOf(element) }] : [];
          }),
      ),
    stop() {
      const element = document.activeElement;
      if (!element || element === document.body || element === document.documentElement) return null;
      let number = numbered.indexOf(element);
      if (number < 0) number = numbered.push(element) - 1;
      return said(() => ({
        number,
        name: nameOf(element),
        role: axe.commons.aria.getRole(element) ?? element.localName,
        box: boxOf(element),
        isSeen: lookOf(element) !== atRest.get(element),
      }));
    },
    contrast(number, state) {
      const element = numbered[number];
      const text = element && (element.textContent ?? '').trim();
      if (!text) return null;
      const holder = textHolder(element);
      const style = getComputedStyle(holder);
      const ratio = contrastBetween(style.color, groundBehind(holder));
      if (ratio === null) return null;
      return {
        says: text.replace(/\s+/g, ' ').slice(0, LONGEST),
        state,
        ratio: Math.round(ratio * 10) / 10,
        least: leastContrast(parseFloat(style.fontSize), Number(style.fontWeight)),
        box: boxOf(element),
      };
    },
    reachable: () =>
      focusable.filter(
        (element) =>
          isShown(element) &&
          (element as HTMLElement).tabIndex >= 0 &&
          !element.matches(':disabled') &&
          // Of radio buttons of one name one is come to.
          !element.matches('input[type="radio"]'),
      ).length,
  };
}

/** The innermost element around the first text of an element. */
function textHolder(element: Element): Element {
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode())
    if (node.textContent?.trim()) return node.parentElement!;
  return element;
}
