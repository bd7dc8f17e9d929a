import { uniqueCodeName } from '../../../model/names.ts';
import { type MarkupElement, type StyleRule, withClasses } from '../markup.ts';
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
  const looks = places.map(looksOf);
  const signs = looks.map((rules) => rules.map(signsOf));
  const kinds = [...new Set(signs.flatMap((all) => all.flatMap((kins) => [...kins.keys()])))];
  const fixed = new Set(places.flatMap(({ node, rules }) => saidByAspects(node, rules)));
  const moved = new Set(
    kinds.filter(
      (kin) =>
        !fixed.has(kin) &&
        // What depends on a prop of a component around it stays one.
        signs.every((all) => new Set(all.map((kins) => kins.get(kin))).size < 2) &&
        new Set(signs.map(([kins]) => kins?.get(kin))).size > 1,
    ),
  );
  if (!moved.size) return whole;
  return whole.map((place, i) => {
    // What is moved all looks of a place say alike.
    const [first] = looks[i];
    const away = first ? unitsOf(first).filter(({ kin }) => moved.has(kin)) : [];
    return first && away.length
      ? { ...apartFrom(place, looks[i], moved), placed: ruleOf(first.className, place.node.key, away) }
      : place;
  });
}

/** The rules of all looks that an element may have by its class; one without any for a look that has none. */
function looksOf({ node, rules }: Place): readonly (StyleRule | undefined)[] {
  const names = node.variant ? Object.values(node.variant.classes) : [node.className];
  return names.map((name) => rules.get(name ?? ''));
}

const signsOf = (rule: StyleRule | undefined): ReadonlyMap<string, string> =>
  new Map(
    (rule ? unitsOf(rule) : []).flatMap(({ kin, sign }) =>
      PLACEMENT.has(kin) ? [[kin, sign] as const] : [],
    ),
  );

const saidByAspects = ({ aspects = [] }: MarkupElement, rules: Place['rules']): string[] =>
  aspects.flatMap(({ classes }) =>
    Object.values(classes).flatMap((name) => [...signsOf(rules.get(name ?? '')).keys()]),
  );

/** A place whose looks say nothing any more of what is moved away. */
function apartFrom<P extends Place>(
  place: Apart<P>,
  looks: readonly (StyleRule | undefined)[],
  moved: ReadonlySet<string>,
): Apart<P> {
  const rules = new Map(place.rules);
  const renamed = new Map<string, string | null>();
  for (const rule of looks) {
    if (!rule || renamed.has(rule.className)) continue;
    const own = unitsOf(rule).filter(({ kin }) => !moved.has(kin));
    const ownName = uniqueCodeName(rule.className, 'part', (name) => rules.has(name));
    rules.set(ownName, ruleOf(ownName, rule.key, own));
    renamed.set(rule.className, own.length ? ownName : null);
  }
  const change = (name: string): string | null => renamed.get(name) ?? null;
  const { variant, className } = place.node;
  const node: MarkupElement = variant
    ? { ...place.node, variant: withClasses(variant, change) }
    : { ...place.node, className: className === null ? null : change(className) };
  noteAddresses(node);
  return { ...place, node, rules };
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
