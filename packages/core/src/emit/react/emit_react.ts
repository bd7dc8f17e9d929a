import type { EmittedFile, EmittedProject } from '../emitted.ts';
import { Folders, type Parts, paletteFor, partsOf, usedRules } from '../form/parts.ts';
import { assetFile, assetsOf } from '../form/assets.ts';
import { hostOf, overlayOf, type Project } from '../../model/project.ts';
import { camelCase, kebabCase } from '../../model/names.ts';
import { baseCss } from '../styles/base_css.ts';
import { type EmittedList } from '../form/components/extract.ts';
import { printComponent, printData } from './print_component.ts';
import { classInSheet } from '../styles/class_names.ts';
import { printRules } from '../styles/print_css.ts';
import { type Palette } from '../form/styles/palette.ts';
import { type FileStyles } from '../form/styles/share.ts';
import { screenFile } from '../form/before.ts';
import { facesUsedIn, fontCss } from '../styles/font_css.ts';
import { type Frame } from '../form/layouts/frame.ts';
import { isElement, type MarkupElement, type StyleRule } from '../form/markup.ts';
import { hashInAddress } from '../html/print_html.ts';
import type { EmissionProgress } from '../progress.ts';
import { type Icons } from '../form/icons.ts';
import { printIcon, printTsx, type TsxOptions, type Used } from './print_tsx.ts';
import { overlaysCss } from '../styles/overlays_css.ts';
import { transitionsCss } from '../styles/transitions_css.ts';
import { tokensCss } from '../styles/tokens_css.ts';
import { printJourneyTests } from '../journey_tests.ts';
import { renamed } from '../renamed.ts';
import { partScreen } from './screen_parts.ts';
import { type OverlayEntry, overlaysTs } from './overlays_file.ts';
import { EmissionPlan, emitScreenOf } from '../form/plan.ts';
import * as around from './project_files.ts';
import { type RouteEntry, routesTsx } from './routes_file.ts';
import { conditionsTs } from './conditions_file.ts';
import { mainTsx } from './main_file.ts';
import { runtimeFor } from './runtime_files.ts';
import { linksJson, settledLink, type TestedLink, testedAddress, testedLinksIn } from './tested_links.ts';

interface ScreenFiles {
  readonly context: string;
  readonly tsx: { readonly text: string; readonly lines: readonly (string | null)[] };
  readonly css: { readonly text: string; readonly lines: readonly (string | null)[] };
  /** Pieces of a long screen, in files of their own. */
  readonly parts: readonly { readonly name: string; readonly tsx: ScreenFiles['tsx'] }[];
  /** The records of its lists. */
  readonly data?: { readonly text: string; readonly lines: readonly (string | null)[] };
  readonly dataType?: 'ts' | 'tsx';
  readonly links: readonly Omit<TestedLink, 'from'>[];
  readonly assets: readonly string[];
}

/** Names of what every app has. */
const RESERVED = ['NotFound', 'Shell', 'Guard', 'Redirect', 'Outlet', 'Navigate', 'Overlay'];

const printed = new WeakMap<MarkupElement, ScreenFiles>();

/**
 * Writes the whole project: React, TypeScript, Vite and React Router, as the project says that it is delivered. Same input,
 * same bytes.
 */
export function emitReact(project: Project, name: string, tell?: EmissionProgress): EmittedProject {
  const emitted = emitAll(project, name, tell);
  return project.app.delivery.naming === 'kebab' ? renamed(emitted, inKebab) : emitted;
}

/** Folders with files that are called as the components in them. */
const COMPONENTS = /^src\/(?:screens|components|layouts|overlays|icons|drawings|shell|navigation)\//;

/** The path of a file with the name of its component in small letters and dashes. */
const inKebab = (path: string): string =>
  COMPONENTS.test(path)
    ? path.replace(/[^/.]+/g, (part) =>
        part.replace(/(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])/g, '-').toLowerCase(),
      )
    : path;

