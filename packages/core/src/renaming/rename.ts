import {
  all,
  type Change,
  putBinding,
  putCollection,
  putForm,
  putInteraction,
  putVariable,
} from '../change/change.ts';
import { withField } from '../data/records.ts';
import { type KnownNames, parseExpression, type SpokenName } from '../expression/language.ts';
import { boundParts } from '../expression/read_binding.ts';
import type { Binding, Form, Interaction, RecordField, Step, Target } from '../model/app.ts';
import { elementOfInteraction, sourcesOfStep, withSources } from '../model/interaction.ts';
import { recordVariable } from '../model/names.ts';
import { findElement, screenOf } from '../model/places.ts';
import { type Project, variableNames } from '../model/project.ts';
import { addedBy, type DeedPlace, deedNames, FORM, whereNames } from '../records/deeds.ts';
import { expressionNames } from '../records/expression_names.ts';
import { knownAnywhere } from '../variables/variables.ts';

/** What a name that is spoken of becomes; null where it stays. */
type Renamed = (spoken: SpokenName) => string | null;

/**
 * Gives a variable another name, and lets all that speaks of it say that one.
 * @param name as people read it; what it is in code follows
 */
export function renameVariable(project: Project, id: string, name: string): Change {
  const { variables } = project.app;
  const renamed = { ...variables[id], name };
  const [before, after] = [variables, { ...variables, [id]: renamed }].map((all) =>
    variableNames({ variables: all }),
  );
  // That one is called otherwise may free the name of another in code, or take it.
  const codes = new Map([...before].map(([one, code]) => [code, after.get(one)!]));
  const { changes, says } = spokenAnew(project, ({ what, name: code }) =>
    what === 'variable' ? codes.get(code)! : null,
  );
  return all([
    ...changes,
    ...[...new Map([[id, variables[id].says], ...says])].map(([one, source]) => {
      const variable = one === id ? renamed : variables[one];
      return putVariable(one, source === undefined ? variable : { ...variable, says: source });
    }),
  ]);
}

/** Gives a collection another name in code, and lets all that speaks of it and of its records say that one. */
export function renameCollection(project: Project, id: string, name: string): Change {
  const collection = project.app.collections[id];
  const { changes, says } = spokenAnew(project, ({ what, name: spoken, of }) =>
    what === 'collection' && spoken === collection.name
      ? name
      : what === 'record' && of === collection.name
        ? recordVariable(name)
        : null,
  );
  return all([...changes, ...saying(project, says), putCollection(id, { ...collection, name })]);
}

/** Writes a field of a collection anew; where it is called otherwise all that speaks of it says so, too. */
export function renameField(project: Project, id: string, before: string, field: RecordField): Change {
  const { app } = project;
  const collection = app.collections[id];
  const put = putCollection(id, withField(collection, before, field));
  if (field.name === before) return put;
  const forms = new Set(Object.keys(app.forms).filter((form) => addsAlone(project, form, id)));
  const { changes, says } = spokenAnew(
    project,
    ({ what, name, of }, form) =>
      what === 'field' &&
      name === before &&
      (of === collection.name || (of === FORM && form !== undefined && forms.has(form)))
        ? field.name
        : null,
    (step) => withFieldCalled(step, id, before, field.name),
  );
  return all([
    ...changes,
    ...saying(project, says),
    ...[...forms].flatMap((key) => {
      const form = formCalled(app.forms[key], before, field.name);
      return form === app.forms[key] ? [] : [putForm(key, form)];
    }),
    put,
  ]);
}

const addsAlone = ({ app }: Project, form: string, id: string): boolean => {
  const added = addedBy(app, form);
  return added.size === 1 && added.has(id);
};

function formCalled(form: Form, before: string, name: string): Form {
  if (!form.fields.some(({ field }) => field === before)) return form;
  return {
    ...form,
    fields: form.fields.map((one) => ({
      ...one,
      field: one.field === before ? name : one.field,
      ...(one.same === before ? { same: name } : {}),
    })),
  };
}

