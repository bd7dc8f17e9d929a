import type { Element } from '../model/design.ts';
import { roleOf } from '../roles/role.ts';

const alignments = new WeakMap<Element, WeakMap<Element, ReadonlyMap<string, string>>>();

/**
 * Which element of one place of a component is which of another, by their keys. Children are matched in order, as a
 * longest common subsequence of what they are, so that a part that only one place has shifts nothing.
 */
export function alignPlaces(a: Element, b: Element): ReadonlyMap<string, string> {
  let known = alignments.get(a);
  if (!known) alignments.set(a, (known = new WeakMap<Element, ReadonlyMap<string, string>>()));
  const found = known.get(b);
  if (found) return found;
  const pairs = new Map<string, string>();
  align(a, b, pairs);
  known.set(b, pairs);
  return pairs;
}

const kindOf = (element: Element): string => `${element.kind} ${element.tag ?? ''} ${roleOf(element) ?? ''}`;

function align(a: Element, b: Element, pairs: Map<string, string>): void {
  pairs.set(a.key, b.key);
  const [left, right] = [a.children, b.children];
  const length = Array.from({ length: left.length + 1 }, () => new Uint16Array(right.length + 1));
  for (let i = left.length - 1; i >= 0; i--)
    for (let j = right.length - 1; j >= 0; j--)
      length[i][j] =
        kindOf(left[i]) === kindOf(right[j])
          ? length[i + 1][j + 1] + 1
          : Math.max(length[i + 1][j], length[i][j + 1]);
  for (let i = 0, j = 0; i < left.length && j < right.length;) {
    if (kindOf(left[i]) === kindOf(right[j])) align(left[i++], right[j++], pairs);
    else if (length[i + 1][j] >= length[i][j + 1]) i++;
    else j++;
  }
}
