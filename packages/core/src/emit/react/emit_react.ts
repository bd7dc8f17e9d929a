import type { App, Component, Drawer } from '../../model/app.ts';
import { hostOf, isUsed, orderedScreens, type Project, screensByKey } from '../../model/project.ts';
import { settle } from '../../layers/settle.ts';
import { camelCase, kebabCase, pascalCase, uniqueName } from '../../model/names.ts';
import { typeExtension } from '../asset.ts';
import { baseCss } from '../base_css.ts';
import { classesIn, extractComponents, type Extraction, type Wanted } from '../components/extract.ts';
import type { Prop } from '../components/template.ts';
import { printComponent, printData } from '../components/print_component.ts';
import { printRules } from '../css.ts';
import { facesUsedIn, fontCss } from '../font_css.ts';
import type { EmittedLink, EmittedScreen, MarkupElement } from '../markup.ts';
import { isText } from '../markup.ts';
import { hashInAddress } from '../print_html.ts';
import { printTsx, quote } from '../print_tsx.ts';
import { emitScreen, emittedLink, type ScreenContext } from '../screen.ts';
import { hash } from '../../roles/shape.ts';
import { tokenCss, type TokenLookup, tokenLookup } from '../../tokens/values.ts';
import * as navigation from './navigation_files.ts';
import * as around from './project_files.ts';

/** A file of an emitted project: text with the design element of each line, or an asset by its hash. */
export type EmittedFile =
  | {
      readonly path: string;
      readonly text: string;
      readonly lines?: readonly (string | null)[];
      readonly screen?: string;
    }
  | { readonly path: string; readonly asset: string };

export interface EmittedProject {
  /** By path. */
  readonly files: readonly EmittedFile[];
  /** Key of each screen's component file, by screen key. */
  readonly fileOfScreen: ReadonlyMap<string, string>;
}

interface ScreenFiles {
  readonly context: string;
  readonly tsx: { readonly text: string; readonly lines: readonly (string | null)[] };
  readonly css: { readonly text: string; readonly lines: readonly (string | null)[] };
  /** The records of its lists. */
  readonly data?: { readonly text: string; readonly lines: readonly (string | null)[] };
  readonly dataType?: 'ts' | 'tsx';
  readonly links: readonly TestedLink[];
  readonly assets: readonly string[];
}

/** A link as the emitted test walks it. `press` counts links and buttons on the screen, from 0. */
interface TestedLink {
  readonly from: string;
  readonly press: number;
  readonly label: string;
  readonly kind: EmittedLink['kind'];
  readonly to: string;
}

/** The routes and anchors of an app, and where each wired element leads. */
export class EmissionPlan {
  readonly project: Project;
  readonly screens: readonly string[];
  readonly start: string;
  readonly #anchors = new Map<string, string>();
  readonly #tokens: NamedTokens | null;
  readonly #links = new Map<string, EmittedLink>();
  readonly #linksByScreen: ReadonlyMap<string, readonly (readonly [string, EmittedLink])[]>;
  readonly #anchorsByScreen: ReadonlyMap<string, readonly (readonly [string, string])[]>;
  readonly #drawersByScreen: ReadonlyMap<string, readonly (readonly [string, Drawer])[]>;

