import { originOf } from '../change/lineage.ts';
import type { App, Interaction } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import {
  elementsByKey,
  hostOf,
  isOverlay,
  isUsed,
  orderedScreens,
  type Project,
  screensByKey,
} from '../model/project.ts';
import { asDrawn, findElement, haveSameElements } from '../model/places.ts';
import { settle } from '../layers/settle.ts';
import { labelOf, type Pressable, pressablesOf } from '../links/pressable.ts';
import { interactionProblem } from '../links/problem.ts';
import { type Wired, type Wiring, wiredAt, wiringOf } from '../links/wiring.ts';
import { numberingOf } from './numbering.ts';
import { reachOf, type Way } from './reach.ts';
import { onceFor } from '../json/once_for.ts';

/** How an element stands: wired, wired to what is not there, wired to nothing, or meant to do nothing. */
export type Standing = 'live' | 'broken' | 'open' | 'still';

/** One thing that an element does, and why it cannot. */
export interface WiredState extends Wired {
  readonly problem: string | null;
}

export interface ElementState extends Pressable {
  readonly standing: Standing;
  /** All that it does, in the order in which variables are looked at. */
  readonly wired: readonly WiredState[];
  /** The first thing that it does. */
  readonly interaction: Interaction | null;
  /** Why it is broken. */
  readonly problem: string | null;
}

/** A wired element, as a line of the graph. `to` is null where it leads outside the app, back or nowhere else. */
export interface GraphLink {
  readonly from: string;
  readonly to: string | null;
  readonly element: string;
  /** Where the interaction is kept. */
  readonly key: string;
  readonly label: string;
  readonly interaction: Interaction;
  readonly problem: string | null;
}

export interface ScreenGraph {
  /** Keys of the screens in use, in the person's order. */
  readonly screens: readonly string[];
  /** Keys of the overlays in use, in the person's order. */
  readonly overlays: readonly string[];
  /** The screen that the app opens with, if one in use is. */
  readonly start: string | null;
  readonly links: readonly GraphLink[];
  /** Links of each screen and overlay. */
  readonly departures: ReadonlyMap<string, readonly GraphLink[]>;
  readonly arrivals: ReadonlyMap<string, readonly GraphLink[]>;
  /** Elements of each screen and overlay that can be wired or are wired. */
  readonly elements: ReadonlyMap<string, readonly ElementState[]>;
  /** Where one really gets from each screen and overlay: with variables, and past the guards of screens. */
  readonly ways: ReadonlyMap<string, readonly Way[]>;
  /** Screens and overlays that some way from the start leads to. Empty where there is no start. */
  readonly reached: ReadonlySet<string>;
  readonly counts: Counts;
}

export interface Counts {
  /** All that look pressable and are not declared still. */
  readonly elements: number;
  readonly live: number;
  readonly open: number;
  readonly broken: number;
  readonly still: number;
  /** Screens that nobody reaches from the start. */
  readonly unreachable: number;
  /** Screens with no way out. */
  readonly deadEnds: number;
  /** Screens that are still to be drawn. */
  readonly planned: number;
}

interface Known {
  readonly design: Project['design'];
  readonly settled: Project['design'];
  readonly graph: ScreenGraph;
}
const graphs = new WeakMap<App, Known>();
/** Tables of the app that change nothing but the screens that their elements are on. */
const OF_ELEMENTS: ReadonlySet<string> = new Set(['interactions', 'still', 'edits']);

/**
 * The screen graph of a project; computed once per pair of documents. After an edit of links, or of what elements are like,
 * only the screens that it touched are looked at again.
 */
export function graphOf(project: Project): ScreenGraph {
  const known = graphs.get(project.app);
  if (known && known.design === project.design) return known.graph;
  const settled = settle(project);
  const graph = graphAfterEdit(project, settled) ?? buildGraph(settled);
  graphs.set(project.app, { design: project.design, settled: settled.design, graph });
  return graph;
}

function buildGraph(project: Project): ScreenGraph {
  const screens = orderedScreens(project.app).filter((key) => isUsed(project, key));
  const overlays = orderedScreens(project.app).filter((key) => isOverlay(project, key));
  const wiring = wiringOf(project);
  const still = new Map<string, string[]>();
  for (const key of Object.keys(project.app.still)) push(still, hostOf(project, key), key);
  const nodes = [...screens, ...overlays];
  const elements = new Map(
    nodes.map((key) => [key, statesOf(project, key, wiring, still.get(key) ?? [])] as const),
  );
  const departures = new Map(nodes.map((key) => [key, departuresOf(key, elements.get(key)!)] as const));
  const arrivals = new Map<string, GraphLink[]>(nodes.map((key) => [key, []]));
  for (const links of departures.values())
    for (const link of links)
      if (link.to && !link.problem && link.to !== link.from) push(arrivals, link.to, link);
  return finish(project, { screens, overlays, elements, departures, arrivals });
}

