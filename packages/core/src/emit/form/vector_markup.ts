import type { Element, VectorNode } from '../../model/design.ts';
import { REFERRING } from '../../vocabulary/vectors.ts';
import { walkElements } from '../../model/project.ts';
import { isElement, type MarkupNode } from './markup.ts';

/** The names that drawings of a screen refer to. */
export function drawnReferences(root: Element): ReadonlySet<string> {
  const found = new Set<string>();
  const visit = ({ attributes, children }: VectorNode): void => {
    for (const [name, value] of Object.entries(attributes)) {
      for (const [, id] of value.matchAll(/url\(\s*["']?#([^"')\s]+)/g)) found.add(id);
      if (!REFERRING.has(name)) continue;
      for (const word of value.split(/[\s;]+/)) found.add(word.replace(/^#/, '').replace(/\.\w+$/, ''));
    }
    children.forEach(visit);
  };
  walkElements(root, ({ vector }) => {
    if (vector) visit(vector);
  });
  return found;
}

/**
 * What is within a drawing, as markup: without names that nothing refers to, and without groups that say nothing.
 * @param references the names that anything refers to
 */
export const drawnMarkup = (drawing: VectorNode, references: ReadonlySet<string>): MarkupNode[] =>
  drawing.children.flatMap((child) => partOf(child, references));

function partOf(node: VectorNode, references: ReadonlySet<string>): MarkupNode[] {
  const { id, ...others } = node.attributes;
  const attributes = id !== undefined && references.has(id) ? node.attributes : others;
  const children = [
    ...(node.text ? [{ text: node.text }] : []),
    ...node.children.flatMap((child) => partOf(child, references)),
  ];
  const isEmptyGroup = node.tag === 'g' && !Object.keys(attributes).length;
  if (isEmptyGroup && children.every((child) => isElement(child) && child.tag !== 'title')) return children;
  return [{ tag: node.tag, key: null, className: null, attributes, children }];
}
