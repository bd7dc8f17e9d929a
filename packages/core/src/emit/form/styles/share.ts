import type { ClassStyle } from '../../../model/design.ts';
import { camelCase, uniqueCodeName } from '../../../model/names.ts';
import { hash } from '../../../json/hash.ts';
import { type CodeBefore, type FileBefore, type LookBefore, NOTHING_BEFORE } from '../before.ts';
import { grouped } from '../../../json/grouped.ts';
import type { StyleRule } from '../markup.ts';
import { lookWords } from './look_words.ts';
import { partUnits, ruleOf, type Unit, unitsOf } from './units.ts';

/** Where the classes of a file went: each is written as these, in order. */
export interface FileStyles {
  /** Rules of the file's own sheet. */
  readonly rules: readonly StyleRule[];
  readonly classes: ReadonlyMap<string, readonly ClassUse[]>;
  /** Of a file in which nothing looks otherwise than before: how it was written, and is still. */
  readonly asBefore: FileBefore | null;
}
export interface ClassUse {
  readonly from: 'own' | 'shared';
  readonly name: string;
  /** Whether it says otherwise what those before it say. */
  readonly isOver?: true;
}

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

/** A rule as it stands in one file. */
interface Place {
  readonly file: string;
  readonly rule: StyleRule;
  /** What is left of it for its own sheet, by sign. */
  readonly left: Map<string, Unit>;
  /** What classes that are laid over it say otherwise, so that it stays in the sheet that they are in, before them. */
  readonly pinned: Map<string, Unit>;
  readonly uses: ClassUse[];
  /** How it was written before. */
  readonly before: LookBefore | undefined;
  /** Whether it looks as it did: it is written as it was. */
  readonly isSettled: boolean;
}

/** What several rules have in common. */
interface Part {
  /** What its class would be called. */
  readonly wanted: string;
  readonly sign: string;
  readonly units: readonly Unit[];
  readonly covered: readonly Place[];
}

