import { hash } from '../json/hash.ts';
import type { Box } from '../model/design.ts';
import { isRedrawn, type Pair, pairsWithin } from './pairs.ts';
import { type Account, attributed, smallestOver } from './attributed.ts';
import type { PixelDifference } from './pixel_difference.ts';
import { renderedName, type RenderedElement, renderedWithin } from './rendering.ts';
import { isPainted, type StyleDifference, styleDifferences } from './style_differences.ts';

export type DifferenceKind =
  | 'style'
  | 'font'
  | 'text'
  | 'missing'
  | 'added'
  | 'picture'
  | 'covered'
  | 'wraps'
  | 'cut'
  | 'size'
  | 'place'
  | 'unlike';

/** Something that makes one rendering another than its reference. */
export interface DifferenceCause {
  /** The same as long as the same differs in the same way. */
  readonly id: string;
  readonly kind: DifferenceKind;
  /** What it is about, as a person would call it. */
  readonly name: string;
  /** Where it is: in the running page, or where it was in the reference for what is missing. */
  readonly box: Box;
  /** Key of the design's element; null where that is not known. */
  readonly element: string | null;
  /** How many further elements differ in the very same way. */
  readonly alsoAt: number;
  readonly property?: string;
  readonly was?: string;
  readonly is?: string;
  /** What it is in words, without the name: `font-size 28 px, was 30 px`. */
  readonly says: string;
  /** Longhands with which it would be as it was; what `text` says. */
  readonly sets?: Readonly<Record<string, string>>;
  /** Whether somebody decided that it shall be so. */
  readonly isDecided: boolean;
  /** Differing pixels that it accounts for. */
  readonly pixels: number;
  /** How much a person would notice it: contrast over area, less further down. */
  readonly weight: number;
}

export interface CauseOptions {
  /** The key of the design's element that an element of the reference shows. */
  readonly keyOf?: (was: RenderedElement) => string | null;
  /** Whether somebody decided about a property of an element, or about its `text`. */
  readonly isDecided?: (element: string, property: string) => boolean;
}

/** A cause before it is known what it accounts for. */
export interface Draft {
  readonly kind: DifferenceKind;
  readonly at: Pair | null;
  /** Of what only one of the two shows. */
  readonly alone?: RenderedElement;
  readonly property?: string;
  readonly was?: string;
  readonly is?: string;
  readonly says: string;
  readonly sets?: Readonly<Record<string, string>>;
  /** All places that differ in this very way, this one first. */
  readonly boxes: Box[];
  also: number;
  /** Whether what follows it in the page is moved by it. */
  readonly moves: boolean;
}

/** By how many px a box may differ: browsers round. */
const NEAR = 1;

/**
 * What makes a rendering differ from its reference, what a person would notice first at the top. A difference is said where it comes
 * from: what is inherited at the element that says it, what is moved or resized by another one not at all, what many elements
 * share once. What shows in no pixel is no difference, but for what cannot be pressed.
 * @param pixels where the two pictures differ; without it everything that is computed otherwise is told
 */
export function causesOf(
  root: Pair,
  pixels: PixelDifference | null,
  options: CauseOptions = {},
): { readonly causes: DifferenceCause[]; readonly unexplained: number } {
  const drafts = draftsOf(root, pixels !== null && pixels.share < WHOLE_GROUND);
  const { accounts, left, all } = attributed(drafts, pixels);
  const found = pixels ? unlike(root, pixels, left) : { drafts: [], accounts: [] };
  drafts.push(...found.drafts);
  accounts.push(...found.accounts);
  const explained = found.accounts.reduce((sum, account) => sum + account.pixels, 0);
  const none = left.reduce((sum, count) => sum + count, 0) - explained;
  const causes = drafts.flatMap((draft, i) => {
    const account = accounts[i];
    if (pixels && !account.pixels && draft.kind !== 'covered') return [];
    const { kind, at, alone, property, was, is, says, sets, also } = draft;
    const shown = at?.is ?? alone!;
    if (pixels && kind !== 'covered' && kind !== 'text' && isUnseen(account.pixels, shown.box)) return [];
    const origin = at?.was ?? (kind === 'missing' ? alone! : null);
    const element = origin ? (origin.key ?? options.keyOf?.(origin) ?? null) : null;
    const decidedBy = sets ? Object.keys(sets) : [property ?? kind];
    const cause: DifferenceCause = {
      id: hash([kind, element ?? shown.path, property ?? '', was ?? '', is ?? says].join('|')),
      kind,
      name: renderedName(at?.was ?? shown),
      box: shown.box,
      element,
      alsoAt: also,
      ...(property === undefined ? {} : { property }),
      ...(was === undefined ? {} : { was }),
      ...(is === undefined ? {} : { is }),
      says,
      ...(sets ? { sets } : {}),
      isDecided: element !== null && decidedBy.some((one) => options.isDecided?.(element, one) ?? false),
      ...account,
    };
    return [cause];
  });
  causes.sort(
    (a, b) => Number(a.isDecided) - Number(b.isDecided) || b.weight - a.weight || b.pixels - a.pixels,
  );
  return { causes, unexplained: all ? none / all : 0 };
}