/** The graph made from that of the document before; null where more changed than what elements do. */
function graphAfterEdit(project: Project, settled: Project): ScreenGraph | null {
  const origin = originOf(project.app);
  const known = origin && graphs.get(origin.before);
  if (!origin || !known || settled.app !== project.app) return null;
  if (asDrawn(known.design) !== asDrawn(project.design)) return null;
  if (origin.written.some(({ table }) => !OF_ELEMENTS.has(table))) return null;
  if (hasEverywhere(project.app, origin.before, origin.written)) return null;
  if (!haveSameElements(known.settled, settled.design)) return null;
  const { graph } = known;
  const wired = origin.written.filter(({ table }) => table !== 'edits');
  const touched = new Set([
    ...wired.map(({ key }) => hostOf(project, elementOfInteraction(key))),
    ...settled.design.screens.filter((one, i) => one !== known.settled.screens[i]).map(({ key }) => key),
  ]);
  const wiring = wiringOf(settled);
  const elements = new Map(graph.elements);
  const departures = new Map(graph.departures);
  const arrivals = new Map(graph.arrivals);
  for (const screen of touched) {
    const before = graph.departures.get(screen);
    if (!before) continue;
    const still = stillOn(graph, project, screen, origin.written);
    const states = statesOf(settled, screen, wiring, still);
    elements.set(screen, states);
    const links = departuresOf(screen, states);
    departures.set(screen, links);
    const others = new Set([...before, ...links].flatMap(({ to }) => (to && to !== screen ? [to] : [])));
    for (const to of others) {
      const list = arrivals.get(to);
      if (!list) continue;
      const next = links.filter((link) => link.to === to && !link.problem);
      // They stay in the order of the screens that they are on.
      const at = list.findIndex((link) => link.from === screen);
      const kept = list.filter((link) => link.from !== screen);
      const place = at < 0 ? placeOf(graph, kept, screen) : at;
      arrivals.set(to, [...kept.slice(0, place), ...next, ...kept.slice(place)]);
    }
  }
  const { screens, overlays } = graph;
  return finish(settled, { screens, overlays, elements, departures, arrivals });
}

function placeOf(graph: ScreenGraph, links: readonly GraphLink[], screen: string): number {
  const order = [...graph.departures.keys()];
  const own = order.indexOf(screen);
  const place = links.findIndex((link) => order.indexOf(link.from) > own);
  return place < 0 ? links.length : place;
}

/** Whether what an edit wrote counts, or counted, at more than one place. */
const hasEverywhere = (
  app: App,
  before: App,
  written: readonly { readonly table: string; readonly key: string }[],
): boolean =>
  Object.keys(app.components).length > 0 &&
  (written.some(({ key }) => app.interactions[key]?.everywhere || before.interactions[key]?.everywhere) ||
    Object.values(app.interactions).some((one) => one.everywhere));

/** Elements of a screen that are declared still, after an edit. */
function stillOn(
  graph: ScreenGraph,
  project: Project,
  screen: string,
  written: readonly { readonly table: string; readonly key: string }[],
): string[] {
  const keys = new Set((graph.elements.get(screen) ?? []).map((state) => state.element.key));
  for (const { table, key } of written)
    if (table === 'still' && hostOf(project, key) === screen) keys.add(key);
  return [...keys].filter((key) => project.app.still[key]);
}

function finish(
  project: Project,
  parts: Pick<ScreenGraph, 'screens' | 'overlays' | 'elements' | 'departures' | 'arrivals'>,
): ScreenGraph {
  const { app } = project;
  const { screens, elements, departures } = parts;
  const start = app.start && isUsed(project, app.start) ? app.start : null;
  const { reached, ways } = reachOf(app, start, departures, numberingOf(screens, parts.overlays));
  const counts = {
    elements: 0,
    live: 0,
    open: 0,
    broken: 0,
    still: 0,
    unreachable: 0,
    deadEnds: 0,
    planned: 0,
  };
  let left = screens.length;
  for (const [key, links] of departures) {
    // Screens come before overlays.
    if (left-- <= 0) break;
    if (!reached.has(key)) counts.unreachable++;
    if (leadsNowhere(links, key)) counts.deadEnds++;
    if (app.screens[key].use === 'planned') counts.planned++;
  }
  for (const states of elements.values()) {
    const own = standingsOf(states);
    for (const standing of ['live', 'open', 'broken', 'still'] as const) counts[standing] += own[standing];
    counts.elements += states.length - own.still;
  }
  let links: readonly GraphLink[] | null = null;
  return {
    ...parts,
    start,
    get links() {
      return (links ??= [...departures.values()].flat());
    },
    ways,
    reached,
    counts,
  };
}