/** A step with another name for a field of the collection that it is about. */
function withFieldCalled(step: Target, id: string, before: string, name: string): Target {
  if ((step.kind !== 'list' && step.kind !== 'record') || step.collection !== id) return step;
  if (step.kind === 'list')
    return 'field' in step.deed && step.deed.field === before
      ? { ...step, deed: { ...step.deed, field: name } }
      : step;
  const { deed } = step;
  if (deed.kind === 'set') return deed.field === before ? { ...step, deed: { ...deed, field: name } } : step;
  if (deed.kind !== 'add' || !deed.says || !Object.hasOwn(deed.says, before)) return step;
  const says = Object.entries(deed.says).map(([field, one]) => [field === before ? name : field, one]);
  return { ...step, deed: { ...deed, says: Object.fromEntries(says) as typeof deed.says } };
}

const saying = ({ app }: Project, says: ReadonlyMap<string, string>): Change[] =>
  [...says].map(([id, source]) => putVariable(id, { ...app.variables[id], says: source }));

/**
 * All expressions of an app with other names in them.
 * @param renamed what a name becomes; with the form that is sent where it stands
 * @param otherwise what becomes of a step besides
 * @returns the changes of bindings and interactions, and what derived variables are worked out from, where that differs
 */
function spokenAnew(
  project: Project,
  renamed: (spoken: SpokenName, form?: string) => string | null,
  otherwise: (step: Target) => Target = (step) => step,
): { readonly changes: readonly Change[]; readonly says: ReadonlyMap<string, string> } {
  const { design, app } = project;
  const changes: Change[] = [];
  for (const [element, binding] of Object.entries(app.bindings)) {
    if (!findElement(design, element)) continue;
    const known = expressionNames(project, screenOf(design, element));
    const parts = boundParts(binding).map(([part, source]) => [part, respelled(source, known, renamed)]);
    const made: Binding = { ...binding, ...(Object.fromEntries(parts) as Partial<Binding>) };
    if (isOther(made, binding)) changes.push(putBinding(element, made));
  }
  for (const [key, interaction] of Object.entries(app.interactions)) {
    const element = elementOfInteraction(key);
    if (!findElement(design, element)) continue;
    const steps = [...(interaction.before ?? []), interaction.target] as Target[];
    const written = steps.map((step, i) =>
      otherwise(
        stepAnew(
          project,
          step,
          { screen: screenOf(design, element), element, before: steps.slice(0, i) },
          renamed,
        ),
      ),
    );
    const made: Interaction = {
      ...interaction,
      ...(interaction.before ? { before: written.slice(0, -1) as Step[] } : {}),
      target: written.at(-1)!,
    };
    if (isOther(made, interaction)) changes.push(putInteraction(key, made));
  }
  const says = new Map<string, string>();
  for (const [id, variable] of Object.entries(app.variables)) {
    if (variable.says === undefined) continue;
    const source = respelled(variable.says, knownAnywhere(app), renamed);
    if (source !== variable.says) says.set(id, source);
  }
  return { changes, says };
}

function stepAnew(
  project: Project,
  step: Target,
  place: DeedPlace,
  renamed: (spoken: SpokenName, form?: string) => string | null,
): Target {
  // Most steps speak of nothing: what is at hand is looked for only where one does.
  if (!sourcesOfStep(step).length) return step;
  const names: KnownNames = {
    ...deedNames(project, place, step.kind === 'record' ? step.deed : undefined),
    hasEntered: true,
  };
  const form = [step, ...(place.before ?? [])]
    .map((one) => (one.kind === 'record' && one.deed.kind === 'add' ? one.deed.form : undefined))
    .find((one) => one !== undefined);
  const collection = step.kind === 'record' ? project.app.collections[step.collection]?.name : undefined;
  return withSources(step, (source, isWhere) =>
    respelled(source, isWhere && collection ? whereNames(names, collection) : names, (spoken) =>
      renamed(spoken, form),
    ),
  );
}

/** An expression with other names in it; as it is where it cannot be read. */
export function respelled(source: string, known: KnownNames, renamed: Renamed): string {
  const spoken: SpokenName[] = [];
  const read = parseExpression(source, { ...known, onName: (one) => void spoken.push(one) });
  if (read.problem) return source;
  return spoken
    .filter((one, i) => spoken.findIndex(({ start }) => start === one.start) === i)
    .sort((a, b) => b.start - a.start)
    .reduce((text, one) => {
      const name = renamed(one);
      return name === null ? text : text.slice(0, one.start) + name + text.slice(one.end);
    }, source);
}

const isOther = (a: object, b: object): boolean => JSON.stringify(a) !== JSON.stringify(b);
