import { onceForBoth } from '../json/once_for.ts';
import type { Element } from '../model/design.ts';
import { commonSubsequence } from '../match/sequence.ts';
import { roleOf } from '../roles/role.ts';

/**
 * Which element of one place of a component is which of another, by their keys. Children are matched in order, as a
 * longest common subsequence of what they are, so that a part that only one place has shifts nothing.
 */
export const alignPlaces = onceForBoth((a: Element, b: Element): ReadonlyMap<string, string> => {
  const pairs = new Map<string, string>();
  align(a, b, pairs);
  return pairs;
});

const kindOf = (element: Element): string => `${element.kind} ${element.tag ?? ''} ${roleOf(element) ?? ''}`;

function align(a: Element, b: Element, pairs: Map<string, string>): void {
  pairs.set(a.key, b.key);
  for (const [i, j] of commonSubsequence(a.children.map(kindOf), b.children.map(kindOf)))
    align(a.children[i], b.children[j], pairs);
}
