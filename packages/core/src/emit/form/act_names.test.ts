import type { MarkupElement } from './markup.ts';
import { actName, actNames } from './act_names.ts';

const button = (key: string, text: string, more: Partial<MarkupElement> = {}): MarkupElement => ({
  tag: 'button',
  key,
  className: null,
  attributes: {},
  children: [{ text }],
  acts: [{ on: 'press', ways: [{ steps: [{ kind: 'close' }] }] }],
  ...more,
});
const page = (...children: MarkupElement[]): MarkupElement => ({
  tag: 'main',
  key: 'page',
  className: null,
  attributes: {},
  children,
});
const none = (): boolean => false;

test.each<[string, MarkupElement, Parameters<typeof actName>[1], string]>([
  ['what it says', button('a', 'Lend it'), 'press', 'handleLendIt'],
  [
    'what was drawn, whatever it says now',
    button('a', 'Take it', { drawnText: 'Lend it' }),
    'press',
    'handleLendIt',
  ],
  ['its label', button('a', '', { attributes: { 'aria-label': 'Close' } }), 'press', 'handleClose'],
  ['how it is done', button('a', 'Row'), 'long-press', 'handleLongPressRow'],
  ['its tag, where it says nothing', button('a', ''), 'press', 'handleButton'],
])('a function is called after %s', (_, node, on, name) => {
  expect(actName(node, on, none)).toBe(name);
});

test('what is done goes on being called as it was, and nothing else is called so', () => {
  const before = new Map([['b press', 'handleSend']]);
  const names = actNames(page(button('a', 'Send'), button('b', 'Send it all')), before, none);
  expect([...names].sort()).toEqual([
    ['a press', 'handleSend2'],
    ['b press', 'handleSend'],
  ]);
});
