import { hash } from '../json/hash.ts';
import type { Element, VectorNode } from '../model/design.ts';
import { shapeOf } from '../roles/shape.ts';
import type { Sight } from '../roles/sight.ts';
import { isThing, sizeOf } from './groups.ts';
import { wordFor } from './names.ts';
import { mostElements, mostGiven } from './one_thing.ts';
import { onceFor } from '../json/once_for.ts';

/** Places that could be one component, or the rows of one list. */
export interface Candidate {
  readonly kind: 'component' | 'list';
  /** In reading order. */
  readonly sights: readonly Sight[];
}

/** A candidate that was chosen. */
export interface Choice<C extends Candidate> {
  readonly candidate: C;
  /** Lines of code that it saves when what was chosen before it is taken, too. */
  readonly saves: number;
  /** How much a person would call it one thing, 0 to 1. */
  readonly unity: number;
  /** How many things a place of it is given, in the middle. */
  readonly given: number;
}

/** Lines for a prop: several short ones stand in one. */
const LINES_GIVEN = 0.6;
/** What saves fewer lines than this is not worth a file. */
const LEAST_LINES = 2;
/** What is written again word for word is worth one from so many. */
const LEAST_LINES_OF_THE_SAME = 10;
/** What is less one thing than this is a stretch of a page. */
const LEAST_UNITY = 0.2;
/** What has less than this of its lines left, since the rest is in what was chosen before, is only around that. */
const LEAST_OWN = 0.35;
/** From here on a person calls it one thing. */
const WHOLE = 0.7;
/** What holds something is as good from this part of what that is worth. */
const NEARLY = 0.5;
/** Rows are better written as records than one by one. */
const LIST_BONUS = 1.25;

/**
 * Chooses what is worth being written once: the set with the shortest description of the screens (minimum description length,
 * Rissanen 1978), found greedily, each time with what is chosen already taken into account. What is saved is weighed by how much
 * a person would call it one thing, so that a card wins over the column that it stands in. Places never overlap but by one
 * standing within another. After that, what says the very same at several places, whatever it is and however much of it is
 * written elsewhere by then.
 * @param same candidates of which all places say the same
 */
export function choose<C extends Candidate>(candidates: readonly C[], same: readonly C[] = []): Choice<C>[] {
  const written = new Written();
  const open = candidates.flatMap((candidate): Open<C>[] => {
    const { most, usual } = givenAt(candidate.sights);
    const forms = new Set(candidate.sights.map(({ element }) => shapeOf(element))).size;
    const cells = Math.min(...candidate.sights.map(cellsOf));
    if (most + forms - 1 > mostGiven(candidate.kind, cells) || !isOneThing(candidate.sights)) return [];
    if (most > 0 && (candidate.sights.every(isHeads) || candidate.sights.some(isProse))) return [];
    const unity = unityOf(candidate);
    if (unity < LEAST_UNITY) return [];
    return [{ candidate, unity, given: usual, worth: Infinity, saves: 0 }];
  });
  const weighed = ({ candidate, given, unity }: Open<C>): Weight => {
    const saves = written.savedBy(candidate.sights, 1 + LINES_GIVEN * given, unity);
    return { saves, worth: saves * unity * (candidate.kind === 'list' ? LIST_BONUS : 1) };
  };
  for (const one of open) Object.assign(one, weighed(one));
  const holders = new Holders(open);
  // What has been chosen only ever makes others worth less, so that the best is known once it was weighed anew.
  const heap = open.sort(byWorth);
  const chosen: Choice<C>[] = [];
  while (heap.length) {
    const best = heap.shift()!;
    const before = best.worth;
    Object.assign(best, weighed(best));
    if (best.saves < LEAST_LINES) continue;
    if (best.worth < before && heap.length && best.worth < heap[0].worth) {
      insert(heap, best);
      continue;
    }
    const outer = holders.of(best, heap, weighed);
    const next = outer ?? best;
    if (outer) {
      heap.splice(heap.indexOf(outer), 1);
      Object.assign(outer, weighed(outer));
      insert(heap, best);
    }
    written.take(next.candidate.sights, 1 + LINES_GIVEN * next.given);
    chosen.push(next);
  }
  const left = same.map((candidate): Open<C> => {
    const saves = written.savedBy(candidate.sights, 1);
    return { candidate, unity: Math.max(unityOf(candidate), WHOLE), given: 0, saves, worth: saves };
  });
  for (const one of left.sort(byWorth)) {
    const saves = written.savedBy(one.candidate.sights, 1);
    if (saves < LEAST_LINES_OF_THE_SAME) continue;
    written.take(one.candidate.sights, 1);
    chosen.push({ ...one, saves });
  }
  return chosen;
}

