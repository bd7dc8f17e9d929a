import type { FontFace } from '../../model/design.ts';
import { type GlyphOutline, outlineOf } from '../../fonts/outline.ts';
import { isIconFamily } from './web_fonts.ts';
import { unquote } from './style_sheet.ts';

/** Finds the drawing of an icon that a page writes as text in an icon font. */
export interface GlyphSource {
  /**
   * @param families a computed `font-family` list.
   * @returns null when the text is not an icon of a font that is there.
   */
  find(families: string, weight: string, text: string): GlyphOutline | null;
}

/** Whether a text is signs that fonts of icons have where no letters are. */
export const isSign = (text: string): boolean => /^[\uE000-\uF8FF]+$|^[\u{F0000}-\u{10FFFD}]+$/u.test(text);

export class IconGlyphs implements GlyphSource {
  readonly #faces: () => readonly FontFace[];
  readonly #bytes: ReadonlyMap<string, Uint8Array>;
  readonly #known = new Map<string, GlyphOutline | null>();

  constructor(faces: () => readonly FontFace[], bytes: ReadonlyMap<string, Uint8Array>) {
    this.#faces = faces;
    this.#bytes = bytes;
  }

  find(families: string, weight: string, text: string): GlyphOutline | null {
    const family = unquote(families.split(',')[0]);
    if (!text || text.length > 60 || (!isSign(text) && !isIconFamily(family))) return null;
    const key = `${family} ${weight} ${text}`;
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const own = this.#faces().filter((face) => face.family.toLowerCase() === family.toLowerCase());
    const best = own.toSorted((a, b) => distance(a, weight) - distance(b, weight));
    let found: GlyphOutline | null = null;
    for (const face of best) {
      const bytes = this.#bytes.get(face.asset);
      found ??= bytes ? outlineOf(bytes, text) : null;
    }
    this.#known.set(key, found);
    return found;
  }
}

/** How far a face is from a weight; ranges that hold it are at it. */
function distance(face: FontFace, weight: string): number {
  const [from, to = from] = face.weight.split(/\s+/).map(Number);
  const wanted = Number(weight) || 400;
  return wanted < from ? from - wanted : wanted > to ? wanted - to : 0;
}
