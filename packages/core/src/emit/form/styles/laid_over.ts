import { grouped } from '../../../json/grouped.ts';
import { bySign, type Place, signOf } from './places.ts';
import { type Unit, unitsOf } from './units.ts';

/** How looks that only differ in part from the usual one of the same element are written. */
export interface Laid {
  /** What each class is laid over: it says otherwise what that says, and stands after it in the same sheet. */
  readonly over: ReadonlyMap<Place, Place>;
  /** What each class stands beside: it says what that leaves open, so that it may stand in any sheet. */
  readonly beside: ReadonlyMap<Place, Place>;
  /** What the usual look says where others say otherwise, by what all of them say. */
  readonly usual: ReadonlyMap<Place, Place>;
}

/** Looks of one element in a file: the usual one, those that differ from it, and how they can stand beside each other. */
interface Looks {
  readonly under: Place;
  readonly overs: readonly Place[];
  /** What the usual one says as those beside it do. */
  readonly common: readonly Unit[];
  /** What only the usual one says, and what each of those beside it does. */
  readonly usual: readonly Unit[];
  readonly own: ReadonlyMap<Place, readonly Unit[]>;
}

/**
 * Lays classes over those that they only differ from: they keep what they say otherwise, and what they have in common with
 * those is left to them. Only where each thing that is said below is said otherwise above, or the same, as a rule that is not
 * there cannot take anything away. Where other elements differ from their usual looks in just the same way, what differs is
 * taken out of the usual look too, so that it can be said once for all of them.
 */
export function layOver(places: readonly Place[]): Laid {
  const all = [...grouped(places, ({ file }) => file).values()].flatMap(looksOf);
  const beside = new Set(saidElsewhere(all, places));
  const laid = {
    over: new Map<Place, Place>(),
    beside: new Map<Place, Place>(),
    usual: new Map<Place, Place>(),
  };
  for (const looks of all) {
    const { under, overs, common, usual, own } = looks;
    if (beside.has(looks)) {
      put(under.left, common);
      laid.usual.set(under, { ...under, left: bySign(usual), pinned: new Map(), uses: [] });
      for (const [place, units] of own) {
        put(place.left, units);
        laid.beside.set(place, under);
      }
    }
    for (const place of overs) {
      if (laid.beside.has(place)) continue;
      const [above, below] = [place.rule, under.rule].map(unitsOf);
      laid.over.set(place, under);
      put(place.left, without(above, below));
      for (const unit of without(below, above)) {
        under.left.delete(unit.sign);
        under.pinned.set(unit.sign, unit);
      }
    }
  }
  return laid;
}

/** What can be laid over others in a file. */
function looksOf(inFile: readonly Place[]): Looks[] {
  const byName = new Map(inFile.map((place) => [place.rule.className, place]));
  const pairs = inFile.flatMap((place): [Place, Place][] => {
    const under = byName.get(place.rule.over ?? '');
    return under && canLie(place, under) ? [[place, under]] : [];
  });
  return [...grouped(pairs, ([, { rule }]) => rule.className).values()].map((some): Looks => {
    const [[, under]] = some;
    const overs = some.map(([place]) => place);
    const units = unitsOf(under.rule);
    const differing = new Map(overs.map((place) => [place, kinsApart(place, under)]));
    const apart = apartIn([...differing.values()]);
    const isApart = ({ kin }: Unit): boolean => apart.has(kin);
    return {
      under,
      overs,
      common: units.filter((unit) => !isApart(unit)),
      usual: units.filter(isApart),
      own: new Map(
        overs.flatMap((place): [Place, Unit[]][] =>
          [...differing.get(place)!].some((kin) => apart.has(kin))
            ? [[place, unitsOf(place.rule).filter(isApart)]]
            : [],
        ),
      ),
    };
  });
}

/** What two looks do not say alike, by kin. */
function kinsApart({ rule }: Place, under: Place): ReadonlySet<string> {
  const [above, below] = [rule, under.rule].map(unitsOf);
  return new Set([...without(above, below), ...without(below, above)].map(({ kin }) => kin));
}

/**
 * What looks can stand beside each other by: what most of them differ in, where the others differ in nothing of that; else all that
 * any of them does.
 */
function apartIn(differing: readonly ReadonlySet<string>[]): ReadonlySet<string> {
  const kinds = [...grouped(differing, (kins) => [...kins].toSorted().join(' ')).values()];
  const [most] = kinds.toSorted((a, b) => b.length - a.length)[0];
  const isClear = differing.every(
    (kins) => [...kins].every((kin) => most.has(kin)) || ![...kins].some((kin) => most.has(kin)),
  );
  return isClear ? most : new Set(differing.flatMap((kins) => [...kins]));
}

function canLie(place: Place, under: Place): boolean {
  // What was written with what it shares is written so still.
  if (under.rule.over !== undefined || place.before?.shared.length || place.before?.own.length) return false;
  const [above, below] = [place.rule, under.rule].map(unitsOf);
  const [ownAbove, ownBelow] = [without(above, below), without(below, above)];
  return ownAbove.length > 0 && ownBelow.every((unit) => ownAbove.some((other) => covers(other, unit)));
}

/** So many looks beside the usual one are kinds of the thing, and not the thing as it is otherwise. */
const MANY_LOOKS = 2;

/** Those of which at least one look differs from the usual one, or that from it, as is said elsewhere too. */
function saidElsewhere(all: readonly Looks[], places: readonly Place[]): Looks[] {
  const inLooks = new Set(all.flatMap(({ under, overs }) => [under, ...overs]));
  const alone = places.filter((place) => !inLooks.has(place)).map(signOf);
  const signsOf = ({ usual, own }: Looks): string[] =>
    [usual, ...own.values()].map((units) => signOf({ left: bySign(units) })).filter((sign) => sign !== '');
  // How it was written decides where it is written already.
  let open = all.filter(
    ({ under, overs, common }) => common.length > 0 && [under, ...overs].every((place) => !place.before),
  );
  for (;;) {
    const counts = new Map<string, number>();
    for (const sign of [...alone, ...open.flatMap(signsOf)]) counts.set(sign, (counts.get(sign) ?? 0) + 1);
    const still = open.filter(
      (looks) => looks.own.size >= MANY_LOOKS || signsOf(looks).some((sign) => counts.get(sign)! > 1),
    );
    if (still.length === open.length) return open;
    open = still;
  }
}

function put(left: Map<string, Unit>, units: readonly Unit[]): void {
  left.clear();
  for (const unit of units) left.set(unit.sign, unit);
}

const without = (units: readonly Unit[], others: readonly Unit[]): Unit[] =>
  units.filter(({ sign }) => !others.some((other) => other.sign === sign));

/** Whether all that a unit says is said otherwise by another; what is said of a state stands too strongly for that. */
const covers = (above: Unit, below: Unit): boolean =>
  above.kin === below.kin && below.says.length > 0 && below.says.every((said) => above.says.includes(said));
