import { uniqueName } from '../../../model/names.ts';
import { channelsOf } from '../../../roles/sight.ts';
import { hueWord, labOf } from '../../../tokens/find.ts';
import { hexOf } from '../../../tokens/values.ts';
import type { CodeBefore } from '../before.ts';
import type { StyleRule } from '../markup.ts';
import { writtenValue } from '../../styles/written.ts';

/** Colours and long lists of fonts that stand in rules, under the names that they are written by. */
export interface Palette {
  readonly nameOf: (value: string) => string | null;
  /** By value. */
  readonly names: ReadonlyMap<string, string>;
  /** Custom properties that give them their values: names with values, by name. */
  readonly values: readonly (readonly [name: string, value: string])[];
}

/** A colour is worth a name from so many uses on. */
const LEAST_USES = 2;
/** A list of fonts that is worth a name has so many letters. */
const LONG = 40;
const COLORS = /#[0-9a-f]{3,8}\b|\brgb\([^()]*\)/g;

/** What rules are written as before, and the names that values had then. */
export interface PaletteBefore {
  readonly rules: readonly StyleRule[];
  readonly values: CodeBefore['values'];
}

/**
 * Names the colours and fonts that rules have in common, so that none is written twice. A name follows from the value alone:
 * of a colour hue and lightness, and how much shows through; so another one more or less renames none. What had a name
 * before keeps it while anything has that value.
 */
export function paletteOf(
  rules: readonly StyleRule[],
  isTaken: (name: string) => boolean,
  before: PaletteBefore = { rules: [], values: new Map() },
): Palette {
  const uses = usesIn(rules);
  const settled = usesIn(before.rules);
  const names = new Map<string, string>();
  const taken = new Set<string>();
  const put = (value: string, name: string): void => {
    taken.add(name);
    names.set(value, name);
  };
  for (const [value, name] of before.values)
    if ((uses.has(value) || settled.has(value)) && !isTaken(name)) put(value, name);
  for (const [value, count] of [...uses].sort(([a], [b]) => (a < b ? -1 : 1))) {
    if (count < LEAST_USES || names.has(value)) continue;
    put(
      value,
      uniqueName(
        value.includes(',') ? fontName(value) : nameFor(value),
        (candidate) => taken.has(candidate) || isTaken(candidate),
      ),
    );
  }
  return {
    nameOf: (value) => names.get(value) ?? null,
    names,
    values: [...names]
      .map(([color, name]) => [name, quotedNames(color)] as const)
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  };
}

/** The palette of a file that is written as before: only what it said by a name then has one. */
export function onlyNamed(
  { nameOf }: Pick<Palette, 'nameOf'>,
  values: readonly string[],
): Pick<Palette, 'nameOf'> {
  const known = new Set(values);
  return { nameOf: (value) => (known.has(value) ? nameOf(value) : null) };
}

/** Values in rules that are said by a name. */
export const namedIn = (rules: readonly StyleRule[], { nameOf }: Pick<Palette, 'nameOf'>): string[] =>
  [...usesIn(rules).keys()].filter((value) => nameOf(value) !== null).sort();

/** How often colours and long lists of fonts stand in rules. */
function usesIn(rules: readonly StyleRule[]): Map<string, number> {
  const uses = new Map<string, number>();
  const count = (value: string): void => void uses.set(value, (uses.get(value) ?? 0) + 1);
  for (const { base, at, from, states } of rules)
    for (const css of [base, ...[at, from, states].flatMap((table) => Object.values(table))])
      for (const [property, value] of Object.entries(css)) {
        const written = writtenValue(property, value);
        if (property === 'font-family' && written.length >= LONG) count(written);
        if (!isText(value)) for (const [color] of written.matchAll(COLORS)) count(color);
      }
  return uses;
}

/** A value in which colours that have a name are written by it. */
export const withNames = (value: string, { nameOf }: Pick<Palette, 'nameOf'>): string =>
  nameOf(value) !== null
    ? `var(--${nameOf(value)})`
    : isText(value)
      ? value
      : value.replace(COLORS, (color) => {
          const name = nameOf(color);
          return name ? `var(--${name})` : color;
        });

/** Whether a value holds text or an address, in which nothing is a colour. */
const isText = (value: string): boolean => /["']|url\(/.test(value);

/** Names of fonts in quotes: of a custom property nobody can tell that they are no keywords. */
const quotedNames = (value: string): string => value.replace(/(?<=^|, )[A-Z][\w-]*(?=,|$)/g, "'$&'");

/** `font-montserrat`, after the first of them; the system's own are `font-system`. */
function fontName(fonts: string): string {
  const first = fonts.split(',')[0].replace(/['"]/g, '').trim();
  const word = first
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return `font-${/^(apple-system|system-ui|blinkmacsystemfont)$/.test(word) || !word ? 'system' : word}`;
}

/** The hue of a colour in a word, however light it is. @param channels red, green and blue, 0 to 255 */
export const hueOf = ([r, g, b]: readonly number[]): string => hueWord(hexOf([r, g, b, 1]));

/** `color-blue-46`, `color-black-a50`: hue and lightness of CIELAB, and in hundredths how solid it is. */
function nameFor(color: string): string {
  const parts = /^rgb\((\d+) (\d+) (\d+) \/ ([\d.]+)%\)$/.exec(color)?.slice(1).map(Number);
  const channels = parts ? parts.slice(0, 3) : (channelsOf(color) ?? [0, 0, 0]).slice(0, 3);
  const alpha = parts ? parts[3] : 100;
  const [lightness] = labOf(channels);
  const hue = hueOf(channels);
  const solid =
    hue === 'gray' && lightness > 99.5
      ? 'white'
      : hue === 'gray' && lightness < 0.5
        ? 'black'
        : `${hue}-${String(Math.round(Math.min(99, lightness))).padStart(2, '0')}`;
  return `color-${solid}${alpha < 100 ? `-a${Math.round(alpha)}` : ''}`;
}
