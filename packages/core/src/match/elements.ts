import type { Element } from '../model/design.ts';
import { bestAssignment } from './assign.ts';
import { certainty, contextEvidence, likeness, makingOf, type Pairs } from './likeness.ts';
import { commonRun } from './sequence.ts';
import { type Traits, traitsOf } from './traits.ts';
import type { Making } from './weights.ts';

/** Two elements that are one and the same before and after. */
export interface ElementPair {
  readonly old: Element;
  readonly now: Element;
  /** How sure that is, 0 to 1; calibrated: of those at 0.9 nine in ten are right. */
  readonly score: number;
}

/** Least log odds for children of matched containers, and least likeness for elements that went elsewhere. */
const LEAST_HERE = -2.1;
const LEAST_AWAY = 0.22;
/** Least likeness for the only ones of their kind that are left at a place. */
const LEAST_ALONE = 0.003;
/** Least likeness for two subtrees of the same content to be one without a look at what stands around them. */
const SAME_CONTENT = 0.8;
/** Containers with more children than this that have to be told apart are matched by the best pair first. */
const MOST_ASSIGNED = 80;
/** What stands in a new container, or in one that is gone, is looked at where that holds no more than this. */
const MOST_WRAPPED = 24;
/** Candidates that are looked at for one element, of those that share something with it. */
const MOST_CANDIDATES = 24;

/**
 * Finds which elements of a screen are which in its next version. Whole subtrees that are the same and there once are
 * paired first; then, from the root down, the children of paired containers: what is identical in its order, the rest by
 * the best assignment; then, upwards, containers whose content is paired; then what went to another container, among
 * those that share a rare property. After the top-down and bottom-up phases of GumTree (Falleri and others, 2014), with
 * moves as in Chawathe and others (1996); likeness by learned weights instead of thresholds.
 */
export function matchElements(old: Element, now: Element): ElementPair[] {
  const matcher = new Matcher(traitsOf(old), traitsOf(now));
  return matcher.run();
}

/** Log odds by which a pair has to be better than another one to take its place. */
const CLEARLY = 0.6;

/** Log odds of a likelihood, bounded. */
const odds = (like: number): number => Math.min(7, Math.max(-7, Math.log(like / (1 - like))));
/** What it adds to the odds to stand in the same container, to stand in order there, and costs to stand a step deeper. */
const HERE = 1.4;
const ORDER = 3.1;
const DEEP = 0.5;
/** What size, doubled, and a container near by add to the odds of what went elsewhere. */
const SIZE = 0.3;
const NEAR = 1;

/** Groups of siblings that say the same, are built the same and have the same classes. */
function twinsAmong(children: readonly Traits[]): Traits[][] {
  const groups = new Map<string, Traits[]>();
  for (const child of children) {
    const key = `${child.content} ${child.build} ${[...child.classes].join(' ')}`;
    const group = groups.get(key);
    if (group) group.push(child);
    else groups.set(key, [child]);
  }
  return [...groups.values()].filter(
    (group) => group.length > 1 && group.every((one) => one.size === group[0].size),
  );
}

/** Pairs of children that are all looked at; of more, those that stand near each other or share something rare. */
const FEW_PAIRS = 200;
const WINDOW = 5;
/** Children of a container that are all looked at again. */
const MOST_AROUND = 16;
const RARE_AMONG = 3;

/** Says which of many children could be which at all; null where there are so few that all could. */
function likelyPairs(
  olds: readonly Traits[],
  nows: readonly Traits[],
): ((i: number, j: number) => boolean) | null {
  if (olds.length * nows.length <= FEW_PAIRS) return null;
  const byHash = new Map<number, number[]>();
  olds.forEach((one, i) => {
    for (const hash of one.says.least) {
      const list = byHash.get(hash);
      if (list) list.push(i);
      else byHash.set(hash, [i]);
    }
  });
  const shared = nows.map((one) => {
    const found = new Set<number>();
    for (const hash of one.says.least) {
      const list = byHash.get(hash);
      if (list && list.length <= RARE_AMONG) for (const i of list) found.add(i);
    }
    return found;
  });
  return (i, j) =>
    Math.abs(i - (j * olds.length) / nows.length) <= WINDOW || Math.abs(i - j) <= WINDOW || shared[j].has(i);
}

const subtreeOf = (one: Traits): Traits[] => [one, ...one.children.flatMap(subtreeOf)];

