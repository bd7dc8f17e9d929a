import type { Pixels, TextLine } from '@tovel/core';
import { encode } from 'fast-png';

/** What is needed of a `tesseract.js` worker. */
export interface Recogniser {
  recognize(
    image: never,
    options: object,
    output: object,
  ): Promise<{ data: { blocks: readonly RecognisedBlock[] | null } }>;
}

interface RecognisedBlock {
  readonly paragraphs: readonly {
    readonly lines: readonly {
      readonly text: string;
      readonly confidence: number;
      readonly bbox: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };
    }[];
  }[];
}

/**
 * Reads the lines of text in a picture, dark on light and then light on dark, which one pass alone misses.
 * @param isPlain where all of it is dark on light
 */
export async function readTextLines(
  worker: Recogniser,
  pixels: Pixels,
  wrap: (png: Uint8Array) => unknown,
  isPlain = false,
): Promise<TextLine[]> {
  const lines = await pass(worker, wrap(pngOf(pixels, false)));
  if (isPlain) return lines;
  for (const line of await pass(worker, wrap(pngOf(pixels, true)))) {
    const twin = lines.findIndex((other) => overlaps(line, other));
    if (twin < 0) lines.push(line);
    else if (line.confidence > lines[twin].confidence + 0.1) lines[twin] = line;
  }
  return lines;
}

async function pass(worker: Recogniser, image: unknown): Promise<TextLine[]> {
  const { data } = await worker.recognize(image as never, {}, { blocks: true, text: false });
  return (data.blocks ?? [])
    .flatMap((block) => block.paragraphs)
    .flatMap((paragraph) => paragraph.lines)
    .map(({ text, confidence, bbox }) => ({
      text: text.replace(/\s+/g, ' ').trim(),
      confidence: confidence / 100,
      box: { x: bbox.x0, y: bbox.y0, width: bbox.x1 - bbox.x0, height: bbox.y1 - bbox.y0 },
    }))
    .filter((line) => /[\p{L}\p{N}]/u.test(line.text));
}

function pngOf({ width, height, data }: Pixels, isInverted: boolean): Uint8Array {
  const plain = new Uint8Array(width * height * 3);
  for (let i = 0, k = 0; k < plain.length; i += 4) {
    // What shows through is white.
    const alpha = data[i + 3] / 255;
    for (let c = 0; c < 3; c++) {
      const value = data[i + c] * alpha + 255 * (1 - alpha);
      plain[k++] = isInverted ? 255 - value : value;
    }
  }
  return encode({ width, height, channels: 3, depth: 8, data: plain });
}

function overlaps({ box: a }: TextLine, { box: b }: TextLine): boolean {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return width > 0 && height > 0 && width * height > 0.4 * Math.min(a.width * a.height, b.width * b.height);
}
