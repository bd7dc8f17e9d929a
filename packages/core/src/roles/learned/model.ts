import type { Role } from '../names.ts';
import type { ScreenSight, Sight } from '../sight.ts';
import { type Company, companyOf } from './company_traits.ts';
import { traitsOf } from './traits.ts';
import { CLASSES, SHARES, WEIGHTS } from './weights.ts';

/** What an element most likely is; `null` where it only holds or decorates. */
export interface Likely {
  readonly role: Role | null;
  /** How many of a hundred that look as sure were right on templates that were not learned from, as 0 to 1. */
  readonly share: number;
  /** The traits that tell most, the weightiest first. */
  readonly tells: readonly string[];
}

/** The roles that are told by what was learned; others are only told by rules. */
export const LEARNED: ReadonlySet<Role> = new Set(CLASSES.filter((name) => name !== 'none'));

/** What a trait says for each class, by the number of the class. */
type Weights = readonly (readonly [index: number, weight: number])[];

let table: ReadonlyMap<string, Weights> | null = null;

/** By which classes are called in the table. */
export const LETTERS = 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** `b31d-4`: 3.1 for the second class, -0.4 for the fourth. */
const weightsOf = (text: string): Weights =>
  [...text.matchAll(/([a-zA-Z])(-?\d+)/g)].map(([, letter, tenths]) => [
    LETTERS.indexOf(letter),
    Number(tenths) / 10,
  ]);

const tableOf = (): ReadonlyMap<string, Weights> =>
  (table ??= new Map(Object.entries(WEIGHTS).map(([trait, text]) => [trait, weightsOf(text)])));

/**
 * What each element of a page most likely is, by multinomial logistic regression over its traits.
 * @param roleOf what rules took it for
 */
export function likelyRoles(
  screen: ScreenSight,
  roleOf: Company['roleOf'],
  wanted: (sight: Sight) => boolean,
): ReadonlyMap<Sight, Likely> {
  const company = companyOf(screen, roleOf);
  const traits = new Map(
    screen.all.filter(wanted).map((sight) => [sight, traitsOf(sight, screen, company)] as const),
  );
  const trust = trustInRules([...traits.values()], (trait) => tableOf().has(trait));
  return new Map([...traits].map(([sight, held]) => [sight, likely(held, roleOf(sight), trust)]));
}

/** So many words of a page at least say whether it is in words that were learned, and so many of them are. */
const LEAST_WORDS = 30;
const LEAST_KNOWN = 0.6;
/** Chosen by leaving out author by author. */
const TRUST = { inWordsThatWereLearned: 1.5, inOthers: 4 };

/**
 * How much more what rules say counts than was learned, in natural logarithms of odds: where an author calls things otherwise than
 * all who were learned from, rules know more.
 * @param traits of the elements of a page
 */
export function trustInRules(
  traits: readonly Iterable<string>[],
  isKnown: (trait: string) => boolean,
): number {
  let [words, known] = [0, 0];
  for (const held of traits)
    for (const trait of held)
      if (/^called \S+$/.test(trait)) {
        words++;
        if (isKnown(trait)) known++;
      }
  return words >= LEAST_WORDS && known < words * LEAST_KNOWN ? TRUST.inOthers : TRUST.inWordsThatWereLearned;
}

/** The class that rules put an element into; a small round picture is a picture. Less than none where it is in none. */
export const classOfRole = (role: Role | null): number =>
  role === null ? -1 : CLASSES.indexOf(role === 'avatar' ? 'image' : role);

/**
 * What an element with these traits most likely is.
 * @param said what rules took it for
 * @param trust how much more that counts than was learned
 */
export function likely(traits: Iterable<string>, said: Role | null = null, trust = 0): Likely {
  const known: (readonly [string, Weights])[] = [];
  const sums = new Float64Array(CLASSES.length);
  for (const trait of traits) {
    const weights = tableOf().get(trait);
    if (!weights) continue;
    known.push([trait, weights]);
    for (const [index, weight] of weights) sums[index] += weight;
  }
  const byRules = classOfRole(said);
  if (byRules >= 0) sums[byRules] += trust;
  let best = 0;
  let second = -1;
  sums.forEach((sum, i) => {
    if (i === 0) return;
    if (sum > sums[best]) [best, second] = [i, best];
    else if (second < 0 || sum > sums[second]) second = i;
  });
  const total = sums.reduce((sum, one) => sum + Math.exp(one - sums[best]), 0);
  const name = CLASSES[best];
  return {
    role: name === 'none' ? null : name,
    share: shareOf(1 / total),
    // Of most elements nobody asks.
    get tells() {
      return known
        .map(([trait, weights]): [string, number] => [trait, margin(weights, best, second)])
        .filter(([, weight]) => weight > 0)
        .toSorted((a, b) => b[1] - a[1])
        .map(([trait]) => trait);
    },
  };
}

const margin = (weights: Weights, best: number, second: number): number =>
  weights.reduce(
    (sum, [index, weight]) => sum + (index === best ? weight : index === second ? -weight : 0),
    0,
  );

/** How many were right that were as likely, between the nearest two that were measured. */
function shareOf(likelihood: number): number {
  const at = SHARES.findIndex(([from]) => from > likelihood);
  if (at === 0) return Math.min(likelihood, SHARES[0][1]);
  if (at === -1) return SHARES.at(-1)![1];
  const [[low, share], [high, next]] = [SHARES[at - 1], SHARES[at]];
  return share + ((next - share) * (likelihood - low)) / (high - low);
}
