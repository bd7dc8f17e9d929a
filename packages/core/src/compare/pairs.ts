import { matchElements } from '../match/elements.ts';
import type { Declarations, Element, ElementKind } from '../model/design.ts';
import { lookOf, type Look, type RenderedElement } from './rendering.ts';

/** An element as two renderings show it. */
export interface Pair {
  readonly was: RenderedElement;
  readonly is: RenderedElement;
  /** The nearest pair around it, by where it was. */
  readonly parent: Pair | null;
  /** In reading order of what was. */
  readonly children: Pair[];
  /** What only the reference shows here, and what only the other does: the outermost of each. */
  readonly gone: RenderedElement[];
  readonly added: RenderedElement[];
}

/** What tells elements apart beside what they say. */
const TELLING: readonly Look[] = ['background-color', 'font-size', 'font-weight', 'color', 'display'];

/**
 * Which elements of two renderings are one and the same, as a tree; the roots always are. Classes are left out: those of a source
 * and those of delivered code have nothing in common.
 */
export function pairRenderings(reference: RenderedElement, running: RenderedElement): Pair {
  const [olds, nows] = [new Map<Element, RenderedElement>(), new Map<Element, RenderedElement>()];
  const found = matchElements(asElement(reference, olds), asElement(running, nows));
  const isOf = new Map(
    found
      .map(({ old, now }) => [olds.get(old)!, nows.get(now)!] as const)
      // Of what says nothing, only what is of one kind is one; the rest is paired by its place.
      .filter(([was, is]) => isOfKind(was, is) || saysSomething(was) || saysSomething(is)),
  );
  isOf.set(reference, running);
  pairByPlace(reference, isOf, new Set(isOf.values()));
  const taken = new Set(isOf.values());
  const pairOf = new Map<RenderedElement, Pair>();

  const visit = (was: RenderedElement, parent: Pair | null): Pair | null => {
    const is = isOf.get(was);
    const pair: Pair | null = is ? { was, is, parent, children: [], gone: [], added: [] } : null;
    if (pair) {
      parent?.children.push(pair);
      pairOf.set(pair.is, pair);
    } else if (parent && !holds(was, (inner) => isOf.has(inner))) parent.gone.push(was);
    if (pair || holds(was, (inner) => isOf.has(inner)))
      for (const child of partsOf(was)) visit(child, pair ?? parent);
    return pair;
  };
  const root = visit(reference, null)!;

  const lookForAdded = (is: RenderedElement, around: Pair): void => {
    const pair = pairOf.get(is) ?? null;
    if (!pair && !holds(is, (inner) => taken.has(inner))) return void around.added.push(is);
    for (const child of partsOf(is)) lookForAdded(child, pair ?? around);
  };
  lookForAdded(running, root);
  return root;
}

/** How much of two boxes has to be common to both, of what either covers, for them to be one by their place. */
const LEAST_COMMON = 0.3;

/** What says nothing by itself, as bars and icons, is paired by where it stands within what is paired. */
function pairByPlace(
  was: RenderedElement,
  isOf: Map<RenderedElement, RenderedElement>,
  taken: Set<RenderedElement>,
): void {
  const is = isOf.get(was);
  const left = is ? partsOf(was).filter((child) => !isOf.has(child)) : [];
  for (const child of left) {
    const [best] = partsOf(is!)
      .filter((other) => !taken.has(other) && isOfKind(child, other))
      .map((other) => ({ other, common: commonShare(child, other, was, is!) }))
      .sort((a, b) => b.common - a.common);
    if (!best || best.common < LEAST_COMMON) continue;
    isOf.set(child, best.other);
    taken.add(best.other);
  }
  for (const child of partsOf(was)) pairByPlace(child, isOf, taken);
}

const saysSomething = (element: RenderedElement): boolean =>
  !!element.text || !!element.picture || partsOf(element).some(saysSomething);

const isOfKind = (a: RenderedElement, b: RenderedElement): boolean =>
  a.text === b.text && (a.isIcon || b.isIcon ? a.isIcon && b.isIcon : a.isPressable === b.isPressable);

/** What two boxes have in common, each seen from what it stands in, over what either covers. */
function commonShare(
  a: RenderedElement,
  b: RenderedElement,
  inA: RenderedElement,
  inB: RenderedElement,
): number {
  const overlap = (from: 'x' | 'y', size: 'width' | 'height'): number => {
    const [at, bt] = [a.box[from] - inA.box[from], b.box[from] - inB.box[from]];
    return Math.max(0, Math.min(at + a.box[size], bt + b.box[size]) - Math.max(at, bt));
  };
  const both = overlap('x', 'width') * overlap('y', 'height');
  const either = a.box.width * a.box.height + b.box.width * b.box.height - both;
  return either > 0 ? both / either : 0;
}

/** The pair and all within it, in reading order of what was. */
export function* pairsWithin(pair: Pair): Generator<Pair> {
  yield pair;
  for (const child of pair.children) yield* pairsWithin(child);
}

const holds = (element: RenderedElement, is: (inner: RenderedElement) => boolean): boolean =>
  partsOf(element).some((child) => is(child) || holds(child, is));

/** A font's letter on one side is a drawing within an element of its own on the other; both are one icon. */
const isIcon = (element: RenderedElement): boolean =>
  element.isIcon || (!element.text && element.children.length === 1 && isIcon(element.children[0]));

const partsOf = (element: RenderedElement): readonly RenderedElement[] =>
  isIcon(element) ? [] : element.children;

/** A rendered element as one of a design, which is what is matched. */
function asElement(rendered: RenderedElement, all: Map<Element, RenderedElement>): Element {
  const base: Record<string, string> = {};
  for (const name of TELLING) base[name] = lookOf(rendered, name);
  const { tag, id, label, path, text, box } = rendered;
  const element: Element = {
    key: path,
    kind: kindOf(rendered),
    name: '',
    tag: isIcon(rendered) ? 'svg' : tag,
    box: { ...box, width: Math.max(0, box.width), height: Math.max(0, box.height) },
    style: { base: base satisfies Declarations },
    ...(label ? { attributes: { 'aria-label': label } } : {}),
    ...(text ? { text } : {}),
    children: partsOf(rendered).map((child) => asElement(child, all)),
    source: { file: '', path, ...(id ? { id } : {}) },
  };
  all.set(element, rendered);
  return element;
}

function kindOf(rendered: RenderedElement): ElementKind {
  const { tag, text, children } = rendered;
  if (tag === 'img') return 'image';
  if (isIcon(rendered)) return 'vector';
  if (['input', 'select', 'textarea', 'button'].includes(tag)) return 'control';
  return text && !children.length ? 'text' : 'box';
}
