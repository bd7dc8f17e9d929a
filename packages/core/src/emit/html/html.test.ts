import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import fc from 'fast-check';
import {
  all,
  applyChange,
  putVariable,
  putInteraction,
  putRedirect,
  putScreen,
} from '../../change/change.ts';
import { pressablesOf } from '../../links/pressable.ts';
import { DELIVERY } from '../../model/app.ts';
import type { Screen } from '../../model/design.ts';
import type { Interaction } from '../../model/interaction.ts';
import type { Project } from '../../model/project.ts';
import { projectOf, screenOf, screenWith, svg } from '../../testing/build.ts';
import { pageProblems } from '../../testing/page_problems.ts';
import { richReading } from '../../testing/rich_page.ts';
import { shown } from '../../testing/shown.ts';
import { assembleScreen } from '../../intake/html/assemble.ts';
import { EmissionPlan, emitScreenOf } from '../form/plan.ts';
import { targets } from '../targets.ts';
import { emitHtml } from './emit_html.ts';
import { Pages, relative } from './pages.ts';
import { printHtml } from './print_html.ts';
import { runtime } from './runtime_texts.ts';

test.each([
  ['/', ''],
  ['/tools', 'tools/'],
  ['/tools/:toolId', 'tools/tool-id/'],
  ['/loans/:loanId?', 'loans/'],
  ['/help/*', 'help/rest/'],
])('the page of %s lies in “%s”', (route, folder) => {
  expect(new Pages([route]).folderOf(route)).toBe(folder);
});

const pages = new Pages(['/', '/tools', '/tools/:toolId', '/tools/:toolId/reserve', '/loans/:loanId?']);
test.each([
  ['', '/', './', []],
  ['', '/tools', 'tools/', []],
  ['tools/', '/', '../', []],
  ['tools/', '/tools/saw', 'tool-id/?toolId=saw', []],
  ['tools/tool-id/', '/tools/:toolId/reserve', 'reserve/', ['toolId']],
  ['tools/', '/loans/7?sort=due#at-top', '../loans/?loanId=7&sort=due#at-top', []],
  ['tools/', '/nowhere', '../', []],
])('from “%s” %s is %s', (from, to, href, keeps) => {
  expect(pages.linkTo(from, to)).toEqual({ href, keeps });
});

test('a way from folder to folder leads there', () => {
  const folder = fc
    .array(fc.constantFrom('a', 'b', 'c'), { maxLength: 4 })
    .map((parts) => parts.map((part) => `${part}/`).join(''));
  fc.assert(
    fc.property(folder, folder, (from, to) => {
      expect(new URL(relative(from, to), `http://x/${from}`).pathname).toBe(`/${to}`);
    }),
  );
});

/** A page with a bit of everything, as it comes from a browser. */
const richPage = assembleScreen(
  { file: 'rich.html', screenKey: 'rich', title: 'Rich', asset: () => null },
  richReading(),
).screen;

const textOf = (project: Project, file: string): string => {
  const found = emitHtml(project, 'App').files.find((one) => one.path === file);
  return found && 'text' in found ? found.text : '';
};

const wired = (screen: Screen, label: string, interaction: Interaction) =>
  putInteraction(pressablesOf(screen).find((one) => one.label === label)!.element.key, interaction);
const plain = { kind: 'none' } as const;
const home = screenWith('home', 'Lend', 'Ask', 'Back', 'Shop', 'Sign in');
const list = screenWith('list', 'Close', 'Home');
const ask = screenWith('ask', 'Keep');
const project = ((): Project => {
  const made = projectOf(home, list, ask);
  const { ask: entry, list: listed } = made.app.screens;
  const changes = all([
    putVariable('signed-in', { name: 'signed in', initial: false }),
    putScreen('ask', {
      ...entry,
      use: 'overlay',
      overlay: { kind: 'dialog', modal: true, escape: true, outside: true, over: [] },
    }),
    putScreen('list', {
      ...listed,
      route: '/tools/:toolId',
      params: { toolId: 'saw' },
      guard: { condition: 'signed-in', is: true, otherwise: 'home' },
    }),
    putRedirect('/old', { to: 'list' }),
    wired(home, 'Lend', {
      on: 'press',
      target: { kind: 'screen', screen: 'list' },
      arrival: { kind: 'slide', from: 'right', ms: 240, easing: 'ease-out' },
    }),
    wired(home, 'Ask', { on: 'press', target: { kind: 'open', overlay: 'ask' }, arrival: plain }),
    wired(home, 'Back', { on: 'press', target: { kind: 'back' }, arrival: plain }),
    wired(home, 'Shop', {
      on: 'press',
      target: { kind: 'external', href: 'https://example.org/' },
      arrival: plain,
    }),
    wired(home, 'Sign in', {
      on: 'press',
      before: [{ kind: 'set', condition: 'signed-in', value: true }],
      target: { kind: 'screen', screen: 'list' },
      arrival: plain,
    }),
    wired(ask, 'Keep', { on: 'press', target: { kind: 'close' }, arrival: plain }),
  ]);
  return { ...made, app: applyChange(made.app, changes) };
})();

