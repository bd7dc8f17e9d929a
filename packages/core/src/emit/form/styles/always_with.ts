import type { StyleRule } from '../markup.ts';
import type { Place } from './places.ts';

/** So many classes at most are named by what says one thing of all of them. */
const MOST_NAMED = 12;

/**
 * Shared rules, where what a class says of states and widths alone is said of another class that never stands without it:
 * elements are written as that one, and the sheet says it of all such classes at once. What was written before stays as it is.
 * @param places all looks; those whose class says it by now no longer name the other
 */
export function saidOfOthers(places: readonly Place[], shared: readonly StyleRule[]): StyleRule[] {
  const rules = new Map(shared.map((rule) => [rule.className, rule]));
  const using = new Map<string, Set<Place>>(shared.map(({ className }) => [className, new Set()]));
  for (const place of places)
    for (const { from, name } of place.uses) if (from === 'shared') using.get(name)?.add(place);
  const isFree = (name: string): boolean => [...using.get(name)!].every(({ isSettled }) => !isSettled);
  for (const said of shared) {
    const name = said.className;
    if (Object.keys(said.base).length || !isFree(name)) continue;
    const all = using.get(name)!;
    const named = new Set([...all].flatMap(({ uses }) => uses.map((use) => use.name)));
    const others = [...named]
      .filter((other) => other !== name && using.has(other) && isApart(rules.get(other)!, rules.get(name)!))
      .filter((other) => isFree(other) && [...using.get(other)!].every((place) => all.has(place)))
      .sort((a, b) => using.get(b)!.size - using.get(a)!.size || (a < b ? -1 : 1));
    let count = 0;
    for (const other of others) {
      const there = [...using.get(other)!].filter((place) => all.has(place));
      if (!there.length || count === MOST_NAMED) continue;
      count++;
      rules.set(other, withAlso(rules.get(other)!, rules.get(name)!));
      for (const place of there) {
        place.uses.splice(
          place.uses.findIndex((use) => use.from === 'shared' && use.name === name),
          1,
        );
        all.delete(place);
      }
    }
    if (all.size) continue;
    rules.delete(name);
    using.delete(name);
  }
  return [...rules.values()];
}

/** Whether a rule looks like something, and says nothing of the states and widths that another one speaks of. */
const isApart = (rule: StyleRule, said: StyleRule): boolean =>
  Object.keys(rule.base).length > 0 &&
  TABLES.every((table) => Object.keys(said[table]).every((key) => !(key in rule[table])));
const TABLES = ['at', 'from', 'states'] as const;

const withAlso = (rule: StyleRule, { at, from, states }: StyleRule): StyleRule => ({
  ...rule,
  at: { ...rule.at, ...at },
  from: { ...rule.from, ...from },
  states: { ...rule.states, ...states },
});
