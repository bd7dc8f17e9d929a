import { type MergeConflict, conflictOf, type Merged, type MergeSide } from './conflict.ts';
import type { KnownElements } from './match_trees.ts';
import { namesIn, PairedVersions, type Same, slotOf } from './paired_versions.ts';
import { withRenames } from './renames.ts';
import { commentsIn, nodesOf, partsOf, type Slot, type SyntaxNode, textOf } from './syntax_tree.ts';

/** What the result needs of what one side took away, and which imports of ours nothing in it uses. */
type Needed = Record<MergeSide | 'idle', ReadonlySet<string>>;

interface Home {
  readonly parent: Same;
  readonly slot: string;
}

/** How often it is looked again what names are needed; each time fewer are new. */
const MOST_ROUNDS = 4;

/** How many elements that were put around a part are looked through for it. */
const DEEPEST = 6;

const DECLARES =
  /^(VariableDeclaration|FunctionDeclaration|ClassDeclaration|TS(Interface|TypeAlias)Declaration)$/;

/**
 * Brings together what somebody changed in a file and what is written for it now, both made of the same base: each node is
 * put where one side moved it, says what one side made it say, and is gone if one side took it away and the other left it
 * alone. Where both did something else it is a conflict, for which their file counts until it is decided. What a node says and
 * where it stands are found out apart, as in T. Lindholm, "A three-way merge for XML documents" (2004).
 * @param answers sides of conflicts, by their ids
 * @param known elements of the design that nodes of base and ours were written for
 */
export function mergeTrees(
  base: SyntaxNode,
  theirs: SyntaxNode,
  ours: SyntaxNode,
  answers: ReadonlyMap<string, MergeSide> = new Map(),
  known?: KnownElements,
): Merged {
  // What stays of one side may need what the other took away: that is known once all is put together.
  const paired = new PairedVersions(base, theirs, ours, known);
  const needed: Needed = { theirs: new Set(), ours: new Set(), idle: new Set() };
  for (let round = 0; ; round++) {
    const merge = new Merge(paired, answers, needed);
    const merged = merge.result();
    const now = merge.namesKept();
    const sides = ['theirs', 'ours', 'idle'] as const;
    if (round === MOST_ROUNDS || sides.every((side) => isSubset(now[side], needed[side]))) return merged;
    for (const side of sides) needed[side] = new Set([...needed[side], ...now[side]]);
  }
}

class Merge {
  readonly #paired: PairedVersions;
  readonly #answers: ReadonlyMap<string, MergeSide>;
  readonly #conflicts = new Map<string, MergeConflict>();
  readonly #written = new Set<Same>();
  /** The version that says what a node itself says. */
  readonly #chosen = new Map<Same, SyntaxNode>();
  /** What was taken as one side has it. */
  readonly #whole: Readonly<Record<MergeSide, SyntaxNode[]>> = { theirs: [], ours: [] };
  /** What a conflict was decided against, with what is in it. */
  readonly #putAside = new Set<Same>();
  readonly #there = new Map<Same, boolean>();
  readonly #idle: ReadonlySet<string>;
  /** Names in what a side put in or changed, and in what stays of it. */
  readonly #said: Readonly<Record<MergeSide, ReadonlySet<string>>>;

