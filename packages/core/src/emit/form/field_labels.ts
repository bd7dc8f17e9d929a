import type { Element } from '../../model/design.ts';
import { kebabCase, uniqueName } from '../../model/names.ts';
import { textOf, walkElements } from '../../model/project.ts';

/** Types of inputs that are buttons, which say themselves what they do. */
const PUSHED: ReadonlySet<string> = new Set(['submit', 'button', 'reset', 'image']);
/** Longest text around a box to be ticked that is taken for what it is called. */
const LONGEST = 80;

export const isField = ({ tag, attributes }: Element): boolean =>
  (tag === 'input' && attributes?.type !== 'hidden') || tag === 'select' || tag === 'textarea';

/**
 * What fields are called that nothing on the page is tied to: the words of the label before them, or for boxes to be
 * ticked those of what they stand in, where it is about them alone, else the nearest before or after. By key.
 */
export function fieldLabels(root: Element): ReadonlyMap<string, string> {
  const named = new Set<string>();
  const titles = new Map<string, string>();
  walkElements(root, (element) => {
    const { tag, attributes } = element;
    if (tag !== 'label' || !attributes?.for) return;
    if (textOf(element)) named.add(attributes.for);
    else if (attributes.title) titles.set(attributes.for, attributes.title);
  });
  const labels = new Map<string, string>();
  const isCalled = ({ attributes = {} }: Element): boolean =>
    ['aria-label', 'aria-labelledby', 'title', 'placeholder'].some((name) => attributes[name]) ||
    (attributes.id !== undefined && named.has(attributes.id)) ||
    PUSHED.has(attributes.type ?? '');
  /** @param around what it stands in, the innermost first */
  const visit = (element: Element, around: readonly Element[], before: string): void => {
    if (isField(element)) {
      const isInLabel = around.some((outer) => outer.tag === 'label' && textOf(outer) !== '');
      if (isInLabel || isCalled(element)) return;
      const isTicked = ['checkbox', 'radio'].includes(element.attributes?.type ?? '');
      const label =
        around.find((outer) => outer.tag === 'label')?.attributes?.title ||
        titles.get(element.attributes?.id ?? '') ||
        before ||
        (isTicked ? wordsBeside([element, ...around]) : '');
      if (label) labels.set(element.key, label);
      return;
    }
    let last = '';
    for (const child of element.children) {
      visit(child, [element, ...around], last || before);
      if (child.tag === 'label' && !child.attributes?.for && !holdsField(child)) last = textOf(child);
      else if (holdsField(child)) last = '';
    }
  };
  visit(root, [], '');
  return labels;
}

/** The words around the first of elements. @param nested each in the next */
function wordsBeside(nested: readonly Element[]): string {
  const at = nested.findIndex((outer) => textOf(outer) !== '');
  if (at < 1) return '';
  const whole = textOf(nested[at]);
  if (whole.length <= LONGEST) return whole;
  const { children } = nested[at];
  const own = children.indexOf(nested[at - 1]);
  const nearest = [...children.slice(0, own).toReversed(), ...children.slice(own + 1)]
    .map((child) => {
      const said = leavesWithText(child);
      return (children.indexOf(child) < own ? said.at(-1) : said[0]) ?? '';
    })
    .find(Boolean);
  return nearest && nearest.length <= LONGEST ? nearest : '';
}

/** What the innermost elements with words say, in order. */
function leavesWithText(element: Element): string[] {
  const inner = element.children.flatMap(leavesWithText);
  const own = inner.length ? '' : textOf(element);
  return own ? [own] : inner;
}

/** Ids by which labels that are tied to nothing are tied to the fields after them: of labels and of fields, by key. */
export interface Ties {
  readonly forOf: ReadonlyMap<string, string>;
  readonly idOf: ReadonlyMap<string, string>;
}

/** Rows come in any number, and one id stands once on a page. */
const ROWS = /^(li|tr)$/;

/**
 * Ties labels to the fields that follow them within the same part, where nothing is tied to either: pressing the words then goes
 * to the field, and who does not see them hears them there.
 * @param ids that stand on the page
 * @param within what begins the ids of a page that opens over others, which have ids of their own
 */
export function tiedLabels(root: Element, ids: ReadonlySet<string>, within = ''): Ties {
  const taken = new Set(ids);
  const named = new Set<string>();
  walkElements(root, ({ tag, attributes }) => {
    if (tag === 'label' && attributes?.for) named.add(attributes.for);
  });
  const forOf = new Map<string, string>();
  const idOf = new Map<string, string>();
  const visit = (element: Element): void => {
    if (ROWS.test(element.tag ?? '') || element.tag === 'label') return;
    let label: Element | null = null;
    for (const child of element.children) {
      if (child.tag === 'label' && !child.attributes?.for && !holdsField(child)) {
        label = /\p{L}/u.test(textOf(child)) ? child : null;
        continue;
      }
      const fields = fieldsIn(child);
      const [field] = fields;
      if (label && fields.length === 1 && canBeTied(field, named)) {
        const id =
          field.attributes?.id ??
          uniqueName(kebabCase(`${within} ${textOf(label)}`).slice(0, LONGEST_ID) || 'field', (one) =>
            taken.has(one),
          );
        taken.add(id);
        forOf.set(label.key, id);
        idOf.set(field.key, id);
      }
      if (fields.length) label = null;
      visit(child);
    }
  };
  visit(root);
  return { forOf, idOf };
}
const LONGEST_ID = 40;

const canBeTied = ({ attributes = {} }: Element, named: ReadonlySet<string>): boolean =>
  !attributes['aria-label'] &&
  !attributes['aria-labelledby'] &&
  !named.has(attributes.id ?? '') &&
  !PUSHED.has(attributes.type ?? '');

const fieldsIn = (element: Element): Element[] =>
  element.tag === 'label' || ROWS.test(element.tag ?? '')
    ? []
    : isField(element)
      ? [element]
      : element.children.flatMap(fieldsIn);

const holdsField = (element: Element): boolean =>
  isField(element) || element.children.some((child) => holdsField(child));