function emitAll(project: Project, name: string, tell?: EmissionProgress): EmittedProject {
  const plan = new EmissionPlan(project);
  const { app } = plan.project;
  const files: EmittedFile[] = [];
  const fileOfScreen = new Map<string, string>();
  const rows: RouteEntry[] = [];
  const links: TestedLink[] = [];
  const assets = new Map<string, string>();
  const folders = new Folders(RESERVED);
  const folderFor = folders.take;
  const parts = partsOf(plan, folders);
  const { layouts, styles, icons, palette } = parts;
  const put = (path: string, key: string, made: ScreenFiles): void => {
    files.push({ path: `${path}.tsx`, ...made.tsx, screen: key });
    if (made.css.text) files.push({ path: `${path}.module.css`, ...made.css, screen: key });
    for (const part of made.parts)
      files.push({ path: `${path.replace(/[^/]*$/, '')}${part.name}.tsx`, ...part.tsx, screen: key });
    if (made.data) files.push({ path: `${path}.data.${made.dataType}`, ...made.data, screen: key });
    for (const hash of made.assets) assets.set(hash, assetFile(plan.project, hash));
  };
  const total = plan.screens.length + plan.overlays.size;
  for (const key of plan.screens) {
    tell?.(rows.length, total);
    const entry = app.screens[key];
    const folder = folderFor(entry.name, 'Screen');
    rows.push({ key, name: entry.name, path: entry.route, folder });
    const made = screenFiles(plan, key, folder, parts, layouts.insides.get(key));
    const path = `src/screens/${folder}/${folder}`;
    fileOfScreen.set(key, `${path}.tsx`);
    put(path, key, made);
    const from = testedAddress(entry.route, entry.params);
    links.push(
      ...made.links.map((link) =>
        withGuard(plan, key, settledLink(link, from, entry.route, entry.params ?? {})),
      ),
    );
  }
  for (const { name: folder, screens, frame } of layouts.layouts)
    put(`src/layouts/${folder}/${folder}`, screens[0], layoutFiles(plan, folder, frame, parts));
  const overlays = [...plan.overlays].map(([key, codeName], i): OverlayEntry => {
    tell?.(rows.length + i, total);
    const entry = app.screens[key];
    const component = folderFor(entry.name, 'Overlay');
    const made = screenFiles(plan, key, component, parts);
    fileOfScreen.set(key, `src/overlays/${component}/${component}.tsx`);
    put(`src/overlays/${component}/${component}`, key, made);
    const overlay = overlayOf(entry);
    const over = (overlay.over ?? []).flatMap((screen) => plan.routeOf(screen) ?? []);
    return { name: codeName, component, label: entry.name, overlay, over };
  });
  tell?.(total, total);
  files.push(...componentFiles(plan, parts));
  for (const icon of icons.all)
    files.push({
      path: `src/${icon.isSmall ? 'icons' : 'drawings'}/${icon.name}.tsx`,
      ...printIcon(icon, iconOptions(plan, icon.name)),
    });
  const shown = [...plan.screens, ...plan.overlays.keys()];
  const faces = facesUsedIn(
    shown.map((key) => emitScreenOf(plan, key)),
    plan.project.design.fonts ?? [],
  );
  for (const face of faces) assets.set(face.asset, assetFile(plan.project, face.asset));
  for (const [hash, file] of assets) files.push({ path: `src/assets/${file}`, asset: hash });
  const text = (path: string, content: string): void => void files.push({ path, text: content });
  const hasTests = app.delivery.tests !== 'without';
  const hasJourneys = hasTests && Object.keys(app.journeys).length > 0;
  text('package.json', around.packageJson(kebabCase(name) || 'app', hasJourneys, hasTests));
  text('tsconfig.json', around.tsconfigJson(hasJourneys));
  text('vite.config.ts', around.viteConfig(hasTests));
  text('index.html', around.indexHtml(name));
  text(
    'README.md',
    around.readme(name, rows, layouts.layouts, {
      hasTests,
      inFiles: app.delivery.naming === 'kebab' ? inKebab : (path) => path,
    }),
  );
  text('.prettierrc', around.prettierrc);
  text('.prettierignore', around.prettierignore);
  text('.gitignore', around.gitignore);
  const tokens = tokensCss(app, palette);
  if (tokens) text('src/styles/tokens.css', tokens);
  const shared = sheetOf(plan, styles.rules, palette);
  if (shared.text) files.push({ path: 'src/styles/shared.module.css', ...shared });
  text('src/main.tsx', mainTsx(faces.length > 0, tokens !== '', shared.text !== ''));
  if (faces.length)
    text(
      'src/styles/fonts.css',
      fontCss(faces, (hash) => `../assets/${assetFile(plan.project, hash)}`),
    );
  const conditionOf = (id: string): string | null => plan.conditions.get(id) ?? null;
  text(
    'src/routes.tsx',
    routesTsx(plan.project, rows, {
      start: plan.start,
      conditionOf,
      layouts: layouts.layouts,
      hasOverlays: overlays.length > 0,
    }),
  );
  const conditions = [...plan.conditions].map(([id, code]) => ({
    name: code,
    condition: app.conditions[id],
  }));
  if (conditions.length) text('src/state/conditions.ts', conditionsTs(conditions));
  if (overlays.length) {
    text('src/overlays/overlays.ts', overlaysTs(overlays));
    text('src/overlays/overlays.css', overlaysCss);
  }
  text('src/styles/base.css', baseCss);
  text('src/styles/transitions.css', transitionsCss(plan.sharedNames()));
  if (hasJourneys) {
    text('e2e/journeys.spec.ts', printJourneyTests(plan.project));
    text('playwright.config.ts', around.playwrightConfig);
  }
  if (hasTests) {
    text('src/links.json', linksJson(links));
    text('src/links.test.tsx', around.linksTest(conditions.length > 0));
  }
  files.push(...runtimeFor(files));
  files.sort((a, b) => (a.path < b.path ? -1 : 1));
  return { files, fileOfScreen };
}

