import { targets } from '../emit/targets.ts';
import { emptyApp } from '../model/app.ts';
import { emptyDesign } from '../model/design.ts';
import { generatedCode } from './generated_code.ts';

const project = { design: emptyDesign, app: emptyApp };

afterEach(() => jest.restoreAllMocks());

function emits(files: Readonly<Record<string, string>>): void {
  jest.spyOn(targets.react, 'emit').mockReturnValue({
    files: Object.entries(files).map(([path, text]) => ({ path, text })),
    fileOfScreen: new Map([['home', 'src/Home.tsx']]),
  });
}

test('a file that cannot be read stays as it is and is told, and the others are formatted', async () => {
  emits({ 'src/Home.tsx': 'const a   = 1', 'src/Bad.tsx': 'const = <', 'src/bad.css': 'a { color: ' });
  const { files, unread } = await generatedCode(project, 'App', 'react');
  const texts = new Map(files.map((file) => [file.path, 'text' in file ? file.text : null]));
  expect(texts.get('src/Home.tsx')).toBe('const a = 1;\n');
  expect(texts.get('src/Bad.tsx')).toBe('const = <');
  expect(unread?.map((one) => one.replace(/:.*/, ''))).toEqual(['src/Bad.tsx', 'src/bad.css']);
});

test('what nobody looks at is left as it was written', async () => {
  emits({ 'src/Home.tsx': 'const a   = 1', 'src/Other.tsx': 'const b   = 1' });
  const { files, unread } = await generatedCode(
    project,
    'App',
    'react',
    undefined,
    (path, { fileOfScreen }) => path === fileOfScreen.get('home'),
  );
  const texts = files.flatMap((file) => ('text' in file && file.path.startsWith('src/') ? [file.text] : []));
  expect(texts).toEqual(['const a = 1;\n', 'const b   = 1']);
  expect(unread).toBeUndefined();
});
