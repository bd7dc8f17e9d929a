import {
  applyChange,
  emptyApp,
  type MergeProposal,
  putToken,
  type Token,
  type TokenProposal,
} from '@tovel/core';
import { importing, isFreeName, merging, namingOf, renaming } from './token_changes';

const token = (value: string, ...from: string[]): Token => ({ kind: 'space', value, from: [value, ...from] });
const tokens = { 'space-1': token('8px'), 'space-2': token('9px'), gap: token('24px', '23px') };
const app = Object.entries(tokens).reduce(
  (made, [name, one]) => applyChange(made, putToken(name, one)),
  emptyApp,
);
const merge = (keep: string, drop: string): MergeProposal => ({
  id: `${keep} ${drop}`,
  kind: 'space',
  keep,
  drop,
  uses: 1,
  reason: '',
});
const proposal = (name: string, value: string): TokenProposal => ({ name, token: token(value), uses: 3 });

test.each([
  ['space-3', true],
  ['gap', false],
  ['Gap', false],
  ['3px', false],
  ['constructor', true],
  ['', false],
])('whether a token may be called "%s"', (name, isFree) => {
  expect(isFreeName(tokens, name)).toBe(isFree);
});

test.each<[what: string, keep: string, drop: string, after: Record<string, string[]>]>([
  [
    'the token of the one that stays stands for both, and that of the other goes',
    '8px',
    '9px',
    { 'space-1': ['8px', '9px'], gap: ['24px', '23px'] },
  ],
  [
    'a token that stands for more than what is given up stays',
    '8px',
    '24px',
    { 'space-1': ['8px', '24px'], 'space-2': ['9px'], gap: ['24px', '23px'] },
  ],
  [
    'a value without a token gets the name that is proposed for it',
    '16px',
    '9px',
    { 'space-1': ['8px'], gap: ['24px', '23px'], wide: ['16px', '9px'] },
  ],
  [
    'or one after its kind',
    '40px',
    '41px',
    { 'space-1': ['8px'], 'space-2': ['9px'], gap: ['24px', '23px'], 'space-merged': ['40px', '41px'] },
  ],
])('merging: %s', (_, keep, drop, after) => {
  const { tokens: now } = applyChange(app, merging(tokens, [proposal('wide', '16px')], merge(keep, drop)));
  expect(Object.fromEntries(Object.entries(now).map(([name, { from }]) => [name, from]))).toEqual(after);
});

test('naming, renaming and importing change nothing else', () => {
  const named = applyChange(app, namingOf([proposal('wide', '16px'), proposal('huge', '90px')]));
  expect(Object.keys(named.tokens)).toEqual([...Object.keys(tokens), 'wide', 'huge']);
  const renamed = applyChange(app, renaming(tokens, 'gap', 'gutter'));
  expect(renamed.tokens).toEqual({
    'space-1': tokens['space-1'],
    'space-2': tokens['space-2'],
    gutter: tokens.gap,
  });
  const imported = applyChange(app, importing(tokens, { gap: token('30px'), other: token('2px') }));
  expect(imported.tokens.gap).toEqual({ ...tokens.gap, value: '30px' });
  expect(imported.tokens.other).toEqual(token('2px'));
});
