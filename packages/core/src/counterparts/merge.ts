import { reset } from '../emit/reset.ts';
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
    const merger = new Merger(
      matchElements(root, screen.root),
      screen.width < main.width ? 'upTo' : 'from',
      turn,
    );
    root = merger.merge(root, screen.root);
    Object.assign(aliases, merger.aliases);
  }
  return { ...main, root, ...(Object.keys(aliases).length ? { aliases } : {}) };
}

type Direction = 'upTo' | 'from';

class Merger {
  readonly aliases: Record<string, string> = {};
  readonly #pairs: ElementPairs;
  readonly #direction: Direction;
  /** Up to one width less than where the wider layout begins, so that never both hold. */
  readonly #width: number;

  constructor(pairs: ElementPairs, direction: Direction, turn: number) {
    this.#pairs = pairs;
    this.#direction = direction;
    this.#width = direction === 'upTo' ? turn - 1 : turn;
  }

  merge(a: Element, b: Element): Element {
    const own = new Map(a.children.map((child) => [child.key, child]));
    const inB = new Map<string, Element>();
    for (const child of b.children) {
      const same = this.#pairs.get(child.key);
      const partner = same === undefined ? undefined : own.get(same);
      if (partner && canBeOne(partner, child)) inB.set(partner.key, child);
    }
    const children: Element[] = [];
    const place = new Map<string, number>();
    b.children.forEach((child, i) => place.set(child.key, i));
    const merged = new Map<string, Element>();
    for (const child of a.children) {
      if (child.tag === undefined) {
        children.push(child);
        continue;
      }
      const other = inB.get(child.key);
      const made = other ? this.merge(child, other) : this.#without(child);
      if (other) merged.set(other.key, made);
      children.push(made);
    }
    // What only the other drawing has goes behind what it follows there.
    let after = -1;
    for (const child of b.children) {
      const there = merged.get(child.key);
      if (there) after = children.indexOf(there);
      else if (child.tag !== undefined && !child.hidden) children.splice(++after, 0, this.#only(child));
    }
    const ordered = this.#inOrder(children, merged, place);
    return { ...a, style: this.#styleOf(a, b), children: ordered };
  }

  /** Where the other drawing has another order, a rule says so. */
  #inOrder(
    children: Element[],
    merged: ReadonlyMap<string, Element>,
    place: ReadonlyMap<string, number>,
  ): Element[] {
    const placeOf = new Map<Element, number>();
    for (const [key, element] of merged) placeOf.set(element, place.get(key)!);
    for (const child of children) if (place.has(child.key)) placeOf.set(child, place.get(child.key)!);
    const known = children.filter((child) => placeOf.has(child));
    const isSame = known.every((child, i) => i === 0 || placeOf.get(child)! > placeOf.get(known[i - 1])!);
    if (isSame) return children;
    return children.map((child) =>
      placeOf.has(child)
        ? { ...child, style: this.#put(child.style, { order: String(placeOf.get(child)) }) }
        : child,
    );
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
