import type { Element, Screen } from '../model/design.ts';
import { textOf, walkElements } from '../model/project.ts';
import { isNameless, namelessLabel } from './nameless.ts';
import { isField, isPressable, roleOf } from '../roles/role.ts';
import { onceFor } from '../json/once_for.ts';

/** An element that can be wired, with what people call it. */
export interface Pressable {
  readonly element: Element;
  readonly label: string;
  /** Counts from 1 in reading order; the number of its pin. */
  readonly number: number;
  /** Key of the element that it stands in. */
  readonly parent: string;
  /** Name of the bar or navigation it stands in, if any. */
  readonly within?: string;
}

/** What looks pressable on a screen, in reading order. Computed once per screen value. */
export const pressablesOf = onceFor((screen: Screen): readonly Pressable[] => findPressables(screen));

function findPressables(screen: Screen): Pressable[] {
  const found: Omit<Pressable, 'number'>[] = [];
  const visit = (element: Element, within: string | undefined, parent: string): void => {
    // What stands for another element of the same screen at another width is wired with that one.
    if (element.hidden || isField(element) || screen.aliases?.[element.key]) return;
    const role = roleOf(element);
    if (role === 'image' && element.children.length) return;
    if (element !== screen.root && isPressable(element)) {
      found.push({ element, label: labelOf(element), parent, ...(within ? { within } : {}) });
      // Within a row, a button can stand for itself; anything else pressable is one thing.
      if (role === 'listitem') element.children.forEach((child) => visitButtons(child, within, element.key));
      return;
    }
    const bar = role === 'navigation' ? (element.name.length > 30 ? 'Navigation' : element.name) : within;
    element.children.forEach((child) => visit(child, bar, element.key));
  };
  const visitButtons = (element: Element, within: string | undefined, parent: string): void => {
    if (['button', 'link'].includes(roleOf(element) ?? '')) visit(element, within, parent);
    else element.children.forEach((child) => visitButtons(child, within, element.key));
  };
  visit(screen.root, undefined, '');
  return found.map((pressable, i) => ({ ...pressable, number: i + 1 }));
}

/** What people call an element: its label, its text, else its layer name, or what it shows. */
export function labelOf(element: Element): string {
  const text =
    element.attributes?.['aria-label'] ??
    element.attributes?.value ??
    (shortText(ownTexts(element)) || element.attributes?.alt);
  const name = text || (isNameless(element) ? namelessLabel(element) : element.name);
  const label = name.replace(/\s+/g, ' ').trim();
  return label.length > 60 ? `${label.slice(0, 57)}…` : label;
}

/** The texts of an element without those of the buttons in it. */
function ownTexts(element: Element): string[] {
  const parts: string[] = [];
  walkElements(element, (inner) => {
    if (inner !== element && (roleOf(inner) === 'button' || isBadge(inner))) return false;
    if (inner.text?.trim()) parts.push(inner.text.trim());
    return true;
  });
  return parts;
}

/** A number that says how many wait there: what is around it is called the same without it. */
const isBadge = (element: Element): boolean =>
  BADGE.test(`${element.classes ?? ''} ${element.kind === 'text' ? '' : element.name}`) &&
  /^\d{1,4}\+?$/.test(textOf(element));
const BADGE = /(^|[\s_-])(badge|counter|count|bubble|pill|notifications?)([\s_-]|$)/i;

/** Longer than this, and the first of several texts says enough. */
const SHORT = 24;

function shortText(texts: readonly string[]): string {
  const whole = texts.join(' ');
  return texts.length > 1 && whole.length > SHORT && /\p{L}{2}/u.test(texts[0]) ? texts[0] : whole;
}
