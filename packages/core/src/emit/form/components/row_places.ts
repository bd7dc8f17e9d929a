import type { Declarations } from '../../../model/design.ts';
import { isElement, type MarkupElement, type MarkupNode, type StyleRule } from '../markup.ts';
import { type Look, lookText } from '../styles/look_text.ts';
import { kinOf } from '../styles/units.ts';
import { uniqueCodeName } from '../../../model/names.ts';
import { sameList } from '../../../json/kept.ts';
import { valuesInOrder } from './route_looks.ts';
import type { Place, Template } from './template.ts';

/** Where a row stands among its siblings. */
export type RowPlace = 'first' | 'between' | 'last' | 'only';

/** What sets a row off from those beside it; anything else that the first one has says something of it alone. */
const SETS_OFF: ReadonlySet<string> = new Set(['border', 'radius', 'margin', 'padding']);

/**
 * Where each row stands among all that stands with it; null where that is not the same at all times, as something beside it
 * comes and goes.
 * @param roots what the rows stand in
 */
export function rowPlaces(
  rows: readonly MarkupElement[],
  roots: Iterable<MarkupElement>,
): readonly RowPlace[] | null {
  const wanted = new Set<MarkupNode>(rows);
  const found = new Map<MarkupNode, RowPlace | null>();
  const visit = (node: MarkupElement): void => {
    const elements = node.children.filter((child) => !('text' in child));
    const isSure = elements.every((child) => isElement(child) && !child.when && !child.each && !child.states);
    elements.forEach((child, at) => {
      if (wanted.has(child)) found.set(child, isSure ? placeOf(at, elements.length) : null);
      if (isElement(child)) visit(child);
    });
  };
  for (const root of roots) visit(root);
  const places = rows.map((row) => found.get(row) ?? null);
  return places.every((place) => place !== null) ? places : null;
}

const placeOf = (at: number, count: number): RowPlace =>
  count === 1 ? 'only' : at === 0 ? 'first' : at === count - 1 ? 'last' : 'between';

/**
 * One look for all rows, where their looks differ by what sets the first or the last one off and by nothing else: what differs is
 * said by the place of the row (`:first-child`, `:not(:last-child)`), so that rows can come and go. Null where that does not say it.
 * @param looks one for each row
 * @param within the tag of the row, for what stands in it
 */
export function placedLook(
  looks: readonly StyleRule[],
  places: readonly RowPlace[],
  within: string | null,
): StyleRule | null {
  const byPlace = new Map<RowPlace, StyleRule>();
  for (const [i, look] of looks.entries()) {
    const known = byPlace.get(places[i]);
    if (known && lookText(known) !== lookText(look)) return null;
    if (!known) byPlace.set(places[i], look);
  }
  const usual = byPlace.get('between');
  if (!usual) return null;
  const sides = (['first', 'last'] as const).map((place) =>
    sideOf(usual, byPlace.get(place) ?? usual, place),
  );
  if (sides.some((side) => side === null)) return null;
  const [first, last] = sides as Side[];
  const both = Object.keys({ ...first.differs, ...first.usually });
  if (both.some((name) => name in last.differs || name in last.usually)) return null;
  const only = byPlace.get('only');
  if (only && !isTogether(only, usual, [first, last])) return null;
  const moved = new Set([...Object.keys(first.usually), ...Object.keys(last.usually)]);
  return {
    ...usual,
    base: Object.fromEntries(Object.entries(usual.base).filter(([name]) => !moved.has(name))),
    states: {
      ...usual.states,
      ...Object.fromEntries(
        [first, last].flatMap(({ place, differs, usually }) => [
          ...entryOf(selectorAt(`:${place}-child`, within), differs),
          ...entryOf(selectorAt(`:not(:${place}-child)`, within), usually),
        ]),
      ),
    },
  };
}

/**
 * Rows whose looks something around them decides, with what sets the first or the last one off said by the place of the row in each
 * of the looks; as they are where that is not so.
 * @param rows where each row stands
 */
