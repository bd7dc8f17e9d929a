import { type Expression, looksAtRecords, not } from '../../../expression/expression.ts';
import type { KnownNames } from '../../../expression/language.ts';
import { type Binding, CHART_KINDS } from '../../../model/app.ts';
import { boundParts, readBinding } from '../../../expression/read_binding.ts';
import { withMarked } from './chosen_looks.ts';
import {
  type EmittedScreen,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  textIn,
} from '../markup.ts';

/** What an element shows and when it is shown, as it is worked out. */
export interface BoundElement {
  readonly text?: Expression;
  readonly shown?: Expression;
  readonly picture?: Expression;
  readonly value?: Expression;
  readonly enabled?: Expression;
  readonly options?: Expression;
  readonly to?: Expression;
  readonly labels?: Expression;
  readonly values?: Expression;
  /** When it looks like another element, and the key of that. */
  readonly marked?: Expression;
  readonly like?: string;
  /** What the parts of its text say at first, for pictures of the screen. */
  readonly firsts?: readonly string[];
  /** What can be chosen at first, for pictures of the screen. */
  readonly firstOptions?: readonly string[];
}

/** What is bound to elements, as far as it can be read with what there is. */
export function boundElements(
  bindings: ReadonlyMap<string, Binding>,
  known: KnownNames,
  first?: {
    readonly says: (part: Expression) => string;
    readonly lists: (list: Expression) => readonly string[];
  },
): ReadonlyMap<string, BoundElement> {
  return new Map(
    [...bindings].flatMap(([key, binding]): [string, BoundElement][] => {
      const there = boundParts(binding).flatMap(([part, source]) => {
        const parsed = part === 'rows' ? null : readBinding(part, source, known);
        if (!parsed || parsed.problem) return [];
        // Of a variable that holds a record more is asked than what is known where there are none.
        const isKnown = Object.keys(known.collections).length > 0 || !looksAtRecords(parsed.expression);
        return isKnown ? [[part, parsed.expression] as const] : [];
      });
      const bound: BoundElement = Object.fromEntries(there);
      const { text, options, marked } = bound;
      const made: BoundElement = {
        ...bound,
        ...(text && first ? { firsts: partsOfText(text).map(first.says) } : {}),
        ...(options && first ? { firstOptions: first.lists(options) } : {}),
        ...(marked && binding.like !== undefined ? { like: binding.like } : {}),
      };
      return there.length ? [[key, made]] : [];
    }),
  );
}

/** A screen whose bound elements show what is worked out. */
export function withBindings(screen: EmittedScreen, bound: ReadonlyMap<string, BoundElement>): EmittedScreen {
  if (!bound.size) return screen;
  const visit = (node: MarkupElement): MarkupElement => {
    const inside = mapChildren(node, (child) => (isElement(child) ? visit(child) : child));
    const own = node.key === null ? undefined : bound.get(node.key);
    if (!own) return inside;
    return {
      ...inside,
      ...(own.text ? { children: saying(inside, own.text, own.firsts) } : {}),
      ...(own.options && inside.tag === 'select'
        ? { children: choosable(inside, own.options, own.firstOptions) }
        : {}),
      ...(own.shown ? { when: own.shown } : {}),
      ...withSlots(inside, own),
      ...(own.to && !inside.acts?.length ? leadingOut(inside, own.to) : {}),
    };
  };
  const made = { ...screen, root: visit(screen.root) };
  return withMarked(made, (key) => {
    const { marked, like } = bound.get(key) ?? {};
    return marked && like !== undefined ? { by: marked, like } : null;
  });
}

/** An element that leads out of the app, where an address says that. */
const leadingOut = (node: MarkupElement, to: Expression): Partial<MarkupElement> => ({
  link: { kind: 'external', href: '' },
  form: 'anchor',
  tag: 'a',
  slots: { ...node.slots, to: { kind: 'call', name: 'address', args: [to] } },
});

/** What can be chosen: what says that nothing is chosen yet, as it was drawn, and then what the list says. */
function choosable(node: MarkupElement, of: Expression, firsts: readonly string[] = []): MarkupNode[] {
  const [first] = node.children.filter(isElement);
  const isPrompt =
    first?.tag === 'option' &&
    (first.attributes.value === '' || (firsts.length > 0 && !firsts.includes(textIn(first))));
  const option: MarkupElement = {
    tag: 'option',
    key: node.key,
    className: null,
    attributes: {},
    each: { item: 'option', of: once(of), firsts: [...new Set(firsts)] },
    children: [{ text: '', given: { kind: 'item', name: 'option' } }],
  };
  return [...(isPrompt ? [first] : []), option];
}

