import type { ScreenGraph, WiredState } from '../graph/graph.ts';
import type { Journey, JourneyStep } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { hostOf, type Project, screenName } from '../model/project.ts';
import { findElement } from '../model/places.ts';

/** Somebody in the app: what is shown, what came before, and which conditions hold. */
export class Walk {
  readonly #project: Project;
  readonly #graph: ScreenGraph;
  readonly #facts: Map<string, boolean>;
  readonly #history: string[] = [];
  /** The screen, with the overlays that are open over it. */
  #shown: readonly string[];

  constructor(project: Project, graph: ScreenGraph, start: string) {
    this.#project = project;
    this.#graph = graph;
    this.#facts = new Map(Object.entries(project.app.conditions).map(([id, { initial }]) => [id, initial]));
    this.#shown = [start];
  }

  /** Key of the uppermost of what is shown. */
  get place(): string {
    return this.#shown.at(-1)!;
  }

  /** Key of the screen, beneath what is open over it. */
  get screen(): string {
    return this.#shown[0];
  }

  /** Whether an interaction would be done now: its condition holds. */
  holds({ interaction: { when } }: WiredState): boolean {
    return !when || this.#facts.get(when.condition) === when.is;
  }

  /** What the uppermost does that is kept under a key. */
  wiredAt(key: string): WiredState | null {
    const element = elementOfInteraction(key);
    const state = this.#graph.elements.get(this.place)?.find((one) => one.element.key === element);
    return (
      state?.wired.find((one) => one.key === key) ??
      // A row that does as another of its list is known by its own element.
      state?.wired.find((one) => one.component !== undefined) ??
      null
    );
  }

  do({ interaction: { before = [], target } }: WiredState): void {
    for (const one of [...before, target]) {
      if (one.kind === 'set') this.#facts.set(one.condition, one.value);
      else if (one.kind === 'open') this.#shown = [...this.#shown, one.overlay];
      else if (one.kind === 'close')
        this.#shown = this.#shown.length > 1 ? this.#shown.slice(0, -1) : this.#shown;
      else if (one.kind === 'screen' || one.kind === 'anchor') {
        this.#history.push(this.screen);
        this.#shown = [this.#entered(one.screen)];
      } else if (one.kind === 'back')
        this.#shown = [this.#history.pop() ?? one.fallback ?? this.#graph.start ?? this.screen];
    }
  }

  /** The screen that is shown when one is gone to: past its guard, or where that leads. */
  #entered(screen: string): string {
    const { screens } = this.#project.app;
    const seen = new Set<string>();
    let at = screen;
    for (let { guard } = screens[at] ?? {}; guard && !seen.has(at); guard = screens[at]?.guard) {
      if (this.#facts.get(guard.condition) === guard.is) break;
      seen.add(at);
      at = guard.otherwise;
    }
    return at;
  }
}

/** Where a journey is after each step, or the first step that cannot be done and why. */
export interface JourneyCheck {
  /** Key of the screen or overlay before the first step, and after each that can be done. */
  readonly places: readonly string[];
  /** The screen beneath, for each of the places. */
  readonly screens: readonly string[];
  readonly problem: { readonly step: number; readonly message: string } | null;
}

/** Goes a journey through the graph, step by step. */
export function checkJourney(project: Project, graph: ScreenGraph, journey: Journey): JourneyCheck {
  return walkJourney(project, graph, journey).check;
}

function walkJourney(
  project: Project,
  graph: ScreenGraph,
  journey: Journey,
): { readonly check: JourneyCheck; readonly walk: Walk } {
  const walk = new Walk(project, graph, journey.start);
  const places = [walk.place];
  const screens = [walk.screen];
  const fail = (step: number, message: string) => ({
    check: { places, screens, problem: { step, message } },
    walk,
  });
  const name = (key: string): string => screenName(project, key);
  if (!graph.elements.has(journey.start))
    return fail(-1, `${name(journey.start)}, where it begins, is no screen of the app`);
  for (const [i, step] of journey.steps.entries()) {
    if (step.kind === 'enter') {
      if (hostOf(project, step.element) !== walk.place || !findElement(project.design, step.element))
        return fail(i, `the field is not on ${name(walk.place)}`);
    } else {
      const wired = walk.wiredAt(step.interaction);
      if (!wired) return fail(i, `nothing on ${name(walk.place)} does that any more`);
      if (wired.problem) return fail(i, wired.problem);
      if (!walk.holds(wired)) {
        const condition = project.app.conditions[wired.interaction.when!.condition].name.toLowerCase();
        return fail(i, `its condition, ${condition}, is not so here`);
      }
      walk.do(wired);
      if (walk.place !== step.to)
        return fail(i, `it leads to ${name(walk.place)} now, not to ${name(step.to)}`);
    }
    places.push(walk.place);
    screens.push(walk.screen);
  }
  return { check: { places, screens, problem: null }, walk };
}

/** What can be done next on a journey: each element's first interaction whose condition holds. */
export interface NextStep {
  readonly label: string;
  readonly step: Extract<JourneyStep, { readonly kind: 'do' }>;
}

/** The steps that a journey can go on with; empty where it is broken. */
export function nextSteps(project: Project, graph: ScreenGraph, journey: Journey): NextStep[] {
  const { check, walk } = walkJourney(project, graph, journey);
  if (check.problem) return [];
  return (graph.elements.get(walk.place) ?? []).flatMap((state): NextStep[] => {
    const gestures = new Set<string>();
    return state.wired.flatMap((wired): NextStep[] => {
      const { on, target } = wired.interaction;
      const leavesApp = target.kind === 'external' || target.kind === 'file';
      if (wired.problem || !walk.holds(wired) || leavesApp || gestures.has(on)) return [];
      gestures.add(on);
      const after = walkJourney(project, graph, journey).walk;
      after.do(wired);
      const interaction = wired.component === undefined ? wired.key : state.element.key;
      return [{ label: state.label, step: { kind: 'do', interaction, to: after.place } }];
    });
  });
}

/** The step that pressing an element is, where a journey is; null where it does nothing there. */
export const pressStep = (
  project: Project,
  graph: ScreenGraph,
  journey: Journey,
  element: string,
): NextStep | null =>
  nextSteps(project, graph, journey).find(({ step }) => elementOfInteraction(step.interaction) === element) ??
  null;
