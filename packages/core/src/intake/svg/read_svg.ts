import { withOwnIds } from '../drawing_ids.ts';
import { adoptBackground, assembleScreen, nest } from '../drawn/assemble.ts';
import { arrangeScreen, softOf } from '../../layout/arrange.ts';
import { contains, hasLook, type Placed, union } from '../../layout/placed.ts';
import type { Box, Notice, Screen } from '../../model/design.ts';
import { sentenceCase } from '../../model/names.ts';
import { isPlainAddress } from '../../vocabulary/addresses.ts';
import { unfoldedCount } from '../../vocabulary/vectors.ts';
import { baseName } from '../files.ts';
import { limits } from '../limits.ts';
import { screensOfPages } from '../painted/join_pages.ts';
import type { PaintedPage } from '../painted/painted_page.ts';
import { isPaintedSvg, paintedSvg } from '../painted/painted_svg.ts';
import { readPainted } from '../painted/read_painted.ts';
import {
  boxAround,
  identity,
  isUpright,
  mapBox,
  type Matrix,
  multiply,
  parseTransform,
  scaleOf,
  translation,
} from './matrix.ts';
import { grow, paintOfBox } from './paint.ts';
import { lengthOf, shapeBounds } from './shape.ts';
import { type SvgStyle, styleOf, SvgStyleSheet } from './style.ts';
import { readForeignText } from './foreign_text.ts';
import { joinTexts } from './join_text.ts';
import { readText } from './text.ts';
import { drawVector } from './vector.ts';
import { childElements, parseXml, textContent, type XmlElement, XmlError } from './xml.ts';

export interface SvgInput {
  readonly file: string;
  readonly text: string;
  readonly screenKey: string;
  /** The asset that a reference in the file leads to, by the reference as written; null when it is not there. */
  readonly asset: (reference: string) => string | null;
}

export type SvgResult =
  | { readonly screen: Screen; readonly notices: Notice[] }
  | { readonly screen: null; readonly notices: Notice[] };

const SILENT = new Set([
  'defs',
  'style',
  'title',
  'desc',
  'metadata',
  'symbol',
  'clipPath',
  'mask',
  'linearGradient',
  'radialGradient',
  'pattern',
  'filter',
  'marker',
  'script',
  'namedview',
]);
const BOXES = new Set(['rect', 'circle', 'ellipse']);
const SHAPES = new Set(['path', 'polygon', 'polyline', 'line', ...BOXES]);
/** A drawing without text at most this large either way is one icon. */
const ICON_SIZE = 96;
const MAX_USES = 30;

/** A drawing that was opened: read already, or what a machine painted, to be read when its letters are. */
export type OpenedSvg =
  | ({ readonly page: null } & SvgResult)
  | { readonly page: PaintedPage; readonly read: (page: PaintedPage) => SvgResult };

/** Reads an SVG drawing into a screen. What cannot be read at all is a notice and no screen. */
export function readSvg(input: SvgInput): SvgResult {
  const opened = openSvg(input);
  return opened.page ? opened.read(opened.page) : opened;
}

export function openSvg(input: SvgInput): OpenedSvg {
  const notices: Notice[] = [];
  const fail = (message: string): OpenedSvg & SvgResult => ({
    page: null,
    screen: null,
    notices: [...notices, { level: 'error', code: 'svg-unreadable', file: input.file, message }],
  });
  let root: XmlElement;
  try {
    root = parseXml(input.text);
  } catch (error) {
    if (!(error instanceof XmlError)) throw error;
    return fail(
      `This SVG is not complete or not well formed: ${error.message}. Export it again from where it was drawn.`,
    );
  }
  if (root.name !== 'svg')
    return fail(`The root element is <${root.name}>, not <svg>, so there is nothing to draw.`);
  const done = (screen: Screen | null): SvgResult =>
    screen ? { screen, notices } : fail('The drawing is empty: nothing in it can be seen.');
  const bounded = <T extends SvgResult | OpenedSvg>(read: () => T): T | ReturnType<typeof fail> => {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      return fail(error.message);
    }
  };
  return bounded((): OpenedSvg => {
    const reader = new SvgReader(root, input, notices);
    const page = reader.painted();
    return page
      ? { page, read: (of) => bounded(() => done(reader.readPainted(of))) }
      : { page: null, ...done(reader.read()) };
  });
}

