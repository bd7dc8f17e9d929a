import type { App, Overlay, ScreenEntry } from './app.ts';
import type { Design, Element } from './design.ts';
import { codeNames } from './names.ts';
import { isWithin, screenOf, screensByKey, walkElements } from './places.ts';
import { onceFor, whileSame } from '../json/once_for.ts';

/** The pair that everything else is computed from. */
export interface Project {
  readonly design: Design;
  readonly app: App;
}

export { elementsByKey, screensByKey, walkElements } from './places.ts';

export interface CutPanel {
  /** Of the overlay. */
  readonly key: string;
  readonly panel: string;
  /** Of the screen that it was cut out of. */
  readonly screen: string;
}

/** Overlays that were cut out of screens that stay, by those. */
export const cutPanelsOf = ({ design, app }: Project): ReadonlyMap<string, readonly CutPanel[]> =>
  panelsIn(app.screens, design);

const panelsIn = whileSame((screens: App['screens'], design: Design) => {
  const panels = new Map<string, CutPanel[]>();
  for (const [key, { use, overlay, of }] of Object.entries(screens)) {
    const panel = use === 'overlay' ? overlay?.panel : undefined;
    // One that has a drawing of its own is cut out of that.
    if (panel === undefined || isDrawn(design, key)) continue;
    const screen = of ?? screenOf(design, panel);
    panels.set(screen, [...(panels.get(screen) ?? []), { key, panel, screen }]);
  }
  return panels;
});

const isDrawn = (design: Design, key: string): boolean => {
  const screen = screensByKey(design).get(key);
  return screen !== undefined && screen.cutFrom === undefined;
};

/** The screen that shows an element: its own, the one that its own is a counterpart of, or the overlay cut out of it. */
export function hostOf(project: Project, elementKey: string): string {
  const { design, app } = project;
  const screen = screenOf(design, elementKey);
  const cut = cutPanelsOf(project)
    .get(screen)
    ?.find(({ panel }) => isWithin(design, elementKey, panel));
  if (cut) return cut.key;
  const entry = app.screens[screen];
  return entry?.use === 'counterpart' && entry.of ? entry.of : screen;
}

/** Keys of the screens that have an entry, in the person's order. */
export const orderedScreens = ({ screens }: App): readonly string[] => inOrder(screens);

const inOrder = onceFor((screens: App['screens']): readonly string[] =>
  Object.keys(screens).sort((a, b) => screens[a].order - screens[b].order || (a < b ? -1 : 1)),
);

/** Whether a screen has an address in what runs: in the design or still to be drawn, in the app and not skipped. */
export function isUsed(project: Project, screenKey: string): boolean {
  const use = project.app.screens[screenKey]?.use;
  return use === 'planned' || (use === 'screen' && screensByKey(project.design).has(screenKey));
}

/** Whether a drawing opens over screens of the app. */
export const isOverlay = (project: Project, screenKey: string): boolean =>
  project.app.screens[screenKey]?.use === 'overlay' && screensByKey(project.design).has(screenKey);

/** How an overlay opens and closes: as somebody said, or as a dialog. */
export const overlayOf = (entry: ScreenEntry): Overlay => entry.overlay ?? plainDialog;

export const plainDialog: Overlay = { kind: 'dialog', modal: true, escape: true, outside: true };

/** The name people know a screen by, even after it was deleted from the app. */
export function screenName(project: Project, screenKey: string): string {
  return (
    project.app.screens[screenKey]?.name ?? screensByKey(project.design).get(screenKey)?.name ?? screenKey
  );
}

/** What a screen is in the app, where that is not a screen of its own. */
export function useInWords(project: Project, screenKey: string): string | null {
  const entry = project.app.screens[screenKey];
  if (!entry) return 'is gone';
  const of = entry.of ? ` of ${screenName(project, entry.of)}` : '';
  switch (entry.use) {
    case 'skip':
      return 'is skipped';
    case 'counterpart':
      return `is a counterpart${of}`;
    case 'overlay':
      return `is an overlay${of}`;
    case 'alternative':
      return `is an alternative${of}`;
    case 'state':
      return `is a state${of}`;
    case 'planned':
      return null;
    case 'screen':
      return isUsed(project, screenKey) ? null : 'is gone';
  }
}

/** All the text beneath an element, in reading order. */
export function textOf(element: Element): string {
  const parts: string[] = [];
  walkElements(element, (e) => void (e.text && parts.push(e.text)));
  return parts.join(' ').replace(/\s+/g, ' ').trim();
}

/** What variables are called in code, by their ids. */
export const variableNames = ({ variables }: Pick<App, 'variables'>): ReadonlyMap<string, string> =>
  namesOfVariables(variables);

const namesOfVariables = onceFor((variables: App['variables']): ReadonlyMap<string, string> =>
  codeNames(Object.keys(variables).sort(), (id) => variables[id].name, 'condition'),
);
