import { grouped } from '../../../json/grouped.ts';
import { elementsIn, isElement, type MarkupElement, type MarkupNode } from '../markup.ts';
import { alignColumns, formOf } from './columns.ts';
import type { Place } from './template.ts';

/** Places, the same without what each of them holds, and that. */
export interface Hollow<P extends Place> {
  readonly places: readonly P[];
  readonly hollows: readonly P[];
  /** What the places hold, in their order. */
  readonly contents: readonly (readonly MarkupNode[])[];
  /** Whether they hold the entries of a list, of which there are more here than there. */
  readonly holdsEntries: boolean;
}

/** Elements that can hold anything: what stands in a table or in a line of text stays whole. */
const CONTAINERS = new Set([
  'div',
  'section',
  'article',
  'main',
  'aside',
  'header',
  'footer',
  'li',
  'fieldset',
]);
/** Around what is held there are so many elements at least: a box in a box is nobody's component. */
const LEAST_AROUND = 3;

/** What these hold are entries: more here than there, and all of them or none are held. */
const LISTS = new Set(['ul', 'ol']);

const CONTENT: MarkupNode = { content: true };

/**
 * What places that differ in what they hold have around it: from the outside in, as long as one child alone is built otherwise
 * from place to place. Null where nothing is, or nothing else differs.
 */
export function hollowed<P extends Place>(places: readonly P[]): Hollow<P> | null {
  // Those that are built alike but for their largest part, the most of them.
  const alike = [...grouped(places, ({ node }) => formAround(node)).values()].sort(
    (a, b) => b.length - a.length,
  );
  for (const some of alike.filter(({ length }) => length > 1)) {
    const cut = cutAt(some.map(({ node }) => node));
    if (!cut || cut.nodes.some((node) => elementsIn(node) < LEAST_AROUND)) continue;
    return {
      places: some,
      hollows: some.map((place, i) => ({ ...place, node: cut.nodes[i] })),
      contents: cut.contents,
      holdsEntries: cut.holdsEntries,
    };
  }
  return null;
}

/** How an element is built, but for the largest of its parts. */
function formAround({ tag, children }: MarkupElement): string {
  const sizes = children.map((child) => (isElement(child) ? elementsIn(child) : 0));
  const largest = sizes.indexOf(Math.max(...sizes));
  const forms = children.flatMap((child, i) =>
    !isElement(child) ? [] : i === largest ? [`${child.tag} …`] : [formOf(child)],
  );
  return `${tag} ${forms.join(' ')}`;
}

interface Cut {
  readonly nodes: readonly MarkupElement[];
  readonly contents: readonly (readonly MarkupNode[])[];
  readonly holdsEntries: boolean;
}

function cutAt(nodes: readonly MarkupElement[]): Cut | null {
  if (nodes.every(({ tag, use }) => !use && LISTS.has(tag))) return entriesOf(nodes);
  if (nodes.some(({ tag, use }) => use || !CONTAINERS.has(tag))) return null;
  const columns = alignColumns(nodes.map(({ children }) => children));
  const own = columns.map((column) => {
    const elements = column.flatMap((node) => (node && isElement(node) ? [node] : []));
    return elements.length < nodes.length || new Set(elements.map(formOf)).size > 1;
  });
  // Texts between elements differ without being held.
  const isText = (at: number): boolean => columns[at].every((node) => !node || 'text' in node);
  const differing = own.flatMap((is, at) => (is && !isText(at) ? [at] : []));
  if (!differing.length) return null;
  const [first, last] = [differing[0], differing.at(-1)!];
  if (first === last) {
    const inner = columns[first];
    const deeper = inner.every((node) => node && isElement(node)) ? cutAt(inner as MarkupElement[]) : null;
    if (deeper)
      return {
        nodes: nodes.map((node, i) => ({
          ...node,
          children: node.children.map((child) => (child === inner[i] ? deeper.nodes[i] : child)),
        })),
        contents: deeper.contents,
        holdsEntries: deeper.holdsEntries,
      };
  }
  const held = nodes.map((_, i) => columns.slice(first, last + 1).flatMap((column) => column[i] ?? []));
  if (held.some((list) => !list.some(isElement))) return null;
  return {
    nodes: nodes.map((node, i) => {
      const at = node.children.indexOf(held[i][0]);
      return {
        ...node,
        children: [...node.children.slice(0, at), CONTENT, ...node.children.slice(at + held[i].length)],
      };
    }),
    contents: held,
    holdsEntries: false,
  };
}

function entriesOf(nodes: readonly MarkupElement[]): Cut | null {
  if (!nodes.every(({ children }) => children.some(isElement))) return null;
  return {
    nodes: nodes.map((node) => ({ ...node, children: [CONTENT] })),
    contents: nodes.map(({ children }) => children),
    holdsEntries: true,
  };
}

/** Whether what is given to a component stands in a node. */
export const holdsContent = (node: MarkupElement): boolean =>
  node.children.some((child) => 'content' in child || (isElement(child) && holdsContent(child)));
