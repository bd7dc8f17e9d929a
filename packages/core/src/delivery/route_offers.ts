import { type Change, putRedirect, putScreen } from '../change/change.ts';
import { isUsed, type Project } from '../model/project.ts';

/** The files that say which screen stands under which address. */
const ROUTES = /(^|\/)routes\.tsx?$/;
const PATH = /\bpath: '([^']+)'/;
/** A redirect, as both frameworks say it. */
const REDIRECT = /^\{ path: '(\/[^']*)', (?:element: <Redirect to="([^"]+)" \/>|redirect: '([^']+)'),? \},?$/;

/**
 * What a line of the routes means that says something else than it did: another address of a screen, or a new one that leads to
 * a screen.
 * @param old the lines as they were written, on one; nothing where they are new
 */
export function routeMeaning(
  project: Project,
  path: string,
  old: string,
  now: string,
): { readonly says: string; readonly change: Change } | null {
  if (!ROUTES.test(path)) return null;
  const { app } = project;
  const screens = Object.keys(app.screens).filter((key) => isUsed(project, key));
  const [from, to] = [PATH.exec(old)?.[1], PATH.exec(now)?.[1]];
  if (
    from !== undefined &&
    to !== undefined &&
    from !== to &&
    old.replace(PATH, '') === now.replace(PATH, '')
  ) {
    // Below another one only the rest of an address is said.
    const fits = screens.filter((key) => {
      const { route } = app.screens[key];
      return from.startsWith('/') ? route === from : route.endsWith(`/${from}`);
    });
    if (fits.length !== 1) return null;
    const entry = app.screens[fits[0]];
    const route = entry.route.slice(0, entry.route.length - from.length) + to;
    return {
      says: `${entry.name} is at ${route}, was at ${entry.route}`,
      change: putScreen(fits[0], { ...entry, route }),
    };
  }
  const added = old === '' ? REDIRECT.exec(now) : null;
  if (!added) return null;
  const [, address, ...leads] = added;
  const target = leads.find((one) => one !== undefined);
  const screen = screens.find((key) => app.screens[key].route === target);
  return screen === undefined
    ? null
    : {
        says: `${address} leads to ${app.screens[screen].name}`,
        change: putRedirect(address, { to: screen }),
      };
}
