import { hasDownArrow, inputTypeOf, labelOfField } from './fields.ts';
import type { RoleGuess } from './guess.ts';
import { isMostOfScreen, type Sight } from './sight.ts';
import { chartKindOf, guess, isBox, isInControl, isLinkLike, type RoleRule, says } from './evidence.ts';

/** A part of something: `card-header` is no header. */
const PART =
  / (card|modal|panel|accordion|list|table|form|input|btn|button|dropdown|section|item|widget|box|page) (header|footer|nav|title|heading|body|head|foot|toolbar) /;

/** What a name can make of an element: a box, or what was drawn as one picture. */
const canBe = (s: Sight): boolean => isBox(s) || (s.element.kind === 'vector' && !s.isAuthored);

/** What is called a chart, and is as large as one. */
export function chartByWord(sight: Sight): RoleGuess | null {
  return says(sight, / (chart|graph|donut|sparkline) /) &&
    !says(sight, / (header|title|legend|card|container|wrapper) /) &&
    sight.element.box.height >= 40 &&
    sight.children.length <= 40 &&
    !says(sight, / icon /)
    ? guess(
        'chart',
        sight.element.tag === 'canvas' || sight.element.kind !== 'box' ? 0.9 : 0.7,
        'it is called a chart',
        { chart: chartKindOf(sight) },
      )
    : null;
}

