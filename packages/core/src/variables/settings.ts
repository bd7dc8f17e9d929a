import type { KnownNames } from '../expression/language.ts';
import type { Step, Variable } from '../model/app.ts';
import { variableNames } from '../model/project.ts';
import { type Remembering, sayingOf, settingOf } from './variables.ts';

type SetStep = Extract<Step, { readonly kind: 'set' }>;

/** A text as an expression says it. */
export const quoted = (text: string): string => `'${text.replace(/[\\']/g, '\\$&')}'`;

/** What a variable can be set to by choosing, each with how that is said. */
export function settingsOffered(app: Remembering): { readonly set: SetStep; readonly says: string }[] {
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
    case 'list':
      return [`toggled(${name}, entered)`, `including(${name}, entered)`, `without(${name}, entered)`];
    // Which record is meant depends on where it is set.
    case 'record':
      return ["''"];
  }
}

/** What a variable becomes, in people's words. */
export function describeSetting(app: Remembering, { condition, value }: SetStep): string {
  const variable = app.variables[condition];
  if (!variable) return 'A variable that is gone';
  const code = variableNames(app).get(condition)!;
  return `${variable.name}: ${saidValue(value, code)}`;
}

/** What a step says, in people's words: a plain text as it is read, else as the expression that it is. */
export const saidText = (source: string): string => plainText(source) ?? source;

/**
 * What people type to have it said, as an expression: one where it can be read as such, else the text itself.
 * @param atHand what can be spoken of where it is said
 */
export const sayingFor = (app: Remembering, typed: string, atHand?: KnownNames): string =>
  sayingOf(app, typed, atHand).problem === undefined ? typed : quoted(typed);

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
    case `toggled(${code}, entered)`:
      return 'with what is entered, or without it';
    case `including(${code}, entered)`:
      return 'with what is entered';
    case `without(${code}, entered)`:
      return 'without what is entered';
  }
  return plainText(value) ?? value;
}

/** What people type to set a variable: `Count = count + 2`, `View: list`; null where no variable is meant or it cannot be that. */
export function typedSetting(app: Remembering, typed: string, atHand?: KnownNames): SetStep | null {
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
    ...(variable.type && /^(text|date|one-of)$/.test(variable.type) ? [quoted(said)] : []),
    said,
  ];
  const tried = values.map((value): SetStep => ({ kind: 'set', condition, value }));
  // What is written as an expression is one; a text that is none stands for itself.
  return tried.toReversed().find((set) => settingOf(app, set, atHand).problem === undefined) ?? null;
}
