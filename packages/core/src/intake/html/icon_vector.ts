import type { GlyphOutline } from '../../fonts/outline.ts';
import type { Declarations, Element, ElementSource } from '../../model/design.ts';
import { hexOfCss } from '../painted/colors.ts';
import type { ReadElement } from './reading.ts';

const em = (units: number, perEm = 1): string => `${Math.round((units / perEm) * 10_000) / 10_000}em`;

/** Heights that differ by less than this, in em, are the same. */
const SAME = 0.01;

/** How far a drawing stands out over the line that it stands in, in em. */
export interface Over {
  readonly above: number;
  readonly below: number;
}
const NOT_OVER: Over = { above: 0, below: 0 };

/** What says how letters look, and is nothing to a drawing. */
const OF_LETTERS = new Set(
  'font-family font-style font-weight font-stretch font-variant-caps font-variant-numeric font-feature-settings font-variation-settings letter-spacing text-transform text-rendering'.split(
    ' ',
  ),
);

/**
 * The look of an element that held nothing but the letter of an icon. It no longer needs the font; and where its line is no
 * higher than the letter the drawing alone makes the line, so that what the font of the page is makes no difference.
 */
export function iconHolder(
  base: Declarations,
  outline: GlyphOutline,
): { readonly base: Declarations; readonly over: Over } {
  const line = lineOf(base);
  const height = (outline.ascent - outline.descent) / outline.unitsPerEm;
  if (line === null || line > height + SAME) return { base, over: NOT_OVER };
  const { 'vertical-align': align, ...told } = base;
  const rest = Object.fromEntries(Object.entries(told).filter(([name]) => !OF_LETTERS.has(name)));
  const isOver = height - line >= SAME;
  // Parts of a px that drawings lose would add up from row to row.
  const isBox = /^(inline-)?block$/.test(rest.display ?? '') && rest.height === undefined;
  const around = rest['box-sizing'] === 'content-box' ? 0 : edgesOf(rest);
  return {
    base: {
      ...rest,
      'line-height': '0',
      ...(isOver && isBox && around !== null
        ? { height: around ? `calc(${em(line)} + ${around}px)` : em(line) }
        : {}),
      // Parts of the line are parts of nothing then.
      ...(align
        ? { 'vertical-align': align.endsWith('%') ? em((parseFloat(align) / 100) * line) : align }
        : {}),
    },
    over: isOver ? overOf(outline, line, parseFloat(base['font-size'] ?? '')) : NOT_OVER,
  };
}

/** What stands above and below the line within a box, in px; null where it is not measured in px. */
function edgesOf(base: Declarations): number | null {
  const edges = ['top', 'bottom'].flatMap((side) => [
    base[`padding-${side}`] ?? '0px',
    base[`border-${side}-style`] === 'none' ? '0px' : (base[`border-${side}-width`] ?? '0px'),
  ]);
  return edges.every((edge) => /^[\d.]+px$/.test(edge))
    ? edges.reduce((sum, edge) => sum + parseFloat(edge), 0)
    : null;
}

/**
 * An icon whose letter was cut out of the picture behind it: a drawing is not, and has the colour that this is on the whole.
 * @returns the look as it is where that is no gradient, or the letter hides it
 */
export function withCutOutColor(base: Declarations): Declarations {
  const clip = base['background-clip'] ?? base['-webkit-background-clip'];
  const stops = (base['background-image'] ?? '').match(COLOR)?.flatMap((stop) => hexOfCss(stop) ?? []) ?? [];
  const isClear = CLEAR.test(base['-webkit-text-fill-color'] ?? base.color ?? '');
  if (clip !== 'text' || !isClear || !stops.length) return base;
  const means = [1, 3, 5].map((at) =>
    Math.round(stops.reduce((sum, hex) => sum + parseInt(hex.slice(at, at + 2), 16), 0) / stops.length),
  );
  const rest = Object.fromEntries(Object.entries(base).filter(([name]) => !CUTS_OUT.test(name)));
  return { ...rest, color: `rgb(${means.join(', ')})` };
}
const CLEAR = /^transparent$|^rgba\([^)]*[,/]\s*0\)$/;
const COLOR = /#[\da-f]{3,8}\b|\brgba?\([^)]*\)/gi;
const CUTS_OUT =
  /^(-webkit-)?(background-(clip|image|origin|size|position.*|repeat|attachment)|text-fill-color)$/;

/**
 * How far a letter stands out over its line. Browsers round how high fonts are to whole px, and then what they take away at
 * the upper end.
 * @param line its height in em
 * @param size that of the letter in px
 */
function overOf({ ascent, descent, unitsPerEm }: GlyphOutline, line: number, size: number): Over {
  const [up, down] = [ascent / unitsPerEm, -descent / unitsPerEm];
  if (!(size > 0)) return { above: (up + down - line) / 2, below: (up + down - line) / 2 };
  const [upPx, downPx] = [Math.round(up * size), Math.round(down * size)];
  const baseline = (upPx + Math.floor((line * size - upPx - downPx) / 2)) / size;
  return { above: up - baseline, below: down - (line - baseline) };
}

/** How high a line is in em; null where that is left to the font. */
function lineOf({ 'line-height': line = '', 'font-size': size = '' }: Declarations): number | null {
  if (/^[\d.]+(em)?$/.test(line)) return parseFloat(line);
  const [px, per] = [parseFloat(line), parseFloat(size)];
  return line.endsWith('px') && size.endsWith('px') && per > 0 ? px / per : null;
}

/**
 * An icon as an inline drawing that takes the place, the size and the colour that its letter would have.
 * @param over how far it stands out over its line: letters may, drawings make their line higher
 */
export function iconVector(
  outline: GlyphOutline,
  key: string,
  source: ElementSource,
  name: string,
  read: ReadElement,
  { above, below }: Over = NOT_OVER,
): Element {
  const { path, unitsPerEm, ascent, descent, advance } = outline;
  const height = ascent - descent;
  return {
    key,
    kind: 'vector',
    name,
    tag: 'svg',
    box: read.box,
    style: {
      base: {
        display: 'inline-block',
        width: em(advance, unitsPerEm),
        height: em(height, unitsPerEm),
        'vertical-align': em(descent / unitsPerEm + below),
        ...(above ? { 'margin-top': em(-above) } : {}),
        ...(below ? { 'margin-bottom': em(-below) } : {}),
        fill: 'currentcolor',
        overflow: 'visible',
      },
    },
    attributes: { 'aria-hidden': 'true' },
    vector: {
      tag: 'svg',
      attributes: { viewBox: `0 ${-ascent} ${advance} ${height}` },
      children: [{ tag: 'path', attributes: { d: path }, children: [] }],
    },
    children: [],
    source,
  };
}
