import type { App } from './app.ts';
import { toldByScreens } from './told_by_screens.ts';

const names = ['Account general', 'Account security', 'Agency', 'Plans 2', 'What we lend to schools', 'Blog'];
const screens = Object.fromEntries(names.map((name, i) => [i, { name }])) as App['screens'];

test.each([
  ['of those that begin alike, that', '01', ['Account', 'Account general']],
  ['of one screen, its name', '2', ['Agency', 'Agency']],
  ['of a few others, the first', '215', ['Agency']],
  ['numbers tell nothing', '3', ['Plans', 'Plans']],
  ['what is too long for a name is none', '4', []],
  ['of many, nothing but what all begin with', '012345', []],
])('%s', (_, keys, expected) => {
  expect(toldByScreens({ screens }, keys)).toEqual(expected);
});
