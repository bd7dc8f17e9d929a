import type { Element } from '../model/design.ts';
import { labelOf } from './pressable.ts';

const element = (tag: string, more: Partial<Element> = {}, ...children: Element[]): Element => ({
  key: `x:${tag}`,
  name: tag,
  kind: 'box',
  tag,
  box: { x: 0, y: 0, width: 10, height: 10 },
  source: { file: 'a.html', path: '1' },
  style: { base: {} },
  children,
  ...more,
});

test.each<[Element, string]>([
  [element('a', { attributes: { href: '#', title: 'Help' } }), 'Help'],
  [element('a', {}, element('img', { attributes: { alt: 'The library' } })), 'The library'],
  [element('button', {}, element('i', { classes: 'fas fa-th-large fa-2x' })), 'Th large'],
  [element('a', {}, element('i', { classes: 'fa fa-bell cursor-pointer' })), 'Bell'],
  [element('button', {}, element('i', { classes: 'drawn-icons loader_gear' })), 'Settings'],
  [element('button', {}, element('i', { classes: 'fa-solid fa-xmark' })), 'Close'],
  [element('a', {}, element('i', { classes: 'fas fa-bars' })), 'Menu'],
  [
    element('button', { classes: 'navbar-toggler' }, element('span', { classes: 'navbar-toggler-icon' })),
    'Menu',
  ],
  [element('button', {}, element('i', { classes: 'bi bi-three-dots-vertical' })), 'More'],
  [element('a', { attributes: { href: 'https://www.example.org/x' } }), 'Example'],
  [element('a', { classes: 'navbar-brand', attributes: { href: '../index.html' } }), 'Home'],
  [element('a', { attributes: { href: 'pages/my-loans.html#top' } }), 'My loans'],
  [
    element('button', {
      classes: 'btn',
      source: { file: 'a.html', path: '1', id: 'sidebarToggle' },
    }),
    'Sidebar toggle',
  ],
  [element('button', { classes: 'btn btn-lg navbar-toggler' }), 'Menu'],
  [element('button', { classes: 'btn btn-primary' }), 'Button without a name'],
  [element('button', {}, element('i', {}, element('svg', { kind: 'vector', name: 'more vert' }))), 'More'],
  [element('a', {}, element('svg', { kind: 'vector', name: 'search' })), 'Search'],
  [element('a', { classes: 'dropdown-toggle', attributes: { 'aria-haspopup': 'true' } }), 'Menu'],
  [element('a'), 'Link without a name'],
  [element('li'), 'Part without a name'],
  [element('div', { name: 'Chip Garden' }), 'Chip Garden'],
])('%# is called %s', (one, label) => {
  expect(labelOf(one)).toBe(label);
});
