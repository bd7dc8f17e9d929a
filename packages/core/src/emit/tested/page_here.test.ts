/** @jest-environment jsdom */
/// <reference lib="dom" />
import fc from 'fast-check';
import { literal } from '../../expression/expression.ts';
import { loadedRuntime } from '../../testing/loaded_runtime.ts';
import type { EmittedCollection } from '../form/live/records.ts';
import type { MarkupElement } from '../form/markup.ts';
import type { Known, PageHere } from './effects.ts';
import { pageHere } from './page_here.ts';

const element = (
  tag: string,
  attributes: MarkupElement['attributes'] = {},
  children: readonly MarkupElement[] = [],
  more: Partial<MarkupElement> = {},
): MarkupElement => ({ tag, key: null, className: null, attributes, children, ...more });
const box = (attributes: MarkupElement['attributes'] = {}, more?: Partial<MarkupElement>): MarkupElement =>
  element('input', { type: 'checkbox', ...attributes }, [], more);
const part = (id: string, more: Partial<NonNullable<MarkupElement['part']>> = {}): MarkupElement =>
  element('section', { id }, [], { part: { kind: 'section', isOpen: false, ...more } });
const opener = (id: string, does: 'toggle' | 'close' = 'toggle'): MarkupElement =>
  element('button', {}, [], { link: { kind: 'disclose', id, does }, form: 'button' });

const view = {
  rows: new Map([
    ['one', 'saw'],
    ['two', 'rake'],
  ]),
  options: { perPage: 2 },
};
const tools = {
  live: { name: 'tools' },
  records: [{ id: 'saw' }, { id: 'rake' }, { id: 'hoe' }],
  lists: new Set([view]),
} as unknown as EmittedCollection;
const known = (collections: Known['collections'] = new Map()): Known => ({
  collections,
  unsure: new Set(),
  variables: {},
  takes: () => true,
  answers: () => true,
});
const on = (...children: MarkupElement[]): PageHere => pageHere(element('main', {}, children), known());

test.each<[string, MarkupElement[], boolean | null]>([
  ['one that is open', [part('it', { isOpen: true })], true],
  ['one that is closed', [part('it')], false],
  ['one that is not there', [part('other')], null],
  ['one that opens as something says', [part('it', { isOpen: literal(true) })], null],
  ['one that is there twice', [part('it'), part('it', { isOpen: true })], null],
  ['one that narrow windows close', [part('it', { isNarrow: true }), opener('it')], false],
  ['which nothing opens', [part('it', { isNarrow: true }), opener('it', 'close')], null],
])('a part is open or not: %s', (_, children, isOpen) => expect(on(...children).isOpen('it')).toBe(isOpen));

const all = { 'data-ticks': 'all' };
test.each<[string, MarkupElement[], number | null]>([
  ['a box ticks itself and the others', [box(all), box(), box({ checked: true })], 2],
  ['a ticked one takes that back', [box({ ...all, checked: true }), box(), box({ checked: true })], -2],
  ['a button ticks all', [element('button', all), box(), box({ checked: true })], 1],
  ['or none, where all are', [element('button', all), box({ checked: true })], -1],
  ['those that stand nearest', [element('p', {}, [element('button', all), box()]), box()], 1],
  ['not what cannot be ticked', [element('button', all), box(), box({ disabled: true })], 1],
  ['nothing where there are no others', [box(all)], null],
  ['nobody knows', [element('button', all), box({}, { when: literal(true) })], null],
  [
    'nor of what follows something',
    [element('button', all), box({}, { slots: { '@checked': literal(true) } })],
    null,
  ],
])('how many boxes more are ticked: %s', (_, children, more) =>
  expect(on(...children).ticks('all')).toBe(more),
);

test('boxes in rows are there for each record that is shown', () => {
  const rows = ['one', 'two'].map((key) => element('tr', {}, [box()], { key }));
  const here = pageHere(element('table', {}, [box(all), ...rows]), known(new Map([['tools', tools]])));
  expect(here.ticks('all')).toBe(3);
});

test('nobody knows how many boxes more are ticked in rows of which only some were drawn ticked', () => {
  const rows = ['one', 'two'].map((key, i) => element('tr', {}, [box(i ? {} : { checked: true })], { key }));
  const here = pageHere(element('table', {}, [box(all), ...rows]), known(new Map([['tools', tools]])));
  expect(here.ticks('all')).toBeNull();
});

test('what is told of ticking is what an app does', () => {
  const { tickAll } = loadedRuntime<{ tickAll(name: string): void }>('navigation/tickAll.ts');
  const drawn = (node: MarkupElement): HTMLElement => {
    const made = document.createElement(node.tag);
    for (const [name, value] of Object.entries(node.attributes))
      made.setAttribute(name, value === true ? '' : value);
    made.append(...(node.children as readonly MarkupElement[]).map(drawn));
    return made;
  };
  const boxes = fc.array(
    fc
      .record({ checked: fc.boolean(), disabled: fc.boolean() })
      .map(({ checked, disabled }) =>
        box({ ...(checked ? { checked: true } : {}), ...(disabled ? { disabled: true } : {}) }),
      ),
    { maxLength: 4 },
  );
  fc.assert(
    fc.property(boxes, boxes, fc.constantFrom('button', 'input'), fc.boolean(), (near, far, tag, checked) => {
      const control =
        tag === 'input' ? box({ ...all, ...(checked ? { checked: true } : {}) }) : element(tag, all);
      const root = element('main', {}, [element('p', {}, [control, ...near]), ...far]);
      const page = drawn(root);
      document.body.replaceChildren(page);
      const ticked = (): number => page.querySelectorAll('input:checked').length;
      const before = ticked();
      if (tag === 'input') page.querySelector<HTMLElement>('[data-ticks]')!.click();
      const told = pageHere(root, known()).ticks('all');
      tickAll('all');
      if (told !== null) expect(ticked() - before).toBe(told);
    }),
  );
});
