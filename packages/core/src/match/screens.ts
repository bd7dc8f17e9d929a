import type { Screen } from '../model/design.ts';
import { baseName } from '../intake/files.ts';
import { bestAssignment } from './assign.ts';
import { hashText, type Traits, traitsOf } from './traits.ts';

/** What a screen of the newer design is of one of the older. */
export type ScreenKinship =
  /** The same screen, from the same file or another. */
  | 'same'
  /** A part of a screen that stays. */
  | 'part'
  /** A screen that went into another one. */
  | 'joined'
  /** A screen that stays, at another width. */
  | 'width';

export interface ScreenPair {
  readonly old: Screen;
  readonly now: Screen;
  readonly kinship: ScreenKinship;
  /** Another of the newer screens, all of which the newer drawing shows and the older did not: it may lie beneath. */
  readonly over?: Screen;
  /** How sure that is, 0 to 1. */
  readonly score: number;
}

/** Least evidence for two screens to be one. */
const LEAST = 0.3;
/** How much of what a screen shows has to be in another one for it to come from there. */
const MOST_OF = 0.6;
/** How much more of another screen a drawing has to show than before for that one to have come beneath it. */
const CAME_BENEATH = 0.35;
/** From this ratio of widths on, two drawings of one screen are for different windows. */
const WIDTH_RATIO = 1.25;
/** More screens than this are matched best first. */
const MOST_ASSIGNED = 400;

/** What a screen shows: hashes of words, pictures, labels and ids, each once. */
function tokensOf(screen: Screen): ReadonlySet<number> {
  const tokens = new Set<number>();
  for (const one of traitsOf(screen.root)) {
    for (const word of one.words) tokens.add(hashText(word));
    if (one.words.length > 1) tokens.add(hashText(one.text, 1));
    if (one.label) tokens.add(hashText(one.label, 3));
    if (one.picture) tokens.add(hashText(String(one.picture), 5));
    if (one.id) tokens.add(hashText(one.id, 7));
    if (one.name) tokens.add(hashText(one.name, 9));
  }
  return tokens;
}

/** Weights of tokens by how few screens have them; what all share, as a navigation, says little. */
class Rarity {
  readonly #weights = new Map<number, number>();

  constructor(all: readonly ReadonlySet<number>[]) {
    const counts = new Map<number, number>();
    for (const tokens of all) for (const token of tokens) counts.set(token, (counts.get(token) ?? 0) + 1);
    for (const [token, count] of counts) this.#weights.set(token, Math.log(1 + all.length / count));
  }

  weight(token: number): number {
    return this.#weights.get(token)!;
  }

  total(tokens: ReadonlySet<number>): number {
    let sum = 0;
    for (const token of tokens) sum += this.weight(token);
    return sum;
  }

  shared(a: ReadonlySet<number>, b: ReadonlySet<number>): number {
    const [small, large] = a.size < b.size ? [a, b] : [b, a];
    let sum = 0;
    for (const token of small) if (large.has(token)) sum += this.weight(token);
    return sum;
  }
}

const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Finds which screens are which in a newer design: the best assignment by file, name, authored id and what they show,
 * where what few screens show says most (weights after Spärck Jones, 1972). What is left over may be a part of a screen
 * that stays, may have gone into one, or may be one at another width.
 * @param beneath screens that do not come again, over which some may be drawn now
 */
