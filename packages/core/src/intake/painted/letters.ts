import { boxAround } from '../svg/matrix.ts';
import type { Box } from '../../model/design.ts';
import { flatten, mapSegments, segmentsOf } from '../svg/segments.ts';
import { right, union } from '../../layout/placed.ts';
import type { Pixels, TextLine } from '../picture/pixels.ts';
import type { PaintedItem, PaintedPage, PaintedShape, PaintedText } from './painted_page.ts';
import { type Face, faceOf, type Measured } from './known_faces.ts';
import { boxOfOutline } from './outline.ts';
import { wordsByGaps } from './words_by_gaps.ts';
import { fillInto } from './rasterise.ts';

/** Letters of a height of so many pixels are read best. */
const READ_AT = 30;
/** A line is read so often that each letter is, and at most so many lines. */
const TIMES = 4;
const MOST_LINES = 160;
const LINES_A_PICTURE = 40;
/** Of what was read for a letter, at least this share must agree. */
const AGREED = 0.5;

type Letter = PaintedShape & { readonly letter: NonNullable<PaintedShape['letter']> };

interface Line {
  /** Places among the items of the page. */
  readonly places: readonly number[];
  readonly letters: readonly Letter[];
  readonly boxes: readonly Box[];
  /** How many letters each of its words has. */
  readonly words: readonly number[];
}

const isLetter = (item: PaintedItem): item is Letter => item.kind === 'shape' && !!item.letter;

/**
 * A page whose letters were painted as outlines, with text in their place. Which letter an outline is, is read in pictures of its
 * lines, and agreed upon by all places where that outline comes: each is one letter, however often it is misread.
 * @param readText reads text in a picture; null where nothing can, so that only what is written beside outlines is known
 */
export async function withLetters(
  page: PaintedPage,
  readText: ((pixels: Pixels, isPlain: boolean) => Promise<readonly TextLine[]>) | null,
): Promise<PaintedPage> {
  const lines = withoutIcons(linesOf(page.items));
  if (!lines.length) return page;
  const votes = new Map<string, Map<string, number>>();
  const written = new Map(
    lines.flatMap(({ letters }) =>
      letters.flatMap(({ letter: { id, char } }) => (char ? [[id, char] as const] : [])),
    ),
  );
  const unknown = lines.filter(({ letters }) => letters.some(({ letter }) => !written.has(letter.id)));
  for (const some of readText ? inPictures(telling(unknown)) : []) {
    const { pixels, places } = pictureOf(some);
    for (const read of await readText!(pixels, true)) {
      const middle = read.box.y + read.box.height / 2;
      const at = places.findIndex(({ from, to }) => middle >= from && middle < to);
      if (at >= 0) vote(votes, some[at], read.text);
    }
  }
  const known = new Map([...decided(votes, lines), ...written]);
  const faces = facesOf(lines, known);
  const replaced = new Map<number, PaintedText[]>();
  const gone = new Set<number>();
  for (const line of lines) {
    const texts = textOfLine(line, known, faces);
    if (!texts) continue;
    replaced.set(line.places[0], texts);
    line.places.forEach((place) => gone.add(place));
  }
  return {
    ...page,
    items: page.items.flatMap((item, i) => replaced.get(i) ?? (gone.has(i) ? [] : [item])),
  };
}

/** Outlines one after another on one line, of one size and colour. */
function linesOf(items: readonly PaintedItem[]): Line[] {
  const lines: Line[] = [];
  let open: { places: number[]; letters: Letter[]; boxes: Box[] } | null = null;
  const close = (): void => {
    if (open) lines.push({ ...open, words: wordsOf(open.letters, open.boxes) });
    open = null;
  };
  items.forEach((item, i) => {
    if (!isLetter(item)) return close();
    const box = boxAround(flatten(segmentsOf(item.outline)).flat());
    const last: Letter | undefined = open?.letters.at(-1);
    const continues =
      last &&
      last.letter.face === item.letter.face &&
      last.fill === item.fill &&
      Math.abs(last.letter.y - item.letter.y) < 0.5 &&
      box.x > open!.boxes.at(-1)!.x - 1 &&
      box.x - right(open!.boxes.at(-1)!) < 1.2 * Math.max(box.height, open!.boxes.at(-1)!.height);
    if (!continues) {
      close();
      open = { places: [], letters: [], boxes: [] };
    }
    open!.places.push(i);
    open!.letters.push(item);
    open!.boxes.push(box);
  });
  close();
  return lines;
}

/** A font whose outlines always stand alone is one of icons. */
function withoutIcons(lines: readonly Line[]): Line[] {
  const faceOfLine = ({ letters }: Line): string => letters[0].letter.face;
  const ofText = new Set(lines.filter(({ letters }) => letters.length > 1).map(faceOfLine));
  return lines.filter((line) => ofText.has(faceOfLine(line)));
}