/** A press is tested with what must hold for its screen to be shown at all. */
function withGuard(plan: EmissionPlan, screen: string, link: TestedLink): TestedLink {
  const needed = (key: string | undefined): Record<string, boolean> => {
    const guard = key === undefined ? undefined : plan.project.app.screens[key].guard;
    const name = guard && plan.conditions.get(guard.condition);
    return guard && name ? { [name]: guard.is } : {};
  };
  const to = plan.screens.find((key) => plan.routeOf(key) === link.to);
  const given = {
    ...(link.kind === 'go' || link.kind === 'back' ? needed(to) : {}),
    ...needed(screen),
    ...link.given,
  };
  return Object.keys(given).length ? { ...link, given } : link;
}

function layoutFiles(
  plan: EmissionPlan,
  component: string,
  frame: Frame,
  { extraction, styles, icons, palette }: Parts,
): ScreenFiles {
  const own = styles.files.get(`layout ${component}`)!;
  const made = filesOf(plan, component, frame.root, own, { extraction, icons, palette }, [], true);
  return {
    ...made,
    links: [],
    assets: assetsOf({ root: frame.root, rules: usedRules(frame.root, frame.rules) }),
  };
}

/** Which of these constants a piece of a screen takes its lists from. */
function listsIn(root: MarkupElement, names: readonly string[]): string[] {
  const used = new Set<string>();
  const visit = (node: MarkupElement): void => {
    for (const child of node.children) {
      if (isElement(child)) visit(child);
      else if ('list' in child) used.add(child.list.data);
    }
  };
  visit(root);
  return names.filter((name) => used.has(name));
}

