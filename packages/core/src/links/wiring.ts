import { originOf } from '../change/lineage.ts';
import { alignPlaces } from '../components/align.ts';
import type { App, DrawnRow, Given, Interaction } from '../model/app.ts';
import { elementOfInteraction, numberOfInteraction } from '../model/interaction.ts';
import { keptMap } from '../json/kept.ts';
import type { Element } from '../model/design.ts';
import { kebabCase } from '../model/names.ts';
import { containersOf, findElement, haveSameElements } from '../model/places.ts';
import { hostOf, type Project, screensByKey, textOf } from '../model/project.ts';
import { onceFor } from '../json/once_for.ts';

/** An interaction as it counts for one element. */
export interface Wired {
  /** Where it is kept in the app. */
  readonly key: string;
  readonly element: string;
  readonly interaction: Interaction;
  /** The component whose other place it was said at, if it was not said here. */
  readonly component?: string;
}

/** The interactions of each element, for each screen that shows it. */
export type Wiring = ReadonlyMap<string, ReadonlyMap<string, readonly Wired[]>>;

interface Known {
  readonly project: Project;
  readonly wiring: Wiring;
  /** Whether some interaction is passed on to other places. */
  readonly passesOn: boolean;
  /** Whether some interaction gives what is drawn somewhere. */
  readonly givesDrawn: boolean;
}

const wirings = new WeakMap<App['interactions'], Known>();

/** The tables besides the interactions that the wiring depends on; `still` only where something is passed on. */
const isSame = (known: Known, { design, app }: Project): boolean =>
  (known.project.design === design ||
    (!known.passesOn && !known.givesDrawn && haveSameElements(known.project.design, design))) &&
  known.project.app.components === app.components &&
  known.project.app.screens === app.screens &&
  known.project.app.collections === app.collections &&
  (!known.passesOn || known.project.app.still === app.still);

/**
 * What every element does, with what components pass on to their places. Takes the settled project. After an edit only
 * the screens that it touched are looked at again.
 */
export function wiringOf(project: Project): Wiring {
  const { app } = project;
  const known = wirings.get(app.interactions);
  if (known && isSame(known, project)) return known.wiring;
  const made = rewired(project) ?? redrawn(known, project) ?? wiredAnew(project, known?.wiring);
  wirings.set(app.interactions, made);
  return made.wiring;
}

/** @param before what is equal to what was there stays the very same */
function wiredAnew(project: Project, before?: Wiring): Known {
  const { app } = project;
  const wiring = new Map<string, Map<string, Wired[]>>();
  const everywhere: Wired[] = [];
  for (const key of Object.keys(app.interactions)) {
    const one = put(wiring, project, key);
    if (one.interaction.everywhere) everywhere.push(one);
  }
  for (const one of everywhere) passOn(wiring, project, one);
  for (const screen of wiring.values()) for (const list of screen.values()) list.sort(byKey);
  return {
    project,
    wiring: keptMap(before, wiring, (was, is) => keptMap(was, is)),
    passesOn: everywhere.length > 0,
    givesDrawn: Object.values(app.interactions).some(givesDrawn),
  };
}

/** The wiring where only what is drawn became another: what gives that on screens that changed is looked at again. */
function redrawn(known: Known | undefined, project: Project): Known | null {
  const { design } = project;
  if (!known || known.passesOn || !isSame({ ...known, givesDrawn: false }, project)) return null;
  const before = screensByKey(known.project.design);
  const wiring = new Map(known.wiring);
  for (const screen of design.screens) {
    const elements = wiring.get(screen.key);
    if (!elements || before.get(screen.key) === screen) continue;
    const settledAgain = (one: Wired): Wired =>
      givesDrawn(project.app.interactions[one.key])
        ? { ...one, interaction: settled(project, one.element, project.app.interactions[one.key]) }
        : one;
    wiring.set(screen.key, new Map([...elements].map(([key, list]) => [key, list.map(settledAgain)])));
  }
  return { ...known, project, wiring };
}

/** The wiring made from that of the document before; null where that is not known, or where more may have changed. */
function rewired(project: Project): Known | null {
  const { app } = project;
  const origin = originOf(app);
  const known = origin && wirings.get(origin.before.interactions);
  if (!origin || !known || known.passesOn || !isSame(known, project)) return null;
  // What is written into is copied before.
  const wiring = new Map(known.wiring) as Map<string, Map<string, Wired[]>>;
  const copied = new Set<string>();
  let isOfDrawn = known.givesDrawn;
  for (const { table, key } of origin.written) {
    if (table !== 'interactions') continue;
    if (app.interactions[key]?.everywhere) return null;
    const element = elementOfInteraction(key);
    const host = hostOf(project, element);
    if (!copied.has(host)) wiring.set(host, new Map(wiring.get(host)));
    copied.add(host);
    const screen = wiring.get(host)!;
    const others = (screen.get(element) ?? []).filter((one) => one.key !== key);
    if (others.length) screen.set(element, others);
    else screen.delete(element);
    if (app.interactions[key]) {
      put(wiring, project, key);
      isOfDrawn ||= givesDrawn(app.interactions[key]);
      screen.get(element)!.sort(byKey);
    }
  }
  return { project, wiring, passesOn: false, givesDrawn: isOfDrawn };
}

