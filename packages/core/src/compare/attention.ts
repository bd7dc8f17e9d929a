import type { Box } from '../model/design.ts';

/**
 * Where a picture draws the eye, worked out from the picture alone: the model of Itti, Koch and Niebur (“A model of saliency-based
 * visual attention for rapid scene analysis”, 1998). Intensity, two pairs of opponent colours and four orientations are compared
 * between finer and coarser scales, maps with few peaks are promoted over those with many, and the sum is gone through from peak
 * to peak, each of which is left once it was looked at. It is a model: it knows nothing of meaning, faces or habits.
 */

/** A picture of one channel, row by row. */
interface Plane {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

export interface Attention {
  /** How much each part of the picture draws the eye, row by row; all of it together is 1. */
  readonly map: Float32Array;
  readonly width: number;
  readonly height: number;
  /** Where the eye goes, first to last, in px of the picture. */
  readonly path: readonly { readonly x: number; readonly y: number }[];
}

/** Scales of the pyramids; finer ones that are compared, and by how many scales with coarser ones. */
const SCALES = 9;
const CENTRES = [2, 3, 4];
const DELTAS = [3, 4];
/** The scale of the map that comes of it. */
const MAP_SCALE = 3;
const ANGLES = [0, 45, 90, 135];
/** Looks that are told, and the part of the map's width around each that is left after it. */
const LOOKS = 8;
const LOOKED_AT = 0.13;

/**
 * @param rgba of the picture, four bytes a pixel
 * @throws RangeError where there are not as many as width and height say, or the picture is smaller than 16 px
 */
export function attentionOn(rgba: Uint8ClampedArray, width: number, height: number): Attention {
  if (rgba.length !== width * height * 4) throw new RangeError('attentionOn: the picture has another size');
  if (width < 16 || height < 16) throw new RangeError('attentionOn: the picture is too small');
  const plane = (of: (r: number, g: number, b: number) => number): Plane => {
    const values = new Float32Array(width * height);
    for (let i = 0; i < values.length; i++)
      values[i] = of(rgba[4 * i] / 255, rgba[4 * i + 1] / 255, rgba[4 * i + 2] / 255);
    return { width, height, values };
  };
  const intensity = pyramid(plane((r, g, b) => (r + g + b) / 3));
  // Opponent colours are those of the hue, where there is light enough to tell one.
  const hued = (of: (r: number, g: number, b: number) => number) =>
    plane((r, g, b) => {
      const light = (r + g + b) / 3;
      return light > 0.1 ? of(r, g, b) / Math.max(r, g, b) : 0;
    });
  const redGreen = pyramid(hued((r, g) => r - g));
  const blueYellow = pyramid(hued((r, g, b) => b - Math.min(r, g)));
  const size = intensity[MAP_SCALE];
  const conspicuous = [
    summed([intensity], size),
    summed([redGreen, blueYellow], size),
    summed(
      // The finest scales are only there to make the coarser ones of.
      ANGLES.map((angle) =>
        intensity.map((level, scale) => (scale < CENTRES[0] ? level : oriented(level, angle))),
      ),
      size,
    ),
  ].map(promoted);
  const map = new Float32Array(size.width * size.height);
  for (const one of conspicuous) for (let i = 0; i < map.length; i++) map[i] += one.values[i] / 3;
  // Edges of the picture are none of the page.
  const total = map.reduce((sum, value) => sum + value, 0);
  for (let i = 0; i < map.length; i++) map[i] = total > 0 ? map[i] / total : 1 / map.length;
  const found = { map, width: size.width, height: size.height };
  return { ...found, path: total > 0 ? pathOver(found, width / size.width, height / size.height) : [] };
}

/** What share of the attention a part of the picture has, 0 to 1. @param scale px of the picture a px of the box */
export function shareOn(
  { map, width, height }: Attention,
  box: Box,
  picture: { width: number; height: number },
): number {
  const [sx, sy] = [width / picture.width, height / picture.height];
  const [left, top] = [Math.max(0, box.x * sx), Math.max(0, box.y * sy)];
  const [right, bottom] = [
    Math.min(width, (box.x + box.width) * sx),
    Math.min(height, (box.y + box.height) * sy),
  ];
  let share = 0;
  for (let y = Math.floor(top); y < Math.ceil(bottom); y++)
    for (let x = Math.floor(left); x < Math.ceil(right); x++) {
      const part =
        Math.max(0, Math.min(right, x + 1) - Math.max(left, x)) *
        Math.max(0, Math.min(bottom, y + 1) - Math.max(top, y));
      share += map[y * width + x] * part;
    }
  return share;
}

/** Half the size at each step, smoothed by a binomial filter before (Burt and Adelson 1983). */
function pyramid(plane: Plane): Plane[] {
  const levels = [plane];
  while (levels.length < SCALES) levels.push(halved(levels.at(-1)!));
  return levels;
}

const KERNEL = [1 / 16, 4 / 16, 6 / 16, 4 / 16, 1 / 16];

function halved({ width, height, values }: Plane): Plane {
  const [columns, rows] = [width, height].map((length) => clamped(length, 2));
  const [w, h] = [Math.max(1, Math.ceil(width / 2)), Math.max(1, Math.ceil(height / 2))];
  const across = new Float32Array(w * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let k = 0; k < 5; k++) sum += KERNEL[k] * values[y * width + columns[2 * x + k]];
      across[y * w + x] = sum;
    }
  const made = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let k = 0; k < 5; k++) sum += KERNEL[k] * across[rows[2 * y + k] * w + x];
      made[y * w + x] = sum;
    }
  return { width: w, height: h, values: made };
}

