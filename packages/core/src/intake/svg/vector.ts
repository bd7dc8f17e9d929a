import type { Box, VectorNode } from '../../model/design.ts';
import { type SvgStyle, styleOf, type SvgStyleSheet } from './style.ts';
import { childElements, textContent, type XmlElement } from './xml.ts';

const DRAWN = new Set([
  'g',
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'text',
  'tspan',
  'use',
  'symbol',
  'svg',
  'defs',
  'clipPath',
  'mask',
  'linearGradient',
  'radialGradient',
  'stop',
  'pattern',
  'filter',
  'feDropShadow',
  'feGaussianBlur',
  'feOffset',
  'feBlend',
  'feFlood',
  'feComposite',
  'feMerge',
  'feMergeNode',
  'feColorMatrix',
  'feComponentTransfer',
  'feFuncR',
  'feFuncG',
  'feFuncB',
  'feFuncA',
  'feConvolveMatrix',
  'feDiffuseLighting',
  'feDisplacementMap',
  'feDistantLight',
  'feMorphology',
  'fePointLight',
  'feSpecularLighting',
  'feSpotLight',
  'feTile',
  'feTurbulence',
  'marker',
]);
const GEOMETRY = new Set([
  'x',
  'y',
  'width',
  'height',
  'cx',
  'cy',
  'r',
  'rx',
  'ry',
  'x1',
  'y1',
  'x2',
  'y2',
  'd',
  'points',
  'transform',
  'viewBox',
  'offset',
  'dx',
  'dy',
  'gradientUnits',
  'gradientTransform',
  'clipPathUnits',
  'maskUnits',
  'maskContentUnits',
  'patternUnits',
  'patternTransform',
  'filterUnits',
  'stdDeviation',
  'in',
  'in2',
  'result',
  'mode',
  'operator',
  'values',
  'type',
  'flood-color',
  'flood-opacity',
  'fx',
  'fy',
  'preserveAspectRatio',
  'pathLength',
  'spreadMethod',
  'markerWidth',
  'markerHeight',
  'refX',
  'refY',
  'orient',
  'k1',
  'k2',
  'k3',
  'k4',
  'baseFrequency',
  'numOctaves',
  'seed',
  'stitchTiles',
  'scale',
  'xChannelSelector',
  'yChannelSelector',
  'radius',
  'order',
  'kernelMatrix',
  'divisor',
  'bias',
  'edgeMode',
  'tableValues',
  'slope',
  'intercept',
  'amplitude',
  'exponent',
  'azimuth',
  'elevation',
  'surfaceScale',
  'specularConstant',
  'specularExponent',
  'diffuseConstant',
  'lighting-color',
  'color-interpolation-filters',
  'mask-type',
]);
const LOCAL_REFERENCE = /^\s*#([^\s]+)\s*$/;
const LOCAL_URL = /url\(\s*["']?#([^"')\s]+)["']?\s*\)/g;

/** The initial values, which need not be written. */
const INITIAL: Readonly<Record<string, string>> = {
  fill: '#000',
  'fill-opacity': '1',
  stroke: 'none',
  'stroke-width': '1',
  'stroke-opacity': '1',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-dasharray': 'none',
  'stroke-miterlimit': '4',
  'fill-rule': 'nonzero',
  'clip-rule': 'nonzero',
  visibility: 'visible',
  opacity: '1',
  display: 'inline',
};
const TEXT_ONLY = /^(font|letter-spacing|word-spacing|text-|color$)/;

/**
 * One inline drawing of an element and all beneath it: resolved style in attributes, only known elements and
 * attributes, and only references to its own definitions.
 * @param bounds what the drawing shows, in the coordinates of the element's parent.
 */
export function drawVector(
  element: XmlElement,
  parents: readonly XmlElement[],
  inherited: SvgStyle,
  sheet: SvgStyleSheet,
  byId: ReadonlyMap<string, XmlElement>,
  bounds: Box,
): VectorNode {
  const wanted = new Set<string>();
  const done = new Set<string>();
  const local = (value: string): string | null => {
    if (!/url\(/i.test(value)) return value;
    let foreign = /url\(\s*["']?(?!#)/i.test(value);
    const mapped = value.replace(LOCAL_URL, (_, id: string) => {
      if (!byId.has(id)) foreign = true;
      wanted.add(id);
      return `url(#${id})`;
    });
    return foreign ? null : mapped;
  };
  const copy = (node: XmlElement, above: readonly XmlElement[], from: SvgStyle): VectorNode | null => {
    if (!DRAWN.has(node.name)) return null;
    const style = styleOf(node, above, from, sheet);
    if (style.display === 'none') return null;
    const attributes: Record<string, string> = {};
    for (const [name, value] of Object.entries(node.attributes)) {
      if (name === 'href') {
        const id = LOCAL_REFERENCE.exec(value)?.[1];
        if (!id || !byId.has(id)) continue;
        wanted.add(id);
        attributes.href = `#${id}`;
      } else if (GEOMETRY.has(name)) {
        const safe = local(value);
        if (safe !== null) attributes[name] = safe;
      }
    }
    if (node.attributes.id && done.has(node.attributes.id)) attributes.id = node.attributes.id;
    for (const [name, value] of Object.entries(style)) {
      if (name === 'transform') {
        attributes.transform = value;
        continue;
      }
      if ((from[name] ?? INITIAL[name]) === value && name !== 'opacity') continue;
      if (TEXT_ONLY.test(name) && node.name !== 'text' && node.name !== 'tspan') continue;
      const safe = local(value);
      if (safe !== null && safe !== '') attributes[name] = safe;
    }
    const under = [...above, node];
    const children = childElements(node)
      .map((child) => copy(child, under, style))
      .filter((child) => child !== null);
    const text =
      (node.name === 'text' || node.name === 'tspan') && !children.length ? textContent(node) : undefined;
    return { tag: node.name, attributes, children, ...(text ? { text } : {}) };
  };
  const outer: Record<string, string> = {
    viewBox: [bounds.x, bounds.y, bounds.width, bounds.height].map(round).join(' '),
  };
  for (const [name, value] of Object.entries(inherited))
    if (INITIAL[name] !== undefined && INITIAL[name] !== value && !['display', 'opacity'].includes(name))
      outer[name] = local(value) ?? 'none';
  const drawn = copy(element, parents, inherited);
  const definitions: VectorNode[] = [];
  for (
    let id = [...wanted].find((w) => !done.has(w));
    id !== undefined;
    id = [...wanted].find((w) => !done.has(w))
  ) {
    done.add(id);
    const definition = byId.get(id);
    const copied = definition && copy(definition, [], {});
    if (copied) definitions.push(copied);
  }
  return {
    tag: 'svg',
    attributes: outer,
    children: [
      ...(definitions.length ? [{ tag: 'defs', attributes: {}, children: definitions }] : []),
      ...(drawn ? [drawn] : []),
    ],
  };
}

const round = (n: number): number => Math.round(n * 100) / 100;
