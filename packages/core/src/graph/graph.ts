import type { Interaction } from '../model/app.ts';
import {
  elementsByKey,
  findElement,
  hostOf,
  isUsed,
  orderedScreens,
  type Project,
  screensByKey,
} from '../model/project.ts';
import { settle } from '../layers/settle.ts';
import { labelOf, type Pressable, pressablesOf } from '../links/pressable.ts';
import { targetProblem } from '../links/target.ts';

/** How an element stands: wired, wired to what is not there, wired to nothing, or meant to do nothing. */
export type Standing = 'live' | 'broken' | 'open' | 'still';

export interface ElementState extends Pressable {
  readonly standing: Standing;
  readonly interaction: Interaction | null;
  /** Why it is broken. */
  readonly problem: string | null;
}

/** A wired element, as a line of the graph. `to` is null where it leads outside the app or back. */
export interface GraphLink {
  readonly from: string;
  readonly to: string | null;
  readonly element: string;
  readonly label: string;
  readonly interaction: Interaction;
  readonly problem: string | null;
}

export interface ScreenGraph {
  /** Keys of the screens in use, in the person's order. */
  readonly screens: readonly string[];
  /** The screen that the app opens with, if one in use is. */
  readonly start: string | null;
  readonly links: readonly GraphLink[];
  readonly departures: ReadonlyMap<string, readonly GraphLink[]>;
  readonly arrivals: ReadonlyMap<string, readonly GraphLink[]>;
  /** Elements of each screen that can be wired or are wired. */
  readonly elements: ReadonlyMap<string, readonly ElementState[]>;
  /** Screens that some way from the start leads to. Empty where there is no start. */
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
}

const graphs = new WeakMap<Project['app'], { design: Project['design']; graph: ScreenGraph }>();

/** The screen graph of a project; computed once per pair of documents. */
export function graphOf(project: Project): ScreenGraph {
  const known = graphs.get(project.app);
  if (known && known.design === project.design) return known.graph;
  const graph = buildGraph(settle(project));
  graphs.set(project.app, { design: project.design, graph });
  return graph;
}

function buildGraph(project: Project): ScreenGraph {
  const screens = orderedScreens(project.app).filter((key) => isUsed(project, key));
  const wired = new Map<string, string[]>();
  for (const key of Object.keys(project.app.interactions)) push(wired, hostOf(project.app, key), key);
  const elements = new Map(screens.map((key) => [key, statesOf(project, key, wired.get(key) ?? [])]));
  const links = screens.flatMap((from) => elements.get(from)!.flatMap((state) => linkOf(from, state)));
  const departures = new Map<string, GraphLink[]>(screens.map((key) => [key, []]));
  const arrivals = new Map<string, GraphLink[]>(screens.map((key) => [key, []]));
  for (const link of links) {
    push(departures, link.from, link);
    if (link.to && !link.problem && link.to !== link.from) push(arrivals, link.to, link);
  }
  const start = project.app.start && isUsed(project, project.app.start) ? project.app.start : null;
  const reached = reach(start, departures);
  const all = [...elements.values()].flat();
  const count = (standing: Standing): number => all.filter((state) => state.standing === standing).length;
  const still = count('still');
  return {
    screens,
    start,
    links,
    departures,
    arrivals,
    elements,
    reached,
    counts: {
      elements: all.length - still,
      live: count('live'),
      open: count('open'),
      broken: count('broken'),
      still,
      unreachable: screens.filter((key) => !reached.has(key)).length,
      deadEnds: screens.filter((key) => isDeadEnd(departures.get(key)!, key)).length,
    },
  };
}

/** Whether none of a screen's departures leads away from it. */
export const isDeadEnd = (departures: readonly GraphLink[], screen: string): boolean =>
  !departures.some((link) => leadsAway(link, screen));

/** Whether a link works and leads out of the screen that it is on: to another, back, or outside the app. */
const leadsAway = ({ to, problem, interaction }: GraphLink, screen: string): boolean =>
  !problem && to !== screen && interaction.target.kind !== 'drawer';

function push<T>(map: Map<string, T[]>, key: string, value: T): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

function statesOf(project: Project, screenKey: string, wired: readonly string[]): ElementState[] {
  const screen = screensByKey(project.design).get(screenKey)!;
  const pressables = pressablesOf(screen);
  const listed = new Set(pressables.map((p) => p.element.key));
  const index = elementsByKey(screen);
  // Anything can be wired, also what does not look pressable; it is numbered after the others.
  const others = [
    ...wired,
    ...Object.keys(project.app.still).filter((key) => hostOf(project.app, key) === screenKey),
  ]
    .filter((key, i, keys) => index.has(key) && !listed.has(key) && keys.indexOf(key) === i)
    .sort();
  const more = others.map((key, i): Pressable => {
    const element = index.get(key)!;
    return { element, label: labelOf(element), number: pressables.length + i + 1 };
  });
  return [...pressables, ...more].map((pressable) => stateOf(project, pressable));
}

function stateOf(project: Project, pressable: Pressable): ElementState {
  const interaction = project.app.interactions[pressable.element.key] ?? null;
  const problem = interaction && targetProblem(project, interaction.target);
  const isStill = !interaction && project.app.still[pressable.element.key];
  const standing: Standing = problem ? 'broken' : interaction ? 'live' : isStill ? 'still' : 'open';
  return { ...pressable, interaction, problem, standing };
}

function linkOf(from: string, state: ElementState): GraphLink[] {
  const { interaction, problem, element, label } = state;
  if (!interaction) return [];
  const { target } = interaction;
  const to = target.kind === 'screen' || target.kind === 'anchor' ? target.screen : null;
  return [{ from, to, element: element.key, label, interaction, problem }];
}

function reach(start: string | null, departures: ReadonlyMap<string, readonly GraphLink[]>): Set<string> {
  if (!start) return new Set();
  const reached = new Set([start]);
  const queue = [start];
  for (let screen = queue.pop(); screen !== undefined; screen = queue.pop()) {
    for (const { to, problem } of departures.get(screen) ?? []) {
      if (!to || problem || reached.has(to)) continue;
      reached.add(to);
      queue.push(to);
    }
  }
  return reached;
}

/** Links whose element is no longer in the design; they stay in the document until somebody takes them out. */
export function lostInteractions(project: Project): string[] {
  return Object.keys(project.app.interactions).filter((key) => !findElement(project.design, key));
}
