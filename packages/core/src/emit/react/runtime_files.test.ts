import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { projectOf, screenWith } from '../../testing/build.ts';
import { emitReact } from './emit_react.ts';
import { runtimeFor } from '../bundled/runtime_files.ts';
import { runtime as common } from '../bundled/runtime_texts.ts';
import { runtime } from './runtime_texts.ts';

const STAND_INS = ['overlays/overlays.ts', 'state/variables.ts', 'styles.d.ts'];

test.each([
  ['of React', '', runtime],
  ['of all that is bundled', '../bundled', common],
])('the runtime %s is that of the files', (_, place, texts) => {
  const folder = path.join(import.meta.dirname, place, 'runtime');
  const names = readdirSync(folder, { recursive: true }).map(String);
  const files = names.filter((name) => /\.tsx?$/.test(name) && !STAND_INS.includes(name));
  // What expressions call here is what is delivered.
  const own = (name: string): string =>
    name === 'records/functions.ts'
      ? path.join(import.meta.dirname, '../../expression/functions.ts')
      : path.join(folder, name);
  if (place) files.push('records/functions.ts');
  expect(Object.keys(texts).sort()).toEqual(files.sort());
  for (const [name, text] of Object.entries(texts)) expect(text).toBe(readFileSync(own(name), 'utf8'));
});

test.each<[string, readonly string[]]>([
  ['', []],
  [
    "import { Go } from '../../navigation/Go';",
    ['Go.tsx', 'arrival.ts', 'fill.ts', 'history.ts', 'useGo.ts'],
  ],
  [
    "import { Back } from '../../navigation/Back';",
    ['Back.tsx', 'arrival.ts', 'fill.ts', 'history.ts', 'useGo.ts'],
  ],
  ["import { pressable } from '../../navigation/pressable';", ['pressable.ts']],
])('of the runtime “%s” takes %j', (text, files) => {
  const made = runtimeFor([{ path: 'src/screens/Home/Home.tsx', text }], runtime);
  expect(made.map((file) => file.path).sort()).toEqual(files.map((file) => `src/navigation/${file}`));
});

test('an app without overlays, guards and redirects comes without what they take', () => {
  const { files } = emitReact(projectOf(screenWith('home', 'Go')), 'App');
  const paths = files.map((file) => file.path);
  expect(paths.filter((one) => /overlays|Guard|Redirect|gestures|moments/.test(one))).toEqual([]);
  expect(paths).toContain('src/shell/Shell.tsx');
});
