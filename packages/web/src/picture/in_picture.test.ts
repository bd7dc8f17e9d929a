/** @jest-environment jsdom */
import { broughtIntoPicture } from './in_picture';

/** A page so high of which an element stands at a place. */
function pageWith(height: number, y: number, tall: number): Document {
  const page = document.implementation.createHTMLDocument();
  page.body.innerHTML = '<p data-key="a:1">Saw</p>';
  const scroller = page.documentElement;
  Object.defineProperty(page, 'scrollingElement', { value: scroller });
  Object.defineProperty(scroller, 'clientHeight', { value: height });
  page.querySelector('p')!.getBoundingClientRect = () =>
    ({ x: 10, y: y - scroller.scrollTop, width: tall && 200, height: tall }) as DOMRect;
  return page;
}

test.each([
  ['where it is', pageWith(800, 100, 40), 'a:1', { x: 10, y: 100, width: 200, height: 40 }],
  [
    'below the end, and is brought up',
    pageWith(800, 1500, 40),
    'a:1',
    { x: 10, y: 0, width: 200, height: 40 },
  ],
  ['nowhere, since it takes no place', pageWith(800, 100, 0), 'a:1', null],
  ['nowhere, since there is none', pageWith(800, 100, 40), 'a:2', null],
])('an element of a picture is seen %s', (_, page, key, place) =>
  expect(broughtIntoPicture(page, key)).toEqual(place),
);
