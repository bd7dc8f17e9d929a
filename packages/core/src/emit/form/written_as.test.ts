import { elementsByKey } from '../../model/project.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import type { EmittedWiring } from './emitted_wiring.ts';
import { isElement, type MarkupElement } from './markup.ts';
import { emitScreen } from './screen.ts';

const LINK: EmittedWiring = { link: { kind: 'external', href: 'https://example.org/' } };
const OPENER: EmittedWiring = { link: { kind: 'disclose', id: 'more', does: 'toggle' } };

/** What the element with the id `it` is written as, and what its class says of how it is laid out. */
function written(html: string, wiring: EmittedWiring): string[] {
  const screen = pageOfHtml(html);
  const elements = elementsByKey(screen);
  const isIt = (key: string | null): boolean => elements.get(key ?? '')?.source.id === 'it';
  const { root, rules } = emitScreen(screen, {
    wiringOf: (key) => (isIt(key) ? wiring : {}),
    anchorOf: () => null,
  });
  const find = (node: MarkupElement): MarkupElement[] =>
    isIt(node.key) ? [node] : node.children.flatMap((child) => (isElement(child) ? find(child) : []));
  const [{ tag, className }] = find(root);
  const base = rules.find((rule) => rule.className === className)?.base ?? {};
  return [
    tag,
    ...['display', 'width', 'align-content', 'margin-top', 'margin-bottom'].flatMap((name) =>
      base[name] ? `${name}: ${base[name]}` : [],
    ),
  ];
}

test.each<[string, string, EmittedWiring, string[]]>([
  ['a button that leads somewhere', '<button id="it">Go</button>', LINK, ['a', 'display: inline-block']],
  [
    'one of some height, in the middle of which its words stand',
    '<button id="it" style="height:40px">Go</button>',
    LINK,
    ['a', 'display: inline-block', 'align-content: center'],
  ],
  ['a part that leads somewhere', '<div id="it">Go</div>', LINK, ['a', 'display: block']],
  ['words that lead somewhere', '<b id="it">Go</b>', LINK, ['a']],
  [
    'a link over a whole line that opens something',
    '<a id="it" href="#" style="display:block">More</a>',
    OPENER,
    ['button', 'display: block', 'width: 100%'],
  ],
  [
    'one with margins',
    '<a id="it" href="#" style="display:flex;margin-left:16px;margin-right:8px">More</a>',
    OPENER,
    ['button', 'display: flex', 'width: calc(100% - 24px)'],
  ],
  [
    'one that stands in the middle of its line',
    '<a id="it" href="#" style="display:flex;margin-left:auto;margin-right:auto">More</a>',
    OPENER,
    ['button', 'display: flex'],
  ],
  ['a link in a line that opens something', '<a id="it" href="#">More</a>', OPENER, ['button']],
  [
    'one in a line with room around it, which takes none there',
    '<a id="it" href="#" style="padding-top:5px;padding-bottom:4px;border-bottom-style:solid;border-bottom-width:1px">More</a>',
    OPENER,
    ['button', 'margin-top: -5px', 'margin-bottom: -5px'],
  ],
  [
    'one that is a box in a line, which has that room',
    '<a id="it" href="#" style="display:inline-block;padding-top:5px">More</a>',
    OPENER,
    ['button', 'display: inline-block'],
  ],
  [
    'one in a row',
    '<div style="display:flex"><a id="it" href="#" style="display:block">More</a></div>',
    OPENER,
    ['button', 'display: block'],
  ],
])('%s is laid out as before', (_, html, wiring, expected) => {
  expect(written(html, wiring)).toEqual(expected);
});