interface Weight {
  readonly saves: number;
  /** What it saves, weighed by how much it is one thing. */
  readonly worth: number;
}
interface Open<C extends Candidate> extends Choice<C>, Weight {}

/** What only ever stands in places of something else that is one thing is a part of that, where that saves nearly as much. */
class Holders<C extends Candidate> {
  readonly #at = new Map<Element, Open<C>[]>();

  constructor(open: readonly Open<C>[]) {
    for (const one of open)
      for (const { element } of one.candidate.sights) {
        const known = this.#at.get(element);
        if (known) known.push(one);
        else this.#at.set(element, [one]);
      }
  }

  /** The one that is worth most, of those that are open. */
  of(
    { candidate: { sights }, worth }: Open<C>,
    open: readonly Open<C>[],
    weighed: (one: Open<C>) => Weight,
  ): Open<C> | null {
    let best: Open<C> | null = null;
    let most = worth * NEARLY;
    for (let at = sights[0].parent; at; at = at.parent)
      for (const one of this.#at.get(at.element) ?? []) {
        if (one.unity < WHOLE || one.worth < most || !open.includes(one)) continue;
        const places = new Set(one.candidate.sights);
        if (!sights.every((sight) => standsIn(sight, places))) continue;
        const now = weighed(one);
        if (now.saves < LEAST_LINES || now.worth < most) continue;
        best = one;
        most = now.worth;
      }
    return best;
  }
}

function standsIn({ parent }: Sight, places: ReadonlySet<Sight>): boolean {
  for (let at = parent; at; at = at.parent) if (places.has(at)) return true;
  return false;
}

const byWorth = <C extends Candidate>(a: Open<C>, b: Open<C>): number =>
  b.worth - a.worth || (keyOf(a.candidate) < keyOf(b.candidate) ? -1 : 1);

const keyOf = ({ kind, sights }: Candidate): string => `${sights[0].element.key} ${sights.length} ${kind}`;

function insert<C extends Candidate>(heap: Open<C>[], one: Open<C>): void {
  let [from, to] = [0, heap.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (byWorth(heap[middle], one) < 0) from = middle + 1;
    else to = middle;
  }
  heap.splice(from, 0, one);
}

/** How many lines the screens are written in, while more and more is written once. */
class Written {
  /** Lines less than an element has by itself. */
  readonly #less = new Map<Element, number>();
  /** What is written elsewhere. */
  readonly #elsewhere = new Set<Element>();

  #linesOf({ element }: Sight): number {
    return linesOf(element) - (this.#less.get(element) ?? 0);
  }

  #isWritten(sight: Sight): boolean {
    for (let at: Sight | null = sight; at; at = at.parent) if (this.#elsewhere.has(at.element)) return false;
    return true;
  }