/** Fewer differing pixels than this, and than this part of a box, are how its edges were drawn. */
const LEAST_SEEN = 24;
const LEAST_PART_SEEN = 0.05;

const isUnseen = (pixels: number, { width, height }: Box): boolean =>
  pixels < LEAST_SEEN && pixels < LEAST_PART_SEEN * width * height;

/** Fewest differing pixels for an element to be told, and how many elements are. */
const LEAST_UNLIKE = 12;
const MOST_UNLIKE = 20;

/** What looks otherwise although nothing that is computed of it differs: a drawing that was read not quite as it is. */
function unlike(
  root: Pair,
  { tiles: { columns, rows, contrasts, counts } }: PixelDifference,
  left: Uint16Array,
): { readonly drafts: Draft[]; readonly accounts: Account[] } {
  const pairs = [...pairsWithin(root)];
  const owner = smallestOver(
    pairs.map(({ is }) => is.box),
    columns,
    rows,
  );
  const accounts = pairs.map(() => ({ pixels: 0, weight: 0 }));
  left.forEach((count, at) => {
    const account = accounts[owner[at]];
    if (!count || !account) return;
    account.pixels += count;
    account.weight += (contrasts[at] * count) / counts[at];
  });
  const told = pairs
    .map((at, i) => ({ at, account: accounts[i] }))
    .filter(({ account }) => account.pixels >= LEAST_UNLIKE)
    .sort((a, b) => b.account.weight - a.account.weight)
    .slice(0, MOST_UNLIKE);
  return {
    drafts: told.map(({ at, account: { pixels } }): Draft => {
      const area = Math.max(1, at.is.box.width * at.is.box.height);
      const percent = Math.min(100, Math.ceil((100 * pixels) / area));
      return {
        kind: 'unlike',
        at,
        says: `${percent} % of it looks otherwise`,
        boxes: [at.is.box],
        also: 0,
        moves: false,
      };
    }),
    accounts: told.map(({ account }) => account),
  };
}

