import { stringifySorted } from '../../../json/json.ts';
import type { StyleRule } from '../markup.ts';
import { onceFor } from '../../../json/once_for.ts';

/** All that a class says. */
export type Look = Pick<StyleRule, 'base' | 'at' | 'from' | 'states'>;

/** The same for classes that say the same, in whatever order: no property says a part of another. */
export const lookText = onceFor((look: Look): string => {
  const { base, at, from, states } = look;
  return stringifySorted([base, at, from, states]);
});