  constructor(drawn: Project) {
    const project = settle(drawn);
    this.#tokens = tokensOf(project.app.tokens);
    this.project = project;
    this.screens = orderedScreens(project.app).filter((key) => isUsed(project, key));
    const first =
      project.app.start && isUsed(project, project.app.start) ? project.app.start : this.screens[0];
    this.start = first ? project.app.screens[first].route : '/';
    const taken = new Set<string>();
    for (const { target } of Object.values(project.app.interactions)) {
      if (target.kind !== 'anchor' || this.#anchors.has(target.element)) continue;
      const path = target.element.slice(target.element.indexOf(':') + 1);
      const id = uniqueName(`at-${kebabCase(path) || 'top'}`, (candidate) =>
        taken.has(`${target.screen}#${candidate}`),
      );
      taken.add(`${target.screen}#${id}`);
      this.#anchors.set(target.element, id);
    }
    for (const [key, interaction] of Object.entries(project.app.interactions)) {
      const link = emittedLink(
        interaction,
        (screen) => this.routeOf(screen),
        (element) => this.anchorOf(element),
        this.start,
      );
      if (link) this.#links.set(key, link);
    }
    for (const screen of project.design.screens)
      for (const [key, same] of Object.entries(screen.aliases ?? {})) {
        const link = this.#links.get(same);
        if (link && !this.#links.has(key)) this.#links.set(key, link);
      }
    this.#linksByScreen = byHost(project, this.#links);
    this.#anchorsByScreen = byHost(project, this.#anchors);
    this.#drawersByScreen = byHost(project, new Map(Object.entries(project.app.drawers)));
  }

  routeOf(screen: string): string | null {
    return isUsed(this.project, screen) ? this.project.app.screens[screen].route : null;
  }

  anchorOf(element: string): string | null {
    return this.#anchors.get(element) ?? null;
  }

  /** What the emission of one screen depends on; `signature` is equal where that is equal. */
  contextOf(screenKey: string): ScreenContext & { readonly signature: string } {
    return {
      linkOf: (key) => this.#links.get(key) ?? null,
      anchorOf: (key) => this.anchorOf(key),
      drawerOf: (key) => this.project.app.drawers[key] ?? null,
      ...(this.#tokens ? { tokenOf: this.#tokens.lookup } : {}),
      signature: JSON.stringify([
        this.#linksByScreen.get(screenKey) ?? [],
        this.#anchorsByScreen.get(screenKey) ?? [],
        this.#drawersByScreen.get(screenKey) ?? [],
        this.#tokens?.signature ?? '',
      ]),
    };
  }
}

interface NamedTokens {
  readonly lookup: TokenLookup;
  /** What screens depend on: which token stands for what, but not its value. */
  readonly signature: string;
}

const namedTokens = new WeakMap<App['tokens'], NamedTokens>();

function tokensOf(tokens: App['tokens']): NamedTokens | null {
  if (!Object.keys(tokens).length) return null;
  let named = namedTokens.get(tokens);
  if (!named) {
    const signature = hash(
      JSON.stringify(
        Object.keys(tokens)
          .sort()
          .map((name) => [name, tokens[name].kind, tokens[name].from]),
      ),
    );
    namedTokens.set(tokens, (named = { lookup: tokenLookup(tokens), signature }));
  }
  return named;
}

/** Entries that are keyed by elements, for each screen that shows them and in order of their keys. */
function byHost<T>(project: Project, entries: ReadonlyMap<string, T>): Map<string, (readonly [string, T])[]> {
  const grouped = new Map<string, (readonly [string, T])[]>();
  for (const entry of [...entries].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const screen = hostOf(project.app, entry[0]);
    const group = grouped.get(screen);
    if (group) group.push(entry);
    else grouped.set(screen, [entry]);
  }
  return grouped;
}

const emitted = new WeakMap<object, { signature: string; screen: EmittedScreen }>();

/** One screen as it is emitted within its app; kept until the screen or its links change. */
export function emitScreenOf(plan: EmissionPlan, screenKey: string): EmittedScreen {
  const screen = screensByKey(plan.project.design).get(screenKey);
  if (!screen) throw new RangeError(`emitScreenOf: no screen "${screenKey}" in the design`);
  const context = plan.contextOf(screenKey);
  const known = emitted.get(screen);
  if (known?.signature === context.signature) return known.screen;
  const made = emitScreen(screen, context);
  emitted.set(screen, { signature: context.signature, screen: made });
  return made;
}

const printed = new WeakMap<MarkupElement, ScreenFiles>();

/** Writes the whole project: React, TypeScript, Vite and React Router. Same input, same bytes. */
export function emitReact(project: Project, name: string): EmittedProject {
  const plan = new EmissionPlan(project);
  const files: EmittedFile[] = [];
  const fileOfScreen = new Map<string, string>();
  const rows: { key: string; name: string; path: string; folder: string }[] = [];
  const links: TestedLink[] = [];
  const assets = new Map<string, string>();
  const folders = new Set<string>(['NotFound']);
  const extraction = extractionOf(plan);
  for (const key of plan.screens) {
    const entry = project.app.screens[key];
    const folder = uniqueName(pascalCase(entry.name) || 'Screen', (candidate) => folders.has(candidate), '');
    folders.add(folder);
    rows.push({ key, name: entry.name, path: entry.route, folder });
    const made = screenFiles(plan, key, folder, extraction);
    const path = `src/screens/${folder}/${folder}.tsx`;
    fileOfScreen.set(key, path);
    files.push({ path, ...made.tsx, screen: key });
    if (made.css.text)
      files.push({ path: `src/screens/${folder}/${folder}.module.css`, ...made.css, screen: key });
    if (made.data)
      files.push({
        path: `src/screens/${folder}/${folder}.data.${made.dataType}`,
        ...made.data,
        screen: key,
      });
    for (const hash of made.assets) assets.set(hash, assetFile(project, hash));
    links.push(...made.links.map((link) => ({ ...link, from: entry.route })));
  }
  files.push(...componentFiles(plan, extraction));
  const faces = facesUsedIn(
    plan.screens.map((key) => emitScreenOf(plan, key)),
    project.design.fonts ?? [],
  );
  for (const face of faces) assets.set(face.asset, assetFile(project, face.asset));
  for (const [hash, file] of assets) files.push({ path: `src/assets/${file}`, asset: hash });
  const text = (path: string, content: string): void => void files.push({ path, text: content });
  text('package.json', around.packageJson(kebabCase(name) || 'app'));
  text('tsconfig.json', around.tsconfigJson);
  text('vite.config.ts', around.viteConfig);
  text('index.html', around.indexHtml(name));
  text('README.md', around.readme(name, rows));
  text('.prettierrc', around.prettierrc);
  text('.prettierignore', around.prettierignore);
  text('.gitignore', around.gitignore);
  const tokens = tokenCss(project.app.tokens);
  if (tokens) text('src/styles/tokens.css', tokens);
  text('src/main.tsx', navigation.mainTsx(faces.length > 0, tokens !== ''));
  if (faces.length)
    text(
      'src/styles/fonts.css',
      fontCss(faces, (hash) => `../assets/${assetFile(project, hash)}`),
    );
  text('src/routes.tsx', routesTsx(rows, plan.start));
  text('src/shell/Shell.tsx', navigation.shellTsx);
  text('src/screens/NotFound/NotFound.tsx', navigation.notFoundTsx);
  text('src/navigation/index.ts', navigation.navigationIndex);
  text('src/navigation/arrival.ts', navigation.arrivalTs);
  text('src/navigation/useGo.ts', navigation.useGoTs);
  text('src/navigation/links.tsx', navigation.linksTsx);
  text('src/navigation/pressable.ts', navigation.pressableTs);
  text('src/styles/base.css', baseCss);
  text('src/styles/transitions.css', navigation.transitionsCss);
  text('src/links.json', linksJson(links));
  text('src/links.test.tsx', around.linksTest);
  files.sort((a, b) => (a.path < b.path ? -1 : 1));
  return { files, fileOfScreen };
}

/** Components that were taken, and the parts that are drawers, which stand twice. */
function wantedOf({ app }: Project): Wanted[] {
  const drawers = Object.entries(app.drawers).map(([key, drawer]): Wanted => ({
    id: `drawer ${key}`,
    kind: 'component',
    name: drawer.name,
    places: [key],
  }));
  return [...Object.entries(app.components).map(([id, component]) => ({ ...component, id })), ...drawers];
}

const extractions = new WeakMap<
  App['components'],
  { drawers: App['drawers']; screens: readonly EmittedScreen[]; extraction: Extraction }
>();

/** The components of an app, taken out of its screens; kept until one of the screens changes. */
export function extractionOf(plan: EmissionPlan): Extraction {
  const { app } = plan.project;
  const screens = new Map(plan.screens.map((key) => [key, emitScreenOf(plan, key)] as const));
  const list = [...screens.values()];
  const known = extractions.get(app.components);
  if (
    known?.drawers === app.drawers &&
    known.screens.length === list.length &&
    known.screens.every((screen, i) => screen === list[i])
  )
    return known.extraction;
  const extraction = extractComponents(screens, wantedOf(plan.project), (key) => plan.routeOf(key));
  extractions.set(app.components, { drawers: app.drawers, screens: list, extraction });
  return extraction;
}

/** What a component would be if it were taken by itself: its props, or why it cannot be made. */
export function previewComponent(
  plan: EmissionPlan,
  component: Component,
): { readonly props: readonly Prop[]; readonly problem: string | null } {
  const keys = new Set(component.places.map((place) => hostOf(plan.project.app, place)));
  const screens = new Map(
    plan.screens.filter((key) => keys.has(key)).map((key) => [key, emitScreenOf(plan, key)] as const),
  );
  const { components, failed } = extractComponents(screens, [{ ...component, id: 'preview' }], (key) =>
    plan.routeOf(key),
  );
  return { props: components[0]?.props ?? [], problem: failed.get('preview') ?? null };
}

/** A name and a path for a picture, from a file two folders down. */
const assetImport =
  (project: Project) =>
  (hash: string): { name: string; path: string } => {
    const file = assetFile(project, hash);
    return { name: camelCase(file.replace(/\.[^.]*$/, '')) || 'picture', path: `../../assets/${file}` };
  };

function componentFiles(plan: EmissionPlan, extraction: Extraction): EmittedFile[] {
  return extraction.components.flatMap((component): EmittedFile[] => {
    const path = `src/components/${component.name}/${component.name}`;
    const screen = component.root.key ? hostOf(plan.project.app, component.root.key) : undefined;
    const code = printComponent(component, {
      component: component.name,
      hasStyles: component.rules.length > 0,
      navigation: '../../navigation',
      components: '..',
      assetImport: assetImport(plan.project),
    });
    const css = printRules(
      component.rules,
      (name) => `.${name}`,
      (address) => `../../assets/${assetFile(plan.project, hashInAddress(address))}`,
    );
    return [
      { path: `${path}.tsx`, ...code, ...(screen ? { screen } : {}) },
      ...(css.text ? [{ path: `${path}.module.css`, ...css, ...(screen ? { screen } : {}) }] : []),
    ];
  });
}

function screenFiles(
  plan: EmissionPlan,
  key: string,
  component: string,
  extraction: Extraction,
): ScreenFiles {
  const screen = emitScreenOf(plan, key);
  const root = extraction.roots.get(key) ?? screen.root;
  const known = printed.get(root);
  if (known?.context === component) return known;
  const lists = extraction.lists.get(key) ?? [];
  const used = classesIn(root);
  const rules = root === screen.root ? screen.rules : screen.rules.filter((rule) => used.has(rule.className));
  const options = {
    component,
    navigation: '../../navigation',
    components: '../../components',
    assetImport: assetImport(plan.project),
  };
  const tsx = printTsx(root, {
    ...options,
    hasStyles: rules.length > 0,
    ...(lists.length
      ? { data: { path: `./${component}.data`, names: lists.map((list) => list.data).sort() } }
      : {}),
  });
  const css = printRules(
    rules,
    (name) => `.${name}`,
    (address) => `../../assets/${assetFile(plan.project, hashInAddress(address))}`,
  );
  const hasDrawings = JSON.stringify(lists).includes('"node":');
  const made: ScreenFiles = {
    context: component,
    tsx,
    css,
    ...(lists.length
      ? { data: printData(lists, { ...options, hasStyles: false }), dataType: hasDrawings ? 'tsx' : 'ts' }
      : {}),
    links: linksIn(screen.root),
    assets: assetsOf(screen),
  };
  printed.set(root, made);
  return made;
}

/** Pictures that a screen shows, in its elements and in its styles. */
function assetsOf(screen: EmittedScreen): string[] {
  const hashes = new Set<string>();
  const visit = (node: MarkupElement): void => {
    if (node.asset) hashes.add(node.asset);
    for (const child of node.children) if (!isText(child)) visit(child);
  };
  visit(screen.root);
  for (const [hash] of JSON.stringify(screen.rules).matchAll(/[0-9a-f]{64}/g)) hashes.add(hash);
  return [...hashes];
}

/** Readable, and different for pictures of the same name: `hedge-trimmer.3fa9.png`. */
function assetFile(project: Project, hash: string): string {
  const asset = project.design.assets.find((a) => a.hash === hash);
  const name =
    kebabCase(
      (asset?.file ?? '')
        .replace(/^.*\//, '')
        .replace(/\.[^.]*$/, '')
        .replace(/#.*$/, ''),
    ) || 'picture';
  return `${name}-${hash.slice(0, 6)}${typeExtension(asset?.type ?? '')}`;
}

function linksIn(root: MarkupElement): TestedLink[] {
  const links: TestedLink[] = [];
  let press = -1;
  const visit = (node: MarkupElement): void => {
    const isPressable =
      node.tag === 'a' || node.tag === 'button' || node.form === 'other' || node.attributes.role === 'link';
    if (isPressable) press++;
    if (node.link) {
      const to =
        node.link.kind === 'go'
          ? node.link.to
          : node.link.kind === 'back'
            ? node.link.fallback
            : node.link.kind === 'drawer'
              ? `#${node.link.id}`
              : node.link.href;
      links.push({
        from: '',
        press,
        label: textIn(node).slice(0, 60) || String(node.attributes['aria-label'] ?? node.tag),
        kind: node.link.kind,
        to,
      });
    }
    for (const child of node.children) if (!isText(child)) visit(child);
  };
  visit(root);
  return links;
}

const textIn = (node: MarkupElement): string =>
  node.children
    .map((child) => (isText(child) ? child.text : textIn(child)))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();

function linksJson(links: readonly TestedLink[]): string {
  if (!links.length) return '[]\n';
  const rows = links.map((link) => {
    const fields = Object.entries(link).map(
      ([name, value]) => `    ${JSON.stringify(name)}: ${JSON.stringify(value)}`,
    );
    return `  {\n${fields.join(',\n')}\n  }`;
  });
  return `[\n${rows.join(',\n')}\n]\n`;
}

function routesTsx(rows: readonly { name: string; path: string; folder: string }[], start: string): string {
  const imports = [...rows.map((row) => row.folder), 'NotFound']
    .sort()
    .map((folder) => `import { ${folder} } from './screens/${folder}/${folder}';`);
  const hasIndex = rows.some((row) => row.path === '/');
  const entries = [...rows]
    .sort((a, b) => (a.path < b.path ? -1 : 1))
    .map((row) => {
      const line = `      { path: ${quote(row.path)}, Component: ${row.folder}, handle: { title: ${quote(row.name)} } },`;
      if (line.length <= 100) return line;
      return [
        '      {',
        `        path: ${quote(row.path)},`,
        `        Component: ${row.folder},`,
        `        handle: { title: ${quote(row.name)} },`,
        '      },',
      ].join('\n');
    });
  if (!hasIndex && rows.length)
    entries.unshift(`      { path: '/', element: <Navigate to=${JSON.stringify(start)} replace /> },`);
  return `import { ${hasIndex || !rows.length ? '' : 'Navigate, '}type RouteObject } from 'react-router';
${imports.join('\n')}
import { Shell } from './shell/Shell';

export const routes: RouteObject[] = [
  {
    Component: Shell,
    children: [
${entries.join('\n')}
      { path: '*', Component: NotFound, handle: { title: 'Not found' } },
    ],
  },
];
`;
}
