import { codeBefore, type PropsBefore } from '../emit/form/before.ts';
import { frameAround } from '../emit/form/layouts/layouts.ts';
import { applyChange, type Change, putComponent, putLayout } from '../change/change.ts';
import { fieldsShown } from '../emit/form/components/extraction.ts';
import { type Fitting, fittingTemplate, looksIn } from '../emit/form/components/fitting.ts';
import { NOTHING_OF_ELEMENTS, type Place } from '../emit/form/components/template.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import { isElement, type MarkupElement, withoutKeys } from '../emit/form/markup.ts';
import type { App, Component } from '../model/app.ts';
import { equalJson } from '../json/json.ts';
import type { Project } from '../model/project.ts';

/** So many places or screens that nothing happened to are what the others are held against. */
const LEAST_SETTLED = 2;
/** Different ones among them that are looked at, at most. */
const MOST_COMPARED = 12;

/**
 * The changes that let what an iteration drew otherwise stand by itself: places of components that the others would have to
 * be written otherwise for, and screens whose surroundings are no longer those of their layout. What fits again comes back.
 * Where most of them changed, all go on together.
 * @param before the project without the iteration
 * @param project with it
 * @param changed keys of the screens that came otherwise than before
 * @param together ids of components whose places somebody wants to stay together, however they are built
 */
export function standingApart(
  before: Project,
  project: Project,
  changed: ReadonlySet<string>,
  together: ReadonlySet<string>,
): Change[] {
  if (!changed.size) return [];
  const { components, layouts } = project.app;
  if (!Object.keys(components).length && !Object.keys(layouts).length) return [];
  const [was, is] = [new EmissionPlan(before), new EmissionPlan(project)];
  const apart = apartComponents(was, is, project, changed, together);
  const app = apart.reduce(applyChange, project.app);
  return [
    ...apart,
    ...apartScreens(was, apart.length ? new EmissionPlan({ ...project, app }) : is, app, changed),
  ];
}

interface KeyedPlace extends Place {
  readonly key: string;
  readonly screen: string;
  /** The keys of larger places that it stands in. */
  readonly within: readonly string[];
}

function apartComponents(
  was: EmissionPlan,
  is: EmissionPlan,
  { app }: Project,
  changed: ReadonlySet<string>,
  together: ReadonlySet<string>,
): Change[] {
  const wanted = Object.entries(app.components).filter(([id]) => !together.has(id));
  if (!wanted.length) return [];
  const before = codeBefore(app).props;
  const fieldOf = fieldsShown(app);
  const keys = new Set(wanted.flatMap(([, { places, apart = [] }]) => [...places, ...apart]));
  const were = placesOf(was, keys, changed);
  const are = placesOf(is, keys);
  const at = (some: readonly string[]): KeyedPlace[] => some.flatMap((key) => are.get(key) ?? []);
  const staying = new Set(
    wanted.flatMap(([, { places }]) => (at(places).length < LEAST_SETTLED ? [] : places)),
  );
  const isSettled = (place: KeyedPlace): boolean =>
    !changed.has(place.screen) || isSamePlace(were.get(place.key), place);
  const isInStaying = ({ within }: KeyedPlace): boolean => within.some((key) => staying.has(key));
  // A larger component is given what differs in the smaller ones that it holds: whether it stays is known before them.
  const depthOf = ([, { places }]: (typeof wanted)[number]): number =>
    Math.max(0, ...at(places).map(({ within }) => within.length));
  return wanted
    .toSorted((a, b) => depthOf(a) - depthOf(b))
    .flatMap(([id, component]): Change[] => {
      const [now, aside] = [component.places, component.apart ?? []].map(at);
      const settled = now.filter(isSettled);
      const stands = new Set(settled);
      if (settled.length < LEAST_SETTLED || settled.length === now.length + aside.length) return [];
      const moved = now.filter((place) => !stands.has(place) && !isInStaying(place));
      const given = givenBeside(unlike(settled, moved.length + 1), component, before.get(id), fieldOf);
      const alone = given([]);
      if (!alone) return [];
      const leaving = leavingOf(moved, were, given, alone);
      const gone = leaving.length <= settled.length ? keysIn(leaving) : new Set<string>();
      const come = keysIn(aside.filter((place) => changed.has(place.screen) && fits(given([place]), alone)));
      if (!gone.size && !come.size) return [];
      for (const key of gone) staying.delete(key);
      return [
        putComponent(id, {
          ...component,
          places: [...component.places.filter((key) => !gone.has(key)), ...come],
          apart: [...(component.apart ?? []).filter((key) => !come.has(key)), ...gone],
        }),
      ];
    });
}

