import { grouped } from '../../../json/grouped.ts';
import { plainName } from './class_namer.ts';
import { bySign, leave, linesOf, type Place, signOf } from './places.ts';
import { sharedName } from './shared_names.ts';
import { isOfState, type Unit } from './units.ts';

/** What several rules have in common. */
export interface Part {
  /** What its class would be called. */
  readonly wanted: string;
  /** What its class says, by sign. */
  readonly left: Map<string, Unit>;
  readonly covered: readonly Place[];
}

/** Rules of one name that are compared with each other, at most. */
const MOST_COMPARED = 60;
/** Lines that have to be saved for a class to be worth its name. */
export const LEAST_SAVED = 3;
/** The same for one that says something of states, or of other widths; and so many of each kind are taken out of one rule. */
const LEAST_SAVED_BY_BLOCK = 2;
const MOST_PARTS = 3;

/** Takes units out of the rules that have them. */
export function partOf(wanted: string, signs: readonly string[], covered: readonly Place[]): Part {
  const left = new Map(signs.map((sign) => [sign, covered[0].left.get(sign)!]));
  for (const place of covered) leave(place, [...left.values()]);
  return { wanted, left, covered };
}

/** Takes out what rules of one name have in common, whatever saves most first. @param places those that share nothing yet */
export function commonByName(places: readonly Place[]): Part[] {
  const parts: Part[] = [];
  for (const [wanted, group] of grouped(places, ({ rule }) => plainName(rule.className))) {
    let open = group;
    while (open.length > 1) {
      const best = bestOf(open);
      if (!best) break;
      parts.push(partOf(wanted, best.signs, best.covered));
      const done = new Set(best.covered);
      open = open.filter((place) => !done.has(place));
    }
  }
  return parts;
}

/** The set of units that saves most lines where these have it in common. */
function bestOf(open: readonly Place[]): { signs: readonly string[]; covered: readonly Place[] } | null {
  const distinct = [...grouped(open, signOf).values()]
    .sort((a, b) => b.length - a.length)
    .slice(0, MOST_COMPARED)
    .map(([first]) => first.left);
  const candidates = new Map<string, readonly string[]>();
  const offer = (signs: readonly string[]): void => {
    if (signs.length) candidates.set(signs.join('\n'), signs);
  };
  distinct.forEach((a, i) => {
    offer([...a.keys()]);
    for (const b of distinct.slice(i + 1)) offer([...a.keys()].filter((sign) => b.has(sign)));
  });
  let best: { signs: readonly string[]; covered: readonly Place[] } | null = null;
  let most = LEAST_SAVED - 1;
  for (const signs of candidates.values()) {
    const covered = open.filter(({ left }) => signs.every((sign) => left.has(sign)));
    const lines = signs.reduce((sum, sign) => sum + covered[0].left.get(sign)!.lines, 0);
    const isWhole = covered.every(({ left }) => left.size === signs.length);
    // A rule of its own costs its braces; one that falls away as a whole saves its own.
    const saved = lines * (covered.length - 1) - (isWhole ? 0 : 2);
    if (covered.length > 1 && saved > most && (isWhole || lines > 1)) {
      best = { signs, covered };
      most = saved;
    }
  }
  return best;
}

/** Parts that say the same under several names as one, with the rules that say just that and nothing else. */
export function merged(parts: readonly Part[], places: readonly Place[]): Part[] {
  const alike = grouped(parts, signOf);
  const whole = grouped(
    places.filter((place) => place.left.size > 0 && !place.pinned.size && alike.has(signOf(place))),
    signOf,
  );
  return [...alike].map(([sign, same]): Part => {
    const [largest] = same.toSorted((a, b) => b.covered.length - a.covered.length);
    const joining = whole.get(sign) ?? [];
    for (const { left } of joining) left.clear();
    return { ...largest, covered: [...same.flatMap(({ covered }) => covered), ...joining] };
  });
}

/**
 * Takes out what parts and rules of any name say the same of states, then what they say the same of other widths: each such
 * thing is a block of its own in a sheet. What says nothing besides is left, for it to be taken as a whole.
 */
export function commonBlocks(parts: readonly Part[], places: readonly Place[]): Part[] {
  const open: Says[] = [...parts, ...places.map((place) => ({ left: place.left, covered: [place] }))];
  const found: Part[] = [];
  for (const isMeant of [isOfState, isOfWidths]) {
    const meant = ({ left }: Says): Unit[] => [...left.values()].filter(isMeant);
    // Each takes part so often: many classes that say a little each are harder to read than what they save.
    const taken = new Map<Says, number>();
    const isOpen = (one: Says): boolean => (taken.get(one) ?? 0) < MOST_PARTS;
    const take = (units: readonly Unit[], group: readonly Says[]): void => {
      const isWhole = group.every(({ left }) => left.size === units.length);
      if (group.length < 2 || isWhole || savedBy(units, group) < LEAST_SAVED_BY_BLOCK) return;
      const covered = group.flatMap((one) => one.covered);
      found.push({ wanted: sharedName(covered, units), left: bySign(units), covered });
      for (const one of group) {
        leave(one, units);
        taken.set(one, (taken.get(one) ?? 0) + 1);
      }
    };
    const some = open.filter((one) => meant(one).length > 0);
    // What is the same in all its states first.
    for (const group of grouped(some, (one) => signOf({ left: bySign(meant(one)) })).values())
      take(meant(group[0]), group);
    const said = grouped(
      some.flatMap((one) => meant(one).map(({ sign }) => ({ sign, one }))),
      ({ sign }) => sign,
    );
    const most = [...said].map(([sign, same]) => {
      const group = same.map(({ one }) => one);
      return { sign, group, saved: savedBy(sharedBy(group).filter(isMeant), group) };
    });
    for (const { sign, group } of most.sort((a, b) => b.saved - a.saved || (a.sign < b.sign ? -1 : 1))) {
      const still = group.filter((one) => isOpen(one) && meant(one).some((unit) => unit.sign === sign));
      if (still.length) take(sharedBy(still).filter(isMeant), still);
    }
  }
  return found;
}

/** What says something, and the rules that it is said for. */
type Says = Pick<Part, 'left' | 'covered'>;

const sharedBy = (group: readonly Says[]): Unit[] =>
  [...group[0].left.values()].filter(({ sign }) => group.every(({ left }) => left.has(sign)));
/** Lines that it saves to say something once. */
const savedBy = (units: readonly Unit[], group: readonly Says[]): number =>
  linesOf(units) * (group.length - 1);

/** What is said otherwise in windows of other widths. */
const isOfWidths = ({ says }: Unit): boolean => says.some((said) => !said.startsWith('base'));
