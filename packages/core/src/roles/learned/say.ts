/** Takes a trait that holds: a word that means the same on any page. */
export type Say = (trait: string) => void;

/** One of a few ranges that a number falls into, as a word. */
export function range(value: number, bounds: readonly number[]): string {
  const at = bounds.findIndex((bound) => value < bound);
  return at === -1 ? `from ${bounds.at(-1)}` : `below ${bounds[at]}`;
}
