import type { ScreenGraph, WiredState } from '../graph/graph.ts';
import type { Journey, JourneyStep } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import {
  elementsByKey,
  findElement,
  hostOf,
  type Project,
  screenName,
  screensByKey,
} from '../model/project.ts';

/** Where a journey is after each step, or the first step that cannot be done and why. */
export interface JourneyCheck {
  /** Key of the screen, or of the overlay that is open over it, before the first step and after each that can be done. */
  readonly places: readonly string[];
  readonly problem: { readonly step: number; readonly message: string } | null;
}

/** Goes a journey through the graph, step by step, with the conditions as they are at first and as steps make them. */
export function checkJourney(project: Project, graph: ScreenGraph, journey: Journey): JourneyCheck {
  const { app } = project;
  const facts = new Map(Object.entries(app.conditions).map(([id, { initial }]) => [id, initial]));
  /** What is shown, with overlays over it. */
  let stack = [journey.start];
  const history: string[] = [];
  const places = [journey.start];
  const fail = (step: number, message: string): JourneyCheck => ({ places, problem: { step, message } });
  if (!graph.elements.has(journey.start))
    return fail(-1, `${screenName(project, journey.start)}, where it begins, is no screen of the app`);
  for (const [i, step] of journey.steps.entries()) {
    if (step.kind === 'enter') {
      if (!isOn(project, stack, step.element)) return fail(i, `the field is not on ${named(project, stack)}`);
      places.push(stack.at(-1)!);
      continue;
    }
    const wired = wiredOn(graph, stack, step);
    if (!wired) return fail(i, `nothing on ${named(project, stack)} does that any more`);
    if (wired.problem) return fail(i, wired.problem);
    const { when, before = [], target } = wired.interaction;
    if (when && facts.get(when.condition) !== when.is)
      return fail(i, `its condition, ${app.conditions[when.condition].name.toLowerCase()}, is not so here`);
    for (const one of [...before, target]) {
      if (one.kind === 'set') facts.set(one.condition, one.value);
      else if (one.kind === 'open') stack = [...stack, one.overlay];
      else if (one.kind === 'close') stack = stack.length > 1 ? stack.slice(0, -1) : stack;
      else if (one.kind === 'screen' || one.kind === 'anchor') {
        history.push(stack[0]);
        stack = [entered(project, one.screen, facts)];
      } else if (one.kind === 'back') stack = [history.pop() ?? one.fallback ?? graph.start ?? stack[0]];
    }
    const here = stack.at(-1)!;
    if (here !== step.to)
      return fail(i, `it leads to ${screenName(project, here)} now, not to ${screenName(project, step.to)}`);
    places.push(here);
  }
  return { places, problem: null };
}

/** The screen that is shown when one is gone to: past its guard, or where that leads. */
export function entered(project: Project, screen: string, facts: ReadonlyMap<string, boolean>): string {
  let at = screen;
  for (let i = 0; i < 10; i++) {
    const guard = project.app.screens[at]?.guard;
    if (!guard || facts.get(guard.condition) === guard.is) return at;
    at = guard.otherwise;
  }
  return at;
}

const named = (project: Project, stack: readonly string[]): string => screenName(project, stack.at(-1)!);

function isOn(project: Project, stack: readonly string[], element: string): boolean {
  const screen = screensByKey(project.design).get(stack.at(-1)!);
  return (
    hostOf(project.app, element) === stack.at(-1) &&
    !!screen &&
    (elementsByKey(screen).has(element) || !!findElement(project.design, element))
  );
}

/** What a step does, on the uppermost of what is shown that has it. */
function wiredOn(
  graph: ScreenGraph,
  stack: readonly string[],
  { interaction }: Extract<JourneyStep, { kind: 'do' }>,
): WiredState | null {
  const element = elementOfInteraction(interaction);
  const state = graph.elements.get(stack.at(-1)!)?.find((one) => one.element.key === element);
  return (
    state?.wired.find((one) => one.key === interaction) ??
    // A row that does as another of its list is known by its own element.
    state?.wired.find((one) => one.component !== undefined) ??
    null
  );
}
