import { nodesOf, partsOf, type Slot, type SyntaxNode } from './syntax_tree.ts';

/** Which nodes of two versions of a file are the same. */
export class Pairs {
  readonly #there = new Map<SyntaxNode, SyntaxNode>();
  readonly #back = new Map<SyntaxNode, SyntaxNode>();

  /** What a node of the first is in the second, and the other way round. */
  there = (node: SyntaxNode): SyntaxNode | undefined => this.#there.get(node);
  back = (node: SyntaxNode): SyntaxNode | undefined => this.#back.get(node);

  add(from: SyntaxNode, to: SyntaxNode): void {
    this.#there.set(from, to);
    this.#back.set(to, from);
  }
}

/** Which element of the design nodes of two versions were written for. */
export interface KnownElements {
  readonly first: ReadonlyMap<SyntaxNode, string>;
  readonly second: ReadonlyMap<SyntaxNode, string>;
}

/** How like two nodes must be to be taken for one; and how like, where they stand in other places. */
const LIKE = 0.45;
const LIKE_ELSEWHERE = 0.65;

/** Lists longer than this are compared part by part with their neighbours only. */
const LONGEST = 1500;

/** How deep in what was put around a part it is looked for. */
const DEEPEST = 5;

/** Kinds that may be called otherwise by now. */
const RENAMABLE = /^(Rule|ExportNamedDeclaration|FunctionDeclaration)$/;

/** Kinds that are looked for in other places; statements belong where they are. */
const MOVABLE = /^(JSXElement|Element|Rule|Atrule)$/;

/**
 * Pairs the nodes of two versions of a file from the root down: what says the same, what has the same name, what is most alike,
 * also within what was put around it or taken away around it; then what stands in another place by now. After the two phases of
 * Falleri, Morandat, Blanc, Martinez and Monperrus, "Fine-grained and accurate source code differencing" (2014), with names.
 * @param known elements of the design that nodes were written for: two of different elements are never the same
 */
export function matchTrees(first: SyntaxNode, second: SyntaxNode, known?: KnownElements): Pairs {
  return new Matching(new Pairs(), known).whole(first, second);
}

/** Pairs two nodes that are taken for the same, and what is in them. */
export function matchInside(pairs: Pairs, first: SyntaxNode, second: SyntaxNode): void {
  new Matching(pairs).pair(first, second);
}

class Matching {
  readonly #pairs: Pairs;
  readonly #known: KnownElements | undefined;
  readonly #bags = new Map<SyntaxNode, Map<string, number>>();
  /** How often each word is said in what is compared: a rare one says more. */
  #often: ReadonlyMap<string, number> = new Map();

  constructor(pairs = new Pairs(), known?: KnownElements) {
    this.#pairs = pairs;
    this.#known = known;
  }

  whole(first: SyntaxNode, second: SyntaxNode): Pairs {
    this.#count(first, second);
    this.pair(first, second);
    this.#elsewhere(first, second);
    return this.#pairs;
  }