/** Names of the drawings that a file uses. */
function iconNamesIn(root: MarkupElement, icons: Icons): string[] {
  const names: string[] = [];
  const visit = (node: MarkupElement): void => {
    const icon = icons.of(node);
    if (icon) names.push(icon.name);
    else for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  return names;
}

/** A name and a path for a picture, from a file two folders down. */
const assetImport =
  (project: Project) =>
  (hash: string): { name: string; path: string } => {
    const file = assetFile(project, hash);
    return { name: camelCase(file.replace(/\.[^.]*$/, '')) || 'picture', path: `../../assets/${file}` };
  };

/** The name of the import that gives a file's address, noted as used. */
const fileImport =
  (project: Project) =>
  (hash: string, used: Used): string => {
    const { name, path } = assetImport(project)(hash);
    used.assets.set(name, /\.(png|jpe?g|webp|gif|svg|avif)$/.test(path) ? path : `${path}?url`);
    return name;
  };

function componentFiles(plan: EmissionPlan, { extraction, styles, icons, palette }: Parts): EmittedFile[] {
  return extraction.components.flatMap((component): EmittedFile[] => {
    const path = `src/components/${component.name}/${component.name}`;
    const screen = component.root.key ? hostOf(plan.project, component.root.key) : undefined;
    const own = styles.files.get(`component ${component.name}`)!;
    const code = printComponent(component, {
      component: component.name,
      classes: own.classes,
      iconOf: icons.of,
      source: '../..',
      components: '..',
      assetImport: assetImport(plan.project),
      fileImport: fileImport(plan.project),
    });
    const css = sheetOf(plan, own.rules, paletteFor(own, palette), '../../');
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
  { extraction, styles, icons, palette }: Parts,
  inside?: MarkupElement,
): ScreenFiles {
  const screen = emitScreenOf(plan, key);
  const root = inside ?? extraction.roots.get(key) ?? screen.root;
  const own = styles.files.get(screenFile(key))!;
  const context = JSON.stringify([
    component,
    [...own.classes],
    own.rules.map(({ className }) => className),
    iconNamesIn(root, icons),
    palette.values,
    own.asBefore !== null,
    extraction.components.map(({ name }) => name),
  ]);
  const known = printed.get(root);
  if (known?.context === context) return known;
  const lists = extraction.lists.get(key) ?? [];
  const made: ScreenFiles = {
    ...filesOf(plan, component, root, own, { extraction, icons, palette }, lists),
    context,
    links: testedLinksIn(screen.root),
    assets: assetsOf(screen),
  };
  printed.set(root, made);
  return made;
}

const iconOptions = (plan: EmissionPlan, component: string): TsxOptions => ({
  component,
  source: '..',
  assetImport: assetImport(plan.project),
  fileImport: fileImport(plan.project),
});

/** A sheet of a module. @param source from the sheet to the folder of the source */
const sheetOf = (
  plan: EmissionPlan,
  rules: readonly StyleRule[],
  palette: Pick<Palette, 'nameOf'>,
  source = '../',
) =>
  printRules(
    rules,
    (name) => `.${classInSheet(name)}`,
    (address) => `${source}assets/${assetFile(plan.project, hashInAddress(address))}`,
    palette,
  );

/** A component with its styles and the records of its lists. */
function filesOf(
  plan: EmissionPlan,
  component: string,
  root: MarkupElement,
  styles: FileStyles,
  { extraction, icons, palette }: Pick<Parts, 'extraction' | 'icons' | 'palette'>,
  lists: readonly EmittedList[],
  hasOutlet = false,
): Omit<ScreenFiles, 'links' | 'assets'> {
  const options = {
    component,
    classes: styles.classes,
    iconOf: icons.of,
    source: '../..',
    components: '../../components',
    assetImport: assetImport(plan.project),
    fileImport: fileImport(plan.project),
    hasOutlet,
  };
  const data = { path: `./${component}.data`, names: lists.map((list) => list.data).sort() };
  const taken = new Set([
    component,
    ...extraction.components.map(({ name }) => name),
    ...icons.all.map(({ name }) => name),
    'Back',
    'Go',
    'Outlet',
  ]);
  // A layout's outlet stays where it is.
  const parted = hasOutlet ? { root, parts: [] } : partScreen(root, options, (name) => taken.has(name));
  const names = new Set(parted.parts.map(({ name }) => name));
  const print = (name: string, node: MarkupElement) =>
    printTsx(node, {
      ...options,
      component: name,
      sheet: component,
      parts: names,
      ...(lists.length ? { data: { ...data, names: listsIn(node, data.names) } } : {}),
    });
  const tsx = print(component, parted.root);
  const css = sheetOf(plan, styles.rules, paletteFor(styles, palette), '../../');
  const hasDrawings = JSON.stringify(lists).includes('"node":');
  return {
    context: component,
    tsx,
    parts: parted.parts.map(({ name, root: node }) => ({ name, tsx: print(name, node) })),
    css,
    ...(lists.length ? { data: printData(lists, options), dataType: hasDrawings ? 'tsx' : 'ts' } : {}),
  };
}
