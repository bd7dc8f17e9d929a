/**
 * HTML attributes that screens are written with: on which elements, with which values, and under which name in JSX.
 * Reading, checking and printing all go by this one table.
 */

import { isPlainAddress } from './addresses.ts';

/** What an attribute's value is. A flag is there or not; a list of words is a choice. */
export type AttributeValue = 'text' | 'flag' | 'whole' | 'number' | 'address' | 'id' | readonly string[];

export interface AttributeRule {
  readonly value: AttributeValue;
  /** Tags, or `*` for all. */
  readonly on: '*' | readonly string[];
  readonly jsx?: string;
}

const FIELDS = ['input', 'select', 'textarea'];
const DISABLED = ['button', 'fieldset', 'optgroup', 'option', ...FIELDS];
const TEXT_FIELDS = ['input', 'textarea'];
const CELLS = ['td', 'th'];
const YES_NO = ['true', 'false'];

const INPUT_TYPES = [
  'text',
  'button',
  'checkbox',
  'color',
  'date',
  'datetime-local',
  'email',
  'file',
  'hidden',
  'image',
  'month',
  'number',
  'password',
  'radio',
  'range',
  'reset',
  'search',
  'submit',
  'tel',
  'time',
  'url',
  'week',
];

/** Widget, structure and landmark roles of WAI-ARIA 1.2, without abstract ones. */
const ROLES = new Set(
  'alert alertdialog application article banner blockquote button caption cell checkbox code columnheader combobox complementary contentinfo definition deletion dialog directory document emphasis feed figure form generic grid gridcell group heading img insertion link list listbox listitem log main marquee math menu menubar menuitem menuitemcheckbox menuitemradio meter navigation none note option paragraph presentation progressbar radio radiogroup region row rowgroup rowheader scrollbar search searchbox separator slider spinbutton status strong subscript superscript switch tab table tablist tabpanel term textbox time timer toolbar tooltip tree treegrid treeitem'.split(
    ' ',
  ),
);

const HTML: Readonly<Record<string, AttributeRule>> = {
  id: { value: 'id', on: '*' },
  title: { value: 'text', on: '*' },
  lang: { value: 'text', on: '*' },
  dir: { value: ['ltr', 'rtl', 'auto'], on: '*' },
  role: { value: 'text', on: '*' },
  tabindex: { value: 'whole', on: '*', jsx: 'tabIndex' },
  // Kept as data wherever it stands; only links that lead somewhere are written with it.
  href: { value: 'address', on: '*' },
  alt: { value: 'text', on: ['img', 'input'] },
  type: { value: 'text', on: ['a', 'button', 'input', 'ol'] },
  name: { value: 'text', on: ['button', 'details', 'fieldset', 'form', 'output', ...FIELDS] },
  value: { value: 'text', on: ['button', 'data', 'li', 'meter', 'option', 'progress', ...FIELDS] },
  placeholder: { value: 'text', on: TEXT_FIELDS },
  checked: { value: 'flag', on: ['input'] },
  disabled: { value: 'flag', on: DISABLED },
  selected: { value: 'flag', on: ['option'] },
  multiple: { value: 'flag', on: ['input', 'select'] },
  required: { value: 'flag', on: FIELDS },
  readonly: { value: 'flag', on: TEXT_FIELDS, jsx: 'readOnly' },
  min: { value: 'text', on: ['input', 'meter'] },
  max: { value: 'text', on: ['input', 'meter', 'progress'] },
  low: { value: 'number', on: ['meter'] },
  high: { value: 'number', on: ['meter'] },
  optimum: { value: 'number', on: ['meter'] },
  step: { value: 'text', on: ['input'] },
  size: { value: 'whole', on: ['input', 'select'] },
  minlength: { value: 'whole', on: TEXT_FIELDS, jsx: 'minLength' },
  maxlength: { value: 'whole', on: TEXT_FIELDS, jsx: 'maxLength' },
  pattern: { value: 'text', on: ['input'] },
  rows: { value: 'whole', on: ['textarea'] },
  cols: { value: 'whole', on: ['textarea'] },
  wrap: { value: ['hard', 'soft', 'off'], on: ['textarea'] },
  autocomplete: { value: 'text', on: ['form', ...FIELDS], jsx: 'autoComplete' },
  inputmode: {
    value: ['none', 'text', 'tel', 'url', 'email', 'numeric', 'decimal', 'search'],
    on: TEXT_FIELDS,
    jsx: 'inputMode',
  },
  label: { value: 'text', on: ['optgroup', 'option'] },
  for: { value: 'id', on: ['label', 'output'], jsx: 'htmlFor' },
  list: { value: 'id', on: ['input'] },
  colspan: { value: 'whole', on: CELLS, jsx: 'colSpan' },
  rowspan: { value: 'whole', on: CELLS, jsx: 'rowSpan' },
  headers: { value: 'text', on: CELLS },
  scope: { value: ['row', 'col', 'rowgroup', 'colgroup'], on: ['th', 'td'] },
  span: { value: 'whole', on: ['col', 'colgroup'] },
  start: { value: 'whole', on: ['ol'] },
  reversed: { value: 'flag', on: ['ol'] },
  datetime: { value: 'text', on: ['del', 'ins', 'time'], jsx: 'dateTime' },
  open: { value: 'flag', on: ['details', 'dialog'] },
  media: { value: 'text', on: ['source'] },
};

