import type { Screen } from '@tovel/core';
import { conditionsFor } from './conditions';

const screen = {
  key: 'home',
  root: {
    key: 'home:0',
    kind: 'box',
    tag: 'div',
    style: { base: {}, at: { 768: { color: 'red' } }, from: { 1280: { color: 'blue' } } },
    children: [],
  },
} as unknown as Screen;

test.each([
  // Looked at as it was drawn, there are the widths at which it changes.
  [1024, 1024, ['always', 'upTo 768', 'from 1280', 'hover', 'focus', 'disabled']],
  [1024, 390, ['always', 'upTo 390', 'upTo 768', 'from 1280', 'hover', 'focus', 'disabled']],
  [1024, 1600, ['always', 'upTo 768', 'from 1280', 'from 1600', 'hover', 'focus', 'disabled']],
  [1024, 768, ['always', 'upTo 768', 'from 1280', 'hover', 'focus', 'disabled']],
])('drawn at %i px and looked at in %i px edits can hold %j', (drawn, width, ids) => {
  expect(conditionsFor(screen, drawn, width).map(({ id }) => id)).toEqual(ids);
});
