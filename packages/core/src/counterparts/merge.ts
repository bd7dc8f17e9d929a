import { reset } from '../vocabulary/reset.ts';
import type { App } from '../model/app.ts';
import type { Declarations, Element, ElementStyle, Screen } from '../model/design.ts';
import { orderedScreens } from '../model/project.ts';
import { type ElementPairs, matchElements } from './match.ts';

/** A drawing of a screen at another width, and the window width in px at which it takes over. */
export interface Counterpart {
  readonly screen: Screen;
  readonly turn: number;
}

/** The counterparts of each screen that has some, by the screen's key, those nearest to its own width first. */
export function counterpartsOf(
  app: Pick<App, 'screens'>,
  screens: ReadonlyMap<string, Screen>,
): Map<string, Counterpart[]> {
  const found = new Map<string, Counterpart[]>();
  for (const key of orderedScreens(app as App)) {
    const { use, of, turn } = app.screens[key];
    const [screen, main] = [screens.get(key), of ? screens.get(of) : undefined];
    if (use !== 'counterpart' || !of || !screen || !main || app.screens[of]?.use !== 'screen') continue;
    const list = found.get(of) ?? [];
    list.push({ screen, turn: turn ?? defaultTurn(main.width, screen.width) });
    found.set(of, list);
  }
  for (const [of, list] of found) {
    const { width } = screens.get(of)!;
    list.sort((a, b) => Math.abs(a.screen.width - width) - Math.abs(b.screen.width - width));
  }
  return found;
}

/** Where two layouts meet when nobody says so: the geometric mean of their widths, in whole steps of 8 px. */
export const defaultTurn = (a: number, b: number): number => Math.round(Math.sqrt(a * b) / 8) * 8;

/**
 * One screen of several drawings. What is in all is there once, with rules for the widths at which it differs; what is
 * in one alone shows only there. The keys of the main drawing stay; `aliases` says of the others which they are.
 */
export function mergeCounterparts(main: Screen, counterparts: readonly Counterpart[]): Screen {
  let root = main.root;
  const aliases: Record<string, string> = {};
  for (const { screen, turn } of counterparts) {
    if (Math.abs(screen.width - main.width) < 1) continue;
    const pairs = new Map(matchElements(root, screen.root));
    const wrapped = withWrappers(root, screen.root, pairs);
    const merger = new Merger(pairs, screen.width < main.width ? 'upTo' : 'from', turn);
    root = merger.merge(wrapped, screen.root);
    Object.assign(aliases, merger.aliases);
  }
  return { ...main, root, ...(Object.keys(aliases).length ? { aliases } : {}) };
}

interface Placed {
  /** Of the element in the other drawing. */
  readonly key: string;
  /** Of the element that it is in this one. */
  readonly element: string;
}

const holds = (element: Element, key: string): boolean =>
  element.key === key || element.children.some((child) => holds(child, key));
const holdsAny = (element: Element, keys: ReadonlyMap<string, Element>): boolean =>
  keys.has(element.key) || element.children.some((child) => holdsAny(child, keys));

/** Whether an element only holds others and shows nothing itself. */
function isPlain({ kind, style: { base, before, after } }: Element): boolean {
  return (
    kind === 'box' &&
    !before &&
    !after &&
    !Object.keys(base).some((name) =>
      /^(background|border-\w+-(width|style)|box-shadow|opacity|filter|clip-path|overflow)/.test(name),
    )
  );
}

/**
 * The main drawing with the containers that only the other one has, as far as what they hold stands side by side in the
 * main one. There they are no boxes (`display: contents`). The new pairs are added.
 */
function withWrappers(root: Element, other: Element, pairs: Map<string, string>): Element {
  let made = root;
  const visit = (b: Element): void => {
    b.children.forEach(visit);
    if (pairs.has(b.key) || !isPlain(b) || !b.children.length || b.hidden || b.tag === undefined) return;
    // What only the other drawing has is put into the container when the two are merged.
    const keys = b.children.map((child) => pairs.get(child.key)).filter((key) => key !== undefined);
    const wrapped = keys.length ? wrap(made, new Set(keys), b) : null;
    if (!wrapped) return;
    made = wrapped;
    pairs.set(b.key, b.key);
  };
  visit(other);
  return made;
}