/** What names and classes say. Words of the trade only; each is weighed against what the element looks like. */
export const WORD_RULES: readonly RoleRule[] = [
  (s) =>
    s.element.attributes?.href !== undefined
      ? guess('link', s.look.hasFill && s.look.radius > 0 ? 0.9 : 0.97, 'it has an address')
      : null,
  (s) =>
    canBe(s) &&
    says(
      s,
      / (toggle|toggler|hamburger|burger|menu button|close|accordion button|drop ?down btn|btn close) /,
    ) &&
    !says(s, / (btn group|switch|custom control|icon) /) &&
    s.element.box.height < 120
      ? guess('button', 0.92, 'it is called a toggle')
      : null,
  (s) =>
    s.element.attributes?.placeholder !== undefined
      ? guess('textbox', 0.96, 'it has a placeholder', { input: inputTypeOf(s, '') })
      : null,
  (s, context) => {
    const { screen } = context;
    // `fab` is a floating button, but on pages mostly a family of icons.
    if (
      !canBe(s) ||
      !says(s, screen.isDrawing ? / (btn|button|cta|fab) / : / (btn|button|cta) /) ||
      says(s, / (group|toolbar|list|wrapper|container|bar) /) ||
      isInControl(s, context)
    )
      return null;
    if (s.element.box.height > 120 || s.element.box.width > screen.width * 0.98) return null;
    if (screen.marksButtons && s.element.style.base.appearance !== 'button')
      return guess('link', 0.86, 'it looks like a button, but the page marks its real ones otherwise');
    return isLinkLike(s) && !screen.isDrawing
      ? guess('link', 0.6, 'it is called a button but looks like a link')
      : guess('button', says(s, / (button) /) || screen.isDrawing ? 0.93 : 0.88, 'it is called a button');
  },
  (s) =>
    canBe(s) &&
    says(s, / (dropdown item|menu item) /) &&
    !s.children.some((child) => says(child, / (link|toggle) /))
      ? guess('link', 0.8, 'it is an item of a menu')
      : null,
  // Items and lists by their names; their layout says it better where it is there.
  (s) =>
    canBe(s) &&
    says(s, / (nav item|list inline item|page item|breadcrumb item|list group item) /) &&
    !says(s, / (action) /)
      ? guess('listitem', 0.8, 'it is called an item')
      : null,
  (s) =>
    s.element.kind === 'box' &&
    says(s, / (navbar nav|list group|list unstyled|list inline|nav nav|nav tabs|nav pills) /) &&
    s.children.length > 0 &&
    !says(s, / list group item /)
      ? guess('list', 0.72, 'it is called a list')
      : null,
  (s) =>
    canBe(s) &&
    !says(s, / icon /) &&
    says(s, / (nav link|page link|list group item action|scroll to top|collapse item|link) /) &&
    s.element.box.height < 120
      ? guess('link', 0.88, 'it is called a link')
      : null,
  (s) =>
    canBe(s) &&
    says(s, / (navbar brand|sidebar brand|logo|brand) /) &&
    !says(s, / (brand (text|icon)|logo (text|icon|img)) /) &&
    s.element.box.height < 140
      ? guess('link', 0.72, 'it is a brand, which leads home')
      : null,
  (s) => {
    const isField =
      says(s, / (form control|form input|text ?field|text ?box|input) /) ||
      (!s.isAuthored && says(s, / (field|search bar|search box|text area) /));
    if (
      !isField ||
      !canBe(s) ||
      says(
        s,
        / (input group|group|append|prepend|wrapper|label|button|btn|icon|check|radio|control input|switch|range|select) /,
      )
    )
      return null;
    // The name may be that of the field with its label; the frame in it is the field then.
    if (!s.look.hasBorder && !s.look.hasFill && !s.look.hasUnderline) return null;
    if (s.children.length > 3 || s.element.box.height > 300) return null;
    if (hasDownArrow(s)) return guess('combobox', 0.93, 'it is called a field and has an arrow down');
    return guess('textbox', 0.92, 'it is called a field', {
      input: inputTypeOf(s, labelOfField(s)?.text ?? ''),
    });
  },
  (s) =>
    says(s, / (text ?area) /) && s.look.hasBorder
      ? guess('textbox', 0.94, 'it is called a text area', { input: 'multiline' })
      : null,
  (s) => {
    if (!canBe(s) || says(s, / (group|list|wrapper|container) /)) return null;
    const { width, height } = s.element.box;
    const isSmall = width <= 64 && height <= 48;
    if (says(s, / (switch|toggle) /) && isSmall && width > height * 1.3)
      return guess('switch', 0.92, 'it is called a switch');
    if (says(s, / (check ?box|check input|control input) /) && isSmall && !says(s, / radio /))
      return guess('checkbox', 0.92, 'it is called a checkbox');
    if (says(s, / radio /) && isSmall) return guess('radio', 0.92, 'it is called a radio button');
    if (says(s, / (select|combo ?box|form select|custom select) /) && (s.look.hasBorder || s.look.hasFill))
      return guess('combobox', 0.9, 'it is called a select');
    if (says(s, / (slider|range) /) && width > height * 3 && height < 60)
      return guess('slider', 0.88, 'it is called a slider');
    return null;
  },
  (s, { screen }) => {
    if (!canBe(s) || !says(s, / progress /) || says(s, / progress bar /)) return null;
    if (s.children.some((child) => says(child, / progress bar /))) return null;
    return s.element.box.height <= 40 && s.element.box.width > 40 && s.element.box.width < screen.width
      ? guess('progressbar', 0.7, 'it is called progress')
      : null;
  },
  (s) =>
    canBe(s) && says(s, / (progress bar) /) && s.element.box.height <= 40
      ? guess('progressbar', 0.9, 'it is called a progress bar')
      : null,
  chartByWord,
  (s) =>
    says(s, / avatar /) && s.element.box.width <= 160
      ? guess('avatar', 0.88, 'it is called an avatar')
      : null,
  (s) =>
    s.element.kind === 'box' &&
    says(s, / (modal|dialog) /) &&
    !says(s, / (modal|dialog) (content|body|header|footer|dialog|document|title) /) &&
    s.children.length > 0
      ? guess('dialog', 0.88, 'it is called a dialog')
      : null,
  (s) =>
    canBe(s) &&
    says(s, / (divider|separator|rule|hr) /) &&
    (s.element.box.height <= 6 || s.element.box.width <= 6)
      ? guess('separator', 0.9, 'it is called a divider')
      : null,
  (s) => {
    if (s.element.kind !== 'box' || PART.test(s.words) || !s.children.length || isMostOfScreen(s))
      return null;
    const isSide = (other: Sight): boolean =>
      says(other, / (nested nav|menu nav) /) ||
      (says(other, / (sidenav|side ?nav) /) && !says(other, / (menu|heading|footer|content|link|icon) /));
    if (
      isSide(s) &&
      !says(s, / (heading|footer|content) /) &&
      s.children.length > 1 &&
      !s.children.some(isSide)
    )
      return guess('navigation', 0.8, 'it is called a navigation');
    const full = s.words;
    if (
      / (navbar|topbar|nav bar|navigation|tab ?bar|bottom bar|bottom nav|breadcrumbs?|pagination) /.test(
        full,
      ) &&
      !/ (navbar (nav|brand|toggler|collapse|item|text|search)|nav item|navbar nav) /.test(full)
    )
      return guess(
        'navigation',
        / (navbar|navigation|tab ?bar|bottom nav|topbar) /.test(full) ? 0.82 : 0.6,
        'it is called a navigation',
      );
    return null;
  },
  (s, { screen }) => {
    if (s.element.kind !== 'box' || PART.test(s.words) || s.element.box.width < screen.width * 0.5)
      return null;
    if (/ (site footer|footer|page footer) /.test(s.words) && s.element.box.y > screen.height * 0.4)
      return guess('contentinfo', 0.86, 'it is called a footer');
    if (
      / (masthead|site header|page header|app header|header|app bar|top bar) /.test(s.words) &&
      s.element.box.y < 200 &&
      s.depth <= 6 &&
      !isMostOfScreen(s)
    )
      return guess('banner', 0.8, 'it is called a header');
    return null;
  },
  (s) =>
    s.element.kind === 'box' &&
    / (form|login form|user) /.test(s.words) &&
    s.children.length > 1 &&
    / form /.test(s.words) &&
    !/ form (group|control|row|check|label|floating|select|text|field) /.test(s.words)
      ? guess('form', 0.62, 'it is called a form')
      : null,
  (s) =>
    canBe(s) &&
    / (tab|segment) /.test(s.words) &&
    !/ (tab bar|tab content|tab pane|tab list) /.test(s.words) &&
    s.element.box.height < 90 &&
    s.text !== ''
      ? guess('tab', 0.7, 'it is called a tab')
      : null,
  (s) => {
    if (!isBox(s) || s.isAuthored || s.children.length < 2) return null;
    const isRow = / (row|list item) /.test(s.words);
    const isAmong = (s.parent?.children ?? []).some(
      (other) => other !== s && other.element.name === s.element.name,
    );
    return isRow || (isAmong && / (card|tile|item) /.test(s.words))
      ? guess('listitem', 0.62, 'it is called a row')
      : null;
  },
  (s) =>
    canBe(s) && !s.isAuthored && / (chip|pill) /.test(s.words) && s.element.box.height < 84 && s.text !== ''
      ? guess('button', 0.8, 'it is called a chip')
      : null,
];
