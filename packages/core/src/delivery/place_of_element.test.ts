import type { EmittedFile } from '../emit/emitted.ts';
import type { Screen } from '../model/design.ts';
import { walkElements } from '../model/project.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { placeOfElement } from './place_of_element.ts';

const screen = pageOfHtml(
  `<main id="main"><h1 id="head">Tools of the shed</h1>
   <p id="text">A saw that <b id="bold">cuts</b> wood.</p>
   <ul id="list"><li id="row">A plane</li><li id="other">A <i id="deep">chisel</i></li></ul></main>`,
);
const keyOf = (id: string, page: Screen = screen): string => {
  let key = '';
  walkElements(page.root, (element) => {
    if (element.attributes?.id === id) ({ key } = element);
  });
  return key;
};

const fileOf = (path: string, ...ids: (string | null)[]): EmittedFile => ({
  path,
  text: ids.join('\n'),
  lines: ids.map((id) => id && keyOf(id)),
});
const SCREEN = 'src/screens/Tools/Tools.tsx';
const ROW = 'src/components/Row/Row.tsx';
const FILES = [
  fileOf('src/screens/Tools/Tools.module.css', 'main', 'row'),
  fileOf(ROW, null, 'row', 'row'),
  fileOf(SCREEN, null, 'main', 'head', 'text', 'list', 'other', 'list', 'main'),
];

test.each<[string, string, string, string | null, number]>([
  ['an element of the file that is looked at', SCREEN, 'head', SCREEN, 2],
  ['one within a line', SCREEN, 'bold', SCREEN, 3],
  ['one in a component of its own', SCREEN, 'row', ROW, 1],
  ['one in a component that is written for another place', SCREEN, 'deep', SCREEN, 5],
  ['one of the screen, from the component', ROW, 'text', SCREEN, 3],
  [
    'a rule, where a sheet is looked at',
    'src/screens/Tools/Tools.module.css',
    'row',
    'src/screens/Tools/Tools.module.css',
    1,
  ],
  ['in files of no such kind', 'README.md', 'row', null, 0],
])('%s', (_, path, element, file, line) => {
  expect(placeOfElement(FILES, path, screen, keyOf(element))).toEqual(file && { path: file, line });
});
