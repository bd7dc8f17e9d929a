import { asText } from '../expression/as_text.ts';
import { collectionsOf, eachPart, type Expression, type Value } from '../expression/expression.ts';
import { ENTERED, idOf, type KnownNames, parseExpression, type Type } from '../expression/language.ts';
import { type Scope, valueOf } from '../expression/value_of.ts';
import type { App, Step, Target, Variable } from '../model/app.ts';
import { variableNames } from '../model/project.ts';

/** What a variable is set to, or why it cannot be. */
export type Setting =
  | {
      readonly to: Expression;
      readonly takesEntered: boolean;
      /** Whether it is what was chosen among what the variable can be. */
      readonly isChosen?: true;
      readonly problem?: undefined;
    }
  | { readonly problem: string };

/** A variable that is worked out from others, or from records. */
export interface Derived {
  readonly id: string;
  /** In code. */
  readonly name: string;
  readonly says: Expression;
  /** The collections whose records it looks at, by their names. */
  readonly looksAt: readonly string[];
}

/** What variables are about: the tables of an app that say it. */
export type Remembering = Pick<App, 'variables' | 'collections' | 'apis'>;

/** What expressions know of a variable. */
export function typeOfVariable({ type = 'yes-no', choices, of }: Variable, app: Remembering): Type {
  if (type === 'one-of') return { kind: 'text', ...(choices ? { choices } : {}) };
  if (type !== 'record') return { kind: type };
  const collection = of === undefined ? undefined : app.collections[of];
  // Of a collection that is gone there is nothing but an id.
  return collection ? { kind: 'record', of: collection.name } : { kind: 'text' };
}

/** Ids of what is yes or no, and so can be a condition. */
export const conditionsOf = ({ variables }: Pick<App, 'variables'>): string[] =>
  Object.keys(variables).filter((id) => (variables[id].type ?? 'yes-no') === 'yes-no');

/** What expressions call all variables, with what each is. */
export function knownVariables(app: Remembering): Readonly<Record<string, Type>> {
  const { collections, apis } = app;
  const last = typesKnown.get(app.variables);
  if (last?.collections === collections && last.apis === apis) return last.types;
  const types = Object.fromEntries(
    [...variableNames(app)].map(([id, name]) => [name, typeOfVariable(app.variables[id], app)]),
  );
  typesKnown.set(app.variables, { collections, apis, types });
  return types;
}
const typesKnown = new WeakMap<
  Remembering['variables'],
  Omit<Remembering, 'variables'> & { readonly types: Readonly<Record<string, Type>> }
>();

/** What an expression knows that stands at no place: variables, and all records. */
export const knownAnywhere = (app: Remembering): KnownNames => ({
  collections: Object.fromEntries(Object.values(app.collections).map(({ name, fields }) => [name, fields])),
  lists: {},
  variables: knownVariables(app),
});

/** What an expression knows that speaks of variables alone. */
export const onlyVariables = (variables: KnownNames['variables']): KnownNames => ({
  collections: {},
  lists: {},
  variables,
});

/**
 * Reads what a step sets a variable to; a text that was entered becomes what the variable is.
 * @param atHand what can be spoken of where it is set
 */
export function settingOf(
  app: Remembering,
  { condition: id, value }: Pick<Extract<Step, { readonly kind: 'set' }>, 'condition' | 'value'>,
  atHand: KnownNames = knownAnywhere(app),
): Setting {
  const variable = app.variables[id];
  if (!variable) return { problem: 'its variable is gone' };
  if (variable.says !== undefined) return { problem: `${variable.name} is worked out, and cannot be set` };
  if (typeof value === 'boolean')
    return (variable.type ?? 'yes-no') === 'yes-no'
      ? { to: { kind: 'literal', value }, takesEntered: false }
      : { problem: `${variable.name} is not yes or no` };
  const parsed = parseExpression(value, { ...atHand, hasEntered: true });
  if (parsed.problem) return { problem: parsed.problem.message };
  const fitted = fittedTo(parsed.expression, parsed.type, typeOfVariable(variable, app));
  if (!fitted) return { problem: `${variable.name} is ${saysOf(variable)}, and that is not` };
  const isChosen = variable.type === 'one-of' && fitted.kind === 'prop';
  return { to: fitted, takesEntered: takesEntered(fitted), ...(isChosen ? { isChosen } : {}) };
}

/**
 * Reads what a step says; `to` is the text.
 * @param atHand what can be spoken of where it is said
 */
export function sayingOf(app: Remembering, text: string, atHand: KnownNames = knownAnywhere(app)): Setting {
  const parsed = parseExpression(text, { ...atHand, hasEntered: true });
  if (parsed.problem) return { problem: parsed.problem.message };
  const { expression, type } = parsed;
  if (/^(records?|list)$/.test(type.kind)) return { problem: `a ${type.kind} is no text that can be said` };
  return { to: asText(expression, type), takesEntered: takesEntered(expression) };
}

/** Reads a step that sets a variable or says something, where that is at hand; null for any other step. */
export function readSetting(app: Remembering, step: Target, atHand: KnownNames): Setting | null {
  if (step.kind === 'set') return settingOf(app, step, atHand);
  return step.kind === 'say' ? sayingOf(app, step.text, atHand) : null;
}

