import type { Token, TokenKind } from '../model/app.ts';
import { isRecord, stringifySorted } from '../json/json.ts';
import { isSafeCssValue } from '../model/app.ts';
import { kebabCase } from '../model/names.ts';
import { channelsOf } from '../roles/sight.ts';
import { hexOf, normalValue } from './values.ts';

/**
 * Design tokens as JSON in the format of the Design Tokens Community Group (Format Module 2025.10): groups, `$type`
 * and `$value`, references in braces. What a token stands for in the design is kept under `$extensions`.
 */

const EXTENSION = 'tovel.from';
const TYPES: Readonly<Record<TokenKind, string>> = {
  color: 'color',
  size: 'dimension',
  weight: 'fontWeight',
  space: 'dimension',
  radius: 'dimension',
  shadow: 'shadow',
};
const GROUPS: Readonly<Record<TokenKind, string>> = {
  color: 'color',
  size: 'font-size',
  weight: 'font-weight',
  space: 'space',
  radius: 'radius',
  shadow: 'shadow',
};

/** Writes tokens, a group a kind. */
export function exportTokens(tokens: Readonly<Record<string, Token>>): string {
  const document: Record<string, Record<string, unknown>> = {};
  for (const [name, token] of Object.entries(tokens)) {
    const group = (document[GROUPS[token.kind]] ??= { $type: TYPES[token.kind] });
    group[name] = {
      $value: valueOf(token),
      $extensions: { [EXTENSION]: token.from },
    };
  }
  return `${stringifySorted(document, 2)}\n`;
}

function valueOf({ kind, value }: Token): unknown {
  switch (kind) {
    case 'color':
      return colorValue(value);
    case 'weight':
      return /^\d+$/.test(value) ? Number(value) : value;
    case 'shadow':
      return shadowValue(value);
    default:
      return dimension(value);
  }
}

function colorValue(value: string): unknown {
  const channels = channelsOf(value);
  if (!channels) return value;
  const [r, g, b, alpha] = channels;
  return {
    colorSpace: 'srgb',
    components: [r, g, b].map((channel) => Math.round((channel / 255) * 10_000) / 10_000),
    ...(alpha < 1 ? { alpha: Math.round(alpha * 1000) / 1000 } : {}),
    hex: hexOf([r, g, b, 1]),
  };
}

function dimension(value: string): unknown {
  const match = /^(-?[\d.]+)(px|rem)$/.exec(value);
  return match ? { value: Number(match[1]), unit: match[2] } : value;
}

/** A single shadow as its parts; what is no single shadow stays as CSS. */
function shadowValue(value: string): unknown {
  const isInset = /\binset\b/.test(value);
  const plain = value.replace(/\binset\b/, '').trim();
  const color = /(rgba?\([^)]*\)|#[0-9a-f]{3,8}\b|\b[a-z]+\b)/i.exec(plain)?.[0];
  const lengths = plain
    .replace(color ?? '', '')
    .trim()
    .split(/\s+/);
  if (
    !color ||
    lengths.length < 2 ||
    lengths.length > 4 ||
    !lengths.every((length) => /^-?[\d.]+(px)?$/.test(length))
  )
    return value;
  const [x, y, blur = '0px', spread = '0px'] = lengths.map((length) => (length === '0' ? '0px' : length));
  return {
    color: colorValue(color),
    offsetX: dimension(x),
    offsetY: dimension(y),
    blur: dimension(blur),
    spread: dimension(spread),
    ...(isInset ? { inset: true } : {}),
  };
}

export interface ImportedTokens {
  readonly tokens: Readonly<Record<string, Token>>;
  /** What could not be read, each with its place and the reason. */
  readonly leftOut: readonly string[];
}

/**
 * Reads design tokens that came from outside. Types are inherited from groups, references are followed; what is of a
 * type that Tovel has no use for is left out and said.
 * @throws RangeError for what is no JSON object.
 */
