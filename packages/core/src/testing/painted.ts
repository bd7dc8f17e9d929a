import type { PaintedItem, PaintedPage, PaintedShape, PaintedText } from '../intake/painted/painted_page.ts';

export const boxPath = (x: number, y: number, width: number, height: number): string =>
  `M${x} ${y}L${x + width} ${y}L${x + width} ${y + height}L${x} ${y + height}Z`;

export const paintedShape = (outline: string, more: Partial<PaintedShape> = {}): PaintedShape => ({
  kind: 'shape',
  clips: [],
  opacity: 1,
  outline,
  isEvenOdd: false,
  fill: '#336699',
  stroke: null,
  ...more,
});

export const paintedText = (
  text: string,
  x: number,
  y: number,
  width: number,
  more: Partial<PaintedText> = {},
): PaintedText => ({
  kind: 'text',
  clips: [],
  opacity: 1,
  text,
  x,
  y,
  width,
  size: 16,
  family: 'Arial, sans-serif',
  weight: 400,
  isItalic: false,
  color: '#112233',
  ...more,
});

export const paintedPage = (items: readonly PaintedItem[], more: Partial<PaintedPage> = {}): PaintedPage => ({
  width: 800,
  height: 600,
  items,
  links: [],
  leftOut: {},
  ...more,
});
