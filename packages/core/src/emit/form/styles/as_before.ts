import type { ClassStyle } from '../../../model/design.ts';
import { grouped } from '../../../json/grouped.ts';
import type { CodeBefore, FileBefore, LookBefore } from '../before.ts';
import type { StyleRule } from '../markup.ts';
import { inWords, type Namer, plainName } from './class_namer.ts';
import { LEAST_SAVED } from './common_units.ts';
import { leave, leaveSheet, linesOf, lookSign, type Place, says, saysInSheet, signOf } from './places.ts';
import type { FileStyles } from './places.ts';
import { partUnits, ruleOf, type Unit } from './units.ts';

/**
 * Says what was shared before as it was: of rules that say it still, and of new ones by the name or as a whole. Gives the
 * names of classes that say the rest of a rule, as far as they had one.
 */
export function asBefore(
  places: readonly Place[],
  overs: ReadonlyMap<Place, Place>,
  { shared, files }: CodeBefore,
  made: { readonly shared: StyleRule[]; readonly own: Map<string, StyleRule[]> },
  names: Namer,
  isNamed: (key: string) => boolean,
): ReadonlyMap<Place, string> {
  const ownNames = new Map<Place, string>();
  if (!files.size) return ownNames;
  const kept = unitsBy(Object.fromEntries(shared));
  const used = new Map<string, Place>();
  const take = (place: Place, name: string, units: readonly Unit[]): void => {
    leave(place, units);
    place.uses.push({ from: 'shared', name });
    if (!used.has(name)) used.set(name, place);
  };
  const byPlainName = grouped([...kept.keys()], plainName);
  const bySign = new Map(
    [...kept].map(([name, units]) => [
      units
        .map(({ sign }) => sign)
        .toSorted()
        .join('\n'),
      name,
    ]),
  );
  const adopted = (place: Place): string | undefined =>
    bySign.get(signOf(place)) ??
    (byPlainName.get(plainName(place.rule.className)) ?? [])
      .filter((name) => says(place, kept.get(name)) && linesOf(kept.get(name)!) >= LEAST_SAVED)
      .sort((a, b) => linesOf(kept.get(b)!) - linesOf(kept.get(a)!) || inWords.compare(a, b))[0];
  for (const [file, inFile] of grouped(places, (place) => place.file)) {
    for (const place of inFile) {
      const { name, shared: uses = [] } = place.before ?? {};
      for (const use of overs.has(place) ? [] : uses) {
        const units = kept.get(use);
        if (says(place, units)) take(place, use, units);
      }
      const { key, className } = place.rule;
      if (name === undefined || (isNamed(key!) && plainName(name) !== plainName(className))) continue;
      names.keepOwn(file, name);
      ownNames.set(place, name);
    }
    for (const [name, units] of unitsBy(files.get(file)?.own ?? {})) {
      const still = inFile.filter(
        (place) => !overs.has(place) && place.before?.own.includes(name) && saysInSheet(place, units),
      );
      if (still.length < 2) continue;
      for (const place of still) {
        leaveSheet(place, units);
        place.uses.push({ from: 'own', name });
      }
      names.keepOwn(file, name);
      made.own.set(file, [...(made.own.get(file) ?? []), ruleOf(name, still[0].rule.key, units)]);
    }
    for (const place of inFile) {
      if (place.isSettled || place.uses.length || overs.has(place)) continue;
      const name = adopted(place);
      if (name !== undefined) take(place, name, kept.get(name)!);
    }
  }
  for (const [name, units] of kept) {
    const first = used.get(name);
    if (!first) continue;
    names.keepShared(name);
    made.shared.push(ruleOf(name, first.rule.key, units));
  }
  return ownNames;
}

const unitsBy = (classes: Readonly<Record<string, ClassStyle>>) =>
  new Map(Object.entries(classes).map(([name, style]) => [name, partUnits(style)] as const));

/** By what the looks of a file are known later: the element that each is of, with a number where that has several. */
export function lookIds(rules: readonly StyleRule[]): ReadonlyMap<StyleRule, string> {
  const counts = new Map<string, number>();
  const ids = new Map<StyleRule, string>();
  for (const rule of rules) {
    if (rule.key === null) continue;
    const count = (counts.get(rule.key) ?? 0) + 1;
    counts.set(rule.key, count);
    ids.set(rule, count === 1 ? rule.key : `${rule.key}|${count}`);
  }
  return ids;
}

/** How a file is written, for later. @param values what it says by a custom property */
export function keptFile(
  rules: readonly StyleRule[],
  written: FileStyles,
  values: readonly string[],
): FileBefore {
  const counts = new Map<string, number>();
  for (const all of written.classes.values())
    for (const { from, name } of all.some(({ isOver }) => isOver) ? all.slice(-1) : all)
      if (from === 'own') counts.set(name, (counts.get(name) ?? 0) + 1);
  const isShared = (name: string): boolean => counts.get(name)! > 1;
  const looks: Record<string, LookBefore> = {};
  const ids = lookIds(rules);
  for (const rule of rules) {
    const id = ids.get(rule);
    if (id === undefined) continue;
    const all = written.classes.get(rule.className) ?? [];
    const over = all.find(({ isOver }) => isOver);
    const uses = over ? [over] : all;
    const own = uses.flatMap(({ from, name }) => (from === 'own' ? [name] : []));
    const rest = own.find((name) => !isShared(name));
    looks[id] = {
      sign: lookSign(rule),
      ...(rest === undefined ? {} : { name: rest }),
      shared: uses.flatMap(({ from, name }) => (from === 'shared' ? [name] : [])),
      own: own.filter(isShared),
    };
  }
  const shared = written.rules.filter(({ className }) => isShared(className));
  return { own: Object.fromEntries(shared.map((rule) => [rule.className, styleOf(rule)])), values, looks };
}

export const styleOf = ({ base, at, from, states }: StyleRule): ClassStyle => ({ base, at, from, states });
