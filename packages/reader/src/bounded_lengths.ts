/** Lengths that follow the window within bounds: `clamp(1.5rem, 5vw, 4rem)`. */

/** What lengths are measured by, in px. */
export interface Measures {
  /** Of the window. */
  readonly width: number;
  readonly height: number;
  /** The size of type of the page. */
  readonly rem: number;
}

/** What has bounds, by functions that say them, and follows the window. */
const BOUNDED = /\b(?:clamp|min|max)\(.*\d[sld]?(?:vw|vi|vh|vb|vmin|vmax)\b/i;

export const isBounded = (value: string): boolean => BOUNDED.test(value);

const TOKEN = /\s*(?:(-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?)([a-z%]*)|(clamp|min|max|calc)?(\()|([),+*/-]))/iy;
const BY: Readonly<Record<string, (measures: Measures) => number>> = {
  '': () => 1,
  px: () => 1,
  rem: ({ rem }) => rem,
  vw: ({ width }) => width / 100,
  vi: ({ width }) => width / 100,
  vh: ({ height }) => height / 100,
  vb: ({ height }) => height / 100,
  vmin: ({ width, height }) => Math.min(width, height) / 100,
  vmax: ({ width, height }) => Math.max(width, height) / 100,
};

/**
 * What a length comes to, in px; null where that takes more than the window and the size of type of the page (CSS Values 4, 10).
 * @param text in one line, such as `clamp(20px, 1rem + 2vw, 40px)`
 */
export function lengthAt(text: string, measures: Measures): number | null {
  TOKEN.lastIndex = 0;
  let [token, at] = [TOKEN.exec(text), 0];
  const next = (): void => {
    at = TOKEN.lastIndex;
    token = TOKEN.exec(text);
  };
  const is = (sign: string): boolean => token?.[5] === sign;
  /** Terms with what stands between them, from the loosest sign inwards. */
  const sum = (): number => {
    let value = product();
    while (is('+') || is('-') || (token?.[1]?.startsWith('-') ?? false)) {
      const isNegative = is('-');
      if (token![5]) next();
      value += (isNegative ? -1 : 1) * product();
    }
    return value;
  };
  const product = (): number => {
    let value = term();
    while (is('*') || is('/')) {
      const isShare = is('/');
      next();
      const by = term();
      value = isShare ? value / by : value * by;
    }
    return value;
  };
  const term = (): number => {
    const [, number, unit = '', name, opens] = token ?? [];
    if (number !== undefined) {
      const by = BY[unit.toLowerCase().replace(/^[sld](?=v)/, '')];
      next();
      return by ? Number(number) * by(measures) : NaN;
    }
    if (!opens) return NaN;
    next();
    const given = [sum()];
    while (is(',')) {
      next();
      given.push(sum());
    }
    if (!is(')')) return NaN;
    next();
    if (name === 'min') return Math.min(...given);
    if (name === 'max') return Math.max(...given);
    if (name === 'clamp') return given.length === 3 ? Math.max(given[0], Math.min(given[1], given[2])) : NaN;
    return given.length === 1 ? given[0] : NaN;
  };
  const value = sum();
  return token === null && at >= text.trimEnd().length && Number.isFinite(value) ? value : null;
}
