import type { Element } from '../../model/design.ts';
import { screenWith } from '../../testing/build.ts';
import { isElement, type MarkupElement } from './markup.ts';
import { emitScreen } from './screen.ts';

const drawn = screenWith('home', 'Go', 'Back');
const part = (more: Partial<Element>): Element => ({ ...drawn.root.children[0], ...more });

/** Tags of the landmarks of a page, in order. */
function mains(children: readonly Element[]): string[] {
  const screen = { ...drawn, root: { ...drawn.root, children } };
  const found: string[] = [];
  const visit = (node: MarkupElement): void => {
    if (node.tag === 'main' || node.attributes.role === 'main') found.push(node.key ?? '');
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(emitScreen(screen, { wiringOf: () => ({}), anchorOf: () => null }).root);
  return found;
}

const box = (key: string, children: readonly Element[] = []): Element =>
  part({
    key,
    kind: 'box',
    tag: 'div',
    name: key,
    style: { ...drawn.root.style, base: {} },
    box: { x: 0, y: 100, width: 390, height: 500 },
    children,
  });
const nav = part({ key: 'n', tag: 'nav' });

test.each<[string, Element[], string[]]>([
  ['the page, where it says nothing', [part({ key: 'a' })], [drawn.root.key]],
  ['what is written as it', [part({ key: 'a' }), part({ key: 'b', tag: 'main' })], ['b']],
  ['what has its role', [part({ key: 'b', attributes: { role: 'main' } })], ['b']],
  ['what is left between the bars', [nav, box('b'), part({ key: 'f', tag: 'footer' })], ['b']],
  [
    'what is left of what all is wrapped in',
    [box('w', [nav, box('b', [part({ key: 'h', tag: 'header' }), box('c', [box('d')])])])],
    ['c'],
  ],
  ['the page, where two are left', [nav, box('b'), box('c')], [drawn.root.key]],
  ['the page, where it has no bars', [box('b')], [drawn.root.key]],
  ['not what is not shown', [nav, box('b'), { ...box('c'), hidden: true }], ['b']],
  ['the first of two', [part({ key: 'a', tag: 'main' }), part({ key: 'b', tag: 'main' })], ['a']],
])('the one main part of a page is %s', (_, children, wanted) => {
  expect(mains(children)).toEqual(wanted);
});
