import type { Drawn, DrawnComparison } from '@tovel/core';
import { decode, encode } from 'fast-png';
import type { DrawnPage } from './renderer.ts';

export type { DrawnPage } from './renderer.ts';

/** The picture of a drawn page as pixels, with its elements. */
export function decoded({ png, rendering }: DrawnPage): Drawn {
  const { width, height, data, channels } = decode(png);
  return {
    pixels: { width, height, data: channels === 4 ? bytes(data) : withOpacity(bytes(data), width * height) },
    rendering,
  };
}

/** What marks a pixel that differs: red, green, blue and opacity. */
const MARK = [214, 30, 92, 255];

/** Where two pictures differ, as a picture to lay over either: marked where they do, else transparent. */
export function differencePicture({
  width,
  height,
  marks,
}: Pick<DrawnComparison, 'width' | 'height' | 'marks'>): Uint8Array {
  const data = new Uint8Array(width * height * 4);
  for (let i = 0; i < marks.length; i++) if (marks[i]) data.set(MARK, i * 4);
  return encode({ width, height, data, channels: 4 });
}

const bytes = (data: ArrayLike<number>): Uint8Array =>
  data instanceof Uint8Array ? data : Uint8Array.from(data, (value) => value >> 8);

function withOpacity(rgb: Uint8Array, count: number): Uint8Array {
  const all = new Uint8Array(count * 4).fill(255);
  for (let i = 0; i < count; i++) for (let c = 0; c < 3; c++) all[i * 4 + c] = rgb[i * 3 + c];
  return all;
}
