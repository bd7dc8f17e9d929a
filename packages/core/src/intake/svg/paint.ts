import type { Box } from '../../model/design.ts';
import { type Matrix, scaleOf } from './matrix.ts';
import { lengthOf } from './shape.ts';
import type { SvgStyle } from './style.ts';
import { childElements, type XmlElement } from './xml.ts';

type Css = Record<string, string>;
const round = (n: number): number => Math.round(n * 100) / 100;

export interface BoxPaint {
  readonly look: Css;
  /** Half of it lies outside the shape, as strokes do. */
  readonly border: number;
}

/** A shape's fill, stroke and effects as CSS of a box; null when CSS has no equal, so that it stays a drawing. */
export function paintOfBox(
  shape: XmlElement,
  style: SvgStyle,
  matrix: Matrix,
  byId: ReadonlyMap<string, XmlElement>,
): BoxPaint | null {
  if (style['clip-path'] && style['clip-path'] !== 'none') return null;
  if (style.mask && style.mask !== 'none') return null;
  const look: Css = {};
  const fill = fillOf(style, byId);
  if (fill === null) return null;
  Object.assign(look, fill);
  const stroke =
    style.stroke && style.stroke !== 'none' && style.stroke !== 'transparent' ? style.stroke : null;
  if (stroke?.startsWith('url(')) return null;
  const border = stroke ? lengthOf(style['stroke-width'], 0, 1) * scaleOf(matrix) : 0;
  if (border) {
    const dashed = style['stroke-dasharray'] && style['stroke-dasharray'] !== 'none';
    for (const side of ['top', 'right', 'bottom', 'left']) {
      look[`border-${side}-width`] = `${round(border)}px`;
      look[`border-${side}-style`] = dashed ? 'dashed' : 'solid';
      look[`border-${side}-color`] = withOpacity(stroke!, style['stroke-opacity']);
    }
  }
  const radius = radiusOf(shape, matrix, border);
  if (radius)
    for (const corner of ['top-left', 'top-right', 'bottom-right', 'bottom-left'])
      look[`border-${corner}-radius`] = radius;
  const opacity = Number(style.opacity ?? 1);
  if (opacity < 1) look.opacity = String(round(opacity));
  if (style.filter && style.filter !== 'none') {
    const shadow = shadowOf(style.filter, byId, scaleOf(matrix));
    if (!shadow) return null;
    look['box-shadow'] = shadow;
  }
  return { look, border };
}

function fillOf(style: SvgStyle, byId: ReadonlyMap<string, XmlElement>): Css | null {
  const fill = style.fill ?? '#000';
  if (fill === 'none' || fill === 'transparent') return {};
  if (!fill.startsWith('url('))
    return {
      'background-color': withOpacity(
        fill === 'currentColor' ? (style.color ?? '#000') : fill,
        style['fill-opacity'],
      ),
    };
  const gradient = byId.get(/#([^"')]+)/.exec(fill)?.[1] ?? '');
  const image = gradient && linearGradient(gradient, byId);
  return image ? { 'background-image': image } : null;
}

/** A gradient across the box in its own units; turned or absolute ones stay drawings. */
function linearGradient(gradient: XmlElement, byId: ReadonlyMap<string, XmlElement>): string | null {
  const a = gradient.attributes;
  if (gradient.name !== 'linearGradient' || a.gradientUnits === 'userSpaceOnUse' || a.gradientTransform)
    return null;
  const at = (name: string, fallback: number): number =>
    a[name] === undefined ? fallback : lengthOf(a[name], 1);
  const [dx, dy] = [at('x2', 1) - at('x1', 0), at('y2', 0) - at('y1', 0)];
  const direction =
    dx === 0 && dy > 0
      ? 'to bottom'
      : dx === 0 && dy < 0
        ? 'to top'
        : dy === 0 && dx > 0
          ? 'to right'
          : dy === 0 && dx < 0
            ? 'to left'
            : dx > 0 && dy > 0
              ? 'to bottom right'
              : null;
  const own = childElements(gradient).filter((child) => child.name === 'stop');
  const from = own.length ? gradient : byId.get((a.href ?? '').replace('#', ''));
  const stops = from ? childElements(from).filter((child) => child.name === 'stop') : [];
  if (!direction || !stops.length) return null;
  const style = (stop: XmlElement, name: string): string | undefined =>
    stop.attributes[name] ??
    new RegExp(`(?:^|;)\\s*${name}\\s*:\\s*([^;]+)`).exec(stop.attributes.style ?? '')?.[1].trim();
  const list = stops.map((stop) => {
    const offset = lengthOf(stop.attributes.offset, 1);
    return `${withOpacity(style(stop, 'stop-color') ?? '#000', style(stop, 'stop-opacity'))} ${round(offset * 100)}%`;
  });
  return `linear-gradient(${direction}, ${list.join(', ')})`;
}

function shadowOf(filter: string, byId: ReadonlyMap<string, XmlElement>, scale: number): string | null {
  const definition = byId.get(/#([^"')]+)/.exec(filter)?.[1] ?? '');
  const steps = definition ? childElements(definition) : [];
  if (steps.length !== 1 || steps[0].name !== 'feDropShadow') return null;
  const a = steps[0].attributes;
  const [dx, dy, blur] = [lengthOf(a.dx, 0, 2), lengthOf(a.dy, 0, 2), 2 * lengthOf(a.stdDeviation, 0, 2)].map(
    (n) => `${round(n * scale)}px`,
  );
  return `${dx} ${dy} ${blur} ${withOpacity(a['flood-color'] ?? '#000', a['flood-opacity'])}`;
}

function radiusOf(shape: XmlElement, matrix: Matrix, border: number): string | null {
  if (shape.name === 'circle' || shape.name === 'ellipse') return '50%';
  const rx = lengthOf(shape.attributes.rx ?? shape.attributes.ry);
  if (rx <= 0) return null;
  const limit = Math.min(lengthOf(shape.attributes.width), lengthOf(shape.attributes.height)) / 2;
  return `${round(Math.min(rx, limit) * scaleOf(matrix) + border / 2)}px`;
}

/** A colour with an opacity mixed in. */
export function withOpacity(color: string, opacity: string | undefined): string {
  const alpha =
    opacity === undefined ? 1 : opacity.endsWith('%') ? parseFloat(opacity) / 100 : Number(opacity);
  if (!(alpha < 1)) return color;
  const hex = /^#([0-9a-f]{3}|[0-9a-f]{6})$/i.exec(color)?.[1];
  if (!hex) return `color-mix(in srgb, ${color} ${round(alpha * 100)}%, transparent)`;
  const full = hex.length === 3 ? [...hex].map((c) => c + c).join('') : hex;
  const [r, g, b] = [0, 2, 4].map((i) => parseInt(full.slice(i, i + 2), 16));
  return `rgb(${r} ${g} ${b} / ${round(alpha)})`;
}

export const grow = (box: Box, by: number): Box => ({
  x: box.x - by,
  y: box.y - by,
  width: box.width + 2 * by,
  height: box.height + 2 * by,
});