const TYPES_BY_TAG: Readonly<Record<string, readonly string[]>> = {
  button: ['button', 'submit', 'reset'],
  input: INPUT_TYPES,
  ol: ['1', 'a', 'A', 'i', 'I'],
};

const MIXED = [...YES_NO, 'mixed'];
/** States and properties of WAI-ARIA 1.2. */
const ARIA: Readonly<Record<string, AttributeValue>> = {
  activedescendant: 'id',
  atomic: YES_NO,
  autocomplete: ['none', 'inline', 'list', 'both'],
  braillelabel: 'text',
  brailleroledescription: 'text',
  busy: YES_NO,
  checked: MIXED,
  colcount: 'whole',
  colindex: 'whole',
  colindextext: 'text',
  colspan: 'whole',
  controls: 'text',
  current: [...YES_NO, 'page', 'step', 'location', 'date', 'time'],
  describedby: 'text',
  description: 'text',
  details: 'text',
  disabled: YES_NO,
  errormessage: 'text',
  expanded: YES_NO,
  flowto: 'text',
  haspopup: [...YES_NO, 'menu', 'listbox', 'tree', 'grid', 'dialog'],
  hidden: YES_NO,
  invalid: [...YES_NO, 'grammar', 'spelling'],
  keyshortcuts: 'text',
  label: 'text',
  labelledby: 'text',
  level: 'whole',
  live: ['off', 'assertive', 'polite'],
  modal: YES_NO,
  multiline: YES_NO,
  multiselectable: YES_NO,
  orientation: ['horizontal', 'vertical'],
  owns: 'text',
  placeholder: 'text',
  posinset: 'whole',
  pressed: MIXED,
  readonly: YES_NO,
  relevant: [
    'additions',
    'additions removals',
    'additions text',
    'all',
    'removals',
    'removals additions',
    'removals text',
    'text',
    'text additions',
    'text removals',
  ],
  required: YES_NO,
  roledescription: 'text',
  rowcount: 'whole',
  rowindex: 'whole',
  rowindextext: 'text',
  rowspan: 'whole',
  selected: YES_NO,
  setsize: 'whole',
  sort: ['none', 'ascending', 'descending', 'other'],
  valuemax: 'number',
  valuemin: 'number',
  valuenow: 'number',
  valuetext: 'text',
};

