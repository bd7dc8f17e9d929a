import type { Token } from '../model/app.ts';
import type { Screen } from '../model/design.ts';
import { hash } from '../json/hash.ts';
import { sentenceCase } from '../model/names.ts';
import { hueWord, proposeTokens, type ValueUse, valueUses } from '../tokens/find.ts';
import { normalValue } from '../tokens/values.ts';
import { colorsApart, hexOfLch, hueBetween, type Lch, lchOf, turned } from './lch.ts';

/** What of the look of an app can be tried otherwise. */
export const ASPECTS = ['colour', 'type', 'space', 'corners'] as const;
export type Aspect = (typeof ASPECTS)[number];

/** Another look of the whole app, made by rule from its own values. */
export interface Dress {
  /** The same for the same look. */
  readonly id: string;
  /** What is otherwise, in words: `Blue, larger headings, denser`. */
  readonly name: string;
  /** All values of the app as they would be, by the names of `lookValues`. */
  readonly tokens: Readonly<Record<string, Token>>;
  /** How far it is from what is there, 0 to 1. */
  readonly far: number;
}

export interface DressWish {
  readonly aspects: readonly Aspect[];
  readonly count: number;
  /** About how far they are from what is there, above 0 up to 1. */
  readonly far: number;
  /** A colour that those of the app are made from; where none is said, they turn around the wheel. */
  readonly color?: string;
}

/** The values that are named already, and those that recur and could be. */
export const lookValues = (
  screens: readonly Screen[],
  tokens: Readonly<Record<string, Token>>,
): Readonly<Record<string, Token>> => ({
  ...Object.fromEntries(proposeTokens(screens, tokens).map(({ name, token }) => [name, token])),
  ...tokens,
});

/** How an alternative differs: each aspect by a number or two, 0 and 1 for what is there. */
interface Cut {
  /** Degrees that the main colours turn by. */
  readonly turn: number;
  /** Factors of how strong colours are, of how much larger type is than the usual, of spaces and of corners. */
  readonly strength: number;
  readonly steps: number;
  readonly space: number;
  readonly corners: number;
}
const AS_IT_IS: Cut = { turn: 0, strength: 1, steps: 1, space: 1, corners: 1 };

/** So many cuts are tried for each one that is wanted. */
const TRIED = 12;

/**
 * Other looks of an app, the nearest first, each another one. Colours keep their lightness and with it their contrast; type keeps the
 * size of running text. They are spread evenly over what is possible by a sequence of low discrepancy (additive recurrence with
 * the generalised golden ratio, Roberts 2018).
 */
export function dressesOf(
  screens: readonly Screen[],
  tokens: Readonly<Record<string, Token>>,
  { aspects, count, far, color }: DressWish,
): Dress[] {
  const all = lookValues(screens, tokens);
  const uses = new Map(valueUses(screens).map((use) => [`${use.kind} ${use.value}`, use]));
  const values = new Values(all, uses);
  const found = new Map<string, Dress>();
  for (let i = 0; i < count * TRIED; i++) {
    const cut = cutOf(i, new Set(aspects), far, values.turnTo(color), color !== undefined);
    const dress = values.dress(cut);
    if (dress.far > 0 && !found.has(dress.id)) found.set(dress.id, dress);
  }
  return spread([...found.values()], count, far).sort((a, b) => a.far - b.far || (a.id < b.id ? -1 : 1));
}

/** Solutions of x^(d+1) = x + 1 for d = 5: each number of a cut goes through its room at a pace of its own. */
const PACE = [1, 2, 3, 4, 5].map((power) => 1 / 1.1347241384015194 ** power);

