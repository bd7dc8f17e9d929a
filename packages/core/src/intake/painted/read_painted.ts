import { assembleScreen } from '../drawn/assemble.ts';
import { withOwnIds } from '../drawing_ids.ts';
import { arrangeScreen } from '../../layout/arrange.ts';
import { contains, type Placed, union } from '../../layout/placed.ts';
import type { Box, Notice, Screen } from '../../model/design.ts';
import { grow } from '../svg/paint.ts';
import { joinTexts } from '../svg/join_text.ts';
import { limits } from '../limits.ts';
import { isSeen, isWhole, overlap, type Window, Windows } from './clipping.ts';
import { brightness, laidOver, withAlpha } from './colors.ts';
import { withAlphaOf } from './gradient.ts';
import { type BoxedShape, boundsOfShape, boxesOfShape, radiusLook } from './look_of_shape.ts';
import { linked } from './linked.ts';
import { alignedTexts } from './aligned_texts.ts';
import { boundsOfPicture } from './picture_place.ts';
import type { PaintedItem, PaintedPage, PaintedPicture, PaintedShape, PaintedText } from './painted_page.ts';
import { cssShadow, isShadowOf, type Shadow, shadowOf } from './shadow.ts';
import { vectorOfShapes } from './vector_of_shapes.ts';

export interface PaintedInput {
  readonly file: string;
  /** The place of the page in its file, empty where it is all of it. */
  readonly path: string;
  readonly name: string;
  readonly screenKey: string;
  readonly page: PaintedPage;
  /** Keeps a picture, and says what it is called in the project. */
  readonly keep: (png: Uint8Array, path: string) => string | null;
}

/** Reads what a machine painted into a screen; null where nothing of it can be seen. */
export function readPainted(input: PaintedInput): { screen: Screen | null; notices: Notice[] } {
  const reader = new PaintedReader(input);
  const screen = reader.read();
  return { screen, notices: reader.notices() };
}

/** From the top of a line to its baseline beyond half the line, in font sizes: 0.35 within 0.03 for the usual fonts. */
const BASELINE = 0.35;
const LINE_HEIGHT = 1.3;
/** Shapes without text between them that are at most this large either way, in px, may be one icon. */
const ICON = 96;
/** One drawing has at most so many paths; more are several. */
const MOST_PATHS = 600;

interface Loose {
  readonly shape: PaintedShape;
  readonly bounds: Box;
  readonly place: number;
  /** What it is drawn as by CSS; null where it stays a drawing. */
  readonly boxes: readonly BoxedShape[] | null;
}

class PaintedReader {
  readonly #input: PaintedInput;
  readonly #windows = new Windows();
  readonly #leftOut: Record<string, number>;
  #placed: Placed[] = [];
  #shadows: { readonly shadow: Shadow; readonly around: Box | null }[] = [];
  #loose: Loose[] = [];

  constructor(input: PaintedInput) {
    this.#input = input;
    this.#leftOut = { ...input.page.leftOut };
  }

  read(): Screen | null {
    const { page, file, path, name, screenKey } = this.#input;
    page.items.forEach((item, i) => this.#item(item, i));
    this.#settle();
    const wrap = (item: Placed): Placed =>
      this.#make('box', item.box, `${item.source.path}~a`, item.name, { children: [item] });
    const drawn = linked(joinTexts(withBackgrounds(this.#placed), true).map(unbroken), page.links, wrap);
    if (!drawn.length) return null;
    if (drawn.length > limits.elements)
      throw new RangeError(
        `It paints more than ${limits.elements} things. Export it in parts, or with fewer paths.`,
      );
    const box = { x: 0, y: 0, width: round(page.width), height: round(page.height) };
    const base = this.#make('box', box, '', 'Screen', { tag: 'div' });
    const root = alignedTexts(assembleScreen(base, drawn));
    return {
      key: screenKey,
      name,
      source: { file, path },
      width: box.width,
      height: box.height,
      root: arrangeScreen({ ...root, name }),
      use: 'screen',
    };
  }

  notices(): Notice[] {
    return Object.entries(this.#leftOut).map(([what, count]) => ({
      level: 'info',
      code: 'painted-dropped',
      file: this.#input.file,
      message: `${what} ${count === 1 ? 'was' : `were, ${count} times,`} left out.`,
    }));
  }

  #leave(what: string): void {
    this.#leftOut[what] = (this.#leftOut[what] ?? 0) + 1;
  }

  #make(kind: Placed['kind'], box: Box, path: string, name: string, more: Partial<Placed>): Placed {
    const at = [this.#input.path, path].filter(Boolean).join('/');
    return {
      key: `${this.#input.screenKey}:${at}`,
      kind,
      name,
      box: { x: round(box.x), y: round(box.y), width: round(box.width), height: round(box.height) },
      look: {},
      border: 0,
      children: [],
      source: { file: this.#input.file, path: at },
      ...more,
    };
  }

  #item(item: PaintedItem, place: number): void {
    if (item.opacity <= 0) return;
    const window = this.#windows.of(item.clips);
    if (item.kind === 'shape') return this.#shape(item, window, place);
    this.#settle();
    if (item.kind === 'text') this.#text(item, window, String(place));
    else this.#picture(item, window, place);
  }

  #shape(given: PaintedShape, window: Window, place: number): void {
    const shape = this.#isFillOfText(given, place) ? null : this.#unmasked(given, window);
    if (!shape) return;
    const bounds = boundsOfShape(shape);
    if (!isSeen(bounds, window)) return;
    const boxes =
      shape.opacity < 1 && shape.stroke && shape.fill ? null : boxesOfShape(translucent(shape), window);
    this.#loose.push({ shape, bounds, place, boxes });
  }

