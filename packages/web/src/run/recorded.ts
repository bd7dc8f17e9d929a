import {
  checkJourney,
  type EmissionPlan,
  enteredElement,
  type Journey,
  type JourneyStep,
  pressedElement,
  pressStep,
  type Project,
  type ScreenGraph,
  screenName,
} from '@tovel/core';
import { screenAtPath } from './place';

/** What the running app says of what is done in it. */
export interface Told {
  readonly tovel?: string;
  readonly path: string;
  /** Of `press` and `enter`: which of the pressable elements or fields of the page it is, from 0. */
  readonly index?: number;
  readonly text?: string;
}

/** A journey with one more thing that was done, itself where that means nothing, or why it ends here. */
export function recorded(
  project: Project & { readonly graph: ScreenGraph; readonly plan: EmissionPlan },
  journey: Journey,
  { tovel, path, index = 0, text = '' }: Told,
): Journey | { readonly ended: string } {
  if (tovel !== 'press' && tovel !== 'enter') return journey;
  const { graph, plan } = project;
  const { places, screens } = checkJourney(project, graph, journey);
  const [place, screen] = [places.at(-1)!, screens.at(-1)!];
  const here = screenAtPath(project, path);
  if (here !== screen)
    return {
      ended: `The app is at ${here ? screenName(project, here) : path} now, which none of the recorded steps led to.`,
    };
  const also = (step: JourneyStep): Journey => ({ ...journey, steps: [...journey.steps, step] });
  const shown = place === screen ? [screen] : [screen, place];
  if (tovel === 'enter') {
    const field = enteredElement(plan, shown, index);
    return field?.place === place
      ? also({ kind: 'enter', element: field.element, text: text.slice(0, 2000) })
      : journey;
  }
  const pressed = pressedElement(plan, shown, index);
  const next = pressed && pressStep(project, graph, journey, pressed.element);
  return next ? also(next.step) : journey;
}
