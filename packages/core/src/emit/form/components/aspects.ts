import type { StyleRule } from '../markup.ts';
import { unitsOf } from '../styles/units.ts';

/** What some looks differ in that goes together: the colours of a button, or its sizes. */
export interface Aspect {
  /** The kin that it says something of. */
  readonly kins: ReadonlySet<string>;
  /** The kin that it is known by when the design comes in again: the most telling of them. */
  readonly of: string;
  /** Which of its values each look has, by number. */
  readonly values: readonly number[];
}

/** What people see first of how something looks. */
const TELLING = ['background', 'color', 'border', 'radius', 'font-size', 'padding', 'width', 'display'];

/** Fewer looks are told apart by one word each. */
const LEAST_LOOKS = 6;
/** An aspect has so many values at most. */
const MOST_VALUES = 60;
/** All aspects together have so many values at most, as a part of the looks. */
const MOST_OF_LOOKS = 0.85;
/** What goes together is one aspect where that takes so many words less. */
const LEAST_SAVED = 2;
/** More aspects than these are more than a person tells apart; those that take the fewest words together are one. */
const MOST_ASPECTS = 4;

/**
 * The aspects that looks of one element are made of, where telling those apart takes fewer words than telling all looks apart:
 * colours and sizes that come in nearly every combination are two choices. What depends on another thing (a text is white on
 * every dark ground) belongs to the aspect of that. Null where looks are not made so.
 * @param looks what each says; undefined of one that says nothing
 */
export function aspectsOf(looks: readonly (StyleRule | undefined)[]): readonly Aspect[] | null {
  if (looks.length < LEAST_LOOKS) return null;
  const said = looks.map(saidByKin);
  const kins = [...new Set(said.flatMap((one) => [...one.keys()]))].sort();
  const varied = kins
    .map((kin) => ({ kin, values: numbered(said.map((one) => one.get(kin) ?? '')) }))
    .filter(({ values }) => countOf(values) > 1)
    .sort((a, b) => countOf(b.values) - countOf(a.values));
  const found = joined(varied.map(({ kin, values }) => ({ kins: [kin], values })));
  const counts = found.map(({ values }) => countOf(values));
  const all = counts.reduce((sum, count) => sum + count, 0);
  if (found.length < 2 || all > looks.length * MOST_OF_LOOKS || Math.max(...counts) > MOST_VALUES)
    return null;
  return found.map(({ kins: some, values }) => ({
    kins: new Set(some),
    of: TELLING.find((kin) => some.includes(kin)) ?? some.toSorted()[0],
    values,
  }));
}

interface Part {
  readonly kins: readonly string[];
  readonly values: readonly number[];
}

/** Parts that go together as one, those first that fewer words tell apart then. */
function joined(parts: readonly Part[]): readonly Part[] {
  const open = [...parts];
  for (;;) {
    let best: { readonly a: Part; readonly b: Part; readonly values: readonly number[] } | null = null;
    let most = open.length > MOST_ASPECTS ? -Infinity : LEAST_SAVED - 1;
    for (const [i, a] of open.entries())
      for (const b of open.slice(i + 1)) {
        const values = together(a.values, b.values);
        const saved = countOf(a.values) + countOf(b.values) - countOf(values);
        if (saved <= most) continue;
        best = { a, b, values };
        most = saved;
      }
    if (!best) return open;
    const { a, b, values } = best;
    open.splice(open.indexOf(b), 1);
    open.splice(open.indexOf(a), 1, { kins: [...a.kins, ...b.kins], values });
  }
}

/** What a look says, by kin. */
const saidByKin = (look: StyleRule | undefined): ReadonlyMap<string, string> =>
  new Map((look ? unitsOf(look) : []).map(({ of, sign }) => [of, sign]));

const countOf = (values: readonly number[]): number => new Set(values).size;

function numbered(values: readonly string[]): number[] {
  const numbers = new Map<string, number>();
  return values.map((value) => {
    const number = numbers.get(value) ?? numbers.size;
    numbers.set(value, number);
    return number;
  });
}

const together = (a: readonly number[], b: readonly number[]): number[] =>
  numbered(a.map((value, i) => `${value} ${b[i]}`));
