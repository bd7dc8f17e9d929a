import type { Box, VectorNode } from '../../model/design.ts';
import { union } from '../../layout/placed.ts';
import { multiply, translation } from '../svg/matrix.ts';
import { mapSegments, printSegments, segmentsOf } from '../svg/segments.ts';
import { channelsOf } from './colors.ts';
import { isWhole, type Window, type Windows } from './clipping.ts';
import { gradientNode } from './gradient.ts';
import { boundsOfShape } from './look_of_shape.ts';
import type { Paint, PaintedShape } from './painted_page.ts';
import { overlap } from './clipping.ts';

/** One drawing of shapes that were painted one after another, and where it stands. */
export function vectorOfShapes(
  shapes: readonly PaintedShape[],
  windows: Windows,
): { box: Box; vector: VectorNode } {
  const seen = shapes.map((shape) => {
    const window = windows.of(shape.clips);
    return { shape, window, box: overlap(window.box, boundsOfShape(shape)) };
  });
  const all = union(seen.map(({ box }) => box));
  // What has no width or no height would show nothing.
  const box = { ...all, width: Math.max(all.width, 1), height: Math.max(all.height, 1) };
  const definitions: VectorNode[] = [];
  const drawn = seen.map(({ shape, window }) => nodeOf(shape, window, box, definitions));
  return {
    box,
    vector: {
      tag: 'svg',
      attributes: { viewBox: `0 0 ${round(box.width)} ${round(box.height)}` },
      children: [
        ...(definitions.length ? [{ tag: 'defs', attributes: {}, children: definitions }] : []),
        ...drawn,
      ],
    },
  };
}

const round = (n: number): number => Math.round(n * 100) / 100;

function nodeOf(shape: PaintedShape, window: Window, box: Box, definitions: VectorNode[]): VectorNode {
  const move = translation(-box.x, -box.y);
  const paint = (value: Paint): Record<string, string> => {
    if (typeof value !== 'string') {
      const id = `paint${definitions.length + 1}`;
      definitions.push(gradientNode(value, id, multiply(move, value.matrix)));
      return { fill: `url(#${id})` };
    }
    const channels = channelsOf(value);
    return channels && channels[3] < 255
      ? { fill: value.slice(0, 7), 'fill-opacity': String(round(channels[3] / 255)) }
      : { fill: value };
  };
  const attributes: Record<string, string> = {
    d: printSegments(mapSegments(segmentsOf(shape.outline), move)),
    ...(shape.fill ? paint(shape.fill) : { fill: 'none' }),
    ...(shape.fill && shape.isEvenOdd ? { 'fill-rule': 'evenodd' } : {}),
    ...(shape.stroke
      ? { stroke: shape.stroke.color, 'stroke-width': String(round(shape.stroke.width)) }
      : {}),
    ...(shape.opacity < 1 ? { opacity: String(round(shape.opacity)) } : {}),
  };
  const node: VectorNode = { tag: 'path', attributes, children: [] };
  const outlines = [
    ...(isWhole(boundsOfShape(shape), window)
      ? []
      : window.rounds.map(({ outline }) => ({ outline, isEvenOdd: false }))),
    ...window.others,
  ];
  return outlines.reduce<VectorNode>((inner, { outline, isEvenOdd }) => {
    const id = `clip${definitions.length + 1}`;
    definitions.push({
      tag: 'clipPath',
      attributes: { id },
      children: [
        {
          tag: 'path',
          attributes: {
            d: printSegments(mapSegments(outline, move)),
            ...(isEvenOdd ? { 'clip-rule': 'evenodd' } : {}),
          },
          children: [],
        },
      ],
    });
    return { tag: 'g', attributes: { 'clip-path': `url(#${id})` }, children: [inner] };
  }, node);
}
