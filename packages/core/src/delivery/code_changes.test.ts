import fc from 'fast-check';
import type { EmittedFile, EmittedProject } from '../emit/emitted.ts';
import { codeChanges } from './code_changes.ts';

const code = (
  files: readonly EmittedFile[],
  screens: Readonly<Record<string, string>> = {},
): EmittedProject => ({
  files,
  fileOfScreen: new Map(Object.entries(screens)),
});
const home = (text: string, name = 'Home'): EmittedFile => ({
  path: `src/screens/${name}/${name}.tsx`,
  text,
  lines: ['home', 'home/a', 'home/b'],
});

test.each([
  ['nothing where all is as it was', [home('a')], [home('a')], []],
  ['a text that is another', [home('a')], [home('b')], ['updated src/screens/Home/Home.tsx of home']],
  [
    'what is new, and what is gone',
    [{ path: 'old.ts', text: '1' }],
    [{ path: 'new.ts', text: '2' }],
    ['new new.ts', 'removed old.ts'],
  ],
  [
    'a screen that is called otherwise, with what it was',
    [home('a')],
    [home('b', 'Start')],
    ['updated src/screens/Start/Start.tsx from src/screens/Home/Home.tsx of home'],
  ],
  [
    'what lies beside a screen goes along with it',
    [home('a'), { path: 'src/screens/Home/Home.acts.ts', text: 'a' }],
    [home('a', 'Start'), { path: 'src/screens/Start/Start.acts.ts', text: 'b' }],
    [
      'updated src/screens/Start/Start.acts.ts from src/screens/Home/Home.acts.ts of home',
      'updated src/screens/Start/Start.tsx from src/screens/Home/Home.tsx of home',
    ],
  ],
  [
    'a picture that is another one',
    [{ path: 'a.png', asset: '1' }],
    [{ path: 'a.png', asset: '2' }],
    ['updated a.png'],
  ],
  [
    'the styles of a screen are of the screen',
    [home('a'), { path: 'src/screens/Home/Home.module.css', text: 'a' }],
    [home('a'), { path: 'src/screens/Home/Home.module.css', text: 'b' }],
    ['updated src/screens/Home/Home.module.css of home'],
  ],
] as const)('%s', (_, before, after, expected) => {
  const screens = (files: readonly EmittedFile[]) => {
    const file = files.find((one) => one.path.endsWith('.tsx'));
    return file ? { home: file.path } : ({} as Record<string, string>);
  };
  const changes = codeChanges(code(before, screens(before)), code(after, screens(after)));
  expect(
    changes.map(
      ({ path, fate, movedFrom, screen }) =>
        `${fate} ${path}${movedFrom === undefined ? '' : ` from ${movedFrom}`}${screen === undefined ? '' : ` of ${screen}`}`,
    ),
  ).toEqual(expected);
});

const files = fc
  .uniqueArray(fc.record({ path: fc.constantFrom('a.ts', 'b.ts', 'c/d.ts', 'e.css'), text: fc.string() }), {
    selector: ({ path }) => path,
  })
  .map((list) => code(list));

test('what was before with its changes is what is now', () => {
  fc.assert(
    fc.property(files, files, (before, after) => {
      const made = new Map(before.files.map((file) => [file.path, 'text' in file ? file.text : '']));
      for (const { path, movedFrom, fate, after: text } of codeChanges(before, after)) {
        if (fate === 'removed' || movedFrom !== undefined) made.delete(movedFrom ?? path);
        if (fate !== 'removed') made.set(path, text!);
      }
      expect(made).toEqual(new Map(after.files.map((file) => [file.path, 'text' in file ? file.text : ''])));
    }),
  );
});
