import { limits } from '../limits.ts';
import { lengthOf } from '../svg/shape.ts';
import {
  boxAround,
  identity,
  mapPoint,
  type Matrix,
  multiply,
  parseTransform,
  translation,
} from '../svg/matrix.ts';
import { flatten, mapSegments, printSegments, type Segment, segmentsOf } from '../svg/segments.ts';
import { type SvgStyle, styleOf, type SvgStyleSheet } from '../svg/style.ts';
import { letterWidth } from '../svg/text.ts';
import { childElements, type XmlElement } from '../svg/xml.ts';
import { hexOfCss, withAlpha } from './colors.ts';
import { fontNamed } from './font_names.ts';
import { wordsByGaps } from './words_by_gaps.ts';
import type { Clip, Gradient, Paint, PaintedItem, PaintedLink, PaintedPage } from './painted_page.ts';
import { onceFor } from '../../json/once_for.ts';

const SILENT = new Set(
  'defs style title desc metadata symbol clipPath mask linearGradient radialGradient pattern filter marker script namedview'.split(
    ' ',
  ),
);
const MAX_USES = 30;

export interface SvgSource {
  readonly root: XmlElement;
  readonly byId: ReadonlyMap<string, XmlElement>;
  readonly sheet: SvgStyleSheet;
  readonly asset: (reference: string) => string | null;
}

/**
 * Whether a machine wrote a drawing, thing by thing: letters that each have a place, or outlines of letters that are used over and
 * over. People's programs write words and name their layers.
 */
export function isPaintedSvg(root: XmlElement): boolean {
  let [texts, placed, uses] = [0, 0, 0];
  const count = (element: XmlElement): void => {
    if (element.name === 'text' || element.name === 'tspan') {
      const letters = [
        ...element.children
          .filter((child) => typeof child === 'string')
          .join('')
          .trim(),
      ].length;
      if (letters) texts++;
      if (letters > 1 && (element.attributes.x ?? '').trim().split(/[\s,]+/).length >= letters) placed++;
      else if (letters === 1) placed += 0.5;
    }
    if (element.name === 'use' && fontOfOutline(element.attributes.href ?? '')) uses++;
    childElements(element).forEach(count);
  };
  count(root);
  return (texts >= 4 && placed >= texts * 0.5) || (!texts && uses >= 8);
}

/** The font that an outline is of, by what converters call outlines of letters; null for anything else. */
const fontOfOutline = (id: string): string | null =>
  /^#?(.*(?:glyph|font[-_]\d).*?)[-_.]\d+$/i.exec(id)?.[1] ?? null;

/** What a drawing paints, in the order in which it does: each of its pages, where it has some. */
export function paintedSvg(
  source: SvgSource,
  size: { width: number; height: number },
  matrix: Matrix,
): PaintedPage[] {
  const pages = childElements(source.root)
    .filter(({ name }) => name === 'pageSet')
    .flatMap((set) => childElements(set).filter(({ name }) => name === 'page'));
  return (pages.length ? pages : [source.root]).map((page) => {
    const walk = new SvgWalk(source);
    walk.children(page, {
      parents: [],
      style: styleOf(source.root, [], {}, source.sheet),
      matrix,
      clips: [],
      opacity: 1,
    });
    return { ...size, items: walk.items, links: walk.links, leftOut: walk.leftOut };
  });
}

interface Context {
  readonly parents: readonly XmlElement[];
  readonly style: SvgStyle;
  readonly matrix: Matrix;
  readonly clips: readonly Clip[];
  readonly opacity: number;
  readonly mask?: readonly PaintedItem[];
  /** Within a mask that counts how opaque things are, not how bright. */
  readonly isAlpha?: boolean;
}

class SvgWalk {
  readonly #source: SvgSource;
  readonly #uses: XmlElement[] = [];
  readonly links: PaintedLink[] = [];
  readonly leftOut: Record<string, number> = {};
  items: PaintedItem[] = [];
  #steps = 0;

  constructor(source: SvgSource) {
    this.#source = source;
  }

  children(element: XmlElement, context: Context): void {
    const parents = [...context.parents, element];
    for (const child of childElements(element)) this.#element(child, { ...context, parents });
  }