/** The i-th way to cut a dress, within how far it may go. */
function cutOf(
  i: number,
  aspects: ReadonlySet<Aspect>,
  far: number,
  toColor: { readonly turn: number; readonly strength: number },
  isGiven: boolean,
): Cut {
  /** From -1 to 1. */
  const at = (which: number): number => ((0.5 + (i + 1) * PACE[which]) % 1) * 2 - 1;
  const reach = Math.min(1, Math.max(0.05, far));
  const factor = (which: number, most: number): number => most ** (at(which) * reach);
  return {
    ...AS_IT_IS,
    ...(aspects.has('colour')
      ? isGiven
        ? { turn: toColor.turn + at(0) * 30 * reach, strength: toColor.strength * factor(1, 1.3) }
        : { turn: at(0) * 180 * reach, strength: factor(1, 1.6) }
      : {}),
    ...(aspects.has('type') ? { steps: factor(2, 1.5) } : {}),
    ...(aspects.has('space') ? { space: factor(3, 1.6) } : {}),
    ...(aspects.has('corners') ? { corners: cornersAt(at(4), reach) } : {}),
  };
}

/** Square, or up to four times as round. */
const cornersAt = (at: number, reach: number): number => (at < -0.6 ? 0 : 4 ** (at * reach));

/** Colours whose hue is so near that of the main one belong to it, in degrees; the others mean something of their own. */
const FAMILY = 45;
/** Stronger than this makes no colour more of a main one: what warns is strong, and rare. */
const FULL = 15;
/** What is filled with a colour says so much more of it than a text or a line. */
const FILLED = 3;
/** Orange and yellow that are darker than this are brown. */
const DARK = 50;
/** Lighter than this is a tint. */
const LIGHT = 85;
/** Colours below this chroma are greys. */
const GREY = 8;
/** Type is not made smaller than this, in px. */
const LEAST_TYPE = 11;

/** The values of an app, ready to be made otherwise. */
class Values {
  readonly #tokens: readonly (readonly [name: string, token: Token, uses: number])[];
  readonly #main: Lch | null;
  readonly #body: number;

  constructor(tokens: Readonly<Record<string, Token>>, uses: ReadonlyMap<string, ValueUse>) {
    const usesOf = ({ kind, from }: Token): number =>
      from.reduce((sum, value) => sum + (uses.get(`${kind} ${normalValue(kind, value)}`)?.uses ?? 0), 0);
    this.#tokens = Object.entries(tokens).map(([name, token]) => [name, token, usesOf(token)]);
    let most = 0;
    this.#main = null;
    for (const [, { kind, value, from }, count] of this.#tokens) {
      const color = kind === 'color' ? lchOf(value) : null;
      if (!color || color.c < GREY) continue;
      const filled = from.reduce(
        (sum, one) =>
          sum + (uses.get(`color ${normalValue('color', one)}`)?.properties['background-color'] ?? 0),
        0,
      );
      // Light tints are what stands behind, whatever they are of.
      const weight = color.l > LIGHT ? 0 : Math.min(color.c, FULL) * (count + FILLED * filled);
      if (weight <= most) continue;
      most = weight;
      this.#main = color;
    }
    const sizes = this.#tokens.filter(([, { kind }]) => kind === 'size').sort((a, b) => b[2] - a[2]);
    this.#body = sizes.length ? parseFloat(sizes[0][1].value) : 16;
  }

