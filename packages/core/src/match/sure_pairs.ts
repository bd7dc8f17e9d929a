import type { Element, Screen } from '../model/design.ts';
import { onceForBoth } from '../json/once_for.ts';
import { matchElements } from './elements.ts';

/** Pairs of elements that are less sure are not taken for the same. */
const LEAST_SURE = 0.5;

/** What elements of one drawing are in another, by their keys, as far as that is sure; found once for each two drawings. */
export const surePairs = onceForBoth((old: Screen, now: Screen): ReadonlyMap<string, Element> => {
  const sure = matchElements(old.root, now.root).filter(({ score }) => score >= LEAST_SURE);
  return new Map(sure.map((pair) => [pair.old.key, pair.now]));
});
