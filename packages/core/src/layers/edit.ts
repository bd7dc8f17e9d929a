import type { Declarations, Element, ElementStyle } from '../model/design.ts';
import { isSafeCssValue } from '../model/safe.ts';

/** When an edit holds: always, on windows up to or from a width in px, or in a state of the element. */
export type EditCondition =
  | { readonly kind: 'always' }
  | { readonly kind: 'upTo'; readonly width: number }
  | { readonly kind: 'from'; readonly width: number }
  | { readonly kind: 'state'; readonly state: EditState };

export type EditState = 'hover' | 'focus' | 'disabled';

export const always: EditCondition = { kind: 'always' };

/** One thing that is shown in another way than it was drawn. */
export interface Edit {
  readonly element: string;
  readonly condition: EditCondition;
  /** A CSS longhand, or `text`, or `position` (the place among its siblings, from 0). */
  readonly property: string;
  readonly value: string;
}

/** Properties of an edit that are not CSS. */
const OWN = ['text', 'position'] as const;

/** CSS that an edit may set: what has to do with look, size, place and flow, nothing that fetches. */
const EDITABLE =
  /^(color|background-color|opacity|font-(size|weight|style|family)|line-height|letter-spacing|text-(align|transform|decoration-line|wrap)|white-space|(margin|padding)-(top|right|bottom|left)|border-(top|right|bottom|left)-(width|style|color)|border-(top|bottom)-(left|right)-radius|box-shadow|display|visibility|order|position|top|right|bottom|left|z-index|(min-|max-)?(width|height)|flex-(direction|wrap|grow|shrink|basis)|align-(items|self|content)|justify-(content|items|self)|(row|column)-gap|grid-template-(columns|rows)|grid-(column|row)-(start|end)|overflow-[xy]|overflow-wrap|object-fit|aspect-ratio|cursor|pointer-events)$/;

const conditionText = (condition: EditCondition): string => {
  switch (condition.kind) {
    case 'always':
      return '';
    case 'upTo':
      return `<=${condition.width}`;
    case 'from':
      return `>=${condition.width}`;
    case 'state':
      return condition.state;
  }
};

/** The key under which an edit is kept, so that each can be taken back by itself. */
export const editKey = (element: string, property: string, condition: EditCondition = always): string =>
  `${element}|${conditionText(condition)}|${property}`;

/** What the key of an edit says; null when it says nothing that can be done. */
export function parseEditKey(key: string): Omit<Edit, 'value'> | null {
  const [element, when, property, ...rest] = key.split('|');
  if (!element || property === undefined || rest.length) return null;
  const condition = parseCondition(when);
  return condition && { element, condition, property };
}

function parseCondition(text: string): EditCondition | null {
  if (text === '') return always;
  if (text === 'hover' || text === 'focus' || text === 'disabled') return { kind: 'state', state: text };
  const width = /^([<>])=(\d{2,5})$/.exec(text);
  return width && { kind: width[1] === '<' ? 'upTo' : 'from', width: Number(width[2]) };
}

/** Why an edit that came from outside cannot be taken; null when it can. */
export function editProblem(key: string, value: unknown): string | null {
  const edit = parseEditKey(key);
  if (!edit) return `"${key}" names no edit: expected element, condition and property, parted by |`;
  const isOwn = (OWN as readonly string[]).includes(edit.property);
  if (edit.property === 'text' && edit.condition.kind !== 'always') return 'a text is the same at all widths';
  if (!isOwn && !EDITABLE.test(edit.property)) return `the property "${edit.property}" cannot be edited`;
  if (value === null || isOwn) return null;
  return typeof value === 'string' && isSafeCssValue(value)
    ? null
    : `the value of ${edit.property} is not a plain style value`;
}

/** An edit's condition in people's words. */
export function conditionInWords(condition: EditCondition): string {
  switch (condition.kind) {
    case 'always':
      return 'always';
    case 'upTo':
      return `up to ${condition.width} px`;
    case 'from':
      return `from ${condition.width} px`;
    case 'state':
      return `on ${condition.state}`;
  }
}

/** All edits of an app's table, by the element that they are about. */
export function editsByElement(table: Readonly<Record<string, string>>): Map<string, Edit[]> {
  const found = new Map<string, Edit[]>();
  for (const key of Object.keys(table).sort()) {
    const edit = parseEditKey(key);
    if (!edit) continue;
    const list = found.get(edit.element) ?? [];
    list.push({ ...edit, value: table[key] });
    found.set(edit.element, list);
  }
  return found;
}

/** An element and all beneath it with what was edited, itself where nothing was. */
export function withEdits(element: Element, edits: ReadonlyMap<string, readonly Edit[]>): Element {
  const children = inOrder(
    element.children.map((child) => withEdits(child, edits)),
    edits,
  );
  const isSame = children.every((child, i) => child === element.children[i]);
  const own = edits.get(element.key);
  const made = isSame ? element : { ...element, children };
  return own ? own.reduce(withEdit, made) : made;
}

/** Siblings after some were given another place; the others keep their order. */
function inOrder(
  children: readonly Element[],
  edits: ReadonlyMap<string, readonly Edit[]>,
): readonly Element[] {
  const moved = children.flatMap((child) => {
    const edit = edits
      .get(child.key)
      ?.find((e) => e.property === 'position' && e.condition.kind === 'always');
    return edit && /^\d{1,4}$/.test(edit.value) ? [{ child, to: Number(edit.value) }] : [];
  });
  if (!moved.length) return children;
  const rest = children.filter((child) => !moved.some((move) => move.child === child));
  for (const { child, to } of moved.sort((a, b) => a.to - b.to)) rest.splice(to, 0, child);
  return rest;
}

function withEdit(element: Element, { condition, property, value }: Edit): Element {
  if (property === 'text') return withText(element, value);
  if (property === 'position' && condition.kind === 'always' && /^\d+$/.test(value)) return element;
  return { ...element, style: withDeclaration(element.style, condition, property, value) };
}

function withDeclaration(
  style: ElementStyle,
  condition: EditCondition,
  property: string,
  value: string,
): ElementStyle {
  const put = (css: Declarations | undefined): Declarations => ({ ...css, [property]: value });
  switch (condition.kind) {
    case 'always':
      return { ...style, base: put(style.base) };
    case 'upTo':
      return { ...style, at: { ...style.at, [condition.width]: put(style.at?.[condition.width]) } };
    case 'from':
      return { ...style, from: { ...style.from, [condition.width]: put(style.from?.[condition.width]) } };
    case 'state':
      return { ...style, [condition.state]: put(style[condition.state]) };
  }
}

/** Another text: of the element itself, of its value or placeholder, or of the first text in it. */
function withText(element: Element, text: string): Element {
  if (element.text !== undefined) return { ...element, text };
  const { attributes = {} } = element;
  if (element.tag === 'input' || element.tag === 'textarea') {
    const name = attributes.placeholder !== undefined && !attributes.value ? 'placeholder' : 'value';
    return { ...element, attributes: { ...attributes, [name]: text } };
  }
  const at = element.children.findIndex((child) => hasText(child));
  if (at < 0) return element;
  return { ...element, children: element.children.with(at, withText(element.children[at], text)) };
}

const hasText = (element: Element): boolean => !!element.text?.trim() || element.children.some(hasText);
