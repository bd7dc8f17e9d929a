import {
  all,
  applyChange,
  type Change,
  putBinding,
  putDetail,
  putInteraction,
  putScreen,
} from '../change/change.ts';
import { grouped } from '../json/grouped.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { parametersOf } from '../paths/pattern.ts';
import { routeProblem } from '../routes/routes.ts';
import type { CollectionProposal } from './collections.ts';
import type { App } from '../model/app.ts';
import { kebabCase, recordName, recordVariable } from '../model/names.ts';
import { containersOf, findElement, screenOf } from '../model/places.ts';
import { type Project, textOf } from '../model/project.ts';
import { recordsOf, titleField } from '../records/records.ts';
import type { BindingProposal } from './bindings.ts';
import { takeCollection } from './take_collection.ts';

/** A text that is to say what is worked out. */
export interface MadeBinding {
  readonly proposal: BindingProposal;
  /** The expression that it says. */
  readonly source: string;
}

/** Whether something is proposed to say a field of one record. */
export const isOfRecord = ({ shows }: BindingProposal): boolean => /^\w+\.\w+$/.test(shows);

/**
 * What is proposed of screens of one record, screen by screen: of those that a row leads to, or whose path has a parameter, and
 * of those that such screens alone lead to.
 */
export function byReach(
  { design, app }: Project,
  collections: readonly CollectionProposal[],
  proposals: readonly BindingProposal[],
): [string, BindingProposal[]][] {
  const rows = new Set(collections.flatMap(({ places }) => places.flatMap((place) => place.rows)));
  const arrivals = new Map<string, { readonly from: string; readonly isRow: boolean }[]>();
  for (const [key, { target }] of Object.entries(app.interactions)) {
    if (target.kind !== 'screen') continue;
    const element = elementOfInteraction(key);
    const isRow = [element, ...containersOf(design, element)].some((one) => rows.has(one));
    const from = screenOf(design, element);
    arrivals.set(target.screen, [...(arrivals.get(target.screen) ?? []), { from, isRow }]);
  }
  const screens = [...grouped(proposals, ({ screen }) => screen)];
  const reached = new Set<string>();
  const isReached = (screen: string): boolean => {
    const all = arrivals.get(screen) ?? [];
    return (
      parametersOf(app.screens[screen]?.route ?? '').length > 0 ||
      all.some(({ isRow }) => isRow) ||
      (all.length > 0 && all.every(({ from }) => reached.has(from)))
    );
  };
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const [screen] of screens) if (isReached(screen)) reached.add(screen);
  }
  return screens.filter(([screen]) => reached.has(screen));
}

/** The collection that holds rows, taken along where nobody has taken it. */
export function heldBy(
  project: Project,
  found: CollectionProposal,
  put: (change: Change) => void,
): { readonly id: string; readonly app: App } {
  const rows = new Set(found.places.flatMap((place) => place.rows));
  const known = Object.keys(project.app.collections).find((key) =>
    project.app.collections[key].rows.some((row) => rows.has(row.element)),
  );
  if (known !== undefined) return { id: known, app: project.app };
  const { id, change } = takeCollection(project, found);
  put(change);
  return { id, app: applyChange(project.app, change) };
}

/**
 * A screen shows the record that its address says: its route gets a parameter for the id, rows that lead there give theirs,
 * and what says a field of the record that was drawn says that field of any.
 */
export function recordOn(
  project: Project,
  collections: readonly CollectionProposal[],
  screen: string,
  said: readonly BindingProposal[],
  put: (change: Change) => void,
): MadeBinding[] {
  const [one] = said[0].shows.split('.');
  const found = collections.find(({ name }) => recordName(name) === one);
  const entry = project.app.screens[screen];
  if (!found || !entry) return [];
  const { id, app } = heldBy(project, found, put);
  const collection = app.collections[id];
  const title = titleField(project.design, collection);
  const records = recordsOf(project.design, collection);
  const textAt = (key: string): string => textOf(findElement(project.design, key)!).trim();
  const fields = new Map(said.map(({ element, shows }) => [element, shows.split('.')[1]]));
  const fitting = records
    .map((record) => ({
      record,
      fits: [...fields].filter(([key, field]) => record.values[field]?.text === textAt(key)).length,
    }))
    .sort((a, b) => b.fits - a.fits)[0]?.record;
  const name = title && fitting?.values[title.name]?.text;
  if (!title || !name || !fitting) return [];
  const [own] = parametersOf(entry.route);
  const parameter = own ?? `${recordName(collection.name)}Id`;
  const route = own ? entry.route : detailRoute(entry.route, parameter);
  if (!own && routeProblem(app, screen, route)) return [];
  put(
    showRecord({ ...project, app }, screen, {
      collection: id,
      parameter,
      route,
      like: kebabCase(name).slice(0, 80),
    }),
  );
  const variable = recordVariable(collection.name);
  return said.flatMap((proposal): MadeBinding[] => {
    const field = fields.get(proposal.element)!;
    const value = fitting.values[field];
    const element = findElement(project.design, proposal.element);
    const isPicture = value?.asset !== undefined && element?.asset !== undefined;
    if (!value || (!isPicture && value.text !== textAt(proposal.element))) return [];
    const source = `${variable}.${field}`;
    put(putBinding(proposal.element, isPicture ? { picture: source } : { text: source }));
    return [{ proposal, source }];
  });
}

/**
 * The change by which a screen shows one record of a collection, the one that a parameter of its address says; rows of the
 * collection that lead there say theirs.
 * @param like the id of the record that it shows where nobody says another
 */
export function showRecord(
  { design, app }: Project,
  screen: string,
  {
    collection: id,
    parameter,
    route,
    like,
  }: {
    readonly collection: string;
    readonly parameter: string;
    readonly route: string;
    readonly like: string;
  },
): Change {
  const entry = app.screens[screen];
  const collection = app.collections[id];
  const title = titleField(design, collection);
  const rowOf = new Map(collection.rows.map((row) => [row.element, row]));
  return all([
    putScreen(screen, { ...entry, route, params: { ...entry.params, [parameter]: like } }),
    putDetail(screen, { collection: id, parameter }),
    ...Object.entries(app.interactions).flatMap(([key, interaction]): Change[] => {
      const { target } = interaction;
      if (target.kind !== 'screen' || target.screen !== screen || target.params?.[parameter]) return [];
      const element = elementOfInteraction(key);
      const row = [element, ...containersOf(design, element)].map((at) => rowOf.get(at)).find(Boolean);
      const field = title && row?.shows[title.name];
      if (!field) return [];
      const params = { ...target.params, [parameter]: { field } };
      return [putInteraction(key, { ...interaction, target: { ...target, params } })];
    }),
  ]);
}

/** `/tools/detail` → `/tools/:toolId`, `/tool` → `/tool/:toolId`. */
const detailRoute = (route: string, parameter: string): string =>
  `${route.replace(/\/(detail|details|view|show|item|single|page)$/i, '').replace(/\/$/, '')}/:${parameter}`;
