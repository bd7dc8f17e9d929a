import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import type { LibraryRead } from '@tovel/core';
import { startTestApp, type TestApp } from '../testing/app.ts';

const PORT = 4961;
let testApp: TestApp;
beforeAll(async () => {
  testApp = await startTestApp(PORT);
});
afterAll(() => testApp.stop());

const ask = (files: readonly { path: string; text: string }[]) =>
  testApp.app.inject({
    method: 'POST',
    url: '/api/libraries',
    headers: { host: `127.0.0.1:${PORT}` },
    payload: { name: 'parts', files },
  });

const BUTTON = `import './button.css';
import { joined } from 'not-there';
export const Button = ({ look = 'solid' }: { look?: 'solid' | 'quiet' }) => <button className={look}>Go</button>;
export const Joined = () => <b>{joined('a')}</b>;`;

test('sources are read and drawn; what is not installed fails alone', async () => {
  const answer = await ask([
    { path: 'src/index.tsx', text: BUTTON },
    { path: 'src/button.css', text: '.quiet { background: rgb(1, 2, 3); height: 40px }' },
  ]);
  expect(answer.statusCode).toBe(200);
  const { library, problems } = answer.json<LibraryRead>();
  const [button, joined] = library.components;
  expect(button.looks).toContainEqual(
    expect.objectContaining({ given: { look: 'quiet' }, background: 'rgb(1, 2, 3)', height: 40 }),
  );
  expect(joined.looks).toBeUndefined();
  expect(problems.join(' ')).toContain('“not-there” is not installed there');
  expect(readdirSync(path.join(testApp.folder, 'scratch'))).toEqual([]);
});

test('sources that cannot run are read all the same, and that is said', async () => {
  const answer = await ask([
    { path: 'src/index.tsx', text: `export const Card = () => <b>Hm</b>; throw new Error('no such theme');` },
  ]);
  const { library, problems } = answer.json<LibraryRead>();
  expect(library.components.map(({ name }) => name)).toEqual(['Card']);
  expect(problems.join(' ')).toMatch(/could not be run.*no such theme/);
});

test('nothing is taken from outside of the folder', async () => {
  const answer = await ask([
    {
      path: 'src/index.tsx',
      text: `import said from '${process.cwd()}/package.json'; export const Leak = () => <b>{JSON.stringify(said)}</b>;`,
    },
  ]);
  expect(existsSync(`${process.cwd()}/package.json`)).toBe(true);
  const { library, problems } = answer.json<LibraryRead>();
  expect(library.components[0].looks).toBeUndefined();
  expect(problems.join(' ')).toContain('is not installed there');
});

test.each([
  ['a path that leads out', [{ path: '../a.tsx', text: '' }], 400, 'a path within the folder'],
  ['no sources', [{ path: 'a.css', text: '' }], 422, 'no TypeScript source'],
  ['nothing', [], 400, 'files'],
])('%s is refused in words', async (_, files, status, says) => {
  const answer = await ask(files);
  expect(answer.statusCode).toBe(status);
  expect(answer.body).toContain(says);
});
