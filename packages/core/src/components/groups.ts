import { grouped } from '../json/grouped.ts';
import { hash } from '../json/hash.ts';
import type { Element, Screen } from '../model/design.ts';
import { shapeLikeness } from '../roles/shape.ts';
import { isInCode, type Sight, sightOf } from '../roles/sight.ts';
import { isEntryWithList, wordOf } from './names.ts';

/** A component has at least this many elements, and at most this many are looked at in one screen. */
const LEAST_ELEMENTS = 3;
const MAX_ELEMENTS = 20_000;
/** Near-equal groups are compared with at most so many others of their kind. */
const MAX_COMPARED = 24;
/** A part holds less than this share of its screen's elements. */
const MOST = 0.6;
/** How alike two groups have to be built to be proposed as one. */
const ALIKE = 0.72;

/** Whether something looks like a thing by itself: a card, a panel. */
export const isThing = (look: Sight['look']): boolean =>
  look.hasBorder || look.hasShadow || (look.hasFill && look.radius > 0);

const sizes = new WeakMap<Element, number>();

/** How many elements there are beneath an element, itself among them. */
export function sizeOf(element: Element): number {
  let size = sizes.get(element);
  if (size === undefined)
    sizes.set(
      element,
      (size = element.children.reduce(
        (sum, child) => sum + (child.tag === undefined ? 0 : sizeOf(child)),
        1,
      )),
    );
  return size;
}

/** Subtrees by how they are built and laid out. */
function byForm(screens: readonly Screen[]): Map<string, Sight[]> {
  const groups = new Map<string, Sight[]>();
  for (const screen of screens) {
    const { all, root } = sightOf(screen);
    const forms = new Map<Sight, string>();
    const here: [form: string, sight: Sight][] = [];
    const rows = new Set(all.flatMap((sight) => [...smallRows(sight)]));
    // From the innermost outwards, so that the forms of children are known.
    for (const sight of all.slice(0, MAX_ELEMENTS).toReversed()) {
      forms.set(sight, formOf(sight, forms));
      const { element } = sight;
      if (sight === root || element.hidden) continue;
      if (!isDressedText(sight) && (element.kind !== 'box' || !sight.children.length)) continue;
      if (isInCode(sight)) continue;
      const size = sizeOf(element);
      const isButton = isFramedText(sight);
      if (size < LEAST_ELEMENTS && !isButton && !rows.has(sight)) continue;
      // What is most of a screen is its layout, not a part of it.
      if (size > all.length * MOST) continue;
      const form = forms.get(sight)!;
      here.push([form, sight]);
    }
    for (const [form, sight] of here.reverse()) {
      const group = groups.get(form);
      if (group) group.push(sight);
      else groups.set(form, [sight]);
    }
  }
  return groups;
}

/** So many that stand beside each other are rows of a list, however little is in each. */
const LEAST_ROWS = 5;

/** Elements with one thing in each, of which as many as are a list stand beside each other and are called the same. */
function smallRows(parent: Sight): Set<Sight> {
  const small = parent.children.filter(({ element }) => element.kind === 'box' && sizeOf(element) === 2);
  const alike = grouped(small, ({ element: { tag, classes } }) => `${tag} ${classes}`);
  return new Set([...alike.values()].filter(({ length }) => length >= LEAST_ROWS).flat());
}

/** A text with a frame of its own: a button, a badge. */
const isFramedText = (sight: Sight): boolean =>
  isDressedText(sight) ||
  (sight.children.length === 1 && sight.children[0].element.kind === 'text' && isFramed(sight));

/** The same where the frame is that of the text itself. */
const isDressedText = (sight: Sight): boolean =>
  sight.isAuthored &&
  sight.element.kind === 'text' &&
  sight.element.tag !== undefined &&
  isFramed(sight) &&
  parseFloat(sight.element.style.base['padding-left'] ?? '0') > 0;

const isFramed = ({ look }: Sight): boolean => look.hasFill || look.hasBorder;

/** A word for how an element is built: kinds, layout, sizes of type; not what it says, and not its colours. */
function formOf(sight: Sight, forms: ReadonlyMap<Sight, string>): string {
  const { element, look, children } = sight;
  const { base } = element.style;
  const own = [
    element.kind[0],
    sight.isAuthored ? element.tag : '',
    base.display ?? '',
    base['flex-direction'] ?? '',
    look.hasBorder ? 'b' : '',
    Math.round(Math.min(look.radius, 99)),
    sight.hasOwnText ? `${sight.fontSize} ${sight.fontWeight >= 600}` : '',
    // What opens a group of a menu looks like its links, and is none.
    sight.parent && isEntryWithList(sight.parent) ? 'head' : '',
    isFramedText(sight) ? Math.round(element.box.height / 4) : '',
  ];
  const inner: string[] = [];
  // Runs of one form count as one, since rows come in any number.
  for (const child of children) {
    const form = forms.get(child) ?? '';
    if (form !== inner.at(-1)) inner.push(form);
  }
  return hash(`${own.join(' ')}(${inner.join(' ')})`);
}

/**
 * Groups of places that are built alike: subtrees of one form are found by a hash of how they are built; groups that differ in a
 * part or two are joined where they are called the same, and stand by themselves, too. Linear in the elements, but for the
 * comparison of groups, which is bounded.
 */
export function groupsOf(screens: readonly Screen[]): readonly (readonly Sight[])[] {
  const exact = [...byForm(screens).values()];
  const joined = join(exact);
  const whole = new Map(joined.map((group) => [group[0], group.length]));
  return [...joined, ...exact.filter((group) => whole.get(group[0]) !== group.length)].filter(
    (group) => group.length > 1,
  );
}

/** Groups by how they are called: those that differ in a part or two are one. */
function join(groups: readonly Sight[][]): Sight[][] {
  const joined: Sight[][] = [];
  const buckets = new Map<string, Sight[][]>();
  for (const group of groups.toSorted((a, b) => b.length - a.length)) {
    const name = wordOf(group[0]);
    const bucket = name ? (buckets.get(name) ?? []) : [];
    const near = bucket
      .slice(0, MAX_COMPARED)
      .find((other) => shapeLikeness(other[0].element, group[0].element) >= ALIKE);
    if (near) near.push(...group);
    else {
      const own = [...group];
      joined.push(own);
      if (name) {
        bucket.push(own);
        buckets.set(name, bucket);
      }
    }
  }
  return joined;
}
