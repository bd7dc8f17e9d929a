/** What a line of a flow sheet is made of. */
export interface Token {
  readonly kind: 'word' | 'text' | 'number' | 'nth' | 'path' | 'arrow';
  /** What it says: of a text without its quotation marks, of `#2` the number. */
  readonly value: string;
  /** Where it stands in its line, from 0; `to` is behind it. */
  readonly from: number;
  readonly to: number;
}

export interface Line {
  /** From 1. */
  readonly number: number;
  /** Whether it belongs to what stands above it. */
  readonly isWithin: boolean;
  readonly tokens: readonly Token[];
  readonly length: number;
  /** Where nothing that the language knows begins, and why. */
  readonly stray?: { readonly at: number; readonly says: string };
}

const KINDS: readonly (readonly [Token['kind'], RegExp])[] = [
  ['text', /"(?:[^"\\]|\\.)*"/y],
  ['arrow', /->/y],
  ['nth', /#\d{1,6}/y],
  ['path', /\/\S*/y],
  ['number', /\d{1,12}(?![\w-])/y],
  ['word', /[\p{L}_\d][\p{L}\p{N}_]*(?:-[\p{L}\p{N}_]+)*/uy],
];

/** Takes a sheet apart into lines; empty ones and those that are only a remark (`-- …`) are left out. */
export const linesOfSheet = (text: string): Line[] =>
  text
    .split(/\r\n|\r|\n/)
    .map((line, i) => scanned(line, i + 1))
    .filter(({ tokens, stray }) => tokens.length > 0 || stray !== undefined);

/** Takes one line apart. */
export function scanned(text: string, number: number): Line {
  const tokens: Token[] = [];
  const line = { number, isWithin: /^\s/.test(text), tokens, length: text.length };
  let at = 0;
  for (;;) {
    while (at < text.length && /\s/.test(text[at])) at++;
    if (at >= text.length || text.startsWith('--', at)) return line;
    const token = tokenAt(text, at);
    if (!token)
      return {
        ...line,
        stray: {
          at,
          says:
            text[at] === '"'
              ? 'a text begins here and does not end; close it with "'
              : `“${String.fromCodePoint(text.codePointAt(at)!)}” means nothing here`,
        },
      };
    tokens.push(token);
    at = token.to;
  }
}

function tokenAt(text: string, from: number): Token | null {
  for (const [kind, pattern] of KINDS) {
    pattern.lastIndex = from;
    const found = pattern.exec(text)?.[0];
    if (found === undefined) continue;
    const value = kind === 'text' ? unquoted(found) : kind === 'nth' ? found.slice(1) : found;
    if (value !== null) return { kind, value, from, to: from + found.length };
  }
  return null;
}

/** A text as a sheet writes it, on one line. */
export const quoted = (text: string): string =>
  JSON.stringify(text).replace(
    /[\u2028\u2029\u0085]/g,
    (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );

function unquoted(text: string): string | null {
  try {
    return JSON.parse(text) as string;
  } catch {
    return null;
  }
}
