import { listItems } from '../../vocabulary/list_items.ts';

/** Values of styles as a person writes them: the computed result is the same. */

/** Functions in which a length without a unit is no length, or a number must not be rounded away. */
const MATHS = /\b(calc|min|max|clamp|url|env)\(/i;
/** Properties whose zero is a number, or a time. */
const UNITED = /^(transition|animation|line-height$|flex$|flex-grow|flex-shrink|order|opacity|z-index)/;

/** A value as it is written in a sheet. Text in quotes and addresses stay as they are. */
export function writtenValue(property: string, value: string): string {
  if (property.startsWith('--') || property === 'content' || value.includes('url('))
    return singleQuoted(value);
  let written = value.replace(/\brgba?\(([^()]*)\)/gi, (whole, inside: string) => colorOf(inside) ?? whole);
  written = written.replace(/#[0-9a-f]{3,8}\b/gi, shortHex);
  if (!/["']/.test(written)) {
    written = written.replace(/(?<![\w#.-])(-?\d*\.\d{5,})/g, (number) =>
      String(Number(Number(number).toFixed(4))),
    );
    if (!MATHS.test(written) && !UNITED.test(property))
      written = written.replace(/(?<![\w.#-])-?0(?:\.0+)?(?:px|em|rem|pt)\b/g, '0');
  }
  if (property === 'font-family') written = withGeneric(written);
  if (property === 'box-shadow' || property === 'text-shadow')
    written = listItems(written).map(shadowOf).join(', ');
  return singleQuoted(DEPRECATED[`${property}: ${written}`] ?? written);
}

/** A shadow with where it falls first and its colour last, without a size and softness that it has not. */
function shadowOf(layer: string): string {
  const [, color, lengths] = SHADOW.exec(layer) ?? [];
  if (!lengths) return layer;
  const isInset = lengths.endsWith(' inset');
  const parts = lengths.replace(/ inset$/, '').split(' ');
  while (parts.length > 2 && parts.at(-1) === '0') parts.pop();
  return [...(isInset ? ['inset'] : []), ...parts, color].join(' ');
}

/** As browsers compute it: colour, two to four lengths, perhaps `inset`. */
const SHADOW =
  /^((?:[a-z-]+\((?:[^()]|\([^()]*\))*\)|#[0-9a-f]+|[a-z]+)) (-?[\d.]+[a-z]*(?: -?[\d.]+[a-z]*){1,3}(?: inset)?)$/i;

/** Keywords that the standards no longer have, and what they have instead. */
const DEPRECATED: Readonly<Record<string, string>> = {
  'appearance: button': 'auto',
  'appearance: menulist-button': 'auto',
  'appearance: textfield': 'auto',
  'appearance: searchfield': 'auto',
};

/** `r, g, b` and perhaps `a` of a colour, as hex where it is opaque; null for what is none. */
function colorOf(inside: string): string | null {
  const parts = inside.split(/[\s,/]+/).filter(Boolean);
  const [r, g, b] = parts.slice(0, 3).map(Number);
  const alpha =
    parts[3] === undefined ? 1 : parts[3].endsWith('%') ? parseFloat(parts[3]) / 100 : Number(parts[3]);
  if (parts.length < 3 || parts.length > 4 || [r, g, b, alpha].some((part) => !Number.isFinite(part)))
    return null;
  if ([r, g, b].some((part) => part < 0 || part > 255 || !Number.isInteger(part))) return null;
  if (alpha === 0) return 'transparent';
  if (alpha < 1) return `rgb(${r} ${g} ${b} / ${Number((alpha * 100).toFixed(2))}%)`;
  return `#${[r, g, b].map((part) => part.toString(16).padStart(2, '0')).join('')}`;
}

/** `#aabbcc` as `#abc`. */
function shortHex(hex: string): string {
  const lower = hex.toLowerCase();
  const digits = lower.slice(1);
  if (digits.length !== 6 && digits.length !== 8) return lower;
  const pairs = digits.match(/../g)!;
  return pairs.every(([a, b]) => a === b) ? `#${pairs.map(([a]) => a).join('')}` : lower;
}

const GENERIC =
  /^(serif|sans-serif|monospace|cursive|fantasy|system-ui|ui-[a-z-]+|math|emoji|fangsong|inherit|initial|unset|revert|var\(.*)$/i;

/** A list of fonts that ends in one that there always is: the one that browsers take where nothing is said. */
function withGeneric(fonts: string): string {
  const names = fonts.split(',').map((name) => name.trim());
  return names.some((name) => GENERIC.test(name)) ? fonts : `${fonts}, serif`;
}

const singleQuoted = (value: string): string =>
  value.replace(/"((?:[^"\\]|\\[^])*)"|'(?:[^'\\]|\\[^])*'/g, (whole, inside?: string) => {
    const plain = inside?.replaceAll('\\"', '"');
    return plain === undefined || /['\\]/.test(plain) ? whole : `'${plain}'`;
  });
