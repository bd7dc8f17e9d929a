import type { Element } from '../../model/design.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import { classesOf, withoutNamespaces } from './class_namespace.ts';

/** The classes of a page, as they are told, in order. */
function told(html: string, there: readonly string[] = []): string[] {
  const [{ root }] = withoutNamespaces([{ ...pageOfHtml(html), title: 'Page' }], there);
  const visit = (element: Element): string[] => [
    ...(element.classes ? [element.classes] : []),
    ...element.children.flatMap(visit),
  ];
  return visit(root);
}

const page = (...classes: string[]): string =>
  classes.map((name) => `<div class="${name}"><p>Text</p></div>`).join('');

test.each([
  [
    'what is before all of a library',
    page('xb-card', 'xb-card__title', 'xb-menu', 'xb-button', 'xb-tabs active', 'xb-grid', 'xb-layout'),
    ['card', 'card__title', 'menu', 'button', 'tabs active', 'grid', 'layout'],
  ],
  [
    'a longer one that most have',
    page('shop-card', 'shop-menu', 'shop-button', 'shop-tabs', 'shop-grid', 'shop-layout', 'wide'),
    ['card', 'menu', 'button', 'tabs', 'grid', 'layout', 'wide'],
  ],
  [
    'not the name of a thing that has many parts',
    page('nav', 'nav-item', 'nav-link', 'nav-tabs', 'nav-pills', 'nav-fill', 'nav-head'),
    ['nav', 'nav-item', 'nav-link', 'nav-tabs', 'nav-pills', 'nav-fill', 'nav-head'],
  ],
  [
    'not a short word that nothing is called by itself',
    page('nav-item', 'nav-link', 'nav-tabs', 'nav-pills', 'nav-fill', 'nav-head', ...'abcdefghi'),
    ['nav-item', 'nav-link', 'nav-tabs', 'nav-pills', 'nav-fill', 'nav-head', ...'abcdefghi'],
  ],
  [
    'not a word that some have',
    page('form-group', 'form-check', 'form-label', 'form-row', 'form-text', 'form-field', ...'abcdefg'),
    ['form-group', 'form-check', 'form-label', 'form-row', 'form-text', 'form-field', ...'abcdefg'],
  ],
  [
    'not what says one property each',
    page('px-four', 'px-six', 'px-auto', 'px-none', 'px-small', 'px-large'),
    ['px-four', 'px-six', 'px-auto', 'px-none', 'px-small', 'px-large'],
  ],
  ['not of few words', page('xb-card', 'xb-menu', 'xb-button'), ['xb-card', 'xb-menu', 'xb-button']],
])('classes and what is before them: %s', (_, html, expected) => {
  expect(told(html)).toEqual(expected);
});

test('what pages had before their classes is left out of a few that come after them', () => {
  const there = classesOf([{ ...pageOfHtml(page('card', 'card-title', 'menu', 'button')), title: 'Page' }]);
  expect(there).toEqual(['card', 'card-title', 'menu', 'button']);
  const few = page('xb-card', 'xb-card-title', 'xb-new');
  expect(told(few)).toEqual(['xb-card', 'xb-card-title', 'xb-new']);
  expect(told(few, there)).toEqual(['card', 'card-title', 'new']);
  // What is there with it says more than what is there without.
  expect(told(few, [...there, 'xb-list'])).toEqual(['xb-card', 'xb-card-title', 'xb-new']);
});
