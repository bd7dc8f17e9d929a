import { encode } from 'fast-png';

interface Decoded {
  readonly width: number;
  readonly height: number;
  readonly data?: Uint8ClampedArray | Uint8Array;
  readonly kind?: number;
}

/** A picture as PNG; null where the library could not decode it. */
export function pngOf(source: unknown): Uint8Array | null {
  const image = source as Decoded | null;
  if (!image?.data) return null;
  const { width, height, data } = image;
  if (image.kind === 1) return ofBits(width, height, data, [255, 255, 255, 255], [0, 0, 0, 255]);
  const channels = image.kind === 3 ? 4 : image.kind === 2 ? 3 : 0;
  if (!channels || data.length < width * height * channels) return null;
  return encode({
    width,
    height,
    channels,
    depth: 8,
    data: new Uint8Array(data.subarray(0, width * height * channels)),
  });
}

/** A stencil in one colour as PNG: bits that are not set are painted. */
export function stencilPng(source: unknown, color: readonly number[]): Uint8Array | null {
  const mask = source as Decoded | null;
  return mask?.data ? ofBits(mask.width, mask.height, mask.data, [0, 0, 0, 0], color) : null;
}

/** One bit a pixel, each row beginning with a byte of its own. */
function ofBits(
  width: number,
  height: number,
  bits: ArrayLike<number>,
  set: readonly number[],
  unset: readonly number[],
): Uint8Array | null {
  const stride = (width + 7) >> 3;
  if (bits.length < stride * height) return null;
  const data = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const isSet = (bits[y * stride + (x >> 3)] >> (7 - (x & 7))) & 1;
      data.set(isSet ? set : unset, 4 * (y * width + x));
    }
  return encode({ width, height, channels: 4, depth: 8, data });
}