export function placedVariants<P extends Place>(
  places: readonly P[],
  rows: readonly RowPlace[],
): readonly P[] {
  const [first] = places;
  const values = first?.node.variant ? valuesInOrder(first.node.variant) : [];
  const isAlike = places.every(
    ({ node }) => node.variant && !node.aspects?.length && sameList(valuesInOrder(node.variant), values),
  );
  if (!isAlike || !values.length) return places;
  const placed = values.map((value) => {
    const looks = places.map(({ node, rules }) => rules.get(node.variant!.classes[value] ?? ''));
    if (looks.some((look) => look === undefined)) return null;
    const known = looks as readonly StyleRule[];
    const isOne = known.every((look) => lookText(look) === lookText(known[0]));
    return isOne ? known[0] : placedLook(known, rows, null);
  });
  if (placed.some((look) => look === null)) return places;
  return places.map((place) => {
    const rules = new Map(place.rules);
    const renamed = placed.map((look) => {
      const name = uniqueCodeName(look!.className, 'part', (taken) => rules.has(taken));
      rules.set(name, { ...look!, className: name });
      return name;
    });
    const classes = Object.fromEntries(values.map((value, i) => [value, renamed[i]]));
    return { ...place, node: { ...place.node, variant: { ...place.node.variant!, classes } }, rules };
  });
}

/** How the row at one end looks: what it says otherwise, or what all others say and it does not. */
interface Side {
  readonly place: 'first' | 'last';
  readonly differs: Declarations;
  readonly usually: Declarations;
}

function sideOf(usual: Look, end: Look, place: Side['place']): Side | null {
  if (lookText({ ...usual, base: {} }) !== lookText({ ...end, base: {} })) return null;
  const names = Object.keys({ ...usual.base, ...end.base }).filter(
    (name) => usual.base[name] !== end.base[name],
  );
  const kinds = new Set(names.map(kinOf));
  if ([...kinds].some((kin) => !SETS_OFF.has(kin))) return null;
  // What other widths or states say of the same would be weaker than what the place says.
  const elsewhere = [usual.at, usual.from, usual.states].flatMap((table) => Object.values(table));
  if (elsewhere.some((block) => Object.keys(block).some((name) => kinds.has(kinOf(name))))) return null;
  const isSaid = names.filter((name) => name in end.base);
  if (isSaid.length && isSaid.length < names.length) return null;
  const pick = (from: Declarations): Declarations =>
    Object.fromEntries(names.map((name) => [name, from[name]]));
  return isSaid.length
    ? { place, differs: pick(end.base), usually: {} }
    : { place, differs: {}, usually: names.length ? pick(usual.base) : {} };
}

/** Whether a row that is alone looks as the first and the last one do together. */
function isTogether(only: Look, usual: Look, sides: readonly Side[]): boolean {
  const gone = new Set(sides.flatMap(({ usually }) => Object.keys(usually)));
  const base = Object.fromEntries(
    Object.entries({ ...usual.base, ...sides[0].differs, ...sides[1].differs }).filter(
      ([name]) => !gone.has(name),
    ),
  );
  return lookText({ ...usual, base }) === lookText(only);
}

const entryOf = (state: string, block: Declarations): [string, Declarations][] =>
  Object.keys(block).length ? [[state, block]] : [];

/** What stands right within a row is told by the place of that. */
const selectorAt = (place: string, within: string | null): string =>
  within === null ? place : `:is(${within}${place} > *)`;

/** The value that each place of a template gives for a prop; null where one depends on what is around it. */
export function givenAll({ props, values }: Template, name: string): readonly string[] | null {
  const prop = props.find((one) => one.name === name);
  if (!prop) return null;
  const given = values.map((value) => value[name] ?? prop.byDefault ?? false);
  return given.some((value) => typeof value === 'object') ? null : given.map(String);
}
