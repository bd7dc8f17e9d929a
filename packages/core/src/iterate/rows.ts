import type { App, Collection, Component, DrawnRow } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey, parentsByKey } from '../model/places.ts';
import type { ElementPair } from '../match/elements.ts';
import { shapeLikeness, shapeOf } from '../roles/shape.ts';

/** What an iteration does to a list or component that somebody decided on. */
export interface RowsStep {
  readonly id: string;
  readonly component: Component;
  /** A place that stays, and the older screen that it is on. */
  readonly first: ElementPair;
  readonly screen: Screen;
  /** New rows that stand among those that stay, and what is in them as it is in the others. */
  readonly joining: readonly Joining[];
  /** In words, how most of its places are built otherwise now; null where they are built as before. */
  readonly rebuilt: string | null;
  /** Whether they are still built alike. */
  readonly isAlike: boolean;
}

/** A new place, beside one that is there. */
export interface Joining {
  readonly place: Element;
  readonly screen: Screen;
  /** The newer element of a place that it stands behind, or before. */
  readonly beside: Element;
  readonly isBefore: boolean;
}

/** A list whose rows are to be joined has so many that stay. */
const LEAST = 2;
/** Share of the places that have to be built otherwise for the whole of it to be. */
const MOST = 0.5;
/** Places are still of one kind from this likeness on. */
const ALIKE = 0.6;
/** Certainty from which a row is the one it was. */
const SURE = 0.5;

/**
 * What becomes of lists and components: rows that were put in join the list whose rows stand around them and are built as
 * they are, and what is built otherwise than before is told.
 */
export function rowsAfter(
  app: App,
  olds: readonly Screen[],
  screenOf: (now: Element) => Screen | undefined,
  newer: ReadonlyMap<Element, ElementPair>,
  partner: ReadonlyMap<Element, ElementPair>,
): RowsStep[] {
  const held = placesIn(olds);
  const all = Object.entries(app.components).map(([id, component]) => ({
    id,
    component,
    kept: keptOf(component.places, held, newer),
  }));
  const joiningOf = new Map(
    all.map(({ id, component, kept }) => [
      id,
      component.kind === 'list' && kept.length >= LEAST ? joiningRows(kept, screenOf, partner) : [],
    ]),
  );
  const rowsIn = [...joiningOf.values()].flat();
  for (const { id, kept } of all) joiningOf.get(id)!.push(...withinRows(rowsIn, kept));
  return all.flatMap(({ id, component, kept }): RowsStep[] => {
    if (!kept.length) return [];
    const joining = joiningOf.get(id)!;
    // How a drawing's parts are put together follows from where they stand: what there is of them tells more.
    const changed = kept.filter(({ old, now }) => partsOf(old) !== partsOf(now));
    const isRebuilt = changed.length > 0 && changed.length >= kept.length * MOST;
    if (!joining.length && !isRebuilt) return [];
    const [first] = kept;
    return [
      {
        id,
        component,
        first,
        screen: first.screen,
        joining,
        rebuilt: isRebuilt ? rebuiltInWords(changed) : null,
        isAlike: kept.every(({ now }) => shapeLikeness(now, first.now) >= ALIKE),
      },
    ];
  });
}

/** Elements by their keys, each with its screen. */
const placesIn = (screens: readonly Screen[]): ReadonlyMap<string, readonly [Element, Screen]> =>
  new Map(
    screens.flatMap((screen) =>
      [...elementsByKey(screen)].map(([key, element]) => [key, [element, screen]] as const),
    ),
  );

/** What of these elements is surely there in the new screens, with the older screen of each. */
const keptOf = (
  keys: readonly string[],
  held: ReturnType<typeof placesIn>,
  newer: ReadonlyMap<Element, ElementPair>,
): (ElementPair & { readonly screen: Screen })[] =>
  keys.flatMap((key) => {
    const known = held.get(key);
    const pair = known && newer.get(known[0]);
    return pair && pair.score >= SURE ? [{ ...pair, screen: known[1] }] : [];
  });

function joiningRows(
  kept: readonly ElementPair[],
  screenOf: (now: Element) => Screen | undefined,
  partner: ReadonlyMap<Element, ElementPair>,
): Joining[] {
  const rows = new Set(kept.map(({ now }) => now));
  const templates = new Set(kept.map(({ now }) => templateOf(now)));
  const joining: Joining[] = [];
  const looked = new Set<Element>();
  for (const row of rows) {
    const screen = screenOf(row);
    const parent = screen && parentsByKey(screen).get(row.key);
    if (!parent || looked.has(parent)) continue;
    looked.add(parent);
    let after: Element | null = null;
    const first = parent.children.find((child) => rows.has(child))!;
    for (const child of parent.children) {
      const isNew = (partner.get(child)?.score ?? 0) < SURE && !child.hidden && child.tag !== undefined;
      if (!rows.has(child) && !(isNew && templates.has(templateOf(child)))) continue;
      if (!rows.has(child)) joining.push({ place: child, screen, beside: after ?? first, isBefore: !after });
      after = child;
    }
  }
  return joining;
}

