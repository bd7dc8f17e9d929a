import { strToU8 } from 'fflate';
import { pagesLeadingAway, pagesLeadingOn } from './leads_on.ts';

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

test('to the folder that all is in', () => {
  const found = pagesLeadingOn([
    page('pages/index.html', refresh("0;URL='../'")),
    page('index.html', '<h1>There</h1>'),
  ]);
  expect([...found]).toEqual([['pages/index.html', 'index.html']]);
});

test.each([
  ['what did not come along', refresh('0; url=../gone.html'), '../gone.html'],
  ['another site', refresh('0; url=https://example.org/'), 'https://example.org/'],
  ['not itself', refresh('0; url=start.html'), undefined],
  ['not what came along', refresh('0; url=docs/'), undefined],
  ['not by reading anew', refresh('30'), undefined],
])('a page leads away to %s, where there is another to see', (_, html, expected) => {
  const docs = page('docs/index.html', '<h1>Documents</h1>');
  expect(pagesLeadingAway([page('start.html', html), docs]).get('start.html')).toBe(expected);
});

test('what leads away is all that there is to see where nothing else is', () => {
  expect(pagesLeadingAway([page('start.html', refresh('0; url=gone.html'))]).size).toBe(0);
});
