import {
  limits,
  mapPoint,
  type Matrix,
  multiply,
  type PdfPage,
  type PdfPicture,
  type PdfShape,
  type PdfText,
} from '@tovel/core';
import { encode } from 'fast-png';
import type * as PdfJs from 'pdfjs-dist';

const round = (n: number): number => Math.round(n * 100) / 100;

/**
 * Reads the pages of a PDF: text as text, drawings as paths, pictures as PNG. One point is one px, as design programs
 * write their screens.
 * @param pdfjs the library as built for where this runs.
 * @throws Error for what is not a PDF or is locked with a password.
 */
export async function readPdf(pdfjs: typeof PdfJs, bytes: Uint8Array): Promise<PdfPage[]> {
  const task = pdfjs.getDocument({
    // The library keeps what it is given for itself.
    data: bytes.slice(),
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    isOffscreenCanvasSupported: false,
    isImageDecoderSupported: false,
    maxImageSize: limits.pixels,
    verbosity: 0,
  });
  try {
    const document = await task.promise;
    if (document.numPages > limits.pages)
      throw new Error(`it has ${document.numPages} pages; at most ${limits.pages} are read`);
    const pages: PdfPage[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      pages.push(await new PageWalk(pdfjs, page).read());
      page.cleanup();
    }
    return pages;
  } catch (error) {
    if ((error as Error).name === 'PasswordException') throw new Error('it is locked with a password');
    throw error;
  } finally {
    await task.destroy();
  }
}

interface State {
  matrix: Matrix;
  fill: string | null;
  stroke: string | null;
  lineWidth: number;
  fillAlpha: number;
  strokeAlpha: number;
  font: { family: string; isBold: boolean; isItalic: boolean; isVertical: boolean; unit: number } | null;
  size: number;
  charSpacing: number;
  wordSpacing: number;
  leading: number;
  stretch: number;
  rise: number;
  mode: number;
}

interface Glyph {
  readonly unicode: string;
  readonly width: number;
  readonly isSpace?: boolean;
}

/** Walks what a page paints, in its order, with the state that painting has at each step. */
class PageWalk {
  readonly #ops: Record<string, number>;
  readonly #page: PdfJs.PDFPageProxy;
  readonly #texts: PdfText[] = [];
  readonly #shapes: PdfShape[] = [];
  readonly #pictures: PdfPicture[] = [];
  readonly #stack: State[] = [];
  #state: State;
  #text: Matrix = [1, 0, 0, 1, 0, 0];
  #line: Matrix = [1, 0, 0, 1, 0, 0];
  #order = 0;
  readonly #leftOut: Record<string, number> = {};

