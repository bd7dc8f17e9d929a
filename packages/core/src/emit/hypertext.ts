import { isAttributeName } from '../vocabulary/attributes.ts';
import { escapeText, escapeValue } from './quoting.ts';

/** A piece of HTML or XML. It is made by {@link hypertext} alone, where what is put in becomes text or a value. */
class Hypertext {
  readonly text: string;

  constructor(text: string) {
    this.text = text;
  }
}

export type { Hypertext };

/** HTML or XML from a template: texts that are put in are escaped, pieces and lists of pieces stand as they are. */
export const hypertext = (
  parts: TemplateStringsArray,
  ...values: readonly (Hypertext | readonly Hypertext[] | string)[]
): Hypertext =>
  new Hypertext(
    parts.map((part, i) => part + (i < values.length ? written(values[i], part.endsWith('"')) : '')).join(''),
  );

function written(value: Hypertext | readonly Hypertext[] | string, isQuoted: boolean): string {
  if (value instanceof Hypertext) return value.text;
  if (typeof value !== 'string') return value.map(({ text }) => text).join('');
  return isQuoted ? escapeValue(value) : escapeText(value);
}

/**
 * Attributes, with a space before each; `true` for those that say what they say by being there.
 * @throws RangeError for a name that no attribute has
 */
export const attributes = (all: Iterable<readonly [name: string, value: string | true]>): Hypertext[] =>
  [...all].map(([name, value]) => {
    if (!isAttributeName(name)) throw new RangeError(`“${name}” is no name of an attribute`);
    return new Hypertext(value === true ? ` ${name}` : ` ${name}="${escapeValue(value)}"`);
  });

/** The name of an element. @throws RangeError if it is none */
export function tagged(name: string): Hypertext {
  if (!/^[A-Za-z][\w-]*$/.test(name)) throw new RangeError(`“${name}” is no name of an element`);
  return new Hypertext(name);
}
