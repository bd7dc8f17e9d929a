import type { MarkupElement, StyleRule } from '../markup.ts';
import { placedApart, withPlaced } from './placement.ts';

const rule = (className: string, base: Record<string, string>): StyleRule => ({
  className,
  key: className,
  base,
  at: { 600: { 'margin-top': '4px' } },
  from: {},
  states: { ':hover': { color: 'red' } },
});
const place = (base: Record<string, string> | null, more: Partial<MarkupElement> = {}) => ({
  node: { tag: 'a', key: 'k', className: base ? 'button' : null, attributes: {}, children: [], ...more },
  rules: new Map(base ? [['button', rule('button', base)]] : []),
  route: null,
});
/** A place that looks one way or another by what it stands in. */
const chosen = (on: Record<string, string>, off: Record<string, string>) => ({
  ...place(null, {
    variant: { by: { kind: 'prop', name: 'isActive' }, classes: { true: 'entryActive', false: 'entry' } },
  }),
  rules: new Map([
    ['entryActive', rule('entryActive', on)],
    ['entry', rule('entry', off)],
  ]),
});
const own = { color: '#111', 'padding-top': '8px' };

test('what places say of where they stand is theirs, as far as they differ in it', () => {
  const [first, second] = placedApart([
    place({ ...own, 'margin-top': '8px', width: '100%' }),
    place({ ...own, 'margin-top': '24px', width: '100%' }),
  ]);
  // All of one kin goes together, at all widths.
  expect(first.placed).toMatchObject({ base: { 'margin-top': '8px' }, at: { 600: { 'margin-top': '4px' } } });
  expect(second.placed?.base).toEqual({ 'margin-top': '24px' });
  const left = first.rules.get(first.node.className!)!;
  expect([left.base, left.at, left.states]).toEqual([
    { ...own, width: '100%' },
    {},
    { ':hover': { color: 'red' } },
  ]);
  // The element that it stands for is still known.
  expect(first.origin.className).toBe('button');
});

test.each([
  ['places that stand alike', [place({ ...own, width: '10px' }), place({ ...own, width: '10px' })]],
  ['what differs in how it looks', [place({ ...own }), place({ ...own, color: '#222' })]],
  [
    'what depends on a component around it',
    [chosen({ width: '10px' }, { width: '12px' }), chosen({ width: '20px' }, { width: '22px' })],
  ],
])('%s stay whole', (_, places) => {
  for (const one of placedApart(places)) {
    expect(one.placed).toBeNull();
    expect(one.node).toBe(one.origin);
  }
});

test('of looks that something around decides, what all say of where it stands is parted from each', () => {
  const [first] = placedApart([
    chosen({ color: 'red', width: '10px' }, { width: '10px' }),
    chosen({ color: 'red', width: '20px' }, { width: '20px' }),
  ]);
  expect(first.placed?.base).toEqual({ width: '10px' });
  const looks = Object.entries(first.node.variant!.classes).map(([value, name]) => [
    value,
    first.rules.get(name!)?.base,
  ]);
  expect(looks).toEqual([
    ['true', { color: 'red' }],
    ['false', {}],
  ]);
});

test('what is placed gets a name of its own beside what it was a part of', () => {
  const placed = [rule('button', { width: '1px' }), rule('button', { width: '2px' })];
  const { rules, names } = withPlaced(
    new Map([
      ['button', rule('button', {})],
      ['note', rule('note', {})],
    ]),
    placed,
  );
  expect([...rules.keys()]).toEqual(['button', 'button2', 'button3', 'note']);
  expect(placed.map((one) => names.get(one))).toEqual(['button2', 'button3']);
});
