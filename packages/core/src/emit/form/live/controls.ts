import { choice, equals, type Expression, listing, literal } from '../../../expression/expression.ts';
import type { ListDeed } from '../../../model/app.ts';
import { withChosenLooks } from './chosen_looks.ts';
import type { ListingName } from './live.ts';
import {
  type EmittedScreen,
  type EmittedStep,
  isElement,
  isText,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  textIn,
} from '../markup.ts';

export type ListStep = Extract<EmittedStep, { readonly kind: 'list' }>;

export type CallStep = Extract<EmittedStep, { readonly kind: 'call' }>;

export type RecordStep = Extract<EmittedStep, { readonly kind: 'record' }>;

/** The first thing that an element does to a list. */
export const listStepOf = ({ acts = [] }: MarkupElement): ListStep | undefined =>
  acts
    .flatMap(({ ways }) => ways.flatMap(({ steps }) => steps))
    .find((step): step is ListStep => step.kind === 'list');

/** The prop by which a row knows its record, and which it is done to. */
export const ROW_ID = 'id';

/** Whether a step does something to the record of the row that its element stands in. */
const isOnRow = (step: EmittedStep): boolean =>
  ('row' in step && step.row !== undefined) ||
  (step.kind === 'record' && step.deed.kind !== 'add' && step.deed.of.kind === 'row');

/** Whether an element does something to the record of the row that it stands in. */
const actsOnRow = ({ acts = [] }: MarkupElement): boolean =>
  acts.some(({ ways }) => ways.some(({ steps }) => steps.some(isOnRow)));

/** Whether something in markup does something to the record of its row. */
export const holdsRowDeed = (node: MarkupElement): boolean =>
  actsOnRow(node) || node.children.some((child) => isElement(child) && holdsRowDeed(child));

/** Markup without what is done to the record of a row, where there is no row to speak of. */
export function withoutRowDeeds(node: MarkupElement): MarkupElement {
  if (!holdsRowDeed(node)) return node;
  const made = mapChildren(node, (child) => (isElement(child) ? withoutRowDeeds(child) : child));
  if (!actsOnRow(made)) return made;
  const { acts = [], ...rest } = made;
  // What else is done by the same gesture stays, where it does not come after that.
  const kept = acts.flatMap((act) => {
    const ways = act.ways.filter(({ steps }) => !steps.some(isOnRow));
    return ways.length ? [{ ...act, ways }] : [];
  });
  return kept.length ? { ...rest, acts: kept } : rest;
}

/** Controls that tick boxes are called so where that is looked for. */
export function withTickNames(screen: EmittedScreen): EmittedScreen {
  const visit = (node: MarkupElement): MarkupElement => {
    const made = mapChildren(node, (child) => (isElement(child) ? visit(child) : child));
    const name = made.acts
      ?.flatMap(({ ways }) => ways.flatMap(({ steps }) => steps))
      .flatMap((step) => (step.kind === 'browser' && step.does === 'tick' ? [step.name] : []))[0];
    return name === undefined ? made : { ...made, attributes: { ...made.attributes, 'data-ticks': name } };
  };
  const root = visit(screen.root);
  return root === screen.root ? screen : { ...screen, root };
}

/** Whether something in markup does something to a list. */
export const controlsList = (node: MarkupElement): boolean =>
  listStepOf(node) !== undefined || node.children.some((child) => isElement(child) && controlsList(child));

/**
 * A screen whose controls of lists say and show how the list is looked at: which column it is sorted by, which filter and
 * which page is chosen, and whether there is another page. The same screen where it has none.
 */
export function withListControls(screen: EmittedScreen): EmittedScreen {
  if (!controlsList(screen.root)) return screen;
  return withChosenLooks({ ...screen, root: asControls(screen.root) }, (node) => {
    const step = listStepOf(node);
    const by = step && step.deed.kind !== 'retry' ? isChosen(step.listing, step.deed) : null;
    if (!step || !by) return null;
    const { deed, listing: of } = step;
    return { by, group: `${of.name} ${deed.kind} ${'field' in deed ? deed.field : ''}` };
  });
}

function asControls(node: MarkupElement): MarkupElement {
  const made = mapChildren(node, (child) => (isElement(child) ? asControls(child) : child));
  const step = listStepOf(node);
  return step ? asControl(made, step) : made;
}