  /** Colours that show through letters alone are those of the letters; of several it is the first. */
  #isFillOfText({ mask, fill }: PaintedShape, place: number): boolean {
    const texts = (mask ?? []).filter((item) => item.kind === 'text');
    if (!texts.length) return false;
    this.#settle();
    const color = typeof fill === 'string' ? fill : fill?.stops[0]?.[1];
    texts.forEach((text, i) =>
      this.#text({ ...text, color: color ?? text.color }, this.#windows.of(text.clips), `${place}~${i}`),
    );
    return true;
  }

  /** A shape that shows through a mask, as what it looks like without; null for what was told by it or cannot be shown. */
  #unmasked(shape: PaintedShape, window: Window): PaintedShape | null {
    if (!shape.mask) return shape;
    const shadow = shadowOf(shape);
    if (shadow) {
      this.#settle();
      if (window.around) this.#shadows.push({ shadow, around: window.around.inner.box });
      else if (!window.box || !isWithin(window.box, shadow.box)) this.#shadows.push({ shadow, around: null });
      else this.#leave('A shadow within a box');
      return null;
    }
    const [only, ...more] = shape.mask;
    const shades = only && !more.length && only.kind === 'shape' ? only.fill : null;
    if (shades && typeof shades !== 'string') {
      const fill =
        typeof shape.fill === 'string'
          ? { ...shades, stops: shades.stops.map(([at]) => [at, shape.fill as string] as const) }
          : shape.fill;
      const both = fill && withAlphaOf(fill, shades);
      if (both) return { ...shape, fill: both, mask: undefined };
    }
    // One colour all over lets all of it through alike.
    if (only && !more.length && only.kind === 'shape' && typeof only.fill === 'string') {
      const through = brightness(only.fill) * only.opacity;
      return { ...shape, opacity: shape.opacity * through, mask: undefined };
    }
    this.#leave('A mask');
    return null;
  }

  /** Shapes painted one after another become boxes and drawings, now that it is known what belongs together. */
  #settle(): void {
    const loose = this.#loose;
    this.#loose = [];
    for (let i = 0; i < loose.length;) {
      const count = drawingAt(loose, i);
      if (count) {
        this.#vector(loose.slice(i, i + count));
        i += count;
        continue;
      }
      const { boxes, place } = loose[i++];
      boxes!.forEach((boxed, k) => this.#box(boxed, `${place}${k ? `~${k}` : ''}`));
    }
  }

  #vector(parts: readonly Loose[]): void {
    const { box, vector } = vectorOfShapes(
      parts.map(({ shape }) => shape),
      this.#windows,
    );
    const path = String(parts[0].place);
    this.#placed.push(this.#make('vector', box, path, 'drawing', { tag: 'svg', vector: withOwnIds(vector) }));
  }

  #box({ box, look, border }: BoxedShape, path: string): void {
    if (!(box.width > 0.05) || !(box.height > 0.05)) return;
    const last = this.#placed.at(-1);
    const both = last && laidOnBox(last, { box, look, border });
    if (both) {
      this.#placed[this.#placed.length - 1] = both;
      return;
    }
    const shadows = this.#takeShadows(box);
    this.#placed.push(
      this.#make('box', box, path, 'box', {
        tag: 'div',
        border,
        look: shadows.length ? { ...look, 'box-shadow': shadows.join(', ') } : look,
      }),
    );
  }

  /** The shadows that were painted for a box before it; those first that CSS writes first. */
  #takeShadows(box: Box): string[] {
    const isMine = ({ shadow, around }: { shadow: Shadow; around: Box | null }): boolean =>
      around ? isAlike(around, box, 1.5) : isShadowOf(shadow, box);
    const mine = this.#shadows.filter(isMine);
    if (!mine.length) return [];
    this.#shadows = this.#shadows.filter((one) => !mine.includes(one));
    return mine.flatMap(({ shadow }) => cssShadow(shadow, box) ?? []).reverse();
  }

  #text(item: PaintedText, window: Window, path: string): void {
    const height = Math.round(item.size * LINE_HEIGHT);
    const box = { x: item.x, y: item.y - height / 2 - BASELINE * item.size, width: item.width, height };
    const ink = { ...box, y: item.y - 0.7 * item.size, height: 0.7 * item.size };
    if (!item.text || !isSeen(ink, window)) return;
    this.#placed.push(
      this.#make('text', box, path, item.text.replace(/\s+/g, ' '), {
        tag: 'p',
        text: item.text,
        look: {
          'font-size': `${round(item.size)}px`,
          color: withAlpha(item.color, item.opacity),
          'font-family': item.family,
          ...(item.weight !== 400 ? { 'font-weight': String(item.weight) } : {}),
          ...(item.isItalic ? { 'font-style': 'italic' } : {}),
          'line-height': `${height}px`,
        },
        piece: { size: item.size, baseline: round(item.y), end: round(item.x + item.width), isExact: true },
        soft: { align: 'start', anchor: round(item.x) },
      }),
    );
  }

  #picture(item: PaintedPicture, window: Window, place: number): void {
    const path = String(place);
    const box = boundsOfPicture(item);
    if (!isSeen(box, window)) return;
    if (item.mask) this.#leave('A mask over a picture');
    const asset = item.asset ?? (item.png ? this.#input.keep(item.png, path) : null);
    if (!asset) return this.#leave('A picture that is not there');
    const opacity: Placed['look'] = item.opacity < 1 ? { opacity: String(round(item.opacity)) } : {};
    const [hole] = window.rounds;
    const shown = overlap(window.box, box);
    const corners = hole && !isWhole(box, window) ? radiusLook({ box: hole.box, radii: hole.radii }) : {};
    const make = (of: Box, look: Placed['look'], more: Partial<Placed> = {}): Placed =>
      this.#make('image', of, path, 'picture', {
        tag: 'img',
        asset,
        attributes: { alt: '' },
        look: { ...look, ...opacity },
        ...more,
      });
    if (isAlike(shown, box, 1)) {
      this.#placed.push(make(shown, { 'object-fit': 'fill', ...corners }));
      return;
    }
    // One side as long as what shows it: it covers its place, and the rest is cut off.
    const covers = Math.abs(box.width - shown.width) < 1.5 || Math.abs(box.height - shown.height) < 1.5;
    const share = (from: number, size: number, at: number, length: number): string =>
      `${Math.abs(size - length) < 0.5 ? 50 : round((100 * (at - from)) / (size - length))}%`;
    if (covers) {
      const position = `${share(box.x, box.width, shown.x, shown.width)} ${share(box.y, box.height, shown.y, shown.height)}`;
      this.#placed.push(
        make(shown, {
          'object-fit': 'cover',
          ...(position === '50% 50%' ? {} : { 'object-position': position }),
          ...corners,
        }),
      );
      return;
    }
    this.#placed.push(
      this.#make('box', shown, `${path}~0`, 'picture', {
        tag: 'div',
        look: { ...corners, 'overflow-x': 'hidden', 'overflow-y': 'hidden' },
        children: [make(box, { 'object-fit': 'fill' })],
      }),
    );
  }
}

