import type { Element, Screen } from '../model/design.ts';
import { matchElements } from './elements.ts';

/** Pairs of elements that are less sure are not taken for the same. */
const LEAST_SURE = 0.5;

const known = new WeakMap<Screen, WeakMap<Screen, ReadonlyMap<string, Element>>>();

/** What elements of one drawing are in another, by their keys, as far as that is sure; found once for each two drawings. */
export function surePairs(old: Screen, now: Screen): ReadonlyMap<string, Element> {
  const ofOld = known.get(old) ?? new WeakMap<Screen, ReadonlyMap<string, Element>>();
  known.set(old, ofOld);
  let pairs = ofOld.get(now);
  if (!pairs) {
    const sure = matchElements(old.root, now.root).filter(({ score }) => score >= LEAST_SURE);
    ofOld.set(now, (pairs = new Map(sure.map((pair) => [pair.old.key, pair.now]))));
  }
  return pairs;
}
