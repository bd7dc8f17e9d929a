import { uniqueCodeName } from '../../../model/names.ts';
import type { MarkupElement, StyleRule } from '../markup.ts';
import { lookText } from '../styles/look_text.ts';
import { ruleOf, unitsOf } from '../styles/units.ts';
import { noteAddresses } from './own_links.ts';
import type { Place } from './template.ts';

/**
 * What says where an element stands and how much room it has there: the affair of what it stands in, not of the component
 * that it is. By kin, as units of rules are.
 */
const PLACEMENT: ReadonlySet<string> = new Set([
  'margin',
  'place-self',
  'flex',
  'order',
  'grid-row',
  'grid-row-start',
  'grid-row-end',
  'grid-column',
  'grid-column-start',
  'grid-column-end',
  'grid-area',
  'position',
  'inset',
  'z-index',
  'float',
  'clear',
  'vertical-align',
  'width',
  'min-width',
  'max-width',
  'height',
  'min-height',
  'max-height',
]);

/** A place whose element says only what is its own; what says how it is placed is a rule of what it stands in. */
export type Apart<P extends Place> = P & {
  /** The element as it stands there. */
  readonly origin: MarkupElement;
  readonly placed: StyleRule | null;
};

/**
 * Parts what each place says of where it stands from what it says of itself, as far as the places differ in that: what all
 * say alike stays with the component.
 */
export function placedApart<P extends Place>(places: readonly P[]): Apart<P>[] {
  const whole = places.map((place): Apart<P> => ({ ...place, origin: place.node, placed: null }));
  // What depends on a prop of a component around it stays one.
  if (places.some(({ node }) => node.variant || node.aspects)) return whole;
  const rules = places.map(({ node, rules: known }) => known.get(node.className ?? ''));
  const signs = rules.map(
    (rule) =>
      new Map(
        (rule ? unitsOf(rule) : []).flatMap(({ kin, sign }) => (PLACEMENT.has(kin) ? [[kin, sign]] : [])),
      ),
  );
  const moved = new Set(
    [...new Set(signs.flatMap((kins) => [...kins.keys()]))].filter(
      (kin) => new Set(signs.map((kins) => kins.get(kin))).size > 1,
    ),
  );
  if (!moved.size) return whole;
  return whole.map((place, i): Apart<P> => {
    const rule = rules[i];
    if (!rule) return place;
    const units = unitsOf(rule);
    const away = units.filter(({ kin }) => moved.has(kin));
    if (!away.length) return place;
    const own = units.filter((unit) => !away.includes(unit));
    const has = (name: string): boolean => place.rules.has(name);
    const ownName = uniqueCodeName(rule.className, 'part', has);
    const node = { ...place.node, className: own.length ? ownName : null };
    noteAddresses(node);
    return {
      ...place,
      node,
      rules: new Map([...place.rules, [ownName, ruleOf(ownName, rule.key, own)]]),
      placed: ruleOf(rule.className, place.node.key, away),
    };
  });
}

/**
 * The rules of a body with those that place components put beside those that they were parts of, under names of their own: one
 * for all that are placed alike.
 */
export function withPlaced(
  rules: ReadonlyMap<string, StyleRule>,
  placed: readonly StyleRule[],
): { readonly rules: ReadonlyMap<string, StyleRule>; readonly names: ReadonlyMap<StyleRule, string> } {
  const taken = new Set(rules.keys());
  const names = new Map<StyleRule, string>();
  const beside = new Map<string, StyleRule[]>();
  const known = new Map<string, string>();
  for (const rule of placed) {
    const look = lookText(rule);
    const same = known.get(look);
    if (same !== undefined) {
      names.set(rule, same);
      continue;
    }
    const name = uniqueCodeName(rule.className, 'part', (candidate) => taken.has(candidate));
    taken.add(name);
    known.set(look, name);
    names.set(rule, name);
    beside.set(rule.className, [...(beside.get(rule.className) ?? []), { ...rule, className: name }]);
  }
  return {
    names,
    rules: new Map(
      [...rules].flatMap(([name, rule]) =>
        [rule, ...(beside.get(name) ?? [])].map((one) => [one.className, one] as const),
      ),
    ),
  };
}