/** A line up to this wide, in px, stays one: it fits into the narrowest window. */
const SHORT = 240;

/** What was painted on one line is on one line, in a window that is narrower, too. */
const unbroken = (item: Placed): Placed =>
  item.kind === 'text' && item.box.width <= SHORT && !item.text?.includes('\n')
    ? { ...item, look: { ...item.look, 'white-space': 'nowrap' } }
    : item;

const round = (n: number): number => Math.round(n * 100) / 100;
const isAlike = (a: Box, b: Box, slack: number): boolean =>
  Math.abs(a.x - b.x) <= slack &&
  Math.abs(a.y - b.y) <= slack &&
  Math.abs(a.width - b.width) <= 2 * slack &&
  Math.abs(a.height - b.height) <= 2 * slack;

const isWithin = (inner: Box, outer: Box): boolean => contains(outer, inner, 1);

/** A shape whose opacity is in its colours. */
function translucent(shape: PaintedShape): PaintedShape {
  const { opacity, fill, stroke } = shape;
  if (opacity >= 1) return shape;
  return {
    ...shape,
    opacity: 1,
    fill:
      fill && typeof fill !== 'string'
        ? { ...fill, stops: fill.stops.map(([at, color]) => [at, withAlpha(color, opacity)] as const) }
        : fill && withAlpha(fill, opacity),
    stroke: stroke && { ...stroke, color: withAlpha(stroke.color, opacity) },
  };
}

