import type { Token, TokenKind } from '../model/app.ts';
import type { Declarations, Screen } from '../model/design.ts';
import { walkElements } from '../model/project.ts';
import { uniqueName } from '../model/names.ts';
import { channelsOf } from '../roles/sight.ts';
import { kindOfProperty, normalValue } from './values.ts';
import { onceFor } from '../json/once_for.ts';

/** A value that recurs in a design. */
export interface ValueUse {
  readonly kind: TokenKind;
  /** In the one spelling that values of its kind are compared by. */
  readonly value: string;
  /** As often as some element says so. */
  readonly uses: number;
  /** How often as which property. */
  readonly properties: Readonly<Record<string, number>>;
}

export interface TokenProposal {
  readonly name: string;
  readonly token: Token;
  readonly uses: number;
}

/** Two values that are so near each other that one will do. */
export interface MergeProposal {
  readonly id: string;
  readonly kind: TokenKind;
  readonly keep: string;
  readonly drop: string;
  readonly uses: number;
  readonly reason: string;
}

/** The values that screens use, by kind, the most frequent first. */
export function valueUses(screens: readonly Screen[]): ValueUse[] {
  const all = new Map<
    string,
    { kind: TokenKind; value: string; uses: number; properties: Record<string, number> }
  >();
  for (const screen of screens)
    for (const [key, use] of usesOf(screen)) {
      const known = all.get(key) ?? { ...use, uses: 0, properties: {} };
      known.uses += use.uses;
      for (const [property, n] of Object.entries(use.properties))
        known.properties[property] = (known.properties[property] ?? 0) + n;
      all.set(key, known);
    }
  return [...all.values()].sort(
    (a, b) =>
      (a.kind < b.kind ? -1 : a.kind > b.kind ? 1 : 0) || b.uses - a.uses || (a.value < b.value ? -1 : 1),
  );
}

const usesOf = onceFor((screen: Screen): ReadonlyMap<string, ValueUse> => {
  const found = new Map<
    string,
    { kind: TokenKind; value: string; uses: number; properties: Record<string, number> }
  >();
  const take = (css: Declarations | undefined): void => {
    const seen = new Set<string>();
    for (const [property, raw] of Object.entries(css ?? {})) {
      const kind = kindOfProperty(property);
      if (!kind || !isCandidate(kind, raw)) continue;
      const value = normalValue(kind, raw);
      const key = `${kind} ${value}`;
      const group = property.replace(/-(top|right|bottom|left)(?=-|$)/g, '');
      // Four sides of one element are one use.
      if (seen.has(`${key} ${group}`)) continue;
      seen.add(`${key} ${group}`);
      const use = found.get(key) ?? { kind, value, uses: 0, properties: {} };
      use.uses++;
      use.properties[group] = (use.properties[group] ?? 0) + 1;
      found.set(key, use);
    }
  };
  walkElements(screen.root, ({ style }) => {
    take(style.base);
    take(style.hover);
    for (const css of Object.values(style.at ?? {})) take(css);
  });
  return found;
});

function isCandidate(kind: TokenKind, value: string): boolean {
  if (value.includes('var(')) return false;
  switch (kind) {
    case 'color':
      return (channelsOf(value.toLowerCase())?.[3] ?? 0) > 0;
    case 'size':
    case 'space':
    case 'radius':
      // Odd fractions come from where things were drawn, not from a scale.
      return /^\d+(\.5)?px$/.test(value) && parseFloat(value) >= 2;
    case 'weight':
      return /^(\d{3}|bold|normal)$/.test(value);
    case 'shadow':
      return value !== 'none';
  }
}

/** A value is worth a name from so many uses on. */
const LEAST_USES: Readonly<Record<TokenKind, number>> = {
  color: 3,
  size: 3,
  weight: 4,
  space: 5,
  radius: 3,
  shadow: 2,
};
const MOST_TOKENS: Readonly<Record<TokenKind, number>> = {
  color: 24,
  size: 12,
  weight: 5,
  space: 14,
  radius: 6,
  shadow: 6,
};

