import type { CodeChange } from '@tovel/core';
import { groupsOf } from './groups';

const change = (path: string, fate: CodeChange['fate'], screen?: string): CodeChange => ({
  path,
  fate,
  ...(screen === undefined ? {} : { screen }),
});
const changes = [
  change('a.tsx', 'updated', 'home'),
  change('b.tsx', 'new', 'gone'),
  change('c.css', 'removed'),
  change('d.tsx', 'new', 'about'),
];
const nameOf = (key: string): string | null => ({ home: 'Home', about: 'About' })[key] ?? null;

test.each([
  ['screen', ['About: d.tsx', 'Home: a.tsx', 'Screens that are gone: b.tsx', 'Shared by screens: c.css']],
  ['fate', ['Changed: a.tsx', 'New: b.tsx d.tsx', 'Gone: c.css']],
] as const)('by %s', (grouping, expected) => {
  const groups = groupsOf(changes, grouping, nameOf);
  expect(groups.map(({ title, files }) => `${title}: ${files.map(({ path }) => path).join(' ')}`)).toEqual(
    expected,
  );
});

test('without a screen all is shared, and without a change there is no group', () => {
  expect(groupsOf([change('c.css', 'new')], 'screen', nameOf)[0].title).toBe('Shared');
  expect(groupsOf([], 'screen', nameOf)).toEqual([]);
  expect(groupsOf([], 'fate', nameOf)).toEqual([]);
});
