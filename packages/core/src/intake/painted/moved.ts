import type { Matrix } from '../svg/matrix.ts';
import { multiply } from '../svg/matrix.ts';
import { mapSegments, printSegments, segmentsOf } from '../svg/segments.ts';
import type { Clip, Paint, PaintedItem, PaintedPage } from './painted_page.ts';

/** A page with all of its lengths multiplied, and moved downwards by so many of the new ones. */
export function movedPage(page: PaintedPage, scale: number, down = 0): PaintedPage {
  const map: Matrix = [scale, 0, 0, scale, 0, down];
  const path = (outline: string): string => printSegments(mapSegments(segmentsOf(outline), map));
  // Clips are shared by what they hold together, and stay so.
  const lists = new Map<readonly Clip[], readonly Clip[]>();
  const outlines = new Map<Clip, Clip>();
  const clips = (list: readonly Clip[]): readonly Clip[] => {
    let moved = lists.get(list);
    if (!moved) {
      moved = list.map((clip) => {
        let one = outlines.get(clip);
        if (!one) outlines.set(clip, (one = { ...clip, outline: path(clip.outline) }));
        return one;
      });
      lists.set(list, moved);
    }
    return moved;
  };
  const paint = (value: Paint | null): Paint | null =>
    value === null || typeof value === 'string' ? value : { ...value, matrix: multiply(map, value.matrix) };
  const item = (one: PaintedItem): PaintedItem => {
    const common = { clips: clips(one.clips), ...(one.mask ? { mask: one.mask.map(item) } : {}) };
    if (one.kind === 'text')
      return {
        ...one,
        ...common,
        x: one.x * scale,
        y: one.y * scale + down,
        width: one.width * scale,
        size: Math.round(one.size * scale * 100) / 100,
      };
    if (one.kind === 'picture') return { ...one, ...common, matrix: multiply(map, one.matrix) };
    return {
      ...one,
      ...common,
      outline: path(one.outline),
      fill: paint(one.fill),
      stroke: one.stroke && { ...one.stroke, width: one.stroke.width * scale },
    };
  };
  return {
    ...page,
    width: page.width * scale,
    height: page.height * scale,
    items: page.items.map(item),
    links: page.links.map(({ box, href }) => ({
      href,
      box: {
        x: box.x * scale,
        y: box.y * scale + down,
        width: box.width * scale,
        height: box.height * scale,
      },
    })),
  };
}
