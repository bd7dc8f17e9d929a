import { drawLines, type LinesDrawing, type LinesInput } from '@tovel/core';
import { expose } from 'comlink';

/** Lays the lines out, away from the interface. */
const lines = {
  draw: (input: LinesInput, folded: readonly string[], aspect: number): LinesDrawing =>
    drawLines(input, new Set(folded), aspect),
};

export type LinesWorker = typeof lines;

expose(lines);