  /** @throws RangeError where a drawing says little and means far more. */
  #follow(segments: readonly Segment[]): readonly Segment[] {
    this.#steps += segments.length + 1;
    if (this.#steps > limits.steps)
      throw new RangeError(
        `It draws paths of more than ${limits.steps} steps, with its clips and masks each time that they come. Export it with fewer.`,
      );
    return segments;
  }

  #leave(what: string): void {
    this.leftOut[what] = (this.leftOut[what] ?? 0) + 1;
  }

  #reference(value: string | undefined): XmlElement | undefined {
    return this.#source.byId.get(/#([^"')]+)/.exec(value ?? '')?.[1] ?? '');
  }

  #element(element: XmlElement, outer: Context): void {
    if (SILENT.has(element.name)) return;
    const style = styleOf(element, outer.parents, outer.style, this.#source.sheet);
    if (style.display === 'none' || style.visibility === 'hidden') return;
    const matrix = multiply(outer.matrix, parseTransform(style.transform));
    const opacity = outer.opacity * Number(style.opacity ?? 1);
    if (!(opacity > 0)) return;
    const mask = this.#mask(style.mask, matrix, outer);
    const context: Context = {
      ...outer,
      style,
      matrix,
      opacity,
      clips: this.#clips(style['clip-path'], matrix, outer.clips),
      ...(mask ? { mask } : {}),
      ...(this.#uses.length && isAlphaFilter(this.#reference(style.filter)) ? { isAlpha: true } : {}),
    };
    switch (element.name) {
      case 'g':
      case 'switch':
        return this.children(element, context);
      case 'a':
        return this.#link(element, context);
      case 'svg':
        return this.children(element, {
          ...context,
          matrix: multiply(
            matrix,
            translation(lengthOf(element.attributes.x), lengthOf(element.attributes.y)),
          ),
        });
      case 'use':
        return this.#use(element, context);
      case 'text':
        return this.#text(element, context);
      case 'image':
        return this.#image(element, context);
      default:
        return this.#shape(element, context);
    }
  }

  #link(element: XmlElement, context: Context): void {
    const before = this.items.length;
    this.children(element, context);
    const points = this.items.slice(before).flatMap(pointsOf);
    const { href } = element.attributes;
    if (href && points.length) this.links.push({ box: boxAround(points), href });
  }

  #clips(value: string | undefined, matrix: Matrix, outer: readonly Clip[]): readonly Clip[] {
    const clip = value && value !== 'none' ? this.#reference(value) : undefined;
    if (clip?.name !== 'clipPath') return outer;
    const own = multiply(matrix, parseTransform(clip.attributes.transform));
    const parts = childElements(clip).flatMap((child) => {
      const segments = segmentsOfShape(child);
      if (segments) this.#follow(segments);
      return segments
        ? [
            {
              child,
              segments: mapSegments(segments, multiply(own, parseTransform(child.attributes.transform))),
            },
          ]
        : [];
    });
    if (!parts.length) return outer;
    const isEvenOdd = parts.some(
      ({ child }) => (child.attributes['clip-rule'] ?? child.attributes['fill-rule']) === 'evenodd',
    );
    return [...outer, { outline: printSegments(parts.flatMap(({ segments }) => segments)), isEvenOdd }];
  }

  #mask(value: string | undefined, matrix: Matrix, outer: Context): readonly PaintedItem[] | undefined {
    const mask = value && value !== 'none' ? this.#reference(value) : undefined;
    if (mask?.name !== 'mask' || this.#uses.includes(mask)) return outer.mask;
    const before = this.items;
    this.items = [];
    this.#uses.push(mask);
    this.children(mask, {
      parents: [],
      style: styleOf(mask, [], {}, this.#source.sheet),
      matrix,
      clips: [],
      opacity: 1,
    });
    this.#uses.pop();
    const made = this.items;
    this.items = before;
    return made;
  }

  #use(element: XmlElement, context: Context): void {
    const target = this.#reference(element.attributes.href);
    if (!target || this.#uses.includes(target) || this.#uses.length >= MAX_USES)
      return this.#leave('A reused symbol');
    const matrix = multiply(
      context.matrix,
      translation(lengthOf(element.attributes.x), lengthOf(element.attributes.y)),
    );
    const inner = { ...context, matrix, parents: [...context.parents, element] };
    this.#uses.push(target);
    const before = this.items.length;
    if (target.name === 'symbol') this.children(target, inner);
    else this.#element(target, inner);
    this.#uses.pop();
    this.#markLetter(before, element, target.attributes.id ?? '', matrix);
  }

  /** What is used as letters are is the outline of one; those of a font are called alike but for a number. */
  #markLetter(before: number, use: XmlElement, id: string, matrix: Matrix): void {
    const font = fontOfOutline(id);
    const [only, ...more] = this.items.slice(before);
    if (!font || only?.kind !== 'shape' || more.length) return;
    const char = use.attributes['data-text'];
    if (char && withoutIcons(char) !== char) return;
    // A blank draws nothing, and is seen by what it leaves between the others.
    if (char !== undefined && !char.trim()) {
      this.items.length = before;
      return;
    }
    // One font may come in many sizes; where letters are named, its outlines are of size 1.
    const scale = Math.hypot(matrix[2], matrix[3]);
    const face = `${font} ${scale.toFixed(2)}`;
    const letter = {
      id: `${id} ${face}`,
      face,
      x: matrix[4],
      y: matrix[5],
      ...(char ? { char, size: scale } : {}),
    };
    this.items[before] = { ...only, letter };
  }

  #paint(
    value: string | undefined,
    alpha: string | undefined,
    context: Context,
    segments: readonly Segment[],
  ): Paint | null {
    if (!value || value === 'none' || value === 'transparent') return null;
    const opacity = alpha === undefined ? 1 : alpha.endsWith('%') ? parseFloat(alpha) / 100 : Number(alpha);
    if (!value.startsWith('url(')) {
      const hex = hexOfCss(value === 'currentColor' ? (context.style.color ?? '#000') : value);
      return hex && withAlpha(context.isAlpha ? '#ffffff' : hex, opacity);
    }
    const definition = this.#reference(value);
    const gradient = definition && this.#gradient(definition, context, segments);
    return gradient
      ? { ...gradient, stops: gradient.stops.map(([at, color]) => [at, withAlpha(color, opacity)]) }
      : null;
  }

  #gradient(element: XmlElement, context: Context, segments: readonly Segment[]): Gradient | null {
    const from = this.#reference(element.attributes.href);
    const attributes = { ...from?.attributes, ...element.attributes };
    const stops = [element, from].flatMap((one) => {
      const own = one ? childElements(one).filter((child) => child.name === 'stop') : [];
      return own.length ? [own] : [];
    })[0];
    if (!stops || !/^(linear|radial)Gradient$/.test(element.name)) return null;
    const isOwn = attributes.gradientUnits === 'userSpaceOnUse';
    const box = boxAround(flatten(segments).flat());
    const units: Matrix = isOwn ? identity : [box.width, 0, 0, box.height, box.x, box.y];
    const whole = isOwn ? 0 : 1;
    const at = (name: string, otherwise: number): number =>
      attributes[name] === undefined ? otherwise : lengthOf(attributes[name], whole, otherwise);
    const matrix = multiply(multiply(context.matrix, units), parseTransform(attributes.gradientTransform));
    const colors = stops.map((stop): readonly [number, string] => {
      const style = styleOf(stop, [], {}, this.#source.sheet);
      const hex = hexOfCss(style['stop-color'] ?? '#000') ?? '#000000';
      return [lengthOf(stop.attributes.offset, 1), withAlpha(hex, Number(style['stop-opacity'] ?? 1))];
    });
    if (element.name === 'linearGradient')
      return {
        kind: 'linear',
        stops: colors,
        from: [at('x1', 0), at('y1', 0)],
        to: [at('x2', 1), at('y2', 0)],
        matrix,
      };
    const [cx, cy] = [at('cx', 0.5), at('cy', 0.5)];
    return {
      kind: 'radial',
      stops: colors,
      from: [at('fx', cx), at('fy', cy)],
      to: [cx, cy],
      radii: [at('fr', 0), at('r', 0.5)],
      matrix,
    };
  }

  #shape(element: XmlElement, context: Context): void {
    const segments = segmentsOfShape(element);
    if (!segments) return this.#leave(`A <${element.name}>`);
    this.#follow(segments);
    const { style, matrix, clips, opacity, mask } = context;
    const outline = printSegments(mapSegments(segments, matrix));
    if (!outline) return;
    const common = { clips, opacity, ...(mask ? { mask } : {}) };
    if (this.#pattern(style.fill, outline, context)) return;
    const fill = this.#paint(style.fill ?? '#000', style['fill-opacity'], context, segments);
    const line = this.#paint(style.stroke, style['stroke-opacity'], context, segments);
    const scale = Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2]));
    const stroke =
      typeof line === 'string'
        ? {
            color: line,
            width: lengthOf(style['stroke-width'], 0, 1) * scale,
            isDashed: !!style['stroke-dasharray'] && style['stroke-dasharray'] !== 'none',
          }
        : null;
    if (!fill && !stroke) return;
    this.items.push({
      kind: 'shape',
      ...common,
      outline,
      isEvenOdd: style['fill-rule'] === 'evenodd',
      fill,
      stroke,
    });
  }

  /** What a pattern draws, through the shape that it fills; converters write pictures so. */
  #pattern(value: string | undefined, outline: string, context: Context): boolean {
    const pattern = value?.startsWith('url(') ? this.#reference(value) : undefined;
    if (pattern?.name !== 'pattern' || this.#uses.includes(pattern)) return false;
    const { x, y, patternTransform } = pattern.attributes;
    const matrix = multiply(
      multiply(context.matrix, parseTransform(patternTransform)),
      translation(lengthOf(x), lengthOf(y)),
    );
    this.#uses.push(pattern);
    this.children(pattern, { ...context, matrix, clips: [...context.clips, { outline, isEvenOdd: false }] });
    this.#uses.pop();
    return true;
  }

  #image(element: XmlElement, context: Context): void {
    const asset = this.#source.asset(element.attributes.href ?? '');
    const n = (name: string): number => lengthOf(element.attributes[name]);
    const { clips, opacity, mask, matrix } = context;
    const place: Matrix = [n('width'), 0, 0, n('height'), n('x'), n('y')];
    this.items.push({
      kind: 'picture',
      clips,
      opacity,
      ...(mask ? { mask } : {}),
      matrix: multiply(matrix, place),
      ...(asset ? { asset } : {}),
    });
  }

  /** Text whose letters each have a place: one thing a line. */
  #text(element: XmlElement, context: Context): void {
    const first = (list: string | undefined): number[] =>
      (list ?? '').trim()
        ? list!
            .trim()
            .split(/[\s,]+/)
            .map((one) => lengthOf(one))
        : [];
    const visit = (node: XmlElement, inner: Context, at: readonly [number, number]): void => {
      const xs = first(node.attributes.x);
      const [y] = first(node.attributes.y);
      const from: readonly [number, number] = [xs[0] ?? at[0], y ?? at[1]];
      const own = node.children.filter((child) => typeof child === 'string').join('');
      if (own.trim()) this.#line(own, inner, from, xs);
      for (const child of childElements(node))
        if (child.name === 'tspan' || child.name === 'a')
          visit(
            child,
            {
              ...inner,
              parents: [...inner.parents, node],
              style: styleOf(child, [...inner.parents, node], inner.style, this.#source.sheet),
            },
            from,
          );
    };
    visit(element, context, [0, 0]);
  }

  #line(written: string, context: Context, at: readonly [number, number], xs: readonly number[]): void {
    const { style, matrix, clips, opacity, mask } = context;
    const letters = [...written.replace(/[\n\t]/g, ' ')];
    const text = withoutIcons(letters.join(''));
    if (text !== letters.join('')) this.#leave('An icon of a font that is not in the drawing');
    if (!text.trim()) return;
    const size = lengthOf(style['font-size'], 0, 16);
    const scale = Math.hypot(matrix[2], matrix[3]);
    if (Math.abs(matrix[1]) > 1e-3 || matrix[0] <= 0) return this.#leave('Turned text');
    // Blanks at the beginning are only distance.
    const lead = letters.findIndex((letter) => letter.trim());
    const last = letters.findLastIndex((letter) => letter.trim());
    const [x, y] = mapPoint(matrix, xs[lead] ?? at[0], at[1]);
    const end =
      xs.length > 1 && xs[last] !== undefined
        ? xs[last] + letterWidth(letters[last]) * size
        : (xs[0] ?? at[0]) +
          letters.slice(lead, last + 1).reduce((sum, letter) => sum + letterWidth(letter) * size, 0);
    const named = fontNamed((style['font-family'] ?? '').split(',')[0].trim());
    const weight =
      { normal: 400, bold: 700 }[style['font-weight'] ?? ''] ??
      (Number(style['font-weight']) || named.weight);
    const fill = this.#paint(style.fill ?? '#000', style['fill-opacity'], context, []);
    this.items.push({
      kind: 'text',
      clips,
      opacity,
      ...(mask ? { mask } : {}),
      text:
        withSpaces([...text].slice(lead, last + 1), xs.slice(lead), size) +
        (last < letters.length - 1 ? ' ' : ''),
      x,
      y,
      width: end * matrix[0] + matrix[4] - x,
      size: Math.round(size * scale * 100) / 100,
      family: named.family,
      weight: Math.max(weight, named.weight),
      isItalic: named.isItalic || /italic|oblique/.test(style['font-style'] ?? ''),
      color: typeof fill === 'string' ? fill : '#000000',
    });
  }
}

