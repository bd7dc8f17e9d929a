import { comesFromApi } from '../../../described/keep.ts';
import type { Wired } from '../../../links/wiring.ts';
import type { Collection, FieldType, ListDeed } from '../../../model/app.ts';
import { FileNames, pascalCase, recordName, recordVariable, uniqueCodeName } from '../../../model/names.ts';
import type { Expression } from '../../../expression/expression.ts';
import { isQuestion, type KnownNames } from '../../../expression/language.ts';
import { boundParts } from '../../../expression/read_binding.ts';
import { shownRows } from '../../../records/shown_rows.ts';
import { sourcesOfStep } from '../../../model/interaction.ts';
import { hostOf, type Project, screenName, variableNames } from '../../../model/project.ts';
import { knownFields } from '../../../records/known_fields.ts';
import { type DataRecord, recordsById, titleField } from '../../../records/records.ts';

/** Which records a list shows: those that say something in a field, or these alone, by their ids. */
export type Where = { readonly field: string; readonly value: string } | { readonly ids: readonly string[] };

/** How a list can be looked at: only what something on its screen does to it. */
export interface ViewOptions {
  readonly where?: Where;
  /** What of its records it shows, as an expression of those; it may look at variables and at other records. */
  readonly of?: Expression;
  readonly searched: readonly string[];
  readonly sortedAs: Readonly<Record<string, 'number' | 'date'>>;
  readonly filtered: readonly string[];
  readonly within: readonly string[];
  readonly perPage?: number;
}

/** A drawn list whose records change while the app runs. */
export interface LiveView {
  readonly screen: string;
  /** Key of the element that holds the rows. */
  readonly within: string;
  /** Keys of its rows, each with the id of the record that it shows. */
  readonly rows: ReadonlyMap<string, string>;
  /** The function that gives it to a component. */
  readonly hook: string;
  readonly options: ViewOptions;
}

/** Records of one kind that something is done to. */
export interface LiveCollection {
  readonly id: string;
  /** Name of the constant, and of the file that it stands in. */
  readonly name: string;
  /** Name of the type of one record. */
  readonly record: string;
  readonly collection: Collection;
  /** Name of the field that calls the records. */
  readonly title: string | undefined;
  /** By their ids. */
  readonly records: ReadonlyMap<string, DataRecord>;
  readonly views: readonly LiveView[];
  /** Path parameters by which screens say which record they show, each with the function that gives that. */
  readonly details: ReadonlyMap<string, string>;
  /** Whether an API keeps them. */
  readonly isRemote: boolean;
  /** Whether expressions look at all of its records. */
  readonly isCounted: boolean;
  /** Before each of its words in an address, where several such lists stand on a page. */
  readonly prefix: string;
}

/** What a control speaks of when it does something to a list. */
export interface ListingName {
  /** The constant that holds the list in a component, which is also the file of its records. */
  readonly name: string;
  readonly hook: string;
}

/** The collections that something is done to, with how the lists of each can be looked at. */
export function liveCollections(
  project: Project,
  wired: ReadonlyMap<string, readonly Wired[]>,
): ReadonlyMap<string, LiveCollection> {
  const { app, design } = project;
  const deeds = new Map<string, { readonly screen: string; readonly deed: ListDeed }[]>();
  for (const list of wired.values())
    for (const { interaction, element } of list) {
      for (const target of [...(interaction.before ?? []), interaction.target]) {
        if (target.kind !== 'list' && target.kind !== 'record') continue;
        const known = deeds.get(target.collection) ?? [];
        if (target.kind === 'list') known.push({ screen: hostOf(project, element), deed: target.deed });
        deeds.set(target.collection, known);
      }
    }
  const spoken = spokenOf(project);
  for (const id of spoken.keys()) if (!deeds.has(id)) deeds.set(id, []);
  const remote = new Set(Object.keys(app.collections).filter((id) => comesFromApi(app, id)));
  for (const id of [...Object.values(app.details).map(({ collection }) => collection), ...remote])
    if (!deeds.has(id)) deeds.set(id, []);
  const live = new Map<string, LiveCollection>();
  const names = new FileNames();
  const onScreens = new Set<string>();
  for (const id of [...deeds.keys()].sort()) {
    const collection = app.collections[id];
    if (!collection) continue;
    const name = uniqueCodeName(collection.name, 'records', (one) => names.has(one));
    names.add(name);
    const records = recordsById(design, collection, app.code);
    const views = viewsOf(project, collection, name, records, deeds.get(id)!);
    const shares = views.some(({ screen }) => onScreens.has(screen));
    views.forEach(({ screen }) => onScreens.add(screen));
    live.set(id, {
      id,
      name,
      record: uniqueCodeName(pascalCase(recordName(name)), 'Entry', (one) => RESERVED.has(one)),
      collection,
      title: titleField(design, collection)?.name,
      records,
      views,
      details: detailsOf(project, id, name),
      isRemote: remote.has(id),
      isCounted: spoken.get(id) ?? false,
      prefix: shares ? `${name}.` : '',
    });
  }
  return live;
}

