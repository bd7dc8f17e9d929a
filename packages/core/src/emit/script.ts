import { commentText, jsxValue, quote } from './quoting.ts';

/**
 * A piece of TypeScript. It is made by {@link script} alone, where a text that is put in becomes a literal, so that no text
 * of a design can stand in what is delivered as anything but a text.
 */
class Script {
  readonly text: string;

  constructor(text: string) {
    this.text = text;
  }

  /** How many characters its line has. */
  get length(): number {
    return this.text.length;
  }
}

export type { Script };

/** What stands between the parts of a template: pieces as they are, values as literals, lists with commas. */
export type Written = Script | string | number | boolean | readonly Written[];

/** TypeScript from a template, with literals for the texts that are put in. */
export const script = (parts: TemplateStringsArray, ...values: readonly Written[]): Script =>
  new Script(parts.map((part, i) => part + (i < values.length ? written(values[i]) : '')).join(''));

function written(value: Written): string {
  if (value instanceof Script) return value.text;
  if (typeof value === 'object') return value.map(written).join(', ');
  return typeof value === 'string' ? quote(value) : String(value);
}

/** A name, or several with dots between. @throws RangeError if it is none */
export function named(text: string): Script {
  if (!/^[\p{ID_Start}$_][\p{ID_Continue}$]*(\.[\p{ID_Start}$_][\p{ID_Continue}$]*)*$/u.test(text))
    throw new RangeError(`“${text}” is no name`);
  return new Script(text);
}

/** The name of a property: as it is where it can be, else in quotes. */
export const propertyName = (name: string): Script =>
  /^[A-Za-z_$][\w$]*$/.test(name) && name !== '__proto__' ? named(name) : script`${name}`;

/** A property of something: `tool.name`, `tool['image url']`. */
export const property = (of: Script, name: string): Script =>
  /^[A-Za-z_$][\w$]*$/.test(name) ? script`${of}.${named(name)}` : script`${of}[${name}]`;

/** What names lead to within something: `answer.data.items`. */
export const propertyAt = (of: Script, names: readonly string[]): Script => names.reduce(property, of);

/** A property of something that may not be there. */
export const optionalProperty = (of: Script, name: string): Script =>
  /^[A-Za-z_$][\w$]*$/.test(name) ? script`${of}?.${named(name)}` : script`${of}?.[${name}]`;

/** A template with texts and pieces in turn; a literal where there are no pieces. */
export const template = (parts: readonly (string | Script)[]): Script =>
  parts.every((part) => typeof part === 'string')
    ? script`${parts.join('')}`
    : new Script(
        `\`${parts
          .map((part) =>
            typeof part === 'string' ? part.replace(/[\\`]|\$(?=\{)/g, '\\$&') : `\${${part.text}}`,
          )
          .join('')}\``,
      );

/** A text as it stands within a comment. */
export const remark = (text: string): Script => new Script(commentText(text));

/** The value of an attribute of TSX: a text with its quotes, a piece in braces. */
export const inTsx = (value: string | Script): Script =>
  new Script(typeof value === 'string' ? jsxValue(value) : `{${value.text}}`);

/** Pieces one after another. */
export const joined = (pieces: readonly Script[], between = ''): Script =>
  new Script(pieces.map(({ text }) => text).join(between));

/** Pieces with a line each. */
export const onLines = (pieces: readonly Script[]): Script => joined(pieces, '\n');

/** A piece by its lines. */
export const linesOf = ({ text }: Script): Script[] => text.split('\n').map((line) => new Script(line));

/** A piece whose lines all stand further in. @param depth two spaces each */
export const indented = (piece: Script, depth: number): Script =>
  onLines(linesOf(piece).map(({ text }) => new Script(text && '  '.repeat(depth) + text)));

/** What a printer of typed nodes has written; nothing else may be taken for a piece. */
export const printed = (text: string): Script => new Script(text);
