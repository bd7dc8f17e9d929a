import { FACE_WIDTHS, LETTERS } from './face_widths.ts';

export interface Face {
  readonly family: string;
  readonly weight: number;
  /** In px. */
  readonly size: number;
  /** How wide its letters are, in font sizes, as far as that is known. */
  readonly widths: ReadonlyMap<string, number>;
}

/** A letter of a line: what it is, where it begins, and whether the next one belongs to the same word. */
export interface Measured {
  readonly char: string;
  readonly x: number;
  readonly height: number;
  readonly isLast: boolean;
  /** In px, where that is known. */
  readonly size?: number;
}

const CHARS = [...LETTERS];
const FACES: readonly Omit<Face, 'size'>[] = FACE_WIDTHS.map(([family, weight, widths]) => ({
  family,
  weight,
  widths: new Map(widths.split(' ').map((width, i) => [CHARS[i], Number(width) / 1000])),
}));
/** A face fits where half of the letters are as wide as its own within this, in font sizes. */
const FITS = 0.012;
/** Height of capital letters in most fonts, in font sizes, and of small ones. */
const CAPITALS = 0.7;

const middle = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1];

/**
 * The face that letters are set in, told by how far each is from the next; where none of those that are known fits, its size by how
 * high they stand.
 */
export function faceOf(letters: readonly Measured[]): Face {
  const steps = letters.flatMap(({ char, x, isLast }, i) =>
    isLast || !letters[i + 1] ? [] : [{ char, step: letters[i + 1].x - x }],
  );
  const tall = letters.filter(({ char }) => /[A-Zbdfhklt0-9]/.test(char)).map(({ height }) => height);
  const tallest = tall.length ? middle(tall) : Math.max(...letters.map(({ height }) => height));
  const known = letters.find(({ size }) => size !== undefined)?.size;
  const byHeight = rounded(known ?? tallest / CAPITALS);
  const found = FACES.flatMap(({ family, weight, widths }) => {
    const fit = steps.flatMap(({ char, step }) => {
      const width = widths.get(char);
      return width ? [{ width, step }] : [];
    });
    if (fit.length < 4) return [];
    const size = known ?? middle(fit.map(({ width, step }) => step / width));
    const off = middle(fit.map(({ width, step }) => Math.abs(step / size - width)));
    // One width fits letters of one width, whatever the size is.
    return Math.abs(size - byHeight) < 0.25 * byHeight ? [{ family, weight, widths, size, off }] : [];
  }).sort((a, b) => a.off - b.off)[0];
  return found && found.off < FITS
    ? { family: found.family, weight: found.weight, widths: found.widths, size: rounded(found.size) }
    : { family: 'sans-serif', weight: 400, widths: new Map(), size: byHeight };
}

/** Sizes are mostly written in tenths; what is near a whole one is that. */
const rounded = (size: number): number =>
  Math.abs(size - Math.round(size)) < 0.015 * size ? Math.round(size) : Math.round(size * 10) / 10;
