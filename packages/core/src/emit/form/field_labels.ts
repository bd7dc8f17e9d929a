import type { Element } from '../../model/design.ts';
import { textOf, walkElements } from '../../model/project.ts';

/** Longest text around a box to be ticked that is taken for what it is called. */
const LONGEST = 80;

export const isField = ({ tag, attributes }: Element): boolean =>
  (tag === 'input' && attributes?.type !== 'hidden') || tag === 'select' || tag === 'textarea';

/**
 * What fields are called that nothing on the page is tied to: the words of the label before them, or for boxes to be
 * ticked those of what they stand in. By key.
 */
export function fieldLabels(root: Element): ReadonlyMap<string, string> {
  const named = new Set<string>();
  const titles = new Map<string, string>();
  walkElements(root, (element) => {
    const { tag, attributes } = element;
    if (tag !== 'label' || !attributes?.for) return;
    if (textOf(element)) named.add(attributes.for);
    else if (attributes.title) titles.set(attributes.for, attributes.title);
  });
  const labels = new Map<string, string>();
  const isCalled = ({ attributes = {} }: Element): boolean =>
    ['aria-label', 'aria-labelledby', 'title', 'placeholder'].some((name) => attributes[name]) ||
    (attributes.id !== undefined && named.has(attributes.id)) ||
    ['submit', 'button', 'reset', 'image'].includes(attributes.type ?? '');
  /** @param around what it stands in, the innermost first */
  const visit = (element: Element, around: readonly Element[], before: string): void => {
    if (isField(element)) {
      const isInLabel = around.some((outer) => outer.tag === 'label' && textOf(outer) !== '');
      if (isInLabel || isCalled(element)) return;
      const isTicked = ['checkbox', 'radio'].includes(element.attributes?.type ?? '');
      const beside = isTicked ? (around.map(textOf).find((text) => text !== '') ?? '') : '';
      const label =
        around.find((outer) => outer.tag === 'label')?.attributes?.title ||
        titles.get(element.attributes?.id ?? '') ||
        before ||
        (beside.length <= LONGEST ? beside : `${beside.slice(0, LONGEST)}…`);
      if (label) labels.set(element.key, label);
      return;
    }
    let last = '';
    for (const child of element.children) {
      visit(child, [element, ...around], last || before);
      if (child.tag === 'label' && !child.attributes?.for && !holdsField(child)) last = textOf(child);
      else if (holdsField(child)) last = '';
    }
  };
  visit(root, [], '');
  return labels;
}

const holdsField = (element: Element): boolean =>
  isField(element) || element.children.some((child) => holdsField(child));
