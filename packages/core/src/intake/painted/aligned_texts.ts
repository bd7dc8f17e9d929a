import { middle, type Placed, right } from '../../layout/placed.ts';

/** Lines whose middles, or ends, are this near each other, in px, share them. */
const NEAR = 1.2;
/** A line that leaves less than this at its sides fills its place, however it is aligned. */
const ROOM = 4;

type Align = NonNullable<Placed['soft']>['align'];

/**
 * Tells how lines of text are aligned, which nobody says of what was painted: in the middle of what holds them, or with the
 * ends of others above and below them.
 */
export function alignedTexts(item: Placed): Placed {
  if (item.kind === 'text') return item;
  const children = item.children.map(alignedTexts);
  const lines = children.filter((child) => child.kind === 'text' && !child.hidden && child.soft);
  const aligned = new Map<Placed, Align>();
  for (const line of lines) {
    const [left, rest] = [line.box.x - item.box.x, right(item.box) - right(line.box)];
    const isInMiddle = Math.abs(left - rest) < 2 * NEAR && left > ROOM;
    const others = lines.filter((other) => other !== line);
    const sharing = (test: (other: Placed) => boolean): number => others.filter(test).length;
    const starts = sharing((other) => Math.abs(other.box.x - line.box.x) < NEAR);
    const ends = sharing(
      (other) =>
        Math.abs(right(other.box) - right(line.box)) < NEAR &&
        Math.abs(other.box.width - line.box.width) > NEAR,
    );
    const alone =
      children.length === 1 ||
      others.every((other) => Math.abs(middle(other.box) - middle(line.box)) < 2 * NEAR);
    if (isInMiddle && (alone || !starts)) aligned.set(line, 'center');
    else if (ends > starts) aligned.set(line, 'end');
  }
  return {
    ...item,
    children: children.map((child) => {
      const align = aligned.get(child);
      if (!align) return child;
      return { ...child, soft: { align, anchor: align === 'center' ? middle(child.box) : right(child.box) } };
    }),
  };
}
