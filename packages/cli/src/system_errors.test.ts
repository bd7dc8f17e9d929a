import { readFile, rmdir, writeFile } from 'node:fs/promises';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { systemErrorInWords } from './system_errors.ts';

const folder = mkdtempSync(path.join(tmpdir(), 'words'));
const at = (...names: string[]): string => path.join(folder, ...names);
beforeAll(() => {
  writeFileSync(at('file'), 'mine');
  mkdirSync(at('full', 'inner'), { recursive: true });
});
afterAll(() => rmSync(folder, { recursive: true }));

const thrownBy = async (act: () => Promise<unknown>): Promise<unknown> => {
  try {
    await act();
  } catch (error) {
    return error;
  }
  throw new Error('Nothing was refused');
};

test.each<[string, () => Promise<unknown>, RegExp]>([
  ['a file that is not there', () => readFile(at('none')), /^There is no .*none\.$/],
  [
    'a file among folders',
    () => writeFile(at('file', 'inner'), ''),
    /inner is a file where a folder should be\.$/,
  ],
  ['a folder among files', () => writeFile(at('full'), ''), /full is a folder where a file should be\.$/],
  ['a name without end', () => writeFile(at('a'.repeat(300)), ''), /too long a name/],
])('%s', async (_, act, says) => {
  expect(systemErrorInWords(await thrownBy(act))).toMatch(says);
});

test.each<[string, object, string | null]>([
  [
    'a full disk',
    { code: 'ENOSPC', syscall: 'write' },
    'The disk is full. Make room, or name a folder on another one.',
  ],
  [
    'a folder of somebody else',
    { code: 'EACCES', syscall: 'open', path: '/theirs' },
    '/theirs is not yours to open or to write. Get the right to, or name another one.',
  ],
  ['what nobody has words for', { code: 'EXDEV', syscall: 'rename' }, null],
  ['an error of the program', {}, null],
])('%s', (_, of, says) => {
  expect(systemErrorInWords(Object.assign(new Error('no'), of))).toBe(says);
});

test('what is no error of files is left alone', async () => {
  expect(systemErrorInWords('text')).toBeNull();
  expect(systemErrorInWords(await thrownBy(() => rmdir(at('full'))))).toBeNull();
});
