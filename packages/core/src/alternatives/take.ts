import { all, type Change, putToken } from '../change/change.ts';
import { equalJson } from '../json/json.ts';
import type { App, Token } from '../model/app.ts';
import { uniqueName } from '../model/names.ts';
import { hueName } from '../tokens/find.ts';
import { normalValue } from '../tokens/values.ts';

type Tokens = Readonly<Record<string, Token>>;

const keysOf = ({ kind, from }: Token): string[] =>
  from.map((value) => `${kind} ${normalValue(kind, value)}`);

/**
 * What each of the values is in another look, by name. They are told by what they stand for, so that a look that was put aside fits
 * also when values have been named otherwise since.
 */
export function lookChanges(look: Tokens, values: Tokens): Readonly<Record<string, string>> {
  const other = new Map(
    Object.values(look).flatMap((token) => keysOf(token).map((key) => [key, token.value])),
  );
  return Object.fromEntries(
    Object.entries(values).flatMap(([name, token]) => {
      const value = keysOf(token).flatMap((key) => other.get(key) ?? [])[0];
      return value === undefined || value === token.value ? [] : [[name, value]];
    }),
  );
}

/**
 * The change that gives the whole app another look: values that it changes get their names with it. What is called by its colour is
 * called by the new one.
 * @param values what is named, and what could be
 */
export function takeLook({ tokens }: Pick<App, 'tokens'>, look: Tokens, values: Tokens): Change {
  const changed = lookChanges(look, values);
  const next: Record<string, Token> = { ...tokens };
  for (const [name, value] of Object.entries(changed)) {
    const token = { ...values[name], value };
    const wasByHue = token.kind === 'color' && name.startsWith(`color-${hueName(values[name].value)}`);
    delete next[name];
    next[wasByHue ? uniqueName(`color-${hueName(value)}`, (one) => one in next) : name] = token;
  }
  const names = [...new Set([...Object.keys(tokens), ...Object.keys(next)])].sort();
  return all(
    names
      .filter((name) => !equalJson(tokens[name] ?? null, next[name] ?? null))
      .map((name) => putToken(name, next[name] ?? null)),
  );
}