/** Puts children that stand side by side, in whatever order, into a container; null where they do not. */
function wrap(element: Element, keys: ReadonlySet<string>, b: Element): Element | null {
  const first = element.children.findIndex((child) => keys.has(child.key));
  if (first >= 0) {
    const inside = element.children.slice(first, first + keys.size);
    if (inside.length < keys.size || !inside.every((child) => keys.has(child.key))) return null;
    // All there is in a container needs no container of its own.
    if (inside.length === element.children.length) return null;
    const wrapper: Element = {
      ...b,
      box: element.box,
      style: { base: { display: 'contents' } },
      children: inside,
    };
    return { ...element, children: element.children.toSpliced(first, keys.size, wrapper) };
  }
  for (const [i, child] of element.children.entries()) {
    const made = wrap(child, keys, b);
    if (made) return { ...element, children: element.children.with(i, made) };
  }
  return null;
}

type Direction = 'upTo' | 'from';

class Merger {
  readonly aliases: Record<string, string> = {};
  readonly #pairs: ElementPairs;
  readonly #direction: Direction;
  /** Up to one width less than where the wider layout begins, so that never both hold. */
  readonly #width: number;

  readonly #matched: ReadonlySet<string>;

  constructor(pairs: ElementPairs, direction: Direction, turn: number) {
    this.#pairs = pairs;
    this.#matched = new Set(pairs.values());
    this.#direction = direction;
    this.#width = direction === 'upTo' ? turn - 1 : turn;
  }

