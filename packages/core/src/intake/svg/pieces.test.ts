import { readFileSync } from 'node:fs';
import path from 'node:path';
import { named, screenOf, svg } from '../../testing/build.ts';
import { walkElements } from '../../model/project.ts';
import type { Screen } from '../../model/design.ts';

const fixture = (name: string): Screen =>
  screenOf(readFileSync(path.resolve(__dirname, '../../../../../e2e/fixtures/drawings', name), 'utf8'));
const textsOf = (screen: Screen): string[] => {
  const texts: string[] = [];
  walkElements(screen.root, (element) => void (element.text && texts.push(element.text)));
  return texts;
};

test('letters are joined to words, lines and paragraphs', () => {
  expect(textsOf(fixture('letters.svg'))).toEqual([
    'By letter',
    'Hedge trimmer that somebody\nbrings back',
    'Shed two',
  ]);
});

test('texts that only stand near each other stay apart', () => {
  const screen = screenOf(
    svg(
      '<text x="24" y="60" font-size="14">Shed 2</text><text x="70" y="60" font-size="14">free today</text>',
    ),
  );
  expect(textsOf(screen)).toEqual(['Shed 2', 'free today']);
});

test.each([
  ['known lengths', 'textLength="40"', 'One two'],
  ['lengths far apart', 'textLength="10"', 'One|two'],
])('pieces with %s', (_, length, expected) => {
  const pieces = `<text x="24" y="60" font-size="14" ${length}>One</text><text x="68" y="60" font-size="14" ${length}>two</text>`;
  expect(textsOf(screenOf(svg(pieces))).join('|')).toBe(expected);
});

test('a piece of a page gives its text, in its style, and nothing that runs', () => {
  const screen = fixture('foreign.svg');
  const [text] = textsOf(screen);
  expect(text).toBe('From a page\nin a drawing');
  expect(named(screen, 'From a page in a drawing').style.base).toMatchObject({
    color: '#2f4a3a',
    'font-size': '18px',
    'line-height': '24px',
    'font-weight': '700',
  });
});

test('a round cut-out cuts, a photograph in a pattern is an image, and what CSS cannot draw stays a drawing', () => {
  const screen = fixture('effects.svg');
  expect(named(screen, 'Avatar').style.base).toMatchObject({
    'overflow-x': 'hidden',
    'border-top-left-radius': '60px',
  });
  expect(named(screen, 'Rough').vector!.children[0].children.map((child) => child.tag)).toEqual(['filter']);
  expect(named(screen, 'Dots').kind).toBe('vector');
  expect(JSON.stringify(named(screen, 'Dots').vector)).toContain('"pattern"');
});

test('nested drawings, symbols and rules of a parent reach what they should', () => {
  const screen = fixture('nested.svg');
  expect(named(screen, 'Nested').style.base).toMatchObject({
    'font-weight': '700',
    color: '#b9552d',
    'font-size': '30px',
  });
  expect(named(screen, 'Nested').box.x).toBe(60);
  expect(named(screen, 'Tick').box).toMatchObject({ x: 42, width: 28 });
});

test('what was parked beside the screen does not move what is on it', () => {
  const inside =
    '<rect id="Card" x="20" y="20" width="350" height="100" fill="#ccc"/><text x="20" y="200">Below</text>';
  const alone = screenOf(svg(inside));
  const parked = screenOf(
    svg(`${inside}<rect id="Parked" x="500" y="60" width="80" height="80" fill="#fd8"/>`),
  );
  expect(named(parked, 'Card').style).toEqual(named(alone, 'Card').style);
  expect(named(parked, 'Parked').style.base.position).toBe('absolute');
  expect(parked.root.style.base['overflow-x']).toBe('clip');
});

test('a hidden layer comes along hidden and leaves the layout as it would be without', () => {
  const inside =
    '<rect id="Card" x="20" y="20" width="350" height="100" fill="#ccc"/><text x="20" y="200">Below</text>';
  const screen = screenOf(
    svg(`<g id="Redlines" display="none"><rect x="5" y="5" width="9" height="300"/></g>${inside}`),
  );
  expect(named(screen, 'Card').style).toEqual(named(screenOf(svg(inside)), 'Card').style);
  let hidden = 0;
  walkElements(screen.root, (element) => void (element.hidden && hidden++));
  expect(hidden).toBe(1);
});
