import { camelCase, capital, isCodeName, uniqueCodeName } from '../../../model/names.ts';
import type { Prop } from './template.ts';
import { isElement, isText, type MarkupElement, type PropValue } from '../markup.ts';

/** What is known of a prop when it gets its name. */
export interface PropHint {
  readonly kind: Prop['kind'];
  readonly tag: string;
  readonly node: MarkupElement;
  /** The attribute that it gives, if it gives one. */
  readonly attribute?: string;
  /** What it is given at the places. */
  readonly texts?: readonly (PropValue | true | undefined)[];
  readonly prefix?: 'is' | 'has';
  /** Of a flag: how what it is set for looks, in a word; of a choice: what the looks differ in. */
  readonly word?: string | null;
  /** Of one of several aspects of a look: which one, so that it is the same when the design comes in again. */
  readonly of?: string;
  /** Of a flag: what else tells the look that it is set for, where there is another one by its first name. */
  readonly otherwise?: string | null;
  /** What it is called already where it is said of several parts. */
  readonly called?: string;
  /** Whether the component is something that is pressed, with no other text. */
  readonly isLabel: boolean;
}

const MONTH = 'jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec';
const DAY = 'mon|tue|wed|thu|fri|sat|sun|today|tomorrow|yesterday';

/** What texts are about, by what all or most of them look like. */
const CONTENT: readonly (readonly [RegExp, string])[] = [
  [/^\S+@\S+\.\S+$/, 'email'],
  [/^(?=.*[+(/\s-])(?=(\D*\d){7})(?!\d{4}-\d\d-\d\d$)[+(]?[\d\s()/-]+$/, 'phone'],
  [/^0\d{2,}$/, 'code'],
  [/^[^\d\s]{0,3}\s?\d[\d.,\s]*\s?(€|\$|£|¥|eur|usd|kr|chf)?$/i, 'amount'],
  [/^\d[\d.,]*\s?%$/, 'share'],
  [
    new RegExp(
      `\\b\\d{1,2}[./ -](\\d{1,2}|(${MONTH})\\w*)\\b|\\d{4}-\\d{2}-\\d{2}|\\b(${MONTH})\\w* \\d{1,2}\\b|^(due )?(${DAY})\\b`,
      'i',
    ),
    'date',
  ],
  [/^\d{1,2}:\d{2}/, 'time'],
  [
    /\b(free|due|overdue|open|closed|done|active|paused|pending|ready|late|paid|lent|out|back|in repair|available|new|draft)\b/i,
    'status',
  ],
];

/** The field that a text is, by its contents; null where they say nothing. */
export function fieldByContent(texts: readonly string[]): string | null {
  const said = texts.map((text) => text.trim()).filter(Boolean);
  if (!said.length) return null;
  for (const [pattern, name] of CONTENT) {
    const share = said.filter((text) => pattern.test(text) && text.length < 48).length / said.length;
    if (share >= (name === 'status' ? 0.5 : 0.6)) {
      if (name === 'amount') return said.some((text) => /[€$£¥]|eur|usd/i.test(text)) ? 'price' : 'count';
      return name;
    }
  }
  return null;
}

/** What frameworks give each component themselves. */
const KEPT = /^(key|ref|children|class(Name)?|style|slot)$/;

/** Whether a component can be given something of this name. */
export const canBeProp = (name: string): boolean => isCodeName(name) && !KEPT.test(name);

/** A name for a prop that no other has. */
export function propNameFor(hint: PropHint, taken: ReadonlySet<string>): string {
  const first = wanted(hint);
  const name = taken.has(first) ? (besides(hint, first, taken) ?? first) : first;
  return uniqueCodeName(canBeProp(name) ? name : `${name}Text`, 'value', (candidate) => taken.has(candidate));
}

/** What texts are called that nothing says more of, in their order. */
const PLAIN_TEXTS: readonly string[] = ['name', 'text', 'detail', 'remark'];

/** What a text is by the element that it is the text of. */
const BY_TAG: Readonly<Record<string, string>> = {
  blockquote: 'quote',
  cite: 'source',
  code: 'code',
  dt: 'term',
  dd: 'detail',
  em: 'emphasis',
  figcaption: 'caption',
  kbd: 'keys',
  legend: 'title',
  samp: 'code',
  small: 'note',
  time: 'time',
};

/** What is so where an attribute is there. */
const BY_ATTRIBUTE: Readonly<Record<string, string>> = {
  disabled: 'isDisabled',
  checked: 'isChecked',
  selected: 'isSelected',
  required: 'isRequired',
  readonly: 'isReadOnly',
  multiple: 'isMultiple',
  hidden: 'isHidden',
  draggable: 'isDraggable',
  'aria-current': 'isCurrent',
  'aria-disabled': 'isDisabled',
  'aria-selected': 'isSelected',
  'aria-checked': 'isChecked',
  'aria-pressed': 'isPressed',
  'aria-invalid': 'isInvalid',
  'aria-expanded': 'isExpandable',
  'aria-haspopup': 'hasPopup',
};
/** What an attribute gives, where that has another name as a prop. */
const GIVEN_BY: Readonly<Record<string, string>> = { id: 'anchor', for: 'fieldId', href: 'link' };

/** What a flag is called by which an attribute is there or not: `isDisabled`, `hasTitle`. */
export const flagOfAttribute = (attribute: string): string =>
  Object.hasOwn(BY_ATTRIBUTE, attribute)
    ? BY_ATTRIBUTE[attribute]
    : `has${capital(camelCase(GIVEN_BY[attribute] ?? attribute.replace(/^(aria|data)-/, '')))}`;

/**
 * What a flag is called that is set where an attribute is there, and nowhere else, that says what is so: what is disabled, and
 * looks otherwise for that, is called by what it is. Nothing where there is none.
 * @param values whether it is set at each node
 */
export function flagByAttributes(
  nodes: readonly (MarkupElement | null)[],
  values: readonly (PropValue | undefined)[],
): string | undefined {
  const attribute = Object.keys(BY_ATTRIBUTE).find((name) => {
    const there = nodes.map((node) => node?.attributes[name] !== undefined);
    // What has it wherever it is says by that nothing of where it is.
    const isAbsent = nodes.some((node, i) => node !== null && !there[i]);
    return isAbsent && there.includes(true) && there.every((is, i) => is === (values[i] === true));
  });
  return attribute && BY_ATTRIBUTE[attribute];
}

/** What it is called where another one is called so; null where only a number tells them apart. */
function besides(
  { kind, node, otherwise }: PropHint,
  first: string,
  taken: ReadonlySet<string>,
): string | null {
  if (PLAIN_TEXTS.includes(first)) return PLAIN_TEXTS.find((word) => !taken.has(word)) ?? null;
  if (kind === 'choice') return ofPart(node, first);
  if (kind !== 'flag' || !otherwise) return null;
  const name = `is${capital(otherwise)}`;
  return taken.has(name) ? `is${capital(ofPart(node, otherwise))}` : name;
}

/** `iconColor`, where there is a colour of something else already. */
function ofPart({ className }: MarkupElement, name: string): string {
  const part = /^[a-z][a-zA-Z]{2,15}(?=\d*$)/.exec(className ?? '')?.[0];
  return part ? `${part}${capital(name)}` : name;
}

function wanted({ kind, tag, node, attribute, texts, prefix, word, isLabel, called }: PropHint): string {
  if (called !== undefined) return called;
  switch (kind) {
    case 'image':
      return 'image';
    case 'link':
      return node.link?.kind === 'disclose' ? 'part' : 'to';
    case 'drawing':
      return 'icon';
    case 'list':
      return word ?? 'items';
    case 'choice':
      return attribute === undefined ? (word ?? 'variant') : camelCase(attribute);
    case 'flag':
      return prefix === 'has'
        ? `has${capital(contentWord(node))}`
        : word && !node.part
          ? `is${capital(word)}`
          : activeWord(node);
    case 'text': {
      if (attribute !== undefined) {
        if (attribute === 'alt') return 'imageAlt';
        if (attribute === 'aria-label') return 'label';
        if (attribute === 'for') return 'fieldId';
        if (attribute === 'id') return /^(input|select|textarea)$/.test(tag) ? 'fieldId' : 'anchor';
        return camelCase(attribute) || 'value';
      }
      const said = (texts ?? []).filter((text): text is string => typeof text === 'string');
      const byClass = FIELD_WORDS.find((word) =>
        new RegExp(`(^|[^a-z])${word}([^a-z]|$)`, 'i').test(node.className ?? ''),
      );
      if (byClass) return byClass;
      if (/^h[1-6]$/.test(tag)) return 'title';
      const byContent = fieldByContent(said);
      if (byContent) return byContent;
      if (tag === 'button' || tag === 'a' || isLabel) return 'label';
      if (Object.hasOwn(BY_TAG, tag)) return BY_TAG[tag];
      const isShort = said.every((text) => text.length <= 40);
      return isShort ? 'name' : 'text';
    }
  }
}

const FIELD_WORDS = [
  'title',
  'name',
  'date',
  'price',
  'status',
  'email',
  'phone',
  'count',
  'description',
  'subtitle',
  'caption',
  'label',
  'author',
];

/** What an optional part shows. */
function contentWord(node: MarkupElement): string {
  if (node.tag === 'img') return 'image';
  if (node.tag === 'svg') return 'icon';
  if (node.tag === 'button' || node.tag === 'a') return 'action';
  const texts: string[] = [];
  const visit = (inner: MarkupElement): void =>
    inner.children.forEach((child) => {
      if (isText(child)) texts.push(child.text);
      else if (isElement(child)) visit(child);
    });
  visit(node);
  const said = texts.join(' ').trim();
  if (/^[\d.,:/\s-]*\d[\d.,:/\s-]*$/.test(said)) return 'number';
  const word = camelCase(said.split(/\s+/).slice(0, 2).join(' '));
  return /^[a-z]\w{1,20}$/i.test(word) ? word : 'part';
}

/** What it is that differs: in a bar, which of its entries is the present one. */
const activeWord = (node: MarkupElement): string =>
  node.part
    ? 'isOpen'
    : ['a', 'button', 'li', 'svg', 'span', 'p'].includes(node.tag)
      ? 'isActive'
      : 'isMarked';
