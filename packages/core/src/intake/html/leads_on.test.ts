import { strToU8 } from 'fflate';
import { pagesLeadingOn } from './leads_on.ts';

const page = (path: string, html: string) => ({ path, bytes: strToU8(html) });
const refresh = (content: string): string => `<meta http-equiv="refresh" content="${content}">`;

test.each([
  ['at once', refresh('0; url=./docs/index.html'), 'docs/index.html'],
  ['by an address in quotes', refresh("0;URL='docs/index.html'"), 'docs/index.html'],
  ['to a folder', refresh('1; url=docs/'), 'docs/index.html'],
  [
    'with a word for whom it does not',
    `${refresh('0; url=docs/')}<p><a href="docs/">Go on</a></p>`,
    'docs/index.html',
  ],
  ['not after a minute', refresh('60; url=docs/index.html'), undefined],
  ['not by being read anew', refresh('30'), undefined],
  ['not to what did not come along', refresh('0; url=gone.html'), undefined],
  ['not out of the batch', refresh('0; url=https://example.org/'), undefined],
  ['not where there is something to see', `${refresh('0; url=docs/')}<img src="a.png">`, undefined],
  ['not where there is much to read', `${refresh('0; url=docs/')}${'word '.repeat(60)}`, undefined],
  ['not to itself', refresh('0; url=start.html'), undefined],
])('a page leads on %s', (_, html, expected) => {
  const found = pagesLeadingOn([page('start.html', html), page('docs/index.html', '<h1>Documents</h1>')]);
  expect(found.get('start.html')).toBe(expected);
});

test('one leads on to the end of all, and none in a circle', () => {
  const found = pagesLeadingOn([
    page('a.html', refresh('0; url=b.html')),
    page('b.html', refresh('0; url=c.html')),
    page('c.html', '<h1>There</h1>'),
    page('d.html', refresh('0; url=e.html')),
    page('e.html', refresh('0; url=d.html')),
  ]);
  expect([...found]).toEqual([
    ['a.html', 'c.html'],
    ['b.html', 'c.html'],
  ]);
});