/** Names for the values that recur and have none yet. */
export function proposeTokens(
  screens: readonly Screen[],
  tokens: Readonly<Record<string, Token>>,
): TokenProposal[] {
  const named = new Set(
    Object.values(tokens).flatMap((token) =>
      token.from.map((value) => `${token.kind} ${normalValue(token.kind, value)}`),
    ),
  );
  const uses = valueUses(screens).filter((use) => use.uses >= LEAST_USES[use.kind]);
  const taken = new Set(Object.keys(tokens));
  const proposals: TokenProposal[] = [];
  for (const kind of Object.keys(LEAST_USES) as TokenKind[]) {
    const own = uses.filter((use) => use.kind === kind).slice(0, MOST_TOKENS[kind]);
    const names = namesOf(kind, own);
    own.forEach((use, i) => {
      if (named.has(`${kind} ${use.value}`)) return;
      const name = uniqueName(names[i], (candidate) => taken.has(candidate));
      taken.add(name);
      proposals.push({ name, token: { kind, value: use.value, from: [use.value] }, uses: use.uses });
    });
  }
  return proposals;
}

/** Names by what values are for and how they stand to each other, so that a name holds when its value changes. */
function namesOf(kind: TokenKind, uses: readonly ValueUse[]): string[] {
  if (kind === 'color') return colorNames(uses);
  if (kind === 'weight') return uses.map((use) => `weight-${WEIGHTS[use.value] ?? use.value}`);
  const size = (use: ValueUse): number => parseFloat(use.value) || 0;
  const sorted = uses.toSorted((a, b) => size(a) - size(b));
  const rank = (use: ValueUse): number => sorted.indexOf(use);
  switch (kind) {
    case 'size': {
      const base = sorted.indexOf(uses[0]);
      return uses.map((use) => `text-${stepName(rank(use) - base)}`);
    }
    case 'radius':
      return uses.map((use) => (size(use) >= 99 ? 'radius-full' : `radius-${rank(use) + 1}`));
    default:
      return uses.map((use) => `${kind}-${rank(use) + 1}`);
  }
}

const WEIGHTS: Readonly<Record<string, string>> = {
  '100': 'thin',
  '200': 'extralight',
  '300': 'light',
  '400': 'regular',
  '500': 'medium',
  '600': 'semibold',
  '700': 'bold',
  '800': 'extrabold',
  '900': 'black',
};

/** How far a size is from the usual one. */
function stepName(step: number): string {
  if (step === 0) return 'body';
  if (step < 0) return step === -1 ? 'small' : `small-${-step}`;
  return step === 1 ? 'large' : `large-${step}`;
}

function colorNames(uses: readonly ValueUse[]): string[] {
  const most = (property: string): ValueUse | undefined =>
    uses.toSorted((a, b) => (b.properties[property] ?? 0) - (a.properties[property] ?? 0))[0];
  const text = most('color');
  const ground = most('background-color');
  const line = most('border-color');
  return uses.map((use) => {
    if (use === text && (use.properties.color ?? 0) > 0) return 'color-text';
    if (use === ground && (use.properties['background-color'] ?? 0) > 0) return 'color-ground';
    if (use === line && (use.properties['border-color'] ?? 0) > 0) return 'color-line';
    return `color-${hueName(use.value)}`;
  });
}

/** A colour in words: its hue, and how light it is from 0 (black) to 9 (white). */
export function hueName(hex: string): string {
  const [r, g, b] = channelsOf(hex) ?? [0, 0, 0];
  const [l, a, bb] = labOf([r, g, b]);
  const chroma = Math.hypot(a, bb);
  const tone = Math.min(9, Math.floor(l / 10));
  if (chroma < 7) return `gray-${tone}`;
  const hue = ((Math.atan2(bb, a) * 180) / Math.PI + 360) % 360;
  const name = HUES.find(([until]) => hue < until)?.[1] ?? 'red';
  return `${name}-${tone}`;
}

