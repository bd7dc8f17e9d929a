import { isElement, type MarkupElement } from '../form/markup.ts';

/** Visits an element and all in it, in order. @param visit is given what each stands in, from the outermost on */
export function eachWithin(
  root: MarkupElement,
  visit: (node: MarkupElement, within: readonly MarkupElement[]) => void,
): void {
  const go = (node: MarkupElement, within: readonly MarkupElement[]): void => {
    visit(node, within);
    const inside = [...within, node];
    for (const child of node.children) if (isElement(child)) go(child, inside);
  };
  go(root, []);
}
