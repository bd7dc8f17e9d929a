import type { App, ScreenEntry } from '../model/app.ts';
import { normaliseRoute, routeFormProblem, RouteMatcher, shapeOf } from '../paths/pattern.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { isUsed, orderedScreens, type Project, screensByKey } from '../model/project.ts';

/** The route a screen's name asks for: `Tool detail` → `/tool-detail`. */
export const routeFromName = (name: string): string => `/${kebabCase(name) || 'screen'}`;

/** The route that a name asks for, made different from those that other screens have. */
export function freeRoute(name: string, taken: ReadonlySet<string>): string {
  return uniqueName(routeFromName(name), (route) => taken.has(route));
}

/** Whether a screen has an address of its own in the app. */
export const hasAddress = ({ use }: ScreenEntry): boolean => use === 'screen' || use === 'planned';

/** The key of the screen whose route matches the same addresses, or null. Letter case and names of parameters make no difference to a router. */
export function screenAtRoute(app: App, route: string, except?: string): string | null {
  const wanted = shapeOf(route);
  for (const [key, entry] of Object.entries(app.screens))
    if (key !== except && hasAddress(entry) && shapeOf(entry.route) === wanted) return key;
  return null;
}

const matchers = new WeakMap<
  App['screens'],
  { design: Project['design']; matcher: RouteMatcher; keys: readonly string[] }
>();

/** The screen that the app shows at an address, whatever its query; null where none fits. */
export function screenAtAddress(project: Project, address: string): string | null {
  const { app, design } = project;
  let known = matchers.get(app.screens);
  if (known?.design !== design) {
    // In the order in which the table of routes has them.
    const keys = routeTable(project).map((row) => row.screen);
    known = { design, matcher: new RouteMatcher(keys.map((key) => app.screens[key].route)), keys };
    matchers.set(app.screens, known);
  }
  const found = known.matcher.match(address.replace(/[?#].*$/, '') || '/');
  return found ? known.keys[found.route] : null;
}

/** What is wrong with a route for this screen, in words for its field; null when it can be taken. */
export function routeProblem(app: App, screenKey: string, text: string): string | null {
  const problem = routeFormProblem(text);
  if (problem) return problem;
  const other = screenAtRoute(app, normaliseRoute(text), screenKey);
  return other ? `${app.screens[other].name} has this route already. Choose another.` : null;
}

/** What is wrong with a name for this screen; null when it can be taken. */
export function nameProblem(app: App, screenKey: string, text: string): string | null {
  const name = text.trim();
  if (!name) return 'A screen needs a name.';
  if (name.length > 200) return 'A name has at most 200 characters.';
  const other = Object.keys(app.screens).find(
    (key) => key !== screenKey && app.screens[key].name.toLowerCase() === name.toLowerCase(),
  );
  return other ? `Another screen is called ${app.screens[other].name} already.` : null;
}

export interface RouteRow {
  readonly screen: string;
  readonly name: string;
  readonly source: string;
  readonly path: string;
}

/** The routes of the app, by path. */
export function routeTable(project: Project): RouteRow[] {
  const rows = orderedScreens(project.app)
    .filter((key) => isUsed(project, key))
    .map((key) => {
      const entry: ScreenEntry = project.app.screens[key];
      return {
        screen: key,
        name: entry.name,
        source: screensByKey(project.design).get(key)?.source.file ?? '',
        path: entry.route,
      };
    });
  return rows.sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
}
