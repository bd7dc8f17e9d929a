import {
  type Box,
  type Clip,
  type Gradient,
  mapBox,
  mapPoint,
  type Matrix,
  multiply,
  type Paint,
  type PaintedItem,
  type PaintedLink,
  type PaintedPage,
} from '@tovel/core';
import type * as PdfJs from 'pdfjs-dist';
import { firstState, type GraphicsState, isTile, type PatternFill } from './graphics_state.ts';
import { type Glyph, isPrivate, pdfFont } from './pdf_font.ts';
import { boxPath, pathData } from './pdf_paths.ts';
import { pngOf, stencilPng } from './pdf_pictures.ts';

const round = (n: number): number => Math.round(n * 100) / 100;
/** A tile is painted at most this often; more would be a texture. */
const MOST_TILES = 64;
/** Steps of one page. */
const MOST_STEPS = 1_000_000;

interface Operators {
  readonly fnArray: readonly number[];
  readonly argsArray: readonly unknown[];
}

/** Walks what a page paints, in its order, with the state that painting has at each step. */
export class PageWalk {
  readonly #ops: Record<string, number>;
  readonly #names: ReadonlyMap<number, string>;
  readonly #page: PdfJs.PDFPageProxy;
  readonly #stack: GraphicsState[] = [];
  /** Groups that are open, with what was painted into before each. */
  readonly #groups: { readonly into: PaintedItem[]; readonly isMask: boolean }[] = [];
  readonly #leftOut: Record<string, number> = {};
  #into: PaintedItem[] = [];
  #lastMask: readonly PaintedItem[] | null = null;
  #state: GraphicsState;
  #text: Matrix = [1, 0, 0, 1, 0, 0];
  #line: Matrix = [1, 0, 0, 1, 0, 0];
  #clip: 'nonzero' | 'evenodd' | null = null;
  #steps = 0;

  constructor(pdfjs: typeof PdfJs, page: PdfJs.PDFPageProxy) {
    this.#ops = pdfjs.OPS as Record<string, number>;
    this.#names = new Map(Object.entries(this.#ops).map(([name, code]) => [code, name]));
    this.#page = page;
    this.#state = firstState(page.getViewport({ scale: 1 }).transform as unknown as Matrix);
  }

  async read(): Promise<PaintedPage> {
    const { width, height } = this.#page.getViewport({ scale: 1 });
    this.#run((await this.#page.getOperatorList()) as Operators);
    return {
      width: round(width),
      height: round(height),
      items: this.#into,
      links: await this.#links(),
      leftOut: this.#leftOut,
    };
  }

