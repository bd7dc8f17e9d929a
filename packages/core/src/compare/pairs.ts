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
 * Which elements of two renderings are one and the same, as a tree; the roots always are. What says something is matched as
 * between iterations of a design; what holds it goes with what it holds and with its place, since one side has wrappers that the
 * other does without; what says nothing goes by its place. Classes are left out: those of a source and of delivered code have
 * nothing in common.
 */
export function pairRenderings(reference: RenderedElement, running: RenderedElement): Pair {
  const [olds, nows] = [new Map<Element, RenderedElement>(), new Map<Element, RenderedElement>()];
  const found = matchElements(asElement(reference, olds), asElement(running, nows));
  const leaves = found
    .map(({ old, now }) => [olds.get(old)!, nows.get(now)!] as const)
    .filter(([was, is]) => speaks(was) && speaks(is) && isOfKind(was, is));
  const isOf = new Map(leaves);
  pairHolders(reference, running, leaves, isOf);
  isOf.set(reference, running);
  pairByPlace(reference, isOf, new Set(isOf.values()));
  return asTree(reference, running, isOf);
}

function asTree(
  reference: RenderedElement,
  running: RenderedElement,
  isOf: ReadonlyMap<RenderedElement, RenderedElement>,
): Pair {
  const taken = new Set(isOf.values());
  const pairOf = new Map<RenderedElement, Pair>();
  const visit = (was: RenderedElement, parent: Pair | null): Pair | null => {
    const is = isOf.get(was);
    const pair: Pair | null = is ? { was, is, parent, children: [], gone: [], added: [] } : null;
    const isHolder = holds(was, (inner) => isOf.has(inner));
    if (pair) {
      parent?.children.push(pair);
      pairOf.set(pair.is, pair);
    } else if (parent && !isHolder) parent.gone.push(was);
    if (pair || isHolder) for (const child of partsOf(was)) visit(child, pair ?? parent);
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

/** Whether an element says something itself: a text, a picture, an icon, or a field that waits for one. */
const speaks = (element: RenderedElement): boolean =>
  !!element.text || !!element.picture || isIcon(element) || FIELDS.has(element.tag);
const FIELDS: ReadonlySet<string> = new Set(['input', 'select', 'textarea']);

interface Held {
  readonly element: RenderedElement;
  readonly parent: Held | null;
  /** How many of the matched elements it holds. */
  count: number;
}

/** Least share of what two holders hold that has to be common to both. */
const LEAST_HELD = 0.5;

/** Pairs what holds matched elements: those that hold the same, and of these those at the same place. */
function pairHolders(
  reference: RenderedElement,
  running: RenderedElement,
  leaves: readonly (readonly [RenderedElement, RenderedElement])[],
  isOf: Map<RenderedElement, RenderedElement>,
): void {
  const [olds, nows] = [heldIn(reference), heldIn(running)];
  const common = new Map<Held, Map<Held, number>>();
  for (const [was, is] of leaves) {
    for (let at = olds.get(was)!.parent; at; at = at.parent) at.count++;
    for (let at = nows.get(is)!.parent; at; at = at.parent) at.count++;
    for (let old = olds.get(was)!.parent; old; old = old.parent) {
      const row = common.get(old) ?? new Map<Held, number>();
      common.set(old, row);
      for (let now = nows.get(is)!.parent; now; now = now.parent) row.set(now, (row.get(now) ?? 0) + 1);
    }
  }
  const taken = new Set(isOf.values());
  const candidates = [...common].flatMap(([old, row]) =>
    isOf.has(old.element)
      ? []
      : [...row].flatMap(([now, both]) => {
          const share = (2 * both) / (old.count + now.count);
          if (share < LEAST_HELD || taken.has(now.element)) return [];
          return [{ old, now, worth: share + 0.5 * likePlace(old.element, now.element) }];
        }),
  );
  candidates.sort((a, b) => b.worth - a.worth);
  for (const { old, now } of candidates) {
    if (isOf.has(old.element) || taken.has(now.element) || !isNested(old, now, isOf)) continue;
    isOf.set(old.element, now.element);
    taken.add(now.element);
  }
}

/** Whether a pair would stand within the pair of what is around it. */
function isNested(old: Held, now: Held, isOf: ReadonlyMap<RenderedElement, RenderedElement>): boolean {
  let around = old.parent;
  while (around && !isOf.has(around.element)) around = around.parent;
  const outer = around && isOf.get(around.element);
  if (!outer) return true;
  for (let at = now.parent; at; at = at.parent) if (at.element === outer) return true;
  return false;
}

function heldIn(root: RenderedElement): Map<RenderedElement, Held> {
  const all = new Map<RenderedElement, Held>();
  const visit = (element: RenderedElement, parent: Held | null): void => {
    const held: Held = { element, parent, count: 0 };
    all.set(element, held);
    for (const child of partsOf(element)) visit(child, held);
  };
  visit(root, null);
  return all;
}

/** What every page has says nothing of which is which: a screen of an app stands within the body of another page. */
const SHELL: ReadonlySet<string> = new Set(['html', 'body']);

/** How alike the boxes and the looks of two elements are on their pages, 0 to 1. */
function likePlace(a: RenderedElement, b: RenderedElement): number {
  const [width, height] = (['width', 'height'] as const).map((size) => {
    const most = Math.max(a.box[size], b.box[size]);
    return most ? Math.min(a.box[size], b.box[size]) / most : 1;
  });
  const away = Math.abs(a.box.x - b.box.x) + Math.abs(a.box.y - b.box.y);
  const like = TELLING.filter((name) => lookOf(a, name) === lookOf(b, name)).length / TELLING.length;
  return (
    0.5 * width * height +
    0.25 / (1 + away / 40) +
    0.15 * like +
    (a.tag === b.tag && !SHELL.has(a.tag) ? 0.1 : 0)
  );
}

/** How much of two boxes has to be common to both, of what either covers, for them to be one by their place. */
const LEAST_COMMON = 0.3;

/** What says nothing by itself, as bars and empty boxes, is paired by where it stands within what is paired. */
function pairByPlace(
  was: RenderedElement,
  isOf: Map<RenderedElement, RenderedElement>,
  taken: Set<RenderedElement>,
): void {
  const is = isOf.get(was);
  const left = is ? partsOf(was).filter((child) => !isOf.has(child)) : [];
  const free = (child: RenderedElement): RenderedElement[] =>
    partsOf(is!).filter((other) => !taken.has(other) && isOfKind(child, other));
  const take = (child: RenderedElement, other: RenderedElement): void => {
    isOf.set(child, other);
    taken.add(other);
  };
  for (const child of left) {
    const [best] = free(child)
      .map((other) => ({ other, common: commonShare(child, other, was, is!) }))
      .sort((a, b) => b.common - a.common);
    if (best && best.common >= LEAST_COMMON) take(child, best.other);
  }
  // What went elsewhere within its surroundings, as a thin line does when it moves at all, is the next of its size.
  for (const child of left) {
    if (isOf.has(child)) continue;
    const next = free(child).find((other) => child.picture || isOfSize(child, other));
    if (next) take(child, next);
  }
  for (const child of partsOf(was)) pairByPlace(child, isOf, taken);
}

/** Whether two boxes are nearly as large. */
const isOfSize = (a: RenderedElement, b: RenderedElement): boolean =>
  a.tag === b.tag &&
  (['width', 'height'] as const).every(
    (size) => Math.abs(a.box[size] - b.box[size]) <= 0.2 * Math.max(4, a.box[size], b.box[size]),
  );

/** Whether two elements may be one: icons are no boxes, and what is pressed is not what is not. */
const isOfKind = (a: RenderedElement, b: RenderedElement): boolean =>
  isIcon(a) === isIcon(b) &&
  FIELDS.has(a.tag) === FIELDS.has(b.tag) &&
  !!a.picture === !!b.picture &&
  (speaks(a) || a.isPressable === b.isPressable);

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

/** Whether a font's letter has become a drawing: what is measured of the one says nothing of the other. */
export const isRedrawn = ({ was, is }: Pair): boolean =>
  isIcon(was) && isIcon(is) && isDrawing(was) !== isDrawing(is);

const isDrawing = ({ tag, children }: RenderedElement): boolean => tag === 'svg' || children.some(isDrawing);

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
