import type { Form, FormField } from '../../../model/app.ts';
import { uniqueCodeName } from '../../../model/names.ts';
import {
  type EmittedAct,
  type EmittedRecordDeed,
  type EmittedScreen,
  type EmittedStep,
  findMarkup,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  saidByDeed,
} from '../markup.ts';
import { FILLED, speaksOf } from '../../../records/deeds.ts';

/** Where a message about a field stands; the frames that show a screen as it was drawn have none. */
export const MESSAGE_TAG = 'FieldMessage';

const FIELDS: ReadonlySet<string> = new Set(['input', 'select', 'textarea']);
/** What is around the fields can be written as a form if it is one of these. */
const PLAIN: ReadonlySet<string> = new Set(['div', 'section', 'article', 'form']);

/**
 * A screen whose fields are called as in a record, checked before they are sent, and sent by what sends them. What is around
 * them becomes the form; where it is something that cannot be one, the form stands in it around all.
 */
export function withForms(screen: EmittedScreen, forms: ReadonlyMap<string, Form>): EmittedScreen {
  let { root, rules } = screen;
  for (const [element, form] of forms) {
    const made = withForm(root, element, form, (wanted) =>
      uniqueCodeName(wanted, 'form', (one) => rules.some(({ className }) => className === one)),
    );
    if (!made) continue;
    root = made.root;
    if (made.wrapper !== null)
      rules = [
        ...rules,
        { className: made.wrapper, key: null, base: { display: 'contents' }, at: {}, from: {}, states: {} },
      ];
  }
  const sent = withoutUnsent(root);
  return sent === screen.root ? screen : { root: sent, rules };
}

/** Markup in which only forms do something with what is filled in: elsewhere nothing says what that is. */
function withoutUnsent(node: MarkupElement): MarkupElement {
  const made = mapChildren(node, (child) => (isElement(child) ? withoutUnsent(child) : child));
  if (made.isChecked || !made.acts?.some(({ ways }) => ways.some(({ steps }) => steps.some(takesValues))))
    return made;
  const acts = made.acts.flatMap((act) => {
    const ways = act.ways.map((way) => ({ ...way, steps: way.steps.filter((step) => !takesValues(step)) }));
    return ways.some(({ steps }) => steps.length) ? [{ ...act, ways }] : [];
  });
  const { acts: _before, ...rest } = made;
  return acts.length ? { ...rest, acts } : rest;
}

/** Whether what a form is filled in with is kept when it is sent, so that it would be lost where one leaves before. */
export const isKeptForm = ({ isChecked: checked, acts = [] }: MarkupElement): boolean =>
  checked === true &&
  acts.some(({ ways }) => ways.some(({ steps }) => steps.some((step) => step.kind === 'record')));

/** Whether a step takes what a form is filled in with. */
export const takesValues = (step: EmittedStep): boolean =>
  step.kind === 'record' ? speaksOfFilled(step.deed) : step.kind === 'call' && step.sends !== null;

const speaksOfFilled = (deed: EmittedRecordDeed): boolean =>
  (deed.kind === 'add' && deed.fields.length > 0) || saidByDeed(deed).some((one) => speaksOf(one, FILLED));

function withForm(
  root: MarkupElement,
  element: string,
  form: Form,
  classFor: (wanted: string) => string,
): { readonly root: MarkupElement; readonly wrapper: string | null } | null {
  const fields = new Map<MarkupElement, FormField>();
  for (const field of form.fields) {
    const node = findField(root, field.element);
    if (node) fields.set(node, field);
  }
  const submit = form.submit === undefined ? null : findMarkup(root, ({ key }) => key === form.submit);
  if (!fields.size) return null;
  const needed = [...fields.keys(), ...(submit ? [submit] : [])];
  const around = findMarkup(root, ({ key }) => key === element);
  const holder =
    findMarkup(root, (one) => one.tag === 'form' && holdsAll(one, needed)) ??
    (around && holdsAll(around, needed) ? around : smallestAround(root, needed));
  if (findMarkup(holder, (one) => one !== holder && (one.tag === 'form' || !!one.isChecked))) return null;
  const acts = submit ? sentBy(submit) : [];
  const inside = replaced(holder, fields, submit);
  const isForm = holder !== root && PLAIN.has(holder.tag) && !holder.link && !holder.acts?.length;
  const wrapper = isForm ? null : classFor('form');
  const checked = {
    tag: 'form',
    isChecked: true,
    acts: [...(isForm ? (holder.acts ?? []) : []), ...acts],
  } as const;
  const made: MarkupElement = isForm
    ? { ...inside, ...checked }
    : {
        ...inside,
        children: [
          { ...checked, key: holder.key, className: wrapper, attributes: {}, children: inside.children },
        ],
      };
  const put = (node: MarkupElement): MarkupElement =>
    node === holder ? made : mapChildren(node, (child) => (isElement(child) ? put(child) : child));
  return { root: put(root), wrapper };
}