  async #links(): Promise<PaintedLink[]> {
    const base = this.#page.getViewport({ scale: 1 }).transform as unknown as Matrix;
    const found = (await this.#page.getAnnotations()) as {
      subtype?: string;
      url?: string;
      unsafeUrl?: string;
      rect?: number[];
    }[];
    return found.flatMap(({ subtype, url, unsafeUrl, rect }) => {
      const href = url ?? unsafeUrl;
      if (subtype !== 'Link' || !href || rect?.length !== 4) return [];
      const [left, bottom, right, top] = rect;
      const box: Box = mapBox(base, { x: left, y: bottom, width: right - left, height: top - bottom });
      return [{ box, href }];
    });
  }

  #run({ fnArray, argsArray }: Operators): void {
    for (let i = 0; i < fnArray.length; i++) {
      if (++this.#steps > MOST_STEPS)
        throw new Error(
          `a page paints in more than ${MOST_STEPS} steps, its patterns each time that they come`,
        );
      this.#step(this.#names.get(fnArray[i]) ?? '', (argsArray[i] ?? []) as unknown[]);
    }
  }

  #step(op: string, args: unknown[]): void {
    const s = this.#state;
    const n = args as number[];
    switch (op) {
      case 'save':
        this.#save();
        break;
      case 'restore':
        this.#restore();
        break;
      case 'transform':
        s.matrix = multiply(s.matrix, n as unknown as Matrix);
        break;
      case 'paintFormXObjectBegin':
        this.#save();
        if (Array.isArray(args[0]) || ArrayBuffer.isView(args[0]))
          this.#state.matrix = multiply(this.#state.matrix, [...(args[0] as number[])] as unknown as Matrix);
        this.#state.base = this.#state.matrix;
        if (args[1]) this.#addClip(boxPath([...(args[1] as number[])], this.#state.matrix), false);
        break;
      case 'paintFormXObjectEnd':
        this.#restore();
        break;
      case 'beginGroup':
        this.#beginGroup(args[0] as { smask?: unknown });
        break;
      case 'endGroup':
        this.#endGroup();
        break;
      case 'setLineWidth':
        s.lineWidth = n[0];
        break;
      case 'setDash':
        s.isDashed = ((args[0] as number[] | null)?.length ?? 0) > 0;
        break;
      case 'setFillRGBColor':
        s.fill = colorOf(args);
        break;
      case 'setStrokeRGBColor':
        s.stroke = colorOf(args);
        break;
      case 'setFillTransparent':
        s.fill = null;
        break;
      case 'setStrokeTransparent':
        s.stroke = null;
        break;
      case 'setFillColorN':
        s.fill = this.#pattern(args);
        break;
      case 'setStrokeColorN':
        s.stroke = this.#pattern(args);
        break;
      case 'setGState':
        for (const [name, value] of args[0] as [string, unknown][]) this.#set(name, value);
        break;
      case 'clip':
        this.#clip = 'nonzero';
        break;
      case 'eoClip':
        this.#clip = 'evenodd';
        break;
      case 'constructPath':
        this.#path(args);
        break;
      case 'shadingFill':
        this.#shading(String(args[0]));
        break;
      case 'beginText':
        this.#text = this.#line = [1, 0, 0, 1, 0, 0];
        break;
      case 'setCharSpacing':
        s.charSpacing = n[0];
        break;
      case 'setWordSpacing':
        s.wordSpacing = n[0];
        break;
      case 'setHScale':
        s.stretch = n[0];
        break;
      case 'setLeading':
        s.leading = -n[0];
        break;
      case 'setTextRise':
        s.rise = n[0];
        break;
      case 'setTextRenderingMode':
        s.mode = n[0];
        break;
      case 'setFont':
        this.#setFont(String(args[0]), n[1]);
        break;
      case 'setTextMatrix':
        this.#text = this.#line = [
          ...((args[0] as ArrayLike<number>).length === 6 ? (args[0] as number[]) : n),
        ] as unknown as Matrix;
        break;
      case 'setLeadingMoveText':
        s.leading = n[1];
        this.#move(n[0], n[1]);
        break;
      case 'moveText':
        this.#move(n[0], n[1]);
        break;
      case 'nextLine':
        this.#move(0, s.leading);
        break;
      case 'showText':
      case 'showSpacedText':
        this.#show(args[0] as (Glyph | number | null)[]);
        break;
      case 'paintImageXObject':
        this.#picture(this.#object(String(args[0])));
        break;
      case 'paintInlineImageXObject':
        this.#picture(args[0]);
        break;
      case 'paintImageMaskXObject':
        this.#stencil(args[0]);
        break;
      case 'paintImageMaskXObjectGroup':
      case 'paintImageMaskXObjectRepeat':
      case 'paintImageXObjectRepeat':
      case 'paintInlineImageXObjectGroup':
        this.#leave('A repeated picture');
        break;
    }
  }

  #save(): void {
    this.#stack.push({ ...this.#state });
  }

  #restore(): void {
    this.#state = this.#stack.pop() ?? this.#state;
  }

  #set(name: string, value: unknown): void {
    const s = this.#state;
    if (name === 'ca') s.fillAlpha = Number(value);
    if (name === 'CA') s.strokeAlpha = Number(value);
    if (name === 'LW') s.lineWidth = Number(value);
    if (name === 'D') s.isDashed = ((value as [number[]] | null)?.[0]?.length ?? 0) > 0;
    if (name === 'Font') this.#setFont(String((value as unknown[])[0]), Number((value as unknown[])[1]));
    if (name === 'SMask') s.mask = value ? this.#lastMask : null;
  }

  #beginGroup(group: { smask?: unknown }): void {
    const isMask = !!group?.smask;
    this.#save();
    const s = this.#state;
    this.#groups.push({ into: this.#into, isMask });
    if (isMask) {
      this.#into = [];
      s.groupAlpha = 1;
      s.mask = null;
    } else s.groupAlpha *= s.fillAlpha;
    s.fillAlpha = s.strokeAlpha = 1;
  }

  #endGroup(): void {
    const group = this.#groups.pop();
    if (!group) return;
    if (group.isMask) this.#lastMask = this.#into;
    this.#into = group.into;
    this.#restore();
  }

  #leave(what: string): void {
    this.#leftOut[what] = (this.#leftOut[what] ?? 0) + 1;
  }

  #move(x: number, y: number): void {
    this.#line = multiply(this.#line, [1, 0, 0, 1, x, y]);
    this.#text = this.#line;
  }

  #setFont(id: string, size: number): void {
    this.#state.size = size;
    this.#state.font = pdfFont(id, this.#object(id));
  }

  #object(id: string): unknown {
    const store = id.startsWith('g_') ? this.#page.commonObjs : this.#page.objs;
    return store.has(id) ? (store.get(id) as unknown) : null;
  }

  #addClip(outline: string, isEvenOdd: boolean): void {
    if (!outline) return;
    const clips: readonly Clip[] = this.#state.clips;
    const last = clips.at(-1);
    if (last?.outline === outline && last.isEvenOdd === isEvenOdd) return;
    this.#state.clips = [...clips, { outline, isEvenOdd }];
  }

  #common(alpha: number): { clips: readonly Clip[]; opacity: number; mask?: readonly PaintedItem[] } {
    const { clips, groupAlpha, mask } = this.#state;
    return { clips, opacity: alpha * groupAlpha, ...(mask ? { mask } : {}) };
  }

  /** A pattern as what fills with it; null, and said, where it is of a kind that is not known. */
  #pattern(args: unknown[]): Paint | PatternFill | null {
    const [kind, ...rest] = args;
    if (kind === 'Shading') {
      const matrix = rest[1]
        ? multiply(this.#state.base, [...(rest[1] as number[])] as unknown as Matrix)
        : this.#state.base;
      const gradient = this.#gradient(String(rest[0]), matrix);
      if (!gradient) this.#leave('A shading');
      return gradient;
    }
    if (kind === 'TilingPattern') {
      const [, operators, matrix, box, xStep, yStep] = rest as [
        unknown,
        Operators,
        number[],
        number[],
        number,
        number,
      ];
      return {
        kind: 'tile',
        operators,
        matrix: multiply(this.#state.base, [...matrix] as unknown as Matrix),
        box: box as unknown as PatternFill['box'],
        step: [Math.abs(xStep) || box[2] - box[0], Math.abs(yStep) || box[3] - box[1]],
      };
    }
    return typeof kind === 'string' && kind.startsWith('#') ? kind : null;
  }

  #gradient(id: string, matrix: Matrix): Gradient | null {
    const raw = this.#object(id) as { getIR?: () => unknown[] } | unknown[] | null;
    const ir = Array.isArray(raw) ? raw : raw?.getIR?.();
    if (!ir || ir[0] !== 'RadialAxial') return null;
    const [, kind, , stops, from, to, r0, r1] = ir as [
      string,
      string,
      unknown,
      [number, string][],
      [number, number],
      [number, number],
      number,
      number,
    ];
    if (!Array.isArray(stops) || stops.some(([, color]) => typeof color !== 'string')) return null;
    return {
      kind: kind === 'axial' ? 'linear' : 'radial',
      stops: stops.map(([at, color]) => [at, color] as const),
      from: [from[0], from[1]],
      to: [to[0], to[1]],
      ...(kind === 'axial' ? {} : { radii: [r0, r1] as const }),
      matrix,
    };
  }

  /** A shading that fills all that the clip leaves. */
  #shading(id: string): void {
    const gradient = this.#gradient(id, this.#state.matrix);
    if (!gradient) return this.#leave('A shading');
    const { width, height } = this.#page.getViewport({ scale: 1 });
    this.#into.push({
      kind: 'shape',
      ...this.#common(this.#state.fillAlpha),
      outline: boxPath([0, 0, width, height], [1, 0, 0, 1, 0, 0]),
      isEvenOdd: false,
      fill: gradient,
      stroke: null,
    });
  }

  #path([op, data]: unknown[]): void {
    const s = this.#state;
    const ops = this.#ops;
    const [buffer] = data as [ArrayLike<number> | null];
    const is = (...names: string[]): boolean => names.some((name) => ops[name] === op);
    const fills = is('fill', 'eoFill', 'fillStroke', 'eoFillStroke', 'closeFillStroke', 'closeEOFillStroke');
    const strokes = is(
      'stroke',
      'closeStroke',
      'fillStroke',
      'eoFillStroke',
      'closeFillStroke',
      'closeEOFillStroke',
    );
    const outline = buffer ? pathData(buffer, s.matrix) : '';
    if (outline && (fills || strokes))
      this.#fill(outline, is('eoFill', 'eoFillStroke', 'closeEOFillStroke'), fills, strokes);
    if (this.#clip) this.#addClip(outline, this.#clip === 'evenodd');
    this.#clip = null;
  }

  #fill(outline: string, isEvenOdd: boolean, fills: boolean, strokes: boolean): void {
    const s = this.#state;
    const fill = fills ? s.fill : null;
    if (isTile(fill)) {
      this.#tiles(fill, outline, isEvenOdd);
      if (!strokes) return;
    }
    const scale = Math.sqrt(Math.abs(s.matrix[0] * s.matrix[3] - s.matrix[1] * s.matrix[2]));
    const color = strokes && typeof s.stroke === 'string' ? s.stroke : null;
    if (!color && (fill === null || isTile(fill))) return;
    this.#into.push({
      kind: 'shape',
      ...this.#common(fills ? s.fillAlpha : s.strokeAlpha),
      outline,
      isEvenOdd,
      fill: isTile(fill) ? null : fill,
      stroke: color ? { color, width: round(s.lineWidth * scale), isDashed: s.isDashed } : null,
    });
  }

  /** A shape filled with a tile: what the tile paints, as often as it comes, through the shape. */
  #tiles(tile: PatternFill, outline: string, isEvenOdd: boolean): void {
    const numbers = (outline.match(/-?[\d.]+/g) ?? []).map(Number);
    const [a, b, c, d, e, f] = tile.matrix;
    const determinant = a * d - b * c;
    if (!determinant || !numbers.length) return;
    const back: Matrix = [
      d / determinant,
      -b / determinant,
      -c / determinant,
      a / determinant,
      (c * f - d * e) / determinant,
      (b * e - a * f) / determinant,
    ];
    const points = numbers.flatMap((x, i) => (i % 2 ? [] : [mapPoint(back, x, numbers[i + 1] ?? 0)]));
    const range = (axis: 0 | 1): readonly [number, number] => {
      const values = points.map((point) => point[axis]);
      const [first, last] = [tile.box[axis], tile.box[axis + 2]];
      const step = tile.step[axis];
      return [
        Math.ceil((Math.min(...values) - last) / step + 1e-3),
        Math.floor((Math.max(...values) - first) / step - 1e-3),
      ];
    };
    const [[left, right], [top, bottom]] = [range(0), range(1)];
    if ((right - left + 1) * (bottom - top + 1) > MOST_TILES) return this.#leave('A texture');
    const { fillAlpha, groupAlpha } = this.#state;
    for (let row = top; row <= bottom; row++)
      for (let column = left; column <= right; column++) {
        this.#save();
        this.#addClip(outline, isEvenOdd);
        const s = this.#state;
        s.matrix = multiply(tile.matrix, [1, 0, 0, 1, column * tile.step[0], row * tile.step[1]]);
        s.base = s.matrix;
        s.groupAlpha = groupAlpha * fillAlpha;
        s.fillAlpha = s.strokeAlpha = 1;
        this.#addClip(boxPath(tile.box, s.matrix), false);
        const depth = this.#stack.length;
        this.#run(tile.operators);
        while (this.#stack.length > depth) this.#stack.pop();
        this.#restore();
      }
  }

  /** One run of glyphs; a large gap within it begins another. */
  #show(glyphs: readonly (Glyph | number | null)[]): void {
    const s = this.#state;
    if (!s.font || s.font.isVertical || !Array.isArray(glyphs)) return;
    let text = '';
    let start = 0;
    let end = 0;
    let x = 0;
    const flush = (): void => {
      if (text.trim() && s.mode !== 3) this.#put(text, start, end);
      text = '';
    };
    const isUpright = this.#isUpright();
    for (const glyph of glyphs) {
      if (glyph === null) continue;
      if (typeof glyph === 'number') {
        const gap = (-glyph / 1000) * s.size;
        if (gap > s.size * 1.5) flush();
        else if (gap > s.size * 0.18 && text && !text.endsWith(' ')) text += ' ';
        x += gap;
        continue;
      }
      if (s.font.glyphs && !(isUpright && glyph.unicode.trim() && !isPrivate(glyph.unicode))) {
        flush();
        if (s.mode !== 3) this.#drawn(s.font.glyphs[glyph.operatorListId ?? ''], x);
        x += glyph.width * s.font.unit * s.size + s.charSpacing;
        continue;
      }
      const width = glyph.width * s.font.unit * s.size + s.charSpacing + (glyph.isSpace ? s.wordSpacing : 0);
      if (!isUpright || isPrivate(glyph.unicode)) {
        flush();
        if (s.mode !== 3) this.#outline(glyph, x);
        x += width;
        continue;
      }
      // Spaces at the beginning are only distance; at the end they part this from what comes next.
      const isBlank = !glyph.unicode.trim();
      if (!text && !isBlank) start = x;
      if (text || !isBlank) text += isBlank ? ' ' : glyph.unicode;
      x += width;
      if (!isBlank) end = x;
    }
    flush();
    this.#text = multiply(this.#text, [1, 0, 0, 1, x * s.stretch, 0]);
  }

  #glyphMatrix(): Matrix {
    const s = this.#state;
    return multiply(multiply(s.matrix, this.#text), [s.stretch, 0, 0, 1, 0, s.rise]);
  }

  #isUpright(): boolean {
    const m = this.#glyphMatrix();
    return Math.abs(m[1]) < 1e-3 && m[0] > 0;
  }

  /** A glyph as the path that it is drawn by: icons of a font, and text that does not stand upright. */
  #outline(glyph: Glyph, x: number): void {
    const s = this.#state;
    const { path } = (this.#object(`${s.font!.id}_path_${glyph.fontChar}`) ?? {}) as {
      path?: ArrayLike<number>;
    };
    const outline = path?.length
      ? pathData(path, multiply(this.#glyphMatrix(), [s.size, 0, 0, s.size, x, 0]))
      : '';
    if (outline && !isTile(s.fill))
      this.#into.push({
        kind: 'shape',
        ...this.#common(s.fillAlpha),
        outline,
        isEvenOdd: false,
        fill: s.fill,
        stroke: null,
      });
    else if (glyph.unicode.trim()) this.#leave('A letter without an outline');
  }

  /** A glyph of a font that draws each of them as a page draws. */
  #drawn(operators: Operators | undefined, x: number): void {
    if (!operators) return this.#leave('A letter without an outline');
    const s = this.#state;
    const matrix = multiply(this.#glyphMatrix(), [s.size, 0, 0, s.size, x, 0]);
    const [text, line] = [this.#text, this.#line];
    this.#save();
    this.#state.matrix = multiply(matrix, s.font!.matrix);
    const depth = this.#stack.length;
    this.#run(operators);
    while (this.#stack.length > depth) this.#stack.pop();
    this.#restore();
    [this.#text, this.#line] = [text, line];
  }

  #put(text: string, from: number, to: number): void {
    const s = this.#state;
    const m = this.#glyphMatrix();
    const [x, y] = mapPoint(m, from, 0);
    const [endX] = mapPoint(m, to, 0);
    const { family, weight, isItalic } = s.font!;
    this.#into.push({
      kind: 'text',
      ...this.#common(s.fillAlpha),
      text: text.replace(/\s+/g, ' '),
      x: round(x),
      y: round(y),
      width: round(endX - x),
      size: round(s.size * Math.hypot(m[2], m[3])),
      family,
      weight,
      isItalic,
      color: typeof s.fill === 'string' ? s.fill : '#000000',
    });
  }

  #picture(source: unknown): void {
    const s = this.#state;
    // What only shadows something is told by where it stands.
    const png = this.#groups.some((group) => group.isMask) ? undefined : pngOf(source);
    if (png === null) return this.#leave('A picture that cannot be decoded');
    this.#into.push({
      kind: 'picture',
      ...this.#common(s.fillAlpha),
      matrix: multiply(s.matrix, [1, 0, 0, -1, 0, 1]),
      ...(png ? { png } : {}),
    });
  }

  /** A picture of one bit a pixel through which the colour is painted. */
  #stencil(given: unknown): void {
    const s = this.#state;
    const mask = given as { data?: unknown; width: number; height: number };
    const bits =
      typeof mask.data === 'string' ? (this.#object(mask.data) as { data?: unknown } | null) : mask;
    const color =
      typeof s.fill === 'string'
        ? [1, 3, 5].map((i) => parseInt((s.fill as string).slice(i, i + 2), 16))
        : null;
    const png = color && stencilPng({ ...mask, data: bits?.data ?? bits }, [...color, 255]);
    if (!png) return this.#leave('A stencil');
    this.#into.push({
      kind: 'picture',
      ...this.#common(s.fillAlpha),
      matrix: multiply(s.matrix, [1, 0, 0, -1, 0, 1]),
      png,
    });
  }
}

/** Colours come as hex in newer builds and as three numbers in older ones. */
const colorOf = (args: unknown[]): string =>
  typeof args[0] === 'string'
    ? args[0]
    : `#${(args as number[])
        .slice(0, 3)
        .map((value) => value.toString(16).padStart(2, '0'))
        .join('')}`;