  constructor(paired: PairedVersions, answers: ReadonlyMap<string, MergeSide>, needed: Readonly<Needed>) {
    this.#paired = paired;
    this.#answers = answers;
    this.#idle = needed.idle;
    this.#said = {
      theirs: new Set([...paired.said.theirs, ...needed.theirs]),
      ours: new Set([...paired.said.ours, ...needed.ours]),
    };
  }

  result(): Merged {
    const { theirs, ours } = this.#paired;
    const text = theirs.before + this.#write(this.#same(theirs)) + theirs.after;
    this.#lookForLost(theirs, true);
    this.#lookForLost(ours, true);
    return { text, conflicts: [...this.#conflicts.values()].sort((a, b) => a.line - b.line) };
  }

  /** Names in what is in the result and only one side has. */
  namesKept(): Record<MergeSide | 'idle', Set<string>> {
    const kept = { theirs: new Set<string>(), ours: new Set<string>(), idle: new Set<string>() };
    const used = new Set<string>();
    for (const { base, theirs, ours } of this.#written) {
      if ((theirs && ours) || !base) continue;
      const node = theirs ?? ours;
      if (node) for (const name of namesIn(node)) kept[theirs ? 'theirs' : 'ours'].add(name);
    }
    for (const [side, nodes] of [
      ['theirs', this.#whole.theirs],
      ['ours', this.#whole.ours],
    ] as const)
      for (const node of nodes) for (const name of namesIn(node)) kept[side].add(name);
    const whole = new Set([...this.#whole.theirs, ...this.#whole.ours].map((node) => this.#same(node)));
    for (const same of this.#written)
      if (!whole.has(same))
        for (const name of namesIn(this.#chosen.get(same) ?? (same.theirs ?? same.ours)!)) used.add(name);
    for (const name of [...kept.theirs, ...kept.ours]) used.add(name);
    const { theirs: saidByTheirs, ours: saidByOurs } = this.#paired.allSaid;
    // Somebody's own import that nothing uses is theirs to keep.
    for (const { theirs, ours } of this.#written)
      if (ours && /^Import.*Specifier$/.test(ours.kind)) {
        const name = ours.name ?? ours.own;
        if (!used.has(name) && saidByOurs.has(name) && (!theirs || saidByTheirs.has(name)))
          kept.idle.add(name);
      }
    return kept;
  }

  #same(node: SyntaxNode): Same {
    return this.#paired.same(node);
  }

  /** Whether a node is in the result. */
  #exists(same: Same): boolean {
    const known = this.#there.get(same);
    if (known !== undefined) return known;
    const { base, theirs, ours } = same;
    let exists = true;
    if ((base && !theirs && !ours) || (ours && this.#isIdle(ours))) exists = false;
    else if (base && theirs && !ours) exists = this.#outlives(same, 'theirs');
    else if (base && !theirs && ours) exists = this.#outlives(same, 'ours');
    else if (!base && !(theirs && ours)) exists = !this.#isEmptied((theirs ?? ours)!);
    this.#there.set(same, exists);
    return exists;
  }

  #isIdle(node: SyntaxNode): boolean {
    return node.kind.endsWith('Specifier') && this.#idle.has(node.name ?? node.own);
  }

  /** Whether a node was put around one element alone, as a condition is, and that was decided against. */
  #isEmptied(node: SyntaxNode): boolean {
    return node.slots.some(({ many, parts }) =>
      parts.some((part) => {
        if (many) return false;
        const same = this.#same(part);
        return /^(JSXElement|Element)$/.test(part.kind) && same.base
          ? !this.#exists(same)
          : !same.base && this.#isEmptied(part);
      }),
    );
  }

  /** Whether a node stays that only the other side took away. */
  #outlives(same: Same, side: MergeSide): boolean {
    const node = same[side]!;
    const parent = this.#paired.homeOf(node)?.parent;
    // What is in a part that only one side has stays with it, and goes with it.
    if (parent) {
      const around = this.#same(parent);
      if (around.base && !(around.theirs && around.ours)) return this.#exists(around);
    }
    if (this.#isTouched(same, side)) {
      const why = side === 'theirs' ? 'ours-removed' : 'theirs-removed';
      return this.#decide(why, same) === side;
    }
    if (node.kind.startsWith('Import')) return this.#namesOf(node).some((name) => this.#said[side].has(name));
    if (!DECLARES.test(node.kind) || node.name === null || !this.#said[side].has(node.name)) return false;
    return side === 'ours' || this.#decide('still-used', same) === side;
  }

  #namesOf(node: SyntaxNode): string[] {
    if (node.kind !== 'ImportDeclaration') return [node.name ?? node.own];
    return partsOf(node).flatMap((part) => this.#namesOf(part));
  }

  /** Whether a side did something to a node that is lost when the node goes. */
  #isTouched(same: Same, side: MergeSide): boolean {
    const node = same[side]!;
    const { base } = same;
    if (!base || saysElse(node, base) || this.#isMoved(node, base)) return true;
    return partsOf(node).some((part) => {
      const inner = this.#same(part);
      // What the other side has as well stands elsewhere there.
      return !(inner.theirs && inner.ours) && this.#isTouched(inner, side);
    });
  }

  #isMoved(node: SyntaxNode, base: SyntaxNode): boolean {
    const [now, was] = [this.#paired.homeOf(node), this.#paired.homeOf(base)];
    if (!now || !was) return false;
    return this.#same(now.parent) !== this.#same(was.parent) || now.slot !== was.slot;
  }

  /** Where a node stands in each version. */
  #homesOf({ base, theirs, ours }: Same): readonly (Home | null)[] {
    return [base, theirs, ours].map((node): Home | null => {
      const home = node && this.#paired.homeOf(node);
      return home ? { parent: this.#same(home.parent), slot: home.slot } : null;
    });
  }

  /** Where a node stands in the result. */
  #homeOf(same: Same): Home | null {
    const [base, theirs, ours] = this.#homesOf(same);
    if (!theirs || !ours) return this.#homeAround(same) ?? theirs ?? ours;
    // It stays in what one side put around it, which goes along where the other side moved it.
    const around = [theirs, ours].find(({ parent }) => this.#wrappedIn(parent) === same);
    if (around && this.#exists(around.parent)) return around;
    const chosen =
      isOneHome(theirs, ours) || isOneHome(ours, base)
        ? theirs
        : isOneHome(theirs, base) || (base && this.#decide('both-moved', same) === 'ours')
          ? ours
          : theirs;
    if (this.#exists(chosen.parent)) return chosen;
    return chosen === theirs ? ours : theirs;
  }

  /** Of an element that one side put around another in its place: where the other side moved that. */
  #homeAround(same: Same): Home | null {
    const inner = this.#wrappedIn(same);
    if (!inner) return null;
    const [was, inTheirs, inOurs] = this.#homesOf(inner);
    const [, own] = this.#homesOf({ theirs: same.theirs ?? same.ours });
    const moved = same.theirs ? inOurs : inTheirs;
    if (!moved || !isOneHome(own, was) || isOneHome(moved, was)) return null;
    // Where both put something around it, what is written for the design is around the other.
    if (same.ours && this.#wrappedIn(moved.parent) === inner) return null;
    return this.#exists(moved.parent) ? moved : null;
  }

  /** The one element in an element or a condition that only one side has, where both sides have that; else null. */
  #wrappedIn({ base, theirs, ours }: Same): Same | null {
    const around = theirs ?? ours;
    const slot = around && HOLDS_ONE[around.kind];
    if (base || (theirs && ours) || !slot) return null;
    const [only, ...others] = slotOf(around, slot).filter(({ kind }) => kind !== 'JSXText');
    if (!only || others.length) return null;
    const inner = this.#same(only);
    if (only.kind !== 'JSXElement') return this.#wrappedIn(inner);
    return inner.base && inner.theirs && inner.ours ? inner : null;
  }

  #write(same: Same): string {
    this.#written.add(same);
    const { base, theirs, ours } = same;
    if (!theirs || !ours) return this.#writeAlone(same, theirs ? 'theirs' : 'ours');
    if (theirs.kind === 'JSXElement' && isComponent(theirs) !== isComponent(ours)) {
      // What was an element is a component now, in whose file its content is: only one of them can stand here.
      const [changed, other] =
        base && isComponent(base) === isComponent(theirs) ? [ours, theirs] : [theirs, ours];
      const isKept = changed === ours && base && isComponent(base) && onlySaysMore(other, base);
      if (!base || (other.form !== base.form && !isKept)) return this.#writeWhole(same);
      if (changed === theirs) return this.#writeWhole(same, 'theirs');
    }
    // A rule of another name may be written for something else by now.
    const isUnsure =
      base?.kind === 'Rule' && ours.own !== base.own && theirs.form !== base.form && theirs.own !== ours.own;
    if (isUnsure && this.#paired.mayBeOther(same) && this.#decide('both-changed', same) === 'ours')
      return this.#writeWhole(same, 'ours');
    let node = theirs;
    if (theirs.own !== ours.own) {
      if (base?.own === theirs.own) node = ours;
      else if (base?.own !== ours.own && this.#decide('both-changed', same) === 'ours') node = ours;
    }
    const slots = new Map<string, string>();
    for (const slot of [...theirs.slots, ...ours.slots])
      if (!slots.has(slot.name)) slots.set(slot.name, this.#writeSlot(same, slot));
    const holds = (version: SyntaxNode): boolean =>
      [...slots].every(([name, text]) => !text || version.slots.some((slot) => slot.name === name));
    const other = node === theirs ? ours : theirs;
    if (!holds(node) && other.own === node.own && holds(other)) node = other;
    if (!holds(node)) this.#decide('no-place', same);
    this.#chosen.set(same, node);
    return node.print(node.slots.map(({ name }) => slots.get(name)!));
  }

  /** A node as one side has it, with all that is in it. */
  #writeWhole(same: Same, decided?: MergeSide): string {
    const side = decided ?? this.#decide('both-replaced', same);
    for (const node of nodesOf(same[side]!)) this.#written.add(this.#same(node));
    for (const node of nodesOf(same[side === 'theirs' ? 'ours' : 'theirs']!))
      this.#putAside.add(this.#same(node));
    this.#whole[side].push(...nodesOf(same[side]!));
    return textOf(same[side]!);
  }

  /** A node that only one side has, with the names that the other side gives by now. */
  #writeAlone(same: Same, side: MergeSide): string {
    const node = same[side]!;
    const parts = node.slots.map((slot) => this.#writeSlot(same, slot));
    const renames = this.#paired.renames[side === 'theirs' ? 'ours' : 'theirs'];
    if (!renames.size) return node.print(parts);
    // Parts have been written with their names already.
    const places = parts.map((text, i) => text && `${/^\s*/.exec(text)![0]}\0${String(i)}\0`);
    return withRenames(node.print(places), renames).replace(/\0(\d+)\0/g, (_, i: string) =>
      parts[Number(i)].trimStart(),
    );
  }

  #writeSlot(parent: Same, slot: Slot): string {
    return slot.many ? this.#writeList(parent, slot) : this.#writeOne(parent, slot.name);
  }

  #writeOne(parent: Same, slot: string): string {
    const at = (node: SyntaxNode | undefined): Same | null => {
      const part = node && slotOf(node, slot).at(0);
      return part ? this.#same(part) : null;
    };
    const [base, theirs, ours] = [at(parent.base), at(parent.theirs), at(parent.ours)];
    const chosen = this.#chooseOne(parent, base, theirs, ours);
    return chosen ? this.#write(chosen) : '';
  }

  #chooseOne(parent: Same, base: Same | null, theirs: Same | null, ours: Same | null): Same | null {
    if (!parent.ours) return theirs;
    if (!parent.theirs) return ours;
    if (theirs === ours) return theirs;
    const said = (part: Same | null, side: MergeSide): string | null =>
      part?.[side] ? textOf(part[side]) : null;
    // What it was is gone on one side: nothing is lost by that if the other side left it alone, or has it elsewhere.
    if (theirs === base && !(base && !base.ours && this.#isTouched(base, 'theirs'))) return ours;
    if (ours === base && !(base && !base.theirs && this.#isTouched(base, 'ours'))) return theirs;
    if (theirs?.theirs?.form === ours?.ours?.form) return theirs;
    const side = this.#conflict('both-replaced', parent, {
      base: base?.base ? textOf(base.base) : null,
      theirs: said(theirs, 'theirs'),
      ours: said(ours, 'ours'),
    });
    const against = side === 'theirs' ? ours : theirs;
    if (against) this.#putAside.add(against);
    return side === 'theirs' ? theirs : ours;
  }

  #writeList(parent: Same, slot: Slot): string {
    const sequence = (node: SyntaxNode | undefined): Same[] =>
      node ? slotOf(node, slot.name).map((part) => this.#same(part)) : [];
    // What one side put something around is there by that; what is gone keeps its place until what came instead is put there.
    const placed = (node: SyntaxNode | undefined): Same[] => {
      const all = sequence(node);
      const standing = all.flatMap((same) => {
        if (!this.#exists(same)) return same;
        const part = this.#standingFor(same, parent, slot.name);
        return part && (part === same || !all.includes(part)) ? part : [];
      });
      return [...new Set(standing)];
    };
    const [base, theirs, ours] = [sequence(parent.base), placed(parent.theirs), placed(parent.ours)];
    const order = this.#inOrder(parent, slot, base, theirs, ours).filter((same) => this.#exists(same));
    const pieces = order.flatMap((same) => {
      const text = slot.isText ? withoutParens(this.#write(same), same) : this.#write(same);
      // An import of nothing any more.
      const node = (same.theirs ?? same.ours)!;
      if (node.kind === 'ImportDeclaration' && partsOf(node).length && !/\bfrom\b/.test(text)) return [];
      return [{ text, isText: node.kind === 'JSXText', ...this.#around(same) }];
    });
    const start = theirs.find((same) => this.#exists(same))?.theirs?.before.replace(/\S[^]*$/, '');
    const usual = pieces
      .slice(1)
      .find(({ before }) => before !== '')
      ?.before.replace(/\S[^]*$/, '');
    return pieces
      .map(({ before, text, after, isText }, i) => {
        // A break beside a blank of a text would be all that is left of the blank.
        const last = pieces.at(i - 1);
        const isInline =
          (isText && text.startsWith(' ')) || (i > 0 && last!.isText && last!.text.endsWith(' '));
        // What came first has no break of its own before it.
        const own =
          i > 0 && before === '' ? (usual ?? '') : i === 0 && !/\S/.test(before) ? (start ?? before) : before;
        const lead = isInline ? before.trim() : own;
        return lead + text + (i + 1 < pieces.length ? slot.join : '') + after;
      })
      .join('');
  }

  /** The part of a list that a node is, or stands in. */
  #standingFor(same: Same, parent: Same, slot: string): Same | null {
    let part: Same | null = same;
    for (let depth = 0; part && depth < DEEPEST; depth++) {
      if (!this.#exists(part)) return null;
      const home: Home | null = this.#homeOf(part);
      if (home?.parent === parent && home.slot === slot) return part;
      part = home?.parent ?? null;
    }
    return null;
  }

  /** All that is in a list, in the order of the side that changed the order, with what only the other side has behind its neighbour. */
  #inOrder(
    parent: Same,
    slot: Slot,
    base: readonly Same[],
    theirs: readonly Same[],
    ours: readonly Same[],
  ): readonly Same[] {
    const common = new Set(theirs.filter((same) => ours.includes(same)));
    const orderIn = (sequence: readonly Same[], among: ReadonlySet<Same>): Same[] =>
      sequence.filter((same) => among.has(same));
    const known = new Set(base.filter((same) => common.has(same)));
    const [was, theirOrder, ourOrder] = [base, theirs, ours].map((sequence) => orderIn(sequence, known));
    const isSame = (a: readonly Same[], b: readonly Same[]): boolean => a.every((same, i) => same === b[i]);
    let [first, second] = [theirs, ours];
    if (!isSame(orderIn(theirs, common), orderIn(ours, common))) {
      const [theirsMoved, oursMoved] = [!isSame(was, theirOrder), !isSame(was, ourOrder)];
      const both = theirsMoved && oursMoved && slot.ordered;
      if (both ? this.#decide('both-moved', parent) === 'ours' : !theirsMoved)
        [first, second] = [ours, theirs];
    }
    const result = [...first];
    const placed = new Set(first);
    const there = new Set(second);
    const isNew = (same: Same | undefined): boolean => !!same && !same.base && !there.has(same);
    for (const [i, same] of second.entries()) {
      if (placed.has(same)) continue;
      const neighbour = second.slice(0, i).findLast((earlier) => placed.has(earlier));
      let behind = neighbour ? result.indexOf(neighbour) + 1 : 0;
      // What somebody put at the same place in a page stays beside what they put it beside.
      if (slot.isText && first === theirs) while (isNew(result.at(behind))) behind++;
      // It came instead of what this side took away there.
      const next = result.findIndex(
        (other, at) => at >= behind && (there.has(other) || (other.base && !this.#exists(other))),
      );
      result.splice(next < 0 || there.has(result[next]) ? behind : next, 0, same);
      placed.add(same);
    }
    return result;
  }

  /** What stands before and behind a part: breaks as they are in their file, comments as one side changed them. */
  #around({ base, theirs, ours }: Same): { readonly before: string; readonly after: string } {
    if (!theirs || !ours) return (theirs ?? ours)!;
    const choose = (side: 'before' | 'after'): string => {
      const [was, there, here] = [base?.[side] ?? '', theirs[side], ours[side]].map(commentsIn);
      return there === was && here !== was ? ours[side] : theirs[side];
    };
    return { before: choose('before'), after: choose('after') };
  }

  /** Parts of a version that belong to the result and stand nowhere in it. */
  #lookForLost(node: SyntaxNode, isExpected: boolean): void {
    const same = this.#same(node);
    const written = this.#written.has(same);
    const isGone = !written && (!this.#exists(same) || this.#putAside.has(same));
    if (!written && !isGone && (isExpected || (same.theirs && same.ours))) {
      this.#conflict('no-place', same, {
        base: same.base ? textOf(same.base) : null,
        theirs: same.theirs ? textOf(same.theirs) : null,
        ours: same.ours ? textOf(same.ours) : null,
      });
      return;
    }
    for (const part of partsOf(node)) this.#lookForLost(part, written);
  }

  /** The side that counts for a node about which both say something else. */
  #decide(why: MergeConflict['why'], same: Same): MergeSide {
    const { base, theirs, ours } = same;
    return this.#conflict(why, same, {
      base: base ? textOf(base) : null,
      theirs: theirs ? textOf(theirs) : null,
      ours: ours ? textOf(ours) : null,
    });
  }

  #conflict(
    why: MergeConflict['why'],
    about: Same,
    texts: Pick<MergeConflict, MergeSide | 'base'>,
  ): MergeSide {
    const conflict = conflictOf(why, this.#paired.lineOf(about), texts, this.#answers);
    const element = this.#paired.elementOf(about);
    if (!this.#conflicts.has(conflict.id))
      this.#conflicts.set(conflict.id, element === undefined ? conflict : { ...conflict, element });
    return conflict.side;
  }
}

/** What can be put around an element, and where in it the element is then. */
const HOLDS_ONE: Readonly<Record<string, string | undefined>> = {
  JSXElement: 'children',
  JSXExpressionContainer: 'expression',
  LogicalExpression: 'right',
};

const isOneHome = (a: Home | null, b: Home | null): boolean => a?.parent === b?.parent && a?.slot === b?.slot;

/** Whether a use of a component says what it did, and besides that only what any element can be told. */
function onlySaysMore(node: SyntaxNode, base: SyntaxNode): boolean {
  const known = new Set(partsOf(base).map(({ form }) => form));
  const more = partsOf(node).filter(({ form }) => !known.has(form));
  const isWhole = partsOf(node).length - more.length === partsOf(base).length;
  return (
    node.own === base.own &&
    isWhole &&
    more.every(({ kind, name }) => kind === 'JSXAttribute' && OF_ALL.test(name ?? ''))
  );
}
const OF_ALL = /^((data|aria)-[\w-]+|on[A-Z]\w*|id|title|role|key|ref|hidden|tabIndex)$/;

/** Whether an element is a component of the app, and not one of the page. */
const isComponent = (node: SyntaxNode): boolean => node.kind === 'JSXElement' && /^[A-Z]/.test(node.own);

/** What was returned and stands among the content of an element by now leaves its parentheses behind. */
function withoutParens(text: string, { theirs, ours }: Same): string {
  for (const { open, close } of [theirs?.parens, ours?.parens].filter((one) => one !== undefined))
    if (text.startsWith(open) && text.endsWith(close)) return text.slice(open.length, -close.length);
  return text;
}

/** Whether a node itself, or what is remarked on it, says something else than before. */
const saysElse = (node: SyntaxNode, base: SyntaxNode): boolean =>
  node.own !== base.own ||
  commentsIn(node.before) !== commentsIn(base.before) ||
  commentsIn(node.after) !== commentsIn(base.after);

const isSubset = (some: ReadonlySet<string>, all: ReadonlySet<string>): boolean =>
  [...some].every((one) => all.has(one));
