import { rendered } from '../testing/rendered.ts';
import type { Look } from './rendering.ts';
import { styleDifferences } from './style_differences.ts';

type Looks = Partial<Record<Look, string>>;

const told = (was: Looks, is: Looks, text = 'Hedge trimmer', tag = 'div'): string[] =>
  styleDifferences(rendered(tag, { text, look: was }), rendered(tag, { text, look: is })).map(
    (one) => `${one.property}: ${one.is}, was ${one.was}`,
  );

const bordered = (width: string, color: string, style = 'solid'): Looks => ({
  'border-top-width': width,
  'border-right-width': width,
  'border-bottom-width': width,
  'border-left-width': width,
  'border-top-style': style,
  'border-right-style': style,
  'border-bottom-style': style,
  'border-left-style': style,
  'border-top-color': color,
  'border-right-color': color,
  'border-bottom-color': color,
  'border-left-color': color,
});

test.each<[string, Looks, Looks, string[]]>([
  ['a size of type', { 'font-size': '30px' }, { 'font-size': '28px' }, ['font-size: 28 px, was 30 px']],
  ['less than a browser rounds', { 'padding-top': '8px' }, { 'padding-top': '8.4px' }, []],
  [
    'four sides that say the same, once',
    { 'padding-top': '8px', 'padding-right': '8px', 'padding-bottom': '8px', 'padding-left': '8px' },
    { 'padding-top': '4px', 'padding-right': '4px', 'padding-bottom': '4px', 'padding-left': '4px' },
    ['padding: 4 px, was 8 px'],
  ],
  [
    'one side of them',
    { 'padding-top': '8px', 'padding-left': '8px' },
    { 'padding-top': '4px', 'padding-left': '8px' },
    ['padding-top: 4 px, was 8 px'],
  ],
  [
    'colours in hex',
    bordered('1px', 'rgb(0, 0, 0)'),
    bordered('1px', 'rgb(22, 28, 45)'),
    ['border-color: #161c2d, was #000000'],
  ],
  [
    'the colour of a border that is not there',
    bordered('0px', 'rgb(0, 0, 0)'),
    bordered('0px', 'rgb(9, 9, 9)'),
    [],
  ],
  [
    'a border that is there on one of them, by its width alone',
    bordered('0px', 'rgb(0, 0, 0)', 'none'),
    bordered('2px', 'rgb(9, 9, 9)'),
    ['border-width: 2 px, was 0 px'],
  ],
  [
    'pictures at other addresses are the same, whatever stands in these',
    { 'background-image': `none, url("data:image/svg+xml,%3Crect transform='scale(2)'/%3E")` },
    { 'background-image': 'none, url("http://127.0.0.1/kept/ab12")' },
    [],
  ],
  [
    'a picture that is missing',
    { 'background-image': 'url("shed.png")' },
    { 'background-image': 'missing' },
    ['background-image: a picture that is missing, was a picture'],
  ],
  ['an end that is the right', { 'text-align': 'end' }, { 'text-align': 'right' }, []],
  ['a turn by nothing', { transform: 'none' }, { transform: 'matrix(1, 0, 0, 1, 0, 0)' }, []],
  ['a box that is one for what it holds', { display: 'flow-root' }, { display: 'block' }, []],
  ['a margin that takes what is left', { 'margin-left': 'auto' }, { 'margin-left': '120px' }, []],
  [
    'where the lines of boxes go, of boxes that have none',
    { display: 'block', 'flex-direction': 'row' },
    { display: 'block', 'flex-direction': 'column' },
    [],
  ],
  [
    'the same of those that have',
    { display: 'flex', 'flex-direction': 'row' },
    { display: 'flex', 'flex-direction': 'column' },
    ['flex-direction: column, was row'],
  ],
])('%s', (_, was, is, expected) => expect(told(was, is)).toEqual(expected));

test('how letters look is told where there are some', () => {
  const [was, is] = [{ 'font-weight': '400' }, { 'font-weight': '700' }];
  expect(told(was, is)).toEqual(['font-weight: 700, was 400']);
  expect(told(was, is, '')).toEqual([]);
});

test('what is told says how to make it as it was', () => {
  const [found] = styleDifferences(
    rendered('div', { look: bordered('1px', 'rgb(0, 0, 0)') }),
    rendered('div', { look: bordered('1px', 'rgb(9, 9, 9)') }),
  );
  expect(found.sets).toEqual({
    'border-top-color': 'rgb(0, 0, 0)',
    'border-right-color': 'rgb(0, 0, 0)',
    'border-bottom-color': 'rgb(0, 0, 0)',
    'border-left-color': 'rgb(0, 0, 0)',
  });
});
