import type { Box } from '../../model/design.ts';
import { boxAround } from './matrix.ts';
import { flatten, type Point, segmentsOf } from './segments.ts';
import type { XmlElement } from './xml.ts';
import { onceFor } from '../../json/once_for.ts';

/** A length attribute in px; percentages of `whole`. */
export function lengthOf(value: string | undefined, whole = 0, fallback = 0): number {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(px|pt|mm|cm|in|%)?\s*$/i.exec(value ?? '');
  if (!match) return fallback;
  const n = Number(match[1]);
  const perUnit: Record<string, number> = {
    pt: 4 / 3,
    mm: 96 / 25.4,
    cm: 96 / 2.54,
    in: 96,
    '%': whole / 100,
  };
  return n * (perUnit[match[2]?.toLowerCase()] ?? 1);
}

/** Bounds of a shape's geometry in its own coordinates, without its stroke; null for what is not a shape. Looked at once. */
export const shapeBounds = onceFor(measure);

function measure(shape: XmlElement): Box | null {
  const n = (name: string): number => lengthOf(shape.attributes[name]);
  switch (shape.name) {
    case 'rect':
    case 'image':
      return { x: n('x'), y: n('y'), width: n('width'), height: n('height') };
    case 'circle':
      return { x: n('cx') - n('r'), y: n('cy') - n('r'), width: 2 * n('r'), height: 2 * n('r') };
    case 'ellipse':
      return { x: n('cx') - n('rx'), y: n('cy') - n('ry'), width: 2 * n('rx'), height: 2 * n('ry') };
    case 'line':
      return boxAround([
        [n('x1'), n('y1')],
        [n('x2'), n('y2')],
      ]);
    case 'polyline':
    case 'polygon':
      return boxAround(pairs(numbersIn(shape.attributes.points ?? '')));
    case 'path':
      return boxAround(pathPoints(shape.attributes.d ?? ''));
    default:
      return null;
  }
}

const numbersIn = (text: string): number[] =>
  (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number);

const pairs = (numbers: number[]): Point[] =>
  Array.from({ length: Math.floor(numbers.length / 2) }, (_, i) => [numbers[2 * i], numbers[2 * i + 1]]);

/** Points on a path, dense enough for its bounds. Reads up to the first thing that is not path data. */
export const pathPoints = (d: string): Point[] => flatten(segmentsOf(d)).flat();