export function importTokens(text: string): ImportedTokens {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new RangeError('The file is no JSON. Design tokens are a JSON file with groups, $type and $value.');
  }
  if (!isRecord(json)) throw new RangeError('The file holds no groups of tokens: expected a JSON object.');
  const found = new Map<string, { value: unknown; type: string | null; from: unknown }>();
  const visit = (
    node: Record<string, unknown>,
    path: readonly string[],
    type: string | null,
    depth: number,
  ): void => {
    if (depth > 20) return;
    const own = typeof node.$type === 'string' ? node.$type : type;
    if (node.$value !== undefined) {
      const extensions = isRecord(node.$extensions) ? node.$extensions : {};
      found.set(path.join('.'), { value: node.$value, type: own, from: extensions[EXTENSION] });
      return;
    }
    for (const [name, child] of Object.entries(node))
      if (!name.startsWith('$') && isRecord(child)) visit(child, [...path, name], own, depth + 1);
  };
  visit(json, [], null, 0);
  const tokens: Record<string, Token> = {};
  const leftOut: string[] = [];
  for (const [path, entry] of found) {
    const resolved = follow(entry.value, found, 0);
    const type = entry.type ?? resolved.type;
    const kind = kindOf(type, path);
    const value = kind && resolved.value !== undefined ? cssOf(kind, resolved.value, found) : null;
    if (!kind) leftOut.push(`${path}: of type ${type ?? 'unknown'}, which is not used here`);
    else if (value === null || !isSafeCssValue(value)) leftOut.push(`${path}: its value cannot be read`);
    else {
      const name = nameFrom(path, kind);
      const from = Array.isArray(entry.from)
        ? entry.from.filter((v): v is string => typeof v === 'string' && isSafeCssValue(v))
        : [];
      tokens[name] = { kind, value, from: from.length ? from.slice(0, 500) : [normalValue(kind, value)] };
    }
  }
  return { tokens, leftOut };
}

/** A name of ours for a path: the last part where the groups are ours, else all of it. */
function nameFrom(path: string, kind: TokenKind): string {
  const parts = path.split('.');
  const own = parts.length === 2 && parts[0] === GROUPS[kind] ? [parts[1]] : parts;
  const name = kebabCase(own.join(' ')).slice(0, 60);
  return /^[a-z]/.test(name) ? name : `${kind}-${name || 'token'}`;
}

type Found = ReadonlyMap<string, { value: unknown; type: string | null }>;

/** Follows `{group.token}`; a reference to itself ends as unknown. */
function follow(value: unknown, found: Found, depth: number): { value: unknown; type: string | null } {
  const reference = typeof value === 'string' ? /^\{([^{}]+)\}$/.exec(value)?.[1] : undefined;
  if (reference === undefined) return { value, type: null };
  const target = found.get(reference);
  if (!target || depth > 20) return { value: undefined, type: null };
  const next = follow(target.value, found, depth + 1);
  return { value: next.value, type: next.type ?? target.type };
}

function kindOf(type: string | null, path: string): TokenKind | null {
  switch (type) {
    case 'color':
      return 'color';
    case 'fontWeight':
      return 'weight';
    case 'shadow':
      return 'shadow';
    case 'dimension':
      if (/radius|radii|corner|round/i.test(path)) return 'radius';
      return /font|text|type|size/i.test(path) && !/space|spacing|gap/i.test(path) ? 'size' : 'space';
    default:
      return null;
  }
}

function cssOf(kind: TokenKind, value: unknown, found: Found): string | null {
  switch (kind) {
    case 'color':
      return cssColor(value);
    case 'weight':
      return typeof value === 'number' || typeof value === 'string'
        ? normalValue('weight', String(value))
        : null;
    case 'shadow': {
      if (typeof value === 'string') return value;
      const list = Array.isArray(value) ? value : [value];
      const parts = list.map((one: unknown) => (isRecord(one) ? cssShadow(one, found) : null));
      return parts.every((part) => part !== null) && parts.length ? parts.join(', ') : null;
    }
    default:
      return cssLength(value);
  }
}

function cssColor(value: unknown): string | null {
  if (typeof value === 'string') return channelsOf(value) ? normalValue('color', value) : null;
  if (!isRecord(value) || !Array.isArray(value.components)) return null;
  const alpha = typeof value.alpha === 'number' ? value.alpha : 1;
  const components = value.components.map(Number);
  if (value.colorSpace === 'srgb' && components.length === 3 && components.every(Number.isFinite))
    return hexOf([components[0] * 255, components[1] * 255, components[2] * 255, alpha]);
  // Other spaces give their nearest sRGB colour along.
  const channels = typeof value.hex === 'string' ? channelsOf(value.hex) : null;
  return channels ? hexOf([channels[0], channels[1], channels[2], alpha]) : null;
}

function cssLength(value: unknown): string | null {
  if (typeof value === 'string') return /^-?[\d.]+(px|rem)$/.test(value) ? value : null;
  if (!isRecord(value) || typeof value.value !== 'number') return null;
  return value.unit === 'px' || value.unit === 'rem' ? `${value.value}${value.unit}` : null;
}

function cssShadow(shadow: Record<string, unknown>, found: Found): string | null {
  const of = (value: unknown): unknown => follow(value, found, 0).value;
  const color = cssColor(of(shadow.color));
  const lengths = [shadow.offsetX, shadow.offsetY, shadow.blur ?? '0px', shadow.spread ?? '0px'].map(
    (length) => cssLength(of(length)),
  );
  if (color === null || lengths.some((length) => length === null)) return null;
  return `${shadow.inset === true ? 'inset ' : ''}${lengths.join(' ')} ${color}`;
}