export class Matcher implements Pairs {
  readonly #old: readonly Traits[];
  readonly #now: readonly Traits[];
  readonly newOf = new Map<Traits, Traits>();
  readonly oldOf = new Map<Traits, Traits>();
  readonly #likeness = new Map<number, number>();
  readonly making: Making;
  readonly #isWhole: boolean;
  readonly #width: number;
  readonly #taken: ReadonlySet<Element> | undefined;

  /** @param taken elements that have their partners elsewhere; with them, the roots are not taken to be one */
  constructor(old: readonly Traits[], now: readonly Traits[], taken?: ReadonlySet<Element>) {
    this.#isWhole = !taken;
    this.#old = taken ? old.filter((one) => !taken.has(one.element)) : old;
    this.#now = taken ? now.filter((one) => !taken.has(one.element)) : now;
    this.#width = now.length;
    this.making = makingOf(old[0], now[0]);
    this.#taken = taken;
  }

  run(): ElementPair[] {
    if (this.#isWhole) this.#pair(this.#old[0], this.#now[0]);
    this.#anchor();
    if (this.#isWhole) this.#down(this.#old[0], this.#now[0]);
    for (let round = 0; round < 3; round++) {
      const before = this.newOf.size;
      this.#up();
      this.#away();
      if (this.newOf.size === before) break;
    }
    for (let round = 0; round < 2 && this.#improve(); round++) {
      this.#up();
      this.#away();
    }
    this.#gaps();
    this.#untwist();
    return this.#scored();
  }

  /** Siblings that nothing tells apart, before or after, keep their order: which of them is which is theirs alone. */
  #untwist(): void {
    for (const b of this.#now) {
      const a = this.oldOf.get(b);
      if (!a || a.children.length < 2 || b.children.length < 2) continue;
      for (const twins of twinsAmong(a.children)) {
        const here = twins.filter((one) => this.newOf.get(one)?.parent === b);
        this.#inOrder(here, this.newOf, (one, other) => this.#pair(one, other));
      }
      for (const twins of twinsAmong(b.children)) {
        const here = twins.filter((one) => this.oldOf.get(one)?.parent === a);
        this.#inOrder(here, this.oldOf, (one, other) => this.#pair(other, one));
      }
    }
  }

  /** Gives the partners of twins, and of all that stands in them, out in their order. */
  #inOrder(
    twins: readonly Traits[],
    partners: ReadonlyMap<Traits, Traits>,
    pair: (one: Traits, other: Traits) => void,
  ): void {
    const held = twins.map((one) => subtreeOf(one).map((inner) => partners.get(inner)));
    const order = held.map((_, i) => i).sort((i, j) => held[i][0]!.index - held[j][0]!.index);
    if (order.every((i, at) => i === at)) return;
    for (const one of twins)
      for (const inner of subtreeOf(one)) {
        const other = partners.get(inner);
        if (other) this.#part(partners === this.newOf ? inner : other);
      }
    order.forEach((from, to) =>
      subtreeOf(twins[to]).forEach((inner, i) => {
        const other = held[from][i];
        if (other) pair(inner, other);
      }),
    );
  }

  /** Pairs the one element of a kind that is left between two paired siblings with the one that is left there now. */
  #gaps(): void {
    for (const b of this.#now) {
      const a = this.oldOf.get(b);
      if (!a?.children.length || !b.children.length) continue;
      const left = new Map<string, { readonly olds: Traits[]; readonly nows: Traits[] }>();
      const note = (side: 'olds' | 'nows', one: Traits, after: Traits | null): void => {
        const key = `${after?.order ?? ''} ${one.tag}`;
        let gap = left.get(key);
        if (!gap) left.set(key, (gap = { olds: [], nows: [] }));
        gap[side].push(one);
      };
      let after: Traits | null = null;
      for (const one of a.children) {
        const to = this.newOf.get(one);
        if (this.#isFree(one, this.newOf)) note('olds', one, after);
        else if (to?.parent === b) after = to;
      }
      after = null;
      for (const one of b.children) {
        const from = this.oldOf.get(one);
        if (this.#isFree(one, this.oldOf)) note('nows', one, after);
        else if (from?.parent === a) after = one;
      }
      for (const { olds, nows } of left.values())
        if (olds.length === 1 && nows.length === 1 && this.#like(olds[0], nows[0]) > LEAST_ALONE) {
          this.#pair(olds[0], nows[0]);
          this.#down(olds[0], nows[0]);
        }
    }
  }

  #isFree(one: Traits, paired: ReadonlyMap<Traits, Traits>): boolean {
    return !paired.has(one) && !this.#taken?.has(one.element);
  }

