import { styleProblem } from '../vocabulary/style_values.ts';

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
  return typeof value === 'string' && styleProblem(edit.property, value) === null
    ? null
    : `the value of ${edit.property} is not a plain style value`;
}
