import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Plugin } from 'prettier';
import { createSSRApp, defineComponent, h } from 'vue';
import * as babel from 'prettier/plugins/babel';
import * as estree from 'prettier/plugins/estree';
import * as html from 'prettier/plugins/html';
import * as postcss from 'prettier/plugins/postcss';
import * as typescript from 'prettier/plugins/typescript';
import { format } from 'prettier/standalone';
import { parse } from 'vue/compiler-sfc';
import { renderToString } from 'vue/server-renderer';
import { applyChange } from '../../change/change.ts';
import { assembleScreen } from '../../intake/html/assemble.ts';
import { surelyShared } from '../../layouts/propose.ts';
import type { Project } from '../../model/project.ts';
import { partedAtFirst } from '../../project/part_first.ts';
import { behaving } from '../../testing/behaving.ts';
import { projectOf, screenOf, screenWith, svg } from '../../testing/build.ts';
import { richReading } from '../../testing/rich_page.ts';
import { shown } from '../../testing/shown.ts';
import { TABS, tabbed, wired } from '../../testing/tabbed.ts';
import { vueProblems } from '../../testing/vue_problems.ts';
import { EmissionPlan, emitScreenOf } from '../form/plan.ts';
import { printHtml } from '../html/print_html.ts';
import { emitVue } from './emit_vue.ts';
import { printVue } from './print_vue.ts';
import { vuePath } from './routes_file.ts';
import { runtime } from './runtime_texts.ts';

/** A page with a bit of everything, as it comes from a browser. */
const richPage = assembleScreen(
  { file: 'rich.html', screenKey: 'rich', title: 'Rich', asset: () => null },
  richReading(),
).screen;

const textOf = (project: Project, file: string): string => {
  const found = emitVue(project, 'App').files.find((one) => one.path === file);
  return found && 'text' in found ? found.text : '';
};

test.each<[string, Project]>([
  ['all that elements can do', behaving()],
  [
    'a bar that screens share',
    ((): Project => {
      const made = wired(...TABS.map((name) => tabbed(name)));
      return { ...made, app: applyChange(made.app, surelyShared(made)) };
    })(),
  ],
  ['a page with a bit of everything', projectOf(richPage)],
])('the code of %s compiles', (_, project) => {
  const parted = { ...project, app: applyChange(project.app, partedAtFirst(project)) };
  const kebab = { ...project, app: { ...project.app, delivery: { naming: 'kebab' as const } } };
  expect(vueProblems([project, parted, kebab].map((one) => emitVue(one, 'App')))).toEqual([]);
});

test('what a component is not given, where it has it by itself, is said', () => {
  const use = { component: 'Card', props: { isNew: true, hasBadge: false, name: 'Saw' } };
  const { text } = printVue(
    { tag: 'b', key: null, className: null, attributes: {}, children: [], use },
    {
      sheet: 'A',
      classes: new Map(),
      iconOf: () => null,
      source: '..',
      components: '.',
      isTaken: () => false,
      assetImport: () => ({ name: 'x', path: 'y' }),
    },
  );
  expect(text).toContain('<Card is-new :has-badge="false" name="Saw" />');
});

test('the runtime is that of the files', () => {
  const folder = path.join(import.meta.dirname, 'runtime');
  const standIns = ['overlays/overlays.ts', 'routes.ts', 'styles.d.ts'];
  const files = readdirSync(folder, { recursive: true })
    .map(String)
    .filter((name) => /\.(ts|vue)$/.test(name) && !standIns.includes(name));
  expect(Object.keys(runtime).sort()).toEqual(files.sort());
  for (const [name, text] of Object.entries(runtime))
    expect(text).toBe(readFileSync(path.join(folder, name), 'utf8'));
});

test.each([
  ['/', '/'],
  ['/tools/:toolId', '/tools/:toolId'],
  ['/loans/:loanId?', '/loans/:loanId?'],
  ['/help/*', '/help/:rest(.*)*'],
  ['/a(b)', '/a\\(b\\)'],
])('the path %s is written %s', (route, written) => {
  expect(vuePath(route)).toBe(written);
});

