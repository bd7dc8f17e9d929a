/** Numbers for the screens and overlays of a graph, and their ways as lists of numbers. */
export interface Numbering {
  /** Screens in their order, then overlays. */
  readonly keys: readonly string[];
  readonly index: ReadonlyMap<string, number>;
}

const numberings = new WeakMap<readonly string[], { overlays: readonly string[]; numbering: Numbering }>();

/** The same for the same two lists, so that what is known of ways by their numbers stays known after an edit. */
export function numberingOf(screens: readonly string[], overlays: readonly string[]): Numbering {
  const known = numberings.get(screens);
  if (known?.overlays === overlays) return known.numbering;
  const keys = [...screens, ...overlays];
  const numbering = { keys, index: new Map(keys.map((key, i) => [key, i])) };
  numberings.set(screens, { overlays, numbering });
  return numbering;
}

const goals = new WeakMap<readonly object[], { numbering: Numbering; numbers: Int32Array }>();

/** Where each way of a list leads, by number; -1 for what is in no use. */
export function goalsOf(ways: readonly { readonly to: string }[], numbering: Numbering): Int32Array {
  const known = goals.get(ways);
  if (known?.numbering === numbering) return known.numbers;
  const numbers = Int32Array.from(ways, ({ to }) => numbering.index.get(to) ?? -1);
  goals.set(ways, { numbering, numbers });
  return numbers;
}
