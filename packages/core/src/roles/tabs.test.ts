import { pageOfHtml } from '../testing/page_of_html.ts';
import { inferRoles } from './infer.ts';

/** What the texts of a page's tabs are, and whether what holds them is their list. */
function tabsOf(html: string): string {
  const screen = pageOfHtml(html, 'page');
  const guesses = [...inferRoles(screen)];
  const tabs = guesses.filter(([, { role }]) => role === 'tab').length;
  const lists = guesses.filter(([, { role }]) => role === 'tablist').length;
  return `${tabs} in ${lists}`;
}

const entries = (...words: string[]): string =>
  words
    .map((word) => `<div class="entry"><div class="text" style="cursor:pointer">${word}</div></div>`)
    .join('');
const parts = (shown: number, count: number): string =>
  `<div class="parts">${Array.from({ length: count }, (_, i) => `<div class="part" ${i === shown ? '' : 'hidden'}>What part ${i} says, at some length.</div>`).join('')}</div>`;

test.each([
  [
    'as many entries as there are parts, of which one is shown',
    `<div class="bar">${entries('Saws', 'Drills', 'Rakes')}</div>${parts(1, 3)}`,
    '3 in 1',
  ],
  [
    'with a title beside them',
    `<div class="bar"><b>Shelves</b>${entries('Saws', 'Drills', 'Rakes')}</div>${parts(0, 3)}`,
    '3 in 1',
  ],
  [
    'in a head of what the parts stand in',
    `<div><div><div class="bar">${entries('Saws', 'Drills')}</div></div><div>${parts(0, 2)}</div></div>`,
    '2 in 1',
  ],
  [
    'more entries than parts',
    `<div class="bar">${entries('Saws', 'Drills', 'Rakes', 'Vices', 'Hoists')}</div>${parts(0, 3)}`,
    '0 in 0',
  ],
  [
    'parts that are all shown',
    `<div class="bar">${entries('Saws', 'Drills')}</div><div><div class="part">One part</div><div class="part">Another part</div></div>`,
    '0 in 0',
  ],
  ['what nobody presses', `<div class="bar"><i>Saws</i><i>Drills</i></div>${parts(0, 2)}`, '0 in 0'],
  ['dots under pictures', `<div class="bar">${entries('', '', '')}</div>${parts(0, 3)}`, '0 in 0'],
  [
    'what stands within a link',
    `<a href="/me"><div class="bar">${entries('Ada', 'Member')}</div></a>${parts(0, 2)}`,
    '0 in 0',
  ],
])('tabs: %s', (_, html, expected) => {
  expect(tabsOf(`<main>${html}</main>`)).toBe(expected);
});
