import { PRINT_WIDTH } from '../line_width.ts';

/** Of what is too long for one line, so many characters stand in each. */
const IN_EACH = 48;

/** About how many lines come of some when they are formatted: what is too long for one is parted at each attribute or item. */
export const formattedLines = (lines: readonly { readonly text: string }[]): number =>
  lines.reduce(
    (sum, { text }) =>
      sum + (text.length <= PRINT_WIDTH ? 1 : Math.max(Math.ceil(text.length / IN_EACH), propertiesIn(text))),
    0,
  );

/** Lines of the objects in a text, each of whose properties has one. */
const propertiesIn = (text: string): number =>
  (text.match(/[{,] \w+: /g) ?? []).length + 2 * (text.match(/\{ \w+: /g) ?? []).length;
