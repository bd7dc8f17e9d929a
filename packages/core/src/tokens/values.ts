import type { Token, TokenKind } from '../model/app.ts';
import { channelsOf } from '../roles/sight.ts';

/** Which kind of token a property can take; null for none. */
export function kindOfProperty(property: string): TokenKind | null {
  if (
    property === 'color' ||
    property === 'background-color' ||
    /^border-\w+-color$|^outline-color$/.test(property)
  )
    return 'color';
  if (property === 'font-size') return 'size';
  if (property === 'font-weight') return 'weight';
  if (/^(margin|padding)-|^(row|column)-gap$/.test(property)) return 'space';
  if (/^border-.*-radius$/.test(property)) return 'radius';
  return property === 'box-shadow' ? 'shadow' : null;
}

/** One spelling for values that are the same: colours as hexadecimal digits, lengths in px. */
export function normalValue(kind: TokenKind, value: string): string {
  const plain = value.trim().toLowerCase().replace(/\s+/g, ' ');
  if (kind === 'color') {
    const channels = channelsOf(plain);
    return channels ? hexOf(channels) : plain;
  }
  if (kind === 'weight') return plain === 'bold' ? '700' : plain === 'normal' ? '400' : plain;
  return plain;
}

/** `#rrggbb`, with two more digits where it is not opaque. */
export function hexOf([r, g, b, alpha]: readonly [number, number, number, number]): string {
  const two = (n: number): string =>
    Math.round(Math.min(255, Math.max(0, n)))
      .toString(16)
      .padStart(2, '0');
  return `#${two(r)}${two(g)}${two(b)}${alpha < 1 ? two(alpha * 255) : ''}`;
}

/** Says which token stands for a value of a property. */
export type TokenLookup = (property: string, value: string) => string | null;

/** The tokens of an app, ready to be looked up. Where two stand for the same value, the first by name does. */
export function tokenLookup(tokens: Readonly<Record<string, Token>>): TokenLookup {
  const names = new Map<string, string>();
  for (const name of Object.keys(tokens).sort())
    for (const value of tokens[name].from) {
      const key = `${tokens[name].kind} ${normalValue(tokens[name].kind, value)}`;
      if (!names.has(key)) names.set(key, name);
    }
  if (!names.size) return () => null;
  return (property, value) => {
    const kind = kindOfProperty(property);
    return kind ? (names.get(`${kind} ${normalValue(kind, value)}`) ?? null) : null;
  };
}

/**
 * The style sheet that gives the tokens their values; empty without any.
 * @param others custom properties that nobody named
 */
export function tokenCss(
  tokens: Readonly<Record<string, Token>>,
  others: readonly (readonly [name: string, value: string])[] = [],
): string {
  const named = Object.entries(tokens).map(([name, { value }]) => [name, value] as const);
  // Together, so that naming one moves no line.
  const all = [...named, ...others].sort(([a], [b]) => (a < b ? -1 : 1));
  if (!all.length) return '';
  return `:root {\n${all.map(([name, value]) => `  --${name}: ${value};`).join('\n')}\n}\n`;
}
