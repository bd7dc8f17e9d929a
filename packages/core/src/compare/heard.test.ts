import { heardFindings, type HeardHeading, type HeardPage, type HeardStop } from './heard.ts';

const box = (x: number, y: number) => ({ x, y, width: 80, height: 20 });
const stop = (name: string, x: number, y: number, isSeen = true): HeardStop => ({
  name,
  role: 'button',
  box: box(x, y),
  isSeen,
});
const heading = (level: number, says = `Level ${String(level)}`): HeardHeading => ({
  level,
  says,
  box: box(0, 0),
});
const page = (more: Partial<HeardPage>): HeardPage => ({
  rules: [],
  stops: [],
  isTrapped: false,
  headings: [],
  landmarks: [],
  contrasts: [],
  ...more,
});
const told = (more: Partial<HeardPage>): (readonly [string, ...string[]])[] =>
  heardFindings(page(more)).map(({ id, places }) => [id, ...places.map(({ says }) => says)] as const);

test.each<[string, Partial<HeardPage>, (readonly string[])[]]>([
  [
    'nothing where all is well',
    { stops: [stop('A', 0, 0), stop('B', 0, 40)], headings: [heading(1), heading(2)] },
    [],
  ],
  ['where the keys go around', { stops: [stop('A', 0, 0)], isTrapped: true }, [['focus-trap', 'A']]],
  ['what shows no focus', { stops: [stop('A', 0, 0, false)] }, [['focus-unseen', 'A']]],
  ['what the keys jump back up to', { stops: [stop('A', 0, 200), stop('B', 0, 0)] }, [['focus-order', 'B']]],
  ['nothing of the next column', { stops: [stop('A', 0, 200), stop('B', 300, 0)] }, []],
  [
    'several first headings',
    { headings: [heading(1, 'A'), heading(1, 'B')] },
    [['headings-first', 'A', 'B']],
  ],
  ['a level that is left out', { headings: [heading(1), heading(3, 'Deep')] }, [['headings-skip-3', 'Deep']]],
  ['none where one goes back out', { headings: [heading(1), heading(2), heading(3), heading(2)] }, []],
  [
    'too little contrast under the pointer',
    {
      contrasts: [
        { says: 'Lend', state: 'hover', ratio: 2.1, least: 4.5, box: box(0, 0) },
        { says: 'Keep', state: 'focus', ratio: 7, least: 4.5, box: box(0, 0) },
      ],
    },
    [['contrast-hover', 'Lend']],
  ],
])('it tells %s', (_, more, expected) => {
  expect(told(more)).toEqual(expected);
});

test('the gravest stands first, with what rules say among them', () => {
  const rule = (id: string, impact: 'critical' | 'minor') => ({ id, impact, says: id, places: [] });
  expect(
    told({
      rules: [rule('tabindex', 'minor'), rule('label', 'critical')],
      stops: [stop('A', 0, 0, false)],
    }).map(([id]) => id),
  ).toEqual(['label', 'focus-unseen', 'tabindex']);
});
