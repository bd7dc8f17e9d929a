import { grouped } from '../../../json/grouped.ts';
import type { Declarations } from '../../../model/design.ts';
import { camelCase } from '../../../model/names.ts';
import { wordsIn } from '../../../roles/called.ts';
import { plainName } from './class_namer.ts';
import { shareOf } from './look_words.ts';
import type { Place } from './places.ts';
import { isOfState, ruleOf, type Unit } from './units.ts';

/** Longest name that says a declaration. */
const LONGEST = 24;

/** What is said of one thing alone, in a word. */
const KIN_WORDS: Readonly<Record<string, string>> = {
  border: 'bordered',
  radius: 'rounded',
  padding: 'padded',
  margin: 'spaced',
  background: 'filled',
  'text-decoration': 'decorated',
  gap: 'gapped',
};

/** What is said of a state, in a word. */
const STATE_WORDS: Readonly<Record<string, string>> = {
  ':hover': 'hover',
  ':focus': 'focus',
  ':focus-visible': 'focus',
  ':focus-within': 'focus',
  ':active': 'pressed',
  ':disabled': 'disabled',
  ':checked': 'checked',
  '::placeholder': 'placeholder',
  '::before': 'before',
  '::after': 'after',
};

/**
 * What a class is called that says what rules of several names have in common (docs/NAMING.md): what it says, where that is
 * one thing; else what all of them are, with the state where it is only that.
 */
export function sharedName(places: readonly Place[], units: readonly Unit[]): string {
  const names = new Set(places.map(({ rule }) => plainName(rule.className)));
  const [only] = names;
  const said = names.size === 1 ? only : (wideName(units) ?? saidBy(units) ?? commonName(places));
  const words = new Set(units.map(({ kin }) => STATE_WORDS[kin] ?? placeWord(kin) ?? 'states'));
  if (!units.every(isOfState)) return said;
  return camelCase(`${said} ${words.size === 1 ? [...words][0] : 'states'}`);
}

/** What is said of where something stands in a list, in a word. */
const placeWord = (state: string): string | null =>
  !/:(first|last)-child/.test(state) ? null : state.includes(':not(') ? 'separated' : 'atEnd';

/** A name for what is said under many: the one declaration that it is, as `clearBoth`; null where it is more. */
function saidBy(units: readonly Unit[]): string | null {
  const [{ kin, lines }] = units;
  if (units.length === 1 && kin === 'radius' && lines < 4) return roundedName(ruleOf('', null, units).base);
  if (units.length === 1 && lines > 1 && kin in KIN_WORDS) return KIN_WORDS[kin];
  const { base, at, from, states } = ruleOf('', null, units);
  const said = Object.entries(base);
  if (said.length !== 1 || [at, from, states].some((table) => Object.keys(table).length)) return null;
  const [[property, value]] = said;
  const name = camelCase(/^[a-z-]+$/.test(value) ? `${property} ${value}` : property);
  return name.length <= LONGEST ? name : camelCase(property);
}

/** Which corners are round, in a word. */
function roundedName(base: Declarations): string {
  const corners = Object.keys(base);
  const side = ['top', 'bottom', 'left', 'right'].find((one) =>
    corners.every((corner) => corner.includes(one)),
  );
  return camelCase(`rounded ${side ?? ''}`);
}

/** What a class is called that only says how wide something is: `half`; null where it says more, or no share of a row. */
export function wideName(units: readonly Unit[]): string | null {
  if (!units.every(({ kin }) => WIDE.test(kin))) return null;
  return shareOf(ruleOf('', null, units).base);
}

/** What says how wide something is. */
const WIDE = /^(flex|(max-|min-)?width)$/;

/** What most of them are called, or the last words of that: links of bars and of cards are links. */
function commonName(places: readonly Place[]): string {
  const counts = [...grouped(places, ({ rule }) => plainName(rule.className))].map(
    ([name, group]) => [name, wordsIn(name), group.length] as const,
  );
  const [[most, words]] = counts.sort(([, , a], [, , b]) => b - a);
  const half = places.length / 2;
  for (let from = 0; from < words.length; from++) {
    const last = words.slice(from).join(' ');
    const alike = counts.filter(([, other]) => other.slice(-(words.length - from)).join(' ') === last);
    if (alike.reduce((sum, [, , count]) => sum + count, 0) > half) return camelCase(last);
  }
  return most;
}