/** A gap wider than this beyond what letters of a line are apart, in heights of the line, parts words. */
const WORD_GAP = 0.19;

const wordsOf = (letters: readonly Letter[], boxes: readonly Box[]): number[] =>
  wordsByGaps(
    letters.slice(1).map((_, i) => boxes[i + 1].x - right(boxes[i])),
    WORD_GAP * Math.max(...boxes.map((box) => box.height)),
  );

/** Lines among which each outline comes a few times, the longest first. */
function telling(lines: readonly Line[]): Line[] {
  const seen = new Map<string, number>();
  const keyOf = ({ letter }: Letter): string => letter.id;
  const chosen: Line[] = [];
  for (const line of lines.toSorted((a, b) => b.letters.length - a.letters.length)) {
    if (chosen.length >= MOST_LINES) break;
    if (!line.letters.some((letter) => (seen.get(keyOf(letter)) ?? 0) < TIMES)) continue;
    chosen.push(line);
    for (const letter of line.letters) seen.set(keyOf(letter), (seen.get(keyOf(letter)) ?? 0) + 1);
  }
  return chosen;
}

function inPictures(lines: readonly Line[]): Line[][] {
  return Array.from({ length: Math.ceil(lines.length / LINES_A_PICTURE) }, (_, i) =>
    lines.slice(i * LINES_A_PICTURE, (i + 1) * LINES_A_PICTURE),
  );
}

/** Lines beneath each other, black on white, all of a size that is read well. */
function pictureOf(lines: readonly Line[]): { pixels: Pixels; places: { from: number; to: number }[] } {
  const pad = READ_AT;
  let y = pad;
  let width = 0;
  const drawn = lines.map((line) => {
    const box = union(line.boxes);
    const scale = READ_AT / Math.max(...line.boxes.map(({ height }) => height));
    const from = y;
    y += box.height * scale + pad;
    width = Math.max(width, box.width * scale + 2 * pad);
    return { line, box, scale, from };
  });
  const [w, h] = [Math.ceil(Math.min(width, 6000)), Math.ceil(y)];
  const shades = new Uint8ClampedArray(w * h).fill(255);
  for (const { line, box, scale, from } of drawn)
    for (const { outline } of line.letters)
      fillInto(
        shades,
        w,
        h,
        mapSegments(segmentsOf(outline), [scale, 0, 0, scale, pad - box.x * scale, from - box.y * scale]),
      );
  const data = new Uint8ClampedArray(w * h * 4);
  for (let i = 0; i < shades.length; i++) data.set([shades[i], shades[i], shades[i], 255], 4 * i);
  return {
    pixels: { width: w, height: h, data },
    places: drawn.map(({ from, box, scale }) => ({
      from: from - pad / 2,
      to: from + box.height * scale + pad / 2,
    })),
  };
}

/** What was read for a line counts for its outlines where it has as many letters: word by word, or all of it. */
function vote(votes: Map<string, Map<string, number>>, line: Line, text: string): void {
  const add = (letters: readonly Letter[], chars: readonly string[], weight: number): void =>
    letters.forEach(({ letter }, i) => {
      const own = votes.get(letter.id) ?? new Map<string, number>();
      own.set(chars[i], (own.get(chars[i]) ?? 0) + weight);
      votes.set(letter.id, own);
    });
  const words = text.split(' ').map((word) => [...word]);
  const whole = words.flat();
  if (whole.length === line.letters.length) return add(line.letters, whole, 1);
  if (words.length !== line.words.length) return;
  let at = 0;
  line.words.forEach((count, i) => {
    if (words[i].length === count) add(line.letters.slice(at, at + count), words[i], 1);
    at += count;
  });
}

/** Letters that look alike large and small: only how high they stand tells which they are. */
const ALIKE = 'cosuvwxz';

/** What an outline without any curve or slope can only be: told by where it stands, as readers often mistake it. */
function barOf({ outline, letter }: Letter, tall: number): string | null {
  const bar = boxOfOutline(segmentsOf(outline));
  if (!bar || bar.radii.some(([x]) => x > 0)) return null;
  const { width, height, y } = bar.box;
  const above = letter.y - (y + height);
  if (height > 0.85 * tall && width < 0.4 * height)
    return above < -0.08 * tall ? '|' : height > 1.03 * tall ? 'l' : 'I';
  if (Math.abs(above) < 0.05 * tall && width < 1.6 * height && height < 0.3 * tall) return '.';
  if (above > 0.15 * tall && above < 0.6 * tall && height < 0.25 * tall)
    return width > 1.1 * tall ? '—' : width > 0.6 * tall ? '–' : '-';
  return above < -0.05 * tall && height < 0.2 * tall ? '_' : null;
}