/** How strongly lines of one direction stand in a plane: a Gabor filter of 7 px. */
function oriented({ width, height, values }: Plane, angle: number): Plane {
  const kernel = gabor(angle);
  const size = 2 * RADIUS + 1;
  const [columns, rows] = [width, height].map((length) => clamped(length, RADIUS));
  const made = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let ky = 0; ky < size; ky++) {
        const row = rows[y + ky] * width;
        for (let kx = 0; kx < size; kx++) sum += kernel[ky * size + kx] * values[row + columns[x + kx]];
      }
      made[y * width + x] = Math.abs(sum);
    }
  return { width, height, values: made };
}

/** Places from some before the first to some behind the last, those outside as the nearest inside. */
const clamped = (length: number, around: number): Int32Array =>
  Int32Array.from({ length: length + 2 * around }, (_, i) => Math.min(length - 1, Math.max(0, i - around)));

const RADIUS = 3;
const gabors = new Map<number, Float32Array>();

function gabor(angle: number): Float32Array {
  const known = gabors.get(angle);
  if (known) return known;
  const size = 2 * RADIUS + 1;
  const kernel = new Float32Array(size * size);
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  for (let y = -RADIUS; y <= RADIUS; y++)
    for (let x = -RADIUS; x <= RADIUS; x++) {
      const across = x * cos + y * sin;
      kernel[(y + RADIUS) * size + x + RADIUS] =
        Math.exp(-(x * x + y * y) / (2 * 1.6 ** 2)) * Math.cos((2 * Math.PI * across) / 5);
    }
  // An even plane answers with nothing.
  const mean = kernel.reduce((sum, value) => sum + value, 0) / kernel.length;
  for (let i = 0; i < kernel.length; i++) kernel[i] -= mean;
  gabors.set(angle, kernel);
  return kernel;
}

/** The differences between finer and coarser scales of some features, each promoted, in the size of the map. */
function summed(features: readonly (readonly Plane[])[], size: Plane): Plane {
  const values = new Float32Array(size.width * size.height);
  for (const levels of features)
    for (const centre of CENTRES)
      for (const delta of DELTAS) {
        const [fine, coarse] = [levels[centre], levels[centre + delta]];
        const difference = new Float32Array(fine.width * fine.height);
        for (let y = 0; y < fine.height; y++)
          for (let x = 0; x < fine.width; x++)
            difference[y * fine.width + x] = Math.abs(
              fine.values[y * fine.width + x] - sampled(coarse, x / fine.width, y / fine.height),
            );
        const map = promoted({ ...fine, values: difference });
        for (let y = 0; y < size.height; y++)
          for (let x = 0; x < size.width; x++)
            values[y * size.width + x] += sampled(map, x / size.width, y / size.height);
      }
  return { ...size, values };
}

/** A value between those of the pixels around; the place is a part of the width and of the height. */
function sampled({ width, height, values }: Plane, u: number, v: number): number {
  const [x, y] = [Math.min(width - 1, u * width), Math.min(height - 1, v * height)];
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const [x1, y1] = [Math.min(width - 1, x0 + 1), Math.min(height - 1, y0 + 1)];
  const [fx, fy] = [x - x0, y - y0];
  return (
    (values[y0 * width + x0] * (1 - fx) + values[y0 * width + x1] * fx) * (1 - fy) +
    (values[y1 * width + x0] * (1 - fx) + values[y1 * width + x1] * fx) * fy
  );
}

/** A map from 0 to 1, weighed by how far its highest peak stands out from the others: few peaks count, many cancel. */
function promoted(plane: Plane): Plane {
  const { width, height } = plane;
  const most = plane.values.reduce((max, value) => Math.max(max, value), 0);
  if (most < 1e-6) return { ...plane, values: new Float32Array(plane.values.length) };
  const values = plane.values.map((value) => value / most);
  let [peaks, sum] = [0, 0];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const value = values[y * width + x];
      if (value < 0.05 || value >= 1) continue;
      const isPeak =
        value >= values[y * width + x - 1] &&
        value >= values[y * width + x + 1] &&
        value >= values[(y - 1) * width + x] &&
        value >= values[(y + 1) * width + x];
      if (!isPeak) continue;
      peaks++;
      sum += value;
    }
  const weight = (1 - (peaks ? sum / peaks : 0)) ** 2;
  return { ...plane, values: values.map((value) => value * weight) };
}

/** From peak to peak; what was looked at is left for the others. @param sx px of the picture a px of the map */
function pathOver(
  { map, width, height }: Omit<Attention, 'path'>,
  sx: number,
  sy: number,
): { readonly x: number; readonly y: number }[] {
  const left = Float32Array.from(map);
  const radius = Math.max(2, LOOKED_AT * width);
  const path: { x: number; y: number }[] = [];
  const first = left.reduce((max, value) => Math.max(max, value), 0);
  while (path.length < LOOKS) {
    let best = 0;
    for (let i = 1; i < left.length; i++) if (left[i] > left[best]) best = i;
    // What hardly stands out draws nobody.
    if (left[best] < 0.1 * first) break;
    const [x, y] = [best % width, Math.floor(best / width)];
    path.push({ x: Math.round((x + 0.5) * sx), y: Math.round((y + 0.5) * sy) });
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) {
        const distance = Math.hypot(i - x, j - y) / radius;
        if (distance < 1) left[j * width + i] *= Math.max(0, 2 * distance - 1);
      }
  }
  return path;
}
