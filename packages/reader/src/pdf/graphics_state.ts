import type { Clip, Matrix, Paint, PaintedItem } from '@tovel/core';
import type { PdfFont } from './pdf_font.ts';

/** How the next thing is painted. */
export interface GraphicsState {
  matrix: Matrix;
  /** From patterns to the page: the matrix that held where this content began. */
  base: Matrix;
  fill: Paint | PatternFill | null;
  stroke: Paint | PatternFill | null;
  lineWidth: number;
  isDashed: boolean;
  fillAlpha: number;
  strokeAlpha: number;
  /** Of all that is painted within a group. */
  groupAlpha: number;
  clips: readonly Clip[];
  mask: readonly PaintedItem[] | null;
  font: PdfFont | null;
  size: number;
  charSpacing: number;
  wordSpacing: number;
  leading: number;
  stretch: number;
  rise: number;
  mode: number;
}

/** A tile that is painted over and over. */
export interface PatternFill {
  readonly kind: 'tile';
  readonly operators: { readonly fnArray: readonly number[]; readonly argsArray: readonly unknown[] };
  readonly matrix: Matrix;
  readonly box: readonly [left: number, top: number, right: number, bottom: number];
  readonly step: readonly [x: number, y: number];
}

export const isTile = (fill: GraphicsState['fill']): fill is PatternFill =>
  !!fill && typeof fill !== 'string' && fill.kind === 'tile';

export const firstState = (matrix: Matrix): GraphicsState => ({
  matrix,
  base: matrix,
  fill: '#000000',
  stroke: '#000000',
  lineWidth: 1,
  isDashed: false,
  fillAlpha: 1,
  strokeAlpha: 1,
  groupAlpha: 1,
  clips: [],
  mask: null,
  font: null,
  size: 0,
  charSpacing: 0,
  wordSpacing: 0,
  leading: 0,
  stretch: 1,
  rise: 0,
  mode: 0,
});
