import type { Element, VectorNode } from '../../model/design.ts';
import { screenOf, svg } from '../../testing/build.ts';
import { isElement, type MarkupNode } from './markup.ts';
import { drawnMarkup, drawnReferences } from './vector_markup.ts';

const drawn = (tag: string, attributes: Record<string, string>, ...children: VectorNode[]): VectorNode => ({
  tag,
  attributes,
  children,
});
const path = drawn('path', { d: 'M0 0h4' });
const written = (nodes: readonly MarkupNode[]): string =>
  nodes
    .map((node) =>
      isElement(node)
        ? `<${[node.tag, ...Object.entries(node.attributes).map(([name, value]) => `${name}=${String(value)}`)].join(' ')}>${written(node.children)}</>`
        : 'text' in node
          ? String(node.text)
          : '',
    )
    .join('');

test.each<[string, VectorNode[], string]>([
  [
    'a name that nothing refers to goes, and the group with it',
    [drawn('g', { id: 'Layer_1' }, path)],
    '<path d=M0 0h4></>',
  ],
  [
    'groups that are left empty go at any depth',
    [drawn('g', { id: 'a' }, drawn('g', {}, drawn('g', { id: 'b' }, path), path))],
    '<path d=M0 0h4></><path d=M0 0h4></>',
  ],
  [
    'a group that says something stays, without its name',
    [drawn('g', { id: 'a', fill: 'none' }, path)],
    '<g fill=none><path d=M0 0h4></></>',
  ],
  [
    'what is painted with keeps its name',
    [drawn('linearGradient', { id: 'sky' }), drawn('path', { id: 'p', fill: 'url("#sky")' })],
    '<linearGradient id=sky></><path fill=url("#sky")></>',
  ],
  [
    'what is used again keeps its name',
    [drawn('g', { id: 'leaf' }, path), drawn('use', { 'xlink:href': '#leaf' })],
    '<g id=leaf><path d=M0 0h4></></><use xlink:href=#leaf></>',
  ],
  [
    'what moves after another keeps its name',
    [drawn('animate', { id: 'first' }), drawn('animate', { begin: 'first.end' })],
    '<animate id=first></><animate begin=first.end></>',
  ],
  [
    'a group with a title stays one',
    [drawn('g', {}, drawn('title', {}), path)],
    '<g><title></><path d=M0 0h4></></>',
  ],
])('%s', (_, children, expected) => {
  const drawing = drawn('svg', {}, ...children);
  const { root } = screenOf(svg('<rect width="4" height="4"/>'), 'a');
  const page: Element = { ...root, children: [{ ...root, key: 'a:v', children: [], vector: drawing }] };
  expect(written(drawnMarkup(drawing, drawnReferences(page)))).toBe(expected);
});

test('a drawing that another one refers to keeps the names', () => {
  const { root } = screenOf(svg('<rect width="4" height="4"/>'), 'a');
  const sprite = drawn('svg', {}, drawn('symbol', { id: 'leaf' }, path));
  const use = drawn('svg', {}, drawn('use', { href: '#leaf' }));
  const of = (vector: VectorNode, key: string): Element => ({ ...root, key, children: [], vector });
  const page: Element = { ...root, children: [of(sprite, 'a:s'), of(use, 'a:u')] };
  expect(written(drawnMarkup(sprite, drawnReferences(page)))).toContain('symbol id=leaf');
});
