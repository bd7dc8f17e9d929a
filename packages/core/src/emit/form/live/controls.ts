import { choice, equals, type Expression, listing, literal } from '../../../expression/expression.ts';
import { grouped } from '../../../json/grouped.ts';
import type { ListDeed } from '../../../model/app.ts';
import { uniqueCodeName } from '../../../model/names.ts';
import type { ListingName } from './live.ts';
import {
  type EmittedScreen,
  type EmittedStep,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  type StyleRule,
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

/** Whether an element does something to the record of the row that it stands in. */
const actsOnRow = ({ acts = [] }: MarkupElement): boolean =>
  acts.some(({ ways }) =>
    ways.some(({ steps }) => steps.some((step) => step.kind === 'record' && step.deed.kind !== 'add')),
  );

/** Whether something in markup does something to the record of its row. */
export const holdsRowDeed = (node: MarkupElement): boolean =>
  actsOnRow(node) || node.children.some((child) => isElement(child) && holdsRowDeed(child));

/** Markup without what is done to the record of a row, where there is no row to speak of. */
export function withoutRowDeeds(node: MarkupElement): MarkupElement {
  if (!holdsRowDeed(node)) return node;
  const made = mapChildren(node, (child) => (isElement(child) ? withoutRowDeeds(child) : child));
  if (!actsOnRow(made)) return made;
  const { acts = [], ...rest } = made;
  const kept = acts.filter((act) => !actsOnRow({ ...made, acts: [act] }));
  return kept.length ? { ...rest, acts: kept } : rest;
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
  const looks = new ChosenLooks(screen);
  return { root: looks.apply(asControls(screen.root)), rules: looks.rules() };
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

/** Whether what a control asks for is what is seen; null for one that asks for no state. */
function isChosen(list: ListingName, deed: ListDeed): Expression | null {
  if (deed.kind === 'filter') return equals(listing(list, 'filterOf', deed.field), deed.value ?? '');
  return deed.kind === 'page' && typeof deed.to === 'number' ? equals(listing(list, 'page'), deed.to) : null;
}

/** What tells a chosen control from the others; the rest is its own. */
const PAINT =
  /^(color|background(-.*)?|border-(top|right|bottom|left)-(color|style)|font-weight|text-decoration.*|box-shadow|outline.*|opacity|fill|stroke)$/;

type Look = Pick<StyleRule, 'base' | 'at' | 'from' | 'states'>;
const NO_LOOK: Look = { base: {}, at: {}, from: {}, states: {} };

/** Of controls of which one is chosen, the look of the chosen one goes where the choice goes. */
class ChosenLooks {
  readonly #rules: Map<string, StyleRule>;

  constructor({ rules }: EmittedScreen) {
    this.#rules = new Map(rules.map((rule) => [rule.className, rule]));
  }

  rules(): readonly StyleRule[] {
    return [...this.#rules.values()];
  }

  apply(root: MarkupElement): MarkupElement {
    const made = new Map<MarkupElement, MarkupElement>();
    for (const group of this.#groups(root).values()) {
      if (group.length < 2) continue;
      const marked = this.#marked(group.map(({ node }) => node));
      if (!marked) continue;
      const other = group.find(({ node }) => node !== marked)!.node;
      for (const { node, by } of group) made.set(node, this.#shown(node, marked, other, by));
    }
    const replaced = (node: MarkupElement): MarkupElement =>
      made.get(node) ?? mapChildren(node, (child) => (isElement(child) ? replaced(child) : child));
    return replaced(root);
  }

  /** Controls of one list and field, or of its pages. */
  #groups(root: MarkupElement): ReadonlyMap<string, { node: MarkupElement; by: Expression }[]> {
    const found: { node: MarkupElement; by: Expression; group: string }[] = [];
    const visit = (node: MarkupElement): void => {
      const step = listStepOf(node);
      const by = step && step.deed.kind !== 'retry' ? isChosen(step.listing, step.deed) : null;
      if (step && by) {
        const { deed, listing: of } = step;
        found.push({ node, by, group: `${of.name} ${deed.kind} ${'field' in deed ? deed.field : ''}` });
      }
      for (const child of node.children) if (isElement(child)) visit(child);
    };
    visit(root);
    return grouped(found, ({ group }) => group);
  }

  /** The one that is drawn otherwise than all the others; of two the one that is chosen at first. */
  #marked(nodes: readonly MarkupElement[]): MarkupElement | null {
    const paints = nodes.map((node) => this.#paintOf(node));
    const counts = new Map<string, number>();
    for (const paint of paints) counts.set(paint, (counts.get(paint) ?? 0) + 1);
    if (counts.size !== 2) return null;
    const at = paints.findIndex((paint) => counts.get(paint) === 1);
    return at < 0 ? null : nodes[at];
  }

  #paintOf(node: MarkupElement): string {
    const own = Object.entries(this.#lookOf(node).base).filter(([property]) => PAINT.test(property));
    const inner = node.children.map((child) => (isElement(child) ? this.#paintOf(child) : ''));
    return JSON.stringify([node.tag, own.sort(), inner]);
  }

  #lookOf({ className }: MarkupElement): Look {
    return (className === null ? undefined : this.#rules.get(className)) ?? NO_LOOK;
  }

  /** A control that looks like the marked one where it is chosen, and like the others where it is not. */
  #shown(node: MarkupElement, marked: MarkupElement, other: MarkupElement, by: Expression): MarkupElement {
    const own = this.#lookOf(node);
    const [on, off] = [marked, other].map((one) => this.#lookOf(one));
    const differing = [...new Set([...Object.keys(on.base), ...Object.keys(off.base)])].filter(
      (property) => PAINT.test(property) && on.base[property] !== off.base[property],
    );
    const painted = (as: Look): string | null => {
      const base: Record<string, string> = { ...own.base };
      for (const property of differing)
        if (as.base[property] === undefined) delete base[property];
        else base[property] = as.base[property];
      return this.#classFor({ ...own, base }, node);
    };
    const classes = differing.length ? { true: painted(on), false: painted(off) } : null;
    const children = node.children.map((child, i): MarkupNode => {
      const [a, b] = [marked.children[i], other.children[i]];
      return isElement(child) && a && b && isElement(a) && isElement(b)
        ? this.#shown(child, a, b, by)
        : child;
    });
    return { ...node, ...(classes ? { variant: { by, classes } } : {}), children };
  }

  #classFor(look: Look, { className, key }: MarkupElement): string | null {
    const signature = JSON.stringify([look.base, look.at, look.from, look.states]);
    for (const [name, { base, at, from, states }] of this.#rules)
      if (JSON.stringify([base, at, from, states]) === signature) return name;
    if (Object.values(look).every((part) => !Object.keys(part).length)) return null;
    const name = uniqueCodeName(className ?? 'part', 'part', (one) => this.#rules.has(one));
    this.#rules.set(name, {
      className: name,
      key,
      base: look.base,
      at: look.at,
      from: look.from,
      states: look.states,
    });
    return name;
  }
}
