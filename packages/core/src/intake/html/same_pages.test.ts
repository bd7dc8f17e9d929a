import type { InputFile } from '../files.ts';
import { samePages } from './same_pages.ts';

const page = '<title>Tools</title><link rel="stylesheet" href="look.css"><a href="loans.html">Loans</a>';
const other = '<title>Loans</title>';

const filesOf = (texts: Readonly<Record<string, string>>): InputFile[] =>
  Object.entries(texts).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) }));

test.each<[what: string, texts: Readonly<Record<string, string>>, same: Readonly<Record<string, string>>]>([
  ['one page', { 'index.html': page }, {}],
  ['different ones', { 'index.html': page, 'loans.html': other }, {}],
  [
    'of two, that which shows more',
    { 'a.html': page, 'dist/a.html': page, 'dist/look.css': 'a{}' },
    { 'a.html': 'dist/a.html' },
  ],
  ['else that of the shorter path', { 'dist/a.html': page, 'a.html': page }, { 'dist/a.html': 'a.html' }],
  [
    'both, where they look otherwise',
    { 'a/x.html': page, 'a/look.css': 'a{}', 'b/x.html': page, 'b/look.css': 'b{}' },
    {},
  ],
  [
    'both, where they lead to other pages',
    { 'en/x.html': page, 'en/loans.html': other, 'de/x.html': page, 'de/loans.html': `${other}!` },
    {},
  ],
  [
    'all but one of a whole folder that is there twice',
    { 'en/x.html': page, 'en/loans.html': other, 'copy/x.html': page, 'copy/loans.html': other },
    { 'copy/x.html': 'en/x.html', 'copy/loans.html': 'en/loans.html' },
  ],
  ['both, where they are called otherwise', { 'x.html': other, 'y.html': other }, {}],
  ['pages alone', { 'a.css': 'a{}', 'b.css': 'a{}' }, {}],
])('%s', (_, texts, same) => {
  expect(Object.fromEntries(samePages(filesOf(texts)))).toEqual(same);
});
