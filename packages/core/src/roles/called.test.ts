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
])('what an author calls “%s” is “%s”', (classes, word) => expect(wordOfClasses(classes)).toBe(word));
