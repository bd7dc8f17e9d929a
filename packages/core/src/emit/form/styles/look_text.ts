import { stringifySorted } from '../../../json/json.ts';
import type { StyleRule } from '../markup.ts';

/** All that a class says. */
export type Look = Pick<StyleRule, 'base' | 'at' | 'from' | 'states'>;

const texts = new WeakMap<Look, string>();

/** The same for classes that say the same, in whatever order: no property says a part of another. */
export function lookText(look: Look): string {
  let text = texts.get(look);
  if (text === undefined) {
    const { base, at, from, states } = look;
    texts.set(look, (text = stringifySorted([base, at, from, states])));
  }
  return text;
}
