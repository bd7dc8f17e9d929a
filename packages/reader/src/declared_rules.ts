/** What a rule of a style sheet declares by itself. */
export interface Declared {
  /** With that of the rules that it stands in put in. */
  readonly selector: string;
  readonly style: CSSStyleDeclaration;
}

/** One part of a selector, for which that can stand as it is. */
const COMPOUND = /^[.#:[][^\s,>+~()]*$/;

/**
 * What a rule declares, and for which elements; null for what only holds other rules. Declarations that stand in a rule by
 * themselves, after rules within it or in a condition, are of that rule (CSS Nesting 1, 3.3.1).
 * @param parent the selector of the rule that it stands in
 */
export function declaredBy(rule: CSSRule, parent: string | null): Declared | null {
  // Rules of a page in a frame are of that frame's own kinds.
  const kind = rule.constructor.name;
  if (kind === 'CSSNestedDeclarations')
    return { selector: parent ?? ':scope', style: (rule as CSSStyleRule).style };
  if (kind !== 'CSSStyleRule') return null;
  const { selectorText, style } = rule as CSSStyleRule;
  if (parent === null) return { selector: selectorText, style };
  return { selector: selectorText.replaceAll('&', COMPOUND.test(parent) ? parent : `:is(${parent})`), style };
}