/** What one element does, in the order in which variables are looked at. */
export const wiredAt = (wiring: Wiring, host: string, element: string): readonly Wired[] =>
  wiring.get(host)?.get(element) ?? [];

const byKey = (a: Wired, b: Wired): number => numberOfInteraction(a.key) - numberOfInteraction(b.key);

/** Puts an interaction of the app to its element, or as one of another place of its component. */
function put(
  wiring: Map<string, Map<string, Wired[]>>,
  project: Project,
  key: string,
  passed?: { readonly element: string; readonly component: string },
): Wired {
  const element = passed?.element ?? elementOfInteraction(key);
  const one: Wired = {
    key,
    element,
    interaction: settled(project, element, project.app.interactions[key]),
    ...(passed ? { component: passed.component } : {}),
  };
  const host = hostOf(project, element);
  let screen = wiring.get(host);
  if (!screen) wiring.set(host, (screen = new Map<string, Wired[]>()));
  const list = screen.get(element);
  if (list) list.push(one);
  else screen.set(element, [one]);
  return one;
}

/** Gives an interaction to the same element at the other places of its component, where nothing else is said. */
function passOn(wiring: Map<string, Map<string, Wired[]>>, project: Project, one: Wired): void {
  const { app } = project;
  const found = componentAround(project, one.element);
  if (!found) return;
  for (const place of found.places) {
    if (place === found.place) continue;
    const element = found.alike(project, place, one.element);
    if (!element || app.still[element] || app.interactions[element]) continue;
    put(wiring, project, one.key, { element, component: found.id });
  }
}

interface Around {
  readonly id: string;
  readonly place: string;
  readonly places: readonly string[];
  readonly alike: (project: Project, place: string, element: string) => string | null;
}

/** The smallest component or list that an element stands in. */
export function componentAround({ design, app }: Project, element: string): Around | null {
  const at = [element, ...containersOf(design, element)];
  let nearest = Infinity;
  let best: Around | null = null;
  for (const [id, component] of Object.entries(app.components)) {
    const [far, place] = at
      .slice(0, nearest)
      .map((one, i) => [i, one] as const)
      .find(([, one]) => component.places.includes(one)) ?? [Infinity, null];
    if (place === null) continue;
    nearest = far;
    best = {
      id,
      place,
      places: component.places,
      alike: (project, other, key) => {
        const [a, b] = [findElement(project.design, place), findElement(project.design, other)];
        return a && b ? (alignPlaces(a, b).get(key) ?? null) : null;
      },
    };
  }
  return best;
}

/** Fields of a list item, replaced by what stands in them at this place. */
function settled(project: Project, element: string, interaction: Interaction): Interaction {
  const { target } = interaction;
  if (target.kind !== 'screen' || !target.params || !givesDrawn(interaction)) return interaction;
  const place = componentAround(project, element)?.place;
  const params = Object.fromEntries(
    Object.entries(target.params).map(([name, given]) => [name, valueOf(project, place, given)]),
  );
  return { ...interaction, target: { ...target, params } };
}

const givesDrawn = ({ target }: Interaction): boolean =>
  target.kind === 'screen' && Object.values(target.params ?? {}).some((given) => typeof given !== 'string');

interface ShownFields {
  /** The field that each element shows, and the row that it is in. */
  readonly fieldOf: ReadonlyMap<string, string>;
  readonly rows: ReadonlyMap<string, DrawnRow>;
}

const shownFields = onceFor((collections: App['collections']): ShownFields => {
  const rows = Object.values(collections).flatMap((collection) => collection.rows);
  return {
    fieldOf: new Map(
      rows.flatMap(({ shows }) => Object.entries(shows).map(([name, key]) => [key, name] as const)),
    ),
    rows: new Map(rows.map((row) => [row.element, row])),
  };
});

/** What shows in a row the field of its record that an element shows in another row; where both are of records. */
function shownIn({ app }: Project, place: string, field: string): string | undefined {
  const known = shownFields(app.collections);
  const name = known.fieldOf.get(field);
  return name === undefined ? undefined : known.rows.get(place)?.shows[name];
}

/** The element of a row that is the field of another row of its list. */
function fieldIn(project: Project, row: Element, field: string): Element | null {
  const { design } = project;
  // Fields of before are named by their path from the row.
  if (!findElement(design, field)) return findElement(design, `${row.key}/${field}`);
  const from = findElement(design, componentAround(project, field)?.place ?? '');
  const same = from ? alignPlaces(from, row).get(field) : undefined;
  return same === undefined ? null : findElement(design, same);
}

/** What a parameter is given at a place: a field's text in the form that addresses have. */
function valueOf(project: Project, place: string | undefined, given: Given): string {
  if (typeof given === 'string') return given;
  const { design } = project;
  const row = place === undefined ? null : findElement(design, place);
  const shown = place === undefined ? undefined : shownIn(project, place, given.field);
  const text = (shown && findElement(design, shown)) ?? (row && fieldIn(project, row, given.field)) ?? row;
  return text ? kebabCase(textOf(text)).slice(0, 80) : '';
}
