/**
 * What attributes say to whoever listens to a page (WAI-ARIA 1.2): only what holds of the element as it is written, of ids that
 * are there, and of what can be operated.
 */

import type { Element } from '../../model/design.ts';
import { walkElements } from '../../model/project.ts';

type Attributes = Record<string, string | true>;

/** Attributes that name other elements by their ids. */
const REFERENCES = new Set([
  'aria-activedescendant',
  'aria-controls',
  'aria-describedby',
  'aria-details',
  'aria-errormessage',
  'aria-flowto',
  'aria-labelledby',
  'aria-owns',
]);

/** All that names other elements by their ids, also besides what is said to whoever listens. */
const NAMING = new Set([...REFERENCES, 'for', 'form', 'headers', 'list', 'popovertarget']);

/** The ids that something on a screen refers to. */
export function idsReferredTo(root: Element): ReadonlySet<string> {
  const found = new Set<string>();
  walkElements(root, ({ attributes = {} }) => {
    for (const [name, value] of Object.entries(attributes))
      if (NAMING.has(name)) for (const id of value.split(/\s+/)) found.add(id);
      else if (name === 'href' || name === 'usemap') found.add(value.replace(/^.*#/, ''));
  });
  return found;
}

/** Whether an id was made by a machine, and says nothing of what has it: a number of several digits, or a path of signs. */
export const isMadeId = (id: string): boolean => /\d{2,}$|:|[\da-f]{8,}/i.test(id);

/** Elements that say nothing of themselves; without a role they have no name and no state. */
const GENERIC = new Set([
  'span',
  'div',
  'p',
  'b',
  'i',
  'em',
  'strong',
  'small',
  'code',
  'sub',
  'sup',
  'label',
]);

/** What generic elements may say all the same. */
const GLOBAL = new Set([
  'aria-atomic',
  'aria-busy',
  'aria-controls',
  'aria-current',
  'aria-describedby',
  'aria-details',
  'aria-flowto',
  'aria-hidden',
  'aria-keyshortcuts',
  'aria-live',
  'aria-owns',
  'aria-relevant',
]);

/** Roles of what does something when it is pressed; a link that leads nowhere is none of them. */
const OPERATED = new Set(['button', 'link', 'menuitem', 'tab', 'option', 'switch']);

const FOCUSABLE = new Set(['a', 'button', 'input', 'select', 'textarea']);

/** Roles that elements have by themselves (HTML-AAM). */
const IMPLICIT: Readonly<Record<string, string>> = {
  button: 'button',
  nav: 'navigation',
  main: 'main',
  aside: 'complementary',
  table: 'table',
  tr: 'row',
  form: 'form',
  article: 'article',
  dialog: 'dialog',
  hr: 'separator',
  textarea: 'textbox',
  option: 'option',
  fieldset: 'group',
  progress: 'progressbar',
};

/**
 * The attributes without what is not so.
 * @param tag as it is written
 * @param wasLink whether it was drawn as a link, and leads nowhere
 * @param ids that stand on the page
 */
export function truthful(
  attributes: Attributes,
  tag: string,
  wasLink: boolean,
  ids: ReadonlySet<string>,
): Attributes {
  const made: Attributes = {};
  const role = attributes.role;
  const isPlain = GENERIC.has(tag) && (role === undefined || (wasLink && OPERATED.has(String(role))));
  for (const [name, value] of Object.entries(attributes)) {
    if (name === 'role' && (isPlain || value === IMPLICIT[tag])) continue;
    if (name === 'title' && value === '') continue;
    if (name === 'aria-hidden' && FOCUSABLE.has(tag)) continue;
    if (name.startsWith('aria-') && isPlain && !GLOBAL.has(name)) continue;
    if (REFERENCES.has(name)) {
      const there = String(value)
        .split(/\s+/)
        .filter((id) => ids.has(id));
      if (there.length) made[name] = there.join(' ');
      continue;
    }
    made[name] = value;
  }
  return made;
}
