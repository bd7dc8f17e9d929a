import { pageOfHtml } from '../../testing/page_of_html.ts';
import { elementsByKey } from '../../model/project.ts';
import type { EmittedWiring } from './emitted_wiring.ts';
import { isElement, type MarkupNode } from './markup.ts';
import { emitScreen } from './screen.ts';

/** The tags and texts that the first section of a page is written as. */
function written(html: string, isSpokenOf = false, wiring: EmittedWiring = {}): string {
  const screen = pageOfHtml(`<section class="it">${html}</section>`);
  const { root } = emitScreen(screen, {
    wiringOf: (key) => (key === screen.root.children[0].key ? {} : wiring),
    anchorOf: (key) => elementsByKey(screen).get(key)?.source.id ?? null,
    isSpokenOf: () => isSpokenOf,
  });
  const print = (node: MarkupNode): string =>
    !isElement(node)
      ? 'text' in node
        ? node.text.trim()
        : ''
      : `${node.tag}(${node.children.map(print).filter(Boolean).join(' ')})`;
  return root.children.map(print).join();
}

const FLEX = 'style="display:flex"';

test.each<[what: string, html: string, made: string]>([
  ['an empty box', '<div></div><p>Saw</p>', 'section(p(Saw))'],
  ['several of them', '<p>Saw</p><div></div><div></div><p>Drill</p>', 'section(p(Saw) p(Drill))'],
  ['boxes that hold nothing but such', '<div><div></div></div><p>Saw</p>', 'section(p(Saw))'],
  ['a sign that no font draws', '<button><i class="icon-see"></i> See</button>', 'section(button(See))'],
  ['not one that has a look', '<div style="height:3px"></div><p>Saw</p>', 'section(div() p(Saw))'],
  ['not one that something leads to', '<div id="top"></div><p>Saw</p>', 'section(div() p(Saw))'],
  ['not one that ends a line', 'Saw<div></div>Drill', 'section(Saw div() Drill)'],
  [
    'not one between boxes in a line',
    '<div style="display:inline-block">Saw</div><div></div><div style="display:inline-block">Rasp</div>',
    'section(div(Saw) div() div(Rasp))',
  ],
  [
    'one whose neighbours are apart from the flow',
    '<div style="position:fixed;display:block">Bar</div><div></div><p>Saw</p>',
    'section(div(Bar) p(Saw))',
  ],
  ['not an item of a row', `<div ${FLEX}><div></div><p>Saw</p></div>`, 'section(div(div() p(Saw)))'],
  ['not what keeps two words apart', 'Saw <i></i> Drill', 'section(Saw i() Drill)'],
  [
    'not the cell of a table',
    '<table><tr><td></td><td>Saw</td></tr></table>',
    'section(table(tbody(tr(td() td(Saw)))))',
  ],
])('what is nothing is not written: %s', (_, html, made) => {
  expect(written(html)).toBe(made);
});

test('what says something by then, or does something, is written', () => {
  expect(written('<div></div><p>Saw</p>', true)).toBe('section(div() p(Saw))');
  const opener: EmittedWiring = { acts: [{ on: 'press', does: [] }] as never };
  expect(written('<div></div><p>Saw</p>', false, opener)).toMatch(/^section\((div|button)\(\) /);
});