/** What can be chosen is there once. */
const once = (list: Expression): Expression =>
  list.kind === 'call' && list.name === 'unique' ? list : { kind: 'call', name: 'unique', args: [list] };

/**
 * A screen whose charts draw what is worked out. Pictures of the screen show them as they were drawn.
 * @param kindOf what kind of chart an element is, what it is called, and in which colour it was drawn
 */
export function withCharts(
  screen: EmittedScreen,
  bound: ReadonlyMap<string, BoundElement>,
  kindOf: (key: string) => { readonly kind: ChartKind; readonly label: string; readonly color?: string },
): EmittedScreen {
  if (![...bound.values()].some(({ values }) => values)) return screen;
  const colors = new Map<string, string>();
  const visit = (node: MarkupElement): MarkupElement => {
    const { values, labels } = (node.key === null ? undefined : bound.get(node.key)) ?? {};
    if (!values || node.key === null)
      return mapChildren(node, (child) => (isElement(child) ? visit(child) : child));
    const { tag: _tag, asset: _asset, children: _children, attributes: _attributes, ...rest } = node;
    const { color, ...attributes } = kindOf(node.key);
    if (color !== undefined && node.className !== null) colors.set(node.className, color);
    return {
      ...rest,
      tag: CHART_TAG,
      attributes,
      slots: { ...(labels ? { '@labels': labels } : {}), '@values': values },
      children: [],
    };
  };
  const root = visit(screen.root);
  // What draws it takes the colour of the text around it.
  const rules = screen.rules.map((rule) => {
    const color = colors.get(rule.className);
    return color === undefined ? rule : { ...rule, base: { ...rule.base, color } };
  });
  return { root, rules };
}

/** What is a component of the runtime that draws a chart. */
export const CHART_TAG = 'Chart';
export type ChartKind = (typeof CHART_KINDS)[number];

const HAVE_VALUES = new Set(['input', 'textarea', 'select', 'progress', 'meter']);
const CAN_BE_USED = new Set(['button', 'input', 'textarea', 'select']);

/** A box that is ticked says by that whether something is so. */
const isTicked = ({ tag, attributes }: MarkupElement): boolean =>
  tag === 'input' && attributes.type === 'checkbox';

function withSlots(node: MarkupElement, { picture, value, enabled }: BoundElement): Partial<MarkupElement> {
  const said = value && HAVE_VALUES.has(node.tag) ? (isTicked(node) ? 'checked' : 'value') : null;
  const slots = {
    ...(picture && node.asset ? { asset: picture } : {}),
    ...(value && said ? { [`@${said}`]: value } : {}),
    ...(enabled && CAN_BE_USED.has(node.tag) ? { '@disabled': not(enabled) } : {}),
  };
  if (!Object.keys(slots).length) return {};
  const isTyped = /^(input|textarea)$/.test(node.tag);
  const isFollowed = !!node.acts?.some(({ on }) => on === 'change');
  return {
    slots: { ...node.slots, ...slots },
    // What nothing follows that is typed stays what it is.
    ...(said && isTyped && !isFollowed ? { attributes: { ...node.attributes, readonly: true } } : {}),
    ...(said && (isFollowed || isTyped) ? { isFollowing: true } : {}),
  };
}

const partsOfText = (text: Expression): readonly Expression[] => (text.kind === 'text' ? text.parts : [text]);

/** What an element says, in place of the texts in it; other parts of it stay. */
function saying(node: MarkupElement, text: Expression, firsts: readonly string[] = []): MarkupNode[] {
  const said = partsOfText(text).map((part, i): MarkupNode =>
    part.kind === 'literal' ? { text: String(part.value ?? '') } : { text: firsts[i] ?? '', given: part },
  );
  const rest = node.children.filter((child) => !('text' in child));
  return [...said, ...rest];
}

/** Whether markup shows something that is worked out from what the app remembers. */
export const isBound = (node: MarkupElement): boolean =>
  !!node.slots?.asset ||
  node.tag === CHART_TAG ||
  node.children.some((child) =>
    isElement(child)
      ? !!child.when || !!child.each || isBound(child)
      : 'given' in child && child.given !== undefined,
  );
