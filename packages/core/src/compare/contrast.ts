import { channelsOf } from '../roles/sight.ts';

/** Contrast of a text with the one colour behind it, 1 to 21 (WCAG 2.2); null where one of them is no plain colour. */
export function contrastBetween(text: string, behind: string | null): number | null {
  const [front, ground] = [channelsOf(text), behind && channelsOf(behind)];
  if (!front || !ground) return null;
  const [r, g, b, alpha] = front;
  const seen = [r, g, b].map((channel, i) => channel * alpha + ground[i] * (1 - alpha));
  const [light, dark] = [luminance(seen), luminance(ground)].sort((a, c) => c - a);
  return (light + 0.05) / (dark + 0.05);
}

/** Relative luminance of a colour of sRGB, 0 to 1 (WCAG 2.2). */
function luminance(channels: readonly number[]): number {
  const [r, g, b] = channels.slice(0, 3).map((channel) => {
    const share = channel / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** The contrast that a text needs, by its size in px and its weight (WCAG 2.2, 1.4.3). */
export const leastContrast = (size: number, weight: number): number =>
  size >= 24 || (size >= 18.66 && weight >= 700) ? 3 : 4.5;
