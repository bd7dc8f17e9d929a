import { emitScreen } from './screen.ts';
import { isElement, type MarkupElement } from './markup.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import { truthful } from './truthful.ts';

const ids = new Set(['menu', 'hint']);

test.each<[string, string, Record<string, string | true>, boolean, Record<string, string | true>]>([
  ['a dead link is no button', 'span', { role: 'button', 'aria-expanded': 'true' }, true, {}],
  [
    'what is a button stays one',
    'span',
    { role: 'button', 'aria-expanded': 'true' },
    false,
    { role: 'button', 'aria-expanded': 'true' },
  ],
  ['plain text has no name', 'span', { 'aria-label': 'Close', class: 'x' }, false, { class: 'x' }],
  [
    'a picture of several parts has one',
    'div',
    { role: 'img', 'aria-label': 'Stars' },
    false,
    { role: 'img', 'aria-label': 'Stars' },
  ],
  [
    'what is not there is not controlled',
    'button',
    { 'aria-controls': 'gone menu' },
    false,
    { 'aria-controls': 'menu' },
  ],
  ['nor spoken of', 'input', { 'aria-describedby': 'gone' }, false, {}],
  [
    'what takes the focus is not hidden',
    'button',
    { 'aria-hidden': 'true', type: 'button' },
    false,
    { type: 'button' },
  ],
  ['what it is by itself is not said again', 'button', { role: 'button', title: '' }, false, {}],
  ['another role is', 'button', { role: 'tab', title: 'Close' }, false, { role: 'tab', title: 'Close' }],
  ['an ornament is', 'span', { 'aria-hidden': 'true' }, false, { 'aria-hidden': 'true' }],
])('%s', (_, tag, attributes, wasLink, expected) => {
  expect(truthful(attributes, tag, wasLink, ids)).toEqual(expected);
});

test.each([
  ['one that somebody gave', '<p id="opening-hours">When</p>', ['opening-hours']],
  ['of a number that nothing refers to', '<button id="button-6309">Lend</button>', []],
  ['as libraries make them', '<button id="radix-:r1:">Lend</button><p id="field-9f86d081884c">9</p>', []],
  ['of the first of several', '<p id="step-1">Look</p>', ['step-1']],
  [
    'that a label, another text and a link of the page name',
    '<label for="field-12">Tool</label><input id="field-12" aria-describedby="hint-13 hint-14"><p id="hint-14">Any</p><a href="#part-15">On</a><p id="part-15">Part</p>',
    ['field-12', 'hint-14', 'part-15'],
  ],
])('an id %s', (_, html, expected) => {
  const { root } = emitScreen(pageOfHtml(html), {
    wiringOf: () => ({}),
    anchorOf: () => null,
  });
  const idsIn = ({ attributes, children }: MarkupElement): string[] => [
    ...(typeof attributes.id === 'string' ? [attributes.id] : []),
    ...children.filter(isElement).flatMap(idsIn),
  ];
  expect(idsIn(root)).toEqual(expected);
});
