import type { StyleRule } from '../markup.ts';
import { isDressedOtherwise, lookAspect, lookWord } from './look_words.ts';

const look = (base: Record<string, string>): StyleRule => ({
  className: '',
  key: null,
  base,
  at: {},
  from: {},
  states: {},
});
const lined = { 'border-top-width': '1px', 'border-top-color': '#ddd' };

test.each<[string, Record<string, string>, Record<string, string>, boolean]>([
  ['blue', { 'background-color': '#2244dd' }, { 'background-color': '#ffffff' }, true],
  ['outlined', lined, { 'background-color': '#2244dd' }, true],
  ['quiet', {}, { 'background-color': '#2244dd' }, true],
  ['red', { color: '#cc2222' }, { color: '#222222' }, true],
  ['muted', { color: '#888888' }, {}, true],
  ['half', { width: '50%' }, { width: '100%' }, false],
  ['twoThirds', { 'flex-basis': '66.6667%' }, { 'flex-basis': '25%' }, false],
  ['huge', { 'font-size': '40px' }, { 'font-size': '16px' }, false],
  ['large', { 'font-size': '24px' }, { 'font-size': '16px' }, false],
  ['small', { height: '24px' }, { height: '40px' }, false],
  ['strong', { 'font-weight': '700' }, {}, false],
  ['centered', { 'text-align': 'center' }, {}, false],
  ['tight', { 'padding-top': '4px' }, { 'padding-top': '12px' }, false],
  ['hidden', { display: 'none' }, { display: 'flex' }, false],
])('what differs so is called %s', (word, one, usual, isDressed) => {
  expect(lookWord(look(one), look(usual))).toBe(word);
  expect(isDressedOtherwise(look(one), look(usual))).toBe(isDressed);
});

test('what differs only in windows of other widths is called after that', () => {
  const narrow = { ...look({ width: '25%' }), at: { 600: { width: '50%' } } };
  expect(lookWord(narrow, look({ width: '25%' }))).toBe('half');
});

test('a word that is taken is left to the other, and what has none gets none', () => {
  const [one, usual] = [look({ color: '#cc2222', 'font-size': '24px' }), look({ 'font-size': '16px' })];
  expect(lookWord(one, usual, (word) => word === 'red')).not.toBe('red');
  expect(lookWord(usual, usual)).toBeNull();
  expect(lookWord(look({ cursor: 'pointer' }), look({}))).toBeNull();
});

test('colours of one hue are told apart by how light they are, and at last by a number', () => {
  const taken = new Set<string>();
  const words = ['#2244dd', '#112266', '#bbccff', '#2a4ce0', '#2b4de1'].map((color) => {
    const word = lookWord(look({ 'background-color': color }), look({ 'background-color': '#fff' }), (one) =>
      taken.has(one),
    )!;
    taken.add(word);
    return word;
  });
  expect(words).toEqual(['blue', 'dark', 'paleBlue', 'darkBlue', 'blue40']);
});

test.each<['color' | 'size' | null, Record<string, string>[]]>([
  ['color', [{ color: '#cc2222' }, { color: '#222222', 'background-color': '#eee' }]],
  ['size', [{ 'font-size': '24px' }, { 'font-size': '16px', 'padding-top': '4px' }]],
  [null, [{ 'font-size': '24px' }, { 'font-size': '16px', color: '#222' }]],
  [null, [{ color: '#222' }, { color: '#222' }]],
])('looks that differ in %s: %j', (aspect, looks) => {
  expect(lookAspect(looks.map(look))).toBe(aspect);
});