  /** What makes the main colour another one; nothing where there is none. */
  turnTo(color: string | undefined): { readonly turn: number; readonly strength: number } {
    const to = color === undefined ? null : lchOf(color);
    if (!to || !this.#main) return { turn: 0, strength: 1 };
    return {
      turn: hueBetween(this.#main.h, to.h),
      strength: Math.min(2, Math.max(0.1, to.c / this.#main.c)),
    };
  }

  dress(cut: Cut): Dress {
    const tokens: Record<string, Token> = {};
    let [apart, all] = [0, 0];
    for (const [name, token, uses] of this.#tokens) {
      const value = this.#otherwise(token, cut);
      const weight = Math.sqrt(uses + 1);
      all += weight;
      apart += weight * valuesApart(token, value);
      tokens[name] = { ...token, value };
    }
    const said = Object.entries(tokens).map(([name, { kind, value }]) => [name, kind, value]);
    return {
      id: hash(JSON.stringify(said.sort())),
      name: this.#wordsFor(cut),
      tokens,
      far: all ? Math.min(1, apart / all) : 0,
    };
  }

  #otherwise({ kind, value }: Token, { turn, strength, steps, space, corners }: Cut): string {
    switch (kind) {
      case 'color':
        return this.#colorOf(value, turn, strength);
      case 'size': {
        const size = lengthOf(value);
        if (size === null || steps === 1) return value;
        const other = this.#body * (size / this.#body) ** steps;
        return `${Math.max(Math.min(size, LEAST_TYPE), rounded(other, 0.5))}px`;
      }
      case 'space': {
        const size = lengthOf(value);
        return size === null || space === 1 ? value : `${Math.max(1, rounded(size * space, 1))}px`;
      }
      case 'radius': {
        const size = lengthOf(value);
        // What is round all over stays so, unless everything becomes square.
        if (size === null || corners === 1 || (size >= 99 && corners > 0)) return value;
        return `${rounded(size * corners, 1)}px`;
      }
      default:
        return value;
    }
  }

  #colorOf(value: string, turn: number, strength: number): string {
    const color = lchOf(value);
    if (!color || !this.#main || (turn === 0 && strength === 1)) return value;
    if (color.c < GREY) return value;
    if (Math.abs(hueBetween(this.#main.h, color.h)) > FAMILY) return value;
    return hexOfLch({ ...color, c: color.c * strength, h: turned(color.h + turn) });
  }

  #wordsFor({ turn, strength, steps, space, corners }: Cut): string {
    const words: string[] = [];
    const main = this.#main;
    if (main && (turn !== 0 || strength !== 1)) {
      const word = hueWord(hexOfLch({ ...main, c: main.c * strength, h: turned(main.h + turn) }));
      const shade = strength > 1.15 ? 'strong ' : strength < 0.85 ? 'soft ' : '';
      words.push(`${shade}${main.l < DARK && /orange|yellow/.test(word) ? 'brown' : word}`);
    }
    if (steps > 1.04) words.push('larger headings');
    if (steps < 0.96) words.push('smaller headings');
    if (space > 1.04) words.push('roomier');
    if (space < 0.96) words.push('denser');
    if (corners === 0) words.push('square corners');
    else if (corners > 1.1) words.push('rounder');
    else if (corners < 0.9) words.push('less round');
    return sentenceCase(words.join(', ') || 'nearly as it is');
  }
}

const lengthOf = (value: string): number | null => {
  const number = /^([\d.]+)px$/.exec(value)?.[1];
  return number === undefined ? null : Number(number);
};

const rounded = (value: number, to: number): number => Math.round(value / to) * to;

/** How far a value is from what it was, 0 to 1. */
function valuesApart({ kind, value }: Token, other: string): number {
  if (value === other) return 0;
  if (kind === 'color') {
    const [a, b] = [lchOf(value), lchOf(other)];
    return a && b ? Math.min(1, colorsApart(a, b) / 80) : 0;
  }
  const [a, b] = [lengthOf(value), lengthOf(other)];
  if (a === null || b === null) return 0;
  return Math.min(1, Math.abs(Math.log2((b + 1) / (a + 1))) / 1.5);
}

/** Those that are about as far as is wished, and as far as can be from each other. */
function spread(found: readonly Dress[], count: number, far: number): Dress[] {
  const farthest = Math.max(0, ...found.map((dress) => dress.far));
  const near = found.toSorted(
    (a, b) => Math.abs(a.far - far * farthest) - Math.abs(b.far - far * farthest) || (a.id < b.id ? -1 : 1),
  );
  const open = near.slice(0, count * (TRIED >> 1));
  const chosen: Dress[] = open.splice(0, 1);
  while (chosen.length < count && open.length) {
    const apartFrom = (dress: Dress): number => Math.min(...chosen.map((one) => dressesApart(one, dress)));
    const next = open.reduce((best, dress) => (apartFrom(dress) > apartFrom(best) ? dress : best));
    open.splice(open.indexOf(next), 1);
    chosen.push(next);
  }
  return chosen;
}

/** Both are made of the same values in the same order. */
function dressesApart(a: Dress, b: Dress): number {
  const [x, y] = [Object.values(a.tokens), Object.values(b.tokens)];
  return x.reduce((sum, token, i) => sum + valuesApart(token, y[i].value), 0);
}
