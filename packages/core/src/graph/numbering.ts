import { whileSame } from '../json/once_for.ts';

/** Numbers for the screens and overlays of a graph, and their ways as lists of numbers. */
export interface Numbering {
  /** Screens in their order, then overlays. */
  readonly keys: readonly string[];
  readonly index: ReadonlyMap<string, number>;
}

/** The same for the same two lists, so that what is known of ways by their numbers stays known after an edit. */
export const numberingOf = whileSame((screens: readonly string[], overlays: readonly string[]): Numbering => {
  const keys = [...screens, ...overlays];
  return { keys, index: new Map(keys.map((key, i) => [key, i])) };
});

/** Where each way of a list leads, by number; -1 for what is in no use. */
export const goalsOf = whileSame(
  (ways: readonly { readonly to: string }[], numbering: Numbering): Int32Array =>
    Int32Array.from(ways, ({ to }) => numbering.index.get(to) ?? -1),
);