export function matchScreens(
  olds: readonly Screen[],
  nows: readonly Screen[],
  beneath: readonly Screen[] = [],
): ScreenPair[] {
  const shown = new Map<Screen, ReadonlySet<number>>();
  for (const screen of [...olds, ...nows, ...beneath]) shown.set(screen, tokensOf(screen));
  const rarity = new Rarity([...shown.values()]);
  const totals = new Map([...shown].map(([screen, tokens]) => [screen, rarity.total(tokens)]));
  const evidence = (old: Screen, now: Screen): number => {
    const both = rarity.shared(shown.get(old)!, shown.get(now)!);
    const either = totals.get(old)! + totals.get(now)! - both;
    const content = either ? both / either : 0.5;
    const isSameFile = old.source.file === now.source.file && old.source.path === now.source.path;
    const isSameStem =
      baseName(old.source.file) === baseName(now.source.file) && old.source.path === now.source.path;
    const isSameName = sameName(old.name, now.name);
    const isBuiltAlike = rootOf(old).build === rootOf(now).build;
    return (
      content +
      (isSameFile ? 0.45 : isSameStem ? 0.3 : 0) +
      (isSameName ? 0.2 : 0) +
      (isBuiltAlike ? 0.1 : 0) -
      (widthsDiffer(old, now) ? 0.25 : 0)
    );
  };
  const pairs: ScreenPair[] = [];
  const take = (old: Screen, now: Screen, found: number): void =>
    void pairs.push({ old, now, kinship: 'same', score: round(1 - Math.exp(-3 * found)) });
  if (Math.max(olds.length, nows.length) <= MOST_ASSIGNED) {
    const worth = olds.map((old) =>
      Float64Array.from(nows, (now) => {
        const found = evidence(old, now);
        return found < LEAST ? 0 : found;
      }),
    );
    bestAssignment(worth, nows.length).forEach((j, i) => j >= 0 && take(olds[i], nows[j], worth[i][j]));
  } else {
    const byFile = new Map(olds.map((old) => [`${old.source.file} ${old.source.path}`, old]));
    for (const now of nows) {
      const old = byFile.get(`${now.source.file} ${now.source.path}`);
      if (old) take(old, now, Math.max(LEAST, evidence(old, now)));
    }
  }
  const newOf = new Map(pairs.map((pair) => [pair.old, pair.now]));
  const oldOf = new Map(pairs.map((pair) => [pair.now, pair.old]));
  const extra = (
    left: readonly Screen[],
    others: readonly Screen[],
    kinOf: (one: Screen, other: Screen) => ScreenPair,
    stillThere: (one: Screen, other: Screen) => number,
  ): void => {
    for (const one of left) {
      let best: Screen | null = null;
      let most = 0;
      for (const other of others) {
        if (other === one) continue;
        const own = totals.get(one)!;
        const within = own ? rarity.shared(shown.get(one)!, shown.get(other)!) / own : 0;
        const added = within - stillThere(one, other);
        if (within >= MOST_OF && added > most) [best, most] = [other, added];
      }
      if (best) pairs.push(kinOf(one, best));
    }
  };
  // A new screen that shows what an old one showed and its own next version no longer does.
  extra(
    nows.filter((now) => !oldOf.has(now)),
    olds,
    (now, old) => ({
      old,
      now,
      kinship: newOf.has(old) && widthsDiffer(newOf.get(old)!, now) ? 'width' : 'part',
      score: 0.7,
    }),
    (now, old) => {
      const next = newOf.get(old);
      if (!next || widthsDiffer(next, now)) return 0;
      return rarity.shared(shown.get(now)!, shown.get(next)!) / Math.max(1e-9, totals.get(now)!);
    },
  );
  extra(
    olds.filter((old) => !newOf.has(old)),
    nows,
    (old, now) => ({ old, now, kinship: 'joined', score: 0.7 }),
    (old, now) => {
      const before = oldOf.get(now);
      return before
        ? rarity.shared(shown.get(old)!, shown.get(before)!) / Math.max(1e-9, totals.get(old)!)
        : 0;
    },
  );
  const share = (of: Screen, within: Screen): number =>
    rarity.shared(shown.get(of)!, shown.get(within)!) / Math.max(1e-9, totals.get(of)!);
  return pairs.map((pair) => {
    if (pair.kinship !== 'same' || rootOf(pair.old).exact === rootOf(pair.now).exact) return pair;
    let over: Screen | null = null;
    let most = CAME_BENEATH;
    for (const other of [...nows, ...beneath]) {
      if (other === pair.now || other === pair.old) continue;
      const within = share(other, pair.now);
      const came = within - share(oldOf.get(other) ?? other, pair.old);
      if (within >= MOST_OF && came > most) [over, most] = [other, came];
    }
    return over ? { ...pair, over } : pair;
  });
}

const rootOf = (screen: Screen): Traits => traitsOf(screen.root)[0];
const round = (value: number): number => Math.round(value * 1000) / 1000;
const widthsDiffer = (a: Screen, b: Screen): boolean =>
  Math.max(a.width, b.width) > Math.min(a.width, b.width) * WIDTH_RATIO;