/** @param isGroundSame whether what the page lies on looks the same, whichever element says so */
function draftsOf(root: Pair, isGroundSame: boolean): Draft[] {
  const own = new Map<Pair, Draft[]>();
  const drafts: Draft[] = [];
  const shared = new Map<string, Draft>();
  const add = (pair: Pair, draft: Omit<Draft, 'boxes' | 'also' | 'at'>): void => {
    const boxes = [pair.is.box, pair.was.box];
    const same = `${draft.kind} ${draft.says}`;
    // What several elements share is said once; what is about one only, as a place, is not shared.
    const isShared = SHARED.has(draft.kind) || (draft.kind === 'size' && CELLS.has(pair.was.tag));
    const first = isShared ? shared.get(same) : undefined;
    if (first) {
      first.boxes.push(...boxes);
      first.also++;
    }
    const made = first ?? { ...draft, at: pair, boxes, also: 0 };
    if (!first) {
      shared.set(same, made);
      drafts.push(made);
    }
    own.set(pair, [...(own.get(pair) ?? []), made]);
  };
  const styles = new Map<Pair, readonly StyleDifference[]>();
  for (const pair of pairsWithin(root))
    styles.set(pair, isRedrawn(pair) ? [] : styleDifferences(pair.was, pair.is));

  for (const pair of pairsWithin(root)) {
    const { was, is } = pair;
    const isWord = (alone: RenderedElement): boolean => !alone.children.length && alone.text !== '';
    // Words that stood in elements of their own may stand beside them.
    const saysSame =
      was.text !== is.text && [...pair.gone, ...pair.added].some(isWord) && saidIn(was) === saidIn(is);
    if (was.text !== is.text && !saysSame)
      add(pair, {
        kind: 'text',
        property: 'text',
        was: was.text,
        is: is.text,
        says: was.text
          ? is.text
            ? `says “${short(is.text)}”, was “${short(was.text)}”`
            : `says nothing, was “${short(was.text)}”`
          : `says “${short(is.text)}”, said nothing`,
        sets: { text: was.text },
        moves: true,
      });
    if (was.picture === 'shown' && is.picture === 'missing')
      add(pair, { kind: 'picture', says: 'picture missing', moves: true });
    if (was.font !== null && is.font !== null && was.font !== is.font)
      add(pair, {
        kind: 'font',
        property: 'font-family',
        was: was.font,
        is: is.font,
        says: `font falls back to ${is.font}, was ${was.font}`,
        moves: true,
      });
    if (is.cover && !was.cover)
      add(pair, {
        kind: 'covered',
        says: `covered by ${is.cover.name || 'another element'}, cannot be pressed`,
        moves: false,
      });
    for (const difference of styles.get(pair)!) {
      const { property, was: before, is: now, kind, sets } = difference;
      if (isGroundSame && WHOLE_PAGE.has(was.tag) && property.startsWith('background-')) continue;
      if (growsWithLetters(difference, styles.get(pair)!)) continue;
      if (kind === 'place' && !changesPlaces(pair, property)) continue;
      add(pair, {
        kind: 'style',
        property,
        was: before,
        is: now,
        says: `${property} ${now}, was ${before}`,
        sets,
        moves:
          kind === 'place' || (kind === 'text' && property !== 'color') || /width|visibility/.test(property),
      });
    }
    const isMissed = (alone: RenderedElement): boolean => shows(alone) && !(saysSame && isWord(alone));
    for (const alone of pair.gone) if (isMissed(alone)) drafts.push(aloneDraft('missing', alone));
    for (const alone of pair.added) if (isMissed(alone)) drafts.push(aloneDraft('added', alone));
  }
  const geometry = new Geometry(own);
  for (const pair of pairsWithin(root))
    // How high the page is follows from what is on it.
    if (!WHOLE_PAGE.has(pair.was.tag) && !isRedrawn(pair))
      for (const draft of geometry.unexplained(pair)) add(pair, draft);
  return drafts;
}

/** All letters that are said in an element, wherever in it, in no order. */
const saidIn = (element: RenderedElement): string =>
  Array.from(renderedWithin(element), ({ text }) => text)
    .join('')
    .replace(/\s+/g, '')
    .split('')
    .sort()
    .join('');

const WHOLE_PAGE = new Set(['html', 'body']);
/** A page on another ground differs in more than this part of its pixels. */
const WHOLE_GROUND = 0.01;
/** Cells of a column are as wide as each other. */
const CELLS = new Set(['td', 'th']);
/** Lines, and room that is measured in letters, are larger where these are. */
function growsWithLetters({ property, was, is }: StyleDifference, all: readonly StyleDifference[]): boolean {
  const letters = all.find((other) => other.property === 'font-size');
  if (!letters || property === 'font-size') return false;
  if (property === 'line-height') return true;
  if (!/^(margin|padding)/.test(property)) return false;
  const share = (one: Pick<StyleDifference, 'was' | 'is'>): number =>
    parseFloat(one.is) / parseFloat(one.was);
  return Math.abs(share({ was, is }) / share(letters) - 1) < 0.02;
}

const SHARED = new Set<DifferenceKind>(['style', 'font']);

const aloneDraft = (kind: 'missing' | 'added', alone: RenderedElement): Draft => ({
  kind,
  at: null,
  alone,
  says: kind === 'missing' ? 'is missing' : 'is not in the reference',
  boxes: [...renderedWithin(alone)].map(({ box }) => box),
  also: 0,
  moves: true,
});

const short = (text: string): string => (text.length > 60 ? `${text.slice(0, 59).trimEnd()}…` : text);