/** Whether a filter makes how opaque something is into how bright. */
const isAlphaFilter = (filter: XmlElement | undefined): boolean =>
  !!filter &&
  childElements(filter).some(
    ({ name, attributes }) =>
      name === 'feColorMatrix' && /^(0 0 0 0 1 ){3}/.test((attributes.values ?? '').trim()),
  );

/** Text whose spaces are written, or, where none is, with those that its letters are apart. */
function withSpaces(letters: readonly string[], xs: readonly number[], size: number): string {
  const text = letters.join('').replace(/\s+/g, ' ');
  if (text.includes(' ') || xs.length < letters.length) return text;
  const gaps = letters.slice(1).map((_, i) => xs[i + 1] - xs[i] - letterWidth(letters[i]) * size);
  let at = 0;
  return wordsByGaps(gaps, 0.16 * size)
    .map((count) => letters.slice(at, (at += count)).join(''))
    .join(' ');
}

const withoutIcons = (text: string): string => text.replace(/[\ue000-\uf8ff]|[\u{f0000}-\u{10fffd}]/gu, ' ');

const pointsOf = (item: PaintedItem): (readonly [number, number])[] =>
  item.kind === 'text'
    ? [
        [item.x, item.y - item.size],
        [item.x + item.width, item.y],
      ]
    : item.kind === 'shape'
      ? flatten(segmentsOf(item.outline)).flat()
      : [mapPoint(item.matrix, 0, 0), mapPoint(item.matrix, 1, 1)];

