import { targets } from '../emit/targets.ts';
import { emptyApp } from '../model/app.ts';
import { emptyDesign } from '../model/design.ts';
import { formattedText, generatedCode } from './generated_code.ts';

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

test('what was formatted once is left as it is by the formatter, with blanks of their own between elements, too', async () => {
  const word = (text: string): string =>
    `<span className={shared.hljsTagHljsString}>&quot;${text}&quot;</span>`;
  const written = [
    'export function Code() {',
    '  return (',
    '    <code className={shared.codeGroup}>',
    '      <span className={shared.hljsTag}>',
    `        &lt;<span className={shared.hljsTagHljsName}>a</span> href=${word('#')}{' '}`,
    `        class=${word('btn btn-link dropdown-toggle')}{' '}`,
    `        tabindex=${word('0')}&gt;`,
    '      </span>',
    '    </code>',
    '  );',
    '}',
    '',
  ].join('\n');
  const once = await formattedText('a.tsx', written);
  expect(await formattedText('b.tsx', once)).toBe(once);
});