  /**
   * Lines that are saved by writing what stands at places once.
   * @param use lines that a place takes afterwards
   * @param unity how much it is one thing, 0 to 1; where it is, however much of it is written elsewhere, nothing
   */
  savedBy(sights: readonly Sight[], use: number, unity?: number): number {
    const there = sights.filter((sight) => this.#isWritten(sight));
    if (there.length < 2) return 0;
    let [own, whole, longest] = [0, 0, 0];
    for (const sight of there) {
      const lines = this.#linesOf(sight);
      own += lines - use;
      whole += linesOf(sight.element) - use;
      longest = Math.max(longest, lines);
    }
    // What is around something that is written elsewhere by now, and hardly more, is no thing of its own.
    if (unity !== undefined && own < whole && own * unity < whole * LEAST_OWN) return 0;
    return own - longest;
  }

  take(sights: readonly Sight[], use: number): void {
    const there = sights.filter((sight) => this.#isWritten(sight));
    there.forEach((sight, i) => {
      const saved = this.#linesOf(sight) - use;
      // The first place goes on holding what is written once.
      if (i > 0) this.#elsewhere.add(sight.element);
      for (let at = sight.parent; at; at = at.parent)
        this.#less.set(at.element, (this.#less.get(at.element) ?? 0) + saved);
    });
  }
}

const lines = new WeakMap<Element, number>();

/** Lines of a text with so much of a look that it does not stand in one. */
const LINES_OF_DRESSED = 3;
/** What has so many declarations is dressed. */
const DRESSED = 8;

const isDressed = ({ tag, style: { base } }: Element): boolean =>
  (tag === 'button' || tag === 'a' || tag === 'span') &&
  (base['background-color'] !== undefined || base['border-top-width'] !== undefined) &&
  Object.keys(base).length >= DRESSED;

/** Lines that an element is written in, with all that stands in it. */
function linesOf(element: Element): number {
  let count = lines.get(element);
  if (count === undefined) {
    const inner = element.children.reduce(
      (sum, child) => sum + (child.tag === undefined ? 1 : linesOf(child)),
      0,
    );
    lines.set(element, (count = inner ? inner + 2 : isDressed(element) ? LINES_OF_DRESSED : 1));
  }
  return count;
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** So many places are looked at for what differs among them. */
const MOST_COMPARED = 40;
/** What so many of the places say is no difference among them. */
const SAID_BY_MOST = 0.8;

/** How many cells a row of a table has; none elsewhere. */
const cellsOf = ({ element: { tag }, children }: Sight): number => (tag === 'tr' ? children.length : 0);

/** Whether what stands at places is about as large as each of them. */
function isOneThing(sights: readonly Sight[]): boolean {
  const some = someOf(sights);
  const sizes = some.map(({ element }) => sizeOf(element));
  const most = mostElements(sizes);
  if (Math.max(...sizes) > most) return false;
  const together = new Map<string, number>();
  for (const { element } of some)
    for (const [kind, count] of kindsIn(element))
      together.set(kind, Math.max(count, together.get(kind) ?? 0));
  return [...together.values()].reduce((sum, count) => sum + count, 0) <= most;
}

/** Whether it is the heads of a table and nothing else: what they say belongs to their table, and to no part of tables. */
const isHeads = ({ element: { tag }, children }: Sight): boolean =>
  tag === 'thead'
    ? children.every(isHeads)
    : tag === 'tr' && children.length > 0 && children.every(({ element }) => element.tag === 'th');

/** Whether it is a sentence with something marked in it: what that says is said where it is read, and not given to anything. */
const isProse = ({ element: { children } }: Sight): boolean =>
  children.some(({ tag }) => tag !== undefined) &&
  children.filter(({ tag, text }) => tag === undefined && /\p{L}/u.test(text ?? '')).length > 1;

/** How many elements of a tag stand how deep in an element. */
const kindsIn = onceFor((element: Element): ReadonlyMap<string, number> => {
  const counts = new Map<string, number>();
  const visit = ({ tag, children }: Element, depth: number): void => {
    if (tag === undefined) return;
    const kind = `${tag} ${depth}`;
    counts.set(kind, (counts.get(kind) ?? 0) + 1);
    for (const child of children) visit(child, depth + 1);
  };
  visit(element, 0);
  return counts;
});

/** Places enough to tell what they have in common. */
function someOf(sights: readonly Sight[]): readonly Sight[] {
  if (sights.length <= MOST_COMPARED) return sights;
  // Steps of the golden section meet no rhythm of theirs: every fourth may be the same entry of a menu.
  return Array.from(
    { length: MOST_COMPARED },
    (_, i) => sights[Math.floor(((i * GOLDEN) % 1) * sights.length)],
  );
}

/** How many things are said at one place that are not said at most others: in the middle, and at most. */
function givenAt(sights: readonly Sight[]): { readonly usual: number; readonly most: number } {
  const some = someOf(sights);
  const said = some.map(({ element }) => factsOf(element));
  const counts = new Map<string, number>();
  for (const facts of said) for (const fact of new Set(facts)) counts.set(fact, (counts.get(fact) ?? 0) + 1);
  const own = said
    .map((facts) => facts.filter((fact) => counts.get(fact)! < some.length * SAID_BY_MOST).length)
    .sort((a, b) => a - b);
  return { usual: own[own.length >> 1], most: own.at(-1)! };
}

/** The same for elements that are built the same and say, show, draw and lead to the same. */
export const saidAs = onceFor((element: Element): string => {
  const { tag = '', children } = element;
  return hash(JSON.stringify([tag, ownFactsOf(element), children.map(saidAs)]));
});

/** What an element says, shows, draws and leads to, with all that stands in it. */
const factsOf = (element: Element): string[] => [
  ...ownFactsOf(element),
  ...element.children.flatMap(factsOf),
];

function ownFactsOf({ text, asset, vector, attributes }: Element): string[] {
  return [
    ...(vector ? [`drawing ${drawnAs(vector)}`] : []),
    ...(text?.trim() ? [`text ${text}`] : []),
    ...(asset ? [`picture ${asset}`] : []),
    ...(attributes?.href ? [`link ${pageIn(attributes.href)}`] : []),
    ...(attributes?.title ? [`title ${attributes.title}`] : []),
    ...(attributes?.placeholder ? [`hint ${attributes.placeholder}`] : []),
  ];
}

/** Where an address leads, the same from whichever folder: the page alone, unless it is an address outside. */
const pageIn = (href: string): string =>
  /^([a-z][a-z0-9+.-]*:|\/\/)/i.test(href) ? href : href.replace(/^.*\//, '');

const drawings = new WeakMap<VectorNode, string>();

/** The same for drawings that are the same. */
function drawnAs(vector: VectorNode): string {
  let drawn = drawings.get(vector);
  if (drawn === undefined) drawings.set(vector, (drawn = hash(JSON.stringify(vector))));
  return drawn;
}

/** Tags of what is one thing by itself. */
const THINGS =
  /^(nav|header|footer|aside|dialog|form|table|article|figure|li|tr|button|fieldset|details|blockquote|dl)$/;
const LANDMARKS = /^(nav|header|footer|main|aside)$/;

/** What holds the heading of a page and so many elements is a stretch of the page. */
const STRETCH = 15;

/** How much a person would call what stands at the places one thing, 0 to 1. */
function unityOf({ kind, sights }: Candidate): number {
  const [first] = sights;
  const { element, look } = first;
  const { tag = '', children } = element;
  let unity = 0.3;
  if (kind === 'list' || (first.isAuthored && THINGS.test(tag)) || element.role === 'dialog') unity = 1;
  else if (isThing(look)) unity = 1;
  else if (wordFor(first).length > 2) unity = 0.85;
  else if (look.hasFill) unity = 0.7;
  // What is around one thing is not that thing.
  else if (children.filter((child) => child.tag !== undefined && !child.hidden).length === 1) unity = 0.15;
  if (sizeOf(element) >= STRETCH && holds(element, (one) => one.tag === 'h1')) unity *= 0.4;
  if (kind === 'component' && landmarksIn(element) > 1) unity *= 0.3;
  return unity;
}

const holds = (element: Element, test: (one: Element) => boolean): boolean =>
  element.children.some((child) => test(child) || holds(child, test));

const landmarksIn = (element: Element): number =>
  element.children.reduce(
    (sum, child) => sum + (LANDMARKS.test(child.tag ?? '') ? 1 : landmarksIn(child)),
    0,
  );
