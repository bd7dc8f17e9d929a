import type { Box, FoundRegion } from '../../model/design.ts';
import type { Pixels, TextLine } from './pixels.ts';

/*
 * Finds rectangles, rows and text lines in a picture of a screen.
 *
 * Screens are drawn with flat fills, so the picture is cut into areas of one colour (connected components over runs,
 * after Rosenfeld and Pfaltz, 1966). An area that fills most of the box around it is a rectangle: a field, a button, a
 * card. Small areas that stand close on one line are the letters of a text. Rectangles of one size above each other are
 * rows.
 */

/** Colours this near, in each channel, are one fill. */
const TOLERANCE = 10;
/** Smaller than this, in px, nothing is a control. */
const CONTROL = { width: 24, height: 16 };
/** A rectangle fills at least this much of its box; what lies on it does not count against it. */
const FILLED = 0.86;
/** Letters are at most this high, in px. */
const LETTER_HEIGHT = 64;
const MAX_REGIONS = 400;

interface Area {
  left: number;
  top: number;
  right: number;
  bottom: number;
  size: number;
  color: number;
}

/** @param lines text that was read in the picture; a line that was only seen gives way to one that was read. */
export function findRegions(pixels: Pixels, lines: readonly TextLine[] = []): FoundRegion[] {
  const areas = areasOf(pixels);
  const whole = pixels.width * pixels.height;
  const ground = areas.reduce<Area | null>(
    (most, area) => (!most || area.size > most.size ? area : most),
    null,
  );
  const boxes = areas.filter((area) => {
    const [width, height] = [area.right - area.left, area.bottom - area.top];
    if (area === ground || width < CONTROL.width || height < CONTROL.height) return false;
    if (width * height > whole * 0.9) return false;
    return isRectangle(area, pixels);
  });
  const rectangles = withoutFrames(boxes.map(boxOf));
  const seen = textLinesIn(areas, rectangles).filter(
    (box) => !lines.some((line) => overlap(line.box, box) > 0.3),
  );
  const rows = rowsAmong(rectangles);
  const found: FoundRegion[] = [
    ...rectangles.map((box): FoundRegion => ({
      kind: rows.has(box) ? 'row' : 'box',
      box,
      confidence: rows.has(box) ? 0.85 : 0.75,
    })),
    ...lines
      .filter((line) => line.text.trim() && line.confidence > 0.4)
      .map((line): FoundRegion => ({
        kind: 'text',
        box: line.box,
        text: line.text.trim(),
        confidence: line.confidence,
      })),
    ...seen.map((box): FoundRegion => ({ kind: 'text', box, confidence: 0.5 })),
  ];
  return found.sort((a, b) => a.box.y - b.box.y || a.box.x - b.box.x).slice(0, MAX_REGIONS);
}

const boxOf = (area: Area): Box => ({
  x: area.left,
  y: area.top,
  width: area.right - area.left,
  height: area.bottom - area.top,
});

/** Areas of one colour, each with the box around it. */
function areasOf({ width, height, data }: Pixels): Area[] {
  const parent: number[] = [];
  const areas: Area[] = [];
  const find = (label: number): number => {
    let root = label;
    while (parent[root] !== root) root = parent[root];
    while (parent[label] !== root) [parent[label], label] = [root, parent[label]];
    return root;
  };
  const join = (a: number, b: number): void => {
    const [one, two] = [find(a), find(b)];
    if (one === two) return;
    parent[two] = one;
    const [into, from] = [areas[one], areas[two]];
    into.left = Math.min(into.left, from.left);
    into.top = Math.min(into.top, from.top);
    into.right = Math.max(into.right, from.right);
    into.bottom = Math.max(into.bottom, from.bottom);
    into.color = mixed(into, from);
    into.size += from.size;
  };
  const colorAt = (x: number, y: number): number => {
    const i = (y * width + x) * 4;
    return (data[i] << 16) | (data[i + 1] << 8) | data[i + 2];
  };
  let above: { from: number; to: number; label: number; color: number }[] = [];
  for (let y = 0; y < height; y++) {
    const runs: typeof above = [];
    for (let x = 0; x < width;) {
      const from = x;
      const color = colorAt(x, y);
      while (x < width && isNear(colorAt(x, y), color)) x++;
      const label = parent.length;
      parent.push(label);
      areas.push({ left: from, top: y, right: x, bottom: y + 1, size: x - from, color });
      runs.push({ from, to: x, label, color });
    }
    // Both lists are in order, so that one walk over the two finds every pair that touches.
    let a = 0;
    for (const run of runs) {
      while (a < above.length && above[a].to <= run.from) a++;
      for (let k = a; k < above.length && above[k].from < run.to; k++)
        // Compared with the whole area above, so that soft edges do not lead from one fill to the next.
        if (isNear(areas[find(above[k].label)].color, run.color)) join(above[k].label, run.label);
    }
    above = runs;
  }
  return areas.filter((_, label) => parent[label] === label);
}

