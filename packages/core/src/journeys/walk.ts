import type { ScreenGraph, WiredState } from '../graph/graph.ts';
import type { Value } from '../expression/expression.ts';
import { ENTERED } from '../expression/language.ts';
import { valueOf } from '../expression/value_of.ts';
import type { Journey, JourneyStep, Target, When } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { hostOf, type Project, screenName, variableNames } from '../model/project.ts';
import { findElement } from '../model/places.ts';
import { drawnRecords } from '../records/expression_names.ts';
import { settingOf, valuesOfVariables } from '../variables/variables.ts';

/** Somebody in the app: what is shown, what came before, and which variables hold. */
export class Walk {
  readonly #project: Project;
  readonly #graph: ScreenGraph;
  /** What variables were set to, by their ids. */
  readonly #set = new Map<string, Value>();
  readonly #names: ReadonlyMap<string, string>;
  readonly #history: string[] = [];
  #drawn: ReturnType<typeof drawnRecords> | undefined;
  /** The screen, with the overlays that are open over it. */
  #shown: readonly string[];

  constructor(project: Project, graph: ScreenGraph, start: string) {
    this.#project = project;
    this.#graph = graph;
    this.#names = variableNames(project.app);
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
    return !when || this.#isSo(when);
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

  /** What a field does when something is entered into it. */
  enter(element: string, text: string): void {
    const state = this.#graph.elements.get(this.place)?.find((one) => one.element.key === element);
    const wired = state?.wired.find((one) => one.interaction.on === 'change' && this.holds(one));
    if (wired && !wired.problem) this.do(wired, text);
  }

  /** @param entered what was entered into the element */
  do({ interaction: { before = [], target } }: WiredState, entered = ''): void {
    for (const one of [...before, target]) {
      if (one.kind === 'set') this.#setVariable(one, entered);
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

  #isSo({ condition, is }: When): boolean {
    const value = this.#values()[this.#names.get(condition) ?? ''];
    return value === is;
  }

  /** What all variables are by now, with the records as they were drawn. */
  #values(): Readonly<Record<string, Value>> {
    return valuesOfVariables(this.#project.app, this.#set, this.#records());
  }

  #records(): ReturnType<typeof drawnRecords> {
    return (this.#drawn ??= drawnRecords(this.#project));
  }

  #setVariable(step: Extract<Target, { readonly kind: 'set' }>, entered: string): void {
    const { app } = this.#project;
    const setting = settingOf(app, step);
    // What speaks of the record of a row is known only while the app runs.
    if (setting.problem !== undefined) return;
    const scope = { variables: this.#values(), records: this.#records(), props: { [ENTERED]: entered } };
    this.#set.set(step.condition, valueOf(setting.to, scope));
  }

  /** The screen that is shown when one is gone to: past its guard, or where that leads. */
  #entered(screen: string): string {
    const { screens } = this.#project.app;
    const seen = new Set<string>();
    let at = screen;
    for (let { guard } = screens[at] ?? {}; guard && !seen.has(at); guard = screens[at]?.guard) {
      if (this.#isSo(guard)) break;
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
      walk.enter(step.element, step.text);
    } else {
      const wired = walk.wiredAt(step.interaction);
      if (!wired) return fail(i, `nothing on ${name(walk.place)} does that any more`);
      if (wired.problem) return fail(i, wired.problem);
      if (!walk.holds(wired)) {
        const condition = project.app.variables[wired.interaction.when!.condition].name.toLowerCase();
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