/** What gives the record that a screen shows: `useTool`; by another parameter `useToolByCode`. */
function detailsOf({ app }: Project, id: string, name: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const key of Object.keys(app.details).sort()) {
    const { collection, parameter } = app.details[key];
    if (collection !== id || found.has(parameter)) continue;
    const hook = `use${pascalCase(recordVariable(name))}`;
    found.set(parameter, found.size ? `${hook}By${pascalCase(parameter)}` : hook);
  }
  return found;
}

/** Ids of the collections that bindings speak of, with whether they look at all records. */
function spokenOf({ app }: Project): Map<string, boolean> {
  if (!Object.keys(app.collections).length) return new Map();
  const names = variableNames(app);
  const found = new Map<string, boolean>();
  const sources = Object.values(app.bindings).flatMap((one) => boundParts(one).map(([, source]) => source));
  const remembered = Object.values(app.variables);
  // What is done looks at records when it is done, and not at each change of them.
  const done = Object.values(app.interactions).flatMap(({ before = [], target }) =>
    [...before, target].flatMap(sourcesOfStep),
  );
  done.push(...remembered.flatMap(({ says = [] }) => says));
  // One that is remembered is looked up among all of them.
  for (const [id, { type, of }] of Object.entries(app.variables)) {
    const name = type === 'record' && of !== undefined && app.collections[of] ? names.get(id) : undefined;
    if (name === undefined) continue;
    const isSpoken = new RegExp(`(?<![\\w.])${name}(?!\\w)`);
    found.set(of!, (found.get(of!) ?? false) || sources.some((source) => isSpoken.test(source)));
  }
  for (const [id, { name }] of Object.entries(app.collections)) {
    const calls = new RegExp(`(?:([A-Za-z]+)\\(\\s*)?(?<![\\w.])${name}(?![\\w])`, 'g');
    for (const source of sources)
      for (const [, called = ''] of source.matchAll(calls))
        found.set(id, (found.get(id) ?? false) || !isQuestion(called));
    const one = new RegExp(`(?<![\\w.])(?:${name}|${recordVariable(name)})(?!\\w)`);
    if (!found.has(id) && done.some((source) => one.test(source))) found.set(id, false);
  }
  // Where a field of what a field refers to is asked for, all records of that are looked at.
  for (const { fields } of Object.values(app.collections))
    for (const { name, of } of fields) {
      if (of === undefined) continue;
      const isFollowed = (source: string): boolean => new RegExp(`\\.${name}\\s*\\.`).test(source);
      if (sources.some(isFollowed)) found.set(of, true);
      else if (!found.has(of) && done.some(isFollowed)) found.set(of, false);
    }
  return found;
}

/** Names of types that the files of records take from the runtime or the language. */
const RESERVED: ReadonlySet<string> = new Set(['Record', 'Records', 'Kept', 'Listing', 'Date', 'Map', 'Set']);

function viewsOf(
  project: Project,
  collection: Collection,
  name: string,
  records: ReadonlyMap<string, DataRecord>,
  deeds: readonly { readonly screen: string; readonly deed: ListDeed }[],
): LiveView[] {
  const idOf = new Map(
    [...records].flatMap(([id, { rows }]) => rows.map(({ element }) => [element, id] as const)),
  );
  const withins = [...new Set(collection.rows.map(({ within }) => within))];
  const hooks = new Map<string, string>();
  const firstOn = new Map<string, string>();
  return withins.flatMap((within): LiveView[] => {
    const drawn = collection.rows.filter((row) => row.within === within && idOf.has(row.element));
    if (!drawn.length) return [];
    const screen = hostOf(project, within);
    const rows = new Map(drawn.map(({ element }) => [element, idOf.get(element)!] as const));
    const fields = new Set(drawn.flatMap(({ shows }) => Object.keys(shows)));
    const options = optionsOf(
      collection,
      fields,
      deeds.filter((one) => one.screen === screen).map(({ deed }) => deed),
      rows.size,
      whereOf(collection, records, new Set(rows.values())),
      shownRows(project, collection, within),
    );
    const says = JSON.stringify(options);
    let hook = hooks.get(says);
    if (!hook) {
      const wanted = `use${pascalCase(name)}`;
      const taken = new FileNames(hooks.values());
      hook = uniqueCodeName(
        taken.has(wanted) ? `${wanted}On${pascalCase(screenName(project, screen))}` : wanted,
        wanted,
        (one) => taken.has(one),
      );
      hooks.set(says, hook);
    }
    // A screen calls the list after its records: another that shows others of them stays as it was drawn.
    if ((firstOn.get(screen) ?? hook) !== hook) return [];
    firstOn.set(screen, hook);
    return [{ screen, within, rows, hook, options }];
  });
}

