import { withoutIdle } from '../form/styles/idle.ts';
import { asInCode, classInSheet } from './class_names.ts';
import { printRules } from './print_css.ts';
import { foldShorthands } from './shorthands.ts';
import { writtenValue } from './written.ts';

test.each([
  ['color', 'rgb(244, 243, 239)', '#f4f3ef'],
  ['color', 'rgb(255, 255, 255)', '#fff'],
  ['color', 'rgba(0, 0, 0, 0.5)', 'rgb(0 0 0 / 50%)'],
  ['color', 'rgb(0 0 0 / 0.4)', 'rgb(0 0 0 / 40%)'],
  ['color', '#AABBCC', '#abc'],
  ['color', 'color(display-p3 1 0 0)', 'color(display-p3 1 0 0)'],
  ['box-shadow', 'rgba(204, 197, 185, 0.5) 0px 2px 2px 0px', '0 2px 2px rgb(204 197 185 / 50%)'],
  [
    'box-shadow',
    'rgb(1, 2, 3) 0px 0px 0px 2px inset, var(--ring) 0px 1px 2px 0px',
    'inset 0 0 0 2px #010203, 0 1px 2px var(--ring)',
  ],
  ['text-shadow', 'rgba(0, 0, 0, 0.5) 1px 0px 0px', '1px 0 rgb(0 0 0 / 50%)'],
  ['background-color', 'rgba(12, 34, 56, 0)', 'transparent'],
  ['margin', '0px auto', '0 auto'],
  ['margin', '10px -0px', '10px 0'],
  ['padding', 'var(--space-4) 0px', 'var(--space-4) 0'],
  ['width', 'calc(100% - 0px)', 'calc(100% - 0px)'],
  ['width', '33.333333%', '33.3333%'],
  ['transition', 'color 0s', 'color 0s'],
  ['appearance', 'button', 'auto'],
  ['font-family', '"Spline Sans", Arial', "'Spline Sans', Arial, serif"],
  ['font-family', 'Arial, sans-serif', 'Arial, sans-serif'],
  ['content', '"0px rgb(0, 0, 0)"', "'0px rgb(0, 0, 0)'"],
  ['content', '"\\""', `'"'`],
  ['content', '"\\2022" "\'" ""', '"\\2022" "\'" \'\''],
  ['content', '\'"\' " "', "'\"' ' '"],
  ['background-image', 'url("asset:0px")', "url('asset:0px')"],
])('%s: %s is written %s', (property, value, written) => {
  expect(writtenValue(property, value)).toBe(written);
});

const sides = (name: (side: string) => string, ...values: string[]): Record<string, string> =>
  Object.fromEntries(
    ['top', 'right', 'bottom', 'left'].map((side, i) => [name(side), values[i % values.length]]),
  );

test.each([
  [sides((side) => `border-${side}-color`, '#111', '#222'), { 'border-color': '#111 #222' }],
  [{ 'flex-direction': 'column', 'flex-wrap': 'wrap' }, { 'flex-flow': 'column wrap' }],
  [{ 'flex-grow': '1', 'flex-shrink': '1', 'flex-basis': '0%' }, { flex: '1' }],
  [{ 'white-space-collapse': 'collapse', 'text-wrap-mode': 'nowrap' }, { 'white-space': 'nowrap' }],
  [
    {
      'text-decoration-line': 'none',
      'text-decoration-style': 'initial',
      'text-decoration-color': 'initial',
      'text-decoration-thickness': 'initial',
    },
    { 'text-decoration': 'none' },
  ],
  [{ 'outline-width': '0px', 'outline-style': 'solid', 'outline-color': '#111' }, { outline: '0' }],
  [{ 'outline-width': '2px', 'outline-style': 'solid', 'outline-color': 'initial' }, null],
  [{ 'row-gap': 'inherit', 'column-gap': '4px' }, null],
  [
    {
      'transition-property': 'color, top',
      'transition-duration': '0.2s',
      'transition-timing-function': 'ease, linear',
      'transition-delay': '0s, 1s',
    },
    { transition: 'color 0.2s, top 0.2s linear 1s' },
  ],
  [{ 'border-left-style': 'none' }, { 'border-left': '0' }],
])('%j is written %j', (longhands, folded) => {
  expect(foldShorthands(longhands)).toEqual(folded ?? longhands);
});

const look = (base: Record<string, string>, states: Record<string, Record<string, string>> = {}) => ({
  base,
  at: {},
  from: {},
  states,
});

test.each([
  ['a border that is never drawn', { 'border-top-width': '0px', 'border-top-color': '#111' }, 'div', {}],
  [
    'a border of no width',
    { 'border-top-width': '0px', 'border-top-style': 'solid', 'border-top-color': '#111' },
    'td',
    {},
  ],
  [
    'one that a browser would draw',
    { 'border-top-style': 'none', 'border-top-width': '2px' },
    'input',
    { 'border-top-style': 'none' },
  ],
  [
    'one that is drawn',
    { 'border-top-width': '1px', 'border-top-style': 'solid' },
    'div',
    { 'border-top-width': '1px', 'border-top-style': 'solid' },
  ],
  ['the colour of no line', { 'text-decoration-color': '#111', color: '#222' }, 'a', { color: '#222' }],
  [
    'the line around what the focus never comes to',
    { 'outline-width': '0px', 'outline-color': '#111' },
    'div',
    {},
  ],
  [
    'the colour of a line that is not there',
    { 'outline-width': '0px', 'outline-color': '#111' },
    'button',
    { 'outline-width': '0px' },
  ],
  ['nothing of what a browser makes faint by itself', { opacity: '1' }, 'select', { opacity: '1' }],
  ['what is so anyway', { 'background-image': 'initial', top: '0px' }, 'div', { top: '0px' }],
])('of a look, %s', (_, base, tag, left) => {
  expect(withoutIdle(look(base), tag).base).toEqual(left);
});

