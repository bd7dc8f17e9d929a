import type { Box } from '../../model/design.ts';

/** A decoded picture: four bytes a pixel, red, green, blue and opacity, row by row. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** A line of text that was read in a picture. */
export interface TextLine {
  readonly text: string;
  readonly box: Box;
  /** 0 to 1. */
  readonly confidence: number;
}

/** Width and height that a PNG, JPEG, WebP or GIF file says it has; null when it does not say. */
export function sizeOfPicture(bytes: Uint8Array): { width: number; height: number } | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const text = (from: number, length: number): string =>
    String.fromCharCode(...bytes.subarray(from, from + length));
  try {
    if (view.getUint32(0) === 0x89504e47) return { width: view.getUint32(16), height: view.getUint32(20) };
    if (text(0, 3) === 'GIF') return { width: view.getUint16(6, true), height: view.getUint16(8, true) };
    if (text(0, 4) === 'RIFF' && text(8, 4) === 'WEBP') return webpSize(view, text(12, 4));
    if (view.getUint16(0) === 0xffd8) return jpegSize(view);
  } catch {
    // Shorter than it says.
  }
  return null;
}

function webpSize(view: DataView, chunk: string): { width: number; height: number } | null {
  const three = (at: number): number => view.getUint16(at, true) | (view.getUint8(at + 2) << 16);
  if (chunk === 'VP8X') return { width: three(24) + 1, height: three(27) + 1 };
  if (chunk === 'VP8 ')
    return { width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff };
  if (chunk !== 'VP8L') return null;
  const bits = view.getUint32(21, true);
  return { width: (bits & 0x3fff) + 1, height: ((bits >> 14) & 0x3fff) + 1 };
}

/** Walks the segments to the one that starts the frame. */
function jpegSize(view: DataView): { width: number; height: number } | null {
  for (let at = 2; at < view.byteLength; at += 2 + view.getUint16(at + 2)) {
    const marker = view.getUint16(at);
    const isFrame = marker >= 0xffc0 && marker <= 0xffcf && ![0xffc4, 0xffc8, 0xffcc].includes(marker);
    if (isFrame) return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) };
    if (marker < 0xff00) return null;
  }
  return null;
}