/** A box that was painted at the same place as the one before it is more of the same look; null where it is not. */
function laidOnBox(last: Placed, { box, look, border }: BoxedShape): Placed | null {
  if (last.kind !== 'box' || last.children.length || look['box-shadow']) return null;
  const hasBorder = !!look['border-top-width'];
  if (hasBorder && !look['background-color'] && !look['background-image']) {
    // A border lies on the edge of its box, or around what is painted.
    const inner = grow(box, -border);
    if (last.border || (!isAlike(last.box, box, 0.6) && !isAlike(last.box, inner, 0.6))) return null;
    return { ...last, box: { ...last.box, ...rounded(box) }, border, look: { ...last.look, ...look } };
  }
  if (last.border || hasBorder || !isAlike(last.box, box, 0.3) || !sameCorners(last.look, look)) return null;
  const [below, above] = [last.look['background-color'], look['background-color']];
  if (look['background-image'] && !last.look['background-image'])
    return { ...last, look: { ...last.look, ...look } };
  if (!below || !above || last.look['background-image']) return null;
  const color = laidOver(below, above) ?? (/^#[0-9a-f]{6}$/i.test(above) ? above : null);
  return color === null ? null : { ...last, look: { ...last.look, 'background-color': color } };
}

const rounded = (box: Box): Box => ({
  x: round(box.x),
  y: round(box.y),
  width: round(box.width),
  height: round(box.height),
});

const sameCorners = (a: Placed['look'], b: Placed['look']): boolean =>
  ['top-left', 'top-right', 'bottom-right', 'bottom-left'].every(
    (corner) => a[`border-${corner}-radius`] === b[`border-${corner}-radius`],
  );

/** How many of the shapes from a place on are one drawing: icons and illustrations are painted path by path; 0 where a box comes first. */
function drawingAt(loose: readonly Loose[], from: number): number {
  const isFree = (i: number): boolean => loose[i].boxes === null;
  const isSmall = (box: Box): boolean => box.width <= ICON && box.height <= ICON;
  let free = 0;
  let count = 0;
  let last = 0;
  let around: Box | null = null;
  for (let i = from; i < Math.min(loose.length, from + MOST_PATHS); i++) {
    const box = loose[i].bounds;
    if (!isFree(i) && !isSmall(box) && !(around && contains(around, box, 1))) break;
    if (around && !touches(around, box)) break;
    around = around ? union([around, box]) : box;
    count++;
    if (isFree(i)) {
      free++;
      last = count;
    }
  }
  // Boxes alone are boxes, and those after the last free shape stand for themselves.
  if (!free || free * 2 < last) return isFree(from) ? 1 : 0;
  return last;
}

/** Whether two boxes overlap or lie within a few px of each other. */
const touches = (a: Box, b: Box): boolean =>
  a.x - 4 <= b.x + b.width &&
  b.x - 4 <= a.x + a.width &&
  a.y - 4 <= b.y + b.height &&
  b.y - 4 <= a.y + a.height;

/** A picture that other things were painted on is the background of a box that holds them. */
function withBackgrounds(items: readonly Placed[]): Placed[] {
  return items.map((item, i) => {
    if (item.kind !== 'image' || !item.asset) return item;
    const holds = items
      .slice(i + 1)
      .some((other) => other.kind === 'text' && contains(item.box, other.box, 1));
    if (!holds) return item;
    const { 'object-fit': fit, 'object-position': position, ...look } = item.look;
    const { asset: _asset, attributes: _attributes, ...rest } = item;
    return {
      ...rest,
      kind: 'box',
      tag: 'div',
      look: {
        ...look,
        'background-image': `url("asset:${item.asset}")`,
        'background-size': fit === 'cover' ? 'cover' : '100% 100%',
        'background-position': position ?? '50% 50%',
      },
    };
  });
}
