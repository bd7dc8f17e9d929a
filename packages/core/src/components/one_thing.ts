/** What is one thing is at most so many times as large as half of its places, wherever something of it is missing. */
const MOST_GROWN = 2;
/** A thing of so few elements can be any. */
const LEAST_GROWN = 12;

/** How many elements one thing has at most that stands at places of some sizes: what holds one thing here and another there is none. */
export function mostElements(sizes: readonly number[]): number {
  const sorted = sizes.toSorted((a, b) => a - b);
  return Math.max(MOST_GROWN * sorted[sorted.length >> 1], LEAST_GROWN);
}

/** A component with more to give than this says less than what it stands for; a row may be given more. */
const MOST_GIVEN = { component: 9, list: 16 } as const;
/** A row of a table is given what each of its cells says, and where that leads. */
const GIVEN_A_CELL = 2;

/** How many things one thing is given at most. @param cells of what is a row of a table */
export const mostGiven = (kind: keyof typeof MOST_GIVEN, cells = 0): number =>
  kind === 'list' ? Math.max(MOST_GIVEN.list, GIVEN_A_CELL * cells) : MOST_GIVEN[kind];
