import type { TextAlign, TextPiece } from '../../layout/placed.ts';
import type { Box, Declarations } from '../../model/design.ts';
import { isUpright, mapPoint, type Matrix, scaleOf } from './matrix.ts';
import { lengthOf } from './shape.ts';
import { type SvgStyle, styleOf, type SvgStyleSheet } from './style.ts';
import { childElements, type XmlElement } from './xml.ts';

/** Characters in one style, on one line. */
export interface TextRun {
  readonly text: string;
  readonly style: Declarations;
  readonly path: string;
}

/** A text of one or more lines, as it stands on the screen. */
export interface ReadText {
  readonly lines: readonly (readonly TextRun[])[];
  readonly style: Declarations;
  readonly align: TextAlign;
  /** Where the alignment holds on to: left edge, middle or right edge. */
  readonly anchor: number;
  /** Height and vertical place are exact for usual fonts; the width is an estimate. */
  readonly box: Box;
  /** Where it ends, for joining it with what follows on its line; null for more than one line. */
  readonly piece: TextPiece | null;
}

/**
 * From the top of a line to its baseline beyond half the line, in font sizes: half of ascent less descent. It is
 * 0.35 within 0.03 for the usual sans-serif fonts.
 */
const BASELINE = 0.35;
const LINE_HEIGHT = 1.3;

interface Piece extends TextRun {
  readonly x: number;
  readonly y: number;
  readonly startsLine: boolean;
  /** Where its last letter ends, where letters are placed one by one; else not a number. */
  readonly lastEnd: number;
}

/** Reads a `text` element; null when it holds no characters or does not stand upright. */
export function readText(
  element: XmlElement,
  parents: readonly XmlElement[],
  style: SvgStyle,
  matrix: Matrix,
  sheet: SvgStyleSheet,
): ReadText | null {
  if (!isUpright(matrix)) return null;
  const pieces = collectPieces(element, parents, style, matrix, sheet);
  const lines: Piece[][] = [];
  for (const piece of pieces) {
    if (piece.startsLine || !lines.length) lines.push([piece]);
    else lines.at(-1)!.push(piece);
  }
  const kept = lines.map(trimLine).filter((line) => line.length > 0);
  if (!kept.length) return null;
  const own = textStyle(style, matrix);
  const size = parseFloat(kept[0][0].style['font-size'] ?? own['font-size']);
  const spacing = kept.length > 1 ? (kept.at(-1)![0].y - kept[0][0].y) / (kept.length - 1) : 0;
  const lineHeight = spacing > size * 0.8 ? round(spacing) : Math.round(size * LINE_HEIGHT);
  const given = lengthOf(element.attributes.textLength) * Math.abs(matrix[0]);
  const estimated = Math.max(
    ...kept.map((line) => line.reduce((w, run) => w + textWidth(run.text, { ...own, ...run.style }), 0)),
  );
  // Letters that are placed one by one say where a line ends but for the last of them.
  const spread = Math.max(...kept.map((line) => Math.max(...line.map((run) => run.lastEnd)) - line[0].x));
  const width = given > 0 ? given : Number.isFinite(spread) && spread > 0 ? spread : estimated;
  const align: TextAlign =
    style['text-anchor'] === 'middle' ? 'center' : style['text-anchor'] === 'end' ? 'end' : 'start';
  const anchor = align === 'start' ? Math.min(...kept.map((line) => line[0].x)) : kept[0][0].x;
  const x = align === 'start' ? anchor : align === 'center' ? anchor - width / 2 : anchor - width;
  const y = kept[0][0].y - lineHeight / 2 - BASELINE * size;
  return {
    lines: kept.map((line) => line.map(({ text, style: s, path }) => ({ text, style: s, path }))),
    style: { ...own, 'line-height': `${lineHeight}px` },
    align,
    anchor: round(anchor),
    box: { x: round(x), y: round(y), width: round(width), height: round(lineHeight * kept.length) },
    piece:
      kept.length > 1 || align !== 'start'
        ? null
        : {
            size,
            baseline: round(kept[0][0].y),
            end: round(x + width),
            isExact:
              given > 0 || (Number.isFinite(spread) && spread > 0) || [...kept[0][0].text].length === 1,
          },
  };
}

function collectPieces(
  element: XmlElement,
  parents: readonly XmlElement[],
  style: SvgStyle,
  matrix: Matrix,
  sheet: SvgStyleSheet,
): Piece[] {
  const pieces: Piece[] = [];
  const own = textStyle(style, matrix);
  const first = (list: string | undefined): number | null =>
    list?.trim() ? lengthOf(list.trim().split(/[\s,]+/)[0]) : null;
  let at = { x: first(element.attributes.x) ?? 0, y: first(element.attributes.y) ?? 0 };
  let fresh = true;
  const visit = (node: XmlElement, above: readonly XmlElement[], nodeStyle: SvgStyle): void => {
    if (nodeStyle.display === 'none') return;
    if (node !== element) {
      const [x, y, dy] = [
        first(node.attributes.x),
        first(node.attributes.y),
        fontRelative(node.attributes.dy, nodeStyle),
      ];
      const next = { x: x ?? at.x, y: (y ?? at.y) + dy };
      if (Math.abs(next.y - at.y) > 0.5) fresh = true;
      at = next;
    }
    for (const child of node.children) {
      if (typeof child === 'string') {
        const written = node.attributes['xml:space'] === 'preserve' ? child : child.replace(/\s+/g, ' ');
        if (!written) continue;
        const [x, y] = mapPoint(matrix, at.x, at.y);
        const { text, end } = spaced(written, node.attributes.x, nodeStyle);
        pieces.push({
          text,
          lastEnd: end * matrix[0] + matrix[4],
          style: difference(textStyle(nodeStyle, matrix), own),
          path: node.path,
          x,
          y,
          startsLine: fresh && text.trim() !== '',
        });
        if (text.trim()) fresh = false;
      } else if (child.name === 'tspan' || child.name === 'a') {
        const under = [...above, node];
        visit(child, under, styleOf(child, under, nodeStyle, sheet));
      }
    }
  };
  visit(element, parents, style);
  return pieces;
}

