import type { ScreenSight, Sight } from '../sight.ts';
import { onceFor } from '../../json/once_for.ts';

/** What stands in an element, counted once from the innermost outwards. */
export interface Contents {
  /** Texts, pictures and drawings. */
  readonly leaves: number;
  readonly pictures: number;
  /** Whether something in it shows that it can be pressed. */
  readonly isPointedAt: boolean;
}

/** What stands in each element of a screen. */
export const contentsOf = onceFor((screen: ScreenSight): ReadonlyMap<Sight, Contents> => count(screen));

function count({ all }: ScreenSight): Map<Sight, Contents> {
  const contents = new Map<Sight, Contents>();
  for (const sight of all.toReversed()) {
    const { kind } = sight.element;
    const inner = sight.children.map((child) => contents.get(child)!);
    const isLeaf = sight.hasOwnText || (!sight.children.length && kind !== 'box');
    contents.set(sight, {
      leaves: inner.reduce((sum, { leaves }) => sum + leaves, isLeaf ? 1 : 0),
      pictures: inner.reduce(
        (sum, { pictures }) => sum + pictures,
        kind === 'vector' || kind === 'image' ? 1 : 0,
      ),
      isPointedAt:
        sight.children.some((child) => child.cursor === 'pointer') ||
        inner.some(({ isPointedAt }) => isPointedAt),
    });
  }
  return contents;
}
