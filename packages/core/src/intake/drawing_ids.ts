import { hash } from '../json/hash.ts';
import type { VectorNode } from '../model/design.ts';
import { REFERRING } from '../vocabulary/vectors.ts';

const IN_URL = /url\(\s*["']?#([^"')\s]+)["']?\s*\)/g;

/**
 * A drawing whose parts have ids that follow from the drawing itself: no other drawing of a page has the same, and the same drawing has
 * the same on each screen, so that it is known there for the same.
 */
export function withOwnIds(drawing: VectorNode): VectorNode {
  const numbers = new Map<string, number>();
  const number = ({ attributes, children }: VectorNode): void => {
    const { id } = attributes;
    if (id !== undefined && !numbers.has(id)) numbers.set(id, numbers.size + 1);
    children.forEach(number);
  };
  number(drawing);
  if (!numbers.size) return drawing;
  const sign = hash(JSON.stringify(renamed(drawing, numbers, '')));
  return renamed(drawing, numbers, `d${sign.slice(0, 6)}-`);
}

function renamed(node: VectorNode, numbers: ReadonlyMap<string, number>, prefix: string): VectorNode {
  const nameOf = (id: string): string => (numbers.has(id) ? `${prefix}${numbers.get(id)}` : id);
  const words = (value: string): string =>
    value.replace(/[^\s;]+/g, (word) => {
      const [, hashed, id, event] = /^(#?)(.*?)(\.\w+(?:[+-].*)?)?$/.exec(word)!;
      return numbers.has(id) ? `${hashed}${nameOf(id)}${event ?? ''}` : word;
    });
  const attributes = Object.fromEntries(
    Object.entries(node.attributes).map(([name, value]) => [
      name,
      name === 'id'
        ? nameOf(value)
        : REFERRING.has(name)
          ? words(value)
          : value.replace(IN_URL, (whole, id: string) => (numbers.has(id) ? `url(#${nameOf(id)})` : whole)),
    ]),
  );
  return { ...node, attributes, children: node.children.map((child) => renamed(child, numbers, prefix)) };
}