/** The mean colour of two areas. */
function mixed(a: Area, b: Area): number {
  const share = b.size / (a.size + b.size);
  let color = 0;
  for (const shift of [16, 8, 0]) {
    const [one, two] = [(a.color >> shift) & 255, (b.color >> shift) & 255];
    color |= Math.round(one + (two - one) * share) << shift;
  }
  return color;
}

function isNear(a: number, b: number): boolean {
  return (
    Math.abs((a >> 16) - (b >> 16)) <= TOLERANCE &&
    Math.abs(((a >> 8) & 255) - ((b >> 8) & 255)) <= TOLERANCE &&
    Math.abs((a & 255) - (b & 255)) <= TOLERANCE
  );
}

/** Whether an area's colour stands along most of its edges: text and pictures may lie within. */
function isRectangle(area: Area, { width, data }: Pixels): boolean {
  const [w, h] = [area.right - area.left, area.bottom - area.top];
  if (area.size >= w * h * FILLED) return true;
  // Rounded corners are not part of the edge.
  const inset = Math.min(16, Math.floor(Math.min(w, h) / 3));
  let [hits, looks] = [0, 0];
  const look = (x: number, y: number): void => {
    const i = (y * width + x) * 4;
    looks++;
    if (isNear((data[i] << 16) | (data[i + 1] << 8) | data[i + 2], area.color)) hits++;
  };
  for (let x = area.left + inset; x < area.right - inset; x += 2) {
    look(x, area.top);
    look(x, area.bottom - 1);
  }
  for (let y = area.top + inset; y < area.bottom - inset; y += 2) {
    look(area.left, y);
    look(area.right - 1, y);
  }
  return looks > 0 && hits / looks > 0.92;
}

/** A border and what it goes around are one thing: of boxes that nearly coincide the outer one stays. */
function withoutFrames(boxes: readonly Box[]): Box[] {
  const bySize = [...boxes].sort((a, b) => b.width * b.height - a.width * a.height);
  const kept: Box[] = [];
  for (const box of bySize)
    if (
      !kept.some(
        (other) =>
          Math.abs(other.x - box.x) <= 4 &&
          Math.abs(other.y - box.y) <= 4 &&
          Math.abs(other.x + other.width - box.x - box.width) <= 4 &&
          Math.abs(other.y + other.height - box.y - box.height) <= 4,
      )
    )
      kept.push(box);
  return kept;
}

/** Joins small areas that stand on one line, no further apart than their own height. */
function textLinesIn(areas: readonly Area[], rectangles: readonly Box[]): Box[] {
  const letters = areas
    .filter((area) => {
      const [width, height] = [area.right - area.left, area.bottom - area.top];
      return (
        height >= 5 &&
        height <= LETTER_HEIGHT &&
        width <= LETTER_HEIGHT * 1.5 &&
        area.size >= 6 &&
        area.size < width * height * 0.95
      );
    })
    .map(boxOf)
    .filter((box) => !rectangles.some((other) => overlap(box, other) > 0.9 && other.height === box.height))
    .sort((a, b) => a.x - b.x);
  const lines: Box[] = [];
  for (const letter of letters) {
    const line = lines.find((candidate) => {
      const middle = letter.y + letter.height / 2;
      const gap = letter.x - candidate.x - candidate.width;
      return (
        middle > candidate.y &&
        middle < candidate.y + candidate.height &&
        gap < Math.max(candidate.height, letter.height) * 0.9 &&
        letter.height < candidate.height * 2.5
      );
    });
    if (!line) {
      lines.push({ ...letter });
      continue;
    }
    const right = Math.max(line.x + line.width, letter.x + letter.width);
    const bottom = Math.max(line.y + line.height, letter.y + letter.height);
    const grown = line as { -readonly [K in keyof Box]: Box[K] };
    grown.y = Math.min(line.y, letter.y);
    grown.width = right - line.x;
    grown.height = bottom - grown.y;
  }
  // One area alone may be anything; a word has several.
  return lines.filter((line) => line.width > line.height * 1.4 && line.height <= LETTER_HEIGHT);
}

/** Boxes of one size that stand in a column, three or more. */
function rowsAmong(boxes: readonly Box[]): Set<Box> {
  const rows = new Set<Box>();
  for (const box of boxes) {
    const like = boxes.filter(
      (other) =>
        Math.abs(other.x - box.x) <= 3 &&
        Math.abs(other.width - box.width) <= 3 &&
        Math.abs(other.height - box.height) <= 4,
    );
    if (like.length >= 3) like.forEach((other) => rows.add(other));
  }
  return rows;
}

/** The share of the smaller box that lies within the other. */
function overlap(a: Box, b: Box): number {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  if (width <= 0 || height <= 0) return 0;
  return (width * height) / Math.min(a.width * a.height, b.width * b.height);
}
