import { wordOfClasses } from './called.ts';

test.each([
  ['card-header', 'cardHeader'],
  ['list-item', 'listItem'],
  ['col-4 text-center fw-bold', ''],
  ['cursor-pointer', ''],
  ['list-none outline-none break-words', ''],
  ['outline-none searchBox', 'searchBox'],
  ['select-none select-box', 'selectBox'],
  ['focus:outline-none md:items-stretch lg:card', 'card'],
  ['css-1x8fz9q', ''],
  ['divide-y divide-slate-200 transition-shadow truncate sr-only', ''],
  ['tabular-nums drop-shadow scroll-smooth from-white via-transparent list-unstyled', ''],
  ['navbar-expand-lg', 'navbar'],
  ['drop-zone', 'dropZone'],
  ['scroll-up', 'scrollUp'],
  ['from-address', 'fromAddress'],
])('what an author calls “%s” is “%s”', (classes, word) => expect(wordOfClasses(classes)).toBe(word));
