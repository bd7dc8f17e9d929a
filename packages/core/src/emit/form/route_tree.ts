import type { PlacedLayout } from './layouts/layouts.ts';
import type { App } from '../../model/app.ts';
import { fillRoute } from '../../paths/pattern.ts';

/** A screen as the table of routes has it. */
export interface RouteEntry {
  readonly key: string;
  readonly name: string;
  readonly path: string;
  /** Name of its component and of its folder. */
  readonly folder: string;
}

/** A line of the table of routes: a screen, or a layout with what is in it. */
export type RouteNode =
  | { readonly kind: 'screen'; readonly row: RouteEntry; readonly path: string | null }
  | {
      readonly kind: 'layout';
      readonly name: string;
      readonly path: string | null;
      readonly children: readonly RouteNode[];
    };

/** Sorted by path, so that of two that fit equally the same one is always shown. */
export const sortedRoutes = <T extends { readonly path: string }>(rows: readonly T[]): T[] =>
  [...rows].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));

/**
 * The table of routes with its layouts. A layout takes the path that all its screens begin with, if one of them lives at
 * that very path: that one is its index (`path` null).
 */
export function routeTree(rows: readonly RouteEntry[], layouts: readonly PlacedLayout[]): RouteNode[] {
  const homeOf = (key: string): string | null =>
    layouts.filter((layout) => layout.screens.includes(key)).at(-1)?.name ?? null;
  const within = (parent: string | null, base: string): RouteNode[] => {
    const screens = sortedRoutes(rows)
      .filter((row) => homeOf(row.key) === parent)
      .map((row): RouteNode => ({ kind: 'screen', row, path: below(row.path, base) }));
    const inner = layouts
      .filter((layout) => layout.parent === parent)
      .map((layout): RouteNode => {
        const paths = rows.filter((row) => layout.screens.includes(row.key)).map((row) => row.path);
        const own = commonBase(paths);
        // Without a screen at that very path the layout itself would be shown there, empty.
        const hasPath = own.length > base.length && paths.includes(own);
        return {
          kind: 'layout',
          name: layout.name,
          path: hasPath ? below(own, base) : null,
          children: within(layout.name, hasPath ? own : base),
        };
      });
    return [...screens, ...inner];
  };
  return within(null, '');
}

/** The part of a path below a base; null for the base itself, the whole path where there is no base. */
const below = (path: string, base: string): string | null =>
  base === '' ? path : path === base ? null : path.slice(base.length + 1);

/** What paths begin with in common, by whole segments that are always there; empty for none. */
export function commonBase(paths: readonly string[]): string {
  const [first, ...others] = paths.map((path) => path.split('/').filter(Boolean));
  if (!first) return '';
  let count = 0;
  while (
    count < first.length &&
    !first[count].endsWith('?') &&
    first[count] !== '*' &&
    others.every((parts) => parts[count] === first[count])
  )
    count++;
  return count ? `/${first.slice(0, count).join('/')}` : '';
}

/** A redirect keeps the parameters that both paths have; the others are the screen's own. */
export function targetOfRedirect(app: App, from: string, to: string): string {
  const { route, params = {} } = app.screens[to];
  const kept = new Set(from.match(/:\w+/g) ?? []);
  const own = Object.fromEntries(Object.entries(params).filter(([name]) => !kept.has(`:${name}`)));
  return fillRoute(route, own);
}
