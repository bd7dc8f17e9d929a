import type { Declarations } from '../../model/design.ts';
import { camelCase, uniqueCodeName } from '../../model/names.ts';
import { grouped } from '../grouped.ts';
import type { StyleRule } from '../markup.ts';

/** Where the classes of a file went: each is written as these, in order. */
export interface FileStyles {
  /** Rules of the file's own sheet. */
  readonly rules: readonly StyleRule[];
  readonly classes: ReadonlyMap<string, readonly ClassUse[]>;
}
export interface ClassUse {
  readonly from: 'own' | 'shared';
  readonly name: string;
}

export interface SharedStyles {
  /** Rules of the sheet that all share. */
  readonly rules: readonly StyleRule[];
  readonly files: ReadonlyMap<string, FileStyles>;
}

/**
 * A part of a rule that can stand by itself: all that is said of one property and its kin, at all widths; or all that is
 * said of one state. Of a rule that is parted each unit goes one way, so that no two classes of an element say the same
 * property, and the order of sheets says nothing.
 */
interface Unit {
  readonly sign: string;
  readonly lines: number;
  readonly put: (rule: MutableRule) => void;
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };
interface MutableRule {
  readonly base: Mutable<Declarations>;
  readonly at: Record<string, Mutable<Declarations>>;
  readonly from: Record<string, Mutable<Declarations>>;
  readonly states: Record<string, Declarations>;
}

/** Properties that one shorthand says together. */
const KIN: readonly (readonly [RegExp, string])[] = [
  [/^border-.*-radius$/, 'radius'],
  [/^border-image/, 'border-image'],
  [/^border-(top|right|bottom|left)-/, 'border'],
  [
    /^(margin|padding|background|outline|transition|animation|text-decoration|overflow|list-style|mask)(-|$)/,
    '$1',
  ],
  [/^(top|right|bottom|left)$/, 'inset'],
  [/^(row-gap|column-gap)$/, 'gap'],
  [/^flex-(grow|shrink|basis)$/, 'flex'],
  [/^flex-(direction|wrap)$/, 'flow'],
  [/^(white-space-collapse|text-wrap-mode)$/, 'white-space'],
  [/^(align|justify)-(items|content|self)$/, 'place-$2'],
];

function kinOf(property: string): string {
  for (const [pattern, name] of KIN) {
    const found = pattern.exec(property);
    if (found) return name.replace(/\$(\d)/g, (_, at: string) => found[Number(at)]);
  }
  return property;
}

const unitsKnown = new WeakMap<StyleRule, readonly Unit[]>();

function unitsOf(rule: StyleRule): readonly Unit[] {
  let units = unitsKnown.get(rule);
  if (!units) unitsKnown.set(rule, (units = partUnits(rule)));
  return units;
}

function partUnits({ base, at, from, states }: StyleRule): Unit[] {
  type Said = [table: 'base' | 'at' | 'from', width: string, property: string, value: string];
  const byKin = new Map<string, Said[]>();
  const note = (table: Said[0], width: string, block: Declarations): void => {
    for (const [property, value] of Object.entries(block)) {
      const kin = kinOf(property);
      const said = byKin.get(kin);
      if (said) said.push([table, width, property, value]);
      else byKin.set(kin, [[table, width, property, value]]);
    }
  };
  note('base', '', base);
  for (const [width, block] of Object.entries(at)) note('at', width, block);
  for (const [width, block] of Object.entries(from)) note('from', width, block);
  return [
    ...[...byKin.values()].map((said): Unit => ({
      sign: JSON.stringify(said.toSorted()),
      lines: said.length,
      put: (rule) => {
        for (const [table, width, property, value] of said)
          if (table === 'base') rule.base[property] = value;
          else (rule[table][width] ??= {})[property] = value;
      },
    })),
    ...Object.entries(states).map(([state, block]): Unit => ({
      sign: JSON.stringify([state, Object.entries(block).toSorted()]),
      lines: Object.keys(block).length + 2,
      put: (rule) => void (rule.states[state] = block),
    })),
  ];
}

/** A rule as it stands in one file. */
interface Place {
  readonly file: string;
  readonly rule: StyleRule;
  /** What is left of it for its own sheet, by sign. */
  readonly left: Map<string, Unit>;
  readonly uses: ClassUse[];
}

