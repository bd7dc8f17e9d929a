import fc from 'fast-check';
import { type CodeBefore, NOTHING_BEFORE } from '../before.ts';
import type { StyleRule } from '../markup.ts';
import { keptFile, styleOf } from './as_before.ts';
import type { ClassUse } from './places.ts';
import { type FileRules, shareStyles, type SharedStyles } from './share.ts';

type Look = Record<string, string>;
const rule = (className: string, base: Look, more: Partial<StyleRule> = {}): StyleRule => ({
  className,
  key: className,
  base,
  at: {},
  from: {},
  states: {},
  ...more,
});
const usesOf = (made: SharedStyles, file: string, name: string): string[] =>
  made.files
    .get(file)!
    .classes.get(name)!
    .map(({ from, name: written }: ClassUse) => `${from} ${written}`);

const badge = {
  display: 'inline-block',
  'font-size': '12px',
  'font-weight': '600',
  'line-height': '1',
  'text-align': 'center',
};
const [blue, green] = [
  { color: '#00c', 'background-color': '#ccf' },
  { color: '#060', 'background-color': '#cfc' },
];

test('how looks differ from the usual one is said once where elements of other files differ so too', () => {
  const inFile = (id: string, size: string): FileRules => ({
    id,
    rules: [
      rule('badge', { ...badge, ...blue, 'padding-top': size }),
      rule('badge2', { ...badge, ...green, 'padding-top': size }, { over: 'badge', ownName: 'badgeGreen' }),
    ],
  });
  const made = shareStyles([inFile('a', '2px'), inFile('b', '3px')]);
  const words = (css: Look): string => Object.keys(css).join(' ');
  expect(made.rules.map(({ className, base }) => [className, words(base)])).toEqual([
    ['badge', words(badge)],
    ['badgeBlue', words(blue)],
    ['badgeGreen', words(green)],
  ]);
  expect(usesOf(made, 'b', 'badge2')).toEqual(['shared badge', 'shared badgeGreen', 'own badge']);
  // In one file alone it is laid over the usual look.
  const alone = shareStyles([inFile('a', '2px')]);
  expect(alone.rules).toEqual([]);
  expect(usesOf(alone, 'a', 'badge2')).toEqual(['own badge', 'own badgeGreen']);
});

test.each<[what: string, more: Partial<StyleRule>, name: string]>([
  [
    'in a state',
    { states: { ':hover': { color: '#036', 'text-decoration-line': 'none', 'font-weight': '600' } } },
    'linkHover',
  ],
  [
    'in two states',
    { states: { ':hover': { color: '#036' }, ':focus-visible': { color: '#036', opacity: '0.5' } } },
    'linkStates',
  ],
  [
    'where something stands',
    { states: { ':is(tr:not(:first-child) > *)': { color: '#036', opacity: '0.5' } } },
    'linkSeparated',
  ],
  [
    'at other widths',
    { base: { width: '33.3333%', 'flex-shrink': '0' }, at: { '767': { width: '100%', 'flex-shrink': '1' } } },
    'third',
  ],
])('what rules of any name say %s is a class of its own, called by what they are', (_, more, name) => {
  const look = (className: string, base: Look): StyleRule =>
    rule(className, base, { ...more, base: { ...base, ...more.base } });
  const made = shareStyles([
    { id: 'a', rules: [look('cardLink', { 'font-size': '12px', 'line-height': '2' })] },
    { id: 'b', rules: [look('menuLink', { 'padding-top': '4px', display: 'block' })] },
  ]);
  expect(made.rules.map(({ className }) => className)).toEqual([name]);
  expect(usesOf(made, 'b', 'menuLink')).toEqual([`shared ${name}`, 'own menuLink']);
});

test('rules that are one as a whole are not taken apart for a state that they all have', () => {
  const button = { color: '#036', 'padding-top': '4px' };
  const states = { ':hover': { color: '#000', opacity: '0.5' } };
  const made = shareStyles(
    ['a', 'b', 'c'].map((id) => ({ id, rules: [rule('button', button, { states })] })),
  );
  expect(made.rules.map(({ className }) => className)).toEqual(['button']);
});

