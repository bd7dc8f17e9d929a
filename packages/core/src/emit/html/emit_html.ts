import type { Variable } from '../../model/app.ts';
import type { Value } from '../../expression/expression.ts';
import { drawnRecords } from '../../records/expression_names.ts';
import { valuesOfVariables } from '../../variables/variables.ts';
import { derivedRules, initialOf, type NamedVariable, namedVariables } from '../named_variables.ts';
import { kebabCase, sentenceCase, uniqueName } from '../../model/names.ts';
import { isUsed, overlayOf, type Project } from '../../model/project.ts';
import { fillRoute } from '../../paths/pattern.ts';
import type { EmittedFile, EmittedProject } from '../emitted.ts';
import { assetFile, assetsOf } from '../form/assets.ts';
import { type EmittedIcon, iconsOf } from '../form/icons.ts';
import { isElement, isText, type MarkupElement } from '../form/markup.ts';
import { EmissionPlan, emitScreenOf } from '../form/plan.ts';
import { classesIn } from '../form/components/extract.ts';
import { type Palette, paletteOf } from '../form/styles/palette.ts';
import { shareStyles } from '../form/styles/share.ts';
import type { EmissionProgress } from '../progress.ts';
import { attributes, hypertext, type Hypertext, tagged } from '../hypertext.ts';
import { named, onLines, remark, script } from '../script.ts';
import { baseCss, closedCss } from '../styles/base_css.ts';
import { classInSheet } from '../styles/class_names.ts';
import { facesUsedIn, fontCss } from '../styles/font_css.ts';
import { noticeCss } from '../styles/notice_css.ts';
import { overlaysCss } from '../styles/overlays_css.ts';
import { printRules } from '../styles/print_css.ts';
import { tokensCss } from '../styles/tokens_css.ts';
import { transitionsCss } from '../styles/transitions_css.ts';
import { wayTo } from '../paths.ts';
import { Pages } from './pages.ts';
import { PageScript } from './page_script.ts';
import { hashInAddress } from './print_html.ts';
import { openParts, type PageContext, type PageLine, printMarkup } from './print_page.ts';
import { runtime } from './runtime_texts.ts';

type RuntimeFile = keyof typeof runtime;

/** Other parts of the runtime that each of them takes. */
const TAKES: Readonly<Partial<Record<RuntimeFile, readonly RuntimeFile[]>>> = {
  'go.js': ['arrival.js'],
  'guard.js': ['state.js'],
};

/** A drawing stands in the file of all drawings from so many uses on. */
const LEAST_USES = 2;

/**
 * Writes the whole project as plain pages: HTML, CSS and ES modules without anything to install or build. Each route is a
 * page; the browser plays the transitions between them. Same input, same bytes.
 */
export function emitHtml(project: Project, name: string, tell?: EmissionProgress): EmittedProject {
  return new Site(new EmissionPlan(project, { isStill: true }), name).emit(tell);
}

class Site {
  readonly #plan: EmissionPlan;
  readonly #name: string;
  readonly #pages: Pages;
  readonly #files: EmittedFile[] = [];
  readonly #assets = new Set<string>();
  readonly #runtime = new Set<RuntimeFile>();
  /** Keys of the screens and overlays, by which their rules are known. */
  readonly #shown: readonly string[];
  readonly #styles: ReturnType<typeof shareStyles>;
  readonly #palette: Palette;
  readonly #icons: ReadonlyMap<string, EmittedIcon>;
  readonly #iconOf: (node: MarkupElement) => EmittedIcon | null;
  readonly #faces: ReturnType<typeof facesUsedIn>;
  readonly #tokens: string;
  /** Names of overlays in files, by the name in code. */
  readonly #overlays: ReadonlyMap<string, { readonly key: string; readonly file: string }>;
  /** What the variables are when the app opens, by their names. */
  readonly #initial: Readonly<Record<string, Value>>;

