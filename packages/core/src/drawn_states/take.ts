import { all, type Change, putInteraction, putState, setStart } from '../change/change.ts';
import type { App, DrawnState } from '../model/app.ts';
import { orderedScreens } from '../model/project.ts';

/** The drawing of a state of a screen. */
interface StateDrawing {
  readonly key: string;
  readonly state: DrawnState;
}

/** The drawings that are states of a screen, in the person's order; of several of one state the first. */
export function drawnStatesOf(app: App, key: string): readonly StateDrawing[] {
  let all = byScreen.get(app.screens);
  if (!all) byScreen.set(app.screens, (all = statesByScreen(app)));
  return all.get(key) ?? [];
}
const byScreen = new WeakMap<App['screens'], ReadonlyMap<string, readonly StateDrawing[]>>();

function statesByScreen(app: App): Map<string, StateDrawing[]> {
  const all = new Map<string, StateDrawing[]>();
  for (const key of orderedScreens(app)) {
    const { use, of, state } = app.screens[key];
    if (use !== 'state' || of === undefined || state === undefined) continue;
    const known = all.get(of) ?? [];
    if (!known.some((one) => one.state === state)) all.set(of, [...known, { key, state }]);
  }
  return all;
}

/** Makes a drawing a state of a screen; what led to the drawing leads to the screen. */
export function takeState(app: App, key: string, of: string, state: DrawnState): Change {
  return all([
    putState(app, key, of, state),
    ...Object.entries(app.interactions).flatMap(([id, interaction]) => {
      const { target } = interaction;
      return target.kind === 'screen' && target.screen === key
        ? [putInteraction(id, { ...interaction, target: { ...target, screen: of } })]
        : [];
    }),
    ...(app.start === key ? [setStart(of)] : []),
  ]);
}
