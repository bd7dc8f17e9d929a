import type { PageReading, ReadElement } from '../intake/html/reading.ts';

/** What a browser says of a page with a bit of everything: text, links, a table, a form, a list, a drawing, states. */
export function richReading(): PageReading {
  let n = 0;
  const read = (
    tag: string,
    attributes: Record<string, string>,
    ...children: (ReadElement | string)[]
  ): ReadElement => ({
    path: `1/${n++}`,
    tag,
    attributes,
    box: { x: 0, y: 20 * n, width: 300, height: 20 },
    base: { display: 'block', color: 'rgb(20, 30, 40)', 'margin-top': `${n}px` },
    ...(n % 3
      ? {}
      : { at: { '600': { display: 'none' } }, hover: { color: 'red' }, focus: { opacity: '0.5' } }),
    ...(n % 5 ? {} : { before: { content: '"›"', color: 'blue' } }),
    children,
  });
  const drawn = (
    tag: string,
    attributes: Record<string, string>,
    ...children: ReadElement[]
  ): ReadElement => ({
    ...read(tag, attributes, ...children),
    base: { fill: 'rgb(1, 2, 3)' },
  });
  const row = (...cells: string[]): ReadElement =>
    read('tr', {}, ...cells.map((cell, i) => read('td', i ? {} : { colspan: '1' }, cell)));
  const body = read(
    'body',
    {},
    read(
      'header',
      { class: 'bar' },
      read('h1', { id: 'top' }, 'Tools'),
      read(
        'nav',
        { 'aria-label': 'Main' },
        read('a', { href: 'tools.html', 'aria-current': 'page' }, 'All'),
        read('a', { href: '#top' }, 'Top'),
      ),
    ),
    read(
      'main',
      {},
      read('p', { lang: 'en', title: 'Hint' }, 'Free ', read('b', {}, 'today'), ' and tomorrow'),
    ),
    read(
      'table',
      {},
      read('thead', {}, row('Name', 'Due')),
      read('tbody', {}, row('Saw', 'Monday'), row('Drill', 'Friday')),
    ),
    read(
      'form',
      { autocomplete: 'off' },
      read('label', { for: 'name' }, 'Name'),
      read('input', { id: 'name', type: 'text', placeholder: 'Name', maxlength: '40', required: '' }),
      read('input', { type: 'checkbox', checked: '', name: 'rules' }),
      read(
        'select',
        { name: 'tool' },
        read('option', { value: 'saw', selected: '' }, 'Saw'),
        read('option', {}, 'Drill'),
      ),
      read('textarea', { rows: '4', name: 'note' }, 'Handle with care'),
      read('button', { type: 'submit', 'aria-expanded': 'false' }, 'Send'),
      read('progress', { value: '3', max: '9' }),
    ),
    read('ul', {}, read('li', { value: '2' }, 'One'), read('li', {}, 'Two')),
    read('img', { src: 'none.png', alt: 'A saw' }),
    drawn(
      'svg',
      { viewBox: '0 0 24 24', role: 'img', 'aria-label': 'Saw' },
      drawn(
        'g',
        { transform: 'translate(1 2)' },
        drawn('path', { d: 'M0 0L9 9', 'stroke-width': '2', 'clip-path': 'url(#edge)' }),
        drawn('clipPath', { id: 'edge' }, drawn('circle', { cx: '4', cy: '4', r: '2' })),
      ),
    ),
    read('details', { open: '' }, read('summary', {}, 'More'), 'Text'),
    read('div', {
      role: 'progressbar',
      'aria-valuenow': '40',
      'aria-valuemin': '0',
      'aria-valuemax': '100',
      tabindex: '-1',
    }),
  );
  return { width: 1280, height: 800, canvas: { 'background-color': 'white' }, hidden: [], body };
}