const standingsOf = onceFor((states: readonly ElementState[]): Record<Standing, number> => {
  const counts = { live: 0, open: 0, broken: 0, still: 0 };
  for (const { standing } of states) counts[standing]++;
  return counts;
});

const nowhere = new WeakMap<readonly GraphLink[], boolean>();

/** As `isDeadEnd`, known for links that were looked at before. */
function leadsNowhere(links: readonly GraphLink[], screen: string): boolean {
  let isEnd = nowhere.get(links);
  if (isEnd === undefined) nowhere.set(links, (isEnd = isDeadEnd(links, screen)));
  return isEnd;
}

/** Whether none of a screen's departures leads away from it. */
export const isDeadEnd = (departures: readonly GraphLink[], screen: string): boolean =>
  !departures.some((link) => leadsAway(link, screen));

const LEADS_ON: ReadonlySet<string> = new Set(['screen', 'anchor', 'back', 'external']);

/** Whether a link works and leads out of the screen that it is on: to another, back, or outside the app. */
const leadsAway = ({ to, problem, interaction }: GraphLink, screen: string): boolean =>
  !problem && to !== screen && LEADS_ON.has(interaction.target.kind);

function push<T>(map: Map<string, T[]>, key: string, value: T): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

function statesOf(
  project: Project,
  screenKey: string,
  wiring: Wiring,
  still: readonly string[],
): ElementState[] {
  const screen = screensByKey(project.design).get(screenKey);
  if (!screen) return [];
  const pressables = pressablesOf(screen);
  const listed = new Set(pressables.map((p) => p.element.key));
  // Anything can be wired, also what does not look pressable; it is numbered after the others.
  const index = elementsByKey(screen);
  const others = [...new Set([...(wiring.get(screenKey)?.keys() ?? []), ...still])]
    .filter((key) => !listed.has(key) && index.has(key))
    .sort();
  const more = others.map((key, i): Pressable => {
    const element = index.get(key)!;
    const label = element === screen.root ? 'The whole screen' : labelOf(element);
    return { element, label, number: pressables.length + i + 1, parent: '' };
  });
  return [...pressables, ...more].map((pressable) =>
    stateOf(project, screenKey, pressable, wiredAt(wiring, screenKey, pressable.element.key)),
  );
}

/** An element with what it does, and what is wrong with that. */
export function stateOf(
  project: Project,
  screen: string,
  pressable: Pressable,
  all: readonly Wired[],
): ElementState {
  const wired = all.map((one): WiredState => ({
    ...one,
    problem: interactionProblem(project, screen, one.interaction, one.element),
  }));
  const problem = wired.find((one) => one.problem)?.problem ?? null;
  const isStill = !wired.length && project.app.still[pressable.element.key];
  const standing: Standing = problem ? 'broken' : wired.length ? 'live' : isStill ? 'still' : 'open';
  return { ...pressable, wired, interaction: wired[0]?.interaction ?? null, problem, standing };
}

const departuresOf = (from: string, states: readonly ElementState[]): GraphLink[] =>
  states.flatMap((state) =>
    state.wired.flatMap(({ key, interaction, problem }) => {
      const { element, label } = state;
      const link = { from, element: element.key, key, label, interaction, problem };
      // What opens on the way is a line of its own.
      const opened = (interaction.before ?? []).flatMap((step) =>
        step.kind === 'open' ? [{ ...link, to: step.overlay }] : [],
      );
      return [...opened, { ...link, to: leadsTo(interaction) }];
    }),
  );

/** The screen or overlay that an interaction leads to. */
export function leadsTo({ target }: Interaction): string | null {
  switch (target.kind) {
    case 'screen':
    case 'anchor':
      return target.screen;
    case 'open':
      return target.overlay;
    default:
      return null;
  }
}

/** Links whose element is no longer in the design; they stay in the document until somebody takes them out. */
export function lostInteractions(project: Project): string[] {
  return Object.keys(project.app.interactions).filter(
    (key) => !findElement(project.design, elementOfInteraction(key)),
  );
}
