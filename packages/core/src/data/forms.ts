import type { Screen } from '../model/design.ts';
import { uniqueName } from '../model/names.ts';
import { textOf, walkElements } from '../model/project.ts';
import { fieldLabels } from '../emit/form/field_labels.ts';
import type { Guesses } from '../roles/guess.ts';
import { inferRoles } from '../roles/infer.ts';
import { inputTypeOf, labelOfField } from '../roles/fields.ts';
import { hasParent, type ScreenSight, type Sight, sightOf } from '../roles/sight.ts';
import { type FormPurpose, purposeOf } from './form_purpose.ts';
import { fieldIn } from './names.ts';

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
    // So are switches and boxes that nothing sends, or a button somewhere near that says nothing of them.
    const areTicked = asked.every(({ type }) => type === 'yes-no');
    if (areTicked && (!submit || purpose === null || areSettings(holder, own, guesses))) return [];
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

/** Boxes anywhere on a screen, and switches that nobody put into a form: what they say holds at once. */
function areSettings(holder: Sight, fields: readonly Sight[], guesses: Guesses): boolean {
  const roleOf = ({ element }: Sight): string | undefined => guesses.get(element.key)?.role;
  return (
    !isForm(holder, guesses) &&
    (roleOf(holder) === 'main' || fields.every((field) => roleOf(field) === 'switch'))
  );
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
    if (isForm(at, guesses)) return at;
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
    else if (sight === holder || !isForm(sight, guesses)) sight.children.forEach(visit);
  };
  visit(holder);
  return found;
}

/** Whether what is in something is sent with it, and with nothing around it: a part of a form is none, whatever it looks like. */
const isForm = (sight: Sight, guesses: Guesses): boolean =>
  sight.element.tag === 'form' ||
  (guesses.get(sight.element.key)?.role === 'form' &&
    !hasParent(sight, ({ element }) => element.tag === 'form'));

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
    if (sight !== holder && isForm(sight, guesses)) return;
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
