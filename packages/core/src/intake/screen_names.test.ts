import { applyChange } from '../change/change.ts';
import { emptyApp } from '../model/app.ts';
import { emptyDesign, type Element, type Screen } from '../model/design.ts';
import { takeIn } from '../project/take_in.ts';
import { screenWith } from '../testing/build.ts';
import { withTellingNames } from './screen_names.ts';

const drawn = screenWith('a', 'Go');
const element = (tag: string, text: string, more: Partial<Element> = {}): Element => ({
  ...drawn.root.children[0],
  key: `${tag}${text}`,
  tag,
  text,
  children: [],
  ...more,
});
const page = (file: string, title: string, ...children: Element[]): Screen => ({
  ...drawn,
  key: file,
  name: title,
  title,
  source: { file, path: '' },
  root: { ...drawn.root, children },
});
/** A menu of which one entry is marked. */
const marked = (text: string, ...others: string[]): Element =>
  element('ul', '', {
    children: [text, ...others].map((one) =>
      element('a', one, { classes: one === text ? 'nav-link active' : 'nav-link' }),
    ),
  });
const names = (...screens: Screen[]): string[] => withTellingNames(screens).map(({ name }) => name);

test.each<[string, Screen[], string[]]>([
  [
    'what titles do not share',
    [page('a.html', 'Shed - Tools'), page('b.html', 'Shed - Loans'), page('c.html', 'Shed - Help')],
    ['Tools', 'Loans', 'Help'],
  ],
  [
    'what no other title has, where the rest says the part of the site',
    [
      page('c/drill.html', 'Drill - Tools - Shed'),
      page('c/saw.html', 'Saw - Tools - Shed'),
      page('tools.html', 'Tools - Shed'),
      page('m/saw.html', 'Saw - Manuals - Shed'),
      page('m/care.html', 'Care - Manuals - Shed'),
      page('desk.html', 'Desk - Shed'),
      page('help.html', 'Help - Shed'),
    ],
    ['Drill', 'Saw Tools', 'Tools', 'Saw Manuals', 'Care', 'Desk', 'Help'],
  ],
  [
    'with the file, where several pages of one title lie in folders of one name',
    [
      page('docs/card/index.html', 'Cards of tools - Shed'),
      page('docs/card/old/index.html', 'Cards of tools - Shed'),
      page('docs/tile/index.html', 'Tiles - Shed'),
      page('docs/tile/old/index.html', 'Tiles - Shed'),
      page('docs/badge/index.html', 'Badge - Shed'),
    ],
    ['Cards of tools', 'Cards of tools old', 'Tiles', 'Tiles old', 'Badge'],
  ],
  [
    'also without a separator',
    [page('a.html', 'Shed Tools Desk'), page('b.html', 'Shed Loans Desk'), page('c.html', 'Shed Help Desk')],
    ['Tools', 'Loans', 'Help'],
  ],
  [
    'the index above all pages is home, whatever its heading says',
    [
      page('site/index.html', 'Shed', element('h1', 'The Shed itself')),
      page('site/pages/a.html', 'Shed', element('h1', 'Tools')),
      page('site/pages/b.html', 'Shed', element('h1', 'Loans')),
    ],
    ['Home', 'Tools', 'Loans'],
  ],
  [
    'the marked entry where all titles are the same',
    [
      page('p1.html', 'Shed', marked('Tools', 'My loans')),
      page('p2.html', 'Shed', marked('My loans', 'Tools')),
    ],
    ['Tools', 'My loans'],
  ],
  [
    'no entry that is marked on one page alone: it is a sample',
    [page('p1.html', 'Shed', marked('Active', 'Link')), page('p2.html', 'Shed')],
    ['P1', 'P2'],
  ],
  [
    'what is seen of an entry',
    [
      page('p1.html', 'Shed', marked('Tools', 'My loans'), element('p', '')),
      page(
        'p2.html',
        'Shed',
        element('ul', '', {
          children: [
            element('a', 'Tools'),
            element('a', 'My loans', {
              classes: 'active',
              children: [element('span', '(current)', { box: { x: 0, y: 0, width: 1, height: 1 } })],
            }),
          ],
        }),
      ),
    ],
    ['Tools', 'My loans'],
  ],
  [
    'a file that is a word before a heading',
    [
      page('pricing.html', 'Shed', element('h1', 'Pay as you go')),
      page('p2.html', 'Shed', element('h1', 'Our shelves')),
    ],
    ['Pricing', 'Our shelves'],
  ],
  [
    'the first page, home',
    [page('index.html', 'Shed', element('h1', 'Shed')), page('help.html', 'Shed')],
    ['Home', 'Help'],
  ],
  ['one page alone by its title', [page('a.html', 'Shed - Tools')], ['Shed - Tools']],
])('pages are called by %s', (_, pages, wanted) => {
  expect(names(...pages)).toEqual(wanted);
});

test('no two have the same name, and none differs in a bracket only', () => {
  const made = names(...['a', 'b', 'a'].map((file) => page(`${file}.html`, 'Shed')));
  expect(new Set(made).size).toBe(3);
  expect(made.join()).not.toContain('(');
  expect(names({ ...drawn, key: 'x' }, { ...drawn, key: 'y' })).toEqual(['A', 'A 2']);
});

test('where each page lies in a folder of its own, one comes in by the outermost', () => {
  const screens = ['a/old/index.html', 'a/index.html', 'b/index.html'].map((file) => page(file, 'Shed'));
  const app = applyChange(emptyApp, takeIn({ design: emptyDesign, app: emptyApp }, screens));
  expect(app.start).toBe('a/index.html');
  expect(names(...screens)).toEqual(['Old', 'A', 'B']);
});

test('the first page of a site is where one comes in', () => {
  const screens = withTellingNames([page('about.html', 'Shed'), page('index.html', 'Shed')]);
  const design = { ...emptyDesign, screens };
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens));
  expect([app.start, app.screens['index.html'].route, app.screens['about.html'].route]).toEqual([
    'index.html',
    '/',
    '/about',
  ]);
});