const KINDS: readonly (readonly [kind: string, one: string])[] = [
  ['text', 'text'],
  ['image', 'picture'],
  ['vector', 'drawing'],
];

/** What most places have more or less of than before: `a text more, a picture less`. */
function rebuiltInWords(changed: readonly ElementPair[]): string {
  const differences = KINDS.flatMap(([kind, one]) => {
    const counts = changed
      .map(({ old, now }) => countOf(now, kind) - countOf(old, kind))
      .sort((a, b) => a - b);
    const middle = counts[Math.floor(counts.length / 2)];
    if (!middle) return [];
    const count = Math.abs(middle);
    return [`${count === 1 ? `a ${one}` : `${count} ${one}s`} ${middle > 0 ? 'more' : 'less'}`];
  });
  return differences.join(', ') || 'some have more parts, some fewer';
}

/** How a place is built, with how many of what stand in it; what it says does not count. */
const templateOf = (element: Element): string => `${shapeOf(element)} ${partsOf(element)}`;
/** How many of what stand in an element. */
const partsOf = (element: Element): string => KINDS.map(([kind]) => countOf(element, kind)).join();

const countOf = (element: Element, kind: string): number =>
  element.children.reduce(
    (sum, child) => sum + (child.kind === kind && !child.hidden ? 1 : 0) + countOf(child, kind),
    0,
  );

/** What stands in new rows where places of a component stand in the row beside. */
function withinRows(rows: readonly Joining[], kept: readonly ElementPair[]): Joining[] {
  const places = new Set(kept.map(({ now }) => now));
  const found: Joining[] = [];
  const visit = (model: Element, one: Element, screen: Screen): void => {
    if (model.children.length !== one.children.length) return;
    model.children.forEach((inner, i) => {
      const place = one.children[i];
      if (places.has(inner) && templateOf(inner) === templateOf(place))
        found.push({ place, screen, beside: inner, isBefore: false });
      visit(inner, place, screen);
    });
  };
  const stays = new Map(rows.map((row) => [row.place, row]));
  for (const row of rows) {
    // A new row beside a new row is as the one beside that.
    let model = row.beside;
    while (stays.has(model)) model = stays.get(model)!.beside;
    visit(model, row.place, row.screen);
  }
  return found;
}

/** The places of a list with those that join it, each by the one that it stands beside. */
export function placesWith(
  { component: { places }, joining }: RowsStep,
  keyOf: (element: Element, screen: Screen) => string,
): string[] {
  const made = [...places];
  for (const { place, screen, beside, isBefore } of joining) {
    const at = made.indexOf(keyOf(beside, screen));
    made.splice(at < 0 ? made.length : isBefore ? at : at + 1, 0, keyOf(place, screen));
  }
  return made;
}

/** New rows that stand among those of a collection of records. */
export interface RecordsStep {
  readonly id: string;
  readonly collection: Collection;
  readonly joining: readonly Joining[];
}

/** Rows that were put in among those of collections, and are built as they are. */
export function recordsAfter(
  { collections }: App,
  olds: readonly Screen[],
  screenOf: (now: Element) => Screen | undefined,
  newer: ReadonlyMap<Element, ElementPair>,
  partner: ReadonlyMap<Element, ElementPair>,
): RecordsStep[] {
  const entries = Object.entries(collections);
  if (!entries.length) return [];
  const held = placesIn(olds);
  return entries.flatMap(([id, collection]): RecordsStep[] => {
    const kept = keptOf(
      collection.rows.map(({ element }) => element),
      held,
      newer,
    );
    const joining = kept.length >= LEAST ? joiningRows(kept, screenOf, partner) : [];
    return joining.length ? [{ id, collection, joining }] : [];
  });
}

/** The rows of a collection with those that join it, each showing what the one beside it shows at the same place. */
export function rowsWith(
  { collection, joining }: RecordsStep,
  keyOf: (element: Element, screen: Screen) => string,
): DrawnRow[] {
  const rows = [...collection.rows];
  for (const { place, screen, beside, isBefore } of joining) {
    const at = rows.findIndex(({ element }) => element === keyOf(beside, screen));
    if (at < 0) continue;
    const inPlace = new Map<string, string>();
    const visit = (model: Element, one: Element): void => {
      inPlace.set(keyOf(model, screen), keyOf(one, screen));
      model.children.forEach((inner, i) => {
        const other = one.children[i];
        if (other && other.kind === inner.kind) visit(inner, other);
      });
    };
    visit(beside, place);
    const shows = Object.entries(rows[at].shows).flatMap(([field, key]) => {
      const own = inPlace.get(key);
      return own === undefined ? [] : [[field, own] as const];
    });
    const row = { element: keyOf(place, screen), within: rows[at].within, shows: Object.fromEntries(shows) };
    rows.splice(isBefore ? at : at + 1, 0, row);
  }
  return rows;
}
