/** A picture that stands for one of another host: blank, of the size that its address says. */
export interface StandIn {
  readonly width: number;
  readonly height: number;
  /** What it is kept as. */
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** Sizes that pictures of pages have, in px. */
const LEAST = 8;
const MOST = 4000;

/** How addresses say sizes: `600x400`, `/600/400`, `?w=600&h=400`, and of a square `/150` where they say nothing else. */
const SIZES: readonly RegExp[] = [
  /(?<![\da-z])(\d{1,4})x(\d{1,4})(?![\da-z])/i,
  /\/(\d{2,4})\/(\d{2,4})(?=[/.?#]|$)/,
  /^[^?]*\?(?:.*&)?(?:w|width)=(\d{1,4})(?:&.*)?&(?:h|height)=(\d{1,4})(?!\d)/i,
  /^(?:https?:)?\/\/[^/]+\/(\d{2,4})(?=[.?#]|$)/i,
];

/**
 * What stands for a picture that is somewhere else and is not fetched, so that the page has its room for it; null where the address
 * says no size, or is of no other host.
 */
export function standInPicture(address: string): StandIn | null {
  if (!/^(https?:)?\/\/[^/]/i.test(address)) return null;
  for (const pattern of SIZES) {
    const [, first, second = first] = pattern.exec(address) ?? [];
    const [width, height] = [Number(first), Number(second)];
    if (![width, height].every((size) => size >= LEAST && size <= MOST)) continue;
    return {
      width,
      height,
      path: `blank-${width}x${height}.svg`,
      bytes: new TextEncoder().encode(drawing(width, height)),
    };
  }
  return null;
}

const drawing = (width: number, height: number): string => {
  const size = Math.round(Math.min(width / 6, height / 3, 40));
  const words =
    size < 8
      ? ''
      : `<text x="50%" y="50%" dy=".35em" text-anchor="middle" font-family="sans-serif" font-size="${size}" fill="#6b6b6b">${width} × ${height}</text>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="#dcdcdc"/>${words}</svg>\n`;
};
