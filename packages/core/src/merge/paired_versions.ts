import type { MergeSide } from './conflict.ts';
import { type KnownElements, matchInside, matchTrees, Pairs } from './match_trees.ts';
import { type Renames, renamesOf } from './renames.ts';
import { nodesOf, type SyntaxNode, textOf } from './syntax_tree.ts';

/** A node in up to three versions. */
export interface Same {
  readonly base?: SyntaxNode;
  readonly theirs?: SyntaxNode;
  readonly ours?: SyntaxNode;
}

/** Nodes that say nothing that anything could be called. */
const PROSE = /^(JSXText|StringLiteral|TemplateWord|Text|TemplateElement)$/;

/** Three versions of a file: which nodes of them are the same, where each stands, and what names became. */
export class PairedVersions {
  readonly base: SyntaxNode;
  readonly theirs: SyntaxNode;
  readonly ours: SyntaxNode;
  /** What names became on a side, for what only the other side says. */
  readonly renames: Readonly<Record<MergeSide, Renames>>;
  /** Names in what a side put in or changed, and all that it says. */
  readonly said: Readonly<Record<MergeSide, ReadonlySet<string>>>;
  readonly allSaid: Readonly<Record<MergeSide, ReadonlySet<string>>>;
  readonly #known: KnownElements | undefined;
  readonly #sames = new Map<SyntaxNode, Same>();
  readonly #homes = new Map<SyntaxNode, { readonly parent: SyntaxNode; readonly slot: string }>();
  readonly #lineStarts: readonly number[];

  constructor(base: SyntaxNode, theirs: SyntaxNode, ours: SyntaxNode, known?: KnownElements) {
    [this.base, this.theirs, this.ours] = [base, theirs, ours];
    this.#known = known;
    const [toTheirs, toOurs] = [matchTrees(base, theirs), matchTrees(base, ours, known)];
    for (const node of nodesOf(base))
      this.#join({ base: node, theirs: toTheirs.there(node), ours: toOurs.there(node) });
    this.#joinAdded(toTheirs, toOurs);
    for (const node of nodesOf(theirs)) if (!this.#sames.has(node)) this.#join({ theirs: node });
    for (const node of nodesOf(ours)) if (!this.#sames.has(node)) this.#join({ ours: node });
    for (const root of [base, theirs, ours])
      for (const parent of nodesOf(root))
        for (const { name, parts } of parent.slots)
          for (const part of parts) this.#homes.set(part, { parent, slot: name });
    this.renames = {
      theirs: renamesOf(base, toTheirs, theirs),
      ours: renamesOf(base, toOurs, ours),
    };
    this.said = { theirs: this.#namesSaidBy(theirs), ours: this.#namesSaidBy(ours) };
    const all = (root: SyntaxNode): Set<string> => new Set([...nodesOf(root)].flatMap(namesIn));
    this.allSaid = { theirs: all(theirs), ours: all(ours) };
    const text = theirs.before + textOf(theirs);
    this.#lineStarts = [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
  }

  /** What a node is in all versions. */
  same(node: SyntaxNode): Same {
    return this.#sames.get(node)!;
  }

  /** What a node stands in, in its version; undefined for a root. */
  homeOf(node: SyntaxNode): { readonly parent: SyntaxNode; readonly slot: string } | undefined {
    return this.#homes.get(node);
  }

  /** The line of their file where a node is, or would be; from 1. */
  lineOf(same: Same): number {
    const at = same.theirs ?? this.#nearest(same) ?? this.theirs;
    return this.#lineStarts.findLastIndex((start) => start <= at.start) + 1;
  }

  /** Whether it is known what base and ours were written for, and not known that it is one element of the design. */
  mayBeOther({ base, ours }: Same): boolean {
    if (!base || !ours || !this.#known) return false;
    const element = this.#known.first.get(base);
    return element === undefined || this.#known.second.get(ours) !== element;
  }

  /** The element of the design that a node was written for, or one around it. */
  elementOf({ base, ours }: Same): string | undefined {
    for (const [first, elements] of [
      [base, this.#known?.first],
      [ours, this.#known?.second],
    ] as const)
      for (let node = first; node; node = this.#homes.get(node)?.parent) {
        const element = elements?.get(node);
        if (element !== undefined) return element;
      }
    return undefined;
  }

  /** What holds the place in their file where a node stood. */
  #nearest({ base }: Same): SyntaxNode | undefined {
    for (let node = base; node; node = this.#homes.get(node)?.parent) {
      const { theirs } = this.same(node);
      if (theirs) return theirs;
    }
    return undefined;
  }

  #join(same: Same): void {
    for (const node of [same.base, same.theirs, same.ours]) if (node) this.#sames.set(node, same);
  }

  /** What both put at the same place and call the same is one thing. */
  #joinAdded(toTheirs: Pairs, toOurs: Pairs): void {
    const pairs = new Pairs();
    for (const base of nodesOf(this.base)) {
      const [theirs, ours] = [toTheirs.there(base), toOurs.there(base)];
      if (!theirs || !ours) continue;
      for (const slot of theirs.slots) {
        const added = slotOf(ours, slot.name).filter((part) => !toOurs.back(part));
        for (const part of slot.parts) {
          if (toTheirs.back(part)) continue;
          const twin = added.find(
            (other) =>
              !pairs.back(other) &&
              other.kind === part.kind &&
              (other.form === part.form || (part.name !== null && other.name === part.name)),
          );
          if (twin) matchInside(pairs, part, twin);
        }
      }
    }
    for (const node of nodesOf(this.theirs)) {
      const twin = pairs.there(node);
      if (twin && !this.#sames.has(node) && !this.#sames.has(twin)) this.#join({ theirs: node, ours: twin });
    }
  }

  #namesSaidBy(root: SyntaxNode): Set<string> {
    const names = new Set<string>();
    for (const node of nodesOf(root)) {
      const { base } = this.same(node);
      if (base?.own !== node.own) for (const name of namesIn(node)) names.add(name);
    }
    return names;
  }
}

/** Names that a node itself says, of what is declared elsewhere. */
export const namesIn = (node: SyntaxNode): readonly string[] =>
  PROSE.test(node.kind) || node.kind.startsWith('Import')
    ? []
    : (node.own.match(/[\p{L}_$][\p{L}\p{N}_$]*/gu) ?? []);

export const slotOf = (node: SyntaxNode, slot: string): readonly SyntaxNode[] =>
  node.slots.find(({ name }) => name === slot)?.parts ?? [];