/** What pressing a control does, as what sending its form does. */
function sentBy({ acts = [], link }: MarkupElement): EmittedAct[] {
  const pressed = acts.filter(({ on }) => on === 'press');
  if (pressed.length) return pressed.map((act) => ({ ...act, on: 'submit' }));
  return link ? [{ on: 'submit', ways: [{ steps: [link] }] }] : [];
}

function replaced(
  node: MarkupElement,
  fields: ReadonlyMap<MarkupElement, FormField>,
  submit: MarkupElement | null,
): MarkupElement {
  const made: MarkupNode[] = node.children.flatMap((child): MarkupNode[] => {
    if (!isElement(child)) return [child];
    const inner = replaced(child, fields, submit);
    if (child === submit) return [asSubmit(inner)];
    const field = fields.get(child);
    if (!field) return [named(inner, fields)];
    const made = asField(inner, field);
    return isChecked(made, field) ? [made, message(field.field, child.key)] : [made];
  });
  return { ...node, children: made };
}

/** Round buttons of one group are one field. */
function named(node: MarkupElement, fields: ReadonlyMap<MarkupElement, FormField>): MarkupElement {
  if (node.tag !== 'input' || node.attributes.type !== 'radio' || node.attributes.name === undefined)
    return node;
  for (const [other, { field }] of fields)
    if (other.attributes.type === 'radio' && other.attributes.name === node.attributes.name)
      return { ...node, attributes: { ...node.attributes, name: field } };
  return node;
}

function asField(node: MarkupElement, field: FormField): MarkupElement {
  const isText = node.tag !== 'select' && !/^(checkbox|radio)$/.test(String(node.attributes.type ?? ''));
  const isRange = /^(number|date|time|range|month|week|datetime-local)$/.test(String(node.attributes.type));
  return {
    ...node,
    attributes: {
      ...node.attributes,
      name: field.field,
      ...(field.required ? { required: true as const } : {}),
      ...(isText && !isRange && field.least !== undefined ? { minlength: String(field.least) } : {}),
      ...(isText && !isRange && field.most !== undefined ? { maxlength: String(field.most) } : {}),
      ...(isRange && field.from !== undefined ? { min: field.from } : {}),
      ...(isRange && field.to !== undefined ? { max: field.to } : {}),
      ...(node.tag === 'input' && isText && field.pattern !== undefined ? { pattern: field.pattern } : {}),
      ...(field.same === undefined ? {} : { 'data-same': field.same }),
      ...(field.message === undefined ? {} : { 'data-message': field.message }),
    },
  };
}

/** Whether a field can be filled in wrongly. */
const isChecked = (
  { attributes }: MarkupElement,
  { element: _element, field: _field, ...rules }: FormField,
): boolean =>
  Object.keys(rules).length > 0 ||
  attributes.required !== undefined ||
  attributes.pattern !== undefined ||
  /^(email|url|number)$/.test(String(attributes.type ?? ''));

/** What sends a form is a button of it, and does nothing by itself. */
function asSubmit({ acts = [], link: _link, form: _form, ...node }: MarkupElement): MarkupElement {
  const others = acts.filter(({ on }) => on !== 'press');
  return {
    ...node,
    tag: node.tag === 'input' ? 'input' : 'button',
    attributes: { ...node.attributes, type: 'submit' },
    form: 'button',
    ...(others.length ? { acts: others } : {}),
  };
}

const message = (field: string, key: string | null): MarkupElement => ({
  tag: MESSAGE_TAG,
  key,
  className: null,
  attributes: { of: field },
  children: [],
});

/** The field of an element: itself, or the real one that it was made. */
function findField(root: MarkupElement, key: string): MarkupElement | null {
  const at = findMarkup(root, (node) => node.key === key);
  return at && (FIELDS.has(at.tag) ? at : findMarkup(at, ({ tag }) => FIELDS.has(tag)));
}

const holdsAll = (node: MarkupElement, needed: readonly MarkupElement[]): boolean =>
  needed.every((one) => findMarkup(node, (inner) => inner === one) !== null);

function smallestAround(root: MarkupElement, needed: readonly MarkupElement[]): MarkupElement {
  for (const child of root.children)
    if (isElement(child) && holdsAll(child, needed) && !needed.includes(child))
      return smallestAround(child, needed);
  return root;
}
