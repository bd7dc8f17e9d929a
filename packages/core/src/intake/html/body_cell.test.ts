import type { Declarations } from '../../model/design.ts';
import { bodyReading } from '../../testing/body_reading.ts';
import { assembleScreen } from './assemble.ts';

test.each<[what: string, base: Declarations, height: number, expected: Declarations]>([
  [
    'in the middle of the window',
    { display: 'table-cell', 'vertical-align': 'middle', 'margin-top': '32px', color: 'red' },
    900,
    { display: 'flow-root', 'align-content': 'center', 'min-height': '100vh', color: 'red' },
  ],
  [
    'at its end',
    { display: 'table-cell', 'vertical-align': 'bottom' },
    900,
    { display: 'flow-root', 'align-content': 'end', 'min-height': '100vh' },
  ],
  [
    'of a table that is no higher than what it holds',
    { display: 'table-cell', 'vertical-align': 'middle' },
    200,
    { display: 'flow-root', 'min-height': '100vh' },
  ],
])('a body that is a cell %s is no cell within the app', (_, base, height, expected) => {
  const { screen } = assembleScreen(
    { file: 'a.html', screenKey: 'a', title: 'A', asset: () => null },
    bodyReading({ box: { x: 0, y: 0, width: 1280, height }, base, children: ['Gone'] }, { height: 900 }),
  );
  expect(screen.root.style.base).toEqual(expected);
});
