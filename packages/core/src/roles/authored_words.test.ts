import { authoredWords } from './authored_words.ts';

test.each<[what: string, looks: string[][], words: (string | null)[]]>([
  [
    'what stands behind the class of the thing',
    [['alert alert-success fade'], ['alert alert-danger'], ['alert alert-info']],
    ['success', 'danger', 'info'],
  ],
  [
    'more than one word, where one is of several',
    [['btn btn-primary'], ['btn btn-outline-primary'], ['btn btn-danger']],
    ['primary', 'outlinePrimary', 'danger'],
  ],
  ['the usual one without', [['card'], ['card card-featured']], [null, 'featured']],
  ['a state by itself', [['nav-link'], ['nav-link active']], [null, 'active']],
  ['meanings behind what no class is', [['tag is-success'], ['tag is-danger']], ['success', 'danger']],
  ['by blocks and modifiers', [['card__title card__title--small'], ['card__title']], ['small', null]],
  ['a size', [['btn btn-sm'], ['btn']], ['small', null]],
  ['what all of a look have', [['btn btn-info mt', 'btn btn-info'], ['btn btn-dark']], ['info', 'dark']],
  [
    'in the order that classes have, where one word is not enough',
    [['btn btn-primary'], ['btn btn-primary btn-round'], ['btn btn-danger']],
    ['primary', 'primaryRound', 'danger'],
  ],
  [
    'the same for some that something else tells apart',
    [['btn btn-primary mt-3'], ['btn btn-primary'], ['btn btn-danger']],
    ['primary', 'primary', 'danger'],
  ],
  ['nothing of spaces and columns', [['box mt-3 col-md-6'], ['box mb-5 col-md-4']], [null, null]],
  ['nothing of single properties', [['box text-left'], ['box text-right']], [null, null]],
  ['nothing of what machines make up', [['css-1x7a'], ['css-9fd2']], [null, null]],
  ['nothing where two have none', [['btn'], ['btn'], ['btn btn-info']], [null, null, null]],
  ['nothing without classes', [[''], ['']], [null, null]],
])('looks are told apart by %s', (_, looks, words) => {
  expect(authoredWords(looks)).toEqual(words);
});
