import { type FontName, fontNamed, type Matrix } from '@tovel/core';

export interface PdfFont extends FontName {
  /** By which its outlines are asked for. */
  readonly id: string;
  readonly isVertical: boolean;
  /** How its letters are drawn, of a font that draws each as a page draws. */
  readonly glyphs: Readonly<
    Record<string, { fnArray: readonly number[]; argsArray: readonly unknown[] }>
  > | null;
  readonly matrix: Matrix;
  /** What one unit of its widths is, in font sizes. */
  readonly unit: number;
}

/** A letter as the library says it. */
export interface Glyph {
  readonly unicode: string;
  readonly fontChar: string;
  readonly width: number;
  readonly operatorListId?: string;
  readonly isSpace?: boolean;
}

export function pdfFont(id: string, known: unknown): PdfFont {
  const font = known as {
    name?: string;
    bold?: boolean;
    black?: boolean;
    italic?: boolean;
    vertical?: boolean;
    fallbackName?: string;
    fontMatrix?: number[];
    isType3Font?: boolean;
    charProcOperatorList?: PdfFont['glyphs'];
  } | null;
  const named = fontNamed(font?.name ?? '', font?.fallbackName ?? 'sans-serif');
  return {
    ...named,
    id,
    weight: named.weight === 400 && (font?.bold || font?.black) ? 700 : named.weight,
    isItalic: named.isItalic || !!font?.italic,
    isVertical: !!font?.vertical,
    glyphs: font?.isType3Font ? (font.charProcOperatorList ?? {}) : null,
    matrix: (font?.fontMatrix ?? [0.001, 0, 0, 0.001, 0, 0]) as unknown as Matrix,
    unit: font?.fontMatrix?.[0] ?? 0.001,
  };
}

/** A character that stands for a picture of a font's own: it means nothing where that font is not. */
export const isPrivate = (text: string): boolean => /^[\ue000-\uf8ff\u{f0000}-\u{10fffd}]+$/u.test(text);