/** The hue of a colour in a word, however light it is. */
export const hueWord = (hex: string): string => hueName(hex).replace(/-\d+$/, '');

/** Upper bounds of CIELAB hue angles, in degrees. */
const HUES: readonly (readonly [number, string])[] = [
  [20, 'pink'],
  [48, 'red'],
  [72, 'orange'],
  [102, 'yellow'],
  [135, 'lime'],
  [172, 'green'],
  [220, 'teal'],
  [262, 'sky'],
  [300, 'blue'],
  [330, 'violet'],
  [352, 'pink'],
  [360, 'red'],
];

/** CIELAB of an sRGB colour (CIE 15:2004, D65). */
export function labOf([r, g, b]: readonly number[]): [number, number, number] {
  const linear = [r, g, b].map((channel) => {
    const c = channel / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  const x = (0.4124 * linear[0] + 0.3576 * linear[1] + 0.1805 * linear[2]) / 0.95047;
  const y = 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2];
  const z = (0.0193 * linear[0] + 0.1192 * linear[1] + 0.9505 * linear[2]) / 1.08883;
  const f = (t: number): number => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);
  return [116 * f(y) - 16, 500 * (f(x) - f(y)), 200 * (f(y) - f(z))];
}

/** Colours nearer than this (CIE76) can hardly be told apart. */
const SAME_COLOR = 4;

/** Values that are nearly the same, the less frequent to be given up for the other. */
export function proposeMerges(
  screens: readonly Screen[],
  tokens: Readonly<Record<string, Token>>,
  refused: Readonly<Record<string, true>> = {},
): MergeProposal[] {
  const uses = valueUses(screens);
  const merged = new Set(
    Object.values(tokens).flatMap((token) =>
      token.from.slice(1).map((value) => `${token.kind} ${normalValue(token.kind, value)}`),
    ),
  );
  const proposals: MergeProposal[] = [];
  for (const kind of ['color', 'size', 'space', 'radius'] as const) {
    const own = uses.filter((use) => use.kind === kind && !merged.has(`${kind} ${use.value}`));
    // The most frequent first: what is less frequent goes to the nearest of those before it.
    own.forEach((use, i) => {
      const near = own.slice(0, Math.min(i, 40)).find((other) => isNear(kind, use.value, other.value));
      if (!near || near.uses < 2) return;
      const id = `merge ${kind} ${use.value} ${near.value}`;
      if (refused[id]) return;
      proposals.push({
        id,
        kind,
        keep: near.value,
        drop: use.value,
        uses: use.uses,
        reason: `${use.value} (${use.uses}) is nearly ${near.value} (${near.uses})`,
      });
    });
  }
  return proposals;
}

function isNear(kind: TokenKind, a: string, b: string): boolean {
  if (kind === 'color') {
    const [left, right] = [channelsOf(a), channelsOf(b)];
    if (!left || !right || Math.abs(left[3] - right[3]) > 0.04) return false;
    const [x, y] = [labOf(left), labOf(right)];
    return Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2]) < SAME_COLOR;
  }
  const [m, n] = [parseFloat(a), parseFloat(b)];
  return Math.abs(m - n) <= Math.max(0.5, Math.min(m, n) * (kind === 'size' ? 0.04 : 0.06));
}

/** The token after another value was merged into it; without one, a new token for both. */
export function mergedToken(
  tokens: Readonly<Record<string, Token>>,
  { kind, keep, drop }: Pick<MergeProposal, 'kind' | 'keep' | 'drop'>,
  name: string,
): { name: string; token: Token } {
  const found = Object.entries(tokens).find(
    ([, token]) => token.kind === kind && token.from.some((value) => normalValue(kind, value) === keep),
  );
  const [at, token] = found ?? [name, { kind, value: keep, from: [keep] }];
  return { name: at, token: { ...token, from: [...new Set([...token.from, drop])] } };
}
