import * as babel from 'prettier/plugins/babel';
import * as estree from 'prettier/plugins/estree';
import * as html from 'prettier/plugins/html';
import * as markdown from 'prettier/plugins/markdown';
import * as postcss from 'prettier/plugins/postcss';
import * as typescript from 'prettier/plugins/typescript';
import { check } from 'prettier/standalone';
import { all, applyChange, putDelivery, putJourney } from '../../change/change.ts';
import { behaving } from '../../testing/behaving.ts';
import { typeErrors } from '../../testing/typecheck.ts';
import { deliveredCode } from '../../delivery/delivered_code.ts';
import { emitReact } from './emit_react.ts';

const project = behaving();
const withJourney = {
  ...project,
  app: applyChange(project.app, putJourney('j1', { name: 'Look', start: 'home', steps: [] })),
};
const emitted = emitReact(withJourney, 'Behaving');
const files = emitted.files.flatMap((file) => ('text' in file ? [file] : []));
const textOf = (path: string): string => files.find((file) => file.path === path)?.text ?? '';

test('the code passes the compiler, strictly', () => {
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

test('all of it is handed over as Prettier gives it, and lines still know their elements', async () => {
  const { files } = await deliveredCode(withJourney, 'Made', 'react');
  const plugins = [babel, estree, html, markdown, postcss, typescript];
  const wrong: string[] = [];
  for (const file of files) {
    if (!('text' in file)) continue;
    const { path, text, lines } = file;
    if (lines) expect(lines).toHaveLength(text.split('\n').length - 1);
    if (!/\.(tsx?|css|json|html|md)$/.test(path)) continue;
    const options = { filepath: path, singleQuote: true, printWidth: 100, plugins };
    if (!(await check(text, options))) wrong.push(path);
  }
  expect(wrong).toEqual([]);
  const loans = files.find(({ path }) => path.endsWith('/Loans.tsx'))!;
  const at =
    'text' in loans ? loans.text.split('\n').findIndex((line) => line.includes("open('confirm'")) : -1;
  expect('lines' in loans && loans.lines![at]).toMatch(/^loans:/);
}, 60_000);

test.each([
  ['src/screens/SignIn/SignIn.tsx', "    setVariable('signedIn', true);\n    go('/loans');"],
  [
    'src/screens/Home/Home.tsx',
    "    if (signedIn) go('/loans');\n    else go('/sign-in', { kind: 'slide', from: 'bottom', ms: 260 });",
  ],
  ['src/screens/Home/Home.tsx', "useKey('g', "],
  ['src/screens/Home/Home.tsx', 'onDoubleClick={'],
  ['src/screens/Home/Home.tsx', 'onPointerEnter={'],
  ['src/screens/Home/Home.tsx', 'onSubmit={submitting('],
  ['src/screens/Home/Home.tsx', '{...gestures({ longPress: '],
  ['src/screens/Home/Home.tsx', 'href="mailto:desk@mossgate.example"'],
  ['src/screens/Home/Home.tsx', 'to="/tools?sort=by%20name"'],
  ['src/screens/Lost/Lost.tsx', 'useAfter(3000, '],
  ['src/screens/Tools/Tools.tsx', 'to="/tools/pillar%20drill"'],
  ['src/screens/Tools/Tools.tsx', 'data-leaves="button"'],
  ['src/screens/Tool/Tool.tsx', 'to="/tools/:toolId/reserve"'],
  ['src/screens/Tool/Tool.tsx', 'data-arrives="button"'],
  ['src/styles/transitions.css', 'view-transition-name: button;'],
  ['src/screens/Loans/Loans.tsx', "overlays.open('confirm', { kind: 'scale', ms: 120 });"],
  ['src/overlays/Confirm/Confirm.tsx', 'overlays.close();'],
  ['src/overlays/overlays.ts', "over: ['/loans'],"],
  ['src/routes.tsx', '<Guard condition="signedIn" otherwise="/sign-in">'],
  ['src/routes.tsx', '<Redirect to="/tools/:toolId" />'],
  ['src/routes.tsx', "(await import('./screens/Lost/Lost')).Lost"],
  ['src/state/variables.ts', 'signedIn: false,'],
  ['src/screens/More/More.tsx', "{...disclosure.opener('text-section')}"],
  ['src/screens/More/More.tsx', "copyText('Text');"],
  ['src/screens/More/More.tsx', 'window.print();'],
  ['src/screens/More/More.tsx', 'window.location.reload();'],
  ['src/screens/More/More.tsx', "    disclosure.close('entries-menu');\n    slidesChoice.open('two-slide');"],
  ['e2e/journeys.spec.ts', "test('Look'"],
])('%s has %j', (path, text) => {
  expect(textOf(path)).toContain(text);
});

test('every press is listed for the app’s own test, with what must hold', () => {
  const links = JSON.parse(textOf('src/links.json')) as {
    from: string;
    name: string;
    to: string;
    given?: object;
  }[];
  const of = (from: string, name: string) =>
    links.filter((link) => link.from === from && link.name === name).map(({ to, given }) => [to, given]);
  expect(of('/', 'Loans')).toEqual([
    ['/loans', { signedIn: true }],
    ['/sign-in', { signedIn: false }],
  ]);
  expect(of('/loans', 'Return')).toEqual([['confirm', { signedIn: true }]]);
  // That screen leads on at once, so that nobody sees it.
  expect(of('/tools/saw', 'Reserve')).toEqual([]);
});

test('files in small letters and dashes, and without tests, are what the compiler takes', () => {
  const behaves = behaving();
  const app = all([putDelivery('naming', 'kebab'), putDelivery('tests', 'without')]);
  const emitted = emitReact({ ...behaves, app: applyChange(behaves.app, app) }, 'Behaving');
  const paths = emitted.files.map((file) => file.path);
  expect(paths.filter((file) => /[A-Z]/.test(file))).toEqual(['README.md']);
  expect(paths.filter((file) => /test|spec|links\.json|playwright/.test(file))).toEqual([]);
  expect(paths).toContain('src/navigation/use-go.ts');
  expect([...emitted.fileOfScreen.values()].every((file) => paths.includes(file))).toBe(true);
  expect(typeErrors([emitted])).toEqual([]);
  const texts = emitted.files.flatMap((file) => ('text' in file ? [file] : []));
  expect(texts.find((file) => file.path === 'package.json')!.text).not.toMatch(/vitest|jsdom|playwright/);
});