  merge(a: Element, b: Element): Element {
    const wanted = new Map(b.children.map((child, i) => [child.key, i]));
    const partners = new Map<string, Element>();
    for (const child of b.children) {
      const same = this.#pairs.get(child.key);
      if (same !== undefined) partners.set(same, child);
    }
    const placed: Placed[] = [];
    const children = this.#level(a.children, partners, placed);
    const taken = new Set(placed.map(({ key }) => key));
    // What only the other drawing has goes behind what it follows there.
    let after = -1;
    for (const child of b.children) {
      if (taken.has(child.key)) {
        const at = children.findIndex((element) => holds(element, this.#pairs.get(child.key)!));
        if (at >= 0) after = at;
      } else if (child.tag !== undefined && !child.hidden) {
        const only = this.#only(child);
        placed.push({ key: child.key, element: only.key });
        children.splice(++after, 0, only);
      }
    }
    const order = this.#orderOf(children, placed, wanted);
    const ordered = order ? children.map((child) => this.#ordered(child, order)) : children;
    return { ...a, style: this.#styleOf(a, b), children: ordered };
  }

  /**
   * The children of an element as they are with the other drawing. A container that only the one drawing has, and that
   * shows nothing itself, is no box in the other (`display: contents`): what it holds stands in the level above.
   */
  #level(list: readonly Element[], partners: ReadonlyMap<string, Element>, placed: Placed[]): Element[] {
    return list.map((child) => {
      if (child.tag === undefined) return child;
      const other = partners.get(child.key);
      if (other && canBeOne(child, other)) {
        placed.push({ key: other.key, element: child.key });
        return this.merge(child, other);
      }
      const isWrapper = !this.#matched.has(child.key) && isPlain(child) && holdsAny(child, partners);
      if (!isWrapper) return this.#without(child);
      return {
        ...child,
        style: this.#put(child.style, { display: 'contents' }),
        children: this.#level(child.children, partners, placed),
      };
    });
  }

  /** Where the other drawing has another order, the place of each in it. */
  #orderOf(
    children: readonly Element[],
    placed: readonly Placed[],
    wanted: ReadonlyMap<string, number>,
  ): ReadonlyMap<string, number> | null {
    const placeOf = new Map(placed.map(({ key, element }) => [element, wanted.get(key)!]));
    const sequence: number[] = [];
    const visit = (element: Element): void => {
      const at = placeOf.get(element.key);
      if (at !== undefined) sequence.push(at);
      else element.children.forEach(visit);
    };
    children.forEach(visit);
    return sequence.every((at, i) => i === 0 || at > sequence[i - 1]) ? null : placeOf;
  }

  #ordered(element: Element, order: ReadonlyMap<string, number>): Element {
    const at = order.get(element.key);
    if (at !== undefined) return { ...element, style: this.#put(element.style, { order: String(at) }) };
    const children = element.children.map((child) => this.#ordered(child, order));
    return children.every((child, i) => child === element.children[i]) ? element : { ...element, children };
  }

  #put(style: ElementStyle, css: Declarations): ElementStyle {
    if (!Object.keys(css).length) return style;
    const table = this.#direction === 'upTo' ? 'at' : 'from';
    return {
      ...style,
      [table]: { ...style[table], [this.#width]: { ...style[table]?.[this.#width], ...css } },
    };
  }

  /** What holds of an element on the far side of the turn so far. */
  #effective({ base, at = {}, from = {} }: ElementStyle): Declarations {
    const entries = Object.entries(this.#direction === 'upTo' ? at : from)
      .map(([width, css]) => [Number(width), css] as const)
      .filter(([width]) => (this.#direction === 'upTo' ? width >= this.#width : width <= this.#width))
      .sort(([x], [y]) => (this.#direction === 'upTo' ? y - x : x - y));
    return Object.assign({}, base, ...entries.map(([, css]) => css));
  }

  #styleOf(a: Element, b: Element): ElementStyle {
    const now = this.#effective(a.style);
    const css: Record<string, string> = {};
    for (const [name, value] of Object.entries(b.style.base)) if (now[name] !== value) css[name] = value;
    for (const name of Object.keys(now))
      if (b.style.base[name] === undefined) css[name] = reset[a.tag ?? '']?.[name] ?? 'revert';
    const narrower = this.#direction === 'upTo';
    // Rules that the main drawing had for the far side no longer hold there; those of the other one do.
    const kept = Object.fromEntries(
      Object.entries(a.style.at ?? {}).filter(([width]) => !narrower || Number(width) >= this.#width),
    );
    const theirs = Object.fromEntries(
      Object.entries(b.style.at ?? {}).filter(([width]) => narrower && Number(width) < this.#width),
    );
    const at = { ...kept, ...theirs };
    const { at: _at, ...rest } = a.style;
    return this.#put({ ...rest, ...(Object.keys(at).length ? { at } : {}) }, css);
  }

  #without(element: Element): Element {
    return { ...element, style: this.#put(element.style, { display: 'none' }) };
  }

  /** Shown only where the other drawing holds. */
  #only(element: Element): Element {
    this.#alias(element);
    const { display = DISPLAYS[element.tag ?? ''] ?? 'block', ...base } = element.style.base;
    return {
      ...element,
      style: this.#put({ ...element.style, base: { ...base, display: 'none' } }, { display }),
    };
  }

  #alias(element: Element): void {
    const same = this.#pairs.get(element.key);
    if (same) this.aliases[element.key] = same;
    element.children.forEach((child) => this.#alias(child));
  }
}

/** How elements are laid out that are no blocks by themselves. */
const DISPLAYS: Readonly<Record<string, string>> = {
  span: 'inline',
  a: 'inline',
  img: 'inline',
  svg: 'inline',
  button: 'inline-block',
  input: 'inline-block',
  select: 'inline-block',
  textarea: 'inline-block',
  li: 'list-item',
  tr: 'table-row',
  td: 'table-cell',
  th: 'table-cell',
  table: 'table',
};

/** Whether two elements can be one: of one kind, one tag and, for what is no container, one content. */
function canBeOne(a: Element, b: Element): boolean {
  if (a.kind !== b.kind || a.tag !== b.tag || a.asset !== b.asset) return false;
  if ((a.text ?? '').trim() !== (b.text ?? '').trim()) return false;
  if (a.vector || b.vector) return JSON.stringify(a.vector) === JSON.stringify(b.vector);
  const inline = (element: Element): string =>
    element.children
      .filter((c) => c.tag === undefined)
      .map((c) => c.text)
      .join();
  return inline(a) === inline(b);
}
