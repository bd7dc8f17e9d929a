/** What elements say of themselves: whether they open something, close it, or are what is opened, and how. */

import type { DisclosureKind } from '../model/app.ts';
import type { Element } from '../model/design.ts';
import { textOf } from '../model/project.ts';
import { areCalledAlike } from '../roles/called.ts';
import { roleOf } from '../roles/role.ts';

/** Whether two siblings are of one kind: they are called alike, or panels of tabs. */
export function isAkin(a: Element, b: Element): boolean {
  return areCalledAlike(a, b) || (roleOf(a) !== undefined && a.role === b.role && a.role === 'tabpanel');
}

/** The words by which an element says what it is for. */
export const signsOf = ({ classes = '', name, attributes = {}, source }: Element): string =>
  [
    classes,
    name.length < 30 ? name : '',
    source.id ?? '',
    ...['aria-haspopup', 'aria-expanded', 'aria-controls'].flatMap((one) =>
      attributes[one] && attributes[one] !== 'false'
        ? [one]
        : attributes[one] !== undefined && one === 'aria-expanded'
          ? [one]
          : [],
    ),
  ].join(' ');

/** Words and attributes by which a control says that it opens something, or closes what it stands in. */
export const SAYS_TOGGLE =
  /aria-(haspopup|expanded|controls)|(^|[\s_-])(toggle[rd]?|drop-?down|collaps(e|ed|ible)|expand(er)?|accordion|has-?(sub|child)\w*|sub-?menu|tree-?view)([\s_-]|$)/i;
export const CLOSES = /(^|[\s_-])(dismiss|close[rd]?|cancel)([\s_-]|$)|^\s*[×✕✖]\s*$/i;

/** Whether an element is pressed: a button or a link by its tag or role. */
export function isControl(element: Element): boolean {
  const role = roleOf(element);
  return (
    element.tag === 'a' ||
    element.tag === 'button' ||
    element.tag === 'summary' ||
    role === 'button' ||
    role === 'link' ||
    role === 'menuitem' ||
    role === 'tab'
  );
}

/** Whether a part is a list, and what it lists is links: as a list, or as links that stand in it and nothing else. */
export function isListOfLinks(part: Element): boolean {
  const links = part.children.filter(({ tag }) => tag === 'a').length;
  if (links > 1 && part.children.every((child) => child.tag !== undefined && holdsLink(child))) return true;
  const list = /^[uo]l$/.test(part.tag ?? '') ? part : part.children.length === 1 ? part.children[0] : null;
  return list !== null && /^[uo]l$/.test(list.tag ?? '') && list.children.some(holdsLink);
}
const holdsLink = (element: Element): boolean => element.tag === 'a' || element.children.some(holdsLink);

/** Whether classes say that something opens what has a class: by that and a word for what it does. */
export const opensByName = (classes: string, part: string): boolean =>
  classes.split(/\s+/).some((name) => {
    const rest = name.startsWith(part)
      ? name.slice(part.length)
      : name.endsWith(part)
        ? name.slice(0, -part.length)
        : '';
    return /^[-_]*(toggler?|btn|button|open|opener|trigger|show|switch|handle)[-_]*$/i.test(rest);
  });

/** What sends a form opens nothing: what is hidden beside it says what is wrong. */
export const isSender = ({ tag, attributes = {} }: Element): boolean =>
  attributes.type === 'submit' || (tag === 'button' && attributes.type === undefined);

/** Whether an element has no address, or that of a place on its own page. */
export const leadsNowhere = ({ attributes = {} }: Element): boolean =>
  attributes.href === undefined || /^(#.*)?$/.test(attributes.href);

/** Whether a control says for those who cannot see it that it opens something, wherever it leads besides. */
export const saysItOpens = ({ attributes = {} }: Element): boolean =>
  attributes['aria-expanded'] !== undefined || !/^(false)?$/.test(attributes['aria-haspopup'] ?? '');

/** Whether there is anything in an element; a shade or a line shows nothing that could be opened. */
export const showsSomething = ({ kind, text, children }: Element): boolean =>
  kind !== 'box' || !!text?.trim() || children.some(showsSomething);

/** What a hidden part is, by its role, its place and the words that it is called by. */
export function kindOf(part: Element): DisclosureKind {
  const role = part.role ?? part.attributes?.role ?? '';
  const signs = signsOf(part);
  const { position } = part.style.base;
  if (part.tag === 'dialog' || /dialog/.test(role) || part.attributes?.['aria-modal'] === 'true')
    return 'dialog';
  if (position === 'fixed' && /(^|[\s_-])(modal|dialog|lightbox|pop-?up)([\s_-]|$)/i.test(signs))
    return 'dialog';
  if (/^(menu|listbox|tooltip)$/.test(role) || position === 'absolute' || position === 'fixed') return 'menu';
  // A list of links that stands in the flow of the page pushes away what follows, whatever its class is called.
  if (isListOfLinks(part)) return 'section';
  return /(^|[\s_-])(drop-?down-?menu|popover|pop-?out|fly-?out)([\s_-]|$)/i.test(signs) ? 'menu' : 'section';
}

/** The first heading in an element. */
export function headingIn(element: Element): string | null {
  if (/^h[1-6]$/.test(element.tag ?? '')) return textOf(element) || null;
  for (const child of element.children) {
    const found = headingIn(child);
    if (found) return found;
  }
  return null;
}

/** The widest window, in px, in which a part is not there; null for one that all windows show. */
export function hiddenBelow({ style: { at = {}, base } }: Element): number | null {
  if (base.display === 'none') return null;
  const widths = Object.entries(at).flatMap(([width, css]) =>
    css.display === 'none' ? [Number(width)] : [],
  );
  return widths.length ? Math.max(...widths) : null;
}
