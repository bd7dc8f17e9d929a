import type { Screen } from '../model/design.ts';
import { uniqueName } from '../model/names.ts';
import { textOf, walkElements } from '../model/project.ts';
import { fieldLabels } from '../emit/form/field_labels.ts';
import { type Guesses, inferRoles } from '../roles/infer.ts';
import { inputTypeOf, labelOfField } from '../roles/fields.ts';
import { hasParent, type ScreenSight, type Sight, sightOf } from '../roles/sight.ts';
import { fieldIn } from './names.ts';

/** What a form is for. */
export const FORM_PURPOSES = [
  'sign-in',
  'sign-up',
  'reset-password',
  'search',
  'filter',
  'subscribe',
  'send',
  'pay',
  'change',
  'add',
] as const;
export type FormPurpose = (typeof FORM_PURPOSES)[number];

/** What a field of a form takes: as inputs of HTML, `multiline`, `one-of` and `yes-no`. */
export type FormFieldType =
  | 'text'
  | 'email'
  | 'password'
  | 'search'
  | 'tel'
  | 'url'
  | 'number'
  | 'date'
  | 'time'
  | 'file'
  | 'color'
  | 'range'
  | 'multiline'
  | 'one-of'
  | 'yes-no';

export interface ProposedFormField {
  /** Key of the element. */
  readonly element: string;
  readonly label: string;
  /** Its name in a record. */
  readonly field: string;
  readonly type: FormFieldType;
  readonly required: boolean;
}

