import type { GlyphOutline } from '../../fonts/outline.ts';
import type { Element, ElementSource } from '../../model/design.ts';
import type { ReadElement } from './reading.ts';

const em = (units: number, perEm: number): string => `${Math.round((units / perEm) * 10_000) / 10_000}em`;

/** An icon as an inline drawing that takes the place, the size and the colour that its letter would have. */
export function iconVector(
  outline: GlyphOutline,
  key: string,
  source: ElementSource,
  name: string,
  read: ReadElement,
): Element {
  const { path, unitsPerEm, ascent, descent, advance } = outline;
  const height = ascent - descent;
  return {
    key,
    kind: 'vector',
    name,
    tag: 'svg',
    box: read.box,
    style: {
      base: {
        display: 'inline-block',
        width: em(advance, unitsPerEm),
        height: em(height, unitsPerEm),
        'vertical-align': em(descent, unitsPerEm),
        fill: 'currentcolor',
        overflow: 'visible',
      },
    },
    attributes: { 'aria-hidden': 'true' },
    vector: {
      tag: 'svg',
      attributes: { viewBox: `0 ${-ascent} ${advance} ${height}` },
      children: [{ tag: 'path', attributes: { d: path }, children: [] }],
    },
    children: [],
    source,
  };
}
