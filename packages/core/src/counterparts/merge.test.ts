import { applyChange, putScreen, putUse } from '../change/change.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import { printHtml } from '../emit/html/print_html.ts';
import { graphOf } from '../graph/graph.ts';
import { settle } from '../layers/settle.ts';
import type { Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import { projectOf, screenOf } from '../testing/build.ts';
import { defaultTurn, mergeCounterparts } from './merge.ts';
import { matchElements } from './match.ts';

const drawing = (width: number, body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="800" viewBox="0 0 ${width} 800">${body}</svg>`;
const card = (x: number, y: number, name: string): string =>
  `<g data-name="Card"><rect x="${x}" y="${y}" width="320" height="60" rx="6" fill="#eee"/><text x="${x + 20}" y="${y + 36}" font-size="16">${name}</text></g>`;
const button = (x: number, y: number, name = 'Pay'): string =>
  `<g id="Pay_button" data-name="Pay button"><rect x="${x}" y="${y}" width="320" height="50" rx="8" fill="#234"/><text x="${x + 160}" y="${y + 31}" text-anchor="middle" font-size="16" fill="#fff">${name}</text></g>`;

const narrow = screenOf(
  drawing(
    390,
    `<text x="24" y="60" font-size="24">Basket</text>${card(24, 100, 'Saw')}${card(24, 180, 'Drill')}${button(24, 300)}`,
  ),
  'narrow',
);
const wide = screenOf(
  drawing(
    1280,
    `<text x="80" y="90" font-size="40">Basket</text>${card(80, 140, 'Saw')}${card(80, 220, 'Drill')}${button(700, 180)}<text x="700" y="262" font-size="14">Free of charge for members</text>`,
  ),
  'wide',
);

const names = (screen: Screen): string[] =>
  [...elementsByKey(screen).values()].filter((element) => element.text).map((element) => element.text!);

test('what says the same is the same, and so is what holds it', () => {
  const pairs = matchElements(wide.root, narrow.root);
  const text = (screen: Screen, key: string): string | undefined => elementsByKey(screen).get(key)?.text;
  for (const [b, a] of pairs) if (text(narrow, b)) expect(text(wide, a)).toBe(text(narrow, b));
  expect([...pairs.keys()]).toEqual(expect.arrayContaining(['narrow:', 'narrow:1', 'narrow:3']));
});

test.each([
  ['the wide one', wide, narrow],
  ['the narrow one', narrow, wide],
])('with %s as the main drawing, each text is there once', (_, main, other) => {
  const merged = mergeCounterparts(main, [{ screen: other, turn: defaultTurn(main.width, other.width) }]);
  expect(names(merged).sort()).toEqual(['Basket', 'Drill', 'Free of charge for members', 'Pay', 'Saw']);
  expect(merged.root.key).toBe(main.root.key);
  expect(merged.aliases).toBeUndefined();
});

test('what only one drawing has shows only there', () => {
  const merged = mergeCounterparts(wide, [{ screen: narrow, turn: 700 }]);
  const more = [...elementsByKey(merged).values()].find((element) => element.text?.startsWith('Free'))!;
  expect(more.style.at?.['699']).toEqual({ display: 'none' });
  const other = mergeCounterparts(narrow, [{ screen: wide, turn: 700 }]);
  const extra = [...elementsByKey(other).values()].find((element) => element.text?.startsWith('Free'))!;
  expect(extra.style.base.display).toBe('none');
  expect(extra.style.from?.['700'].display).toBe('block');
});

test('what says something else in one drawing is there for each', () => {
  const other = screenOf(
    drawing(390, `<text x="24" y="60" font-size="24">Basket</text>${button(24, 300, 'Pay now')}`),
    'other',
  );
  const merged = mergeCounterparts(wide, [{ screen: other, turn: 700 }]);
  expect(names(merged)).toEqual(expect.arrayContaining(['Pay', 'Pay now']));
});

test('a screen merged with a drawing of the same width is itself', () => {
  expect(mergeCounterparts(wide, [{ screen: { ...wide, key: 'copy' }, turn: 700 }]).root).toBe(wide.root);
});

test('rules of the main drawing for the far side give way, those of the other one hold', () => {
  const styled = (screen: Screen, at: Record<string, Record<string, string>>): Screen => ({
    ...screen,
    root: { ...screen.root, style: { ...screen.root.style, at } },
  });
  const merged = mergeCounterparts(styled(wide, { '900': { color: 'red' }, '500': { color: 'lime' } }), [
    { screen: styled(narrow, { '360': { color: 'blue' } }), turn: 700 },
  ]);
  expect(Object.keys(merged.root.style.at!).sort()).toEqual(['360', '699', '900']);
});

describe('in a project', () => {
  const project = projectOf(wide, narrow);
  const app = applyChange(project.app, putUse(project.app, 'narrow', 'counterpart', 'wide'));

  test('two drawings are one screen, whose elements count once', () => {
    const graph = graphOf({ ...project, app });
    expect(graph.screens).toEqual(['wide']);
    expect(graph.counts.elements).toBeLessThan(graphOf(project).counts.elements);
  });

  test('the width at which they meet can be said', () => {
    const at = (turn?: number): string => {
      const entry = app.screens.narrow;
      const said = turn ? applyChange(app, putScreen('narrow', { ...entry, turn })) : app;
      return printHtml(emitScreenOf(new EmissionPlan({ ...project, app: said }), 'wide'), () => '');
    };
    expect(at()).toContain(`(width <= ${defaultTurn(390, 1280) - 1}px)`);
    expect(at(900)).toContain('(width <= 899px)');
  });

  test('a screen that nothing is merged into stays the same value', () => {
    const alone = applyChange(app, putUse(app, 'narrow', 'skip'));
    expect(settle({ ...project, app: alone }).design.screens[0]).toBe(wide);
  });
});

test.each([
  [390, 1280, 704],
  [1280, 390, 704],
  [768, 1280, 992],
])('drawings of %i and %i px meet at %i', (a, b, turn) => expect(defaultTurn(a, b)).toBe(turn));