/** Names of all attributes that an element of a design can have. */
export const ATTRIBUTE_NAMES: readonly string[] = [
  ...Object.keys(HTML),
  ...Object.keys(ARIA).map((name) => `aria-${name}`),
];

/** Longest value of an attribute, in UTF-16 units. */
export const LONGEST_VALUE = 5000;

/** The rule for an attribute on an element; null when the element cannot have it. */
export function attributeRule(tag: string, name: string): AttributeRule | null {
  if (name.startsWith('aria-')) {
    const own = name.slice(5);
    return Object.hasOwn(ARIA, own) ? { value: ARIA[own], on: '*' } : null;
  }
  const rule = Object.hasOwn(HTML, name) ? HTML[name] : null;
  // A drawing has a title as an element of its own.
  if (tag === 'svg' && (name === 'title' || name === 'dir')) return null;
  if (!rule || (rule.on !== '*' && !rule.on.includes(tag))) return null;
  if (name === 'type' && Object.hasOwn(TYPES_BY_TAG, tag)) return { ...rule, value: TYPES_BY_TAG[tag] };
  return rule;
}

/** Whether a name can be that of an attribute in any language that Tovel writes. */
export const isAttributeName = (name: string): boolean => /^[a-z][a-z0-9]*([-:][a-z0-9]+)*$/i.test(name);

/** What is wrong with an attribute of an element; null when nothing is. */
export function attributeProblem(tag: string, name: string, value: string): string | null {
  const rule = attributeRule(tag, name);
  if (!rule)
    return isAttributeName(name)
      ? `<${tag}> has no attribute “${name}”`
      : `“${name.slice(0, 40)}” is no name`;
  if (value.length > LONGEST_VALUE) return `the value of ${name} is longer than ${LONGEST_VALUE} characters`;
  if (name === 'role' && !value.split(/\s+/).every((role) => ROLES.has(role)))
    return `“${value.slice(0, 40)}” is no role`;
  return hasValue(rule.value, value) ? null : `“${value.slice(0, 40)}” is no value of ${name} on <${tag}>`;
}

function hasValue(of: AttributeValue, value: string): boolean {
  if (typeof of !== 'string') return of.includes(value);
  switch (of) {
    case 'text':
      return true;
    case 'flag':
      return true;
    case 'whole':
      return /^-?\d{1,7}$/.test(value);
    case 'number':
      return /^-?\d{1,12}(\.\d{1,12})?$/.test(value);
    case 'address':
      return isPlainAddress(value);
    case 'id':
      return /^\S{1,200}$/.test(value);
  }
}

const JSX_ONLY: Readonly<Record<string, string>> = {
  class: 'className',
  popovertarget: 'popoverTarget',
  srcset: 'srcSet',
};

/** An attribute's name in JSX, and whether its value is a number there. */
export function jsxAttribute(
  tag: string,
  name: string,
): { readonly name: string; readonly isNumber: boolean } {
  const rule = attributeRule(tag, name);
  return {
    name: rule?.jsx ?? JSX_ONLY[name] ?? name,
    isNumber: rule?.value === 'whole' || rule?.value === 'number',
  };
}

const CHOSEN: ReadonlySet<string> = new Set(
  'type inputmode enterkeyhint contenteditable draggable spellcheck translate loading decoding fetchpriority crossorigin referrerpolicy aria-atomic aria-autocomplete aria-busy aria-checked aria-current aria-disabled aria-expanded aria-haspopup aria-hidden aria-invalid aria-live aria-modal aria-multiline aria-multiselectable aria-orientation aria-pressed aria-readonly aria-relevant aria-required aria-selected aria-sort'.split(
    ' ',
  ),
);

/** Whether an attribute has one of a few values, and types hold it to them. */
export const isChosen = (name: string): boolean => CHOSEN.has(name);

/** Attributes that are there or not, whatever they say. */
export const isFlag = (tag: string, name: string): boolean => attributeRule(tag, name)?.value === 'flag';
