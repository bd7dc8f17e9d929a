/** @jest-environment jsdom */
/// <reference lib="dom" />
import { loadedRuntime } from '../../testing/loaded_runtime.ts';

const { opened, onOpened } = loadedRuntime<{
  opened(): Record<string, unknown>;
  onOpened(tell: () => void): () => void;
}>('disclosures/opened.ts');

test.each([
  ['a part that is closed', '<section id="more" hidden></section>', 'more', { more: true }],
  [
    'a place within closed parts',
    '<section id="outer" hidden><div id="inner" hidden><p id="place"></p></div></section>',
    'place',
    { outer: true, inner: true },
  ],
  [
    'one of several of which one is shown',
    '<section id="year" data-among="month" hidden><p id="place"></p></section>',
    'place',
    { month: 'year' },
  ],
  ['a place that is shown', '<section id="more"><p id="place"></p></section>', 'place', {}],
  ['one in a menu', '<div id="menu" data-leaves="menu" hidden><a id="place"></a></div>', 'place', {}],
])('what an address leads to is opened: %s', (_, html, id, then) => {
  document.body.innerHTML = html;
  Element.prototype.scrollIntoView = () => {};
  const before = opened();
  const end = onOpened(() => {});
  document.getElementById(id)!.dispatchEvent(new Event('beforematch', { bubbles: true }));
  end();
  const made = Object.entries(opened()).filter(([part, said]) => before[part] !== said);
  expect(Object.fromEntries(made)).toEqual(then);
});
