import { type InputFile } from '@tovel/core';
export interface FidelityRow {
  readonly file: string;
  readonly width: number;
  /** Share of pixels that differ, 0 to 1. */
  readonly share: number;
}
export interface Fidelity {
  readonly rows: readonly FidelityRow[];
  readonly elements: number;
  /** Milliseconds that reading all of the pages took. */
  readonly readingMs: number;
  /** Largest resident memory of this process meanwhile, in bytes. */
  readonly peakBytes: number;
}
/**
 * Reads every screen of a batch and compares what is emitted with its source: both drawn by the same Chromium, scripts
 * off, full page, pixel by pixel (pixelmatch, threshold 0.1). Pages at three widths, drawings at their own.
 * @param folder where the files of the batch lie on disk.
 * @param pictures a folder for pictures of source, emitted screen and difference, side by side.
 */
export declare function measureFidelity(
  files: readonly InputFile[],
  folder: string,
  pictures?: string,
): Promise<Fidelity>;
/** Prints a line for each screen: its difference at each width in percent; then the middle, the worst and the costs. */
export declare function printFidelity({ rows, elements, readingMs, peakBytes }: Fidelity): void;