/** The letter of each outline that enough readings agree upon. */
function decided(
  votes: ReadonlyMap<string, ReadonlyMap<string, number>>,
  lines: readonly Line[],
): ReadonlyMap<string, string> {
  const known = new Map<string, string>();
  for (const [id, own] of votes) {
    const sum = [...own.values()].reduce((a, b) => a + b, 0);
    const [best, count] = [...own].sort((a, b) => b[1] - a[1])[0];
    if (count >= AGREED * sum) known.set(id, best);
  }
  // Of each face, how high small letters stand, and capital ones.
  const heights = new Map<string, { small: number[]; tall: number[] }>();
  const heightOf = new Map<string, number>();
  for (const { letters, boxes } of lines)
    letters.forEach(({ letter }, i) => {
      if (heightOf.has(letter.id)) return;
      heightOf.set(letter.id, boxes[i].height);
      const face = heights.get(letter.face) ?? { small: [], tall: [] };
      heights.set(letter.face, face);
      const char = known.get(letter.id) ?? '';
      if (/[aemnr]/.test(char)) face.small.push(boxes[i].height);
      if (/[A-BD-JL-NP-RTY]/.test(char)) face.tall.push(boxes[i].height);
    });
  const middle = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1];
  const seen = new Set<string>();
  for (const one of lines.flatMap(({ letters }) => letters)) {
    const { id, face } = one.letter;
    const { small, tall } = heights.get(face)!;
    if (seen.has(id) || (!small.length && !tall.length)) continue;
    seen.add(id);
    const smallHeight = small.length ? middle(small) : middle(tall) * 0.74;
    const tallHeight = tall.length ? middle(tall) : middle(small) / 0.74;
    const bar = barOf(one, tallHeight);
    const char = known.get(id) ?? '';
    if (bar) known.set(id, bar);
    else if (char && ALIKE.includes(char.toLowerCase()))
      known.set(
        id,
        heightOf.get(id)! > (smallHeight + tallHeight) / 2 ? char.toUpperCase() : char.toLowerCase(),
      );
  }
  return known;
}

/** The face of each group of outlines that are of one font and size. */
function facesOf(lines: readonly Line[], known: ReadonlyMap<string, string>): ReadonlyMap<string, Face> {
  const measured = new Map<string, Measured[]>();
  for (const { letters, boxes, words } of lines) {
    const ends = new Set<number>();
    words.reduce((at, count) => (ends.add(at + count - 1), at + count), 0);
    letters.forEach(({ letter }, i) => {
      const own = measured.get(letter.face) ?? [];
      measured.set(letter.face, own);
      own.push({
        char: known.get(letter.id) ?? '',
        x: letter.x,
        height: boxes[i].height,
        isLast: ends.has(i),
        ...(letter.size ? { size: letter.size } : {}),
      });
    });
  }
  return new Map([...measured].map(([face, letters]) => [face, faceOf(letters)]));
}

/** A gap beyond what a letter takes that is wider than this, in font sizes, is a space. */
const SPACE = 0.14;
/** The room at the sides of most letters together, in font sizes. */
const BEARINGS = 0.12;

/** The words of a line by how wide its letters are, where the face is known; else by what is painted of them. */
function finalWords(
  { letters, boxes }: Line,
  chars: readonly (string | undefined)[],
  { widths, size }: Face,
): number[] {
  const gaps = letters.slice(1).map(({ letter }, i) => {
    const width = widths.get(chars[i] ?? '');
    if (width !== undefined) return letter.x - letters[i].letter.x - width * size;
    return boxes[i + 1].x - right(boxes[i]) - BEARINGS * size;
  });
  return wordsByGaps(gaps, SPACE * size);
}

/** The line as text, where all that is in it is known, but for a few; null where it is a drawing. */
function textOfLine(
  line: Line,
  known: ReadonlyMap<string, string>,
  faces: ReadonlyMap<string, Face>,
): PaintedText[] | null {
  const chars = line.letters.map(({ letter }) => known.get(letter.id));
  const told = chars.filter((char) => char !== undefined && /[\p{L}\p{N}]/u.test(char)).length;
  if (chars.filter((char) => char === undefined).length > 0.1 * chars.length || !told) return null;
  const [first] = line.letters;
  const face = faces.get(first.letter.face)!;
  let at = 0;
  const text = finalWords(line, chars, face)
    .map((count) => {
      const word = chars
        .slice(at, at + count)
        .map((char) => char ?? '')
        .join('');
      at += count;
      return word;
    })
    .join(' ');
  const box = union(line.boxes);
  const { family, weight, size } = face;
  return [
    {
      kind: 'text',
      clips: first.clips,
      opacity: first.opacity,
      ...(first.mask ? { mask: first.mask } : {}),
      text,
      x: first.letter.x,
      y: first.letter.y,
      width: right(box) - first.letter.x,
      size,
      family,
      weight,
      isItalic: false,
      color: typeof first.fill === 'string' ? first.fill : '#000000',
    },
  ];
}