const property = fc.constantFrom('color', 'width', 'margin-top', 'margin-left', 'display');
const block = fc.dictionary(property, fc.constantFrom('1px', '2px'), { maxKeys: 4 });
const sheets = fc.array(
  fc.array(
    fc.record({
      className: fc.constantFrom('card', 'row'),
      base: block,
      at: fc.dictionary(fc.constantFrom('600'), block, { maxKeys: 1 }),
      states: fc.dictionary(fc.constantFrom(':hover', '::before'), block, { maxKeys: 2 }),
    }),
    { minLength: 1, maxLength: 5 },
  ),
  { maxLength: 4 },
);

/** Files whose looks after the first of each lie over that. */
const filesOf = (some: readonly (readonly Partial<StyleRule>[])[]): FileRules[] =>
  some.map((rules, i) => ({
    id: String(i),
    rules: rules.map((one, j) =>
      rule(`${one.className}${j + 1}`, one.base as Look, {
        // An element may have several looks.
        key: `element${Math.floor(j / 2)}`,
        at: one.at,
        states: one.states,
        ...(j ? { over: `${rules[0].className}1`, ownName: `${one.className}Active` } : {}),
      }),
    ),
  }));

const writtenBy = (files: readonly FileRules[], made: SharedStyles): CodeBefore => ({
  ...NOTHING_BEFORE,
  shared: new Map(made.rules.map((one) => [one.className, styleOf(one)])),
  files: new Map(files.map(({ id, rules }) => [id, keptFile(rules, made.files.get(id)!, [])])),
});

test('what looks as it did is written as it was, to the order of its rules', () => {
  fc.assert(
    fc.property(sheets, (some) => {
      const files = filesOf(some);
      const made = shareStyles(files);
      const again = shareStyles(files, writtenBy(files, made));
      expect(again.rules.map(styleOf)).toEqual(made.rules.map(styleOf));
      for (const { id, rules } of files) {
        expect(again.files.get(id)!.asBefore).not.toBeNull();
        for (const { className } of rules)
          expect(usesOf(again, id, className)).toEqual(usesOf(made, id, className));
        const sheetOf = ({ files: written }: SharedStyles) =>
          written.get(id)!.rules.map((one) => [one.className, styleOf(one)]);
        expect(sheetOf(again)).toEqual(sheetOf(made));
      }
    }),
    { numRuns: 300 },
  );
});

test('what several looks share goes on being shared where one of them is laid over the usual one', () => {
  const room = (y: string, x: string): Look => ({
    display: 'inline-block',
    'padding-top': y,
    'padding-bottom': y,
    'padding-left': x,
    'padding-right': x,
  });
  const dim = { 'background-color': '#0002', color: '#fff8' };
  const icon = (number: string, look: Look): StyleRule =>
    rule(`icon${number}`, look, { key: `icon${number}`, ...(number ? { over: 'icon' } : {}) });
  const files = [
    {
      id: 'a',
      rules: [
        icon('', { ...dim, ...room('6px', '12px') }),
        icon('2', { ...dim, ...room('6px', '12px'), color: '#0008' }),
        icon('3', { ...dim, ...room('4px', '8px') }),
        icon('4', { ...dim, ...room('8px', '16px') }),
      ],
    },
    { id: 'b', rules: [rule('title', room('6px', '12px'), { key: 'title' })] },
  ];
  const made = shareStyles(files);
  const again = shareStyles(files, writtenBy(files, made));
  const usesIn = (styles: SharedStyles) =>
    ['icon', 'icon2', 'icon3', 'icon4'].map((one) => usesOf(styles, 'a', one));
  expect(usesIn(made)[0]).toContainEqual(usesIn(made)[2][0]);
  expect(usesIn(again)).toEqual(usesIn(made));
});
