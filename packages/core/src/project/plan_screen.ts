import { all, type Change, putInteraction, putScreen } from '../change/change.ts';
import { mapChange } from '../change/map_keys.ts';
import type { App } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { freeRoute } from '../routes/routes.ts';

/** A screen that is still to be drawn: a place in the graph, with a name and a route. */
export function planScreen(app: App, name: string): { readonly key: string; readonly change: Change } {
  const key = uniqueName(`planned-${kebabCase(name) || 'screen'}`, (candidate) => !!app.screens[candidate]);
  const entries = Object.values(app.screens);
  const route = freeRoute(name, new Set(entries.map((entry) => entry.route)));
  const order = Math.max(0, ...entries.map((entry) => entry.order)) + 1;
  return { key, change: putScreen(key, { name, route, use: 'planned', order }) };
}

/** Plans a screen and makes an element lead there. */
export function planFor(app: App, name: string, element: string): Change {
  const { key, change } = planScreen(app, name);
  return all([change, putInteraction(element, pressTo({ kind: 'screen', screen: key }))]);
}

const wordOf = (name: string): string => kebabCase(name).replace(/-/g, ' ');

/** The planned screen that a newly drawn one of this name is, if one is. */
export const plannedAs = (app: App, name: string): string | null =>
  Object.keys(app.screens).find(
    (key) => app.screens[key].use === 'planned' && wordOf(app.screens[key].name) === wordOf(name),
  ) ?? null;

/** Puts a drawn screen in the place of a planned one: with its name, route and order, and all that leads to it. */
export function fillPlanned(app: App, planned: string, drawn: string): Change {
  const map = (key: string): string => (key === planned ? drawn : key);
  const changes: Change[] = [
    putScreen(planned, null),
    putScreen(drawn, { ...app.screens[planned], use: 'screen' }),
  ];
  const moved = (change: Change): void => {
    const mapped = mapChange(change, map);
    if (mapped && mapped !== change) changes.push(mapped);
  };
  for (const table of ['interactions', 'layouts', 'journeys', 'redirects'] as const)
    for (const [key, value] of Object.entries(app[table]))
      moved({ kind: 'put', table, key, value } as Change);
  for (const [key, value] of Object.entries(app.screens))
    if (key !== planned) moved({ kind: 'put', table: 'screens', key, value });
  return all(changes);
}
