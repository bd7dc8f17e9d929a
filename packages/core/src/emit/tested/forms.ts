import { isElement, isText, type MarkupElement } from '../form/markup.ts';
import { type Effect, effectsOf, type Known, type OnScreen } from './effects.ts';
import { type Opens, waysOf } from './presses.ts';

/** A form of the app as its own test fills it in. */
export interface TestedForm {
  readonly from: string;
  /** Names of its fields, by which it is found, and which of several with such it is, from 0. */
  readonly fields: readonly string[];
  readonly at?: number;
  /** Fields that have to be filled in, in order. */
  readonly needs: readonly string[];
  /** What it is filled in with so that it is right, and what is so once it is sent; not there where that is not known. */
  readonly filled?: Readonly<Record<string, string>>;
  readonly does?: readonly Effect[];
  readonly given?: Readonly<Record<string, boolean>>;
  /** What is pressed first, where it stands in what opens over its screen. */
  readonly opens?: Opens;
}

/** What a field has to say besides what it says of itself. */
export interface FieldRule {
  readonly isNumber: boolean;
  readonly choices?: readonly string[];
}

/**
 * The forms of a screen that are checked before they are sent.
 * @param ruleOf what stands behind a field asks of it
 */
export function testedFormsIn(
  root: MarkupElement,
  known: Known,
  here: OnScreen,
  ruleOf: (form: MarkupElement, field: string) => FieldRule | null,
): Omit<TestedForm, 'from'>[] {
  const forms = allOf(root, ({ tag }) => tag === 'form');
  return forms.flatMap((form, i): Omit<TestedForm, 'from'>[] => {
    if (!form.isChecked) return [];
    const fields = fieldsIn(form);
    const names = [...new Set(fields.map(({ attributes }) => String(attributes.name)))];
    if (!names.length) return [];
    const before = forms.slice(0, i).filter((other) => {
      const own = new Set(fieldsIn(other).map(({ attributes }) => String(attributes.name)));
      return names.every((name) => own.has(name));
    }).length;
    const needs = [
      ...new Set(
        fields.flatMap(({ tag, attributes: { required, name, type = 'text' } }) =>
          required !== undefined && tag !== 'select' && type !== 'radio' && type !== 'hidden'
            ? [String(name)]
            : [],
        ),
      ),
    ];
    const sent = sentBy(
      form,
      known,
      here,
      filledIn(fields, (name) => ruleOf(form, name)),
    );
    if (!needs.length && !sent) return [];
    return [{ fields: names, ...(before ? { at: before } : {}), needs, ...sent }];
  });
}

/** What a form is filled in with and what comes of that; null where that is not known. */
function sentBy(
  form: MarkupElement,
  known: Known,
  here: OnScreen,
  filled: Readonly<Record<string, string>> | null,
): Pick<TestedForm, 'filled' | 'does' | 'given'> | null {
  const act = form.acts?.find(({ on }) => on === 'submit');
  const [way] = act ? waysOf(act) : [];
  if (!way || !filled) return null;
  const { given } = way;
  const does = effectsOf(way.steps, known, { ...here, row: null, given, filled });
  if (!does?.length) return null;
  return { filled, does, ...(Object.keys(given).length ? { given } : {}) };
}

function allOf(root: MarkupElement, is: (node: MarkupElement) => boolean): MarkupElement[] {
  const found: MarkupElement[] = [];
  const visit = (node: MarkupElement): void => {
    if (is(node)) found.push(node);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  return found;
}

const FIELDS: ReadonlySet<string> = new Set(['input', 'select', 'textarea']);
const NO_FIELD = /^(submit|button|reset|image)$/;

/** The fields of a form that can be filled in and are sent with it. */
const fieldsIn = (form: MarkupElement): MarkupElement[] =>
  allOf(form, (node) => canBeFilledIn(node) && node.attributes.name !== undefined);

/** Whether something is entered, ticked or chosen in an element. */
export const canBeFilledIn = ({ tag, attributes: { type, disabled, readonly } }: MarkupElement): boolean =>
  FIELDS.has(tag) && (disabled ?? readonly) === undefined && !NO_FIELD.test(String(type));

/** What fields are filled in with so that nothing is wrong with them; null where that is not known. */
function filledIn(
  fields: readonly MarkupElement[],
  ruleOf: (name: string) => FieldRule | null,
): Record<string, string> | null {
  const filled: Record<string, string> = {};
  for (const field of fields) {
    const name = String(field.attributes.name);
    const isLeftOut = field.attributes.type === 'file' && field.attributes.required === undefined;
    if (isLeftOut || Object.hasOwn(filled, name)) continue;
    const same = field.attributes['data-same'];
    const text =
      typeof same === 'string' && Object.hasOwn(filled, same)
        ? filled[same]
        : enteredInto(field, ruleOf(name));
    if (text === null) return null;
    filled[name] = text;
  }
  return filled;
}

/** What is entered into fields of each type, where nothing is said against it. */
const USUAL: Readonly<Record<string, string>> = {
  email: 'somebody@example.org',
  url: 'https://example.org/',
  tel: '0123456789',
  date: '2026-05-04',
  time: '10:30',
  month: '2026-05',
  week: '2026-W19',
  'datetime-local': '2026-05-04T10:30',
  color: '#336699',
  number: '4',
  range: '50',
};
const TEXT = 'Something else';

/** What is entered into a field so that nothing is wrong with it; null where that is not known. */
export function enteredInto(
  { tag, attributes, children }: MarkupElement,
  rule: FieldRule | null,
): string | null {
  const type = String(attributes.type ?? 'text');
  const own = typeof attributes.value === 'string' ? attributes.value : '';
  if (tag === 'select') {
    const options = children.filter(isElement).filter(({ tag: inner }) => inner === 'option');
    const values = options.map(({ attributes: { value }, children: inside }) =>
      typeof value === 'string'
        ? value
        : inside
            .map((one) => (isText(one) ? one.text : ''))
            .join('')
            .trim(),
    );
    return values.find((one) => one !== '' && (!rule?.choices || rule.choices.includes(one))) ?? null;
  }
  switch (type) {
    case 'checkbox':
      return attributes.required === undefined && attributes.checked === undefined ? 'no' : 'yes';
    case 'radio':
    case 'hidden':
      return own || null;
    case 'file':
      return null;
  }
  if (rule?.choices) return rule.choices[0] ?? null;
  const { pattern, min, max } = attributes;
  const candidates = [
    ...(typeof min === 'string' ? [min] : []),
    ...(typeof max === 'string' ? [max] : []),
    rule?.isNumber ? '4' : lengthened(USUAL[type] ?? TEXT, attributes),
    own,
    '12345',
    'abc',
  ];
  return (
    candidates.find(
      (text) => text !== '' && (typeof pattern !== 'string' || isMatch(text, `^(?:${pattern})$`, 'v')),
    ) ?? null
  );
}

/** A text of as many letters as a field takes. */
function lengthened(text: string, { minlength, maxlength }: MarkupElement['attributes']): string {
  const [least, most] = [Number(minlength ?? 0), Number(maxlength ?? Infinity)];
  return text.padEnd(least, 'x').slice(0, most).trimEnd();
}

/** Whether a text fits a pattern; none fits one that cannot be read. */
export function isMatch(text: string, pattern: string, flags: string): boolean {
  try {
    return new RegExp(pattern, flags).test(text);
  } catch {
    return false;
  }
}