/** What some places of a component are given when others are places of it, too; null where one of those does not fit. */
function givenBeside(
  sample: readonly KeyedPlace[],
  component: Component,
  before: PropsBefore | undefined,
  fieldOf: ReadonlyMap<string, string>,
): (more: readonly KeyedPlace[]) => Given | null {
  const order = new Map(component.places.map((key, i) => [key, i]));
  const placeIn = ({ key }: KeyedPlace): number => order.get(key) ?? order.size;
  return (more) => {
    const among = [...sample, ...more].sort((a, b) => placeIn(a) - placeIn(b));
    const made = fittingTemplate(among, component, before, { ...NOTHING_OF_ELEMENTS, fieldOf });
    if (!made || !more.every((place) => made.places.includes(place))) return null;
    const conditions = conditionsIn(made.template.root);
    return { says: givenTo(made, sample), holds: !!made.contents, conditions };
  };
}

/** Those of places that now would make the others say something else, or hold what they said. */
function leavingOf(
  moved: readonly KeyedPlace[],
  were: ReadonlyMap<string, KeyedPlace>,
  given: (more: readonly KeyedPlace[]) => Given | null,
  alone: Given,
): readonly KeyedPlace[] {
  const leave = (some: readonly KeyedPlace[]): boolean => {
    const then = given(some.flatMap(({ key }) => were.get(key) ?? []));
    const still = given(some);
    // What was no part of it before leaves nothing.
    if (!still || !then) return then !== null || (still !== null && still.says !== alone.says);
    if (still.conditions > then.conditions || (still.holds && !then.holds)) return true;
    return still.says !== then.says && alone.says === then.says;
  };
  const single = moved.filter((place) => leave([place]));
  const rest = moved.filter((place) => !single.includes(place));
  // What fits by itself may not fit beside the others.
  return rest.length > 1 && leave(rest) ? moved : single;
}

/** What the places of a component are given, whether that is what it holds, and how much of it depends on where it stands. */
interface Given {
  readonly says: string;
  readonly holds: boolean;
  readonly conditions: number;
}

const fits = (more: Given | null, alone: Given): boolean =>
  more !== null && more.says === alone.says && more.holds === alone.holds;

/**
 * What places are given, in order, without what all of them say the same: that the component says by itself. By which names
 * is left out: they depend on which places are asked.
 */
function givenTo({ template, places }: Fitting<KeyedPlace>, settled: readonly KeyedPlace[]): string {
  const values = settled.map((place) => template.values[places.indexOf(place)] ?? null);
  const [first] = values;
  const own = template.props.filter(
    ({ name }) =>
      !values.every(
        (one) =>
          one?.[name] === first?.[name] && (first?.[name] === undefined || typeof first[name] === 'string'),
      ),
  );
  return JSON.stringify(
    values.map((one) => one && own.map(({ name, kind }) => [kind, one[name]])),
    withoutKeys,
  );
}

/** How much of a component depends on where it stands: what is there or not, and what looks one way or the other. */
const conditionsIn = ({ when, variant, children }: MarkupElement): number =>
  children.reduce(
    (sum, child) => sum + (isElement(child) ? conditionsIn(child) : 0),
    Number(when !== undefined) + Number(variant !== undefined),
  );

