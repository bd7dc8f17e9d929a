import type { VectorNode } from '../model/design.ts';
import { withOwnIds } from './drawing_ids.ts';

const node = (
  tag: string,
  attributes: Record<string, string> = {},
  ...children: VectorNode[]
): VectorNode => ({
  tag,
  attributes,
  children,
});
const drawing = (prefix: string, color = '#123'): VectorNode =>
  node(
    'svg',
    {},
    node('linearGradient', { id: `${prefix}-fade` }, node('stop', { 'stop-color': color })),
    node('path', { id: `${prefix}-shape`, fill: `url(#${prefix}-fade)` }),
    node('use', { href: `#${prefix}-shape` }),
    node('animate', { begin: `${prefix}-shape.end+0.5s;2s` }),
    node('g', { 'aria-labelledby': `${prefix}-shape elsewhere` }),
  );

test('the same drawing has the same ids wherever it stands, and references follow', () => {
  const made = withOwnIds(drawing('home-1'));
  expect(made).toEqual(withOwnIds(drawing('list-7')));
  const [fade, shape, use, animate, group] = made.children.map(({ attributes }) => attributes);
  expect(fade.id).toMatch(/^d\w{6}-1$/);
  expect(shape.fill).toBe(`url(#${fade.id})`);
  expect(use.href).toBe(`#${shape.id}`);
  expect(animate.begin).toBe(`${shape.id}.end+0.5s;2s`);
  expect(group['aria-labelledby']).toBe(`${shape.id} elsewhere`);
});

test('another drawing has other ids', () => {
  const [a, b] = ['#123', '#456'].map((color) => withOwnIds(drawing('x', color)).children[0].attributes.id);
  expect(a).not.toBe(b);
});

test('a drawing without ids is itself', () => {
  const plain = node('svg', { fill: 'url(#not-here)' });
  expect(withOwnIds(plain)).toBe(plain);
});