function takesEntered(expression: Expression): boolean {
  let found = false;
  eachPart(expression, (part) => (found ||= part.kind === 'prop' && part.name === ENTERED));
  return found;
}

/** An expression as a value of a variable; null where it can be none. */
function fittedTo(expression: Expression, type: Type, wanted: Type): Expression | null {
  switch (wanted.kind) {
    case 'list':
      return type.kind === 'list' ? expression : null;
    case 'record':
      // It is remembered by its id; nothing is none.
      if (expression.kind === 'literal') return expression.value === '' ? expression : null;
      if (type.kind !== 'record' || type.of !== wanted.of) return null;
      // What is at hand is there; what is looked for may not be.
      return expression.kind === 'item' || expression.kind === 'record'
        ? idOf(expression)
        : { kind: 'text', parts: [idOf(expression)] };
    case 'number':
      return type.kind === 'number'
        ? expression
        : type.kind === 'text' && expression.kind !== 'literal'
          ? { kind: 'call', name: 'number', args: [expression] }
          : null;
    case 'yes-no':
      return type.kind === 'yes-no' ? expression : null;
    case 'date':
      return type.kind === 'date' || (type.kind === 'text' && isDay(expression)) ? expression : null;
    case 'text': {
      if (type.kind !== 'text' && type.kind !== 'date') return null;
      const { choices } = wanted;
      if (!choices || expression.kind === 'prop') return expression;
      return type.kind === 'text' && type.choices?.every((one) => choices.includes(one)) ? expression : null;
    }
    default:
      return null;
  }
}

const isDay = (expression: Expression): boolean =>
  expression.kind !== 'literal' || /^(\d{4}-\d{2}-\d{2})?$/.test(String(expression.value));

const saysOf = ({ type = 'yes-no', choices = [] }: Variable): string =>
  type === 'one-of'
    ? choices.join(' or ')
    : {
        'yes-no': 'yes or no',
        number: 'a number',
        text: 'a text',
        date: 'a date',
        list: 'a list of texts',
        record: 'one record of its collection',
      }[type];

/**
 * The variables that are worked out from others, each after those that it looks at; those that cannot be are told by their
 * ids, with the reason.
 */
export function derivedVariables(app: Remembering): WorkedOut {
  const { variables, collections, apis } = app;
  const before = known.get(variables);
  if (before?.collections === collections && before.apis === apis) return before.worked;
  const worked = workedOut(app);
  known.set(variables, { collections, apis, worked });
  return worked;
}

interface WorkedOut {
  readonly derived: readonly Derived[];
  readonly problems: ReadonlyMap<string, string>;
}

/** Everybody who asks what variables are asks this. */
const known = new WeakMap<
  App['variables'],
  Pick<App, 'collections' | 'apis'> & { readonly worked: WorkedOut }
>();

function workedOut(app: Remembering): WorkedOut {
  const names = variableNames(app);
  const ids = new Map([...names].map(([id, name]) => [name, id]));
  const spoken = knownAnywhere(app);
  const derived: Derived[] = [];
  const problems = new Map<string, string>();
  const seen = new Set<string>();
  const visit = (id: string, way: readonly string[]): boolean => {
    const variable = app.variables[id];
    if (variable.says === undefined) return true;
    if (way.includes(id)) {
      problems.set(id, `${variable.name} is worked out from itself`);
      return false;
    }
    if (seen.has(id)) return !problems.has(id);
    const parsed = parseExpression(variable.says, spoken);
    if (!parsed.problem) {
      const looksAt = new Set<string>();
      eachPart(parsed.expression, (part) => part.kind === 'variable' && looksAt.add(ids.get(part.name)!));
      const areThere = [...looksAt].map((one) => visit(one, [...way, id])).every(Boolean);
      const fitted = fittedTo(parsed.expression, parsed.type, typeOfVariable(variable, app));
      if (!areThere) problems.set(id, problems.get(id) ?? 'it looks at one that cannot be worked out');
      else if (!fitted) problems.set(id, `${variable.name} is ${saysOf(variable)}, and that is not`);
      else derived.push({ id, name: names.get(id)!, says: fitted, looksAt: [...collectionsOf(fitted)] });
    } else problems.set(id, parsed.problem.message);
    seen.add(id);
    return !problems.has(id);
  };
  for (const id of names.keys()) visit(id, []);
  return { derived, problems };
}

/**
 * What all variables are, by their names in code, where those that are set are these by their ids; else as at first.
 * @param records those of each collection, by its name
 */
export function valuesOfVariables(
  app: Remembering,
  set: ReadonlyMap<string, Value> = new Map(),
  records: Scope['records'] = {},
): Record<string, Value> {
  const values: Record<string, Value> = Object.fromEntries(
    [...variableNames(app)].map(([id, name]) => [
      name,
      set.has(id) ? set.get(id) : app.variables[id].initial,
    ]),
  );
  for (const { name, says } of derivedVariables(app).derived)
    values[name] = valueOf(says, { variables: values, records });
  return values;
}
