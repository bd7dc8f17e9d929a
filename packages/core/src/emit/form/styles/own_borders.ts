import type { Declarations } from '../../../model/design.ts';
import type { StyleRule } from '../markup.ts';

type Look = Pick<StyleRule, 'base' | 'at' | 'from' | 'states'>;

/** How wide a line is of which nothing is said: `medium`. */
const MEDIUM = '3px';
const SIDES = ['top', 'right', 'bottom', 'left'];

/**
 * The look of something that becomes a button and was none. A button has no borders by itself, however wide; elsewhere a line that
 * is drawn has a width of which nothing need be said.
 */
export function withOwnBorders({ base, at, from, states }: Look): Look {
  const added = (block: Declarations): Declarations => {
    const missing = SIDES.filter((side) => {
      const [style, width] = [`border-${side}-style`, `border-${side}-width`];
      return !/^(none|hidden|initial)?$/.test(block[style] ?? '') && !(width in block) && !(width in base);
    });
    return missing.length
      ? { ...block, ...Object.fromEntries(missing.map((side) => [`border-${side}-width`, MEDIUM])) }
      : block;
  };
  const all = (table: Readonly<Record<string, Declarations>>) =>
    Object.fromEntries(Object.entries(table).map(([key, block]) => [key, added(block)]));
  return { base: added(base), at: all(at), from: all(from), states: all(states) };
}
