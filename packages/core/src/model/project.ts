import type { App, Overlay, ScreenEntry } from './app.ts';
import type { Design, Element, Screen } from './design.ts';

/** The pair that everything else is computed from. */
export interface Project {
  readonly design: Design;
  readonly app: App;
}

/** Visits an element and all beneath it in reading order; return `false` to leave out what is beneath. */
export function walkElements(
  root: Element,
  visit: (element: Element, parents: readonly Element[]) => boolean | void,
): void {
  const parents: Element[] = [];
  const go = (element: Element): void => {
    if (visit(element, parents) === false) return;
    parents.push(element);
    element.children.forEach(go);
    parents.pop();
  };
  go(root);
}

const elementIndexes = new WeakMap<Screen, ReadonlyMap<string, Element>>();

/** All elements of a screen by key; computed once per screen value. */
export function elementsByKey(screen: Screen): ReadonlyMap<string, Element> {
  let index = elementIndexes.get(screen);
  if (!index) {
    const made = new Map<string, Element>();
    walkElements(screen.root, (element) => void made.set(element.key, element));
    elementIndexes.set(screen, (index = made));
  }
  return index;
}

const screenIndexes = new WeakMap<Design, ReadonlyMap<string, Screen>>();

export function screensByKey(design: Design): ReadonlyMap<string, Screen> {
  let index = screenIndexes.get(design);
  if (!index) screenIndexes.set(design, (index = new Map(design.screens.map((s) => [s.key, s]))));
  return index;
}

/** The part of an element key that names its screen. */
export const screenOfElement = (elementKey: string): string => elementKey.slice(0, elementKey.indexOf(':'));

/** Whether an element is another or stands in it, by their keys. */
export const isWithin = (element: string, place: string): boolean =>
  element === place || element.startsWith(place.endsWith(':') ? place : `${place}/`);

const cutPanels = new WeakMap<
  App['screens'],
  ReadonlyMap<string, readonly (readonly [panel: string, key: string])[]>
>();

/** Panels that were cut out of screens that stay, by screen. */
function panelsOf(screens: App['screens']): ReadonlyMap<string, readonly (readonly [string, string])[]> {
  const known = cutPanels.get(screens);
  if (known) return known;
  const panels = new Map<string, (readonly [string, string])[]>();
  for (const [key, { use, overlay }] of Object.entries(screens)) {
    const screen = use === 'overlay' && overlay?.panel ? screenOfElement(overlay.panel) : key;
    if (screen !== key) panels.set(screen, [...(panels.get(screen) ?? []), [overlay!.panel!, key]]);
  }
  cutPanels.set(screens, panels);
  return panels;
}

/** The screen that shows an element: its own, the one that its own is a counterpart of, or the overlay cut out of it. */
export function hostOf(app: App, elementKey: string): string {
  const screen = screenOfElement(elementKey);
  const cut = panelsOf(app.screens)
    .get(screen)
    ?.find(([panel]) => isWithin(elementKey, panel));
  if (cut) return cut[1];
  const entry = app.screens[screen];
  return entry?.use === 'counterpart' && entry.of ? entry.of : screen;
}

const cutScreens = new WeakMap<Design, ReadonlyMap<string, readonly Screen[]>>();

/** Overlays that were cut out of a screen that stays. */
function cutFrom(design: Design, screen: string): readonly Screen[] {
  let cut = cutScreens.get(design);
  if (!cut) {
    const made = new Map<string, Screen[]>();
    for (const one of design.screens)
      if (one.cutFrom) made.set(one.cutFrom, [...(made.get(one.cutFrom) ?? []), one]);
    cutScreens.set(design, (cut = made));
  }
  return cut.get(screen) ?? [];
}

/** The element with this key, or null when its screen or itself is not in the design. */
export function findElement(design: Design, elementKey: string): Element | null {
  const screen = screenOfElement(elementKey);
  const own = screensByKey(design).get(screen);
  const found = own && elementsByKey(own).get(elementKey);
  if (found) return found;
  for (const cut of cutFrom(design, screen)) {
    const inner = elementsByKey(cut).get(elementKey);
    if (inner) return inner;
  }
  return null;
}

/** Keys of the screens that have an entry, in the person's order. */
export function orderedScreens(app: App): string[] {
  return Object.keys(app.screens).sort(
    (a, b) => app.screens[a].order - app.screens[b].order || (a < b ? -1 : 1),
  );
}

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