  pair(x: SyntaxNode, y: SyntaxNode): void {
    this.#pairs.add(x, y);
    if (x.form === y.form) {
      const [xs, ys] = [partsOf(x), partsOf(y)];
      if (xs.length === ys.length && xs.every((part, i) => this.#mayPair(part, ys[i])))
        return xs.forEach((part, i) => this.pair(part, ys[i]));
    }
    for (const slot of x.slots) {
      const other = y.slots.find(({ name }) => name === slot.name);
      if (other) this.#align(slot, other);
    }
  }

  /** Whether nothing says of two nodes that they are not the same. A rule is written for many elements, of which one is known. */
  #mayPair(x: SyntaxNode, y: SyntaxNode): boolean {
    if (x.kind === 'Rule' && x.form === y.form) return true;
    const [from, to] = [this.#known?.first.get(x), this.#known?.second.get(y)];
    return from === to || from === undefined || to === undefined;
  }

  #align(slot: Slot, other: Slot): void {
    const free = (node: SyntaxNode): boolean => !this.#pairs.there(node);
    const open = (node: SyntaxNode): boolean => !this.#pairs.back(node);
    const same = (x: SyntaxNode, y: SyntaxNode): boolean => x.form === y.form && this.#mayPair(x, y);
    // A rule that says the same is the same, wherever it stands.
    const rules = new Map(other.parts.flatMap((y) => (y.kind === 'Rule' && open(y) ? [[y.form, y]] : [])));
    for (const x of slot.parts) {
      const y = x.kind === 'Rule' && free(x) ? rules.get(x.form) : undefined;
      if (y && open(y)) this.pair(x, y);
    }
    if (this.#known)
      for (const x of slot.parts) {
        const element = this.#known.first.get(x);
        const y =
          element === undefined
            ? undefined
            : other.parts.find((part) => this.#known!.second.get(part) === element);
        if (y && free(x) && open(y)) this.pair(x, y);
      }
    for (const [x, y] of commonOf(slot.parts.filter(free), other.parts.filter(open), same)) this.pair(x, y);
    const waiting = new Map<string, SyntaxNode[]>();
    for (const y of other.parts.filter(open)) {
      if (y.name !== null) push(waiting, `${y.kind} ${y.name}`, y);
      push(waiting, `=${String(y.form)}`, y);
    }
    const take = (x: SyntaxNode, key: string): void => {
      const y = waiting.get(key)?.find((other) => open(other) && this.#mayPair(x, other));
      if (y && free(x)) this.pair(x, y);
    };
    for (const x of slot.parts) if (free(x) && x.name !== null) take(x, `${x.kind} ${x.name}`);
    for (const x of slot.parts) if (free(x) && x.size > 1) take(x, `=${String(x.form)}`);
    this.#alike(slot.parts.filter(free), other.parts.filter(open), slot, other);
    this.#onlyOnes(slot.parts.filter(free), other.parts.filter(open));
  }

  /** The pairs that are most alike, also of a part with what stands within another one that was put around it. */
  #alike(xs: readonly SyntaxNode[], ys: readonly SyntaxNode[], slot: Slot, other: Slot): void {
    if (xs.length * ys.length > LONGEST * 20) return;
    const place = new Map([...slot.parts, ...other.parts].map((part, i) => [part, i % slot.parts.length]));
    const found: { readonly x: SyntaxNode; readonly y: SyntaxNode; readonly score: number }[] = [];
    /** @param outer the part of the list, where the other one stands within a part; null for two parts */
    const consider = (
      x: SyntaxNode,
      y: SyntaxNode,
      less: number,
      least: number,
      outer: SyntaxNode | null = null,
    ): void => {
      if (x.kind !== y.kind || !namesFit(x, y) || !this.#mayPair(x, y)) return;
      if (mostLike(x, y) < least) return;
      if (outer && (x.own !== y.own || hasIn(outer, outer === x ? y : x))) return;
      const { like, score } = this.#likeness(x, y);
      if (like - less >= least) found.push({ x, y, score: score - less });
    };
    for (const x of xs)
      for (const y of ys) {
        const far = Math.abs((place.get(x) ?? 0) - (place.get(y) ?? 0)) / (slot.parts.length + 1);
        consider(x, y, 0.05 * far, slot.many ? LIKE : 0);
        for (const [inner, depth] of within(y)) consider(x, inner, 0.02 * depth, LIKE_ELSEWHERE, x);
        for (const [inner, depth] of within(x)) consider(inner, y, 0.02 * depth, LIKE_ELSEWHERE, y);
      }
    found.sort((a, b) => b.score - a.score);
    for (const { x, y } of found)
      if (!this.#pairs.there(x) && !this.#pairs.back(y) && !this.#crosses(x, y)) this.pair(x, y);
  }

  /** Whether one of two nodes has something in it that is paired with what is around the other, or elsewhere. */
  #crosses(x: SyntaxNode, y: SyntaxNode): boolean {
    for (const inner of nodesOf(x)) {
      const to = this.#pairs.there(inner);
      if (to && !isIn(to, y)) return true;
    }
    for (const inner of nodesOf(y)) {
      const from = this.#pairs.back(inner);
      if (from && from !== x && isIn(x, from)) return true;
    }
    return false;
  }

  /** What is the last of its kind on both sides. */
  #onlyOnes(xs: readonly SyntaxNode[], ys: readonly SyntaxNode[]): void {
    const kinds = new Set(xs.map(({ kind }) => kind));
    for (const kind of kinds) {
      const [left, right] = [xs, ys].map((all) => all.filter((part) => part.kind === kind));
      if (left.length !== 1 || right.length !== 1) continue;
      const [x, y] = [left[0], right[0]];
      if (this.#pairs.there(x) || this.#pairs.back(y) || !namesFit(x, y) || !this.#mayPair(x, y)) continue;
      if (x.size === 1 || x.own === y.own) this.pair(x, y);
    }
  }

  #elsewhere(first: SyntaxNode, second: SyntaxNode): void {
    if (this.#known) {
      const places = new Map([...this.#known.second].map(([node, element]) => [element, node]));
      for (const [x, element] of this.#known.first) {
        const y = places.get(element);
        if (y && x.kind === y.kind && !this.#pairs.there(x) && !this.#pairs.back(y)) this.pair(x, y);
      }
    }
    const xs = [...nodesOf(first)].filter((x) => !this.#pairs.there(x) && MOVABLE.test(x.kind) && x.size > 2);
    const ys = [...nodesOf(second)].filter((y) => !this.#pairs.back(y) && MOVABLE.test(y.kind) && y.size > 2);
    if (!xs.length || !ys.length || xs.length * ys.length > 250_000) return;
    const found: { readonly x: SyntaxNode; readonly y: SyntaxNode; readonly score: number }[] = [];
    for (const x of xs)
      for (const y of ys) {
        if (x.kind !== y.kind || !namesFit(x, y) || !this.#mayPair(x, y)) continue;
        if (mostLike(x, y) < LIKE_ELSEWHERE) continue;
        const { like, score } = this.#likeness(x, y);
        if (like >= LIKE_ELSEWHERE) found.push({ x, y, score: score + Math.min(x.size, 200) / 1000 });
      }
    found.sort((a, b) => b.score - a.score);
    for (const { x, y } of found)
      if (!this.#pairs.there(x) && !this.#pairs.back(y) && !this.#crosses(x, y)) this.pair(x, y);
  }

  /** Words of two roots, to be counted before any are paired. */
  #count(...roots: readonly SyntaxNode[]): void {
    const often = new Map<string, number>();
    for (const root of roots)
      for (const [word, count] of this.#bag(root)) often.set(word, (often.get(word) ?? 0) + count);
    this.#often = often;
  }

  /** 1 for what is said once on each side, less for what all say. */
  #weight(word: string): number {
    const count = this.#often.get(word) ?? 1;
    return count <= 2 ? 1 : 1 / Math.sqrt(count / 2);
  }

  /**
   * What two nodes have in common of all that they say, 0 to 1 (Dice): whether that is enough to be taken for the same, and,
   * with what is said rarely above what all say, which of several is.
   */
  #likeness(x: SyntaxNode, y: SyntaxNode): { readonly like: number; readonly score: number } {
    if (x.form === y.form) return { like: 1, score: 1 };
    const [a, b] = [this.#bag(x), this.#bag(y)];
    let [common, all, rare, allRare] = [0, 0, 0, 0];
    for (const [word, count] of a) {
      const weight = this.#weight(word);
      const both = Math.min(count, b.get(word) ?? 0);
      common += both;
      all += count;
      rare += weight * both;
      allRare += weight * count;
    }
    for (const [word, count] of b) {
      all += count;
      allRare += this.#weight(word) * count;
    }
    const said = x.own === y.own ? 0.15 : 0;
    return {
      like: (all ? (1.7 * common) / all : 0) + said,
      score: (allRare ? (1.7 * rare) / allRare : 0) + (hasSameHead(x, y) ? said : said / 3),
    };
  }

  #bag(node: SyntaxNode): Map<string, number> {
    const known = this.#bags.get(node);
    if (known) return known;
    const bag = new Map<string, number>();
    const put = (word: string, count: number): void => void bag.set(word, (bag.get(word) ?? 0) + count);
    // Of texts each word, of all else what it is and says.
    if (!node.slots.length)
      for (const word of node.own.match(/[\p{L}\p{N}_-]+/gu) ?? [node.own]) put(word, 1);
    else put(`${node.kind} ${node.own}`, 1);
    for (const part of partsOf(node)) for (const [word, count] of this.#bag(part)) put(word, count);
    this.#bags.set(node, bag);
    return bag;
  }
}

/** Whether something in a node says just what another one says: then that is the one, and not what is around it. */
function hasIn(node: SyntaxNode, other: SyntaxNode): boolean {
  if (other.size >= node.size) return false;
  for (const [inner] of within(node)) if (inner.form === other.form) return true;
  return false;
}

const isIn = (inner: SyntaxNode, outer: SyntaxNode): boolean =>
  inner.start >= outer.start && inner.end <= outer.end;

/** Whether two nodes have the same attributes, of those that have any. */
const hasSameHead = (x: SyntaxNode, y: SyntaxNode): boolean => {
  const [a, b] = [x, y].map(({ slots }) => slots.find(({ name }) => name === 'attributes')?.parts);
  if (!a || !b) return true;
  return a.length === b.length && a.every(({ form }) => b.some((other) => other.form === form));
};

/** How like two nodes can be at most, by their sizes alone. */
const mostLike = (x: SyntaxNode, y: SyntaxNode): number =>
  0.15 + (0.85 * 2 * Math.min(x.size, y.size)) / (x.size + y.size) + 0.2;

/** Whether two nodes can be the same by what they are called. */
const namesFit = (x: SyntaxNode, y: SyntaxNode): boolean =>
  x.name === y.name || (x.kind === y.kind && RENAMABLE.test(x.kind));

/** What stands in a node, not itself, and how deep. */
function* within(node: SyntaxNode, depth = 1): Generator<[SyntaxNode, number]> {
  if (depth > DEEPEST) return;
  for (const part of partsOf(node)) {
    yield [part, depth];
    yield* within(part, depth + 1);
  }
}

const push = (map: Map<string, SyntaxNode[]>, key: string, node: SyntaxNode): void => {
  const known = map.get(key);
  if (known) known.push(node);
  else map.set(key, [node]);
};

/** The longest common subsequence of parts that say the same. */
function commonOf(
  xs: readonly SyntaxNode[],
  ys: readonly SyntaxNode[],
  same: (x: SyntaxNode, y: SyntaxNode) => boolean,
): [SyntaxNode, SyntaxNode][] {
  const pairs: [SyntaxNode, SyntaxNode][] = [];
  let [head, tail] = [0, 0];
  while (head < xs.length && head < ys.length && same(xs[head], ys[head])) {
    pairs.push([xs[head], ys[head]]);
    head++;
  }
  const fits = (i: number): boolean => same(xs[xs.length - 1 - i], ys[ys.length - 1 - i]);
  while (tail < Math.min(xs.length, ys.length) - head && fits(tail)) {
    pairs.push([xs[xs.length - 1 - tail], ys[ys.length - 1 - tail]]);
    tail++;
  }
  const [left, right] = [xs.slice(head, xs.length - tail), ys.slice(head, ys.length - tail)];
  if (!left.length || !right.length || left.length * right.length > LONGEST * LONGEST) return pairs;
  const width = right.length + 1;
  const longest = new Uint32Array((left.length + 1) * width);
  for (let i = left.length - 1; i >= 0; i--)
    for (let j = right.length - 1; j >= 0; j--)
      longest[i * width + j] = same(left[i], right[j])
        ? longest[(i + 1) * width + j + 1] + 1
        : Math.max(longest[(i + 1) * width + j], longest[i * width + j + 1]);
  for (let i = 0, j = 0; i < left.length && j < right.length;) {
    if (same(left[i], right[j])) pairs.push([left[i++], right[j++]]);
    else if (longest[(i + 1) * width + j] >= longest[i * width + j + 1]) i++;
    else j++;
  }
  return pairs;
}
