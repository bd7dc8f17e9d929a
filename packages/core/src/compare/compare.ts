import type { Pixels } from '../intake/picture/pixels.ts';
import { type DifferenceCause, type CauseOptions, causesOf } from './causes.ts';
import { pairRenderings } from './pairs.ts';
import { pixelDifference } from './pixel_difference.ts';
import type { Rendering } from './rendering.ts';

/** A page that was drawn: its picture, and what its elements are there. */
export interface Drawn {
  readonly pixels: Pixels;
  readonly rendering: Rendering;
}

export interface DrawnComparison {
  readonly width: number;
  /** Of the higher of the two pages. */
  readonly height: number;
  /** Differing pixels over all, 0 to 1. */
  readonly share: number;
  readonly causes: readonly DifferenceCause[];
  /** Share of the differing pixels that no cause accounts for, 0 to 1. */
  readonly unexplained: number;
  /** What differs, pixel by pixel: 1 where it does, row by row. */
  readonly marks: Uint8Array;
}

/** Compares what runs with a reference, and says what makes the difference. */
export function compareDrawn(reference: Drawn, running: Drawn, options: CauseOptions = {}): DrawnComparison {
  const pixels = pixelDifference(reference.pixels, running.pixels);
  const root = pairRenderings(reference.rendering.root, running.rendering.root);
  const { causes, unexplained } = causesOf(root, pixels, options);
  const { width, height, share, marks } = pixels;
  return { width, height, share, causes, unexplained, marks };
}
