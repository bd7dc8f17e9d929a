import { sightOf } from '../roles/sight.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { contentWord } from './contents.ts';
import { namesOf } from './names.ts';

const sign = '<svg viewBox="0 0 9 9" data-box="0 0 24 24"><path d="M0 0h9"></path></svg>';
const sightOfFirst = (html: string) => sightOf(pageOfHtml(html, 'page')).root.children[0];

test.each([
  ['<div><h3>Saws</h3><p>All of them</p></div>', 'TitledText'],
  ['<div><div><h3>Saws</h3><p>All of them</p></div></div>', 'TitledText'],
  [`<div>${sign}<div><h3>Saws</h3><p>All of them</p></div></div>`, 'IconText'],
  ['<div><h2>Join us</h2><p>It is free</p><a href="/join">Join</a></div>', 'CallToAction'],
  ['<div><h2>Help</h2><ul><li>Desk</li><li>Shed</li></ul></div>', 'TitledList'],
  ['<div><img src="a.png"><img src="b.png"></div>', 'Pictures'],
  [`<div><div>${sign}<p>Saws</p></div><div>${sign}<p>Drills</p></div></div>`, 'IconTexts'],
  ['<div><div><b>1</b></div><p hidden><img src="a.png"></p><p>Saws</p></div>', ''],
])('%s is: %s', (html, word) => {
  expect(contentWord(sightOfFirst(html))).toBe(word);
});

test.each([
  // After the one thing that it is around.
  ['<div class="col-4"><div class="shape text-sky"><p>Saws</p></div></div>', 'Shape'],
  // After what it consists of, where nothing has a name.
  ['<div class="col-4"><h3>Saws</h3><p>All of them</p></div>', 'TitledText'],
])('%s is called %s', (html, name) => {
  const sight = sightOfFirst(html);
  expect(namesOf(sight, 'component', [sight]).name).toBe(name);
});
