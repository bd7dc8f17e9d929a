import { analysisOf, type App, lineGroups, type Project, type ScreenGraph } from '@tovel/core';

export const ORDERS = [
  { id: 'own', label: 'In your order' },
  { id: 'route', label: 'By route' },
  { id: 'depth', label: 'By presses from the start' },
  { id: 'cluster', label: 'By cluster' },
] as const;

export type Order = (typeof ORDERS)[number]['id'];

/**
 * The screens of a graph in an order; those that nobody reaches are the deepest. A cluster is a layout, or screens whose
 * routes begin alike. Equals keep the person's order.
 */
export function inOrder(project: Project, graph: ScreenGraph, app: App, order: Order): readonly string[] {
  const { depth } = analysisOf(graph);
  const routeOf = (key: string): string => app.screens[key].route;
  const depthOf = (key: string): number => depth.get(key) ?? graph.screens.length;
  if (order === 'own') return graph.screens;
  if (order === 'cluster') {
    const groups = lineGroups(project, graph, 2).map((group) => group.screens);
    const grouped = new Set(groups.flat());
    return [...graph.screens.filter((key) => !grouped.has(key)), ...groups.flat()];
  }
  return [...graph.screens].sort((a, b) =>
    order === 'depth'
      ? depthOf(a) - depthOf(b)
      : routeOf(a) < routeOf(b)
        ? -1
        : routeOf(a) > routeOf(b)
          ? 1
          : 0,
  );
}