/** The path of a shape, in its own coordinates; null for what is none. Read once: clips come with many things. */
const segmentsOfShape = onceFor((element: XmlElement): readonly Segment[] | null => readShape(element));

function readShape(element: XmlElement): Segment[] | null {
  const n = (name: string): number => lengthOf(element.attributes[name]);
  const numbers = (): number[] =>
    (element.attributes.points?.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number);
  switch (element.name) {
    case 'path':
      return segmentsOf(element.attributes.d ?? '');
    case 'rect': {
      const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
      const rx = Math.min(lengthOf(element.attributes.rx ?? element.attributes.ry), w / 2);
      const ry = Math.min(lengthOf(element.attributes.ry ?? element.attributes.rx), h / 2);
      return segmentsOf(
        rx > 0 && ry > 0
          ? `M${x + rx} ${y}H${x + w - rx}A${rx} ${ry} 0 0 1 ${x + w} ${y + ry}V${y + h - ry}A${rx} ${ry} 0 0 1 ${x + w - rx} ${y + h}H${x + rx}A${rx} ${ry} 0 0 1 ${x} ${y + h - ry}V${y + ry}A${rx} ${ry} 0 0 1 ${x + rx} ${y}Z`
          : `M${x} ${y}H${x + w}V${y + h}H${x}Z`,
      );
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [n('cx'), n('cy')];
      const [rx, ry] = element.name === 'circle' ? [n('r'), n('r')] : [n('rx'), n('ry')];
      return segmentsOf(
        `M${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}Z`,
      );
    }
    case 'line':
      return segmentsOf(`M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`);
    case 'polyline':
    case 'polygon': {
      const values = numbers();
      const closes = element.name === 'polygon' ? 'Z' : '';
      return segmentsOf(
        values.length >= 4 ? `M${values[0]} ${values[1]}L${values.slice(2).join(' ')}${closes}` : '',
      );
    }
    default:
      return null;
  }
}