test.each<[string, Record<string, string>, string, Record<string, string>, Record<string, string>]>([
  [
    'what nothing ever makes otherwise',
    {},
    ':hover',
    { opacity: '1', 'box-shadow': 'none', color: '#111' },
    { color: '#111' },
  ],
  ['what it takes back', { opacity: '0.5' }, ':hover', { opacity: '1' }, { opacity: '1' }],
  [
    'that there is no line where none is',
    {},
    ':hover',
    { 'outline-style': 'none', color: '#111' },
    { color: '#111' },
  ],
  [
    'that the focus has no line',
    {},
    ':focus-visible',
    { 'outline-style': 'none' },
    { 'outline-style': 'none' },
  ],
])('of a state, %s', (_, base, state, css, left) => {
  expect(withoutIdle(look(base, { [state]: css }), 'a').states).toEqual({ [state]: left });
});

test('what is drawn before an element in narrow windows stands there, behind how that looks', () => {
  const states = { '::before': { content: '"To"', color: '#111' }, '::before@700': { color: '#222' } };
  const rule = {
    className: 'cell',
    key: null,
    ...look({}, states),
    at: { 900: { color: '#333' }, 700: { width: '1px' } },
  };
  const { text } = printRules([rule], (name) => `.${name}`);
  expect(text.replace(/\s+/g, ' ').trim()).toBe(
    ".cell::before { color: #111; content: 'To'; } @media (width <= 900px) { .cell { color: #333; } } @media (width <= 700px) { .cell { width: 1px; } .cell::before { color: #222; } }",
  );
});

test('what two states have in common is written once, before what each has alone', () => {
  const rule = {
    className: 'go',
    key: null,
    ...look(
      {},
      {
        ':hover': { color: '#111', opacity: '0.8', transform: 'scale(1.1)' },
        ':focus-visible': { color: '#111', opacity: '0.8' },
        ':active': { color: '#222' },
      },
    ),
  };
  const { text } = printRules([rule], (name) => `.${name}`);
  expect(text.split('\n\n').map((block) => block.replace(/\s+/g, ' ').trim())).toEqual([
    '.go:hover, .go:focus-visible { color: #111; opacity: 0.8; }',
    '.go:hover { transform: scale(1.1); }',
    '.go:active { color: #222; }',
  ]);
});

test('a border that only a state draws stays, and what a state takes back stays', () => {
  const hovered = look(
    { 'border-top-width': '1px', 'background-image': 'url(a)' },
    { ':hover': { 'border-top-style': 'solid', 'background-image': 'initial' } },
  );
  expect(withoutIdle(hovered, 'div')).toEqual(hovered);
});

test.each(['title', 'rowTitle', 'h1Title', 'aBC', 'col2x'])(
  'the class %s is the same in sheet and code',
  (name) => {
    expect(asInCode(`  .${classInSheet(name)}:hover {`)).toBe(`  .${name}:hover {`);
  },
);

test.each([
  ['div', ':focus-visible', false, false],
  ['span', ':focus', false, false],
  ['div', ':focus-visible', true, true],
  ['button', ':focus-visible', false, true],
  ['a', ':hover:focus-visible', false, true],
  ['div', ':focus-within', false, true],
  ['div', ':hover', false, true],
])(
  '%s with %s, where it %s: what only the focus shows is kept where it can come: %s',
  (tag, state, canFocus, isKept) => {
    const { states } = withoutIdle(look({}, { [state]: { color: 'red' } }), tag, canFocus);
    expect(Object.keys(states)).toEqual(isKept ? [state] : []);
  },
);

test.each([
  [[':hover', ':focus-visible', ':active', ':checked']],
  [[':checked', ':active', ':focus-visible', ':hover']],
  [[':focus-visible', ':checked', ':hover', ':active']],
])('states stand in one order, known as %s', (states) => {
  const said = Object.fromEntries(states.map((state) => [state, { content: `"${state}"` }]));
  const { text } = printRules([{ className: 'go', key: null, ...look({}, said) }], (name) => `.${name}`);
  expect([...text.matchAll(/^\.go(\S+) \{/gm)].map(([, state]) => state)).toEqual([
    ':hover',
    ':focus-visible',
    ':active',
    ':checked',
  ]);
});

test('declarations stand by their names, in whatever order they became known', () => {
  const base = { 'z-index': '2', 'background-color': '#123', 'border-top-left-radius': '4px', top: '0' };
  const turned = Object.fromEntries(Object.entries(base).reverse());
  const [text, other] = [base, turned].map(
    (css) => printRules([{ className: 'go', key: null, ...look(css, {}) }], (name) => `.${name}`).text,
  );
  expect(text).toBe(other);
  const names = [...text.matchAll(/^ {2}([\w-]+):/gm)].map(([, name]) => name);
  expect(names).toEqual(names.toSorted());
});