class SvgReader {
  readonly #root: XmlElement;
  readonly #input: SvgInput;
  readonly #notices: Notice[];
  readonly #sheet: SvgStyleSheet;
  readonly #byId = new Map<string, XmlElement>();
  readonly #uses: XmlElement[] = [];
  readonly #isSplit: boolean;
  readonly #isPainted: boolean;
  #isInHidden = false;

  constructor(root: XmlElement, input: SvgInput, notices: Notice[]) {
    this.#root = root;
    this.#input = input;
    this.#notices = notices;
    const index = (element: XmlElement): void => {
      if (element.attributes.id) this.#byId.set(element.attributes.id, element);
      childElements(element).forEach(index);
    };
    index(root);
    this.#isPainted = isPaintedSvg(root);
    this.#boundWork();
    this.#sheet = new SvgStyleSheet(this.#textOfSheets(), (message) =>
      this.#notice('warning', 'sheet-too-large', '', message),
    );
    this.#isSplit = isDrawnInPieces(root);
  }

  /**
   * Leaves out what would take more work than a drawing is worth.
   * @throws RangeError where what is left would still be too much.
   */
  #boundWork(): void {
    let left: number = limits.paths;
    const visit = (element: XmlElement): void => {
      for (const name of ['d', 'points']) {
        const { length = 0 } = element.attributes[name] ?? '';
        left -= length;
        if (length <= limits.path && left >= 0) continue;
        delete (element.attributes as Record<string, string>)[name];
        this.#notice(
          'warning',
          'path-too-long',
          element.path,
          `A path of ${length} characters was left out: one may have ${limits.path}, all of a drawing ${limits.paths}. Export it with fewer points.`,
        );
      }
      childElements(element).forEach(visit);
    };
    visit(this.#root);
    const reused = (element: XmlElement): XmlElement | undefined =>
      element.name === 'use' ? this.#byId.get((element.attributes.href ?? '').replace(/^#/, '')) : undefined;
    const most = this.#isPainted ? limits.written : limits.unfolded;
    if (unfoldedCount(this.#root, { children: childElements, reused }, most) > most)
      throw new RangeError(
        `It draws more than ${most} elements, its reused symbols unfolded. Export it with fewer, or in parts.`,
      );
  }

  /** The text of all style sheets within the drawing, as far as it is not too much. */
  #textOfSheets(): string {
    const texts: string[] = [];
    const visit = (element: XmlElement): void => {
      if (element.name === 'style') texts.push(textContent(element));
      childElements(element).forEach(visit);
    };
    visit(this.#root);
    const all = texts.join('\n');
    if (all.length <= limits.drawingSheet) return all;
    this.#notice(
      'warning',
      'sheet-too-large',
      '',
      `The style sheet in this drawing has ${all.length} characters and was left out: it may have ${limits.drawingSheet}.`,
    );
    return '';
  }

  /** How large the drawing is, in px, and from its own coordinates to these. */
  #size(): { width: number; height: number; matrix: Matrix } {
    const view = (this.#root.attributes.viewBox ?? '')
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const hasView = view.length === 4 && view.every(Number.isFinite) && view[2] > 0 && view[3] > 0;
    const width = lengthOf(this.#root.attributes.width, hasView ? view[2] : 0) || (hasView ? view[2] : 0);
    const height = lengthOf(this.#root.attributes.height, hasView ? view[3] : 0) || (hasView ? view[3] : 0);
    const matrix: Matrix = hasView
      ? multiply([width / view[2], 0, 0, height / view[3], 0, 0], translation(-view[0], -view[1]))
      : identity;
    return { width, height, matrix };
  }

  read(): Screen | null {
    const { width, height, matrix } = this.#size();
    const style = styleOf(this.#root, [], {}, this.#sheet);
    const drawn = this.#children(this.#root, [], style, matrix, this.#root.path);
    if (!drawn.some((item) => !item.hidden)) return null;
    const box: Box =
      width && height
        ? { x: 0, y: 0, width: round(width), height: round(height) }
        : union(drawn.filter((item) => !item.hidden).map((item) => item.box));
    const base = this.#placed(this.#root, 'box', box, this.#root.path, { tag: 'div' });
    const root = assembleScreen(base, drawn);
    const name = this.#titleOf(this.#root) ?? sentenceCase(baseName(this.#input.file));
    return {
      key: this.#input.screenKey,
      name,
      source: { file: this.#input.file, path: '' },
      width: box.width,
      height: box.height,
      root: arrangeScreen({ ...root, name }),
      use: 'screen',
    };
  }

  /** What the drawing paints, where a machine wrote it thing by thing, without saying what belongs together. */
  painted(): PaintedPage | null {
    const { width, height, matrix } = this.#size();
    if (!width || !height || !this.#isPainted) return null;
    const source = { root: this.#root, byId: this.#byId, sheet: this.#sheet, asset: this.#input.asset };
    const [first, ...more] = screensOfPages(paintedSvg(source, { width, height }, matrix), false);
    if (more.length)
      this.#notice(
        'info',
        'pages-left',
        '',
        `The first of its ${more.length + 1} pages was read. Bring the others in as drawings of their own, or all of them as PDF.`,
      );
    return first;
  }

  readPainted(page: PaintedPage): Screen | null {
    const { file, screenKey } = this.#input;
    const name = this.#titleOf(this.#root) ?? sentenceCase(baseName(file));
    const { screen, notices } = readPainted({ file, path: '', name, screenKey, page, keep: () => null });
    this.#notices.push(...notices);
    return screen;
  }

  #notice(level: Notice['level'], code: string, path: string, message: string): void {
    this.#notices.push({ level, code, file: this.#input.file, path, message });
  }

  #titleOf(element: XmlElement): string | null {
    const title = childElements(element).find((child) => child.name === 'title');
    return (title && textContent(title).replace(/\s+/g, ' ').trim()) || null;
  }

  /** The layer name, as the editors write it. Ids lose the numbers that make them unique. */
  #nameOf(element: XmlElement): string | null {
    const a = element.attributes;
    const given = a['inkscape:label'] ?? a['data-name'] ?? this.#titleOf(element) ?? a['aria-label'];
    if (given?.trim()) return given.trim();
    if (
      !a.id ||
      /^(path|rect|g|group|text|tspan|image|circle|use|layer|svg|ellipse|line|polygon|clip|frame)[-_]?\d*$/i.test(
        a.id,
      )
    )
      return null;
    return sentenceCase(
      a.id
        .replace(/_x([0-9A-F]{2})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
        .replace(/[-_]\d+_?$/, ''),
    );
  }

  #placed(
    element: XmlElement,
    kind: Placed['kind'],
    box: Box,
    path: string,
    more: Partial<Placed> = {},
  ): Placed {
    return {
      key: `${this.#input.screenKey}:${path}`,
      kind,
      name: this.#nameOf(element) ?? more.name ?? kind,
      box: { x: round(box.x), y: round(box.y), width: round(box.width), height: round(box.height) },
      look: {},
      border: 0,
      children: [],
      source: {
        file: this.#input.file,
        path,
        ...(element.attributes.id ? { id: element.attributes.id } : {}),
      },
      ...Object.fromEntries(Object.entries(more).filter(([key]) => key !== 'name')),
    };
  }

  #children(
    element: XmlElement,
    parents: readonly XmlElement[],
    style: SvgStyle,
    matrix: Matrix,
    path: string,
  ): Placed[] {
    const under = [...parents, element];
    const drawn = childElements(element).flatMap((child, i) =>
      this.#element(child, under, style, matrix, path ? `${path}/${i}` : String(i)),
    );
    return joinTexts(drawn, this.#isSplit);
  }

  #element(
    element: XmlElement,
    parents: readonly XmlElement[],
    inherited: SvgStyle,
    outer: Matrix,
    path: string,
  ): Placed[] {
    if (SILENT.has(element.name) || element.name.includes(':')) {
      if (element.name === 'script')
        this.#notice('warning', 'script-dropped', path, 'A script in the drawing was left out.');
      return [];
    }
    const style = styleOf(element, parents, inherited, this.#sheet);
    if (style.display === 'none' || style.visibility === 'hidden' || Number(style.opacity ?? 1) === 0) {
      const name = this.#nameOf(element);
      this.#notice(
        'info',
        'hidden-layer',
        path,
        `The hidden layer ${name ? `“${name}”` : `<${element.name}>`} was left out.`,
      );
      return this.#hidden(element, parents, inherited, outer, path);
    }
    const matrix = multiply(outer, parseTransform(style.transform));
    switch (element.name) {
      case 'g':
      case 'a':
      case 'switch':
        return this.#group(element, parents, inherited, style, outer, matrix, path);
      case 'svg':
        return this.#group(
          element,
          parents,
          inherited,
          style,
          outer,
          multiply(matrix, innerViewport(element, element.attributes)),
          path,
        );
      case 'use':
        return this.#use(element, parents, style, outer, matrix, path);
      case 'text':
        return this.#text(element, parents, inherited, style, outer, matrix, path);
      case 'image':
        return this.#image(element, matrix, path);
      case 'foreignObject':
        return this.#foreign(element, style, matrix, path);
      default:
        if (SHAPES.has(element.name))
          return this.#shape(element, parents, inherited, style, outer, matrix, path);
        this.#notice(
          'info',
          'element-dropped',
          path,
          `<${element.name}> is not drawn by Tovel yet and was left out.`,
        );
        return [];
    }
  }

  /** A hidden layer comes along as it would look, to be shown if somebody wants it. */
  #hidden(
    element: XmlElement,
    parents: readonly XmlElement[],
    inherited: SvgStyle,
    outer: Matrix,
    path: string,
  ): Placed[] {
    if (this.#isInHidden) return [];
    const style = `${element.attributes.style ?? ''};display:inline;visibility:visible;opacity:1`;
    this.#isInHidden = true;
    try {
      const shown = { ...element, attributes: { ...element.attributes, style } };
      return this.#element(shown, parents, inherited, outer, path).map((item) => ({ ...item, hidden: true }));
    } finally {
      this.#isInHidden = false;
    }
  }

  #group(
    element: XmlElement,
    parents: readonly XmlElement[],
    inherited: SvgStyle,
    style: SvgStyle,
    outer: Matrix,
    matrix: Matrix,
    path: string,
  ): Placed[] {
    const isCut =
      (style['clip-path'] ?? 'none') !== 'none' ||
      (style.mask ?? 'none') !== 'none' ||
      (style.filter ?? 'none') !== 'none';
    if (this.#isDrawing(element, matrix, isCut))
      return this.#vector(element, parents, inherited, outer, path);
    const items = this.#children(element, parents, style, matrix, path);
    if (!items.length) return [];
    const made = this.#container(element, style, items, path);
    return [isCut ? this.#cutOut(made, style, matrix, path) : made];
  }

  /** A container that shows only what lies within a rectangle. Other shapes are said, and what they cut off shows. */
  #cutOut(made: Placed, style: SvgStyle, matrix: Matrix, path: string): Placed {
    const clip = this.#byId.get(/#([^"')]+)/.exec(style['clip-path'] ?? '')?.[1] ?? '');
    const shapes = clip ? childElements(clip).filter((child) => SHAPES.has(child.name)) : [];
    const isSimple =
      shapes.length === 1 &&
      BOXES.has(shapes[0].name) &&
      isUpright(matrix) &&
      clip!.attributes.clipPathUnits !== 'objectBoundingBox';
    const isElse = (style.mask ?? 'none') !== 'none' || (style.filter ?? 'none') !== 'none';
    if (isSimple) {
      const own = multiply(matrix, parseTransform(shapes[0].attributes.transform));
      const box = mapBox(own, shapeBounds(shapes[0])!);
      const radius = paintOfBox(
        shapes[0],
        { fill: 'none', stroke: '#000', 'stroke-width': '0' },
        own,
        this.#byId,
      )?.look;
      const corners = Object.fromEntries(
        Object.entries(radius ?? {}).filter(([name]) => name.endsWith('-radius')),
      );
      const isWhole = contains(box, made.box, 1);
      if (isWhole && !Object.keys(corners).length) return made;
      return {
        ...made,
        box: { x: round(box.x), y: round(box.y), width: round(box.width), height: round(box.height) },
        look: { ...made.look, ...corners, 'overflow-x': 'hidden', 'overflow-y': 'hidden' },
      };
    }
    if (clip || isElse)
      this.#notice(
        'info',
        'effect-dropped',
        path,
        `A ${clip ? 'clipping shape' : style.mask && style.mask !== 'none' ? 'mask' : 'filter'} over text or pictures has no equal in a page that flows; they are shown whole.`,
      );
    return made;
  }

  /** A piece of a page within the drawing: its text, line by line, in the style that it names. */
  #foreign(element: XmlElement, style: SvgStyle, matrix: Matrix, path: string): Placed[] {
    const read = isUpright(matrix) ? readForeignText(element, style, scaleOf(matrix)) : null;
    if (!read) {
      this.#notice('info', 'element-dropped', path, 'A <foreignObject> without text was left out.');
      return [];
    }
    const n = (name: string): number => lengthOf(element.attributes[name]);
    const box = mapBox(matrix, { x: n('x'), y: n('y'), width: n('width'), height: n('height') });
    const lines = read.text.split('\n').length;
    const height = Math.max(box.height, parseFloat(read.look['line-height']) * lines);
    const made = this.#placed(element, 'text', { ...box, height }, path, {
      tag: 'p',
      look: { ...read.look, ...(lines > 1 ? { 'white-space': 'pre-line' } : {}) },
      soft: {
        align: read.align,
        anchor:
          read.align === 'start'
            ? box.x
            : read.align === 'center'
              ? box.x + box.width / 2
              : box.x + box.width,
      },
    });
    return [{ ...made, name: this.#nameOf(element) ?? read.text.replace(/\s+/g, ' '), text: read.text }];
  }

  /** The photograph that a pattern fills a shape with, as vector editors write picture fills. */
  #patternPicture(style: SvgStyle): { asset: string; fit: string } | null {
    const pattern = this.#byId.get(/url\(["']?#([^"')]+)/.exec(style.fill ?? '')?.[1] ?? '');
    if (pattern?.name !== 'pattern') return null;
    const [only, ...more] = childElements(pattern);
    if (!only || more.length) return null;
    const image = only.name === 'use' ? this.#byId.get((only.attributes.href ?? '').replace(/^#/, '')) : only;
    if (image?.name !== 'image') return null;
    const asset = this.#input.asset(image.attributes.href ?? '');
    return asset ? { asset, fit: 'cover' } : null;
  }

  #container(element: XmlElement, style: SvgStyle, items: readonly Placed[], path: string): Placed {
    const written = element.name === 'a' ? (element.attributes.href ?? '') : '';
    const href = isPlainAddress(written) ? written : '';
    const more: Partial<Placed> = {
      tag: 'div',
      children: nest(items),
      ...(href ? { attributes: { href } } : {}),
    };
    const shown = items.filter((item) => !item.hidden);
    const box = union((shown.length ? shown : items).map((item) => item.box));
    const group = adoptBackground(this.#placed(element, 'box', box, path, more));
    const opacity = Number(style.opacity ?? 1);
    const look = opacity < 1 ? { ...group.look, opacity: String(opacity) } : group.look;
    const named: Placed = {
      ...group,
      look,
      name: this.#nameOf(element) ?? onlyName(items) ?? nameFromText(group) ?? 'group',
    };
    return hasLook(named) ? named : { ...named, ...softOf(named.children) };
  }

  #use(
    element: XmlElement,
    parents: readonly XmlElement[],
    style: SvgStyle,
    outer: Matrix,
    matrix: Matrix,
    path: string,
  ): Placed[] {
    const target = this.#byId.get((element.attributes.href ?? '').replace(/^#/, ''));
    if (!target || this.#uses.includes(target) || this.#uses.length >= MAX_USES) {
      this.#notice(
        'warning',
        'use-missing',
        path,
        `A reused symbol, “${element.attributes.href ?? ''}”, is not in this file or holds itself, so nothing is drawn for it.`,
      );
      return [];
    }
    const moved = multiply(
      matrix,
      translation(lengthOf(element.attributes.x), lengthOf(element.attributes.y)),
    );
    const at =
      target.name === 'symbol' || target.name === 'svg'
        ? multiply(moved, innerViewport(target, element.attributes))
        : moved;
    this.#uses.push(target);
    try {
      if (target.name !== 'symbol') {
        const drawn = this.#element(target, [...parents, element], style, at, `${path}/0`);
        return this.#nameOf(element) && drawn.length === 1
          ? [{ ...drawn[0], name: this.#nameOf(element)! }]
          : drawn;
      }
      if (this.#isDrawing(target, at, false))
        return this.#vector(element, parents, style, outer, path, mapBoxOf(this.#bounds(target, at)));
      const items = this.#children(target, [...parents, element], style, at, path);
      if (!items.length) return [];
      const made = this.#container(element, style, items, path);
      return [{ ...made, name: this.#nameOf(element) ?? this.#nameOf(target) ?? made.name }];
    } finally {
      this.#uses.pop();
    }
  }

  #text(
    element: XmlElement,
    parents: readonly XmlElement[],
    inherited: SvgStyle,
    style: SvgStyle,
    outer: Matrix,
    matrix: Matrix,
    path: string,
  ): Placed[] {
    const read = readText(element, parents, style, matrix, this.#sheet);
    if (!read) return isUpright(matrix) ? [] : this.#vector(element, parents, inherited, outer, path);
    const plain = read.lines.every((line) => line.length === 1 && !Object.keys(line[0].style).length);
    const text = read.lines.map((line) => line.map((run) => run.text).join('')).join('\n');
    const look: Record<string, string> = {
      ...read.style,
      ...(read.lines.length > 1 ? { 'white-space': 'pre-line' } : {}),
    };
    const made = this.#placed(element, 'text', read.box, path, {
      tag: 'p',
      look,
      ...(plain && read.piece ? { piece: read.piece } : {}),
      soft: { align: read.align, anchor: read.anchor },
    });
    const name = this.#nameOf(element) ?? text.replace(/\s+/g, ' ');
    if (plain) return [{ ...made, name, text }];
    const runs = read.lines.flatMap((line, l) =>
      line.map((run, r): Placed => {
        const isStyled = Object.keys(run.style).length > 0;
        const lead = l > 0 && r === 0 ? '\n' : '';
        return {
          ...made,
          key: `${made.key}~${l}.${r}`,
          name: run.text,
          tag: isStyled ? 'span' : undefined,
          look: run.style,
          soft: undefined,
          text: lead + run.text,
          source: { file: this.#input.file, path: `${path}~${l}.${r}` },
        };
      }),
    );
    return [{ ...made, name, children: runs }];
  }

  #image(element: XmlElement, matrix: Matrix, path: string): Placed[] {
    const reference = element.attributes.href ?? '';
    const asset = this.#input.asset(reference);
    const box = mapBox(matrix, shapeBounds(element)!);
    if (!asset) {
      const what = reference.startsWith('data:')
        ? 'A picture inside the drawing'
        : `The picture “${reference.slice(0, 80)}”`;
      this.#notice(
        'warning',
        'image-missing',
        path,
        `${what} cannot be read or did not come along; its place stays empty. Bring the file in with the drawing.`,
      );
    }
    const fit = element.attributes.preserveAspectRatio ?? '';
    const look: Record<string, string> = {
      'object-fit': fit === 'none' ? 'fill' : fit.includes('slice') ? 'cover' : 'contain',
    };
    if (!asset)
      return [
        this.#placed(element, 'box', box, path, { tag: 'div', look: { 'background-color': '#dddddd' } }),
      ];
    return [
      this.#placed(element, 'image', box, path, {
        tag: 'img',
        look,
        asset,
        attributes: { alt: this.#nameOf(element) ?? '' },
      }),
    ];
  }

  #shape(
    element: XmlElement,
    parents: readonly XmlElement[],
    inherited: SvgStyle,
    style: SvgStyle,
    outer: Matrix,
    matrix: Matrix,
    path: string,
  ): Placed[] {
    const bounds = shapeBounds(element)!;
    const photo = isUpright(matrix) && BOXES.has(element.name) ? this.#patternPicture(style) : null;
    if (photo) {
      const look = paintOfBox(element, { ...style, fill: 'none' }, matrix, this.#byId)?.look ?? {};
      return [
        this.#placed(element, 'image', mapBox(matrix, bounds), path, {
          tag: 'img',
          look: { ...look, 'object-fit': photo.fit },
          asset: photo.asset,
          attributes: { alt: this.#nameOf(element) ?? '' },
        }),
      ];
    }
    const paint =
      isUpright(matrix) && BOXES.has(element.name) ? paintOfBox(element, style, matrix, this.#byId) : null;
    if (paint) {
      if (!Object.keys(paint.look).length) return [];
      const box = grow(mapBox(matrix, bounds), paint.border / 2);
      return box.width > 0 && box.height > 0
        ? [this.#placed(element, 'box', box, path, { tag: 'div', look: paint.look, border: paint.border })]
        : [];
    }
    const isRule =
      element.name === 'line' &&
      (bounds.width === 0 || bounds.height === 0) &&
      isUpright(matrix) &&
      (style['stroke-dasharray'] ?? 'none') === 'none';
    if (isRule && style.stroke && style.stroke !== 'none') {
      const half = (lengthOf(style['stroke-width'], 0, 1) * scaleOf(matrix)) / 2;
      const line = mapBox(matrix, bounds);
      const box =
        bounds.height === 0
          ? { ...line, y: line.y - half, height: 2 * half }
          : { ...line, x: line.x - half, width: 2 * half };
      return [
        this.#placed(element, 'box', box, path, { tag: 'div', look: { 'background-color': style.stroke } }),
      ];
    }
    return this.#vector(element, parents, inherited, outer, path);
  }

  /** Whether a group is a drawing in itself, an icon or an illustration, and not a container. */
  #isDrawing(element: XmlElement, matrix: Matrix, isCut: boolean): boolean {
    let [shapes, free, others] = [0, 0, 0];
    const count = (node: XmlElement): void => {
      if (SILENT.has(node.name)) return;
      if (SHAPES.has(node.name)) {
        shapes++;
        if (!BOXES.has(node.name)) free++;
      } else if (['text', 'image', 'use', 'foreignObject'].includes(node.name)) others++;
      childElements(node).forEach(count);
    };
    count(element);
    if (others || !shapes) return false;
    const box = mapBoxOf(this.#bounds(element, matrix));
    const isSmall = box.width <= ICON_SIZE && box.height <= ICON_SIZE;
    return isCut || (isSmall && shapes > 1) || (isSmall && free > 0) || free * 2 > shapes;
  }

  /** Corners of everything drawn beneath an element, its strokes included. */
  #bounds(
    element: XmlElement,
    matrix: Matrix,
    parents: readonly XmlElement[] = [],
    inherited: SvgStyle = {},
  ): [number, number][] {
    const style = styleOf(element, parents, inherited, this.#sheet);
    if (style.display === 'none' || (SILENT.has(element.name) && element.name !== 'symbol')) return [];
    const own = shapeBounds(element);
    if (own) {
      const box = mapBox(matrix, own);
      const hasStroke = style.stroke && style.stroke !== 'none';
      return cornersOf(
        grow(box, hasStroke ? (lengthOf(style['stroke-width'], 0, 1) * scaleOf(matrix)) / 2 : 0),
      );
    }
    const under = [...parents, element];
    return childElements(element).flatMap((child) =>
      this.#bounds(child, multiply(matrix, parseTransform(child.attributes.transform)), under, style),
    );
  }

  #vector(
    element: XmlElement,
    parents: readonly XmlElement[],
    inherited: SvgStyle,
    outer: Matrix,
    path: string,
    known?: Box,
  ): Placed[] {
    const own = parseTransform(element.attributes.transform);
    const inverse = isUpright(outer) ? outer : null;
    const local =
      known && inverse
        ? undefined
        : boxAround(this.#textBounds(element) ?? this.#bounds(element, own, parents, inherited));
    const box = known ?? mapBox(outer, local!);
    const bounds = local ?? {
      x: (box.x - outer[4]) / outer[0],
      y: (box.y - outer[5]) / outer[3],
      width: box.width / outer[0],
      height: box.height / outer[3],
    };
    if (!(box.width > 0 || box.height > 0) || !(bounds.width > 0 || bounds.height > 0)) return [];
    const safe = (b: Box): Box => ({ ...b, width: Math.max(b.width, 1), height: Math.max(b.height, 1) });
    let vector = drawVector(
      element,
      parents,
      inherited,
      this.#sheet,
      this.#byId,
      safe(isUpright(outer) ? bounds : box),
    );
    if (!isUpright(outer))
      vector = {
        ...vector,
        children: [
          {
            tag: 'g',
            attributes: { transform: `matrix(${outer.map(round).join(' ')})` },
            children: vector.children,
          },
        ],
      };
    return [this.#placed(element, 'vector', safe(box), path, { tag: 'svg', vector: withOwnIds(vector) })];
  }

  /** A turned text has no geometry to measure; its place is taken from where it begins. */
  #textBounds(element: XmlElement): [number, number][] | null {
    if (element.name !== 'text') return null;
    const matrix = parseTransform(element.attributes.transform);
    const size = lengthOf(element.attributes['font-size'], 0, 16);
    const length = textContent(element).trim().length * size * 0.6;
    const [x, y] = [lengthOf(element.attributes.x), lengthOf(element.attributes.y)];
    return cornersOf(mapBox(matrix, { x, y: y - size, width: length, height: size * 1.3 }));
  }
}

/** Whether a drawing's text is written letter by letter or in parts of words, as converters do. */
function isDrawnInPieces(root: XmlElement): boolean {
  if (root.attributes['data-split'] === 'true') return true;
  let [texts, single] = [0, 0];
  const count = (element: XmlElement): void => {
    if (element.name === 'text') {
      const letters = [...textContent(element).trim()].length;
      if (letters) texts++;
      if (letters === 1) single++;
    }
    childElements(element).forEach(count);
  };
  count(root);
  return texts >= 8 && single > texts * 0.5;
}

const round = (n: number): number => Math.round(n * 100) / 100;
const mapBoxOf = (points: [number, number][]): Box => boxAround(points);
const cornersOf = (box: Box): [number, number][] => [
  [box.x, box.y],
  [box.x + box.width, box.y + box.height],
];

/** From a symbol's or nested drawing's own coordinates to those of where it stands. */
function innerViewport(element: XmlElement, size: Readonly<Record<string, string>>): Matrix {
  const move =
    element.name === 'svg'
      ? translation(lengthOf(element.attributes.x), lengthOf(element.attributes.y))
      : identity;
  const view = (element.attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (view.length !== 4 || !(view[2] > 0) || !(view[3] > 0)) return move;
  const width = lengthOf(size.width ?? element.attributes.width, view[2]) || view[2];
  const height = lengthOf(size.height ?? element.attributes.height, view[3]) || view[3];
  const scale = Math.min(width / view[2], height / view[3]);
  const [dx, dy] = [(width - view[2] * scale) / 2, (height - view[3] * scale) / 2];
  return multiply(move, multiply([scale, 0, 0, scale, dx, dy], translation(-view[0], -view[1])));
}

/** A group around one thing that has a name is called as that is. */
const onlyName = (items: readonly Placed[]): string | null =>
  items.length === 1 && items[0].name !== items[0].kind ? items[0].name : null;

/** A group without a name is called by the text in it. */
function nameFromText(group: Placed): string | null {
  for (const child of group.children) {
    if (child.kind === 'text') return child.name.slice(0, 60);
    const inner = nameFromText(child);
    if (inner) return inner;
  }
  return null;
}
