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
import { valueOf, shown as said, type Scope } from '../expression/value_of.ts';
import type { Expression, Value } from '../expression/expression.ts';
import type { KnownNames } from '../expression/language.ts';
import type { App, ScreenEntry } from '../model/app.ts';
import { camelCase, kebabCase, recordName, recordVariable, uniqueCodeName } from '../model/names.ts';
import { containersOf, findElement, screenOf } from '../model/places.ts';
import { hostOf, type Project, textOf } from '../model/project.ts';
import { recordsOf } from '../records/records.ts';
import type { BindingProposal } from './bindings.ts';
import { takeCollection } from './make_work.ts';
import type { DataProposals } from './propose.ts';

/** A text that is to say what is worked out. */
export interface MadeBinding {
  readonly proposal: BindingProposal;
  /** The expression that it says. */
  readonly source: string;
}

/**
 * Lets texts say what they count: the numbers in them become expressions over the collections that they are about, which are
 * taken along; and screens of one record show the one that their address says.
 */
export function makeBindings(
  project: Project,
  { collections }: Pick<DataProposals, 'collections'>,
  proposals: readonly BindingProposal[],
): { readonly change: Change | null; readonly app: App; readonly made: readonly MadeBinding[] } {
  let { app } = project;
  const changes: Change[] = [];
  const made: MadeBinding[] = [];
  const put = (change: Change): void => {
    changes.push(change);
    app = applyChange(app, change);
  };
  for (const [screen, said] of byReach(project, collections, proposals.filter(isOfRecord)))
    if (!app.details[screen]) made.push(...recordOn({ ...project, app }, collections, screen, said, put));
  for (const proposal of proposals) {
    const [, , of = ''] = /^(count|range)\((\w+)\)$/.exec(proposal.shows) ?? [];
    const found = collections.find(({ name }) => name === of);
    const element = findElement(project.design, proposal.element);
    if (!found || !element || app.bindings[proposal.element]) continue;
    const { id } = heldBy({ ...project, app }, found, put);
    const isHere = app.collections[id].rows.some((row) => hostOf(project, row.element) === proposal.screen);
    const source = sourceOf(textOf(element), app.collections[id].name, isHere);
    if (source === null) continue;
    put(putBinding(proposal.element, { text: source }));
    made.push({ proposal, source });
  }
  return { change: changes.length ? all(changes) : null, app, made };
}

/** Whether something is proposed to say a field of one record. */
const isOfRecord = ({ shows }: BindingProposal): boolean => /^\w+\.\w+$/.test(shows);

/**
 * What is proposed of screens of one record, screen by screen: of those that a row leads to, or whose path has a parameter, and
 * of those that such screens alone lead to.
 */
