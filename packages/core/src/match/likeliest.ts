import type { Element, Screen } from '../model/design.ts';
import { likeness, makingOf } from './likeness.ts';
import { type Traits, traitsOf } from './traits.ts';
import { onceFor } from '../json/once_for.ts';

const traitsByElement = onceFor(
  (root: Element): ReadonlyMap<Element, Traits> => new Map(traitsOf(root).map((one) => [one.element, one])),
);

/** Elements of a newer screen that are most like one of an older, the likeliest first; with their likeness, 0 to 1. */
export function likeliest(
  from: Screen,
  element: Element,
  to: Screen,
  most = 3,
): { readonly element: Element; readonly score: number }[] {
  const traits = traitsByElement(from.root).get(element);
  if (!traits) return [];
  const others = traitsOf(to.root);
  const making = makingOf(traitsOf(from.root)[0], others[0]);
  return others
    .map((one) => ({ element: one.element, score: Math.round(likeness(traits, one, making) * 1000) / 1000 }))
    .sort((a, b) => b.score - a.score)
    .slice(0, most);
}
