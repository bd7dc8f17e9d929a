import { withoutIdle } from './idle.ts';

const states = (state: string, block: Record<string, string>) =>
  withoutIdle({ base: {}, at: {}, from: {}, states: { [state]: block } }, 'div', false).states;

test.each<[string, string, Record<string, string>, Record<string, string> | undefined]>([
  [
    'what is reset beside a colour says nothing',
    '::before',
    { 'background-color': 'red', 'background-image': 'initial', 'background-clip': 'initial' },
    { 'background-color': 'red' },
  ],
  [
    'but where a browser lays a gradient of its own over it',
    '::-webkit-meter-bar',
    { 'background-color': 'red', 'background-image': 'initial', 'background-clip': 'initial' },
    { 'background-color': 'red', 'background-image': 'none' },
  ],
  [
    'or a colour beneath none',
    '::-webkit-progress-bar',
    { 'background-color': 'initial', 'background-repeat': 'initial' },
    { 'background-color': 'transparent' },
  ],
  ['nothing that is left is no rule', '::after', { 'background-clip': 'initial' }, undefined],
  ['a size of box that all have', '::after', { 'box-sizing': 'border-box' }, undefined],
])('%s', (_, state, block, expected) => expect(states(state, block)[state]).toEqual(expected));

test.each<[string, string, Record<string, string>, Record<string, string>]>([
  [
    'a border that is not drawn has no colour',
    'div',
    { 'border-top-width': '0px', 'border-top-color': 'red' },
    {},
  ],
  [
    'one that is drawn has all',
    'div',
    { 'border-top-width': '1px', 'border-top-style': 'solid', 'border-top-color': 'red' },
    { 'border-top-width': '1px', 'border-top-style': 'solid', 'border-top-color': 'red' },
  ],
  ['a line under no text has no colour', 'a', { 'text-decoration-color': 'red' }, {}],
  ['what all are is not said', 'div', { opacity: '1', transform: 'none', color: 'red' }, { color: 'red' }],
  [
    'unless a browser fills it',
    'button',
    { 'background-color': 'transparent' },
    { 'background-color': 'transparent' },
  ],
])('%s', (_, tag, base, expected) =>
  expect(withoutIdle({ base, at: {}, from: {}, states: {} }, tag, false).base).toEqual(expected),
);