  constructor(plan: EmissionPlan, name: string) {
    const { app } = plan.project;
    this.#plan = plan;
    this.#name = name;
    this.#initial = valuesOfVariables(app, new Map(), drawnRecords(plan.project));
    this.#pages = new Pages(plan.screens.map((key) => app.screens[key].route));
    this.#shown = [...plan.screens, ...plan.overlays.keys()];
    this.#styles = shareStyles(
      this.#shown.map((key) => {
        const { root, rules } = emitScreenOf(plan, key);
        const used = classesIn(root);
        return {
          id: key,
          rules: rules.filter(({ className }) => used.has(className)),
          isEverywhere: plan.overlays.has(key),
        };
      }),
      undefined,
      { isNamed: (key) => app.layers[key]?.name !== undefined, isFlat: true },
    );
    this.#palette = paletteOf(
      [...this.#styles.rules, ...[...this.#styles.files.values()].flatMap(({ rules }) => rules)],
      (taken) => Object.hasOwn(app.tokens, taken),
    );
    this.#tokens = tokensCss(app, this.#palette);
    this.#faces = facesUsedIn(
      this.#shown.map((key) => emitScreenOf(plan, key)),
      plan.project.design.fonts ?? [],
    );
    const icons = iconsOf(
      this.#shown.map((key) => emitScreenOf(plan, key).root),
      () => false,
    );
    const uses = new Map<string, number>();
    const count = (node: MarkupElement): void => {
      const icon = icons.of(node);
      if (icon) uses.set(icon.name, (uses.get(icon.name) ?? 0) + 1);
      else for (const child of node.children) if (isElement(child)) count(child);
    };
    for (const key of this.#shown) count(emitScreenOf(plan, key).root);
    this.#icons = new Map(
      icons.all.flatMap((icon) =>
        (uses.get(icon.name) ?? 0) >= LEAST_USES
          ? [[icon.name, { ...icon, name: kebabCase(icon.name) }] as const]
          : [],
      ),
    );
    this.#iconOf = (node) => this.#icons.get(icons.of(node)?.name ?? '') ?? null;
    const taken = new Set<string>();
    this.#overlays = new Map(
      [...plan.overlays].map(([key, code]) => {
        const file = uniqueName(kebabCase(app.screens[key].name) || 'overlay', (one) => taken.has(one));
        taken.add(file);
        return [code, { key, file }];
      }),
    );
  }

  emit(tell?: EmissionProgress): EmittedProject {
    const plan = this.#plan;
    const { app } = plan.project;
    const fileOfScreen = new Map<string, string>();
    plan.screens.forEach((key, i) => {
      tell?.(i, plan.screens.length);
      const route = app.screens[key].route;
      const folder = this.#pages.folderOf(route);
      const file = route === '/*' ? '404.html' : `${folder}index.html`;
      fileOfScreen.set(key, file);
      this.#page(key, route === '/*' ? '' : folder, file);
    });
    for (const { key, file } of this.#overlays.values()) {
      fileOfScreen.set(key, `overlays/${file}.css`);
      this.#sheet(`overlays/${file}.css`, key, '../');
    }
    this.#redirects(new Set(fileOfScreen.values()));
    this.#around();
    tell?.(plan.screens.length, plan.screens.length);
    const files = [...this.#files].sort((a, b) => (a.path < b.path ? -1 : 1));
    return { files, fileOfScreen };
  }

  #text(path: string, text: string): void {
    this.#files.push({ path, text });
  }

  #page(key: string, folder: string, file: string): void {
    const plan = this.#plan;
    const { app } = plan.project;
    const root = wayTo(folder, '');
    const script = new PageScript(app.delivery.logic !== 'without');
    const body = printMarkup(emitScreenOf(plan, key).root, 2, this.#context(key, folder, script));
    const overlays = this.#overlaysOn(key, folder, script);
    const page = file === '404.html' ? 'not-found' : 'page';
    const hasSheet = this.#sheet(`${folder}${page}.css`, key, root);
    const hasParts = body.some(({ text }) => text.includes('data-discloses='));
    const hasForm = body.some(({ text }) => text.includes('<form'));
    const { guard } = app.screens[key];
    const condition = guard && plan.variables.get(guard.condition);
    const otherwise = guard && isUsed(plan.project, guard.otherwise) ? app.screens[guard.otherwise] : null;
    const isGuarded = guard !== undefined && condition !== undefined && otherwise !== null;
    const modules = [
      'go.js',
      ...(hasForm ? ['forms.js'] : []),
      ...(overlays.length ? ['overlays.js'] : []),
      ...(hasParts ? ['disclosures.js'] : []),
    ] as const;
    for (const one of ['arrival.js', ...modules, ...script.modules, ...(isGuarded ? ['guard.js'] : [])])
      this.#take(one as RuntimeFile);
    if (!script.isEmpty)
      this.#files.push({
        path: `${folder}${page}.js`,
        ...script.print(`${root || './'}app/`, `./${page}.logic.js`),
        screen: key,
      });
    if (script.hooks.length)
      this.#files.push(
        pageLogic(`${folder}${page}.logic.js`, `${root || './'}app/logic.js`, script.hooks, key),
      );
    const guarding = isGuarded
      ? attributes([
          ['data-guard', condition],
          ...(guard.is ? [] : [['data-guard-is', 'false'] as const]),
          [
            'data-otherwise',
            this.#pages.linkTo(folder, fillRoute(otherwise.route, otherwise.params ?? {})).href,
          ],
        ])
      : [];
    const head: Hypertext[] = [
      hypertext`<!doctype html>`,
      hypertext`<html lang="en"${guarding}>`,
      hypertext`  <head>`,
      hypertext`    <meta charset="utf-8" />`,
      hypertext`    <meta name="viewport" content="width=device-width, initial-scale=1" />`,
      hypertext`    <title>${app.screens[key].name}</title>`,
      ...this.#sheets(overlays).map((sheet) => linked(`${root}${sheet}`)),
      ...(script.modules.includes('notices.js') ? [linked(`${root}styles/notice.css`)] : []),
      ...(hasSheet ? [linked(`${page}.css`)] : []),
      scriptOf(`${root}app/arrival.js`, true),
      ...(isGuarded ? [scriptOf(`${root}app/guard.js`, true)] : []),
      ...modules.map((one) => scriptOf(`${root}app/${one}`)),
      ...(script.isEmpty ? [] : [scriptOf(`${page}.js`)]),
      hypertext`  </head>`,
      hypertext`  <body>`,
    ];
    const lines: PageLine[] = [
      ...head.map(({ text }) => ({ text, key: null })),
      ...body,
      ...overlays.flatMap(({ lines: own }) => own),
      { text: '  </body>', key: null },
      { text: '</html>', key: null },
    ];
    this.#files.push({
      path: file,
      text: `${lines.map(({ text }) => text).join('\n')}\n`,
      lines: lines.map((line) => line.key),
      screen: key,
    });
  }

  #context(key: string, folder: string, script: PageScript): PageContext {
    const { rules, root: markup } = emitScreenOf(this.#plan, key);
    const byName = new Map(rules.map((rule) => [rule.className, rule]));
    const root = wayTo(folder, '');
    return {
      linkTo: (address) => this.#pages.linkTo(folder, address),
      assetUrl: (hash) => {
        this.#assets.add(hash);
        return `${root}assets/${assetFile(this.#plan.project, hash)}`;
      },
      classes: this.#styles.files.get(key)!.classes,
      ruleOf: (className) => byName.get(className),
      iconOf: this.#iconOf,
      icons: `${root}assets/icons.svg`,
      script,
      variables: this.#initial,
      open: openParts(markup),
    };
  }

  /** What opens over a screen, and over what opens over it: it stands on its page, closed. */
  #overlaysOn(key: string, folder: string, script: PageScript) {
    const { app } = this.#plan.project;
    const made: { readonly key: string; readonly file: string; readonly lines: readonly PageLine[] }[] = [];
    const done = new Set<string>();
    // Those with an address can be open when one comes.
    for (const [code, overlay] of this.#overlays) {
      const { url, over = [] } = overlayOf(app.screens[overlay.key]);
      if (url && (over.length === 0 || over.includes(key))) script.opens.add(code);
    }
    for (let open = [...script.opens]; open.length; open = [...script.opens].filter((one) => !done.has(one)))
      for (const code of open) {
        done.add(code);
        const { key: own, file } = this.#overlays.get(code)!;
        const { kind, side, modal, escape, outside, url, ms } = overlayOf(app.screens[own]);
        const isDialog = kind === 'dialog' || kind === 'drawer' || kind === 'sheet';
        const said: Readonly<Record<string, string | boolean | undefined>> = {
          id: `overlay-${code}`,
          class: 'overlay',
          'aria-label': app.screens[own].name,
          role: isDialog ? false : kind === 'toast' ? 'status' : kind === 'menu' ? 'menu' : 'dialog',
          popover: !isDialog && 'manual',
          'data-kind': kind,
          'data-side': side,
          'data-modal': modal,
          'data-escape': escape,
          'data-outside': outside,
          'data-address': url,
          'data-ms': ms ? String(ms) : false,
        };
        const tag = tagged(isDialog ? 'dialog' : 'div');
        const opening = attributes(
          Object.entries(said).flatMap(([name, value]) => (value ? [[name, value] as const] : [])),
        );
        const { root } = emitScreenOf(this.#plan, own);
        made.push({
          key: own,
          file: `overlays/${file}.css`,
          lines: [
            { text: hypertext`    <${tag}${opening}>`.text, key: root.key },
            ...printMarkup(root, 3, this.#context(own, folder, script)),
            { text: hypertext`    </${tag}>`.text, key: root.key },
          ],
        });
      }
    return made;
  }

  #sheets(overlays: readonly { readonly key: string; readonly file: string }[]): string[] {
    return [
      'styles/base.css',
      ...(this.#faces.length ? ['styles/fonts.css'] : []),
      ...(this.#tokens ? ['styles/tokens.css'] : []),
      'styles/transitions.css',
      ...(this.#styles.rules.length ? ['styles/shared.css'] : []),
      ...(overlays.length ? ['styles/overlays.css'] : []),
      ...overlays.flatMap(({ key, file }) => (this.#styles.files.get(key)!.rules.length ? [file] : [])),
    ];
  }

  /** @param root from the sheet to the root of the site */
  #sheet(path: string, key: string, root: string): boolean {
    const { rules } = this.#styles.files.get(key)!;
    if (!rules.length) return false;
    this.#files.push({ path, ...this.#rules(rules, root), screen: key });
    return true;
  }

  #rules(rules: Parameters<typeof printRules>[0], root: string) {
    return printRules(
      rules,
      (name) => `.${classInSheet(name)}`,
      (address) => {
        const hash = hashInAddress(address);
        this.#assets.add(hash);
        return `${root}assets/${assetFile(this.#plan.project, hash)}`;
      },
      this.#palette,
    );
  }

  #take(file: RuntimeFile): void {
    if (this.#runtime.has(file)) return;
    this.#runtime.add(file);
    for (const other of TAKES[file] ?? []) this.#take(other);
  }

  /** Pages that lead on: old addresses, and the root where no screen lives there. */
  #redirects(taken: ReadonlySet<string>): void {
    const { app } = this.#plan.project;
    const targets = Object.entries(app.redirects).flatMap(([from, { to }]) => {
      const entry = app.screens[to];
      return entry && isUsed(this.#plan.project, to)
        ? [[new Pages([from]).folderOf(from), fillRoute(entry.route, entry.params ?? {})] as const]
        : [];
    });
    for (const [folder, to] of [...targets, ['', this.#plan.start] as const]) {
      const path = `${folder}index.html`;
      if (taken.has(path) || this.#files.some((file) => file.path === path)) continue;
      const { href } = this.#pages.linkTo(folder, to);
      if (href === './') continue;
      this.#text(
        path,
        hypertext`<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <title>${this.#name}</title>
    <meta http-equiv="refresh" content="${`0; url=${href}`}" />
  </head>
  <body>
    <p><a href="${href}">${this.#name}</a></p>
  </body>
</html>
`.text,
      );
    }
  }

  /** What all pages share, and what is said of them. */
  #around(): void {
    const plan = this.#plan;
    const { app } = plan.project;
    const faces = this.#faces;
    this.#text('styles/base.css', baseCss + (plan.hasParts ? closedCss : ''));
    this.#text(
      'styles/transitions.css',
      `@view-transition {\n  navigation: auto;\n}\n\n${transitionsCss(plan.sharedNames())}`,
    );
    if (this.#overlays.size) this.#text('styles/overlays.css', overlaysCss);
    if (this.#runtime.has('notices.js')) this.#text('styles/notice.css', noticeCss);
    if (this.#tokens) this.#text('styles/tokens.css', this.#tokens);
    if (faces.length) {
      for (const { asset } of faces) this.#assets.add(asset);
      this.#text(
        'styles/fonts.css',
        fontCss(faces, (hash) => `../assets/${assetFile(plan.project, hash)}`),
      );
    }
    if (this.#styles.rules.length)
      this.#files.push({ path: 'styles/shared.css', ...this.#rules(this.#styles.rules, '../') });
    if (this.#icons.size) this.#text('assets/icons.svg', drawings([...this.#icons.values()]));
    if (plan.variables.size) this.#take('state.js');
    for (const file of this.#runtime) this.#text(`app/${file}`, runtime[file]);
    if (plan.variables.size) this.#text('app/variables.js', this.#variables());
    if (!plan.screens.some((key) => app.screens[key].route === '/*'))
      this.#text('404.html', notFound(this.#name));
    for (const key of this.#shown)
      for (const hash of assetsOf(emitScreenOf(plan, key))) this.#assets.add(hash);
    for (const hash of this.#assets)
      this.#files.push({ path: `assets/${assetFile(plan.project, hash)}`, asset: hash });
    this.#text('README.md', this.#readme());
  }

  #variables(): string {
    const all = namedVariables(this.#plan).map((one) => this.#still(one));
    const lines = all.map(
      ({ name, variable }) =>
        script`  /** ${remark(sentenceCase(variable.name))}. */\n  ${named(name)}: ${initialOf(variable)},`,
    );
    const kept = all.filter(({ variable }) => variable.kept && variable.says === undefined);
    const { rules, callsFunctions } = derivedRules(all);
    if (callsFunctions) this.#text('app/calc.js', runtime['calc.js']);
    return script`${callsFunctions ? script`import * as calc from './calc.js';\n\n` : script``}/** What the app remembers, as it is when it opens. */
export const initial = {
${onLines(lines)}
};

/** For how long each is remembered; while the tab is open where nothing is said. @type {Record<string, string>} */
export const kept = { ${kept.map(({ name, variable }) => script`${named(name)}: ${variable.kept!}`)} };

/** What is worked out from others. @type {Record<string, (now: typeof initial) => unknown>} */
export const derived = {${rules.length ? script`\n${onLines(rules.map((rule) => script`  ${rule},`))}\n` : script``}};
`.text;
  }

  /** A page has no records: what is worked out from them stays what it is at first. */
  #still(one: NamedVariable): NamedVariable {
    if (!one.derived?.looksAt.length) return one;
    const { derived: _derived, variable, name } = one;
    return { name, variable: { ...variable, initial: this.#initial[name] as Variable['initial'] } };
  }

  #readme(): string {
    const { app } = this.#plan.project;
    const rows = this.#plan.screens.map((key) => {
      const { name, route } = app.screens[key];
      return `- ${name}: \`${route === '/*' ? '404.html' : `${this.#pages.folderOf(route)}index.html`}\``;
    });
    return `# ${this.#name}

Written by Tovel from its screens: plain HTML, CSS and ES modules. There is nothing to install and nothing to build. Any file
server shows it, for example \`npx serve .\` or \`python3 -m http.server\`.

## Pages

${rows.join('\n')}

## Where things are

- a folder a page, with its \`page.css\` and, where it does more than lead somewhere, its \`page.js\`
- \`page.logic.js\`: yours, written once and never again: what is done before, after or instead of what people do on a page
- \`styles/\`: what pages share; \`overlays/\`: the styles of what opens over them
- \`app/\`: links, going back, how screens arrive, and what opens over them
- \`assets/\`: pictures and fonts; \`assets/icons.svg\` holds drawings that recur
- \`flow-sheet.txt\`: all that the app does, a line a link; \`ci.sh\`: what continuous integration runs

What varies in an address stands in its query: \`/tools/:toolId\` is \`tools/tool-id/?toolId=…\`.
`;
  }
}

const linked = (href: string): Hypertext => hypertext`    <link rel="stylesheet" href="${href}" />`;

/** The file in which people hook in around what a page does. */
const pageLogic = (
  path: string,
  runtimeFile: string,
  [first, ...others]: readonly string[],
  key: string,
) => ({
  path,
  text: `/**
 * Yours: written once, and never again. What is done before, after or instead of what people do on
 * this page, as in \`{ ${first}: { before: () => window.confirm('Sure?') } }\`. Known here:
 * ${[first, ...others].join(', ')}.
 *
 * @type {Record<string, import('${runtimeFile}').Hook>}
 */
export const logic = {};
`,
  lines: Array<string>(9).fill(key),
  screen: key,
  owner: 'yours' as const,
});

const scriptOf = (src: string, blocks = false): Hypertext => {
  const blocking = blocks ? attributes([['blocking', 'render']]) : [];
  return hypertext`    <script type="module" src="${src}"${blocking}></script>`;
};

const notFound = (name: string): string =>
  hypertext`<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>${name}: there is no such page</title>
    <link rel="stylesheet" href="styles/base.css" />
  </head>
  <body>
    <main>
      <h1>There is no such page</h1>
      <p><a href="./">Go to the start</a></p>
    </main>
  </body>
</html>
`.text;

/** Drawings that recur, in one file, each by its name. */
function drawings(icons: readonly EmittedIcon[]): string {
  const print = (node: MarkupElement['children'][number]): Hypertext => {
    if (!isElement(node)) return hypertext`${isText(node) ? node.text : ''}`;
    const opening = attributes(
      Object.entries(node.attributes).map(([one, value]) => [one, value === true ? '' : value]),
    );
    const tag = tagged(node.tag);
    return node.children.length
      ? hypertext`<${tag}${opening}>${node.children.map(print)}</${tag}>`
      : hypertext`<${tag}${opening} />`;
  };
  const all = icons.map(({ name, node }) => hypertext`  <g id="${name}">${node.children.map(print)}</g>\n`);
  return hypertext`<svg xmlns="http://www.w3.org/2000/svg">\n${all}</svg>\n`.text;
}
