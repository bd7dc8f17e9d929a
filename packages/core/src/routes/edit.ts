import { all, type Change, putScreen } from '../change/change.ts';
import type { App, ScreenEntry } from '../model/app.ts';
import type { Screen } from '../model/design.ts';
import { kebabCase } from '../model/names.ts';
import { isUsed, orderedScreens, type Project, screensByKey, walkElements } from '../model/project.ts';
import { normaliseRoute, parametersOf, requiredParametersOf, segmentsOf } from '../paths/pattern.ts';
import { hasAddress, routeProblem } from './routes.ts';

/** Whether a route lies below another. */
export const isBelow = (route: string, base: string): boolean =>
  base !== '/' && route !== base && route.startsWith(`${base}/`);

/**
 * Gives a screen another route; what lies below the old one comes along. Links lead to screens, so they follow by
 * themselves. New parameters get a value to show the screen with: what its heading says.
 */
export function rerouted(project: Project, screen: string, text: string): Change {
  const { app } = project;
  const before = app.screens[screen].route;
  const after = normaliseRoute(text);
  if (after === before) return all([]);
  const changes = Object.entries(app.screens).flatMap(([key, entry]): Change[] => {
    // One that is skipped keeps its route for when it is taken up again.
    if (key === screen) return [putScreen(key, withRoute(project, key, entry, after))];
    if (!hasAddress(entry)) return [];
    if (!isBelow(entry.route, before) || after.endsWith('*')) return [];
    const route = normaliseRoute(after + entry.route.slice(before.length));
    return [putScreen(key, withRoute(project, key, entry, route))];
  });
  return changes.length === 1 ? changes[0] : all(changes);
}

/** Why a screen, with what lies below it, cannot have a route; null when it can. */
export function reroutedProblem(project: Project, screen: string, text: string): string | null {
  const { app } = project;
  const own = routeProblem(app, screen, text);
  if (own) return own;
  const before = app.screens[screen].route;
  const after = normaliseRoute(text);
  if (isBelow(after, before)) return `${before} cannot lie below itself.`;
  for (const [key, entry] of Object.entries(app.screens)) {
    if (key === screen || !hasAddress(entry) || !isBelow(entry.route, before)) continue;
    const problem = routeProblem(app, key, normaliseRoute(after + entry.route.slice(before.length)));
    if (problem) return `${entry.name} comes along: ${problem}`;
  }
  return null;
}

/** The route that a screen gets below another, or at the top: the last part of its own stays. */
export function routeBelow({ screens }: App, screen: string, parent: string | null): string {
  const base = parent === null ? '' : screens[parent].route.replace(/\/\*?$/, '');
  const parts = screens[screen].route.split('/').filter(Boolean);
  const last = parts.at(-1) ?? kebabCase(screens[screen].name);
  // A part that says which one (`:toolId`) means little without the one before it.
  const tail = last.startsWith(':') && parts.length > 1 ? parts.slice(-2) : [last];
  return normaliseRoute(`${base}/${tail.join('/')}`);
}

/** The screen that a screen's route lies right below, if one does. */
export function parentRoute({ screens }: App, screen: string): string | null {
  const { route } = screens[screen];
  let best: string | null = null;
  for (const [key, entry] of Object.entries(screens))
    if (hasAddress(entry) && isBelow(route, entry.route))
      if (!best || screens[best].route.length < entry.route.length) best = key;
  return best;
}

function withRoute(project: Project, key: string, entry: ScreenEntry, route: string): ScreenEntry {
  const { params = {}, ...rest } = entry;
  const names = new Set(parametersOf(route));
  const kept = Object.entries(params).filter(([name]) => names.has(name));
  const screen = screensByKey(project.design).get(key);
  const sample = screen ? sampleFor(screen) : '';
  const added = requiredParametersOf(route)
    .filter((name) => !params[name])
    .map((name) => [name, sample || kebabCase(entry.name) || 'one'] as const);
  const values = Object.fromEntries([...kept, ...added]);
  return { ...rest, route, ...(Object.keys(values).length ? { params: values } : {}) };
}

/** What the screen is drawn with, as a part of an address: its heading, else its largest text. */
function sampleFor(screen: Screen): string {
  let best = '';
  let size = 0;
  walkElements(screen.root, (element) => {
    if (element.hidden) return false;
    const own =
      parseFloat(element.style.base['font-size'] ?? '16') + (/^h[1-3]$/.test(element.tag ?? '') ? 4 : 0);
    const text = element.text?.trim() ?? '';
    if (/\p{L}{2}/u.test(text) && own > size) {
      best = text;
      size = own;
    }
    return true;
  });
  return kebabCase(best).slice(0, 60);
}

/** Something about the routes of an app that is not as it should be, in words. */
export interface RouteTrouble {
  readonly screen: string;
  readonly code: 'shadowed' | 'unused-parameter';
  readonly message: string;
}

/** Addresses of a screen at which another one is shown, and values kept for parameters that its route does not have. */
export function routeTroubles(project: Project, matchAt: (address: string) => string | null): RouteTrouble[] {
  const { app } = project;
  return orderedScreens(app)
    .filter((key) => isUsed(project, key))
    .flatMap((key): RouteTrouble[] => {
      const { route, name, params = {} } = app.screens[key];
      const troubles: RouteTrouble[] = [];
      for (const address of sampleAddresses(route)) {
        const shown = matchAt(address.address);
        if (shown === null || shown === key) continue;
        troubles.push({
          screen: key,
          code: 'shadowed',
          message: `${app.screens[shown].name} is shown at ${address.pattern}, not ${name}: its route ${app.screens[shown].route} comes first.`,
        });
      }
      const names = new Set(parametersOf(route));
      for (const one of Object.keys(params).filter((param) => !names.has(param)))
        troubles.push({
          screen: key,
          code: 'unused-parameter',
          message: `${name} keeps a value for :${one}, which its route ${route} does not have.`,
        });
      return troubles;
    });
}

/** An address of each way to write a route: with and without the parts that may be missing. */
function sampleAddresses(route: string): { address: string; pattern: string }[] {
  let ways: { address: string; pattern: string }[] = [{ address: '', pattern: '' }];
  for (const segment of segmentsOf(route)) {
    if (segment.kind === 'rest')
      ways = ways.map((way) => ({ address: `${way.address}/x~1/x~2`, pattern: `${way.pattern}/…` }));
    else {
      const part = segment.kind === 'plain' ? segment.text : `x~${segment.name}`;
      const shown = segment.kind === 'plain' ? segment.text : `:${segment.name}`;
      const longer = ways.map((way) => ({
        address: `${way.address}/${part}`,
        pattern: `${way.pattern}/${shown}`,
      }));
      ways = segment.isOptional ? [...longer, ...ways] : longer;
    }
  }
  return ways.map((way) => ({ address: way.address || '/', pattern: way.pattern || '/' }));
}
