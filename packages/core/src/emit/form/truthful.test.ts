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
