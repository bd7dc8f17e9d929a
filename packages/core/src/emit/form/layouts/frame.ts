import {
  type EmittedScreen,
  isElement,
  type MarkupElement,
  type MarkupNode,
  type MarkupOutlet,
  type StyleRule,
  withoutKeys,
} from '../markup.ts';

/** What several screens share around the part in which they differ. */
export interface Frame {
  /** With `<Outlet />` where the screens' own parts go. */
  readonly root: MarkupElement;
  readonly rules: readonly StyleRule[];
  /** What is left of each screen, in their order. */
  readonly insides: readonly MarkupElement[];
}

/** One screen as it is emitted, after components were taken out. */
export interface Framed {
  readonly root: MarkupElement;
  readonly rules: EmittedScreen['rules'];
}

const OUTLET: MarkupOutlet = { outlet: true };

/**
 * Finds what screens have in common from the outside in: the same elements around and beside the one place where they
 * differ. Null where nothing is, or where a screen would have nothing left.
 */
export function frameOf(screens: readonly Framed[]): Frame | null {
  if (screens.length < 2) return null;
  const signs = new Signs();
  const looks = screens.map(({ rules }): Looks => ({
    ofClass: new Map(rules.map(({ className, key: _key, ...look }) => [className, JSON.stringify(look)])),
    signs,
  }));
  const found = shared(
    screens.map(({ root }) => root),
    looks,
  );
  if (!found || !found.common) return null;
  const insides = found.insides.map((nodes): MarkupElement => {
    const [only] = nodes;
    if (nodes.length === 1 && isElement(only)) return only;
    return { tag: '', key: null, className: null, attributes: {}, children: nodes };
  });
  return { root: found.root, rules: screens[0].rules, insides };
}

/** What the classes of a screen say, and the signs that its elements share with those of other screens. */
interface Looks {
  readonly ofClass: ReadonlyMap<string, string>;
  readonly signs: Signs;
}

/** Short names for what is said at length: the same for the same. */
class Signs {
  readonly #known = new Map<string, string>();

  of(says: string): string {
    let sign = this.#known.get(says);
    if (sign === undefined) this.#known.set(says, (sign = `#${this.#known.size}`));
    return sign;
  }
}

interface Shared {
  readonly root: MarkupElement;
  readonly insides: readonly (readonly MarkupNode[])[];
  /** How many elements stand beside the outlet. */
  readonly common: number;
}

function shared(nodes: readonly MarkupElement[], looks: readonly Looks[]): Shared | null {
  const [first] = nodes;
  const shells = nodes.map((node, i) => shellOf(node, looks[i]));
  if (shells.some((shell) => shell === null || shell !== shells[0])) return null;
  const signs = nodes.map((node, i) => node.children.map((child) => signOf(child, looks[i])));
  const shortest = Math.min(...signs.map((list) => list.length));
  let before = 0;
  while (
    before < shortest &&
    signs.every((list) => list[before] !== null && list[before] === signs[0][before])
  )
    before++;
  let after = 0;
  const fromEnd = (list: readonly (string | null)[], n: number): string | null => list[list.length - 1 - n];
  while (
    after < shortest - before &&
    signs.every((list) => fromEnd(list, after) !== null && fromEnd(list, after) === fromEnd(signs[0], after))
  )
    after++;
  const insides = nodes.map(({ children }) => children.slice(before, children.length - after));
  if (insides.some((list) => !list.length)) return null;
  const around = (inner: MarkupElement | MarkupOutlet): MarkupElement => ({
    ...first,
    children: [
      ...first.children.slice(0, before),
      inner,
      ...first.children.slice(first.children.length - after),
    ],
  });
  const singles = insides.flatMap((list) => (list.length === 1 && isElement(list[0]) ? [list[0]] : []));
  const deeper = singles.length === nodes.length ? shared(singles, looks) : null;
  if (deeper && deeper.common)
    return { root: around(deeper.root), insides: deeper.insides, common: before + after + deeper.common };
  return { root: around(OUTLET), insides, common: before + after };
}

/** An element without its children, with what its class says instead of the name; null for what must stay whole. */
function shellOf(node: MarkupElement, looks: Looks): string | null {
  const { key: _key, children: _children, className, ...rest } = node;
  if (node.link || node.acts || node.use || node.when) return null;
  return JSON.stringify([rest, className ? looks.ofClass.get(className) : null]);
}

/** The same for the same element of any screen; null for what belongs to one screen, such as its records. */
function signOf(node: MarkupNode, looks: Looks): string | null {
  if (!isElement(node)) return 'list' in node ? null : looks.signs.of(JSON.stringify(node));
  const { key: _key, children, className, ...rest } = node;
  const inner = children.map((child) => signOf(child, looks));
  if (inner.includes(null)) return null;
  return looks.signs.of(
    JSON.stringify([rest, className ? looks.ofClass.get(className) : null, inner], withoutKeys),
  );
}
