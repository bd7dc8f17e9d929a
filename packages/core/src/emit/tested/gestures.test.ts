/** @jest-environment jsdom */
/// <reference lib="dom" />
import { literal } from '../../expression/expression.ts';
import { loadedRuntime } from '../../testing/loaded_runtime.ts';
import type { EmittedAct, EmittedStep, MarkupElement } from '../form/markup.ts';
import type { Known } from './effects.ts';
import { type TestedGesture, testedGesturesIn } from './gestures.ts';

const known: Known = {
  collections: new Map(),
  unsure: new Set(['unsure']),
  variables: { seen: false },
  takes: () => true,
  answers: () => true,
};
const here = {
  shown: () => undefined,
  addressOf: (to: string) => to,
  over: [],
  page: { isOpen: () => null, ticks: () => null },
};
const sees: EmittedStep = { kind: 'set', condition: 'seen', to: literal(true), takesEntered: false };
const act = (on: EmittedAct['on'], more: Partial<EmittedAct> = {}): EmittedAct => ({
  on,
  ways: [{ steps: [sees] }],
  ...more,
});
const element = (
  tag: string,
  text: string,
  acts: readonly EmittedAct[] = [],
  more: Partial<MarkupElement> = {},
): MarkupElement => ({
  tag,
  key: null,
  className: null,
  attributes: {},
  children: [{ text }],
  acts,
  ...more,
});
const tested = (...children: MarkupElement[]): Omit<TestedGesture, 'from'>[] =>
  testedGesturesIn({ ...element('main', ''), children }, known, here);

const DOES = { does: [{ variable: 'seen', is: true }] };
const CARD = { tag: 'div', name: 'Saw', ...DOES };
test.each<[string, MarkupElement[], object[]]>([
  ['a double press', [element('div', 'Saw', [act('double-press')])], [{ on: 'double-press', ...CARD }]],
  ['hovering', [element('div', 'Saw', [act('hover')])], [{ on: 'hover', ...CARD }]],
  [
    'a swipe to its side',
    [element('div', 'Saw', [act('swipe', { side: 'right' })])],
    [{ on: 'swipe', side: 'right', ...CARD }],
  ],
  ['a long press', [element('div', 'Saw', [act('long-press')])], [{ on: 'long-press', ms: 500, ...CARD }]],
  [
    'a key, wherever it is pressed',
    [element('div', '', [act('key', { key: 'g' })])],
    [{ on: 'key', key: 'g', ...DOES }],
  ],
  [
    'what comes after a time',
    [element('div', '', [act('after', { ms: 900 })])],
    [{ on: 'after', ms: 900, ...DOES }],
  ],
  ['what comes by itself', [element('div', '', [act('load')])], [{ on: 'load', ...DOES }]],
  [
    'of several that begin so the one that does it',
    [element('div', 'Sawdust'), element('p', 'Saw'), element('div', 'Saw', [act('hover')])],
    [{ on: 'hover', ...CARD, at: 1 }],
  ],
  ['not what says nothing', [element('div', '', [act('hover')])], []],
  ['nor what nobody knows what it says', [element('div', 'Saw', [act('hover')], { key: 'unsure' })], []],
  ['nor what is not there at first', [element('div', 'Saw', [act('hover')], { when: literal(true) })], []],
  ['presses are tried otherwise', [element('div', 'Saw', [act('press'), act('change'), act('submit')])], []],
  [
    'what is there once it is loaded was not seen before',
    [element('div', '', [act('load', { ways: [{ steps: [{ kind: 'browser', does: 'print' }] }] })])],
    [],
  ],
])('what is done besides pressing: %s', (_, children, made) => expect(tested(...children)).toEqual(made));

const { gesture } = loadedRuntime<{ gesture(element: Element, how: object): void }>('testing/gestures.ts');
const { recogniser } = loadedRuntime<{
  recogniser(acts: Record<string, () => void>): Record<'down' | 'move' | 'end', (event: Event) => void>;
}>('navigation/pointer.ts');

test.each(['left', 'right', 'top', 'bottom'])('an app recognises how its test swipes: %s', (side) => {
  const seen: string[] = [];
  const acts = ['Left', 'Right', 'Top', 'Bottom'].map(
    (name) => [`swipe${name}`, () => void seen.push(name.toLowerCase())] as const,
  );
  const { down, move, end } = recogniser(Object.fromEntries(acts));
  const touched = document.createElement('div');
  touched.addEventListener('pointerdown', down);
  touched.addEventListener('pointermove', move);
  touched.addEventListener('pointerup', end);
  gesture(touched, { on: 'swipe', side });
  expect(seen).toEqual([side]);
});

test.each([
  ['hover', {}, ['pointerover', 'pointerenter']],
  ['double-press', {}, ['dblclick']],
  ['long-press', {}, ['pointerdown']],
  ['key', { key: 'g' }, ['keydown g']],
  ['after', {}, []],
  ['load', {}, []],
])('what is done by %s', (on, more, events) => {
  const seen: string[] = [];
  const touched = document.createElement('div');
  for (const type of ['pointerover', 'pointerenter', 'pointerdown', 'dblclick', 'keydown'])
    touched.addEventListener(type, (event) =>
      seen.push(type + (event instanceof KeyboardEvent ? ` ${event.key}` : '')),
    );
  gesture(touched, { on, ...more });
  expect(seen).toEqual(events);
});

test('what of a page can be seen, and what was asked of the browser', async () => {
  const { seenOn } = loadedRuntime<{ seenOn(page: Document): Record<string, unknown> }>('testing/page.ts');
  document.body.innerHTML = `<section id="shown"></section><section id="closed" hidden></section>
    <nav id="narrow"></nav><button aria-controls="narrow" aria-expanded="false"></button>
    <dialog id="overlay-sure"></dialog><input type="checkbox" checked><input type="checkbox"><input type="radio" checked>`;
  window.print();
  await navigator.clipboard.writeText('Saw');
  expect(seenOn(document)).toEqual({
    open: ['shown', 'overlay-sure'],
    over: ['sure'],
    ticked: 1,
    copied: ['Saw'],
    printed: 1,
  });
});
