/** The style rules of a loaded page, taken apart into what they can set on which elements. */

import Specificity from '@bramus/specificity';
import { STYLED_PARTS } from '@tovel/core';
import { declaredBy } from './declared_rules.ts';

/** States and pseudo-elements that are read apart from how an element normally looks. */
export type Aspect = 'base' | 'hover' | 'focus' | 'before' | 'after' | 'placeholder' | `::${string}`;

export interface PageRule {
  readonly aspect: Aspect;
  /** Selector of the elements, without state and pseudo-element. */
  readonly selector: string;
  /** Longhand names with their declared values. */
  readonly declarations: readonly (readonly [string, string])[];
  /** Longhands that win over those that are not said to be important. */
  readonly important: ReadonlySet<string>;
  /** The rule's text, where a shorthand holds a variable, so that its longhands have no values yet. */
  readonly pending: string | null;
  /** Whether the rule depends on the size of the window. */
  readonly isConditional: boolean;
  /** Whether it holds in the window as it is now. */
  readonly holds: boolean;
  /** What has to hold of the window for it to hold; null where something else than that decides. */
  readonly conditions: readonly string[] | null;
  /** Widths, in px, at and below which the rule holds or stops to hold. */
  readonly boundaries: readonly number[];
  /** Whether it changes what lengths and variables beneath its elements are computed from. */
  readonly changesUnits: boolean;
}

const STATES: readonly (readonly [RegExp, Aspect])[] = [
  [/:hover(?![\w-])/g, 'hover'],
  [/:focus(-visible|-within)?(?![\w-])/g, 'focus'],
];
const PSEUDO_ELEMENTS: readonly (readonly [RegExp, Aspect])[] = [
  [/::?before$/, 'before'],
  [/::?after$/, 'after'],
  [/::(-webkit-input-)?placeholder$/, 'placeholder'],
];

/** Reads all style sheets of a document but those that reading itself has put there. */
export function collectRules(document: Document, isOwn: (sheet: CSSStyleSheet) => boolean): PageRule[] {
  const view = document.defaultView!;
  const rules: PageRule[] = [];
  const words = new Words(document);
  const visit = (
    list: CSSRuleList,
    boundaries: readonly number[] | null,
    holds: boolean,
    parent: string | null,
    conditions: readonly string[] | null,
  ): void => {
    for (const rule of list) {
      const declared = declaredBy(rule, parent);
      if (declared) {
        const { selector, style } = declared;
        // Most rules of a library are for elements that a page does not have.
        const singles = splitSelector(selector).filter((single) => words.canMatch(single));
        if (singles.length) {
          const declarations = Array.from(style, (name) => [name, style.getPropertyValue(name)] as const);
          const important = new Set(
            declarations
              .map(([name]) => name)
              .filter((name) => style.getPropertyPriority(name) === 'important'),
          );
          const pending = declarations.some(([, value]) => value === '') ? style.cssText : null;
          const changesUnits =
            boundaries !== null &&
            declarations.some(([name]) => name.startsWith('--') || name === 'font-size');
          const isByContainer = CONTAINER_UNIT.test(style.cssText);
          const widths = isByContainer ? [...(boundaries ?? []), ...USUAL_WIDTHS] : boundaries;
          for (const single of singles) {
            const read = readSelector(single);
            if (read)
              rules.push({
                ...read,
                declarations,
                important,
                pending,
                isConditional: widths !== null,
                holds,
                conditions,
                boundaries: widths ?? [],
                changesUnits,
              });
          }
        }
        const { cssRules } = rule as CSSStyleRule;
        if (cssRules?.length) visit(cssRules, boundaries, holds, selector, conditions);
      } else if (rule instanceof view.CSSMediaRule) {
        if (/\bprint\b/.test(rule.conditionText) && !/\bscreen\b/.test(rule.conditionText)) continue;
        const { matches } = view.matchMedia(rule.conditionText);
        const within = [...(boundaries ?? []), ...widthsIn(rule.conditionText)];
        visit(
          rule.cssRules,
          within,
          holds && matches,
          parent,
          conditions && [...conditions, rule.conditionText],
        );
      } else if ('cssRules' in rule) {
        if (rule instanceof view.CSSSupportsRule && !view.CSS.supports(rule.conditionText)) continue;
        if (rule instanceof view.CSSKeyframesRule) continue;
        const isContainer = rule.constructor.name === 'CSSContainerRule';
        // A container's width follows the window's in ways of its own, so it is looked at at the usual widths.
        visit(
          rule.cssRules as CSSRuleList,
          isContainer ? [...(boundaries ?? []), ...USUAL_WIDTHS] : boundaries,
          holds,
          parent,
          isContainer ? null : conditions,
        );
      }
    }
  };
  for (const sheet of document.styleSheets) if (!isOwn(sheet)) visit(sheet.cssRules, null, true, null, []);
  return inCascade(rules);
}