test('what is guarded looks before it is shown, old addresses lead on, and a layout of its own leads into itself', () => {
  const routes = textOf(behaving(), 'src/routes.ts');
  expect(routes).toMatch(
    /beforeEnter: \(to\) => variables\.\w+(?: === false)? \|\| fill\('[^']+', to\.params\)/,
  );
  expect(routes).toMatch(/redirect: /);
  const made = wired(...TABS.map((name) => tabbed(name)));
  const shared = textOf({ ...made, app: applyChange(made.app, surelyShared(made)) }, 'src/routes.ts');
  expect(shared).toMatch(/path: '\/[\w-]*layout[\w-]*', redirect: '\/\w+', component: \w+, children: \[/);
});

/** What a single-file component shows, rendered on its own: links and drawings are told by their tags. */
async function rendered(text: string): Promise<string> {
  const { descriptor } = parse(text);
  const names = [...text.matchAll(/^import (\w+) from '[^']+\.vue';$/gm)].map(([, name]) => name);
  const tagOf = (name: string): string => ({ Go: 'a', Back: 'button' })[name] ?? 'svg';
  const components = Object.fromEntries(
    names.map((name) => [
      name,
      defineComponent({
        setup:
          (_props, { slots, attrs }) =>
          () =>
            h(
              tagOf(name),
              {
                ...(name === 'Back' ? { type: 'button' } : {}),
                ...attrs,
                to: undefined,
                fallback: undefined,
              },
              slots.default?.(),
            ),
        inheritAttrs: false,
      }),
    ]),
  );
  const classes = new Proxy({}, { get: (_target, name) => String(name), has: () => true });
  return renderToString(
    createSSRApp({
      template: descriptor.template!.content,
      components,
      setup: () => ({ styles: classes, shared: classes }),
    }),
  );
}

test.each([
  ['drawn rows', screenWith('home', 'One', 'Two', 'Three')],
  ['a page of all kinds', richPage],
  [
    'text with what a template means something by',
    screenOf(svg('<text x="9" y="40" font-size="16">{{ secret }} &lt;b&gt; &amp;amp; }} v-if</text>')),
  ],
  [
    'lines of text that are kept',
    screenOf(
      svg(
        '<text x="9" y="40" font-size="16"><tspan x="9">One</tspan><tspan x="9" dy="20">two</tspan></text>',
      ),
    ),
  ],
  [
    'lines of code',
    screenOf(
      svg(
        `<text x="9" y="40" font-size="16"><tspan x="9">&lt;ul class="a"&gt; &amp;lt; 1 &lt; 2 &amp;&amp; 'it’s'</tspan><tspan x="9" dy="20">&lt;/u&gt;</tspan></text>`,
      ),
    ),
  ],
])('a screen shows what its picture shows: %s', async (_, screen) => {
  const one = projectOf(screen);
  const picture = printHtml(emitScreenOf(new EmissionPlan(one), screen.key), (hash) => hash);
  const { files, fileOfScreen } = emitVue(one, 'App');
  const file = files.find(({ path: at }) => at === fileOfScreen.get(screen.key))!;
  expect(shown(await rendered('text' in file ? file.text : ''))).toEqual(shown(picture));
});

test('lines of code are no tags for the formatter', async () => {
  const lines = `<text x="9" y="40" font-size="16"><tspan x="9">&lt;ul&gt;</tspan><tspan x="9" dy="20">&lt;/u&gt;</tspan></text>`;
  const { files, fileOfScreen } = emitVue(projectOf(screenOf(svg(lines))), 'App');
  const file = files.find(({ path }) => path === fileOfScreen.get('test'))!;
  const text = 'text' in file ? file.text : '';
  expect(text).toContain('&lt;/u>');
  const plugins = [babel, estree, html, postcss, typescript] as Plugin[];
  await expect(format(text, { parser: 'vue', plugins })).resolves.toContain('<template>');
});
