import { pageOfHtml } from '../testing/page_of_html.ts';
import { sightOf } from '../roles/sight.ts';
import { headingOver } from './heading_over.ts';

const rows = '<ul><li class="first">Saw</li><li>Drill</li></ul>';
const card = (heading: string, inner = rows): string => `<div class="card"><h3>${heading}</h3>${inner}</div>`;
const team = (name: string, inner: string): string => `<div><h3>${name}</h3><p>Keeper</p>${inner}</div>`;
const links = '<ul><li>Post</li><li>Ring</li></ul>';

test.each<[what: string, html: string, heading: string]>([
  ['many of something', card('Loans'), 'Loans'],
  ['more words than a name has', card('Latest Delivery Information'), ''],
  ['a thing of two words', card('Customer Overview'), 'Customer Overview'],
  ['a word that is said elsewhere', card('Chat') + '<p>They chat about tools.</p>', 'Chat'],
  ['a word of a class', card('Shelf') + '<p class="shelf">Top</p>', 'Shelf'],
  ['letters that stand for words', card('API Keyhole'), 'API Keyhole'],
  ['the name of somebody', card('Wanda Pryce'), ''],
  ['a name that is no word', card('Mossgate 2'), ''],
  ['what stands below', `${rows}<h3>Loans</h3>`, ''],
  [
    'what stands beside',
    `<h3 data-box="600 0 200 20">Loans</h3><div data-box="0 40 200 60">${rows}</div>`,
    '',
  ],
  [
    'what stands far above',
    `<h3 data-box="0 0 200 20">Loans</h3><ul data-box="0 900 200 60"><li data-box="0 900 200 20" class="first">Saw</li></ul>`,
    '',
  ],
  [
    'the section, and not the one of several that they stand in',
    `<section><h2>Members</h2><div>${team('Wanda Pryce', rows)}${team('Ned Ash', links)}${team('Ida Moor', links)}</div></section>`,
    'Members',
  ],
])('rows are headed by %s', (_, html, heading) => {
  const first = [...sightOf(pageOfHtml(html)).byKey.values()].find(({ element }) =>
    element.classes?.includes('first'),
  )!;
  expect(headingOver(first)).toBe(heading);
});