/** Rules as browsers let them win over each other: by how special their selectors are, then in their order. */
function inCascade(rules: readonly PageRule[]): PageRule[] {
  const weights = new Map<string, number>();
  const weightOf = ({ selector, aspect }: PageRule): number => {
    // Among those of one aspect, what was taken off the subject counts for all.
    if (aspect === 'base') return 0;
    let weight = weights.get(selector);
    if (weight === undefined) weights.set(selector, (weight = specificity(selector)));
    return weight;
  };
  return rules
    .map((rule) => ({ rule, weight: weightOf(rule) }))
    .sort((a, b) => a.weight - b.weight)
    .map(({ rule }) => rule);
}

function specificity(selector: string): number {
  try {
    const [{ a, b, c }] = Specificity.calculate(selector);
    return a * 1_000_000 + b * 1000 + c;
  } catch {
    // A selector that browsers understand and the parser does not.
    return 0;
  }
}

/** Lengths that are parts of a container. */
const CONTAINER_UNIT = /\dcq(w|i|h|b|min|max)\b/;
/** Where what follows the window by itself is looked at, in px. */
export const USUAL_WIDTHS: readonly number[] = [1023, 767, 479];

/** The names that a document uses, to tell at once that a selector can match nothing in it. */
class Words {
  readonly #known = new Set<string>();

  constructor(document: Document) {
    for (const element of document.querySelectorAll('*')) {
      this.#known.add(element.localName.toLowerCase());
      for (const name of element.classList) this.#known.add(`.${name}`);
      if (element.id) this.#known.add(`#${element.id}`);
    }
  }

  /** Errs on the side of yes. */
  canMatch(selector: string): boolean {
    // What stands in brackets is an alternative or an attribute, and says nothing of what has to be there.
    const plain = selector
      .replace(/\[[^\]]*\]/g, '')
      .replace(/\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\)/g, '');
    for (const [, mark, name] of plain.matchAll(/([.#])((?:\\[0-9a-f]{1,6}\s?|\\.|[\w-]|\P{ASCII})+)/giu)) {
      if (/\\[0-9a-f]/i.test(name)) continue;
      if (!this.#known.has(mark + name.replace(/\\(.)/g, '$1'))) return false;
    }
    for (const [, tag] of plain.matchAll(/(?:^|[\s>+~])([a-z][a-z0-9-]*)/gi))
      if (!this.#known.has(tag.toLowerCase())) return false;
    return true;
  }
}

/** The last width, in px, at which each condition on the width has its narrower answer. */
function widthsIn(condition: string): number[] {
  const found: number[] = [];
  const px = (value: string, unit: string): number => Number(value) * (unit === 'px' ? 1 : 16);
  for (const [, kind, value, unit] of condition.matchAll(/\b(min|max)-width:\s*([\d.]+)(px|em|rem)/g))
    found.push(kind === 'max' ? Math.floor(px(value, unit)) : Math.ceil(px(value, unit)) - 1);
  for (const [, sign, value, unit] of condition.matchAll(/\bwidth\s*([<>]=?)\s*([\d.]+)(px|em|rem)/g))
    found.push(sign === '<=' || sign === '>' ? Math.floor(px(value, unit)) : Math.ceil(px(value, unit)) - 1);
  for (const [, value, unit, sign] of condition.matchAll(/([\d.]+)(px|em|rem)\s*([<>]=?)\s*width\b/g))
    found.push(sign === '<' || sign === '>=' ? Math.floor(px(value, unit)) : Math.ceil(px(value, unit)) - 1);
  return found;
}

/** Splits a selector list at its own commas, not at those within brackets. */
function splitSelector(list: string): string[] {
  const parts: string[] = [];
  let depth = 0;
  let start = 0;
  for (let i = 0; i <= list.length; i++) {
    const char = list[i];
    if (char === '(' || char === '[') depth++;
    else if (char === ')' || char === ']') depth--;
    else if (i === list.length || (char === ',' && depth === 0)) {
      parts.push(list.slice(start, i).trim());
      start = i + 1;
    }
  }
  return parts;
}

/** Older names of parts of controls. */
const OLD_PARTS: Readonly<Record<string, string>> = {
  '::-webkit-file-upload-button': '::file-selector-button',
};

/** Takes state and pseudo-element off the subject; null for selectors that no resting page matches. */
function readSelector(selector: string): { aspect: Aspect; selector: string } | null {
  let rest = selector;
  let aspect: Aspect = 'base';
  for (const [pattern, found] of PSEUDO_ELEMENTS) {
    if (!pattern.test(rest)) continue;
    rest = rest.replace(pattern, '');
    aspect = found;
  }
  const part = aspect === 'base' ? /::[\w-]+$/.exec(rest)?.[0] : undefined;
  const known = part && (OLD_PARTS[part] ?? part);
  if (known && STYLED_PARTS.has(known)) {
    rest = rest.slice(0, -part.length);
    aspect = known as Aspect;
  }
  if (rest.includes('::') || /:(active|target|visited)(?![\w-])/.test(rest)) return null;
  for (const [pattern, found] of STATES) {
    if (!rest.match(pattern)) continue;
    const subject = /[^\s>+~]*$/.exec(rest)![0];
    const above = rest.slice(0, rest.length - subject.length);
    // A state of something else, or of a pseudo-element, is not carried over.
    if (aspect !== 'base' || above.match(pattern)) return null;
    rest = above + (subject.replace(pattern, '') || '*');
    aspect = found;
  }
  return { aspect, selector: rest.trim() || '*' };
}
