import { valueOf, shown as said, type Scope } from '../expression/value_of.ts';
import type { Expression, Value } from '../expression/expression.ts';
import type { KnownNames } from '../expression/language.ts';
import type { App, ScreenEntry } from '../model/app.ts';
import { kebabCase, recordVariable } from '../model/names.ts';
import { hostOf, type Project } from '../model/project.ts';
import { knownVariables, valuesOfVariables } from '../variables/variables.ts';
import { knownFields } from './known_fields.ts';
import { recordsById } from './records.ts';

/** What expressions on a screen can speak of. */
export function expressionNames(project: Project, screen: string): KnownNames {
  const { app } = project;
  const all = Object.values(app.collections);
  const detail = app.details[screen];
  const of = detail && app.collections[detail.collection]?.name;
  return {
    ...(of ? { records: { [recordVariable(of)]: { of, hook: of } } } : {}),
    collections: Object.fromEntries(all.map((one) => [one.name, knownFields(project, one)])),
    variables: knownVariables(app),
    lists: Object.fromEntries(
      all.flatMap(({ name, rows }) =>
        rows.some(({ element }) => hostOf(project, element) === screen) ? [[name, { name, hook: name }]] : [],
      ),
    ),
  };
}

type DrawnRecords = Readonly<Record<string, readonly Readonly<Record<string, string>>[]>>;
const drawn = new WeakMap<
  Project['design'],
  Pick<App, 'collections' | 'code'> & { readonly records: DrawnRecords }
>();

/** The records of each collection as they were drawn, by its name: what each says, with its id. Kept until one of them changes. */
export function drawnRecords({ design, app }: Pick<Project, 'design' | 'app'>): DrawnRecords {
  const { collections, code } = app;
  const before = drawn.get(design);
  if (before?.collections === collections && before.code === code) return before.records;
  const records = Object.fromEntries(
    Object.values(collections).map((collection) => [
      collection.name,
      [...recordsById(design, collection, code)].map(([id, { values }]) => ({
        ...Object.fromEntries(Object.entries(values).map(([name, { text }]) => [name, text])),
        id,
      })),
    ]),
  );
  drawn.set(design, { collections, code, records });
  return records;
}

/** What an expression says with the records as they were drawn, all of them on one page; of a list all its texts. */
export function saidAtFirst(project: Project, expression: Expression, screen: string): string {
  const value = valueOf(expression, scopeAtFirst(project, screen));
  return Array.isArray(value) ? value.map((one) => said(one as Value)).join(', ') : said(value);
}

/** What a list of texts holds with the records as they were drawn. */
export function listedAtFirst(project: Project, list: Expression, screen: string): readonly string[] {
  const value = valueOf(list, scopeAtFirst(project, screen));
  return Array.isArray(value) ? value.map((one) => said(one as Value)) : [];
}

/** What expressions on a screen are worked out from before anything is done. */
function scopeAtFirst({ design, app }: Project, screen: string): Scope {
  const records = drawnRecords({ design, app });
  const first = app.details[screen];
  const shownOf = first && app.collections[first.collection]?.name;
  return {
    ...(shownOf
      ? { items: shownRecord(records[shownOf], app.screens[screen], first.parameter, shownOf) }
      : {}),
    records,
    variables: valuesOfVariables(app, new Map(), records),
    listings: Object.fromEntries(
      Object.entries(records).map(([name, { length }]) => [
        name,
        (asks: string) => (asks === 'first' ? Math.min(1, length) : /^pages?$/.test(asks) ? 1 : length),
      ]),
    ),
  };
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
