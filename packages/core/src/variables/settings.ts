import type { App, Step, Variable } from '../model/app.ts';
import { variableNames } from '../model/project.ts';
import { sayingOf, settingOf } from './variables.ts';

type SetStep = Extract<Step, { readonly kind: 'set' }>;

/** A text as an expression says it. */
export const quoted = (text: string): string => `'${text.replace(/[\\']/g, '\\$&')}'`;

/** What a variable can be set to by choosing, each with how that is said. */
export function settingsOffered(
  app: Pick<App, 'variables'>,
): { readonly set: SetStep; readonly says: string }[] {
  const names = variableNames(app);
  return Object.entries(app.variables).flatMap(([condition, variable]) =>
    variable.says === undefined
      ? valuesOffered(variable, names.get(condition)!).map((value) => {
          const set: SetStep = { kind: 'set', condition, value };
          return { set, says: describeSetting(app, set) };
        })
      : [],
  );
}

function valuesOffered(
  { type = 'yes-no', choices = [], initial }: Variable,
  name: string,
): SetStep['value'][] {
  switch (type) {
    case 'yes-no':
      return [true, false, `!${name}`];
    case 'number':
      return [`${name} + 1`, `${name} - 1`, String(initial), 'entered'];
    case 'one-of':
      return [...choices.map(quoted), 'entered'];
    case 'date':
      return ['today()', 'entered'];
    case 'text':
      return ['entered', quoted(String(initial))];
  }
}

/** What a variable becomes, in people's words. */
export function describeSetting(app: Pick<App, 'variables'>, { condition, value }: SetStep): string {
  const variable = app.variables[condition];
  if (!variable) return 'A variable that is gone';
  const code = variableNames(app).get(condition)!;
  return `${variable.name}: ${saidValue(value, code)}`;
}

/** What a step says, in people's words: a plain text as it is read, else as the expression that it is. */
export const saidText = (source: string): string => plainText(source) ?? source;

/** What people type to have it said, as an expression: one where it can be read as such, else the text itself. */
export const sayingFor = (app: Pick<App, 'variables'>, typed: string): string =>
  sayingOf(app, typed).problem === undefined ? typed : quoted(typed);

/** A text that an expression is, in quotation marks of people. */
function plainText(source: string): string | null {
  const text = /^'((?:[^'\\]|\\.)*)'$/.exec(source)?.[1];
  return text === undefined ? null : text === '' ? 'nothing' : `“${text.replace(/\\(.)/g, '$1')}”`;
}

function saidValue(value: SetStep['value'], code: string): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  switch (value) {
    case `!${code}`:
      return 'the other way round';
    case `${code} + 1`:
      return 'one more';
    case `${code} - 1`:
      return 'one less';
    case 'entered':
      return 'what is entered';
    case 'today()':
      return 'today';
  }
  return plainText(value) ?? value;
}

/** What people type to set a variable: `Count = count + 2`, `View: list`; null where no variable is meant or it cannot be that. */
export function typedSetting(app: Pick<App, 'variables'>, typed: string): SetStep | null {
  const [, name, said] = /^\s*(.+?)\s*(?:=(?!=)|:)\s*(.+?)\s*$/.exec(typed) ?? [];
  if (!name) return null;
  const codes = variableNames(app);
  const meant = name.toLowerCase();
  const found = Object.entries(app.variables).find(
    ([id, variable]) => variable.name.toLowerCase() === meant || codes.get(id)!.toLowerCase() === meant,
  );
  if (!found) return null;
  const [condition, variable] = found;
  const values: SetStep['value'][] = [
    ...(/^(yes|true)$/i.test(said) ? [true] : /^(no|false)$/i.test(said) ? [false] : []),
    ...(variable.type && variable.type !== 'number' && variable.type !== 'yes-no' ? [quoted(said)] : []),
    said,
  ];
  const tried = values.map((value): SetStep => ({ kind: 'set', condition, value }));
  // What is written as an expression is one; a text that is none stands for itself.
  return tried.toReversed().find((set) => settingOf(app, set).problem === undefined) ?? null;
}
