import { channelsOf } from '../roles/sight.ts';
import { labOf } from '../tokens/find.ts';
import { hexOf } from '../tokens/values.ts';

/** A colour by lightness (0 to 100), chroma (0 for grey) and hue (degrees): CIELAB in polar coordinates. */
export interface Lch {
  readonly l: number;
  readonly c: number;
  readonly h: number;
  /** How opaque, 0 to 1. */
  readonly alpha: number;
}

/** Null for what is no plain colour. */
export function lchOf(color: string): Lch | null {
  const channels = channelsOf(color.trim().toLowerCase());
  if (!channels) return null;
  const [l, a, b] = labOf(channels);
  return { l, c: Math.hypot(a, b), h: turned((Math.atan2(b, a) * 180) / Math.PI), alpha: channels[3] };
}

/** An angle from 0 to 360. */
export const turned = (degrees: number): number => ((degrees % 360) + 360) % 360;

/** How far one hue is from another, -180 to 180 degrees. */
export const hueBetween = (from: number, to: number): number => turned(to - from + 180) - 180;

/**
 * The colour in hexadecimal digits. Where a screen cannot show so strong a colour, a fainter one of the same lightness and hue, so
 * that contrast stays (CSS Color 4 maps gamuts like this).
 */
export function hexOfLch({ l, c, h, alpha }: Lch): string {
  let [low, high] = [0, c];
  if (fits(channelsOfLch(l, c, h))) low = c;
  else
    for (let i = 0; i < 18; i++) {
      const middle = (low + high) / 2;
      if (fits(channelsOfLch(l, middle, h))) low = middle;
      else high = middle;
    }
  const [r, g, b] = channelsOfLch(l, low, h).map((channel) => channel * 255);
  return hexOf([r, g, b, alpha]);
}

/** A channel may be outside by rounding. */
const SLACK = 0.0005;
const fits = (channels: readonly number[]): boolean =>
  channels.every((channel) => channel >= -SLACK && channel <= 1 + SLACK);

/** sRGB channels, 0 to 1 as far as the colour can be shown (CIE 15:2004, D65; IEC 61966-2-1). */
function channelsOfLch(l: number, c: number, h: number): [number, number, number] {
  const angle = (h * Math.PI) / 180;
  const y = (l + 16) / 116;
  const inverse = (t: number): number => (t ** 3 > 0.008856 ? t ** 3 : (t - 16 / 116) / 7.787);
  const [X, Y, Z] = [
    0.95047 * inverse(y + (c * Math.cos(angle)) / 500),
    inverse(y),
    1.08883 * inverse(y - (c * Math.sin(angle)) / 200),
  ];
  const gamma = (v: number): number =>
    v <= 0.0031308 ? 12.92 * v : v < 0 ? v : 1.055 * v ** (1 / 2.4) - 0.055;
  return [
    gamma(3.2406 * X - 1.5372 * Y - 0.4986 * Z),
    gamma(-0.9689 * X + 1.8758 * Y + 0.0415 * Z),
    gamma(0.0557 * X - 0.204 * Y + 1.057 * Z),
  ];
}

/** How far apart two colours look (CIE76); 100 from black to white. */
export function colorsApart(a: Lch, b: Lch): number {
  const [x, y] = [a, b].map(({ c, h }) => [
    c * Math.cos((h * Math.PI) / 180),
    c * Math.sin((h * Math.PI) / 180),
  ]);
  return Math.hypot(a.l - b.l, x[0] - y[0], x[1] - y[1]);
}
