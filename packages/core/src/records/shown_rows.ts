import type { Expression } from '../expression/expression.ts';
import type { KnownNames } from '../expression/language.ts';
import type { Collection } from '../model/app.ts';
import { containersOf } from '../model/places.ts';
import type { Project } from '../model/project.ts';
import { knownVariables } from '../variables/variables.ts';
import { knownFields } from './known_fields.ts';
import { readBinding } from '../expression/read_binding.ts';

/** What what a list shows can speak of: records and variables, wherever it stands. */
export const rowsNames = (project: Pick<Project, 'design' | 'app'>): KnownNames => ({
  collections: Object.fromEntries(
    Object.values(project.app.collections).map((one) => [one.name, knownFields(project, one)]),
  ),
  lists: {},
  variables: knownVariables(project.app),
});

/**
 * Which records a drawn list shows, where somebody says that by an expression that can be followed.
 * @param within key of the element that holds the rows
 */
export function shownRows(
  project: Pick<Project, 'design' | 'app'>,
  collection: Collection,
  within: string,
): Expression | null {
  const read = readRows(project, collection, within);
  return read && read.problem === undefined ? read.of : null;
}

/** Why which records a list shows cannot be followed; nothing where it can, or nobody says it. */
export function shownRowsProblem(
  project: Pick<Project, 'design' | 'app'>,
  within: string,
): { readonly message: string } | undefined {
  if (project.app.bindings[within]?.rows === undefined) return undefined;
  const collection = collectionWithin(project, within);
  if (!collection) return { message: 'no list of records is drawn here' };
  const read = readRows(project, collection, within);
  return read?.problem === undefined ? undefined : { message: read.problem };
}

/** The collection whose records are drawn within an element. */
export const collectionWithin = ({ app }: Pick<Project, 'app'>, within: string): Collection | undefined =>
  Object.values(app.collections).find(({ rows }) => rows.some((row) => row.within === within));

/**
 * The key of the element that holds the rows of the list that an element stands for: that one itself, what it stands in outside of
 * its rows, or the only one that stands in it; null where there is none.
 */
export function listAt({ app, design }: Pick<Project, 'design' | 'app'>, key: string): string | null {
  const rows = Object.values(app.collections).flatMap((collection) => collection.rows);
  const around = new Set([key, ...containersOf(design, key)]);
  if (rows.some(({ element }) => around.has(element))) return null;
  const withins = new Set(rows.map(({ within }) => within));
  const own = [...around].find((one) => withins.has(one));
  if (own !== undefined) return own;
  const inside = [...withins].filter((within) => [...containersOf(design, within)].includes(key));
  return inside.length === 1 ? inside[0] : null;
}

function readRows(
  project: Pick<Project, 'design' | 'app'>,
  collection: Collection,
  within: string,
): { readonly of: Expression; readonly problem?: undefined } | { readonly problem: string } | null {
  const { app } = project;
  const source = app.bindings[within]?.rows;
  if (source === undefined) return null;
  const parsed = readBinding('rows', source, rowsNames(project));
  if (parsed.problem) return { problem: parsed.problem.message };
  const { expression, type } = parsed;
  const { name } = collection;
  if (type.kind !== 'records' || type.of !== name)
    return { problem: `it has to be records of ${name}: filter(${name}, …)` };
  return { of: expression };
}