  constructor(pdfjs: typeof PdfJs, page: PdfJs.PDFPageProxy) {
    this.#ops = pdfjs.OPS as Record<string, number>;
    this.#page = page;
    this.#state = {
      matrix: page.getViewport({ scale: 1 }).transform as unknown as Matrix,
      fill: '#000000',
      stroke: '#000000',
      lineWidth: 1,
      fillAlpha: 1,
      strokeAlpha: 1,
      font: null,
      size: 0,
      charSpacing: 0,
      wordSpacing: 0,
      leading: 0,
      stretch: 1,
      rise: 0,
      mode: 0,
    };
  }

  async read(): Promise<PdfPage> {
    const { width, height } = this.#page.getViewport({ scale: 1 });
    const { fnArray, argsArray } = await this.#page.getOperatorList();
    const names = new Map(Object.entries(this.#ops).map(([name, code]) => [code, name]));
    for (let i = 0; i < fnArray.length; i++) {
      this.#order = i;
      this.#step(names.get(fnArray[i]) ?? '', (argsArray[i] ?? []) as unknown[]);
    }
    return {
      width: round(width),
      height: round(height),
      texts: this.#texts,
      shapes: this.#shapes,
      pictures: this.#pictures,
      leftOut: this.#leftOut,
    };
  }

  #step(op: string, args: unknown[]): void {
    const s = this.#state;
    const n = args as number[];
    switch (op) {
      case 'save':
        this.#stack.push({ ...s });
        break;
      case 'restore':
        this.#state = this.#stack.pop() ?? s;
        break;
      case 'transform':
        s.matrix = multiply(s.matrix, n as unknown as Matrix);
        break;
      case 'paintFormXObjectBegin':
        this.#stack.push({ ...s });
        if (Array.isArray(args[0])) s.matrix = multiply(s.matrix, args[0] as unknown as Matrix);
        break;
      case 'paintFormXObjectEnd':
        this.#state = this.#stack.pop() ?? s;
        break;
      case 'setLineWidth':
        s.lineWidth = n[0];
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
      case 'setGState':
        for (const [name, value] of args[0] as [string, unknown][]) {
          if (name === 'ca') s.fillAlpha = Number(value);
          if (name === 'CA') s.strokeAlpha = Number(value);
          if (name === 'LW') s.lineWidth = Number(value);
          if (name === 'Font')
            this.#setFont(String((value as unknown[])[0]), Number((value as unknown[])[1]));
        }
        break;
      case 'constructPath':
        this.#path(args);
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
      case 'shadingFill':
        this.#leave('A shading');
        break;
      case 'paintImageMaskXObject':
      case 'paintImageMaskXObjectGroup':
      case 'paintImageMaskXObjectRepeat':
      case 'paintImageXObjectRepeat':
      case 'paintInlineImageXObjectGroup':
        this.#leave('A stencil or repeated picture');
        break;
    }
  }

  #leave(what: string): void {
    this.#leftOut[what] = (this.#leftOut[what] ?? 0) + 1;
  }

  #move(x: number, y: number): void {
    this.#line = multiply(this.#line, [1, 0, 0, 1, x, y]);
    this.#text = this.#line;
  }

  #setFont(id: string, size: number): void {
    const font = this.#object(id) as {
      name?: string;
      bold?: boolean;
      black?: boolean;
      italic?: boolean;
      vertical?: boolean;
      fallbackName?: string;
      fontMatrix?: number[];
    } | null;
    const name = (font?.name ?? '').replace(/^[A-Z]{6}\+/, '');
    const family = name
      .split(/[-,]/)[0]
      .replace(/([a-z])([A-Z])/g, '$1 $2')
      .replace(/(MT|PS)$/, '')
      .trim();
    const generic = font?.fallbackName ?? 'sans-serif';
    this.#state.size = size;
    this.#state.font = {
      family: family ? `${family}, ${generic}` : generic,
      isBold: !!(font?.bold || font?.black) || /bold|black|heavy|semi/i.test(name),
      isItalic: !!font?.italic || /italic|oblique/i.test(name),
      isVertical: !!font?.vertical,
      unit: font?.fontMatrix?.[0] ?? 0.001,
    };
  }

  #object(id: string): unknown {
    const store = id.startsWith('g_') ? this.#page.commonObjs : this.#page.objs;
    return store.has(id) ? (store.get(id) as unknown) : null;
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
      if (text.trim() && s.mode !== 3) this.#put(text.trimEnd(), start, end);
      text = '';
    };
    for (const glyph of glyphs) {
      if (glyph === null) continue;
      if (typeof glyph === 'number') {
        const gap = (-glyph / 1000) * s.size;
        if (gap > s.size * 1.5) flush();
        else if (gap > s.size * 0.18 && text && !text.endsWith(' ')) text += ' ';
        x += gap;
        continue;
      }
      // Spaces at either end are only distance.
      const isBlank = !glyph.unicode.trim();
      if (!text && !isBlank) start = x;
      if (text || !isBlank) text += glyph.unicode;
      x += glyph.width * s.font.unit * s.size + s.charSpacing + (glyph.isSpace ? s.wordSpacing : 0);
      if (!isBlank) end = x;
    }
    flush();
    this.#text = multiply(this.#text, [1, 0, 0, 1, x * s.stretch, 0]);
  }

  #put(text: string, from: number, to: number): void {
    const s = this.#state;
    const m = multiply(multiply(s.matrix, this.#text), [s.stretch, 0, 0, 1, 0, s.rise]);
    const [x, y] = mapPoint(m, from, 0);
    const [endX] = mapPoint(m, to, 0);
    const isUpright = Math.abs(m[1]) < 1e-3 && m[0] > 0;
    if (!isUpright) return this.#leave('Turned text');
    this.#texts.push({
      text: text.replace(/\s+/g, ' '),
      x: round(x),
      y: round(y),
      width: round(endX - x),
      size: round(s.size * Math.hypot(m[2], m[3])),
      family: s.font!.family,
      isBold: s.font!.isBold,
      isItalic: s.font!.isItalic,
      color: withAlpha(s.fill ?? '#000000', s.fillAlpha),
      order: this.#order,
    });
  }

  #path([op, data]: unknown[]): void {
    const s = this.#state;
    const [buffer] = data as [ArrayLike<number> | null];
    const {
      fill,
      eoFill,
      stroke,
      fillStroke,
      eoFillStroke,
      closeStroke,
      closeFillStroke,
      closeEOFillStroke,
    } = this.#ops;
    const fills = [fill, eoFill, fillStroke, eoFillStroke, closeFillStroke, closeEOFillStroke].includes(
      op as number,
    );
    const strokes = [
      stroke,
      fillStroke,
      eoFillStroke,
      closeStroke,
      closeFillStroke,
      closeEOFillStroke,
    ].includes(op as number);
    if (!buffer || (!fills && !strokes)) return;
    const path = pathData(buffer, s.matrix);
    if (!path) return;
    this.#shapes.push({
      path,
      fill: fills ? s.fill : null,
      stroke: strokes ? s.stroke : null,
      strokeWidth: round(
        s.lineWidth * Math.sqrt(Math.abs(s.matrix[0] * s.matrix[3] - s.matrix[1] * s.matrix[2])),
      ),
      isEvenOdd: [eoFill, eoFillStroke, closeEOFillStroke].includes(op as number),
      opacity: fills ? s.fillAlpha : s.strokeAlpha,
      order: this.#order,
    });
  }

  #picture(source: unknown): void {
    const image = source as { width: number; height: number; data?: Uint8ClampedArray; kind?: number } | null;
    if (!image?.data) return this.#leave('A picture that cannot be decoded');
    const channels = image.kind === 3 ? 4 : image.kind === 2 ? 3 : 0;
    if (!channels || image.data.length < image.width * image.height * channels)
      return this.#leave('A picture of one bit a pixel');
    const m = this.#state.matrix;
    const corners = [mapPoint(m, 0, 0), mapPoint(m, 1, 1), mapPoint(m, 0, 1), mapPoint(m, 1, 0)];
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    this.#pictures.push({
      x: round(x),
      y: round(y),
      width: round(Math.max(...xs) - x),
      height: round(Math.max(...ys) - y),
      png: encode({
        width: image.width,
        height: image.height,
        channels,
        depth: 8,
        data: new Uint8Array(image.data.subarray(0, image.width * image.height * channels)),
      }),
      order: this.#order,
    });
  }
}

