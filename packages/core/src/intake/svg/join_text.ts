import type { Placed, TextPiece } from '../../layout/placed.ts';
import { equalJson } from '../../json/json.ts';

/** Gaps on one line, in font sizes: up to the first the pieces are one word, up to the second there is a space. */
const WORD_GAP = 0.16;
const SPACE_GAP = 0.75;
/** Lines of a paragraph stand at most this many font sizes apart. */
const LINE_STEP = 1.8;

/**
 * Joins texts that were drawn piece by piece, as converters write them: letters and parts of words to lines, and lines
 * of one look beneath each other to paragraphs.
 * @param isSplit whether the whole drawing is written so; else only pieces whose places are exact are joined.
 */
export function joinTexts(items: readonly Placed[], isSplit: boolean): Placed[] {
  const lines: Placed[] = [];
  for (const item of items) {
    const last = lines.at(-1);
    const joined = last && joinOnLine(last, item);
    if (joined) lines[lines.length - 1] = joined;
    else lines.push(item);
  }
  return isSplit ? joinLines(lines) : lines;
}

type Line = Placed & { readonly piece: TextPiece; readonly text: string };

const isLine = (item: Placed): item is Line =>
  item.kind === 'text' && !!item.piece && item.text !== undefined;

function joinOnLine(a: Placed, b: Placed): Placed | null {
  if (!isLine(a) || !isLine(b) || !a.piece.isExact || !sameLook(a, b)) return null;
  const { size } = a.piece;
  if (Math.abs(a.piece.baseline - b.piece.baseline) > size * 0.1) return null;
  const gap = b.box.x - a.piece.end;
  if (gap < -size * 0.3 || gap > size * SPACE_GAP) return null;
  const isApart = gap > size * WORD_GAP && !a.text.endsWith(' ') && !b.text.startsWith(' ');
  const text = a.text + (isApart ? ' ' : '') + b.text;
  return {
    ...a,
    text,
    name: a.name === a.text.replace(/\s+/g, ' ') ? text : a.name,
    box: { ...a.box, width: Math.max(a.box.width, b.box.x + b.box.width - a.box.x) },
    piece: { ...b.piece, isExact: true },
  };
}

function joinLines(items: readonly Placed[]): Placed[] {
  const made: Placed[] = [];
  let first: Line | null = null;
  for (const item of items) {
    const last = made.at(-1);
    if (first && last && isLine(item) && continues(first, last as Line, item)) {
      const step = (item.piece.baseline - first.piece.baseline) / last.text!.split('\n').length;
      const text = `${last.text}\n${item.text}`;
      const height = Math.round(step * 100) / 100;
      const count = text.split('\n').length;
      made[made.length - 1] = {
        ...last,
        text,
        name: text.replace(/\s+/g, ' '),
        look: { ...last.look, 'line-height': `${height}px`, 'white-space': 'pre-line' },
        box: {
          x: first.box.x,
          // The first baseline stays where it was drawn.
          y: first.piece.baseline - height / 2 - 0.35 * first.piece.size,
          width: Math.max(last.box.width, item.box.width),
          height: height * count,
        },
        piece: item.piece,
      };
      continue;
    }
    made.push(item);
    first = isLine(item) ? item : null;
  }
  return made;
}

function continues(first: Line, last: Line, next: Line): boolean {
  const { size } = first.piece;
  const step = next.piece.baseline - last.piece.baseline;
  const before =
    last === first || !last.text.includes('\n')
      ? step
      : (last.piece.baseline - first.piece.baseline) / (last.text.split('\n').length - 1);
  const longest = Math.max(first.box.width, last.box.width, next.box.width);
  return (
    sameLook(first, next) &&
    Math.abs(first.box.x - next.box.x) < 1 &&
    step > size * 0.9 &&
    step < size * LINE_STEP &&
    Math.abs(step - before) < 1 &&
    // A short line ends its paragraph.
    last.piece.end - last.box.x > longest * 0.7
  );
}

function sameLook(a: Placed, b: Placed): boolean {
  const strip = ({ 'line-height': _height, 'white-space': _space, ...look }: Placed['look']): object => look;
  return equalJson(strip(a.look), strip(b.look));
}
