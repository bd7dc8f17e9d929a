import type { EmittedProject } from '@tovel/core';
import { LinkedBuild } from './linked_build.ts';

const projectOf = (texts: Readonly<Record<string, string | null>>): EmittedProject => ({
  files: Object.entries(texts).map(([path, text]) =>
    text === null ? { path, asset: 'hash' } : { path, text },
  ),
  fileOfScreen: new Map(),
});

async function built(texts: Readonly<Record<string, string | null>>, build = new LinkedBuild('/app/')) {
  const { files, error } = await build.build(projectOf(texts));
  const read = (name: string): string => new TextDecoder().decode(files.get(name));
  return { error, script: error === null ? read('app.js') : '', css: error === null ? read('app.css') : '' };
}

const versionOf = (script: string): string => /tovelModules\(packages, "(\w+)"\)/.exec(script)![1];

/** What a script without packages says. */
function said(script: string): unknown[] {
  const told: unknown[] = [];
  new Function('say', script)((one: unknown) => told.push(one));
  return told;
}

test.each<[what: string, files: Record<string, string | null>, says: unknown[]]>([
  [
    'names, defaults and whole modules',
    {
      'src/main.tsx':
        "import one, { two } from './a'; import * as all from './b'; say([one, two, all.three]);",
      'src/a.ts': 'export default 1; export const two = 2;',
      'src/b.ts': "export * from './c';",
      'src/c.ts': 'export const three = 3;',
    },
    [[1, 2, 3]],
  ],
  [
    'modules that ask for each other',
    {
      'src/main.tsx': "import { even } from './even'; say(even(4));",
      'src/even.ts':
        "import { odd } from './odd'; export const even = (n: number): boolean => n === 0 || odd(n - 1);",
      'src/odd.ts':
        "import { even } from './even'; export const odd = (n: number): boolean => n > 0 && even(n - 1);",
    },
    [true],
  ],
  [
    'records, pictures and classes',
    {
      'src/main.tsx':
        "import list from './list.json'; import saw from '../assets/saw.png'; import styles from './Card.module.css'; say([list, saw, styles.cardTitle]);",
      'src/list.json': '[1]',
      'assets/saw.png': null,
      'src/Card.module.css': '.card-title {\n  color: red;\n}\n',
    },
    [[[1], '/app/_assets/saw.png', 'Card_cardTitle']],
  ],
  [
    'names that helpers have, too',
    {
      'src/main.tsx': "import * as all from './a'; say([all.name, all.target, all.__export]);",
      'src/a.ts': 'export const name = 1; export const target = 2; export const __export = 3;',
    },
    [[1, 2, 3]],
  ],
  [
    'a text that speaks of modules',
    { 'src/main.tsx': `say('require("./nothing")');` },
    ['require("./nothing")'],
  ],
])('%s are what they are', async (_, files, says) => {
  const { script, error } = await built(files);
  expect(error).toBeNull();
  expect(said(script)).toEqual(says);
});

test('what is missing, or cannot be read, is told with its file', async () => {
  const { script } = await built({ 'src/main.tsx': "import { a } from './a'; say(a);" });
  expect(() => said(script)).toThrow('/src/main.tsx imports ./a, which is not there');
  const { error } = await built({ 'src/main.tsx': 'const a = ;' });
  expect(error).toContain('/src/main.tsx:1:10');
});

test('classes of modules that are called the same stay apart, states with them; pictures have the address of the app', async () => {
  const sheet =
    '.card,\n.card:hover {\n  background: url(../assets/saw.png);\n}\n\n@media (width <= 9px) {\n  .card {\n    top: 0;\n  }\n}\n';
  const { script, css } = await built({
    'src/main.tsx':
      "import './base.css'; import a from './a/Card.module.css'; import b from './b/Card.module.css'; say([a.card, b.card]);",
    'src/base.css': 'body {\n  margin: 0;\n}\n',
    'src/a/Card.module.css': sheet,
    'src/b/Card.module.css': sheet,
    'src/assets/saw.png': null,
  });
  expect(said(script)).toEqual([['a_Card_card', 'b_Card_card']]);
  expect(css.match(/^\s*\.\S+/gm)!.map((one) => one.trim())).toEqual(
    ['a', 'b'].flatMap((of) => [`.${of}_Card_card,`, `.${of}_Card_card:hover`, `.${of}_Card_card`]),
  );
  expect(css.indexOf('margin: 0')).toBeLessThan(css.indexOf('a_Card'));
  expect(css).toContain('url("/app/_assets/saw.png")');
});

test('after a change the script is that of the whole, and says where each line was written', async () => {
  const before = {
    'src/main.tsx': "import { name } from './name';\nimport { greet } from './greet';\n\nsay(greet(name));\n",
    'src/name.ts': "export const name = 'Mossgate';\n",
    'src/greet.ts': '\n// Says hello.\nexport const greet = (name: string) =>\n  `Hello ${name}`;\n',
    'src/unused.ts': 'export const unused = 1;\n',
  };
  const after = {
    ...before,
    'src/name.ts': "import { shed } from './shed';\n\nexport const name = shed;\n",
    'src/shed.ts': "export const shed = 'Shed 2';\n",
  };
  const build = new LinkedBuild('/app/');
  await built(before, build);
  const { script } = await built(after, build);
  const version = versionOf(script);
  expect(script).toBe((await built(after)).script);
  expect(script).not.toContain('unused');
  expect(said(script)).toEqual(['Hello Shed 2']);
  const placeOf = (text: string) => {
    const head = script.slice(0, script.indexOf(text)).split('\n');
    return build.where(version, head.length, head.at(-1)!.length);
  };
  expect(placeOf('Hello')).toEqual({ path: 'src/greet.ts', line: 4, text: after['src/greet.ts'] });
  expect(placeOf('"Shed 2"')).toEqual({ path: 'src/shed.ts', line: 1, text: after['src/shed.ts'] });
  expect(build.where(version, 1, 0)).toBeNull();
  expect(build.where(version, 1_000_000, 0)).toBeNull();
});

test('what was begun with is begun with once, also where nothing asks for it', async () => {
  const files = {
    'src/main.tsx': "import { two } from './a'; say(two);",
    'src/a.ts': 'export const two = 2;',
    'src/unused.ts': 'export const three = 3;',
  };
  const begins = (texts: Record<string, string>): boolean => build.begin(projectOf(texts).files);
  const build = new LinkedBuild('/app/');
  const first = begins(files);
  await built(files, build);
  const again = begins(files);
  const changed = { ...files, 'src/unused.ts': 'export const three = 4;' };
  const other = begins(changed);
  await built({ 'src/main.tsx': 'say(1);' }, build);
  const gone = begins({ 'src/unused.ts': changed['src/unused.ts'] });
  expect([first, again, other, gone]).toEqual([true, false, true, true]);
});
