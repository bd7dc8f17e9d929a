import fc from 'fast-check';
import { applyChange, parseChange, putAdded, putEdit } from '../change/change.ts';
import { elementsByKey } from '../model/project.ts';
import { projectOf, screenOf, screenWith, svg, withApp } from '../testing/build.ts';
import { type Edit, type EditCondition, editKey, editProblem, parseEditKey } from '../model/edit_key.ts';
import { conditionInWords, editsByElement, withEdits } from './edit.ts';
import { settle } from './settle.ts';

const conditions: fc.Arbitrary<EditCondition> = fc.oneof(
  fc.constant<EditCondition>({ kind: 'always' }),
  fc.record({
    kind: fc.constantFrom('upTo' as const, 'from' as const),
    width: fc.integer({ min: 100, max: 3000 }),
  }),
  fc.record({
    kind: fc.constant('state' as const),
    state: fc.constantFrom('hover' as const, 'focus' as const, 'disabled' as const),
  }),
);

test('the key of an edit says what it was made of', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('home:', 'home:0/1~2', 'a-b:+1'),
      fc.constantFrom('color', 'text', 'padding-top', 'position'),
      conditions,
      (element, property, condition) => {
        expect(parseEditKey(editKey(element, property, condition))).toEqual({ element, property, condition });
        expect(conditionInWords(condition)).toMatch(/\w/);
      },
    ),
  );
});

const refused: readonly [what: string, key: string, value: string | null, problem: RegExp][] = [
  ['no parts', 'home:0', 'red', /names no edit/],
  ['an unknown condition', 'home:0|print|color', 'red', /names no edit/],
  ['a property that fetches', 'home:0||background-image', 'none', /cannot be edited/],
  ['a behaviour of old browsers', 'home:0||behavior', 'x', /cannot be edited/],
  ['an address', 'home:0||color', 'url(https://example.org)', /plain style value/],
  ['a way out of the declaration', 'home:0||color', 'red;} body{display:none', /plain style value/],
  ['the end of the style sheet', 'home:0||color', '</style>', /plain style value/],
  ['a text at one width', 'home:0|<=600|text', 'Go', /same at all widths/],
];
test.each(refused)('%s is refused', (_, key, value, problem) => {
  expect(editProblem(key, value)).toMatch(problem);
  expect(() => parseChange({ kind: 'put', table: 'edits', key, value })).toThrow(problem);
});

test('what may be edited passes, text with any characters', () => {
  for (const [key, value] of [
    ['home:0||color', '#123456'],
    ['home:0|<=600|padding-top', 'calc(1px + env(safe-area-inset-bottom))'],
    ['home:0|hover|box-shadow', '0px 1px 2px rgba(0, 0, 0, 0.2)'],
    ['home:0||text', 'Go <on> {now}; url(x)'],
  ])
    expect(editProblem(key, value)).toBeNull();
});

const screen = screenWith('home', 'Go', 'Back', 'Stop');
const byEdits = (...edits: Edit[]) =>
  withEdits(
    screen.root,
    editsByElement(
      Object.fromEntries(edits.map((e) => [editKey(e.element, e.property, e.condition), e.value])),
    ),
  );
const always: EditCondition = { kind: 'always' };

const placed: readonly [
  what: string,
  condition: EditCondition,
  at: (style: import('../model/design.ts').ElementStyle) => unknown,
][] = [
  ['always', always, (style) => style.base.color],
  ['up to a width', { kind: 'upTo', width: 600 }, (style) => style.at?.['600'].color],
  ['from a width', { kind: 'from', width: 900 }, (style) => style.from?.['900'].color],
  ['hovered', { kind: 'state', state: 'hover' }, (style) => style.hover?.color],
  ['disabled', { kind: 'state', state: 'disabled' }, (style) => style.disabled?.color],
];
test.each(placed)('an edit holds %s', (_, condition, at) => {
  const root = byEdits({ element: 'home:1', property: 'color', condition, value: '#f00' });
  expect(at(root.children[1].style)).toBe('#f00');
  expect(root.children[0]).toBe(screen.root.children[0]);
});

test('a text is that of the first text in the element', () => {
  const root = byEdits({ element: 'home:0', property: 'text', condition: always, value: 'On' });
  expect(root.children[0].children.map((child) => child.text)).toEqual(['On']);
});

test('a place among siblings moves the element, and the others keep their order', () => {
  const order = (value: string): string[] =>
    byEdits({ element: 'home:0', property: 'position', condition: always, value }).children.map(
      (child) => child.key,
    );
  expect(order('0')).toEqual(['home:0', 'home:1', 'home:2']);
  expect(order('1')).toEqual(['home:1', 'home:0', 'home:2']);
  expect(order('9')).toEqual(['home:1', 'home:2', 'home:0']);
});

test('without edits an element is returned itself', () => {
  expect(withEdits(screen.root, new Map())).toBe(screen.root);
});

describe('in a project', () => {
  const project = projectOf(screen);

  test('the design is never changed; taking the edit back shows what was drawn', () => {
    const edited = applyChange(project.app, putEdit(editKey('home:0', 'color'), '#f00'));
    const settled = settle({ ...project, app: edited });
    expect(elementsByKey(settled.design.screens[0]).get('home:0')!.style.base.color).toBe('#f00');
    expect(project.design.screens[0]).toBe(screen);
    const back = applyChange(edited, putEdit(editKey('home:0', 'color'), null));
    expect(settle({ ...project, app: back }).design.screens[0]).toBe(screen);
  });

  test('an edit holds when the same screen comes in again', () => {
    const app = applyChange(project.app, putEdit(editKey('home:0', 'color'), '#f00'));
    const again = screenWith('home', 'Go on', 'Back', 'Stop');
    const settled = settle({ design: { ...project.design, screens: [again] }, app });
    expect(settled.design.screens[0].root.children[0].style.base.color).toBe('#f00');
  });

  test('what is added stands where it was put, in the style of the design’s own controls', () => {
    const app = applyChange(
      project.app,
      putAdded('home:+1', { kind: 'button', text: 'More', within: 'home:', after: 'home:1' }),
    );
    const { root } = settle({ ...project, app }).design.screens[0];
    expect(root.children.map((child) => child.key)).toEqual(['home:0', 'home:1', 'home:+1', 'home:2']);
    expect(root.children[2]).toMatchObject({ tag: 'button', text: 'More' });
    expect(root.children[2].style.base['background-color']).toBe(
      screen.root.children[0].style.base['background-color'],
    );
  });

  test.each(['button', 'field', 'select', 'list', 'table', 'divider', 'message'] as const)(
    'a %s can be added, with keys of its own',
    (kind) => {
      const app = applyChange(project.app, putAdded('home:+1', { kind, text: 'A\nB | C', within: 'gone' }));
      const made = settle({ ...project, app }).design.screens[0];
      const keys = [...elementsByKey(made).keys()].filter((key) => key.startsWith('home:+1'));
      expect(keys[0]).toBe('home:+1');
      expect(made.root.children.at(-1)!.key).toBe('home:+1');
    },
  );
});

test('an edit of an element that is gone changes nothing and stays in the document', () => {
  const project = withApp(projectOf(screenOf(svg('<rect width="10" height="10"/>'), 'home')), {
    edits: { 'home:7/7||color': '#f00' },
  });
  expect(settle(project).design.screens[0].root).toEqual(project.design.screens[0].root);
});