/** What several rules have in common. */
interface Part {
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
 * Greedy, by the lines that are saved.
 */
export function shareStyles(
  files: readonly { readonly id: string; readonly rules: readonly StyleRule[] }[],
): SharedStyles {
  const places = files.flatMap(({ id, rules }) =>
    rules.map((rule): Place => ({
      file: id,
      rule,
      left: new Map(unitsOf(rule).map((unit) => [unit.sign, unit])),
      uses: [],
    })),
  );
  const names = new Namer(files);
  const made = { shared: [] as StyleRule[], own: new Map<string, StyleRule[]>() };
  const named = new Map<string, string>();
  /** Takes units out of the rules that have them; they get their class when all of that name are known. */
  const part = (signs: readonly string[], covered: readonly Place[]): Part => {
    const units = signs.map((sign) => covered[0].left.get(sign)!);
    for (const { left } of covered) for (const sign of signs) left.delete(sign);
    return { sign: signs.toSorted().join('\n'), units, covered };
  };
  const name = (wanted: string, { sign, units, covered }: Part): void => {
    const [first] = covered;
    const isOwn = covered.every(({ file }) => file === first.file);
    const known = isOwn ? undefined : named.get(sign);
    const className = known ?? (isOwn ? names.own(first.file, wanted) : names.shared(wanted));
    if (!isOwn) named.set(sign, className);
    const rule = ruleOf(className, first.rule.key, units);
    if (isOwn) made.own.set(first.file, [...(made.own.get(first.file) ?? []), rule]);
    else if (known === undefined) made.shared.push(rule);
    for (const { uses } of covered) uses.push({ from: isOwn ? 'own' : 'shared', name: className });
  };
  for (const [wanted, group] of grouped(places, ({ rule }) => plainName(rule.className))) {
    const parts: Part[] = [];
    let open = group;
    while (open.length > 1) {
      const best = bestOf(open);
      if (!best) break;
      parts.push(part(best.signs, best.covered));
      const done = new Set(best.covered);
      open = open.filter((place) => !done.has(place));
    }
    // The name without a number is that of most of them, and stays so when one of the others changes.
    parts.sort((x, y) => y.covered.length - x.covered.length || (x.sign < y.sign ? -1 : 1));
    for (const one of parts) name(wanted, one);
  }
  // What is left the same under different names.
  const rest = places.filter(({ left }) => left.size > 0);
  const alike = [...grouped(rest, signOf)].sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1));
  for (const [, group] of alike) {
    // What a rule says besides what it shares is its own affair, unless many say it.
    const least = group.every(({ uses }) => uses.length > 0) ? LEAST_BESIDES : 2;
    if (group.length < least) continue;
    const [[most], ...others] = [...grouped(group, ({ rule }) => plainName(rule.className))].sort(
      ([, a], [, b]) => b.length - a.length,
    );
    const [{ left }] = group;
    const wanted = others.length ? (saidBy([...left.values()]) ?? most) : most;
    name(wanted, part([...left.keys()], group));
  }
  const ofFile = grouped(places, ({ file }) => file);
  return {
    rules: made.shared,
    files: new Map(
      files.map(({ id }): [string, FileStyles] => {
        const rules = [...(made.own.get(id) ?? [])];
        const classes = new Map<string, readonly ClassUse[]>();
        for (const { rule, left, uses } of ofFile.get(id) ?? []) {
          if (left.size) {
            const className = names.own(id, rule.className);
            rules.push(
              uses.length
                ? ruleOf(className, rule.key, [...left.values()])
                : className === rule.className
                  ? rule
                  : { ...rule, className },
            );
            classes.set(rule.className, [...uses.toSorted(sharedFirst), { from: 'own', name: className }]);
          } else classes.set(rule.className, uses.toSorted(sharedFirst));
        }
        return [id, { rules, classes }];
      }),
    ),
  };
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

function ruleOf(className: string, key: string | null, units: readonly Unit[]): StyleRule {
  const rule: MutableRule = { base: {}, at: {}, from: {}, states: {} };
  for (const unit of units) unit.put(rule);
  return { className, key, ...rule };
}

const sharedFirst = (a: ClassUse, b: ClassUse): number =>
  Number(b.from === 'shared') - Number(a.from === 'shared');

/** Longest name that says a declaration. */
const LONGEST = 24;

/** A name for what is said under many: the one declaration that it is, as `clearBoth`; null where it is more. */
function saidBy(units: readonly Unit[]): string | null {
  const { base, at, from, states } = ruleOf('', null, units);
  const said = Object.entries(base);
  if (said.length !== 1 || [at, from, states].some((table) => Object.keys(table).length)) return null;
  const [[property, value]] = said;
  const name = camelCase(/^[a-z-]+$/.test(value) ? `${property} ${value}` : property);
  return name.length <= LONGEST ? name : camelCase(property);
}

/** Rules that say the same besides what they share, for that to be shared too. */
const LEAST_BESIDES = 4;

/** What is left of a rule, to be compared. */
const signOf = ({ left }: Place): string => [...left.keys()].toSorted().join('\n');

const plainName = (className: string): string => className.replace(/\d+$/, '');

/** Gives names that no other class of a sheet has. */
class Namer {
  readonly #shared = new Set<string>();
  readonly #own: ReadonlyMap<string, Set<string>>;

  constructor(files: readonly { readonly id: string }[]) {
    this.#own = new Map(files.map(({ id }) => [id, new Set<string>()]));
  }

  shared(name: string): string {
    return take(this.#shared, name);
  }

  own(file: string, name: string): string {
    return take(this.#own.get(file)!, name);
  }
}

function take(taken: Set<string>, name: string): string {
  const made = uniqueCodeName(plainName(name), 'part', (candidate) => taken.has(candidate));
  taken.add(made);
  return made;
}