/** Fields that are filled in and sent together, as a proposal. */
export interface FormProposal {
  readonly screen: string;
  /** Key of the element around them. */
  readonly element: string;
  readonly purpose: FormPurpose;
  readonly fields: readonly ProposedFormField[];
  /** Key of what is pressed to send it, and what that says. */
  readonly submit: { readonly element: string; readonly label: string } | null;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

const FIELD_ROLES: ReadonlySet<string> = new Set([
  'textbox',
  'combobox',
  'checkbox',
  'radio',
  'switch',
  'slider',
]);

/** The forms of a screen, in reading order. */
export function findForms(screen: Screen): FormProposal[] {
  const sight = sightOf(screen);
  const guesses = inferRoles(screen);
  const labels = labelsOf(screen, sight, guesses);
  const fields = sight.all.filter(
    (one) => isField(one, guesses) && !hasParent(one, (parent) => isField(parent, guesses)),
  );
  const groups = new Map<Sight, Sight[]>();
  for (const field of fields) {
    const holder = formAround(field, sight, guesses);
    if (holder) groups.set(holder, [...(groups.get(holder) ?? []), field]);
  }
  return [...groups].flatMap(([holder, own]): FormProposal[] => {
    const asked = askedOf(own, labels, guesses);
    if (!asked.length) return [];
    const pressed = submitOf(holder, own, guesses);
    const [purpose, confidence, reason] = purposeOf(holder, asked, pressed?.label ?? '', sight);
    // A button beside a field to search that says something else has its own to do.
    const submit = purpose === 'search' && pressed && !searches(pressed) ? null : pressed;
    // One field with nothing that says what it is for is a setting, not a form.
    if (asked.length < 2 && purpose === null) return [];
    if (!submit && asked.length < 2 && purpose !== 'search') return [];
    return [
      {
        screen: screen.key,
        element: holder.element.key,
        purpose: purpose ?? 'add',
        fields: asked,
        submit: submit && { element: submit.sight.element.key, label: submit.label },
        confidence: Math.round((submit ? confidence : confidence - 0.15) * 100) / 100,
        reason,
      },
    ];
  });
}

const isField = ({ element }: Sight, guesses: Guesses): boolean => {
  const { tag, attributes = {} } = element;
  if (element.hidden) return false;
  if (tag === 'input' && /^(hidden|submit|button|reset|image)$/.test(attributes.type ?? '')) return false;
  return (
    ['input', 'select', 'textarea'].includes(tag ?? '') ||
    FIELD_ROLES.has(guesses.get(element.key)?.role ?? '')
  );
};

/** What is around a field and what is sent with it: a form, else the smallest part with a button and no second group. */
function formAround(field: Sight, screen: ScreenSight, guesses: Guesses): Sight | null {
  let first: Sight | null = null;
  for (let at = field.parent; at; at = at.parent) {
    const role = guesses.get(at.element.key)?.role;
    if (at.element.tag === 'form' || role === 'form') return at;
    if (role === 'table' || role === 'row' || role === 'list') return null;
    // A drawing has no more parts than somebody grouped.
    if (!first && (at !== screen.root || screen.isDrawing) && buttonsIn(at, guesses).length) first = at;
    if (role === 'dialog' || role === 'main' || role === 'banner' || role === 'navigation') return first;
  }
  return first;
}

function buttonsIn(holder: Sight, guesses: Guesses): Sight[] {
  const found: Sight[] = [];
  const visit = (sight: Sight): void => {
    const { element } = sight;
    if (element.hidden) return;
    const isButton =
      guesses.get(element.key)?.role === 'button' ||
      (element.tag === 'input' && /^(submit|button|image)$/.test(element.attributes?.type ?? ''));
    if (isButton && sight !== holder) found.push(sight);
    else sight.children.forEach(visit);
  };
  visit(holder);
  return found;
}

/** Words of labels for controls, whatever tag they have. */
const SENDS =
  /\b(sign|log) ?(in|up|on)\b|\b(submit|send|save|create|add|register|subscribe|search|find|go|apply|update|continue|next|post|publish|reserve|book|order|pay|buy|checkout|confirm|join|reset|request|report|lend|done|filter|login|signup|invite|upload|reply|comment|change)\b/i;
const GIVES_UP =
  /^(cancel|back|close|reset|clear|discard|never mind|show|hide|×|✕|x|forgot.*|browse|choose file)$/i;

/** What sends a form: what says so, else the last button after its fields. */
function submitOf(
  holder: Sight,
  fields: readonly Sight[],
  guesses: Guesses,
): { readonly sight: Sight; readonly label: string } | null {
  const links: Sight[] = [];
  const visit = (sight: Sight): void => {
    if (sight.element.hidden) return;
    if (guesses.get(sight.element.key)?.role === 'link' && looksPressed(sight)) links.push(sight);
    sight.children.forEach(visit);
  };
  visit(holder);
  const all = [...buttonsIn(holder, guesses), ...links].map((sight) => ({ sight, label: saidBy(sight) }));
  const least = Math.min(...fields.map(({ element }) => element.box.y));
  const scored = all
    .filter(({ label }) => !GIVES_UP.test(label.trim()))
    .map((one) => ({
      ...one,
      score:
        (one.sight.element.attributes?.type === 'submit' ? 4 : 0) +
        (SENDS.test(one.label) ? 3 : 0) +
        (one.sight.look.hasFill ? 1 : 0) +
        (one.sight.element.box.y >= least - 8 ? 1 : -2) +
        (/sign ?in with|log ?in with|with (google|facebook|apple)/i.test(one.label) ? -4 : 0) +
        (links.includes(one.sight) ? -1 : 0),
    }))
    .sort((a, b) => b.score - a.score);
  return scored[0] && scored[0].score > 0 ? scored[0] : null;
}

const looksPressed = ({ look, words }: Sight): boolean => look.hasFill || / (btn|button) /.test(words);

const saidBy = ({ element, text }: Sight): string =>
  text ||
  element.attributes?.value ||
  element.attributes?.['aria-label'] ||
  element.attributes?.title ||
  element.name;

const searches = ({ sight, label }: { readonly sight: Sight; readonly label: string }): boolean =>
  sight.text === '' || /\b(search|find|go)\b/i.test(label);

/** What fields are called, by key: as HTML says it, else by what stands above or before them, else by what they hint at. */
function labelsOf(screen: Screen, sight: ScreenSight, guesses: Guesses): (field: Sight) => string {
  const ofId = new Map<string, string>();
  walkElements(screen.root, (element) => {
    if (element.tag === 'label' && element.attributes?.for) ofId.set(element.attributes.for, textOf(element));
  });
  const beside = fieldLabels(screen.root);
  return (field) => {
    const { element } = field;
    const { attributes = {} } = element;
    const around = labelAround(field);
    const said = [
      attributes['aria-label'],
      attributes.id ? ofId.get(attributes.id) : undefined,
      element.source.id ? ofId.get(element.source.id) : undefined,
      around,
      beside.get(element.key),
      // What one looks for is said in the field, under the heading of what is found.
      /\b(search|find)\b/i.test(`${field.text} ${attributes.placeholder ?? ''}`)
        ? attributes.placeholder || field.text
        : labelOfField(field)?.text,
      guesses.get(element.key)?.label,
      attributes.placeholder,
      captionBefore(field),
      field.element.tag === 'select' ? undefined : field.text,
      attributes.title,
      attributes.name,
    ].find((text) => text !== undefined && /[\p{L}\p{N}]/u.test(text) && text.length <= 80);
    return (said ?? '').replace(/\s+/g, ' ').trim() || (sight.isDrawing ? element.name : '');
  };
}

const labelAround = (field: Sight): string | undefined => {
  for (let at = field.parent, i = 0; at && i < 3; at = at.parent, i++)
    if (at.element.tag === 'label' && at.text) return textBesideFields(at);
  return undefined;
};

/** What a label says besides what can be chosen in it. */
function textBesideFields({ element }: Sight): string {
  const parts: string[] = [];
  walkElements(element, (inner) => {
    if (inner.tag === 'select' || inner.tag === 'textarea') return false;
    if (inner.text?.trim()) parts.push(inner.text.trim());
    return true;
  });
  return parts.join(' ');
}

/** A short text that stands before a field in what is around it, one or two further out. */
function captionBefore(field: Sight): string | undefined {
  for (let at: Sight = field, i = 0; at.parent && i < 2; at = at.parent, i++) {
    const before = at.parent.children[at.index - 1];
    if (
      before?.text &&
      before.text.length <= 40 &&
      !before.children.some(({ element }) => element.kind === 'control')
    )
      return before.text;
  }
  return undefined;
}

function askedOf(
  fields: readonly Sight[],
  labelOf: (field: Sight) => string,
  guesses: Guesses,
): ProposedFormField[] {
  const taken = new Set<string>();
  const groups = new Set<string>();
  return fields.flatMap((field): ProposedFormField[] => {
    const { element } = field;
    const { attributes = {} } = element;
    const said = labelOf(field);
    const type = typeOf(field, said, guesses);
    // Radio buttons of one name are one field.
    if (isRadio(field, guesses)) {
      const group = attributes.name ?? field.parent?.element.key ?? '';
      if (groups.has(group)) return [];
      groups.add(group);
    }
    const label = said.replace(/\s*\*\s*$/, '').replace(/[:\s]+$/, '');
    const wanted =
      fieldIn(label) || fieldIn((attributes.name ?? '').replace(/[[\]_-]+/g, ' ')) || NAMES[type] || 'field';
    const name = uniqueName(wanted, (one) => taken.has(one), '');
    taken.add(name);
    return [
      {
        element: element.key,
        label,
        field: name,
        type,
        required:
          attributes.required !== undefined ||
          attributes['aria-required'] === 'true' ||
          /\*\s*$|\(required\)/i.test(said),
      },
    ];
  });
}

const NAMES: Readonly<Partial<Record<FormFieldType, string>>> = {
  email: 'email',
  password: 'password',
  search: 'search',
  tel: 'phone',
  date: 'date',
  file: 'file',
  multiline: 'message',
};

const isRadio = ({ element }: Sight, guesses: Guesses): boolean =>
  element.attributes?.type === 'radio' || guesses.get(element.key)?.role === 'radio';

function typeOf(field: Sight, label: string, guesses: Guesses): FormFieldType {
  const { tag, attributes = {} } = field.element;
  const guess = guesses.get(field.element.key);
  if (tag === 'select' || guess?.role === 'combobox' || isRadio(field, guesses)) return 'one-of';
  if (tag === 'textarea') return 'multiline';
  if (attributes.type === 'checkbox' || guess?.role === 'checkbox' || guess?.role === 'switch')
    return 'yes-no';
  const authored =
    attributes.type === 'datetime-local' || attributes.type === 'month' ? 'date' : attributes.type;
  if (authored && authored !== 'text' && AUTHORED.has(authored)) return authored as FormFieldType;
  if (guess?.role === 'slider') return 'range';
  const input = guess?.input && guess.input !== 'text' ? guess.input : inputTypeOf(field, label);
  return input === 'multiline' && tag === 'input' ? 'text' : input;
}

const AUTHORED = new Set([
  'email',
  'password',
  'search',
  'tel',
  'url',
  'number',
  'date',
  'time',
  'file',
  'color',
  'range',
]);

/** What speaks for a purpose, in words of the button, of what stands over the form and of its fields. */
function purposeOf(
  holder: Sight,
  fields: readonly ProposedFormField[],
  submit: string,
  screen: ScreenSight,
): readonly [purpose: FormPurpose | null, confidence: number, reason: string] {
  const passwords = fields.filter(({ type }) => type === 'password').length;
  const texts = fields.filter(({ type }) => type !== 'yes-no');
  const has = (pattern: RegExp): boolean =>
    fields.some(({ label, field }) => pattern.test(`${label} ${field}`));
  const title = headingOf(holder, screen);
  const scores = new Map<FormPurpose, { score: number; reasons: string[] }>();
  const add = (purpose: FormPurpose, score: number, reason: string): void => {
    const known = scores.get(purpose) ?? { score: 0, reasons: [] };
    scores.set(purpose, { score: known.score + score, reasons: [...known.reasons, reason] });
  };
  const words: readonly (readonly [FormPurpose, RegExp])[] = [
    ['sign-in', /\b(sign|log) ?(in|on)\b|\blogin\b|\bunlock\b/i],
    ['sign-up', /\bsign ?up\b|\bregister\b|\bjoin\b|\bcreate (an |your |my )?account\b|\bregistration\b/i],
    [
      'reset-password',
      /\b(reset|recover|forgot(ten)?|change|request new)( your| my| a| new)? password\b|\bpassword (reset|recovery)\b|\b(reset|recovery) (link|code|instructions|e-?mail)\b/i,
    ],
    ['search', /\b(search|find)\b/i],
    ['filter', /\b(filter|apply filters?|refine)\b/i],
    ['subscribe', /\bsubscribe\b|\bnewsletter\b|\bnotify me\b|\bkeep me posted\b/i],
    ['send', /\b(send|contact|message|comment|reply|feedback|get in touch|enquir|post comment|report)\w*\b/i],
    ['pay', /\b(pay|checkout|place order|buy now|purchase)\b/i],
    ['change', /\b(save|update|edit|change|settings|profile|preferences)\b/i],
    ['add', /\b(add|create|new|reserve|book|lend|submit|publish|post|upload|invite|request|order)\b/i],
  ];
  for (const [purpose, pattern] of words) {
    if (pattern.test(submit))
      add(
        purpose,
        purpose === 'add' || purpose === 'change' ? 2 : 3,
        `its button says “${submit.slice(0, 40)}”`,
      );
    if (title && pattern.test(title)) add(purpose, 1.2, `“${title.slice(0, 40)}” stands over it`);
  }
  if (passwords === 1 && texts.length <= 2) add('sign-in', 2.5, 'it asks who one is and for a password');
  if (passwords === 1 && texts.length > 2) add('sign-up', 1.5, 'it asks for more than a password');
  if (passwords > 1)
    add(
      has(/\b(old|current)\b/i) ? 'change' : has(/mail|user|name/i) ? 'sign-up' : 'reset-password',
      3,
      'it asks for a password twice',
    );
  if (has(/remember/i)) add('sign-in', 1.5, 'it offers to remember');
  if (has(/\b(terms|agree)\b/i)) add('sign-up', 1, 'it asks to agree');
  if (fields.length === 1 && fields[0].type === 'search')
    add('search', 4, 'a field to search stands by itself');
  if (fields.length <= 2 && has(/\b(search|find)\b/i)) add('search', 2.5, 'its field says search');
  if (fields.length === 1 && fields[0].type === 'email')
    add(
      /password|forgot|recover/i.test(`${title} ${submit}`) ? 'reset-password' : 'subscribe',
      2,
      'it asks for an address alone',
    );
  if (has(/\b(message|comment|subject|your question|enquiry)\b/i)) add('send', 2, 'it asks for a message');
  if (has(/\b(card number|cvc|cvv|expiry|expiration|card holder|name on card)\b/i))
    add('pay', 3, 'it asks for a card');
  const best = [...scores].sort((a, b) => b[1].score - a[1].score)[0];
  if (!best) {
    const isFilled = fields.length > 1 && holder.text.length > 0;
    return [null, isFilled ? 0.4 : 0.35, `${fields.length} fields are filled in together`];
  }
  const [purpose, { score, reasons }] = best;
  return [purpose, Math.min(0.95, 0.5 + score * 0.09), [...new Set(reasons)].slice(0, 2).join('; ')];
}

/** The heading in a form, over it, or the only one of its screen. */
function headingOf(holder: Sight, screen: ScreenSight): string {
  const isHeading = (sight: Sight): boolean =>
    /^h[1-6]$/.test(sight.element.tag ?? '') ||
    / (title|heading|card title|login box msg) /.test(sight.words);
  const inside = screen.all.find(
    (sight) => isHeading(sight) && hasParent(sight, (parent) => parent === holder),
  );
  if (inside?.text) return inside.text;
  const { box } = holder.element;
  const over = screen.all
    .filter(
      (sight) =>
        sight.text !== '' &&
        sight.text.length < 60 &&
        (isHeading(sight) || sight.fontSize > screen.bodySize * 1.2) &&
        sight.element.box.y < box.y + 8 &&
        box.y - sight.element.box.y < 200,
    )
    .at(-1);
  return over?.text ?? '';
}
