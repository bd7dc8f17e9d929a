import { eachPart, type Expression, type Value } from '../expression/expression.ts';
import { ENTERED, type KnownNames, parseExpression, type Type } from '../expression/language.ts';
import { valueOf } from '../expression/value_of.ts';
import type { App, Step, Variable } from '../model/app.ts';
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

/** A variable that is worked out from others. */
export interface Derived {
  readonly id: string;
  /** In code. */
  readonly name: string;
  readonly says: Expression;
}

/** What expressions know of a variable. */
export function typeOfVariable({ type = 'yes-no', choices }: Variable): Type {
  if (type === 'one-of') return { kind: 'text', ...(choices ? { choices } : {}) };
  return { kind: type };
}

/** Ids of what is yes or no, and so can be a condition. */
export const conditionsOf = ({ variables }: Pick<App, 'variables'>): string[] =>
  Object.keys(variables).filter((id) => (variables[id].type ?? 'yes-no') === 'yes-no');

/** What expressions call all variables, with what each is. */
export const knownVariables = (app: Pick<App, 'variables'>): Readonly<Record<string, Type>> =>
  Object.fromEntries([...variableNames(app)].map(([id, name]) => [name, typeOfVariable(app.variables[id])]));

/** What an expression knows that speaks of variables alone. */
export const onlyVariables = (variables: KnownNames['variables']): KnownNames => ({
  collections: {},
  lists: {},
  variables,
});

/** Reads what a step sets a variable to; a text that was entered becomes what the variable is. */
export function settingOf(
  app: Pick<App, 'variables'>,
  { condition: id, value }: Pick<Extract<Step, { readonly kind: 'set' }>, 'condition' | 'value'>,
): Setting {
  const variable = app.variables[id];
  if (!variable) return { problem: 'its variable is gone' };
  if (variable.says !== undefined) return { problem: `${variable.name} is worked out, and cannot be set` };
  if (typeof value === 'boolean')
    return (variable.type ?? 'yes-no') === 'yes-no'
      ? { to: { kind: 'literal', value }, takesEntered: false }
      : { problem: `${variable.name} is not yes or no` };
  const parsed = parseExpression(value, { ...onlyVariables(knownVariables(app)), hasEntered: true });
  if (parsed.problem) return { problem: parsed.problem.message };
  const fitted = fittedTo(parsed.expression, parsed.type, variable);
  if (!fitted) return { problem: `${variable.name} is ${saysOf(variable)}, and that is not` };
  const isChosen = variable.type === 'one-of' && fitted.kind === 'prop';
  return { to: fitted, takesEntered: takesEntered(fitted), ...(isChosen ? { isChosen } : {}) };
}

/** Reads what a step says; `to` is the text. */
export function sayingOf(app: Pick<App, 'variables'>, text: string): Setting {
  const parsed = parseExpression(text, { ...onlyVariables(knownVariables(app)), hasEntered: true });
  return parsed.problem
    ? { problem: parsed.problem.message }
    : { to: parsed.expression, takesEntered: takesEntered(parsed.expression) };
}

function takesEntered(expression: Expression): boolean {
  let found = false;
  eachPart(expression, (part) => (found ||= part.kind === 'prop' && part.name === ENTERED));
  return found;
}

/** An expression as a value of a variable; null where it can be none. */
function fittedTo(expression: Expression, type: Type, variable: Variable): Expression | null {
  const wanted = typeOfVariable(variable);
  switch (wanted.kind) {
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
    : { 'yes-no': 'yes or no', number: 'a number', text: 'a text', date: 'a date' }[type];

/**
 * The variables that are worked out from others, each after those that it looks at; those that cannot be are told by their
 * ids, with the reason.
 */
export function derivedVariables({ variables }: Pick<App, 'variables'>): WorkedOut {
  let worked = known.get(variables);
  if (!worked) known.set(variables, (worked = workedOut({ variables })));
  return worked;
}

interface WorkedOut {
  readonly derived: readonly Derived[];
  readonly problems: ReadonlyMap<string, string>;
}

/** Everybody who asks what variables are asks this. */
const known = new WeakMap<App['variables'], WorkedOut>();

function workedOut(app: Pick<App, 'variables'>): WorkedOut {
  const names = variableNames(app);
  const ids = new Map([...names].map(([id, name]) => [name, id]));
  const spoken = onlyVariables(knownVariables(app));
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
      const fitted = fittedTo(parsed.expression, parsed.type, variable);
      if (!areThere) problems.set(id, problems.get(id) ?? 'it looks at one that cannot be worked out');
      else if (!fitted) problems.set(id, `${variable.name} is ${saysOf(variable)}, and that is not`);
      else derived.push({ id, name: names.get(id)!, says: fitted });
    } else problems.set(id, parsed.problem.message);
    seen.add(id);
    return !problems.has(id);
  };
  for (const id of names.keys()) visit(id, []);
  return { derived, problems };
}

/** What all variables are, by their names in code, where those that are set are these by their ids; else as at first. */
export function valuesOfVariables(
  app: Pick<App, 'variables'>,
  set: ReadonlyMap<string, Value> = new Map(),
): Record<string, Value> {
  const values: Record<string, Value> = Object.fromEntries(
    [...variableNames(app)].map(([id, name]) => [
      name,
      set.has(id) ? set.get(id) : app.variables[id].initial,
    ]),
  );
  for (const { name, says } of derivedVariables(app).derived)
    values[name] = valueOf(says, { variables: values });
  return values;
}
