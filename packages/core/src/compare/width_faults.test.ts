import { rendered, renderingOf } from '../testing/rendered.ts';
import type { RenderedElement, Rendering } from './rendering.ts';
import {
  contrastOf,
  SWEPT_WIDTHS,
  sweptFaults,
  type WidthFault,
  widthFaults,
  widthsInWords,
} from './width_faults.ts';

const at = (width: number, ...children: RenderedElement[]): Rendering => ({
  ...renderingOf(...children),
  width,
  pageWidth: Math.max(width, ...children.map(({ box }) => box.x + box.width)),
});
const said = (rendering: Rendering): string[] =>
  widthFaults(rendering).map(({ kind, name, says }) => `${kind}: ${name} ${says}`);

test.each<[string, Rendering, string[]]>([
  ['nothing', at(390, rendered('p', { text: 'Saw' })), []],
  [
    'what sticks out',
    at(390, rendered('table', { id: 'loans', box: [0, 0, 520, 80] })),
    ['overflow: table loans sticks out by 130 px'],
  ],
  [
    'small letters',
    at(390, rendered('p', { text: 'Terms', look: { 'font-size': '9px' } })),
    ['text: Terms text of 9 px'],
  ],
  [
    'small targets',
    at(390, rendered('button', { label: 'Close', box: [0, 0, 18, 18] })),
    ['target: Close only 18 × 18 px to press'],
  ],
  [
    'text that is cut off',
    at(390, rendered('p', { text: 'A long name', cut: { x: 40, y: 0 } })),
    ['cut: A long name text is cut off by 40 px'],
  ],
  [
    'little contrast',
    at(390, rendered('p', { text: 'Hint', look: { color: 'rgb(170, 170, 170)' } })),
    ['contrast: Hint contrast 2.3, needs 4.5'],
  ],
  [
    'texts over each other',
    at(
      390,
      rendered('p', { text: 'Saw', box: [0, 0, 100, 20] }),
      rendered('p', { text: 'Drill', box: [50, 6, 100, 20] }),
    ),
    ['overlap: Saw overlaps “Drill” by 50 × 14 px'],
  ],
])('%s', (_, rendering, expected) => expect(said(rendering)).toEqual(expected));

test('what scrolls by itself does not stick out, and links in a sentence are no small targets', () => {
  const wide = rendered('table', { box: [0, 0, 520, 80] });
  const scroller = rendered('div', { box: [0, 0, 390, 80], look: { 'overflow-x': 'auto' } }, wide);
  const sentence = rendered(
    'p',
    { text: 'Read the', box: [0, 100, 200, 18] },
    rendered('a', { text: 'rules', box: [60, 100, 40, 18] }),
  );
  expect(said({ ...at(390, scroller, sentence), pageWidth: 390 })).toEqual([]);
});

test.each([
  ['rgb(0, 0, 0)', 'rgb(255, 255, 255)', 21],
  ['rgb(118, 118, 118)', 'rgb(255, 255, 255)', 4.54],
  ['rgba(0, 0, 0, 0.5)', 'rgb(255, 255, 255)', 3.98],
])('%s on %s has a contrast of %d', (color, behind, expected) =>
  expect(contrastOf(rendered('p', { text: 'x', behind, look: { color } }))).toBeCloseTo(expected, 1),
);

test('a sweep tells each fault once, with its widths, what breaks a layout first', () => {
  const fault = (id: string, kind: WidthFault['kind']): WidthFault => ({
    id,
    kind,
    name: id,
    says: '',
    box: { x: 0, y: 0, width: 1, height: 1 },
  });
  const faults = sweptFaults(
    new Map([
      [400, [fault('a', 'contrast'), fault('b', 'overflow')]],
      [320, [fault('a', 'contrast'), fault('b', 'overflow')]],
      [480, [fault('a', 'contrast')]],
    ]),
  );
  expect(faults.map(({ id, widths }) => [id, widths])).toEqual([
    ['b', [320, 400]],
    ['a', [320, 400, 480]],
  ]);
});

test.each([
  [[320, 400, 480], '320 to 480'],
  [[320, 480, 560, 1600], '320, 480 to 560, 1600'],
  [[], ''],
])('%j is said as “%s”', (widths, expected) => expect(widthsInWords(widths, SWEPT_WIDTHS)).toBe(expected));
