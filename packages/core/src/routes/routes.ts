import type { App, ScreenEntry } from '../model/app.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { isUsed, orderedScreens, type Project, screensByKey } from '../model/project.ts';

/** The route a screen's name asks for: `Tool detail` → `/tool-detail`. */
export const routeFromName = (name: string): string => `/${kebabCase(name) || 'screen'}`;

/** The route that a name asks for, made different from those that other screens have. */
export function freeRoute(name: string, taken: ReadonlySet<string>): string {
  return uniqueName(routeFromName(name), (route) => taken.has(route));
}

/** One form for routes that lead to the same place: one slash in front, none at the end. */
export function normaliseRoute(text: string): string {
  const route = `/${text.trim()}`.replace(/\/{2,}/g, '/');
  return route.length > 1 ? route.replace(/\/$/, '') : route;
}

/** The name of the other screen that has this route, or null. Letter case makes no difference to a router. */
export function screenAtRoute(app: App, route: string, except?: string): string | null {
  const wanted = route.toLowerCase();
  for (const [key, entry] of Object.entries(app.screens))
    if (key !== except && entry.use === 'screen' && entry.route.toLowerCase() === wanted) return key;
  return null;
}

/** What is wrong with how a route is written; null when nothing is. */
export function routeFormProblem(text: string): string | null {
  const route = normaliseRoute(text);
  if (!text.trim()) return 'A screen needs a route. Type one, for instance /tools.';
  const bad = /[^A-Za-z0-9\-._~/]/.exec(route);
  if (bad) return `A route cannot hold “${bad[0]}”. Use letters, digits, - and /.`;
  if (route.split('/').some((part) => part === '.' || part === '..'))
    return 'A route cannot hold . or .. as a part.';
  return null;
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
        source: screensByKey(project.design).get(key)!.source.file,
        path: entry.route,
      };
    });
  return rows.sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
}
