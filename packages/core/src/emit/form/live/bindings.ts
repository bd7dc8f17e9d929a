import { type Expression, not } from '../../../expression/expression.ts';
import { type KnownNames, parseExpression } from '../../../expression/language.ts';
import type { Binding } from '../../../model/app.ts';
import {
  type EmittedScreen,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
} from '../markup.ts';

/** What an element shows and when it is shown, as it is worked out. */
export interface BoundElement {
  readonly text?: Expression;
  readonly shown?: Expression;
  readonly picture?: Expression;
  readonly value?: Expression;
  readonly enabled?: Expression;
  /** What the parts of its text say at first, for pictures of the screen. */
  readonly firsts?: readonly string[];
}

/** What is bound to elements, as far as it can be read with what there is. */
export function boundElements(
  bindings: ReadonlyMap<string, Binding>,
  known: KnownNames,
  saysFirst?: (part: Expression) => string,
): ReadonlyMap<string, BoundElement> {
  const read = (source: string | undefined): Expression | undefined => {
    const parsed = source === undefined ? undefined : parseExpression(source, known);
    return parsed && !parsed.problem ? parsed.expression : undefined;
  };
  return new Map(
    [...bindings].flatMap(([key, binding]): [string, BoundElement][] => {
      const made = Object.entries(binding).map(([what, source]) => [what, read(source)] as const);
      const there = made.filter(([, expression]) => expression !== undefined);
      const bound: BoundElement = Object.fromEntries(there);
      const firsts = bound.text && saysFirst ? { firsts: partsOfText(bound.text).map(saysFirst) } : {};
      return there.length ? [[key, { ...bound, ...firsts }]] : [];
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
      ...(own.shown ? { when: own.shown } : {}),
      ...withSlots(inside, own),
    };
  };
  return { ...screen, root: visit(screen.root) };
}

const HAVE_VALUES = new Set(['input', 'textarea', 'select', 'progress', 'meter']);
const CAN_BE_USED = new Set(['button', 'input', 'textarea', 'select']);

function withSlots(node: MarkupElement, { picture, value, enabled }: BoundElement): Partial<MarkupElement> {
  const slots = {
    ...(picture && node.asset ? { asset: picture } : {}),
    ...(value && HAVE_VALUES.has(node.tag) ? { '@value': value } : {}),
    ...(enabled && CAN_BE_USED.has(node.tag) ? { '@disabled': not(enabled) } : {}),
  };
  if (!Object.keys(slots).length) return {};
  const isFollowed =
    !value || node.acts?.some(({ on }) => on === 'change') || !/^(input|textarea)$/.test(node.tag);
  return {
    slots: { ...node.slots, ...slots },
    // What nothing follows that is typed stays what it is.
    ...(isFollowed ? {} : { attributes: { ...node.attributes, readonly: true } }),
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
  node.children.some((child) =>
    isElement(child) ? !!child.when || isBound(child) : 'given' in child && child.given !== undefined,
  );
