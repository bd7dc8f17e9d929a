import { asText } from '../expression/as_text.ts';
import { eachPart, type Expression, literal } from '../expression/expression.ts';
import { type KnownNames, parseExpression, type Type } from '../expression/language.ts';
import type { App, Form, RecordDeed, Target } from '../model/app.ts';
import { recordVariable } from '../model/names.ts';
import { containersOf } from '../model/places.ts';
import type { Project } from '../model/project.ts';
import { knownVariables } from '../variables/variables.ts';
import { knownFields } from './known_fields.ts';

type RecordStep = Extract<Target, { readonly kind: 'record' }>;

/** Where a deed is done: what is at hand there. */
export interface DeedPlace {
  readonly screen: string;
  /** The element that does it; none where that does not matter yet. */
  readonly element?: string;
  /** What is done before it. */
  readonly before?: readonly Target[];
}

/** What a form is filled in with, as expressions of a deed speak of it. */
export const FILLED = 'values';
/** The collection, as expressions know it, of what a form is filled in with. */
export const FORM = 'what is filled in';

/** Which records a deed is about. */
export type RecordsMeant =
  /** That of the row that the control stands in. */
  | { readonly kind: 'row' }
  /** That which the screen shows. */
  | { readonly kind: 'shown' }
  /** All for which this holds; each is called so in it. */
  | { readonly kind: 'where'; readonly each: string; readonly holds: Expression };

/** A deed as it is done. */
export type ReadDeed =
  | { readonly kind: 'add'; readonly form?: string; readonly says: Readonly<Record<string, Expression>> }
  | { readonly kind: 'remove'; readonly of: RecordsMeant }
  | { readonly kind: 'set'; readonly field: string; readonly to: Expression; readonly of: RecordsMeant };

/** The collection whose record the row shows that an element stands in, by its id. */
export function rowCollectionOf({ app, design }: Project, element: string): string | null {
  const around = new Set([element, ...containersOf(design, element)]);
  return (
    Object.keys(app.collections).find((id) =>
      app.collections[id].rows.some((row) => around.has(row.element)),
    ) ?? null
  );
}

/**
 * What the expressions of a deed can speak of, but for the record that is asked about.
 * @param own the deed: what its form is filled in with is known to it
 */
export function deedNames(
  project: Project,
  { screen, element, before = [] }: DeedPlace,
  own?: RecordDeed,
): KnownNames {
  const { app } = project;
  const items: Record<string, string> = {};
  const collections: Record<string, KnownNames['collections'][string]> = Object.fromEntries(
    Object.values(app.collections).map((one) => [one.name, knownFields(project, one)]),
  );
  const name = (id: string | null | undefined): string | undefined =>
    id ? app.collections[id]?.name : undefined;
  const row = name(element === undefined ? null : rowCollectionOf(project, element));
  if (row) items[recordVariable(row)] = row;
  for (const step of before)
    if (step.kind === 'record' && step.deed.kind === 'add') {
      const added = name(step.collection);
      if (added) items[recordVariable(added)] = added;
    }
  const form =
    own?.kind === 'add' && own.form !== undefined
      ? own.form
      : before.map(formOf).find((one) => one !== undefined);
  if (form !== undefined) {
    items[FILLED] = FORM;
    collections[FORM] = fieldsOfForm(app, form);
  }
  const shown = name(app.details[screen]?.collection);
  return {
    collections,
    items,
    variables: knownVariables(app),
    lists: {},
    ...(shown ? { records: { [recordVariable(shown)]: { of: shown, hook: shown } } } : {}),
  };
}

const formOf = (step: Target): string | undefined =>
  step.kind === 'record' && step.deed.kind === 'add' ? step.deed.form : undefined;

/** What is filled in is text, whatever the field takes. */
const fieldsOfForm = (app: App, form: string): KnownNames['collections'][string] =>
  (app.forms[form]?.fields ?? []).map(({ field }) => ({ name: field, type: 'text' }));

/**
 * Reads what a step does to records; in words why it cannot be done.
 * @param shown the record of the screen, where the app that is written calls it otherwise or gets it by something
 */
