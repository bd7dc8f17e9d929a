import { strToU8 } from 'fflate';
import { piecesOfPages } from './page_pieces.ts';

const BAR = `<nav class="bar">
  <a href="index.html">Home</a>
  <a href="tools.html">Tools</a><a href="members.html">Members</a>
</nav>`;
const page = (inner: string): string => `<!doctype html><html><body>${inner}<h1>Tools</h1></body></html>`;
const found = (files: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(
    piecesOfPages(Object.entries(files).map(([path, text]) => ({ path, bytes: strToU8(text) }))),
  );

test.each<[string, Record<string, string>, Record<string, string>]>([
  [
    'what a page has, whatever its white space',
    { 'parts/_bar.html': BAR, 'index.html': page(`<!-- bar -->${BAR.replace(/\s+/g, '\n ')}`) },
    { 'parts/_bar.html': 'index.html' },
  ],
  ['what no page has', { 'card.html': BAR, 'index.html': page('<p>Nothing of it</p>') }, {}],
  ['pieces alone', { 'card.html': BAR, 'other.html': BAR }, {}],
  ['a whole page within another', { 'a.html': page(BAR), 'b.html': page(page(BAR)) }, {}],
  ['what is so short that anything begins so', { 'a.html': '<nav>', 'b.html': page('<nav></nav>') }, {}],
])('pieces of pages: %s', (_, files, expected) => {
  expect(found(files)).toEqual(expected);
});