/** How many numbers follow each step of a path, and its letter. */
const STEPS: readonly (readonly [letter: string, numbers: number])[] = [
  ['M', 2],
  ['L', 2],
  ['C', 6],
  ['Q', 4],
  ['Z', 0],
];

function pathData(buffer: ArrayLike<number>, matrix: Matrix): string {
  let path = '';
  for (let i = 0; i < buffer.length;) {
    const [letter, count] = STEPS[buffer[i++]] ?? [];
    if (!letter) return path;
    path += letter;
    for (let k = 0; k < count!; k += 2) {
      const [x, y] = mapPoint(matrix, buffer[i + k], buffer[i + k + 1]);
      path += `${k ? ' ' : ''}${round(x)} ${round(y)}`;
    }
    i += count!;
  }
  return path;
}

/** Colours come as hex in newer builds and as three numbers in older ones. */
const colorOf = (args: unknown[]): string =>
  typeof args[0] === 'string'
    ? args[0]
    : `#${(args as number[])
        .slice(0, 3)
        .map((value) => value.toString(16).padStart(2, '0'))
        .join('')}`;

const withAlpha = (hex: string, alpha: number): string =>
  alpha < 1
    ? hex +
      Math.round(alpha * 255)
        .toString(16)
        .padStart(2, '0')
    : hex;
