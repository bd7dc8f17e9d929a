/** The style rules of a loaded page, taken apart into what they can set on which elements. */

/** States and pseudo-elements that are read apart from how an element normally looks. */
export type Aspect = 'base' | 'hover' | 'focus' | 'before' | 'after' | 'placeholder';

export interface PageRule {
  readonly aspect: Aspect;
  /** Selector of the elements, without state and pseudo-element. */
  readonly selector: string;
  /** Longhand names with their declared values. */
  readonly declarations: readonly (readonly [string, string])[];
  /** The rule's text, where a shorthand holds a variable, so that its longhands have no values yet. */
  readonly pending: string | null;
  /** Whether the rule depends on the size of the window. */
  readonly isConditional: boolean;
}

export interface PageRules {
  readonly rules: readonly PageRule[];
  /** Widths at and below which something changes, widest first, in px. */
  readonly boundaries: readonly number[];
  /** Whether a conditional rule changes what other declarations are computed from. */
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
export function collectRules(document: Document, isOwn: (sheet: CSSStyleSheet) => boolean): PageRules {
  const view = document.defaultView!;
  const rules: PageRule[] = [];
  const boundaries = new Set<number>();
  let changesUnits = false;
  const visit = (list: CSSRuleList, isConditional: boolean, parent: string | null): void => {
    for (const rule of list) {
      if (rule instanceof view.CSSStyleRule) {
        const nested = parent !== null;
        const selector = nested ? rule.selectorText.replaceAll('&', `:is(${parent})`) : rule.selectorText;
        const declarations = Array.from(
          rule.style,
          (name) => [name, rule.style.getPropertyValue(name)] as const,
        );
        if (isConditional && declarations.some(([name]) => name.startsWith('--') || name === 'font-size'))
          changesUnits = true;
        for (const single of splitSelector(selector)) {
          const read = readSelector(single);
          const pending = declarations.some(([, value]) => value === '') ? rule.style.cssText : null;
          if (read) rules.push({ ...read, declarations, pending, isConditional });
        }
        if (rule.cssRules?.length) visit(rule.cssRules, isConditional, selector);
      } else if (rule instanceof view.CSSMediaRule) {
        if (/\bprint\b/.test(rule.conditionText) && !/\bscreen\b/.test(rule.conditionText)) continue;
        for (const width of widthsIn(rule.conditionText)) boundaries.add(width);
        visit(rule.cssRules, true, parent);
      } else if ('cssRules' in rule) {
        if (rule instanceof view.CSSSupportsRule && !view.CSS.supports(rule.conditionText)) continue;
        if (rule instanceof view.CSSKeyframesRule) continue;
        visit(
          rule.cssRules as CSSRuleList,
          isConditional || rule.constructor.name === 'CSSContainerRule',
          parent,
        );
      }
    }
  };
  for (const sheet of document.styleSheets) if (!isOwn(sheet)) visit(sheet.cssRules, false, null);
  return { rules, boundaries: [...boundaries].sort((a, b) => b - a), changesUnits };
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

/** Takes state and pseudo-element off the subject; null for selectors that no resting page matches. */
function readSelector(selector: string): { aspect: Aspect; selector: string } | null {
  let rest = selector;
  let aspect: Aspect = 'base';
  for (const [pattern, found] of PSEUDO_ELEMENTS) {
    if (!pattern.test(rest)) continue;
    rest = rest.replace(pattern, '');
    aspect = found;
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