function asControl(node: MarkupElement, { listing: list, deed }: ListStep): MarkupElement {
  const slots = (more: Readonly<Record<string, Expression>>): MarkupElement => ({
    ...node,
    slots: { ...node.slots, ...more },
  });
  const isOff = (asks: 'hasPrevious' | 'hasNext'): MarkupElement =>
    node.tag === 'button' ? slots({ '@disabled': { kind: 'not', of: listing(list, asks) } }) : node;
  switch (deed.kind) {
    case 'search':
      return node.tag === 'input' || node.tag === 'textarea'
        ? {
            ...slots({ '@value': listing(list, 'sought') }),
            attributes: without(node.attributes, 'value'),
          }
        : node;
    case 'sort':
      return sortingHead(node, list, deed.field);
    case 'filter':
      return node.tag === 'button' ? slots({ '@aria-pressed': isChosen(list, deed)! }) : node;
    case 'page':
      if (deed.to === 'previous' || deed.to === 'first') return isOff('hasPrevious');
      if (deed.to === 'next' || deed.to === 'last') return isOff('hasNext');
      return {
        ...slots({ '@aria-current': choice(isChosen(list, deed)!, literal('page'), literal(undefined)) }),
        ...(deed.to > 1
          ? {
              when: {
                kind: 'compare',
                by: 'atLeast',
                left: listing(list, 'pages'),
                right: literal(deed.to),
              } as const,
            }
          : {}),
      };
    case 'more':
      return { ...node, when: listing(list, 'hasNext') };
    case 'choose':
      return node.tag === 'select' ? choosing(node, list, deed) : node;
    case 'retry':
      return node;
  }
}

const without = <T>(record: Readonly<Record<string, T>>, name: string): Readonly<Record<string, T>> =>
  Object.fromEntries(Object.entries(record).filter(([one]) => one !== name));

/** A choice whose options are what records say; one that shows all of them says nothing. */
function choosing(
  node: MarkupElement,
  list: ListingName,
  { field, all }: Extract<ListDeed, { readonly kind: 'choose' }>,
): MarkupElement {
  const options = (at: MarkupElement): MarkupElement =>
    at.tag === 'option'
      ? {
          ...at,
          attributes: {
            ...without(without(at.attributes, 'selected'), 'value'),
            ...(all.includes(textIn(at)) ? { value: '' } : {}),
          },
        }
      : mapChildren(at, (child) => (isElement(child) ? options(child) : child));
  const made = options(node);
  return {
    ...made,
    attributes: without(made.attributes, 'value'),
    slots: { ...made.slots, '@value': listing(list, 'filterOf', field) },
  };
}

/** A head with an arrow; that of a column stays one, and is pressed by a button in it. */
function sortingHead(node: MarkupElement, list: ListingName, field: string): MarkupElement {
  const arrow: MarkupElement = {
    tag: 'span',
    key: node.key,
    className: null,
    attributes: { 'aria-hidden': 'true' },
    children: [{ text: '', given: listing(list, 'arrowOf', field) }],
  };
  if (node.tag !== 'th') return { ...node, children: [...node.children, arrow] };
  const { acts, form: _form, ...head } = node;
  return {
    ...head,
    slots: { ...node.slots, '@aria-sort': listing(list, 'sortOf', field) },
    children: [
      {
        tag: 'button',
        key: node.key,
        className: null,
        attributes: { type: 'button' },
        form: 'button',
        ...(acts ? { acts } : {}),
        children: [...node.children, arrow],
      },
    ],
  };
}

/** The component of the runtime that a button is which sorts a list. */
export const SORT_TAG = 'SortButton';

/** Of a button that does nothing but sort a list, and shows how that is sorted: the list, by which field, and what it says. */
export function sortingOf({ tag, acts, children }: MarkupElement): {
  readonly list: ListingName;
  readonly field: string;
  readonly children: readonly MarkupNode[];
} | null {
  const [act, ...more] = acts ?? [];
  if (tag !== 'button' || act?.on !== 'press' || more.length) return null;
  const [way, otherwise] = act.ways;
  const [step, next] = way.steps;
  if (way.when || otherwise || next || step?.kind !== 'list' || step.deed.kind !== 'sort') return null;
  const arrow = children.at(-1);
  const [shown] = arrow && isElement(arrow) ? arrow.children : [];
  if (!shown || !isText(shown) || shown.given?.kind !== 'listing' || shown.given.asks !== 'arrowOf')
    return null;
  return { list: step.listing, field: step.deed.field, children: children.slice(0, -1) };
}

/** Whether what a control asks for is what is seen; null for one that asks for no state. */
function isChosen(list: ListingName, deed: ListDeed): Expression | null {
  if (deed.kind === 'filter') return equals(listing(list, 'filterOf', deed.field), deed.value ?? '');
  return deed.kind === 'page' && typeof deed.to === 'number' ? equals(listing(list, 'page'), deed.to) : null;
}
