import { screenOf, svg } from '../testing/build.ts';
import type { Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import {
  arrangementOf,
  flowDeclarations,
  pinDeclarations,
  scrollDeclarations,
  sizingDeclarations,
} from './arrangement.ts';
import { breakpointsOf } from './breakpoints.ts';

describe('what is said is what is read again', () => {
  test.each(['stack', 'row', 'grid', 'free'] as const)('flow: %s', (flow) => {
    const { display, ...rest } = flowDeclarations(flow);
    expect(arrangementOf(flow === 'free' ? rest : { display, ...rest }, null).flow).toBe(flow);
  });
  test.each(['none', 'sticky-top', 'sticky-bottom', 'fixed-top', 'fixed-bottom'] as const)(
    'pinned: %s',
    (pinned) => {
      const css = Object.fromEntries(
        Object.entries(pinDeclarations(pinned)).filter(([, value]) => value !== 'auto'),
      );
      expect(arrangementOf(css, null).pinned).toBe(pinned);
    },
  );
  test.each(['none', 'vertical', 'horizontal'] as const)('scrolls: %s', (scrolls) => {
    expect(arrangementOf(scrollDeclarations(scrolls), null).scrolls).toBe(scrolls);
  });
  const parents = [
    ['in a row', { display: 'flex' }, true],
    ['in a stack', { display: 'flex', 'flex-direction': 'column' }, false],
  ] as const;
  for (const [where, parent, isRow] of parents)
    test.each(['fixed', 'stretch', 'fit'] as const)(`width ${where}: %s`, (sizing) => {
      expect(arrangementOf(sizingDeclarations('width', sizing, 120, isRow), parent).width).toBe(sizing);
    });
});

describe('drawings follow the window', () => {
  const base = (screen: Screen, key: string) => elementsByKey(screen).get(key)!.style.base;

  test('cells whose middles are evenly spaced share the width of the bar', () => {
    const tab = (x: number, name: string): string =>
      `<g id="${name}"><rect x="${x - 12}" y="780" width="24" height="24" rx="3" fill="#345"/><text x="${x}" y="826" font-size="12" text-anchor="middle">${name}</text></g>`;
    const screen = screenOf(
      svg(
        `<text x="24" y="60" font-size="20">Head</text><g id="Bar"><rect y="770" width="390" height="74" fill="#eee"/><rect y="770" width="390" height="1" fill="#ccc"/>${tab(65, 'One')}${tab(195, 'Two')}${tab(325, 'Three')}</g>`,
      ),
    );
    const cells = [...elementsByKey(screen).values()].filter(
      (element) => ['One', 'Two', 'Three'].includes(element.name) && element.kind === 'box',
    );
    expect(cells).toHaveLength(3);
    for (const cell of cells) expect(cell.style.base).toMatchObject({ flex: '1 1 0', 'min-width': '0px' });
  });

  test('a picture as wide as the screen stays as wide as the window', () => {
    const screen = screenOf(
      svg(
        '<image x="0" y="0" width="390" height="200" xlink:href="known.png"/><text x="24" y="260" font-size="16">Under it</text>',
      ),
    );
    expect(base(screen, 'test:0')).toMatchObject({ width: '100%', height: '200px' });
  });

  test('a drawing that takes most of the width gives way to a narrower window', () => {
    const screen = screenOf(
      svg(
        '<path d="M24 40 C100 0 200 120 360 40" fill="none" stroke="#222"/><text x="24" y="260" font-size="16">Under it</text>',
      ),
    );
    expect(base(screen, 'test:0')).toMatchObject({ width: '100%' });
    expect(base(screen, 'test:0').height).toBeUndefined();
    expect(base(screen, 'test:0')['aspect-ratio']).toMatch(/ \/ /);
  });

  test('text that ends at the right edge holds on to it', () => {
    const screen = screenOf(
      svg(
        '<text x="24" y="60" font-size="20">Sign in</text><g id="Link"><text x="366" y="120" font-size="14" text-anchor="end">Forgotten?</text></g><rect x="24" y="160" width="342" height="50" fill="#234"/>',
      ),
    );
    const text = [...elementsByKey(screen).values()].find((element) => element.text === 'Forgotten?')!;
    expect(text.style.base['text-align']).toBe('right');
  });
});

test('breakpoints are those of all elements, the narrowest first', () => {
  const screen = screenOf(svg('<rect width="100" height="40" fill="#eee"/>'));
  const [child] = screen.root.children;
  const made: Screen = {
    ...screen,
    root: {
      ...screen.root,
      style: { ...screen.root.style, at: { '900': {} } },
      children: [{ ...child, style: { ...child.style, at: { '600': {}, '900': {} }, from: { '1200': {} } } }],
    },
  };
  expect(breakpointsOf(made)).toEqual([
    { kind: 'upTo', width: 600, elements: 1 },
    { kind: 'upTo', width: 900, elements: 2 },
    { kind: 'from', width: 1200, elements: 1 },
  ]);
  expect(breakpointsOf(screen)).toEqual([]);
});