test('links are links, with how the next screen arrives; what does more is said in the page’s own module', () => {
  const { route } = project.app.screens['home'];
  const folder = new Pages([route]).folderOf(route);
  const page = textOf(project, `${folder}index.html`);
  expect(page).toMatch(/<a\s+href="[^"]*tools\/tool-id\/\?toolId=saw"\s+data-arrival="slide right 240ms"/);
  expect(page).toMatch(/href="https:\/\/example.org\/"/);
  expect(page).toMatch(/data-back="[^"]*"/);
  expect(page).toMatch(/<dialog\s[^>]*id="overlay-ask"/);
  const script = textOf(project, `${folder}page.js`);
  expect(script).toContain("press: hooked(logic.ask, () => open('ask'))");
  expect(script).toContain("set('signedIn', true); go(");
  expect(script).toContain('press: hooked(logic.keep, () => close())');
  expect(script).toContain("import { logic } from './page.logic.js';");
  expect(textOf(project, `${folder}page.logic.js`)).toContain('Known here:\n * ask, signIn, keep.');
  expect(textOf(project, 'app/variables.js')).toContain('signedIn: false');
});

test('a guarded page leads on before it is shown, and an old address to the new one', () => {
  const page = textOf(project, 'tools/tool-id/index.html');
  expect(page).toMatch(/<html lang="en" data-guard="signedIn" data-otherwise="[^"]+">/);
  expect(page).toContain('app/guard.js" blocking="render"');
  expect(textOf(project, 'old/index.html')).toContain('url=../tools/tool-id/?toolId=saw');
});

test('only what is used is delivered, and nothing that is not there is asked for', () => {
  const bare = emitHtml(projectOf(screenWith('home', 'One')), 'App').files.map((file) => file.path);
  expect(bare.filter((file) => file.startsWith('app/'))).toEqual(['app/arrival.js', 'app/go.js']);
  for (const one of [project, projectOf(richPage)]) {
    const { files } = emitHtml(one, 'App');
    const there = new Set(files.map((file) => file.path));
    const asked = files.flatMap((file) =>
      'text' in file && /\.(html|js)$/.test(file.path)
        ? [...file.text.matchAll(/(?:<script[^>]* src|<link[^>]* href|from )=?['"]([^'"]+)['"]/g)].map(
            ([, to]) => path.posix.join(path.posix.dirname(file.path), to),
          )
        : [],
    );
    expect(asked.filter((file) => !there.has(file))).toEqual([]);
    expect(pageProblems({ files, fileOfScreen: new Map() })).toEqual([]);
  }
});

test.each([
  ['drawn rows', screenWith('home', 'One', 'Two', 'Three')],
  ['a page of all kinds', richPage],
  [
    'lines of text that are kept',
    screenOf(
      svg(
        '<text x="9" y="40" font-size="16"><tspan x="9">One</tspan><tspan x="9" dy="20">two</tspan></text>',
      ),
    ),
  ],
])('a page shows what its picture shows: %s', (_, screen) => {
  const one = projectOf(screen);
  const plan = new EmissionPlan(one);
  const picture = printHtml(emitScreenOf(plan, screen.key), (hash) => hash);
  const { files, fileOfScreen } = emitHtml(one, 'App');
  const page = files.find((file) => file.path === fileOfScreen.get(screen.key))!;
  expect(shown('text' in page ? page.text : '')).toEqual(shown(picture));
});

test('the runtime is that of the files', () => {
  const folder = path.join(import.meta.dirname, 'runtime');
  const files = readdirSync(folder).filter((name) => name.endsWith('.js') && name !== 'variables.js');
  expect(Object.keys(runtime).sort()).toEqual([...files, 'calc.js'].sort());
  for (const [name, text] of Object.entries(runtime))
    if (name !== 'calc.js') expect(text).toBe(readFileSync(path.join(folder, name), 'utf8'));
  // What expressions call is what they call everywhere, without its types.
  const typed = readFileSync(path.join(import.meta.dirname, '../../expression/functions.ts'), 'utf8');
  expect(runtime['calc.js']).toBe(
    ts.transpileModule(typed, {
      compilerOptions: { target: ts.ScriptTarget.ES2023, module: ts.ModuleKind.ESNext },
    }).outputText,
  );
});

test('what code can be written as is what there is', () => {
  expect(Object.keys(targets)).toEqual([...DELIVERY.target]);
});
