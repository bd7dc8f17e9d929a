const SRGB = /color\(srgb ([\d.e+-]+) ([\d.e+-]+) ([\d.e+-]+)(?: \/ ([\d.e+-]+))?\)/g;

/** A computed value with colours that come of a mixture as those that a screen shows: `color(srgb …)` as `rgb(…)`. */
export const plainColors = (value: string): string =>
  value.includes('color(srgb')
    ? value.replace(SRGB, (whole, ...found: (string | undefined)[]) => {
        const parts = found.slice(0, 3).map((part) => Math.round(Number(part) * 255));
        if (!parts.every((part) => part >= 0 && part <= 255)) return whole;
        const alpha = found[3] === undefined ? 1 : Number(found[3]);
        return alpha < 1 ? `rgba(${parts.join(', ')}, ${alpha})` : `rgb(${parts.join(', ')})`;
      })
    : value;