  #part(a: Traits): void {
    const b = this.newOf.get(a);
    if (b) this.oldOf.delete(b);
    this.newOf.delete(a);
  }

  /** The odds that two are one, with where they stand now. */
  #worth(a: Traits, b: Traits): number {
    const like = this.#like(a, b);
    const stands = !a.parent || !b.parent || this.newOf.get(a.parent) === b.parent ? 1 : 0;
    return odds(like) + stands;
  }

  /**
   * Looks again at what stands in the container that an element's own container became, and a step around it: where that
   * is clearly more like it than its partner, and than that one's own partner, the two are paired instead.
   */
  #improve(): boolean {
    let changed = false;
    for (const a of this.#old) {
      if (!a.parent) continue;
      const cur = this.newOf.get(a);
      const around = new Set<Traits>();
      const holder = this.newOf.get(a.parent) ?? (a.parent.parent && this.newOf.get(a.parent.parent));
      for (const one of cur?.children.slice(0, MOST_WRAPPED) ?? []) {
        around.add(one);
        one.children.slice(0, MOST_WRAPPED).forEach((inner) => around.add(inner));
      }
      if (cur?.parent) around.add(cur.parent);
      if (holder && holder.children.length <= MOST_ASSIGNED)
        for (const one of holder.children) {
          // In a long row, what stands far off has had its chance.
          if (holder.children.length > MOST_AROUND && Math.abs(one.index - a.index) > WINDOW) continue;
          around.add(one);
          if (!this.oldOf.has(one) && one.children.length <= MOST_WRAPPED)
            one.children.forEach((inner) => around.add(inner));
        }
      let best = cur ? this.#worth(a, cur) + CLEARLY : 0;
      let to: Traits | null = null;
      for (const b of around) {
        if (b === cur || !b.parent || this.#taken?.has(b.element)) continue;
        const worth = this.#worth(a, b);
        const rival = this.oldOf.get(b);
        if (worth <= best || (rival && (!rival.parent || this.#worth(rival, b) + CLEARLY >= worth))) continue;
        best = worth;
        to = b;
      }
      if (!to) continue;
      const rival = this.oldOf.get(to);
      if (rival) this.#part(rival);
      this.#part(a);
      this.#pair(a, to);
      this.#down(a, to);
      changed = true;
    }
    return changed;
  }

  #pair(a: Traits, b: Traits): void {
    this.newOf.set(a, b);
    this.oldOf.set(b, a);
  }

  #like(a: Traits, b: Traits): number {
    const key = a.order * this.#width + b.order;
    let value = this.#likeness.get(key);
    if (value === undefined) this.#likeness.set(key, (value = likeness(a, b, this.making)));
    return value;
  }

  /** Pairs whole subtrees that are the same and have content, where each side has them once; the largest first. */
  #anchor(): void {
    for (const hashOf of [(t: Traits) => t.exact, (t: Traits) => t.content]) {
      const once = (
        all: readonly Traits[],
        taken: ReadonlyMap<Traits, Traits>,
      ): Map<number, Traits | null> => {
        const at = new Map<number, Traits | null>();
        for (const one of all)
          if (one.hasContent && this.#isFree(one, taken))
            at.set(hashOf(one), at.has(hashOf(one)) ? null : one);
        return at;
      };
      const olds = once(this.#old, this.newOf);
      const nows = once(this.#now, this.oldOf);
      for (const now of this.#now) {
        const old = olds.get(hashOf(now));
        if (!old || nows.get(hashOf(now)) !== now || this.newOf.has(old) || this.oldOf.has(now)) continue;
        // What has the same content need not look the same: a container around it has it, too.
        if (old.size === now.size && (old.exact === now.exact || this.#like(old, now) >= SAME_CONTENT))
          this.#pairWhole(old, now);
      }
    }
  }

  /** Pairs two subtrees that are built alike, element by element. */
  #pairWhole(a: Traits, b: Traits): void {
    if (!this.#isFree(a, this.newOf) || !this.#isFree(b, this.oldOf)) return;
    this.#pair(a, b);
    if (a.children.length === b.children.length)
      a.children.forEach((child, i) => this.#pairWhole(child, b.children[i]));
  }

  /** Pairs what stands in two containers that are one. */
  #down(a: Traits, b: Traits): void {
    this.#pairChildren(a, b);
    for (const child of b.children) {
      const old = this.oldOf.get(child);
      if (old) this.#down(old, child);
      else
        for (const inner of child.children) {
          const from = this.oldOf.get(inner);
          if (from?.parent === a) this.#down(from, inner);
        }
    }
    // What was taken out of a container that is gone.
    for (const child of a.children)
      if (!this.newOf.has(child))
        for (const inner of child.children) {
          const to = this.newOf.get(inner);
          if (to?.parent === b) this.#down(inner, to);
        }
  }

  #pairChildren(a: Traits, b: Traits): void {
    const free = (all: readonly Traits[], taken: ReadonlyMap<Traits, Traits>): Traits[] =>
      all.filter((one) => this.#isFree(one, taken));
    for (const hashOf of [(t: Traits) => t.exact, (t: Traits) => t.content]) {
      const olds = free(a.children, this.newOf);
      const nows = free(b.children, this.oldOf);
      if (!olds.length || !nows.length) return;
      for (const [i, j] of commonRun(olds.map(hashOf), nows.map(hashOf)))
        if (olds[i].size === nows[j].size && (olds[i].hasContent || olds[i].size > 1))
          this.#pairWhole(olds[i], nows[j]);
    }
    const olds = free(a.children, this.newOf);
    const nows = free(b.children, this.oldOf);
    if (!olds.length || !nows.length) return;
    // What was put into a new container, or taken out of one that is gone, stands a step further down.
    const inner = (all: readonly Traits[], taken: ReadonlyMap<Traits, Traits>): Traits[] =>
      free(all, taken).flatMap((one) =>
        one.children.length <= MOST_WRAPPED ? free(one.children, taken) : [],
      );
    this.#assign([...olds, ...inner(olds, this.newOf)], [...nows, ...inner(nows, this.oldOf)], a, b);
  }

  /** How well two siblings stand in line with those around them that are paired, from 0 to 1. */
  #orderly(a: Traits, b: Traits): number {
    let [good, all] = [0, 0];
    for (const step of [-1, 1]) {
      for (let i = a.index + step; i >= 0 && i < a.parent!.children.length; i += step) {
        const to = this.newOf.get(a.parent!.children[i]);
        if (!to || to.parent !== b.parent) continue;
        all++;
        if (Math.sign(b.index - to.index) === -step) good++;
        break;
      }
    }
    const near = 1 / (1 + Math.abs(a.index - b.index));
    return all ? (good / all + near * 0.2) / 1.2 : 0.5 + near * 0.5;
  }

  /** Pairs the children of two containers that are one, and what stands one step further down on one side. */
  #assign(olds: readonly Traits[], nows: readonly Traits[], a: Traits, b: Traits): void {
    const worthOf = (x: Traits, y: Traits): number => {
      const [deepX, deepY] = [x.parent !== a, y.parent !== b];
      if (deepX && deepY) return 0;
      const like = this.#like(x, y);
      if (deepX || deepY) {
        // Only where it is clearly more like what went down or up than what stands around it there.
        const around = deepY ? this.#like(x, y.parent!) : this.#like(x.parent!, y);
        if (like < 0.5 || like <= around) return 0;
      }
      const orderly = this.#orderly(deepX ? x.parent! : x, deepY ? y.parent! : y);
      return Math.max(
        0,
        odds(like) + HERE + ORDER * (orderly - 0.5) - LEAST_HERE - (deepX || deepY ? DEEP : 0),
      );
    };
    const isNear = likelyPairs(olds, nows);
    if (Math.max(olds.length, nows.length) <= MOST_ASSIGNED) {
      const worth = olds.map((x, i) =>
        Float64Array.from(nows, (y, j) => (isNear && !isNear(i, j) ? 0 : worthOf(x, y))),
      );
      bestAssignment(worth, nows.length).forEach((j, i) => {
        if (j >= 0) this.#pair(olds[i], nows[j]);
      });
      return;
    }
    // Too many for the best assignment: the best pair first, among those that stand near each other.
    const pairs: { a: Traits; b: Traits; worth: number }[] = [];
    olds.forEach((x, i) => {
      const middle = Math.round((i * nows.length) / olds.length);
      for (let j = Math.max(0, middle - 40); j < Math.min(nows.length, middle + 40); j++) {
        const worth = isNear && !isNear(i, j) ? 0 : worthOf(x, nows[j]);
        if (worth > 0) pairs.push({ a: x, b: nows[j], worth });
      }
    });
    this.#takeBest(pairs);
  }

  #takeBest(pairs: { readonly a: Traits; readonly b: Traits; readonly worth: number }[]): Traits[] {
    const made: Traits[] = [];
    pairs.sort((x, y) => y.worth - x.worth || x.a.order - y.a.order || x.b.order - y.b.order);
    for (const { a, b } of pairs) {
      if (this.newOf.has(a) || this.oldOf.has(b)) continue;
      this.#pair(a, b);
      made.push(b);
    }
    return made;
  }

  /** Pairs containers most of whose content is paired with each other's, the innermost first. */
  #up(): void {
    for (let i = this.#now.length - 1; i >= (this.#isWhole ? 1 : 0); i--) {
      const b = this.#now[i];
      if (this.oldOf.has(b) || !b.children.length) continue;
      const votes = new Map<Traits, number>();
      for (const child of b.children) {
        const old = this.oldOf.get(child);
        for (let up = old?.parent, far = 0; up && far < 3; up = up.parent, far++)
          if (this.#isFree(up, this.newOf)) votes.set(up, (votes.get(up) ?? 0) + child.size / (1 + far));
      }
      let best: Traits | null = null;
      let most = 0;
      for (const [a, vote] of votes) {
        const worth = (vote / Math.max(a.size, b.size)) * (0.3 + this.#like(a, b));
        if (worth > most) [best, most] = [a, worth];
      }
      if (!best || most < 0.23) continue;
      this.#pair(best, b);
      this.#down(best, b);
    }
  }

  /** Pairs what went to another container, or whose container is not paired. */
  #away(): void {
    const keysOf = (t: Traits): string[] => {
      const keys: string[] = [];
      if (t.id) keys.push(`i${t.id}`);
      if (t.text) keys.push(`t${t.text}`);
      if (t.label) keys.push(`l${t.label}`);
      if (t.name) keys.push(`n${t.name}`);
      if (t.picture) keys.push(`p${t.picture}`);
      if (t.size > 1) keys.push(`c${t.content}`, `b${t.build}`);
      for (const word of t.words.slice(0, 8)) keys.push(`w${word}`);
      // What a container says most rarely leads to it as well.
      for (const hash of t.children.length ? t.says.least.slice(0, 4) : []) keys.push(`s${hash}`);
      return keys;
    };
    const index = new Map<string, Traits[]>();
    for (const a of this.#old)
      if (!this.newOf.has(a))
        for (const key of keysOf(a)) {
          const list = index.get(key);
          if (list) list.push(a);
          else index.set(key, [a]);
        }
    const pairs: { a: Traits; b: Traits; worth: number }[] = [];
    for (const b of this.#now) {
      if (this.oldOf.has(b)) continue;
      const candidates = new Set<Traits>();
      const lists = keysOf(b)
        .flatMap((key) => (index.has(key) ? [index.get(key)!] : []))
        .sort((x, y) => x.length - y.length);
      for (const list of lists)
        for (const a of list) if (candidates.size < MOST_CANDIDATES) candidates.add(a);
      for (const a of candidates) {
        const like = this.#like(a, b);
        if (like < LEAST_AWAY) continue;
        // The larger part leads, and its content follows it.
        pairs.push({
          a,
          b,
          worth: odds(like) + Math.log2(Math.min(a.size, b.size)) * SIZE + this.#nearness(a, b) * NEAR,
        });
      }
    }
    for (const b of this.#takeBest(pairs)) this.#down(this.oldOf.get(b)!, b);
  }

  /** Whether two elements stand in containers that are one, or whose own are. */
  #nearness(a: Traits, b: Traits): number {
    for (let up = a.parent, far = 1; up && far < 5; up = up.parent, far++) {
      const to = this.newOf.get(up);
      if (to) return to.order < b.order && b.order < to.end ? 1 / far : 0;
    }
    return 0;
  }

  /** The likeness of the next best partner that either of a pair could have had. */
  #rival(a: Traits, b: Traits): number {
    let most = 0;
    for (const other of b.parent?.children ?? [])
      if (other !== b && Math.abs(other.index - b.index) < 8) most = Math.max(most, this.#like(a, other));
    for (const other of a.parent?.children ?? [])
      if (other !== a && Math.abs(other.index - a.index) < 8) most = Math.max(most, this.#like(other, b));
    // What holds it or stands in it, and is nobody else's.
    for (const other of [b.parent, ...b.children])
      if (other && this.#isFree(other, this.oldOf)) most = Math.max(most, this.#like(a, other));
    return most;
  }

  /** All evidence of a pair that was found, for `certainty` and for learning its weights. */
  evidenceOf(a: Traits, b: Traits): Float64Array {
    return contextEvidence(a, b, this, this.#like(a, b), this.#rival(a, b));
  }

  #scored(): ElementPair[] {
    return this.#now.flatMap((b) => {
      const a = this.oldOf.get(b);
      return a
        ? [
            {
              old: a.element,
              now: b.element,
              score: Math.round(certainty(this.evidenceOf(a, b), this.making) * 1000) / 1000,
            },
          ]
        : [];
    });
  }
}
