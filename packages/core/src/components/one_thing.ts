/** What is one thing is at most so many times as large as half of its places, wherever something of it is missing. */
const MOST_GROWN = 2;
/** A thing of so few elements can be any. */
const LEAST_GROWN = 12;

/** How many elements one thing has at most that stands at places of some sizes: what holds one thing here and another there is none. */
export function mostElements(sizes: readonly number[]): number {
  const sorted = sizes.toSorted((a, b) => a - b);
  return Math.max(MOST_GROWN * sorted[sorted.length >> 1], LEAST_GROWN);
}
