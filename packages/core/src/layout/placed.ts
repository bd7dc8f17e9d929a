import type { Box, Element } from '../model/design.ts';

export type TextAlign = 'start' | 'center' | 'end';

/** A drawn thing that has a place and a look but no layout yet: what a picture is read into. */
export interface Placed extends Omit<Element, 'style' | 'children'> {
  /** How it looks, as CSS declarations without any of place or size. */
  readonly look: Readonly<Record<string, string>>;
  readonly children: readonly Placed[];
  /** Width of the border in px, drawn inside `box`. */
  readonly border: number;
  /** For text, and what is as wide as its text: where the text holds on to. The width is then an estimate. */
  readonly soft?: { readonly align: TextAlign; readonly anchor: number };
  readonly piece?: TextPiece;
}

/** Text as it was drawn piece by piece, as far as pieces are joined again. */
export interface TextPiece {
  /** Size of the font in px. */
  readonly size: number;
  readonly baseline: number;
  /** Where the last letter ends; exact where the drawing says so, or where only one letter was measured. */
  readonly end: number;
  readonly isExact: boolean;
}

export const right = (box: Box): number => box.x + box.width;
export const bottom = (box: Box): number => box.y + box.height;
export const middle = (box: Box): number => box.x + box.width / 2;
export const centre = (box: Box): number => box.y + box.height / 2;

export function union(boxes: readonly Box[]): Box {
  const x = Math.min(...boxes.map((b) => b.x));
  const y = Math.min(...boxes.map((b) => b.y));
  return { x, y, width: Math.max(...boxes.map(right)) - x, height: Math.max(...boxes.map(bottom)) - y };
}

export const contains = (outer: Box, inner: Box, slack: number): boolean =>
  inner.x >= outer.x - slack &&
  inner.y >= outer.y - slack &&
  right(inner) <= right(outer) + slack &&
  bottom(inner) <= bottom(outer) + slack;

export const hasLook = (item: Placed): boolean => Object.keys(item.look).length > 0;
