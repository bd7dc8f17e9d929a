import { hash } from '../../../json/hash.ts';
import { isElement, isText, type MarkupElement, type MarkupNode } from '../markup.ts';
import { isCompatible } from './compatible.ts';
import { onceFor } from '../../../json/once_for.ts';

/** More children than this are laid over each other by their number alone. */
const MAX_ALIGNED = 60;

/** Lays lists of children over each other; each column has one node of each place, or null. */
export function alignColumns(lists: readonly (readonly MarkupNode[] | null)[]): (MarkupNode | null)[][] {
  /** Each with its first node, which the nodes of further places are held against. */
  let columns: { readonly first: MarkupNode; readonly nodes: (MarkupNode | null)[] }[] = [];
  lists.forEach((list, place) => {
    const nodes = list ?? [];
    const column = (node: MarkupNode): (typeof columns)[number] => {
      const made = Array<MarkupNode | null>(lists.length).fill(null);
      made[place] = node;
      return { first: node, nodes: made };
    };
    if (!columns.length) {
      columns = nodes.map(column);
      return;
    }
    if (!nodes.length) return;
    const pairs = align(
      columns.map(({ first }) => first),
      nodes,
    );
    const next: typeof columns = [];
    let [c, n] = [0, 0];
    for (const [atColumn, atNode] of [...pairs, [columns.length, nodes.length] as const]) {
      for (; c < atColumn; c++) next.push(columns[c]);
      for (; n < atNode; n++) next.push(column(nodes[n]));
      if (c >= columns.length || n >= nodes.length) continue;
      columns[c].nodes[place] = nodes[n++];
      next.push(columns[c++]);
    }
    columns = next;
  });
  return columns.map(({ nodes }) => nodes);
}

/** Longest common subsequence of nodes that can be one, weighing those more that have the same form. */
function align(a: readonly MarkupNode[], b: readonly MarkupNode[]): [number, number][] {
  if (a.length === b.length && a.every((node, i) => likeness(node, b[i]) > 0.5))
    return a.map((_, i) => [i, i]);
  if (a.length > MAX_ALIGNED || b.length > MAX_ALIGNED)
    return a
      .slice(0, b.length)
      .flatMap((node, i): [number, number][] => (likeness(node, b[i]) > 0 ? [[i, i]] : []));
  const table = Array.from({ length: a.length + 1 }, () => new Float64Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--) {
      const same = likeness(a[i], b[j]);
      table[i][j] = Math.max(table[i + 1][j], table[i][j + 1], same > 0 ? table[i + 1][j + 1] + same : 0);
    }
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const same = likeness(a[i], b[j]);
    if (same > 0 && table[i][j] === table[i + 1][j + 1] + same) pairs.push([i++, j++]);
    else if (table[i + 1][j] >= table[i][j + 1]) i++;
    else j++;
  }
  return pairs;
}

function likeness(a: MarkupNode, b: MarkupNode): number {
  if (!isElement(a) || !isElement(b)) return kindOf(a) === kindOf(b) ? 0.8 : 0;
  if (!isCompatible(a, b)) return 0;
  return formOf(a) === formOf(b) ? 1 : a.children.length && b.children.length ? 0.6 : 0.3;
}

/**
 * Whether a column holds nothing but the space between what is before and after it, one of which is not there where the space is
 * not: a browser shows none at the end of a line, nor at its beginning. Where breaks of lines were kept, they are shown.
 */
export function isOnlySpace(columns: readonly (readonly (MarkupNode | null)[])[], at: number): boolean {
  const [column, before, after] = [columns[at], columns.slice(0, at), columns.slice(at + 1)];
  const isNone = (some: typeof columns, place: number): boolean => some.every((other) => !other[place]);
  return (
    column.every((node) => !node || (isText(node) && !node.given && /^ +$/.test(node.text))) &&
    column.every((node, place) => node || isNone(before, place) || isNone(after, place))
  );
}

/** A letter for the kind of a node. */
const kindOf = (node: MarkupNode): string =>
  isText(node)
    ? 't'
    : 'slot' in node
      ? 's'
      : 'list' in node
        ? 'l'
        : isElement(node)
          ? 'e'
          : 'content' in node
            ? 'c'
            : 'o';

/** How markup is nested, without what it says. */
export const formOf = onceFor((node: MarkupElement): string => {
  const inner =
    node.tag === 'svg'
      ? ''
      : node.children.map((child) => (isElement(child) ? formOf(child) : kindOf(child))).join('');
  return hash(`${node.tag}(${inner})`);
});
