import { readFileSync } from 'node:fs';
import { outlineOf } from './outline.ts';

const font = new Uint8Array(readFileSync(require.resolve('material-icons/iconfont/material-icons.woff2')));

test('a name that the font joins to an icon is one drawing, upside up', () => {
  const icon = outlineOf(font, 'home')!;
  expect(icon.path).toMatch(/^M[\d .-]+L/);
  expect(icon.advance).toBe(icon.unitsPerEm);
  const ys = [...icon.path.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(([, , y]) => Number(y));
  expect(Math.min(...ys)).toBeGreaterThanOrEqual(-icon.ascent);
  expect(Math.max(...ys)).toBeLessThanOrEqual(-icon.descent);
});

test.each([
  ['a name that is not in the font', font, 'no_such_icon_here'],
  ['several icons', font, 'home home'],
  ['nothing', font, ' '],
  ['a file that is no font', new Uint8Array([1, 2, 3, 4]), 'home'],
  ['half a font', font.slice(0, 4000), 'home'],
])('%s has no drawing', (_, bytes, text) => expect(outlineOf(bytes, text)).toBeNull());