const keysIn = (places: readonly KeyedPlace[]): ReadonlySet<string> => new Set(places.map(({ key }) => key));

/** Where components stand, by the key of each place. @param on only these screens */
function placesOf(
  plan: EmissionPlan,
  keys: ReadonlySet<string>,
  on?: ReadonlySet<string>,
): ReadonlyMap<string, KeyedPlace> {
  const found = new Map<string, KeyedPlace>();
  for (const screen of [...plan.screens, ...plan.overlays.keys()]) {
    if (on && !on.has(screen)) continue;
    const { root, rules } = emitScreenOf(plan, screen);
    const byName = new Map(rules.map((rule) => [rule.className, rule]));
    const visit = (node: MarkupElement, within: readonly string[]): void => {
      const isPlace = node.key !== null && keys.has(node.key);
      if (isPlace)
        found.set(node.key!, {
          key: node.key!,
          screen,
          within,
          node,
          rules: byName,
          route: plan.routeOf(screen),
        });
      const inner = isPlace ? [...within, node.key!] : within;
      for (const child of node.children) if (isElement(child)) visit(child, inner);
    };
    visit(root, []);
  }
  return found;
}

/** Whether a place says what it said, and looks as it looked; by which classes is not asked. */
const isSamePlace = (was: KeyedPlace | undefined, is: KeyedPlace): boolean =>
  was !== undefined && saidBy(was.node) === saidBy(is.node) && equalJson(looksIn(was), looksIn(is));

const saidBy = (node: MarkupElement): string =>
  JSON.stringify(node, (name, value: unknown) =>
    name === 'className' ? undefined : withoutKeys(name, value),
  );

/**
 * Places that differ from each other in what they say, and as many others as make it `least`: what most say is said once, and
 * those that are alike are most.
 */
function unlike(places: readonly KeyedPlace[], least: number): readonly KeyedPlace[] {
  const found = new Map<string, KeyedPlace>();
  for (const place of places) {
    const says = signOf(place.node);
    if (!found.has(says)) found.set(says, place);
    if (found.size === MOST_COMPARED) break;
  }
  const sample = new Set(found.values());
  for (const place of places) if (sample.size < least) sample.add(place);
  return [...sample];
}

function apartScreens(
  was: EmissionPlan,
  is: EmissionPlan,
  { layouts }: App,
  changed: ReadonlySet<string>,
): Change[] {
  const wanted = Object.entries(layouts);
  if (!wanted.length) return [];
  const isShown = new Set(is.screens.filter((key) => was.screens.includes(key)));
  return wanted.flatMap(([id, layout]): Change[] => {
    const around = (plan: EmissionPlan, screens: readonly string[]): string | null => {
      const frame = frameAround(plan, screens, id);
      return frame && signOf(frame.usual);
    };
    const { screens, apart = [] } = layout;
    const settled = screens.filter((key) => isShown.has(key) && !changed.has(key));
    const moved = (key: string): boolean => isShown.has(key) && changed.has(key);
    if (settled.length < LEAST_SETTLED || ![...screens, ...apart].some(moved)) return [];
    const alone = around(is, settled);
    const leaves = (key: string): boolean => {
      if (!moved(key)) return false;
      const [then, still] = [around(was, [...settled, key]), around(is, [...settled, key])];
      return still !== then && (alone === then || still === null);
    };
    const leaving = screens.filter(leaves);
    const gone = leaving.length <= settled.length ? leaving : [];
    const come = apart.filter((key) => moved(key) && around(is, [...settled, key]) === alone);
    if (!gone.length && !come.length) return [];
    return [
      putLayout(id, {
        ...layout,
        screens: [...screens.filter((key) => !gone.includes(key)), ...come],
        apart: [...apart.filter((key) => !come.includes(key)), ...gone],
      }),
    ];
  });
}

const signOf = (node: MarkupElement): string => JSON.stringify(node, withoutKeys);