/** Rules of one name that are compared with each other, at most. */
const MOST_COMPARED = 60;
/** Lines that have to be saved for a class to be worth its name. */
const LEAST_SAVED = 3;

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
    return rules.map((rule): Place => {
      const known = rule.key !== null && Object.hasOwn(looks, rule.key) ? looks[rule.key] : undefined;
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
  const overs = layOver(places);
  const names = new Namer(files, isFlat);
  const made = { shared: [] as StyleRule[], own: new Map<string, StyleRule[]>() };
  const ownNames = asBefore(places, overs, before, made, names, isNamed);
  const named = new Map<string, string>();
  /** Takes units out of the rules that have them; they get their class when all of that name are known. */
  const part = (wanted: string, signs: readonly string[], covered: readonly Place[]): Part => {
    const units = signs.map((sign) => covered[0].left.get(sign)!);
    for (const { left } of covered) for (const sign of signs) left.delete(sign);
    return { wanted, sign: signs.toSorted().join('\n'), units, covered };
  };
  const name = ({ wanted, sign, units, covered }: Part): void => {
    const [first] = covered;
    const isOwn = covered.every(({ file }) => file === first.file);
    const known = isOwn ? undefined : named.get(sign);
    const unnamed = ruleOf(wanted, first.rule.key, units);
    const className = known ?? (isOwn ? names.own(first.file, unnamed) : names.shared(unnamed));
    if (!isOwn) named.set(sign, className);
    const rule = { ...unnamed, className };
    if (isOwn) made.own.set(first.file, [...(made.own.get(first.file) ?? []), rule]);
    else if (known === undefined) made.shared.push(rule);
    for (const { uses } of covered) uses.push({ from: isOwn ? 'own' : 'shared', name: className });
  };
  const free = places.filter((place) => !place.isSettled && !overs.has(place));
  const parts: Part[] = [];
  for (const [wanted, group] of grouped(free, ({ rule }) => plainName(rule.className))) {
    let open = group.filter(({ uses }) => !uses.length);
    while (open.length > 1) {
      const best = bestOf(open);
      if (!best) break;
      parts.push(part(wanted, best.signs, best.covered));
      const done = new Set(best.covered);
      open = open.filter((place) => !done.has(place));
    }
  }
  for (const [, group] of grouped(merged(parts, free), ({ wanted }) => wanted)) {
    // The name without a number is that of most of them, and stays so when one of the others changes.
    group.sort((x, y) => y.covered.length - x.covered.length || (x.sign < y.sign ? -1 : 1));
    group.forEach(name);
  }
  // What elements of several kinds look like when something is done with them.
  const pressed = free.filter(({ left }) => statesOf(left).length > 0);
  for (const [, group] of grouped(pressed, ({ left }) => statesOf(left).toSorted().join('\n'))) {
    const signs = statesOf(group[0].left);
    const lines = signs.reduce((sum, sign) => sum + group[0].left.get(sign)!.lines, 0);
    const isWhole = group.every(({ left }) => left.size === signs.length);
    if (group.length > 1 && lines >= LEAST_OF_STATES && !isWhole) name(part(mostNamed(group), signs, group));
  }
  // What is left the same under different names.
  const rest = free.filter(({ left }) => left.size > 0);
  const alike = [...grouped(rest, signOf)].sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1));
  for (const [, group] of alike) {
    if (group.length < 2) continue;
    // What a rule says besides what it shares is its own affair, unless many say it, or it is much.
    const isBesides = group.every(({ uses }) => uses.length > 0);
    const saved = linesOf([...group[0].left.values()]) * (group.length - 1);
    if (isBesides && group.length < LEAST_BESIDES && saved < LEAST_SAVED_BESIDES) continue;
    const most = mostNamed(group);
    const [{ left }] = group;
    const isOne = group.every(({ rule }) => plainName(rule.className) === most);
    const wanted = isOne ? most : (saidBy([...left.values()]) ?? most);
    name(part(wanted, [...left.keys()], group));
  }
  const ofFile = grouped(places, ({ file }) => file);
  const oversOf = grouped([...overs], ([{ file }]) => file);
  return {
    rules: made.shared.toSorted((a, b) => byName.compare(a.className, b.className)),
    files: new Map(
      files.map(({ id }): [string, FileStyles] => {
        const rules: StyleRule[] = [];
        const open = new Map((made.own.get(id) ?? []).map((rule) => [rule.className, rule]));
        const classes = new Map<string, readonly ClassUse[]>();
        const write = (place: Place): void => {
          const { rule, left, pinned, uses } = place;
          // What several share stands before the first of them.
          for (const { from, name } of uses) {
            const first = from === 'own' ? open.get(name) : undefined;
            if (first) rules.push(first);
            if (first) open.delete(name);
          }
          if (!left.size && !pinned.size) {
            classes.set(rule.className, uses.toSorted(inOrder));
            return;
          }
          const wanted = rule.ownName ?? rule.className;
          // In the order that it says it in.
          const own = unitsOf(rule).filter(({ sign }) => left.has(sign) || pinned.has(sign));
          const unnamed = ruleOf(wanted, rule.key, own);
          const className = ownNames.get(place) ?? names.own(id, unnamed);
          rules.push({ ...unnamed, className });
          const all: ClassUse[] = [...uses, { from: 'own', name: className }];
          classes.set(rule.className, all.toSorted(inOrder));
        };
        /** What is laid over others stands right after them, and is written besides them. */
        const writeOver = (place: Place, under: Place): void => {
          const { rule, left } = place;
          const unnamed = ruleOf(rule.ownName ?? rule.className, rule.key, [...left.values()]);
          const className = ownNames.get(place) ?? names.own(id, unnamed);
          rules.push({ ...unnamed, className, isOver: true });
          classes.set(rule.className, [
            ...classes.get(under.rule.className)!,
            { from: 'own', name: className, isOver: true },
          ]);
        };
        const over = grouped(oversOf.get(id) ?? [], ([, under]) => under.rule.className);
        for (const place of ofFile.get(id) ?? []) {
          if (overs.has(place)) continue;
          write(place);
          for (const [one] of over.get(place.rule.className) ?? []) writeOver(one, place);
        }
        const inFile = ofFile.get(id) ?? [];
        const isSettled =
          Object.keys(before.files.get(id)?.looks ?? {}).length === inFile.length &&
          inFile.every((place) => place.isSettled);
        return [id, { rules, classes, asBefore: isSettled ? before.files.get(id)! : null }];
      }),
    ),
  };
}

