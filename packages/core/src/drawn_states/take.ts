import { all, type Change, putInteraction, putState, setStart } from '../change/change.ts';
import type { App, DrawnState } from '../model/app.ts';
import { orderedScreens } from '../model/project.ts';

/** The drawings that are states of a screen, in the person's order; of several of one state the first. */
export function drawnStatesOf(
  app: App,
  key: string,
): readonly { readonly key: string; readonly state: DrawnState }[] {
  const found = new Map<DrawnState, string>();
  for (const other of orderedScreens(app)) {
    const { use, of, state } = app.screens[other];
    if (use === 'state' && of === key && state !== undefined && !found.has(state)) found.set(state, other);
  }
  return [...found].map(([state, other]) => ({ key: other, state }));
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
