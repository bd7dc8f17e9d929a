import { strToU8 } from 'fflate';
import type { InputFile } from './files.ts';
import { installedFiles, isInstalled } from './installed.ts';

const file = (path: string, text: string): InputFile => ({ path, bytes: strToU8(text) });

test.each([
  ['node_modules/parts/parts.css', true],
  ['site/node_modules/parts/parts.css', true],
  ['my_node_modules/parts.css', false],
  ['parts.css', false],
])('%s is of an installed package: %s', (path, is) => expect(isInstalled(path)).toBe(is));

test('of installed packages comes along what pages use, and what that uses', async () => {
  const packages: Readonly<Record<string, string>> = {
    'node_modules/parts/dist/parts.css':
      '@import "more.css"; @font-face { src: url(../fonts/parts.woff2?v=1#x), url("../fonts/gone.woff") }',
    'node_modules/parts/dist/more.css': '.a { background: url(data:image/png;base64,AA) }',
    'node_modules/parts/fonts/parts.woff2': 'font',
    'node_modules/parts/demo/index.html': '<link href="../other.css">',
    'node_modules/parts/other.css': '',
    'node_modules/pictures/one.png': 'one',
    'node_modules/pictures/two.png': 'two',
    'secret.txt': 'no',
  };
  const asked: string[] = [];
  const found = await installedFiles(
    [
      file(
        'pages/home.html',
        `<link rel="stylesheet" href="../node_modules/parts/dist/parts.css"><link rel='stylesheet' href='../node_modules/parts/dist/parts.css'>
        <a href="../node_modules/parts/demo/index.html">Demo</a><img src=../node_modules/pictures/one.png><a href="https://node_modules/x">x</a>
        <a href="../../node_modules/../../secret.txt">x</a>`,
      ),
      file('own.css', '.b { background: url("node_modules/pictures/two.png") }'),
      file('read.js', "import 'node_modules/pictures/three.png'"),
    ],
    async (path) => {
      asked.push(path);
      return path in packages ? strToU8(packages[path]) : null;
    },
  );
  expect(found.map(({ path }) => path).sort()).toEqual([
    'node_modules/parts/demo/index.html',
    'node_modules/parts/dist/more.css',
    'node_modules/parts/dist/parts.css',
    'node_modules/parts/fonts/parts.woff2',
    'node_modules/pictures/one.png',
    'node_modules/pictures/two.png',
  ]);
  expect(new Set(asked).size).toBe(asked.length);
  expect(asked.every(isInstalled)).toBe(true);
});