/** Lines of what is said of states for that to be worth a class of its own. */
const LEAST_OF_STATES = 3;

/** Signs of what is said of states. */
const statesOf = (units: ReadonlyMap<string, Unit>): string[] =>
  [...units.values()].flatMap(({ sign, kin }) => (kin.startsWith(':') ? [sign] : []));

/** What most of some rules are called, without their numbers. */
const mostNamed = (places: readonly Place[]): string =>
  [...grouped(places, ({ rule }) => plainName(rule.className))].sort(
    ([, a], [, b]) => b.length - a.length,
  )[0][0];

/** Parts that say the same under several names as one, with the rules that say just that and nothing else. */
function merged(parts: readonly Part[], places: readonly Place[]): Part[] {
  const bySign = grouped(parts, ({ sign }) => sign);
  const whole = grouped(
    places.filter((place) => place.left.size > 0 && !place.pinned.size && bySign.has(signOf(place))),
    signOf,
  );
  return [...bySign].map(([sign, alike]): Part => {
    const [largest] = alike.toSorted((a, b) => b.covered.length - a.covered.length);
    const joining = whole.get(sign) ?? [];
    for (const { left } of joining) left.clear();
    return { ...largest, covered: [...alike.flatMap(({ covered }) => covered), ...joining] };
  });
}

/**
 * Lays classes over those that they only differ from: they keep what they say otherwise, and what they have in common with
 * those is left to them. Only where each thing that is said below is said otherwise above, or the same, as a rule that is not
 * there cannot take anything away.
 * @returns what each class is laid over
 */
function layOver(places: readonly Place[]): ReadonlyMap<Place, Place> {
  const overs = new Map<Place, Place>();
  for (const inFile of grouped(places, ({ file }) => file).values()) {
    const byName = new Map(inFile.map((place) => [place.rule.className, place]));
    for (const place of inFile) {
      const under = byName.get(place.rule.over ?? '');
      if (!under || under.rule.over !== undefined) continue;
      const [above, below] = [place.rule, under.rule].map(unitsOf);
      const [ownAbove, ownBelow] = [without(above, below), without(below, above)];
      if (!ownAbove.length || ownBelow.some((unit) => !ownAbove.some((other) => covers(other, unit))))
        continue;
      overs.set(place, under);
      place.left.clear();
      for (const unit of ownAbove) place.left.set(unit.sign, unit);
      for (const unit of ownBelow) {
        under.left.delete(unit.sign);
        under.pinned.set(unit.sign, unit);
      }
    }
  }
  return overs;
}

const without = (units: readonly Unit[], others: readonly Unit[]): Unit[] =>
  units.filter(({ sign }) => !others.some((other) => other.sign === sign));

/** Whether all that a unit says is said otherwise by another; what is said of a state stands too strongly for that. */
const covers = (above: Unit, below: Unit): boolean =>
  above.kin === below.kin && below.says.length > 0 && below.says.every((said) => above.says.includes(said));

/**
 * Says what was shared before as it was: of rules that say it still, and of new ones by the name or as a whole. Gives the
 * names of classes that say the rest of a rule, as far as they had one.
 */
