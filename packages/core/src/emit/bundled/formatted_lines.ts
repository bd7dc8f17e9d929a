/** What stands in one line stays in one line up to so many characters; of what is longer, so many stand in each. */
const LONGEST_LINE = 100;
const IN_EACH = 48;

/** About how many lines come of some when they are formatted: what is too long for one is parted at each attribute or item. */
export const formattedLines = (lines: readonly { readonly text: string }[]): number =>
  lines.reduce(
    (sum, { text }) => sum + (text.length <= LONGEST_LINE ? 1 : Math.ceil(text.length / IN_EACH)),
    0,
  );
