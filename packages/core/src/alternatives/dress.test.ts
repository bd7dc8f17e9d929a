import fc from 'fast-check';
import { applyChange, invertChange, putToken } from '../change/change.ts';
import { contrastBetween } from '../compare/contrast.ts';
import type { Token } from '../model/app.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { type Aspect, ASPECTS, dressesOf, lookValues } from './dress.ts';
import { hexOfLch, lchOf } from './lch.ts';
import { takeLook, lookChanges } from './take.ts';

const bar = (y: number, fill: string): string =>
  `<rect x="20" y="${y}" width="300" height="40" rx="8" fill="${fill}"/><text x="30" y="${y + 30}" font-size="14" fill="#ffffff">Borrow</text><text x="30" y="${y + 60}" font-size="${y > 200 ? 24 : 14}" fill="#1f2a24">Words</text>`;
const screen = screenOf(
  svg([0, 1, 2, 3, 4, 5, 6, 7].map((i) => bar(20 + i * 90, i > 4 ? '#b3261e' : '#2f6a4a')).join('')),
  'home',
);
const project = projectOf(screen);
const values = lookValues([screen], project.app.tokens);
const wish = { aspects: ASPECTS, count: 6, far: 0.5 };
const valueOf = (kind: Token['kind'], from: string): string =>
  Object.values(values).find((token) => token.kind === kind && token.from.includes(from))!.value;

describe('colours', () => {
  test.each(['#2f6a4a', '#ffffff', '#000000', '#b3261e', '#0000ff', '#12345678'])(
    '%s is itself again',
    (hex) => expect(hexOfLch(lchOf(hex)!)).toBe(hex),
  );

  test('stay as light as they are whatever hue and strength they get, and so do contrasts', () => {
    const channel = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(channel, channel, channel, fc.double({ min: 0, max: 360, noNaN: true }), (r, g, b, h) => {
        const color = lchOf(`rgb(${r}, ${g}, ${b})`)!;
        const turned = lchOf(hexOfLch({ ...color, h, c: color.c * 1.3 }))!;
        expect(Math.abs(turned.l - color.l)).toBeLessThan(1);
      }),
    );
  });
});

test('as many as are asked for, each another one, the nearest first, none of them what is there', () => {
  const found = dressesOf([screen], {}, { ...wish, count: 9 });
  expect(new Set(found.map(({ id }) => id)).size).toBe(9);
  expect(found.map(({ far }) => far)).toEqual(found.map(({ far }) => far).sort((a, b) => a - b));
  expect(found.every(({ far }) => far > 0 && far <= 1)).toBe(true);
  expect(dressesOf([screen], {}, { ...wish, count: 9 })).toEqual(found);
});

test('what is farther off is more otherwise', () => {
  const middle = (far: number): number => {
    const found = dressesOf([screen], {}, { ...wish, far });
    return found[found.length >> 1].far;
  };
  expect(middle(0.2)).toBeLessThan(middle(0.9));
});

test.each<[Aspect, Token['kind'][]]>([
  ['colour', ['color']],
  ['type', ['size']],
  ['space', ['space']],
  ['corners', ['radius']],
])('of %s alone nothing else is touched', (aspect, kinds) => {
  for (const { tokens } of dressesOf([screen], {}, { aspects: [aspect], count: 4, far: 1 })) {
    const changed = Object.entries(tokens).filter(([name, { value }]) => value !== values[name].value);
    expect(changed.every(([, { kind }]) => kinds.includes(kind))).toBe(true);
  }
});

test('a colour that is given is the main one; what means something by another hue stays', () => {
  const [dress] = dressesOf([screen], {}, { aspects: ['colour'], count: 1, far: 0.1, color: '#2b4c9b' });
  const other = lookChanges(dress.tokens, values);
  const name = (from: string): string =>
    Object.entries(values).find(([, token]) => token.from.includes(from))![0];
  expect(Math.abs(lchOf(other[name('#2f6a4a')])!.h - lchOf('#2b4c9b')!.h)).toBeLessThan(8);
  expect(other[name('#b3261e')]).toBeUndefined();
  expect(valueOf('color', '#b3261e')).toBe('#b3261e');
});

test('text keeps its contrast in every dress', () => {
  for (const { tokens } of dressesOf([screen], {}, { aspects: ['colour'], count: 12, far: 1 })) {
    const is = (from: string): string =>
      Object.values(tokens).find((token) => token.from.includes(from))!.value;
    expect(
      contrastBetween(is('#ffffff'), is('#2f6a4a'))! - contrastBetween('#ffffff', '#2f6a4a')!,
    ).toBeGreaterThan(-0.4);
  }
});

test('running text keeps its size, and nothing becomes smaller than can be read', () => {
  for (const { tokens } of dressesOf([screen], {}, { aspects: ['type'], count: 6, far: 1 })) {
    const sizes = Object.values(tokens).filter(({ kind }) => kind === 'size');
    expect(sizes.find(({ from }) => from.includes('14px'))!.value).toBe('14px');
    expect(sizes.every(({ value }) => parseFloat(value) >= 11)).toBe(true);
  }
});

test('a look is taken in one step, with names for what it changes, and undone to the same', () => {
  const [dress] = dressesOf([screen], {}, { ...wish, count: 1 });
  const change = takeLook(project.app, dress.tokens, values);
  const app = applyChange(project.app, change);
  for (const token of Object.values(app.tokens)) expect(token.from.length).toBeGreaterThan(0);
  expect(lookChanges(dress.tokens, lookValues([screen], app.tokens))).toEqual({});
  expect(applyChange(app, invertChange(project.app, change))).toEqual(project.app);
});

test('a look that was put aside fits after values have been named otherwise', () => {
  const [dress] = dressesOf([screen], {}, { ...wish, count: 1 });
  const [name, token] = Object.entries(values).find(([one]) => lookChanges(dress.tokens, values)[one])!;
  const app = applyChange(project.app, putToken('mine', token));
  expect(lookChanges(dress.tokens, lookValues([screen], app.tokens)).mine).toBe(
    lookChanges(dress.tokens, values)[name],
  );
});