function asBefore(
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
      .sort((a, b) => linesOf(kept.get(b)!) - linesOf(kept.get(a)!) || byName.compare(a, b))[0];
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
        (place) => !overs.has(place) && place.before?.own.includes(name) && says(place, units),
      );
      if (still.length < 2) continue;
      for (const place of still) {
        leave(place, units);
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

const says = ({ left }: Place, units: readonly Unit[] | undefined): units is readonly Unit[] =>
  units !== undefined && units.length > 0 && units.every(({ sign }) => left.has(sign));

function leave({ left }: Place, units: readonly Unit[]): void {
  for (const { sign } of units) left.delete(sign);
}

const linesOf = (units: readonly Unit[]): number => units.reduce((sum, { lines }) => sum + lines, 0);

/** A hash of all that a rule says, whatever the order that it says it in. */
const lookSign = (rule: StyleRule): string =>
  hash(
    unitsOf(rule)
      .map(({ sign }) => sign)
      .toSorted()
      .join('\n'),
  );

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
  for (const rule of rules) {
    if (rule.key === null) continue;
    const all = written.classes.get(rule.className) ?? [];
    const over = all.find(({ isOver }) => isOver);
    const uses = over ? [over] : all;
    const own = uses.flatMap(({ from, name }) => (from === 'own' ? [name] : []));
    const rest = own.find((name) => !isShared(name));
    looks[rule.key] = {
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

/** Those that files share first, then those of the file by name: the same set is always said in the same order. */
const inOrder = (a: ClassUse, b: ClassUse): number =>
  Number(b.from === 'shared') - Number(a.from === 'shared') ||
  (a.from === 'own' && a.name !== b.name ? (a.name < b.name ? -1 : 1) : 0);

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

/** A name for what is said under many: the one declaration that it is, as `clearBoth`; null where it is more. */
function saidBy(units: readonly Unit[]): string | null {
  if (units.length === 1 && units[0].lines > 1 && units[0].kin in KIN_WORDS) return KIN_WORDS[units[0].kin];
  const { base, at, from, states } = ruleOf('', null, units);
  const said = Object.entries(base);
  if (said.length !== 1 || [at, from, states].some((table) => Object.keys(table).length)) return null;
  const [[property, value]] = said;
  const name = camelCase(/^[a-z-]+$/.test(value) ? `${property} ${value}` : property);
  return name.length <= LONGEST ? name : camelCase(property);
}

/** Rules that say the same besides what they share, for that to be shared too; or lines that it saves. */
const LEAST_BESIDES = 3;
const LEAST_SAVED_BESIDES = 2;

/** What is left of a rule, to be compared. */
const signOf = ({ left }: Place): string => [...left.keys()].toSorted().join('\n');

/** By words, and numbers as numbers. */
const byName = new Intl.Collator('en', { numeric: true });

const plainName = (className: string): string => className.replace(/\d+$/, '');

function wordedName(wanted: string, rule: StyleRule, isTaken: (name: string) => boolean): string | null {
  for (const word of lookWords(rule)) {
    const name = camelCase(`${wanted} ${word}`);
    if (!wanted.toLowerCase().endsWith(word) && !isTaken(name)) return name;
  }
  return null;
}

/** Gives names that no other class of a sheet has; of flat ones, none that can stand on the same page. */
class Namer {
  readonly #shared = new Set<string>();
  readonly #own: ReadonlyMap<string, Set<string>>;
  readonly #isFlat: boolean;
  /** Sheets that come with several pages. */
  readonly #everywhere: ReadonlySet<string>;

  constructor(files: readonly FileRules[], isFlat: boolean) {
    this.#own = new Map(files.map(({ id }) => [id, new Set<string>()]));
    this.#isFlat = isFlat;
    this.#everywhere = new Set(files.flatMap(({ id, isEverywhere }) => (isEverywhere ? [id] : [])));
  }

  keepShared(name: string): void {
    this.#shared.add(name);
  }

  keepOwn(file: string, name: string): void {
    this.#own.get(file)!.add(name);
  }

  /** @param rule called what it would be */
  shared(rule: StyleRule): string {
    return this.#take(this.#shared, rule, this.#isFlat ? [...this.#own.values()] : []);
  }

  own(file: string, rule: StyleRule): string {
    const beside = !this.#isFlat
      ? []
      : this.#everywhere.has(file)
        ? [this.#shared, ...this.#own.values()]
        : [this.#shared, ...[...this.#everywhere].map((one) => this.#own.get(one)!)];
    return this.#take(this.#own.get(file)!, rule, beside);
  }

  /** The name that it would have; with a word for what it looks like where another has that; with a number where none is left. */
  #take(taken: Set<string>, rule: StyleRule, beside: readonly ReadonlySet<string>[]): string {
    const wanted = plainName(rule.className);
    const isTaken = (candidate: string): boolean =>
      taken.has(candidate) || beside.some((other) => other.has(candidate));
    const made =
      (isTaken(wanted) ? wordedName(wanted, rule, isTaken) : null) ?? uniqueCodeName(wanted, 'part', isTaken);
    taken.add(made);
    return made;
  }
}
