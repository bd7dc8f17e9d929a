import { atOneOf, literal } from '../../../expression/expression.ts';
import { isElement, type MarkupElement, type StyleRule } from '../markup.ts';
import { type Framed, frameOf } from './frame.ts';

const element = (tag: string, className: string | null, ...children: MarkupElement[]): MarkupElement => ({
  tag,
  key: null,
  className,
  attributes: {},
  children,
});
const rule = (className: string, color: string): StyleRule => ({
  className,
  key: null,
  base: { color },
  at: {},
  from: {},
  states: {},
});

const ENTRIES = ['home', 'tools', 'loans', 'help'];
/** A screen with a menu whose entries look as their colours say, and a part of its own. */
const screen = (name: string, colors: readonly string[], prefix = ''): Framed => {
  const classOf = (color: string): string => `${prefix}${color}`;
  const entries = colors.map((color) => element('li', classOf(color)));
  return {
    root: element(
      'div',
      null,
      element('nav', null, ...entries),
      element('main', null, element(`x-${name}`, null)),
    ),
    rules: [...new Set(colors)].map((color) => rule(classOf(color), color)),
    route: `/${name}`,
    inside: new Set(),
  };
};
const marked = (name: string): string[] => ENTRIES.map((one) => (one === name ? 'red' : 'grey'));
const menuIn = (root: MarkupElement): MarkupElement[] => {
  const [menu] = root.children;
  return isElement(menu) ? menu.children.filter(isElement) : [];
};

test('the entry that each screen marks is told by the present address', () => {
  const frame = frameOf(ENTRIES.map((name) => screen(name, marked(name))))!;
  expect(menuIn(frame.root).map(({ className, variant }) => [className, variant])).toEqual(
    ENTRIES.map((name) => [
      null,
      { by: atOneOf(literal(`/${name}`)), classes: { true: 'red', false: 'grey' } },
    ]),
  );
  // Elsewhere nothing is marked.
  expect(menuIn(frame.usual).map(({ className, variant }) => [className, variant])).toEqual(
    ENTRIES.map(() => ['grey', undefined]),
  );
  expect(frame.insides.map((inside) => inside.tag)).toEqual(ENTRIES.map(() => 'main'));
});

test('what only another screen says comes along, by a name that nothing else has', () => {
  const plain = ENTRIES.map(() => 'grey');
  const screens = [
    { ...screen('home', plain), rules: [rule('grey', 'grey'), rule('red', 'blue')] },
    screen('tools', plain),
    screen('loans', marked('loans')),
  ];
  const frame = frameOf(screens)!;
  const { variant } = menuIn(frame.root)[2];
  const taken = variant!.classes.true!;
  expect(['grey', 'red']).not.toContain(taken);
  expect(new Set(frame.rules.map(({ className }) => className)).size).toBe(frame.rules.length);
  expect(frame.rules.find(({ className }) => className === taken)?.base).toEqual({ color: 'red' });
});

test.each<{ why: string; colors: readonly string[][]; routes?: readonly (string | null)[] }>([
  {
    why: 'the half of them look otherwise',
    colors: [['red'], ['red'], ['red'], ['grey'], ['grey'], ['grey']],
  },
  { why: 'those that do look in two ways', colors: [['grey'], ['grey'], ['grey'], ['red'], ['blue']] },
  {
    why: 'an address says nothing',
    colors: [['grey'], ['grey'], ['grey'], ['red']],
    routes: ['/a', '/b', '/c', '/d/:id'],
  },
])('a menu is not shared where $why', ({ colors, routes }) => {
  const screens = colors.map((own, i) => ({
    ...screen(`s${i}`, own),
    ...(routes ? { route: routes[i] } : {}),
  }));
  expect(frameOf(screens)).toBeNull();
});