/** A gap wider than this, in font sizes, between two letters is a space that was not written. */
const SPACE_GAP = 0.16;

/**
 * A text whose letters each have a place of their own. Where one stands further away than the letter before it is
 * wide, a space was meant.
 */
function spaced(written: string, xs: string | undefined, style: SvgStyle): { text: string; end: number } {
  const places = (xs ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const letters = [...written.trim()];
  if (places.length < 2 || letters.length < 2 || places.some((place) => !Number.isFinite(place)))
    return { text: written, end: NaN };
  const size = fontSize(style);
  const css = {
    'font-size': `${size}px`,
    ...(style['font-weight'] ? { 'font-weight': style['font-weight'] } : {}),
  };
  let text = '';
  letters.forEach((letter, i) => {
    text += letter;
    if (i + 1 >= letters.length || i + 1 >= places.length) return;
    const gap = places[i + 1] - places[i] - textWidth(letter, css);
    if (gap > size * SPACE_GAP && letter !== ' ' && letters[i + 1] !== ' ') text += ' ';
  });
  const last = Math.min(letters.length, places.length) - 1;
  const rest = letters.slice(last).join('');
  return { text, end: places[last] + textWidth(rest, css) };
}

function trimLine(line: readonly Piece[]): Piece[] {
  const runs = line.map((run) => ({ ...run }));
  while (runs.length && !runs[0].text.trim()) runs.shift();
  while (runs.length && !runs.at(-1)!.text.trim()) runs.pop();
  if (!runs.length) return [];
  runs[0].text = runs[0].text.trimStart();
  runs.at(-1)!.text = runs.at(-1)!.text.trimEnd();
  const joined: Piece[] = [];
  for (const run of runs) {
    const last = joined.at(-1);
    if (last && JSON.stringify(last.style) === JSON.stringify(run.style))
      joined[joined.length - 1] = { ...last, text: last.text + run.text, lastEnd: run.lastEnd };
    else joined.push(run);
  }
  return joined;
}

const fontRelative = (value: string | undefined, style: SvgStyle): number => {
  const em = /^\s*(-?[\d.]+)em\s*$/.exec(value ?? '');
  return em ? Number(em[1]) * fontSize(style) : lengthOf(value?.split(/[\s,]+/)[0]);
};

const fontSize = (style: SvgStyle): number => lengthOf(style['font-size'], 0, 16);

/** The CSS declarations that a text's own style amounts to. */
function textStyle(style: SvgStyle, matrix: Matrix): Record<string, string> {
  const scale = scaleOf(matrix);
  const css: Record<string, string> = {
    'font-size': `${round(fontSize(style) * scale)}px`,
    color:
      !style.fill || style.fill.startsWith('url(')
        ? '#000000'
        : style.fill === 'currentColor'
          ? (style.color ?? '#000000')
          : style.fill,
  };
  if (style['font-family']) css['font-family'] = style['font-family'].replace(/&quot;/g, '"');
  if (style['font-weight'] && style['font-weight'] !== 'normal' && style['font-weight'] !== '400')
    css['font-weight'] = style['font-weight'];
  if (style['font-style'] && style['font-style'] !== 'normal') css['font-style'] = style['font-style'];
  if (style['letter-spacing'] && style['letter-spacing'] !== 'normal')
    css['letter-spacing'] = /^-?[\d.]+$/.test(style['letter-spacing'])
      ? `${style['letter-spacing']}px`
      : style['letter-spacing'];
  if (style['text-decoration'] && style['text-decoration'] !== 'none')
    css['text-decoration-line'] = style['text-decoration'];
  const opacity = Number(style['fill-opacity'] ?? 1) * Number(style.opacity ?? 1);
  if (opacity < 1) css.opacity = String(round(opacity));
  return css;
}

function difference(style: Record<string, string>, from: Record<string, string>): Record<string, string> {
  return Object.fromEntries(Object.entries(style).filter(([name, value]) => from[name] !== value));
}

const round = (n: number): number => Math.round(n * 100) / 100;

const WIDTHS: readonly (readonly [RegExp, number])[] = [
  [/[iljt.,:;'|!()[\]f]/, 0.29],
  [/[ r-]/, 0.32],
  [/[mwMW@%]/, 0.85],
  [/[A-Z]/, 0.66],
];

/** How wide a letter is in most fonts, in font sizes. */
export const letterWidth = (char: string): number => WIDTHS.find(([set]) => set.test(char))?.[1] ?? 0.54;

/** Estimated width of a line in px: a pure core has no fonts to measure with. */
function textWidth(text: string, style: Declarations): number {
  const size = parseFloat(style['font-size']);
  const spacing = parseFloat(style['letter-spacing'] ?? '0') || 0;
  const weight = style['font-weight'];
  const bold = weight === 'bold' || Number(weight) >= 600 ? 1.06 : 1;
  let ems = 0;
  for (const char of text) ems += letterWidth(char);
  return ems * size * bold + spacing * text.length;
}

/** Whether a `text` is turned or skewed, so that it has to stay a drawing. */
export const hasText = (element: XmlElement): boolean =>
  element.name === 'text' || element.name === 'foreignObject' || childElements(element).some(hasText);