function byReach(
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
function heldBy(
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
function recordOn(
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
  const title = collection.fields.find(({ type }) => type === 'text');
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
    putScreen(screen, {
      ...entry,
      route,
      params: { ...entry.params, [parameter]: kebabCase(name).slice(0, 80) },
    }),
  );
  put(putDetail(screen, { collection: id, parameter }));
  const rowOf = new Map(collection.rows.map((row) => [row.element, row]));
  for (const [key, interaction] of Object.entries(app.interactions)) {
    const { target } = interaction;
    if (target.kind !== 'screen' || target.screen !== screen || target.params?.[parameter]) continue;
    const element = elementOfInteraction(key);
    const row = [element, ...containersOf(project.design, element)].map((at) => rowOf.get(at)).find(Boolean);
    const field = row?.shows[title.name];
    if (field)
      put(
        putInteraction(key, {
          ...interaction,
          target: { ...target, params: { ...target.params, [parameter]: { field } } },
        }),
      );
  }
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

/** `/tools/detail` → `/tools/:toolId`, `/tool` → `/tool/:toolId`. */
const detailRoute = (route: string, parameter: string): string =>
  `${route.replace(/\/(detail|details|view|show|item|single|page)$/i, '').replace(/\/$/, '')}/:${parameter}`;

/** A text with its numbers as what they count; null where it has none. */
function sourceOf(text: string, collection: string, hasList: boolean): string | null {
  const number = String.raw`\d[\d.,]*`;
  const call = (name: string): string => `\${${name}(${collection})}`;
  const range = new RegExp(
    `(${number})(\\s*(?:to|-|–|—)\\s*)(${number})(\\s+(?:of|from)\\s+)(${number})`,
  ).exec(text);
  const part = new RegExp(`(${number})(\\s+(?:of|from)\\s+)(${number})`).exec(text);
  const one = new RegExp(number).exec(text);
  const found = hasList ? 'found' : 'count';
  const [match, made] = range
    ? [range, hasList ? call('firstShown') + range[2] + call('lastShown') + range[4] + call(found) : null]
    : part
      ? [part, hasList ? call('lastShown') + part[2] + call(found) : call('count') + part[2] + call('count')]
      : one
        ? [one, call('count')]
        : [null, null];
  if (!match || made === null) return null;
  const plain = (piece: string): string => piece.replace(/[\\`]|\$(?=\{)/g, '\\$&');
  return `\`${plain(text.slice(0, match.index))}${made}${plain(text.slice(match.index + match[0].length))}\``;
}

/** What expressions on a screen can speak of. */
export function expressionNames(project: Project, screen: string): KnownNames {
  const { app } = project;
  const all = Object.values(app.collections);
  const detail = app.details[screen];
  const of = detail && app.collections[detail.collection]?.name;
  return {
    ...(of ? { records: { [recordVariable(of)]: { of, hook: of } } } : {}),
    collections: Object.fromEntries(all.map(({ name, fields }) => [name, fields])),
    conditions: conditionNames(app),
    lists: Object.fromEntries(
      all.flatMap(({ name, rows }) =>
        rows.some(({ element }) => hostOf(project, element) === screen) ? [[name, { name, hook: name }]] : [],
      ),
    ),
  };
}

function conditionNames({ conditions }: App): string[] {
  const names = new Set<string>();
  for (const id of Object.keys(conditions).sort())
    names.add(uniqueCodeName(camelCase(conditions[id].name), 'condition', (one) => names.has(one)));
  return [...names];
}

/** What an expression says with the records as they were drawn, all of them on one page. */
export function saidAtFirst({ design, app }: Project, expression: Expression, screen: string): string {
  const names = conditionNames(app);
  const ids = Object.keys(app.conditions).sort();
  const records = Object.fromEntries(
    Object.values(app.collections).map((collection) => [
      collection.name,
      recordsOf(design, collection).map(({ values }) =>
        Object.fromEntries(Object.entries(values).map(([name, { text }]) => [name, text])),
      ),
    ]),
  );
  const first = app.details[screen];
  const shownOf = first && app.collections[first.collection]?.name;
  const scope: Scope = {
    ...(shownOf
      ? { items: shownRecord(records[shownOf], app.screens[screen], first.parameter, shownOf) }
      : {}),
    records,
    variables: Object.fromEntries(names.map((name, i) => [name, app.conditions[ids[i]].initial])),
    listings: Object.fromEntries(
      Object.entries(records).map(([name, { length }]) => [
        name,
        (asks: string) => (asks === 'first' ? Math.min(1, length) : /^pages?$/.test(asks) ? 1 : length),
      ]),
    ),
  };
  return said(valueOf(expression, scope));
}

/** The record that a screen shows where nobody says another, by the name that it has there. */
function shownRecord(
  records: readonly Readonly<Record<string, string>>[],
  { params = {} }: ScreenEntry,
  parameter: string,
  of: string,
): Readonly<Record<string, Value>> {
  const found = records.find((record) =>
    Object.values(record).some((text) => kebabCase(text) === params[parameter]),
  );
  return found ? { [recordVariable(of)]: found } : {};
}
