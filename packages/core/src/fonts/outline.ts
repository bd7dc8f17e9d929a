import * as fontkit from 'fontkit';

/** A text drawn as one path, in units of the font with y downwards and the baseline at 0. */
export interface GlyphOutline {
  /** Path data as in SVG. */
  readonly path: string;
  readonly unitsPerEm: number;
  readonly ascent: number;
  /** Below the baseline, and so negative. */
  readonly descent: number;
  readonly advance: number;
}

const fonts = new WeakMap<Uint8Array, fontkit.Font | null>();

function open(bytes: Uint8Array): fontkit.Font | null {
  let font = fonts.get(bytes);
  if (font === undefined) {
    try {
      const made = fontkit.create(bytes as unknown as Buffer);
      font = 'fonts' in made ? made.fonts[0] : made;
    } catch {
      font = null;
    }
    fonts.set(bytes, font);
  }
  return font;
}

/**
 * Draws a text, ligatures joined, in a font file (TrueType, OpenType, WOFF or WOFF2).
 * @returns null when the file is no font, or has no single drawing for the text: names of icons that are not in the
 *   font would otherwise be drawn letter by letter.
 */
export function outlineOf(bytes: Uint8Array, text: string): GlyphOutline | null {
  const font = open(bytes);
  if (!font) return null;
  try {
    const run = font.layout(text, ['liga', 'rlig', 'calt', 'clig', 'dlig']);
    const drawn = run.glyphs.filter((glyph) => glyph.path.commands.length);
    if (drawn.length !== 1 || drawn[0].id === 0) return null;
    const at = run.glyphs.indexOf(drawn[0]);
    const shift = run.positions.slice(0, at).reduce((sum, position) => sum + position.xAdvance, 0);
    return {
      path: flipped(drawn[0].path.commands as readonly Command[], shift),
      unitsPerEm: font.unitsPerEm,
      ascent: font.ascent,
      descent: font.descent,
      advance: run.positions.reduce((sum, position) => sum + position.xAdvance, 0),
    };
  } catch {
    // A damaged table is as good as a missing glyph.
    return null;
  }
}

interface Command {
  readonly command: string;
  readonly args: readonly number[];
}

const LETTERS: Readonly<Record<string, string>> = {
  moveTo: 'M',
  lineTo: 'L',
  quadraticCurveTo: 'Q',
  bezierCurveTo: 'C',
  closePath: 'Z',
};

/** Fonts measure upwards, drawings downwards. */
function flipped(commands: readonly Command[], shift: number): string {
  return commands
    .map(
      ({ command, args }) => LETTERS[command] + args.map((n, i) => round(i % 2 ? -n : n + shift)).join(' '),
    )
    .join('');
}

const round = (n: number): number => Math.round(n * 10) / 10;