/** Whether anything of it can be seen. */
function shows(element: RenderedElement): boolean {
  for (const inner of renderedWithin(element))
    if (
      inner.box.width > 0 &&
      inner.box.height > 0 &&
      (inner.text || inner.picture || inner.isIcon || isPainted(inner) || inner.isPressable)
    )
      return true;
  return false;
}

const far = (difference: number): boolean => Math.abs(difference) > NEAR;

/** How much wider and higher a pair is than it was, and how far it stands from where it stood in what is around it. */
const moved = (pair: Pair): Movement => movedFrom(pair, pair.parent);

interface Movement {
  readonly dw: number;
  readonly dh: number;
  readonly dx: number;
  readonly dy: number;
}

function movedFrom({ was, is }: Pair, parent: Pair | null): Movement {
  const from = (axis: 'x' | 'y'): number =>
    parent
      ? is.box[axis] - parent.is.box[axis] - (was.box[axis] - parent.was.box[axis])
      : is.box[axis] - was.box[axis];
  return {
    dw: is.box.width - was.box.width,
    dh: is.box.height - was.box.height,
    dx: from('x'),
    dy: from('y'),
  };
}

const isMoved = (pair: Pair): boolean => Object.values(moved(pair)).some(far);

/** Whether what an element says of places can be what changed some. */
function changesPlaces(pair: Pair, property: string): boolean {
  const { dw, dh, dx, dy } = moved(pair);
  const side = /-(top|right|bottom|left)$/.exec(property)?.[1];
  const isAcross = side === 'left' || side === 'right';
  const siblings = pair.parent?.children.filter((other) => other !== pair) ?? [];
  if (property.startsWith('padding')) {
    // Seen by where what stands in it went; from what is around it, since wrappers may hold the same room otherwise.
    const inner = pair.children.map((child) => movedFrom(child, pair.parent));
    const across = pair.children.length ? inner.some((child) => far(child.dx) || far(child.dw)) : far(dw);
    const along = pair.children.length
      ? inner.some((child) => far(child.dy) || far(child.dh)) || far(dh)
      : far(dh);
    return side ? (isAcross ? across : along) : across || along;
  }
  if (property.startsWith('margin')) {
    // What is told of margins that share out what is left over follows from the sizes around.
    if (side && isAcross) return (far(dx) || far(dw)) && !siblings.some((other) => far(moved(other).dw));
    const around = pair.parent ? moved(pair.parent).dh : 0;
    return (
      far(dy) ||
      far(around) ||
      siblings.some((other) => far(moved(other).dy)) ||
      (!side && (far(dx) || far(dw)))
    );
  }
  if (property === 'position' || property === 'order') return isMoved(pair) || siblings.some(isMoved);
  // How what stands in it is laid out; a box of its own shows by what it does to others.
  if (/gap|flex|justify|align/.test(property)) return pair.children.some(isMoved) || far(dh) || far(dw);
  return pair.children.some(isMoved) || siblings.some(isMoved);
}

/** Tells which changes of size and place follow from others, and words those that do not. */
class Geometry {
  readonly #own: ReadonlyMap<Pair, readonly Draft[]>;
  readonly #tables = new Map<Pair, boolean>();

  constructor(own: ReadonlyMap<Pair, readonly Draft[]>) {
    this.#own = own;
  }

