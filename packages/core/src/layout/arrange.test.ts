import { named, screenOf, svg } from '../testing/build.ts';
import { cut, findArrangement } from './cut.ts';
import type { Placed } from './placed.ts';

const placed = (name: string, x: number, y: number, width: number, height: number): Placed => ({
  key: name,
  kind: 'box',
  name,
  box: { x, y, width, height },
  look: { color: 'red' },
  border: 0,
  children: [],
  source: { file: 'a.svg', path: name },
});
const names = (bands: readonly (readonly Placed[])[]): string =>
  bands.map((band) => band.map((item) => item.name).join('')).join(' ');

describe('cutting', () => {
  const a = placed('a', 0, 0, 50, 20);
  const b = placed('b', 60, 5, 40, 20);
  const c = placed('c', 0, 40, 100, 20);

  test.each([
    ['y', [a, b, c], 'ab c'],
    ['x', [a, b, c], 'abc'],
    ['x', [a, b], 'a b'],
    ['y', [c, b, a], 'ba c'],
  ] as const)('along %s', (axis, items, expected) => expect(names(cut(items, axis))).toBe(expected));

  test('one that lies over others floats above them', () => {
    const badge = placed('!', 40, 10, 30, 40);
    const found = findArrangement([a, b, c, badge]);
    expect(found.axis).toBe('y');
    expect(names(found.bands)).toBe('ab c');
    expect(found.floating.map((item) => item.name)).toEqual(['!']);
  });

  test('what overlaps throughout stands freely', () => {
    expect(findArrangement([placed('a', 0, 0, 50, 50), placed('b', 25, 25, 50, 50)]).axis).toBeNull();
  });
});

const rect = (id: string, x: number, y: number, width: number, height: number, more = ''): string =>
  `<rect id="${id}" x="${x}" y="${y}" width="${width}" height="${height}" fill="#ccc" ${more}/>`;
const layout = (body: string, name: string): Record<string, string> =>
  named(screenOf(svg(body)), name).style.base;

describe('layout', () => {
  test('things beneath each other are a stack with padding and one gap', () => {
    const body = rect('A', 24, 30, 342, 50) + rect('B', 24, 90, 342, 50) + rect('C', 24, 150, 342, 694);
    expect(layout(body, 'Test')).toMatchObject({
      display: 'flex',
      'flex-direction': 'column',
      'padding-top': '30px',
      'padding-left': '24px',
      'padding-right': '24px',
      'row-gap': '10px',
    });
    expect(layout(body, 'B')).not.toHaveProperty('width');
  });

  test('uneven gaps are margins', () => {
    const body = rect('A', 24, 30, 342, 50) + rect('B', 24, 90, 342, 50) + rect('C', 24, 170, 342, 50);
    expect(layout(body, 'B')['margin-top']).toBe('10px');
    expect(layout(body, 'C')['margin-top']).toBe('30px');
  });

  test('a small thing keeps its width and its side', () => {
    const wide = rect('Wide', 0, 0, 390, 20);
    expect(layout(wide + rect('Left', 24, 40, 60, 20), 'Left')).toMatchObject({
      width: '60px',
      'align-self': 'flex-start',
      'margin-left': '24px',
    });
    expect(layout(wide + rect('Mid', 165, 40, 60, 20), 'Mid')).toMatchObject({
      width: '60px',
      'align-self': 'center',
    });
    expect(layout(wide + rect('Right', 306, 40, 60, 20), 'Right')).toMatchObject({
      width: '60px',
      'align-self': 'flex-end',
      'margin-right': '24px',
    });
  });

  test('what is wide gives way to a narrower window, and fills what is between equal margins', () => {
    const field = `<g id="Field"><text x="24" y="60" font-size="14">Name</text>${rect('Box', 24, 70, 342, 44)}</g>`;
    const body = `${rect('Top', 12, 0, 366, 20)}${field}<text y="400" x="40">x</text>`;
    expect(layout(body, 'Field')).toMatchObject({ 'margin-left': '12px', 'margin-right': '12px' });
    expect(layout(body, 'Box')).not.toHaveProperty('width');
    const panel = rect('Panel', 24, 40, 260, 44) + rect('Wide', 0, 100, 390, 20);
    expect(layout(panel, 'Panel')).toMatchObject({ width: '260px', 'max-width': 'calc(100% - 24px)' });
  });

  test('several that keep their size stand in more lines where they must, if here they surely stand in one', () => {
    const chips = [0, 1, 2].map((i) => rect(`Chip${i}`, 24 + i * 70, 100, 60, 30)).join('');
    const body = `${rect('Top', 0, 0, 390, 20)}<g id="Chips"><rect id="Back" x="0" y="90" width="390" height="50" fill="#fff"/>${chips}</g>`;
    expect(layout(body, 'Chips')).toMatchObject({ 'flex-wrap': 'wrap', 'row-gap': '10px' });
  });

  test('a row has its middle line, and its text takes the room that is left', () => {
    const row = `<g id="Row"><rect id="Back" x="0" y="100" width="390" height="60" fill="#fff"/>${rect('Thumb', 16, 110, 40, 40)}<text id="Label" x="72" y="135" font-size="15">Name</text>${rect('Dot', 364, 125, 10, 10)}</g><text y="400">x</text>`;
    expect(layout(row, 'Row')).toMatchObject({
      display: 'flex',
      'align-items': 'center',
      'padding-left': '16px',
      'padding-right': '16px',
    });
    expect(layout(row, 'Label')).toMatchObject({ flex: '1 1 0', 'margin-left': '16px' });
    expect(layout(row, 'Dot')).toMatchObject({ width: '10px', 'flex-shrink': '0' });
  });

  test('a bar of equal parts shares its width', () => {
    const tab = (i: number): string =>
      `<g data-name="Tab ${i}"><circle cx="${65 + 130 * i}" cy="800" r="8"/><text x="${65 + 130 * i}" y="830" font-size="11" text-anchor="middle">T${i}</text></g>`;
    const body = `${rect('Top', 0, 0, 390, 60)}<g id="Bar"><rect y="780" width="390" height="64" fill="#fff"/>${tab(0)}${tab(1)}${tab(2)}</g>`;
    expect(layout(body, 'Bar')).toMatchObject({ 'margin-top': 'auto', position: 'sticky', bottom: '0px' });
    expect(layout(body, 'Tab 1')).toMatchObject({ flex: '1 1 0', 'min-width': '0px' });
  });

  test('what overlaps is placed within its container', () => {
    const body = `<g id="Photo">${rect('Back', 20, 20, 200, 100)}${rect('One', 30, 30, 60, 60)}${rect('Two', 60, 60, 60, 50)}</g><text y="400">x</text>`;
    expect(layout(body, 'Photo')).toMatchObject({ position: 'relative', 'min-height': '100px' });
    expect(layout(body, 'Two')).toMatchObject({
      position: 'absolute',
      top: '40px',
      left: '40px',
      width: '60px',
      height: '50px',
    });
  });
});
