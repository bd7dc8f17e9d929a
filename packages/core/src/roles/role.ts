import type { Element } from '../model/design.ts';
import { textOf } from '../model/project.ts';
import type { Role } from './names.ts';

const PRESSABLE: ReadonlySet<Role> = new Set(['button', 'link', 'tab', 'menuitem', 'listitem']);
const FIELDS: ReadonlySet<string> = new Set(['textbox', 'checkbox', 'radio', 'combobox', 'slider']);

const BY_NAME: readonly (readonly [RegExp, Role])[] = [
  [/\b(tab ?bar|nav(igation)?( ?bar)?|menu bar|side ?bar|bottom bar)\b/i, 'navigation'],
  [/\b(button|btn|cta|fab|chip)\b/i, 'button'],
  [/\b(tab|nav item|segment)\b/i, 'tab'],
  [/\b(link)\b/i, 'link'],
  [/\b(field|input|search ?(box|bar)|text ?area)\b/i, 'textbox'],
  [/\b(check ?box|switch|toggle)\b/i, 'checkbox'],
  [/\b(radio)\b/i, 'radio'],
  [/\b(drop ?down|select)\b/i, 'combobox'],
  [/\b(row|list item|card|tile)\b/i, 'listitem'],
];
/** Icons that by what they show ask to be pressed. */
const ICON_NAME = /\b(back|close|menu|arrow|chevron|more|settings|search icon|share|add|plus|bell)\b/i;

/** A button is at least and at most this high, in px. */
const BUTTON_HEIGHT = { min: 24, max: 72 };

function roleByTag(element: Element): Role | null {
  const a = element.attributes ?? {};
  switch (element.tag) {
    case 'a':
      return 'link';
    case 'button':
    case 'summary':
      return 'button';
    case 'select':
      return 'combobox';
    case 'textarea':
      return 'textbox';
    case 'nav':
      return 'navigation';
    case 'input':
      if (['submit', 'button', 'reset', 'image'].includes(a.type)) return 'button';
      if (a.type === 'checkbox' || a.type === 'radio') return a.type;
      return a.type === 'range' ? 'slider' : 'textbox';
    default:
      return null;
  }
}

/** A coloured or bordered box, about as high as a button, with one short text in its middle. */
function looksLikeButton(element: Element): boolean {
  const { base } = element.style;
  if (element.kind !== 'box' || !(base['background-color'] || base['border-top-width'])) return false;
  if (!Object.keys(base).some((name) => name.endsWith('radius')) && !base['background-color']) return false;
  if (/\b(badge|tag|label|avatar|step|marker)\b/i.test(element.name)) return false;
  const { height, width } = element.box;
  if (height < BUTTON_HEIGHT.min || height > BUTTON_HEIGHT.max || width > 420) return false;
  const texts = element.children.filter((child) => child.kind === 'text');
  if (element.children.length !== 1 || texts.length !== 1) return false;
  const text = textOf(texts[0]);
  return (
    texts[0].style.base['text-align'] === 'center' && /\p{L}{2}/u.test(text) && text.split(' ').length <= 5
  );
}

/** The role that an element plays by its tag, its authored role, its layer name or its shape; null when none shows. */
export function roleOf(element: Element): Role | null {
  const byTag = roleByTag(element);
  if (byTag) return byTag;
  if (element.role) return element.role as Role;
  if (!/\.(svg|ora|pdf)$/i.test(element.source.file)) return null;
  if (element.attributes?.href !== undefined) return 'link';
  const byName =
    element.kind !== 'text' ? BY_NAME.find(([pattern]) => pattern.test(element.name))?.[1] : undefined;
  if (byName) return byName;
  if (element.kind === 'vector' && ICON_NAME.test(element.name)) return 'button';
  return looksLikeButton(element) ? 'button' : null;
}

/** Whether the element looks as if something should happen when it is pressed. */
export function isPressable(element: Element): boolean {
  const role = roleOf(element);
  if (role) return PRESSABLE.has(role);
  // What is around links has the pointer of what they do; it does nothing itself.
  return element.style.base.cursor === 'pointer' && element.kind !== 'text' && !holdsLink(element);
}

const holdsLink = ({ children }: Element): boolean =>
  children.some((child) => child.tag === 'a' || child.tag === 'button' || holdsLink(child));

export const isField = (element: Element): boolean => FIELDS.has(roleOf(element) ?? '');
