import { grouped } from '../../../json/grouped.ts';
import { saidOfOthers } from './always_with.ts';
import { asBefore, lookIds } from './as_before.ts';
import { type CodeBefore, NOTHING_BEFORE } from '../before.ts';
import { inWords, Namer } from './class_namer.ts';
import { commonBlocks, commonByName, merged, type Part, partOf } from './common_units.ts';
import { layOver } from './laid_over.ts';
import type { StyleRule } from '../markup.ts';
import { type FileStyles, lookSign, type Place, signOf } from './places.ts';
import { SheetWriter } from './sheet_writer.ts';
import { sharedName, wideName } from './shared_names.ts';
import { ruleOf, unitsOf } from './units.ts';

/** A file with all that its elements look like. */
export interface FileRules {
  readonly id: string;
  readonly rules: readonly StyleRule[];
  /** Where classes are known to all sheets of a page: whether this one comes with several pages. */
  readonly isEverywhere?: boolean;
}

/** How classes are named. */
export interface ShareOptions {
  /** Whether a person gave an element its name: its class is called after that, whatever it was before. */
  readonly isNamed?: (key: string) => boolean;
  /** Classes are known to all sheets of a page, and not to their own file alone. */
  readonly isFlat?: boolean;
}

export interface SharedStyles {
  /** Rules of the sheet that all share. */
  readonly rules: readonly StyleRule[];
  readonly files: ReadonlyMap<string, FileStyles>;
}

/**
 * Writes once what several rules say: of those that are called the same, what they have in common becomes a class of that
 * name, and each keeps what is its own; rules that are wholly the same are one. What only one file says stays in its sheet.
 * Greedy, by the lines that are saved. What was shared before goes on being shared under its name, and a file in which
 * nothing looks otherwise than before is written as it was.
 * @param before how it was written before
 */
export function shareStyles(
  files: readonly FileRules[],
  before: CodeBefore = NOTHING_BEFORE,
  { isNamed = () => false, isFlat = false }: ShareOptions = {},
): SharedStyles {
  const places = files.flatMap(({ id, rules }) => {
    const looks = before.files.get(id)?.looks ?? {};
    const ids = lookIds(rules);
    return rules.map((rule): Place => {
      const look = ids.get(rule);
      const known = look !== undefined && Object.hasOwn(looks, look) ? looks[look] : undefined;
      return {
        file: id,
        rule,
        left: new Map(unitsOf(rule).map((unit) => [unit.sign, unit])),
        pinned: new Map(),
        uses: [],
        before: known,
        isSettled: known !== undefined && known.sign === lookSign(rule),
      };
    });
  });
  const laid = layOver(places);
  const all = [...places, ...laid.usual.values()];
  const names = new Namer(files, isFlat);
  const made = { shared: [] as StyleRule[], own: new Map<string, StyleRule[]>() };
  const ownNames = asBefore(all, laid.over, before, made, names, isNamed);
  const named = new Map<string, string>();
  const name = (part: Part): void => {
    const { wanted, left, covered } = part;
    if (!left.size) return;
    const [first] = covered;
    const sign = signOf(part);
    const isOwn = covered.every(({ file }) => file === first.file);
    const known = isOwn ? undefined : named.get(sign);
    const units = [...left.values()];
    const unnamed = ruleOf((isOwn ? null : wideName(units)) ?? wanted, first.rule.key, units);
    const className = known ?? (isOwn ? names.own(first.file, unnamed) : names.shared(unnamed));
    if (!isOwn) named.set(sign, className);
    const rule = { ...unnamed, className };
    if (isOwn) made.own.set(first.file, [...(made.own.get(first.file) ?? []), rule]);
    else if (known === undefined) made.shared.push(rule);
    for (const { uses } of covered) uses.push({ from: isOwn ? 'own' : 'shared', name: className });
  };
  const free = all.filter((place) => !place.isSettled && !laid.over.has(place));
  const byName = merged(commonByName(free.filter(({ uses }) => !uses.length)), free);
  const blocks = commonBlocks(byName, free);
  for (const parts of [byName, blocks])
    for (const [, group] of grouped(parts, ({ wanted }) => wanted)) {
      // The name without a number is that of most of them, and stays so when one of the others changes.
      const signs = new Map(group.map((part) => [part, signOf(part)]));
      group.sort((x, y) => y.covered.length - x.covered.length || (signs.get(x)! < signs.get(y)! ? -1 : 1));
      group.forEach(name);
    }
  // What is left the same under different names.
  const rest = free.filter(({ left }) => left.size > 0);
  const alike = [...grouped(rest, signOf)].sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1));
  for (const [, group] of alike) {
    if (group.length < 2) continue;
    const { left } = group[0];
    name(partOf(sharedName(group, [...left.values()]), [...left.keys()], group));
  }
  const shared = saidOfOthers(all, made.shared);
  const ofFile = grouped(places, ({ file }) => file);
  return {
    rules: shared.toSorted((a, b) => inWords.compare(a.className, b.className)),
    files: new Map(
      files.map(({ id }): [string, FileStyles] => {
        const inFile = ofFile.get(id) ?? [];
        const known = before.files.get(id);
        const isSettled =
          Object.keys(known?.looks ?? {}).length === inFile.length &&
          inFile.every((place) => place.isSettled);
        const nameOf = (place: Place, rule: StyleRule): string => ownNames.get(place) ?? names.own(id, rule);
        const written = new SheetWriter(laid, made.own.get(id) ?? [], nameOf).write(inFile);
        return [id, { ...written, asBefore: isSettled ? known! : null }];
      }),
    ),
  };
}
