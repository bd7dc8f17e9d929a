import type { ClassStyle, Declarations } from '../../../model/design.ts';
import { grouped } from '../../../json/grouped.ts';
import { drawnUpTo } from '../../../vocabulary/style_values.ts';
import type { StyleRule } from '../markup.ts';
import { onceFor } from '../../../json/once_for.ts';

/**
 * A part of a rule that can stand by itself: all that is said of one property and its kin, at all widths; or all that is
 * said of one state. Of a rule that is parted each unit goes one way, so that no two classes of an element say the same
 * property, and the order of sheets says nothing.
 */
export interface Unit {
  readonly sign: string;
  /** The kin that it says, or the state, as `:hover`. */
  readonly kin: string;
  /** The kin that it says, of a state that of what is so then: no two units of a rule say something of the same. */
  readonly of: string;
  /** What it says something of, at which width: by these it is told whether another says otherwise all that it says. */
  readonly says: readonly string[];
  readonly lines: number;
  readonly put: (rule: MutableRule) => void;
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };
interface MutableRule {
  readonly base: Mutable<Declarations>;
  readonly at: Record<string, Mutable<Declarations>>;
  readonly from: Record<string, Mutable<Declarations>>;
  readonly states: Record<string, Mutable<Declarations>>;
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

/** Of the few properties that there are. */
const kinsKnown = new Map<string, string>();

/** What one shorthand says together with a property, or the property. */
export function kinOf(property: string): string {
  let kin = kinsKnown.get(property);
  if (kin === undefined) kinsKnown.set(property, (kin = findKin(property)));
  return kin;
}

function findKin(property: string): string {
  for (const [pattern, name] of KIN) {
    const found = pattern.exec(property);
    if (found) return name.replace(/\$(\d)/g, (_, at: string) => found[Number(at)]);
  }
  return property;
}

export const unitsOf = onceFor((rule: StyleRule): readonly Unit[] => partUnits(rule));

export function partUnits({ base, at, from, states }: ClassStyle): Unit[] {
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
    ...[...byKin].map(([kin, said]): Unit => ({
      sign: JSON.stringify(said.toSorted()),
      kin,
      of: kin,
      says: said.map(([table, width, property]) => `${table} ${width} ${property}`),
      lines: said.length,
      put: (rule) => {
        for (const [table, width, property, value] of said)
          if (table === 'base') rule.base[property] = value;
          else (rule[table][width] ??= {})[property] = value;
      },
    })),
    ...stateUnits(states),
  ];
}

/** What is said of states, by kin; what is drawn before or after an element is one thing, in windows of all widths. */
function stateUnits(states: ClassStyle['states']): Unit[] {
  const byState = [...grouped(Object.entries(states), ([state]) => drawnUpTo(state)?.part ?? state)];
  return byState.flatMap(([kin, all]) => {
    const blocks = all.filter(([, block]) => Object.keys(block).length > 0);
    if (!blocks.length) return [];
    const said = blocks.flatMap(([state, block]) =>
      Object.entries(block).map(([property, value]) => [state, property, value] as const),
    );
    const parts = grouped(said, ([, property]) => (kin.includes('::') ? '' : kinOf(property)));
    return [...parts].map(([of, some]): Unit => ({
      sign: JSON.stringify([kin, some.toSorted()]),
      kin,
      of: `${kin}|${of}`,
      says: [],
      lines: some.length + blocks.length,
      put: (rule) => {
        for (const [state, property, value] of some) (rule.states[state] ??= {})[property] = value;
      },
    }));
  });
}

/** Whether it is said of a state. */
export const isOfState = ({ kin }: Unit): boolean => kin.startsWith(':');

/** What a rule says of some kin; nothing where it says nothing of them. */
export function partOfRule(rule: StyleRule, kins: ReadonlySet<string>): StyleRule | undefined {
  const units = unitsOf(rule).filter(({ of }) => kins.has(of));
  return units.length ? ruleOf(rule.className, rule.key, units) : undefined;
}

/** A class that says these units. */
export function ruleOf(className: string, key: string | null, units: readonly Unit[]): StyleRule {
  const rule: MutableRule = { base: {}, at: {}, from: {}, states: {} };
  for (const unit of units) unit.put(rule);
  return { className, key, ...rule };
}