export function readDeed(
  project: Project,
  { collection: id, deed }: Pick<RecordStep, 'collection' | 'deed'>,
  place: DeedPlace,
  shown?: KnownNames['records'],
): { readonly deed: ReadDeed; readonly problem?: undefined } | { readonly problem: string } {
  const { app } = project;
  const collection = app.collections[id];
  if (!collection) return { problem: 'its collection is gone' };
  const names = { ...deedNames(project, place, deed), ...(shown ? { records: shown } : {}) };
  const unknown = (field: string): string | null =>
    collection.fields.some(({ name }) => name === field) ? null : `${collection.name} have no field ${field}`;
  try {
    switch (deed.kind) {
      case 'add': {
        if (deed.form !== undefined && !app.forms[deed.form]) return { problem: 'its form is gone' };
        const says = Object.entries(deed.says ?? {});
        if (deed.form === undefined && !says.length) return { problem: 'nothing is said of what it adds' };
        for (const [field] of says) {
          const problem = unknown(field);
          if (problem) return { problem };
        }
        const asked = new Set(filledIn(app, deed.form));
        const unsaid = collection.fields.filter(
          ({ name, required, byDefault }) =>
            required && byDefault === undefined && !asked.has(name) && !Object.hasOwn(deed.says ?? {}, name),
        );
        if (unsaid.length)
          return {
            problem: `${collection.name} need ${unsaid.map(({ name }) => name).join(', ')}, which nothing says`,
          };
        return {
          deed: {
            kind: 'add',
            ...(deed.form === undefined ? {} : { form: deed.form }),
            says: Object.fromEntries(says.map(([field, source]) => [field, textOf(source, names)])),
          },
        };
      }
      case 'remove':
        return { deed: { kind: 'remove', of: meant(project, id, deed.where, place, names) } };
      case 'set': {
        const problem = unknown(deed.field);
        if (problem) return { problem };
        const of = meant(project, id, deed.where, place, names);
        const inside = of.kind === 'where' ? whereNames(names, collection.name) : names;
        const to = deed.says === undefined ? literal(deed.value ?? '') : textOf(deed.says, inside);
        // What each record says by itself would be looked at once for all of them.
        if (of.kind === 'where' && speaksOf(to, of.each) && !names.items?.[of.each])
          return { problem: `what ${deed.field} becomes is the same for all, and cannot look at each` };
        return { deed: { kind: 'set', field: deed.field, to, of } };
      }
    }
  } catch (error) {
    if (error instanceof RangeError) return { problem: error.message };
    throw error;
  }
}

const isRow = (project: Project, { element }: DeedPlace, id: string): boolean =>
  element !== undefined && rowCollectionOf(project, element) === id;

/** Within what is asked of each record, that record is called as one of its collection is. */
export const whereNames = (names: KnownNames, collection: string): KnownNames => ({
  ...names,
  items: { ...names.items, [recordVariable(collection)]: collection },
});

/** @throws RangeError where there is none. */
function meant(
  project: Project,
  id: string,
  where: string | undefined,
  place: DeedPlace,
  names: KnownNames,
): RecordsMeant {
  const { name } = project.app.collections[id];
  if (where !== undefined) {
    const { expression, type } = parsed(where, whereNames(names, name));
    if (type.kind !== 'yes-no')
      throw new RangeError('which records are meant has to be a question: tool.name === …');
    return { kind: 'where', each: recordVariable(name), holds: expression };
  }
  if (place.element === undefined || isRow(project, place, id)) return { kind: 'row' };
  if (project.app.details[place.screen]?.collection === id) return { kind: 'shown' };
  throw new RangeError(`it stands in no row of ${name}, and its screen shows none of them`);
}

/** @throws RangeError with what is wrong with it. */
function parsed(source: string, names: KnownNames): { readonly expression: Expression; readonly type: Type } {
  const read = parseExpression(source, names);
  if (read.problem) throw new RangeError(read.problem.message);
  return read;
}

/** What a record says is text. */
function textOf(source: string, names: KnownNames): Expression {
  const { expression, type } = parsed(source, names);
  if (type.kind === 'record') throw new RangeError('say which field of it');
  return asText(expression, type);
}

/** What the fields of a form are called in records; none where there is no form. */
export const filledIn = ({ forms }: Pick<App, 'forms'>, form: string | undefined): readonly string[] =>
  form === undefined ? [] : [...new Set(forms[form]?.fields.map(({ field }) => field))];

/** The collections that a record is added to of what a form is filled in with, by their ids. */
export function addedBy({ interactions }: Pick<App, 'interactions'>, form: string): ReadonlySet<string> {
  let byForm = added.get(interactions);
  if (!byForm) {
    added.set(interactions, (byForm = new Map()));
    for (const { before = [], target } of Object.values(interactions))
      for (const step of [...before, target]) {
        const of = step.kind === 'record' ? formOf(step) : undefined;
        if (step.kind !== 'record' || of === undefined) continue;
        byForm.set(of, (byForm.get(of) ?? new Set()).add(step.collection));
      }
  }
  return byForm.get(form) ?? NONE;
}
const added = new WeakMap<App['interactions'], Map<string, Set<string>>>();
const NONE: ReadonlySet<string> = new Set();

/** A form whose fields are required, too, where the records that it adds need them. */
export function withNeeded(app: Pick<App, 'interactions' | 'collections'>, key: string, form: Form): Form {
  const needed = new Set(
    [...addedBy(app, key)].flatMap((id) =>
      (app.collections[id]?.fields ?? []).flatMap(({ name, required }) => (required ? [name] : [])),
    ),
  );
  if (!needed.size) return form;
  return {
    ...form,
    fields: form.fields.map((field) => (needed.has(field.field) ? { ...field, required: true } : field)),
  };
}

/** Whether an expression looks at a record that is called so. */
export function speaksOf(expression: Expression, name: string): boolean {
  let found = false;
  eachPart(expression, (part) => (found ||= part.kind === 'item' && part.name === name));
  return found;
}
