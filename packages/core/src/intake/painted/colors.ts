/** A colour of six or eight hexadecimal digits as red, green, blue and how opaque, 0 to 255; null for any other writing. */
export const channelsOf = (color: string): number[] | null => {
  const hex = /^#([0-9a-f]{6})([0-9a-f]{2})?$/i.exec(color);
  return hex ? [...(hex[1] + (hex[2] ?? 'ff')).matchAll(/../g)].map(([pair]) => parseInt(pair, 16)) : null;
};

export const hexOf = (values: readonly number[]): string => {
  const hex = values
    .map((value) =>
      Math.round(Math.min(255, Math.max(0, value)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('');
  return `#${hex.length === 8 && hex.endsWith('ff') ? hex.slice(0, 6) : hex}`;
};

/** A colour as CSS writes it in hexadecimal digits or by its three parts, in hexadecimal digits; null for any other writing. */
export function hexOfCss(color: string): string | null {
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(color);
  if (short)
    return `#${short
      .slice(1)
      .map((digit) => digit + digit)
      .join('')}`;
  if (channelsOf(color)) return color.toLowerCase();
  const parts = /^rgba?\(([^)]+)\)$/i
    .exec(color.trim())?.[1]
    .split(/[\s,/]+/)
    .filter(Boolean);
  if (parts && parts.length >= 3) {
    const values = parts.map((part, i) =>
      part.endsWith('%') ? parseFloat(part) * 2.55 : Number(part) * (i === 3 ? 255 : 1),
    );
    return values.every(Number.isFinite) ? hexOf(values) : null;
  }
  return { black: '#000000', white: '#ffffff' }[color] ?? null;
}

/** A colour that lets more of what is behind it through. */
export function withAlpha(color: string, alpha: number): string {
  const channels = channelsOf(color);
  return channels && alpha < 1 ? hexOf([channels[0], channels[1], channels[2], channels[3] * alpha]) : color;
}

/** What two colours are where the second lies on the first, if the first hides what is beneath it; else null. */
export function laidOver(below: string, above: string): string | null {
  const [a, b] = [channelsOf(below), channelsOf(above)];
  if (!a || !b || a[3] < 255) return null;
  const t = b[3] / 255;
  return hexOf([0, 1, 2].map((i) => a[i] + t * (b[i] - a[i])));
}

/** Between two colours: at 0 the first, at 1 the second. */
export function mixed(a: string, b: string, t: number): number[] | null {
  const [from, to] = [channelsOf(a), channelsOf(b)];
  return from && to && from.map((value, i) => value + t * (to[i] - value));
}

/** How much a colour of a mask lets through, 0 to 1: its luminance (CSS Masking 1, 7.10.1), as far as it is there itself. */
export function brightness(color: string): number {
  const channels = channelsOf(color);
  if (!channels) return 1;
  const [r, g, b, alpha] = channels;
  return ((0.2125 * r + 0.7154 * g + 0.0721 * b) / 255) * (alpha / 255);
}