const SORTED_AS: Readonly<Partial<Record<FieldType, 'number' | 'date'>>> = {
  number: 'number',
  money: 'number',
  percent: 'number',
  date: 'date',
};
/** Fields that say nothing that one would look for. */
const UNSAID: ReadonlySet<FieldType> = new Set(['picture', 'yes-no']);

function optionsOf(
  { fields }: Collection,
  shown: ReadonlySet<string>,
  deeds: readonly ListDeed[],
  rows: number,
  where: Where | null,
  of: Expression | null,
): ViewOptions {
  const own = fields.filter(({ name }) => shown.has(name));
  const names = new Set(fields.map(({ name }) => name));
  const by = <K extends ListDeed['kind']>(kind: K): Extract<ListDeed, { readonly kind: K }>[] =>
    deeds.filter((deed): deed is Extract<ListDeed, { readonly kind: K }> => deed.kind === kind);
  const sorted = new Set(by('sort').map(({ field }) => field));
  const filters = by('filter').filter(({ field }) => names.has(field));
  const filtered = new Set([...filters, ...by('choose')].map(({ field }) => field));
  const within = filters.filter(({ part }) => part).map(({ field }) => field);
  return {
    ...(of ? { of } : where ? { where } : {}),
    searched: by('search').length ? own.filter(({ type }) => !UNSAID.has(type)).map(({ name }) => name) : [],
    sortedAs: Object.fromEntries(
      fields.flatMap(({ name, type }) => {
        const as = SORTED_AS[type];
        return as && sorted.has(name) ? [[name, as]] : [];
      }),
    ),
    filtered: fields.flatMap(({ name }) => (filtered.has(name) ? [name] : [])),
    within: [...new Set(within)],
    ...(by('page').length || by('more').length ? { perPage: rows } : {}),
  };
}

/** What tells the records of a list from the others: a value that they and they alone have, else which they are. */
function whereOf(
  { fields }: Collection,
  records: ReadonlyMap<string, DataRecord>,
  shown: ReadonlySet<string>,
): Where | null {
  // What no screen shows as it is drawn says nothing of what a list leaves out.
  const drawn = [...records].flatMap(([id, { rows }]) => (rows.length ? [id] : []));
  if (shown.size === drawn.length) return null;
  const saysIn = (id: string, field: string): string | undefined => records.get(id)!.values[field]?.text;
  for (const { name, type } of fields) {
    if (type !== 'one-of') continue;
    const [value, ...more] = new Set([...shown].map((id) => saysIn(id, name)));
    if (value === undefined || more.length) continue;
    if (drawn.every((id) => shown.has(id) === (saysIn(id, name) === value))) return { field: name, value };
  }
  return { ids: [...shown] };
}

/** What the expressions of a screen can speak of. */
export function namesOn(
  project: Project,
  live: ReadonlyMap<string, LiveCollection>,
  variables: KnownNames['variables'],
  screen: string,
): KnownNames {
  const all = [...live.values()];
  const detail = project.app.details[screen];
  return {
    collections: Object.fromEntries(
      all.map(({ name, collection }) => [name, knownFields(project, collection, (id) => live.get(id)?.name)]),
    ),
    variables,
    records: Object.fromEntries(
      all.flatMap(({ id, name, details }) => {
        const hook = detail?.collection === id ? details.get(detail.parameter) : undefined;
        return hook ? [[recordVariable(name), { of: name, hook }]] : [];
      }),
    ),
    lists: Object.fromEntries(
      all.flatMap(({ name, views }) => {
        const view = views.find((one) => one.screen === screen);
        return view ? [[name, { name, hook: view.hook }]] : [];
      }),
    ),
  };
}

/** What is called on a screen when something is done to a list: the list that stands there, else the first. */
export function listingOn(
  live: ReadonlyMap<string, LiveCollection>,
  collection: string,
  screen: string,
): ListingName | null {
  const of = live.get(collection);
  const view = of?.views.find((one) => one.screen === screen) ?? of?.views[0];
  return of && view ? { name: of.name, hook: view.hook } : null;
}