  *unexplained(pair: Pair): Generator<Omit<Draft, 'boxes' | 'also' | 'at'>> {
    const { was, is } = pair;
    const { dw, dh, dx, dy } = moved(pair);
    const isOwn = this.#hasMoving(pair);
    const width = far(dw) && !isOwn && !this.#followsWidth(pair);
    const isWrapped = is.lines !== was.lines && is.text === was.text && !isOwn && !width;
    if (isWrapped && !this.#followsWidth(pair))
      yield {
        kind: 'wraps',
        was: String(was.lines),
        is: String(is.lines),
        says: `wraps to ${lines(is.lines)}, was ${was.lines}`,
        moves: true,
      };
    if (is.cut && !was.cut && is.text)
      yield {
        kind: 'cut',
        says: `text is cut off by ${Math.round(Math.max(is.cut.x, is.cut.y))} px`,
        moves: false,
      };
    if (width) yield { kind: 'size', says: `${px(dw)} ${dw < 0 ? 'narrower' : 'wider'}`, moves: true };
    if (far(dh) && !isOwn && !isWrapped && !this.#followsHeight(pair))
      yield { kind: 'size', says: `${px(dh)} ${dh < 0 ? 'lower' : 'higher'}`, moves: true };
    if ((far(dx) || far(dy)) && !isOwn && !this.#followsPlace(pair))
      yield {
        kind: 'place',
        says: [
          far(dx) ? `${px(dx)} further ${dx < 0 ? 'left' : 'right'}` : '',
          far(dy) ? `${px(dy)} further ${dy < 0 ? 'up' : 'down'}` : '',
        ]
          .filter(Boolean)
          .join(', '),
        moves: false,
      };
  }

  #hasMoving = (pair: Pair): boolean => this.#own.get(pair)?.some(({ moves }) => moves) ?? false;

  /** Whether what stands in it changed, so that it has another size. */
  #isFilledOtherwise = (pair: Pair, of: 'dw' | 'dh'): boolean =>
    pair.gone.some(shows) ||
    pair.added.some(shows) ||
    pair.children.some((child) => {
      const change = moved(child);
      return far(change[of]) || far(of === 'dh' ? change.dy : change.dx) || this.#hasMoving(child);
    });

  #followsWidth(pair: Pair): boolean {
    const { parent } = pair;
    if (!parent) return false;
    if (CELLS.has(pair.was.tag) && this.#isTableFilledOtherwise(pair)) return true;
    const { dw } = moved(pair);
    const around = moved(parent).dw;
    // What fills its surroundings, or a share of them.
    if (far(around) && Math.sign(around) === Math.sign(dw)) return true;
    if (this.#hasMoving(parent)) return true;
    const siblings = parent.children.filter((other) => other !== pair);
    if (parent.gone.some(shows) || parent.added.some(shows)) return true;
    // What shares a row with something that has another width now.
    if (siblings.some((other) => this.#hasMoving(other) && far(moved(other).dw) && isBefore(other, pair)))
      return true;
    return this.#isFilledOtherwise(pair, 'dw');
  }

  /** Columns are as wide as what stands in any of their rows asks for. */
  #isTableFilledOtherwise(cell: Pair): boolean {
    let table: Pair = cell;
    while (table.parent && table.was.tag !== 'table') table = table.parent;
    let is = this.#tables.get(table);
    if (is === undefined) {
      is = [...pairsWithin(table)].some(
        (inner) => this.#hasMoving(inner) || inner.gone.some(shows) || inner.added.some(shows),
      );
      this.#tables.set(table, is);
    }
    return is;
  }

  #followsHeight(pair: Pair): boolean {
    if (this.#isFilledOtherwise(pair, 'dh')) return true;
    const { dw, dh } = moved(pair);
    // Narrower text takes more lines; pictures keep their shape.
    if (far(dw) && (pair.was.text || pair.was.tag === 'img')) return true;
    const { parent } = pair;
    if (!parent) return false;
    if (this.#hasMoving(parent)) return true;
    const around = moved(parent).dh;
    return (
      far(around) &&
      Math.sign(around) === Math.sign(dh) &&
      parent.children.some((other) => other !== pair && (this.#hasMoving(other) || far(moved(other).dh)))
    );
  }

  #followsPlace(pair: Pair): boolean {
    const { parent } = pair;
    if (!parent) return false;
    const change = moved(pair);
    const around = moved(parent);
    if (this.#hasMoving(parent)) return true;
    if (parent.gone.some(shows) || parent.added.some(shows)) return true;
    // What is centred or pushed to an end goes with the sizes around it and its own.
    if (far(change.dw) || far(change.dh) || far(around.dw) || far(around.dh)) return true;
    return parent.children.some(
      (other) =>
        other !== pair &&
        (this.#hasMoving(other) ||
          far(moved(other).dw) ||
          far(moved(other).dh) ||
          (isBefore(other, pair) && isMoved(other))),
    );
  }
}

const isBefore = (a: Pair, b: Pair): boolean => a.parent!.children.indexOf(a) < b.parent!.children.indexOf(b);

const px = (difference: number): string => `${Math.round(Math.abs(difference))} px`;
const lines = (count: number): string => `${count} ${count === 1 ? 'line' : 'lines'}`;
