import { hash } from '../../json/hash.ts';
import { camelCase, FileNames, pascalCase, uniqueCodeName } from '../../model/names.ts';
import { hostOf, overlayOf, type Project } from '../../model/project.ts';
import type { EmittedFile, EmittedProject } from '../emitted.ts';
import { assetFile, assetsOf } from '../form/assets.ts';
import type { EmittedComponent, Extraction } from '../form/components/extract.ts';
import { withGivenLists } from '../form/components/given_lists.ts';
import type { EmittedList } from '../form/components/lists.ts';
import { theirsOf } from '../form/components/theirs.ts';
import type { App } from '../../model/app.ts';
import { drawingsIn, type EmittedIcon } from '../form/icons.ts';
import { isElement, type MarkupElement, type StyleRule } from '../form/markup.ts';
import { Folders, paletteFor, type Parts, partsOf, rootOf, usedRules } from '../form/parts.ts';
import { EmissionPlan } from '../form/plan.ts';
import { shownScreenOf } from '../form/shown_screen.ts';
import type { RouteEntry } from '../form/route_tree.ts';
import { isActing } from '../form/hooked.ts';
import { actsBefore, codeBefore, componentFile, type PiecesBefore, screenFile } from '../form/before.ts';
import { logicFiles, logicOf, type ViewLogic } from './logic_files.ts';
import { keptPieces, partComponent, partScreen } from '../form/screen_parts.ts';
import type { Palette } from '../form/styles/palette.ts';
import type { FileStyles } from '../form/styles/places.ts';
import { hashInAddress } from '../html/print_html.ts';
import { printJourneyTests } from '../journey_tests.ts';
import type { EmissionProgress } from '../progress.ts';
import { renamed } from '../renamed.ts';
import { baseCss, closedCss } from '../styles/base_css.ts';
import { classInSheet } from '../styles/class_names.ts';
import { facesUsedIn, fontCss } from '../styles/font_css.ts';
import { formsCss } from '../styles/forms_css.ts';
import { noticeCss } from '../styles/notice_css.ts';
import { overlaysCss } from '../styles/overlays_css.ts';
import { printRules } from '../styles/print_css.ts';
import { tokensCss } from '../styles/tokens_css.ts';
import { transitionsCss } from '../styles/transitions_css.ts';
import {
  isLeftAtOnce,
  settledLink,
  type TestedLink,
  testedAddress,
  testedLinksIn,
  triedOnce,
} from '../tested/links.ts';
import { saidByApis, testedBehaviour } from '../tested/behaviour.ts';
import { behaviourJson, behaviourTest, hasBehaviour, linksJson, linksTest } from '../tested/test_files.ts';
import { apiFiles } from './api_files.ts';
import type { Around, Dialect, PrintedCode } from './dialect.ts';
import type { OverlayEntry } from './overlays_file.ts';
import * as common from './project_files.ts';
import { recordsApart, recordsApartFile } from '../records_apart.ts';
import { recordsFile } from './records_file.ts';
import { pathsAsked, runtimeFor } from './runtime_files.ts';
import { namedVariables } from '../named_variables.ts';

/**
 * Writes the whole project in a framework whose apps are built by a bundler, as the project says that it is delivered. Same
 * input, same bytes.
 */
export function emitBundled(
  project: Project,
  name: string,
  dialect: Dialect,
  tell?: EmissionProgress,
): EmittedProject {
  const steps = emitInSteps(project, name, dialect, tell);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/**
 * The same a screen at a time, for who has something else to do in between: gives the files of each as soon as they are
 * written, where they are not renamed afterwards, and all of them in the end.
 */
export function* emitInSteps(
  project: Project,
  name: string,
  dialect: Dialect,
  tell?: EmissionProgress,
): Generator<readonly EmittedFile[], EmittedProject, void> {
  const isRenamed = project.app.delivery.naming === 'kebab';
  const steps = emitAll(project, name, dialect, tell);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return isRenamed ? renamed(value, inKebab) : value;
    if (!isRenamed) yield value;
  }
}

/** Folders with files that are called as the components in them. */
const COMPONENTS =
  /^src\/(?:screens|components|layouts|overlays|icons|drawings|shell|navigation|disclosures|forms|records|api)\//;

/** The path of a file with the name of its component in small letters and dashes. */
const inKebab = (path: string): string =>
  COMPONENTS.test(path)
    ? path.replace(/[^/.]+/g, (part) =>
        part.replace(/(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])/g, '-').toLowerCase(),
      )
    : path;

/** The files of one view, with the links in it and the pictures that it shows. */
interface ViewFiles {
  readonly files: readonly EmittedFile[];
  readonly links: readonly Omit<TestedLink, 'from'>[];
  readonly assets: readonly string[];
  /** What of it has a file of its own beside it. */
  readonly pieces: PiecesBefore;
}

function* emitAll(
  project: Project,
  name: string,
  dialect: Dialect,
  tell: EmissionProgress | undefined,
): Generator<readonly EmittedFile[], EmittedProject, void> {
  const plan = new EmissionPlan(project, { takesTheirs: dialect.takesTheirs ?? false });
  const { app } = plan.project;
  const files: EmittedFile[] = [];
  const fileOfScreen = new Map<string, string>();
  const rows: RouteEntry[] = [];
  const allLinks: TestedLink[] = [];
  const addressOf = (key: string): string => testedAddress(app.screens[key].route, app.screens[key].params);
  const assets = new Map<string, string>();
  const folders = new Folders(dialect.reserved);
  const parts = partsOf(plan, folders);
  const { layouts, styles, icons, palette, extraction, collections } = parts;
  const unsure = saidByApis(plan);
  const writer = new Writer(plan, dialect, parts, unsure);
  const pieces = new Map<string, PiecesBefore>();
  const parted = (id: string, some: PiecesBefore): void => void (some.size && pieces.set(id, some));
  const put = (made: Omit<ViewFiles, 'pieces'>): void => {
    files.push(...made.files);
    for (const hash of made.assets) assets.set(hash, assetFile(plan.project, hash));
  };
  const total = plan.screens.length + plan.overlays.size;
  // Few apps have any, and all markup is looked through for them.
  const hasTests = app.delivery.tests !== 'without';
  const hasLoading = hasTests && Object.values(app.interactions).some(({ on }) => on === 'load');
  const leftAtOnce = new Set(
    hasLoading ? plan.screens.filter((key) => isLeftAtOnce(shownScreenOf(plan, key).root)) : [],
  );
  for (const key of plan.screens) {
    tell?.(rows.length, total);
    const entry = app.screens[key];
    const folder = folders.take(entry.name, 'Screen', () => pascalCase(key));
    rows.push({ key, name: entry.name, path: entry.route, folder });
    const path = `src/screens/${folder}/${folder}`;
    const made = writer.screen(key, path, folder);
    fileOfScreen.set(key, path + dialect.ending);
    put(made);
    yield made.files;
    parted(screenFile(key), made.pieces);
    if (!hasTests || leftAtOnce.has(key)) continue;
    const from = addressOf(key);
    allLinks.push(
      ...made.links
        .map((link) => withGuard(plan, key, settledLink(link, from, entry.route, entry.params ?? {})))
        .filter(
          ({ kind, to, given = {} }) =>
            canBeGiven(plan, given) && !(isWithin(kind) && leftAtOnce.has(plan.screenAt(to) ?? '')),
        ),
    );
  }
  for (const { name: folder, screens, frame } of layouts.layouts) {
    const rules = usedRules(frame.root, frame.rules);
    const { files: made } = writer.view(
      `src/layouts/${folder}/${folder}`,
      folder,
      frame.root,
      `layout ${folder}`,
      [],
      true,
    );
    put({ files: onScreen(made, screens[0]), links: [], assets: assetsOf({ root: frame.root, rules }) });
  }
  const inLayouts = layouts.layouts.map(({ screens }) => screens.map(addressOf));
  const links = triedOnce(allLinks, inLayouts);
  const overlays = [...plan.overlays].map(([key, codeName], i): OverlayEntry => {
    tell?.(rows.length + i, total);
    const entry = app.screens[key];
    const component = folders.take(entry.name, 'Overlay', () => pascalCase(key));
    const path = `src/overlays/${component}/${component}`;
    fileOfScreen.set(key, path + dialect.ending);
    const made = writer.screen(key, path, component);
    put(made);
    parted(screenFile(key), made.pieces);
    const overlay = overlayOf(entry);
    const over = (overlay.over ?? []).flatMap((screen) => plan.routeOf(screen) ?? []);
    return { name: codeName, component, label: entry.name, overlay, over };
  });
  tell?.(total, total);
  for (const component of extraction.components) {
    const screen = component.root.key ? hostOf(plan.project, component.root.key) : undefined;
    const made = writer.component(component);
    yield made.files;
    parted(componentFile(component.name), made.pieces);
    for (const file of made.files) files.push({ ...file, ...(screen === undefined ? {} : { screen }) });
  }
  const { apis } = plan;
  const apart = recordsApart(plan);
  for (const collection of collections) {
    const { behind } = collection.live.collection;
    const api = collection.live.isRemote ? apis.find(({ id }) => id === behind?.api) : undefined;
    const { name } = collection.live;
    const assetsAt = assetImport(plan.project, '../');
    const file = recordsFile(collection, assetsAt, api ?? null, dialect.beside, apart.has(name));
    files.push({ path: `src/data/${name}.ts`, text: file.text });
    if (file.apart !== null) files.push({ path: `src/data/${recordsApartFile(name)}.ts`, text: file.apart });
    for (const hash of file.assets) assets.set(hash, assetFile(plan.project, hash));
  }
  for (const file of apiFiles(plan.project, apis, hasTests)) {
    files.push({ path: file.path, text: file.text });
    for (const hash of file.assets ?? []) assets.set(hash, assetFile(plan.project, hash));
  }
  for (const icon of icons.all) files.push(iconFile(plan.project, icon, dialect));
  const shown = [...plan.screens, ...plan.overlays.keys()];
  const faces = facesUsedIn(
    shown.map((key) => shownScreenOf(plan, key)),
    plan.project.design.fonts ?? [],
  );
  for (const face of faces) assets.set(face.asset, assetFile(plan.project, face.asset));
  for (const [hash, file] of assets) files.push({ path: `src/assets/${file}`, asset: hash });
  const text = (path: string, content: string): void => void files.push({ path, text: content });
  const hasJourneys = hasTests && Object.keys(app.journeys).length > 0;
  const asked = [...pathsAsked(files)];
  const isAsked = (path: string): boolean => asked.some((one) => one.startsWith(path));
  const hasNotice = apis.length > 0 || isAsked('src/shell/notices');
  const variables = namedVariables(plan);
  const tokens = tokensCss(app, palette);
  const shared = writer.sheet(styles.rules, palette, '../');
  files.push(
    ...dialect.around({
      name,
      plan,
      theirs: theirsIn(extraction, app),
      rows,
      layouts: layouts.layouts,
      overlays,
      variables,
      testedApp: {
        variables: variables.length > 0,
        records: collections.map(({ live: { name: of, isRemote } }) => ({ name: of, isRemote })),
        isRemote: apis.length > 0,
        hasNotice,
      },
      apis,
      sheets: { fonts: faces.length > 0, tokens: tokens !== '', shared: shared.text !== '' },
      hasCharts: isAsked('src/charts/Chart'),
      hasNotice,
      hasTests,
      hasJourneys,
    }),
  );
  text('index.html', common.indexHtml(name, dialect.root, dialect.main));
  text(
    'README.md',
    common.readme(name, rows, layouts.layouts, {
      hasTests,
      hasLogic: files.some((file) => 'text' in file && file.owner === 'yours'),
      inFiles: app.delivery.naming === 'kebab' ? inKebab : (path) => path,
      made: dialect.made,
      routes: dialect.routes,
      apis,
    }),
  );
  text('.prettierrc', common.prettierrc);
  text('.prettierignore', common.prettierignore);
  text('.gitignore', common.gitignore(apis.length > 0));
  if (tokens) text('src/styles/tokens.css', tokens);
  if (shared.text) files.push({ path: 'src/styles/shared.module.css', ...shared });
  if (faces.length)
    text(
      'src/styles/fonts.css',
      fontCss(faces, (hash) => `../assets/${assetFile(plan.project, hash)}`),
    );
  if (overlays.length) text('src/overlays/overlays.css', overlaysCss);
  text('src/styles/base.css', baseCss + (plan.hasParts ? closedCss : ''));
  text('src/styles/transitions.css', transitionsCss(plan.sharedNames()));
  if (hasJourneys) {
    text('e2e/journeys.spec.ts', printJourneyTests(plan.project));
    text('playwright.config.ts', common.playwrightConfig);
  }
  if (hasTests) {
    const ending = dialect.ending === '.tsx' ? 'tsx' : 'ts';
    const behaviour = testedBehaviour(plan, collections, variables, {
      links: allLinks,
      unsure,
      layouts: inLayouts,
      givable: (screen, own) => {
        const given = { ...neededFor(plan, screen), ...own };
        return canBeGiven(plan, given) ? given : null;
      },
      neededAt: (address) => neededFor(plan, plan.screenAt(address)),
      leftAtOnce,
    });
    text('src/links.json', linksJson(links));
    text(`src/links.test.${ending}`, linksTest(variables.length > 0));
    if (hasBehaviour(behaviour)) {
      text('src/behaviour.json', behaviourJson(behaviour));
      text(`src/behaviour.test.${ending}`, behaviourTest(behaviour, variables.length > 0));
    }
  }
  files.push(...runtimeFor(files, dialect.runtime));
  if (files.some(({ path }) => path.startsWith('src/forms/'))) text('src/forms/forms.css', formsCss);
  if (hasNotice) text('src/shell/notice.css', noticeCss);
  files.sort((a, b) => (a.path < b.path ? -1 : 1));
  return { files, fileOfScreen, pieces };
}

/** The libraries that something is taken from, with their versions. */
const theirsIn = ({ components }: Extraction, { libraries }: App): Readonly<Record<string, string>> =>
  Object.fromEntries(
    Object.values(libraries)
      .filter(({ name }) =>
        components.some(({ root }) => {
          const from = theirsOf(root)?.from;
          return from === name || from?.startsWith(`${name}/`);
        }),
      )
      .map(({ name, version = '*' }) => [name, version]),
  );

/** What must hold for a screen to be shown at all. */
function neededFor(plan: EmissionPlan, screen: string | undefined): Record<string, boolean> {
  const guard = screen === undefined ? undefined : plan.project.app.screens[screen].guard;
  const name = guard && plan.variables.get(guard.condition);
  return guard && name ? { [name]: guard.is } : {};
}

/** Whether a link leads to a screen of the app. */
const isWithin = (kind: TestedLink['kind']): boolean => kind === 'go' || kind === 'back';

/** A press is tested with what must hold for its screen to be shown at all. */
function withGuard(plan: EmissionPlan, screen: string, link: TestedLink): TestedLink {
  const to = plan.screenAt(link.to);
  const given = {
    ...(isWithin(link.kind) ? neededFor(plan, to) : {}),
    ...neededFor(plan, screen),
    ...link.given,
  };
  return Object.keys(given).length ? { ...link, given } : link;
}

/** Whether variables can be made so. */
const canBeGiven = (
  { variables, project: { app } }: EmissionPlan,
  given: Readonly<Record<string, boolean>>,
): boolean =>
  ![...variables].some(([id, name]) => Object.hasOwn(given, name) && app.variables[id].says !== undefined);

const onScreen = (files: readonly EmittedFile[], screen: string): EmittedFile[] =>
  files.map((file) => ({ ...file, screen }));

/** Names of what any file of an app can take from the runtime. */
const OF_RUNTIME = ['Back', 'Go', 'Outlet'];

const written = new WeakMap<
  MarkupElement,
  ViewFiles & { readonly context: string; readonly own: FileStyles; readonly palette: Palette }
>();

/** Lines of elements, by where the classes of their file went. */
const measured = new WeakMap<
  Around['classes'],
  { readonly context: string; readonly lines: WeakMap<MarkupElement, number> }
>();

const writtenIcons = new WeakMap<EmittedIcon, Map<string, EmittedFile>>();

/** The file of a drawing, the very same each time. */
function iconFile(project: Project, icon: EmittedIcon, dialect: Dialect): EmittedFile {
  const path = `src/${icon.isSmall ? 'icons' : 'drawings'}/${icon.name}${dialect.ending}`;
  const byPath = writtenIcons.get(icon) ?? new Map<string, EmittedFile>();
  writtenIcons.set(icon, byPath);
  const file = byPath.get(path) ?? { path, ...dialect.icon(icon, assetImport(project, '../')) };
  byPath.set(path, file);
  return file;
}

interface WrittenComponent extends Pick<ViewFiles, 'pieces'> {
  readonly files: readonly EmittedFile[];
  readonly context: string;
  readonly own: FileStyles;
  readonly palette: Palette;
}
const writtenComponents = new WeakMap<EmittedComponent, WrittenComponent>();

interface Sheet {
  readonly palette: Pick<Palette, 'nameOf'>;
  readonly source: string;
  readonly printed: PrintedCode;
}
/** Sheets as they were printed, by their rules. */
const sheets = new WeakMap<readonly StyleRule[], Sheet>();

/** Writes the files with markup of one app. */
class Writer {
  readonly #plan: EmissionPlan;
  readonly #dialect: Dialect;
  readonly #parts: Parts;
  /** Keys of elements whose texts nobody knows before. */
  readonly #unsure: ReadonlySet<string>;
  readonly #unsureNow: string;
  /** What the names are that no piece can have. */
  readonly #named: string;

  constructor(plan: EmissionPlan, dialect: Dialect, parts: Parts, unsure: ReadonlySet<string>) {
    this.#plan = plan;
    this.#unsure = unsure;
    this.#dialect = dialect;
    this.#parts = parts;
    this.#unsureNow = [...unsure].join();
    this.#named = hash(
      JSON.stringify([
        parts.extraction.components.map(({ name }) => name),
        parts.collections.map(({ live }) => live.name),
        parts.icons.all.map(({ name }) => name),
      ]),
    );
  }

  /** What files depend on besides their markup and styles: names of drawings in it, of all components, and of its pieces. */
  #contextOf(root: MarkupElement, file: string): string {
    const { icons } = this.#parts;
    return JSON.stringify([
      this.#dialect.ending,
      this.#plan.takesTheirs,
      drawingsIn(root).map(({ node }) => icons.of(node)?.name),
      this.#named,
      [...this.#piecesBefore(file)],
    ]);
  }

  /** A screen or what opens over screens; kept until something changes that it depends on. */
  screen(key: string, path: string, component: string): ViewFiles {
    const { extraction, layouts, styles, palette } = this.#parts;
    const screen = shownScreenOf(this.#plan, key);
    const root = rootOf(this.#plan, extraction, layouts, key);
    const own = styles.files.get(screenFile(key))!;
    const context = JSON.stringify([
      path,
      this.#contextOf(root, screenFile(key)),
      this.#plan.project.app.delivery.logic,
      [...actsBefore(this.#plan.project.app, screenFile(key))],
      this.#unsureNow,
    ]);
    const known = written.get(root);
    if (known?.own === own && known.palette === palette && known.context === context) return known;
    const lists = extraction.lists.get(key) ?? [];
    const { files, pieces } = this.view(path, component, root, screenFile(key), lists, false);
    const made = {
      context,
      own,
      palette,
      files: onScreen(files, key),
      pieces,
      links: testedLinksIn(screen.root, this.#unsure),
      assets: assetsOf(screen),
    };
    written.set(root, made);
    return made;
  }

  view(
    path: string,
    component: string,
    root: MarkupElement,
    styles: string,
    lists: readonly EmittedList[],
    hasOutlet: boolean,
  ): Pick<ViewFiles, 'files' | 'pieces'> {
    const around = this.#around(styles);
    const taken = this.#taken(component);
    const { root: made, lists: all } = withGivenLists(root, lists, (name) => this.#isConstant(name));
    // A layout's outlet stays where it is.
    const parted = hasOutlet
      ? { root: made, parts: [] }
      : partScreen(made, (name) => taken.has(name), this.#linesIn(around), this.#piecesBefore(styles));
    const logic = this.#logicFor(component, root, hasOutlet, styles);
    const files = this.#dialect.view({ ...around, ...parted, path, component, lists: all, hasOutlet, logic });
    return {
      files: logic ? [...files, ...logicFiles(path, component, root, logic)] : files,
      pieces: keptPieces(parted.parts),
    };
  }

  /** How many lines an element is written as in a file: of what stays the same there worked out once. */
  #linesIn(around: Around): (node: MarkupElement) => number {
    const context = `${this.#dialect.ending} ${this.#named}`;
    const last = measured.get(around.classes);
    const known = last?.context === context ? last : { context, lines: new WeakMap<MarkupElement, number>() };
    measured.set(around.classes, known);
    return (node) => {
      let lines = known.lines.get(node);
      if (lines === undefined) known.lines.set(node, (lines = this.#dialect.linesOf(node, around)));
      return lines;
    };
  }

  /** What lets people hook in on a screen, or on what opens over screens. */
  #logicFor(component: string, root: MarkupElement, isLayout: boolean, file: string): ViewLogic | null {
    const wanted = this.#plan.project.app.delivery.logic ?? 'acting';
    return isLayout || wanted === 'without' || (wanted === 'acting' && !isActing(root))
      ? null
      : logicOf(component, root, actsBefore(this.#plan.project.app, file));
  }

  /** A component; kept until something changes that it depends on. */
  component(component: EmittedComponent): WrittenComponent {
    const { styles, palette } = this.#parts;
    const own = styles.files.get(componentFile(component.name))!;
    const context = this.#contextOf(component.root, componentFile(component.name));
    const known = writtenComponents.get(component);
    if (known?.own === own && known.palette === palette && known.context === context) return known;
    const made = { ...this.#component(component), own, palette, context };
    writtenComponents.set(component, made);
    return made;
  }

  #component(component: EmittedComponent): Pick<WrittenComponent, 'files' | 'pieces'> {
    const { name, lists = [], props } = component;
    const around = this.#around(componentFile(name));
    const taken = this.#taken(name);
    const isProp = (wanted: string): boolean => props.some((prop) => prop.name === wanted);
    const given = withGivenLists(
      component.root,
      lists,
      (wanted) => isProp(wanted) || this.#isConstant(wanted),
    );
    const parted = partComponent(
      { ...component, ...given },
      (one) => taken.has(one),
      this.#linesIn(around),
      this.#piecesBefore(componentFile(name)),
    );
    return {
      files: this.#dialect.component(
        parted.component,
        parted.pieces,
        `src/components/${name}/${name}`,
        around,
      ),
      pieces: keptPieces(parted.pieces),
    };
  }

  /** Whether the records of a collection are called so. */
  #isConstant(name: string): boolean {
    return this.#parts.collections.some(({ live }) => live.name === name);
  }

  #piecesBefore(file: string): PiecesBefore {
    return codeBefore(this.#plan.project.app).pieces.get(file) ?? new Map();
  }

  /** Names that the pieces of a file cannot have. */
  #taken(component: string): FileNames {
    const { extraction, icons } = this.#parts;
    return new FileNames([
      component,
      ...extraction.components.map(({ name }) => name),
      ...icons.all.map(({ name }) => name),
      ...OF_RUNTIME,
    ]);
  }

  /** A sheet of classes. @param source from the sheet to the folder of the source */
  sheet(rules: readonly StyleRule[], palette: Pick<Palette, 'nameOf'>, source: string): PrintedCode {
    const known = sheets.get(rules);
    if (known?.palette === palette && known.source === source) return known.printed;
    const printed = printRules(
      rules,
      (name) => `.${classInSheet(name)}`,
      (address) => `${source}assets/${assetFile(this.#plan.project, hashInAddress(address))}`,
      palette,
    );
    sheets.set(rules, { palette, source, printed });
    return printed;
  }

  #around(file: string): Around {
    const { styles, icons, palette } = this.#parts;
    const own: FileStyles = styles.files.get(file)!;
    return {
      classes: own.classes,
      css: this.sheet(own.rules, paletteFor(own, palette), '../../'),
      iconOf: icons.of,
      assetImport: assetImport(this.#plan.project, '../../'),
    };
  }
}

/** A name and a path for a picture. @param source from the file to the folder of the source */
const assetImport =
  (project: Project, source: string): Around['assetImport'] =>
  (hash) => {
    const picture = assetFile(project, hash);
    return {
      // With its type nothing else in code is called so.
      name: uniqueCodeName(camelCase(picture), 'picture', () => false),
      path: `${source}assets/${picture}`,
    };
  };

/**
 * What a file takes from that with the records of lists, which stands beside it.
 * @param name what that file is called, without its end
 */
export const dataFor = (
  name: string,
  lists: readonly EmittedList[],
  root: MarkupElement,
): { readonly data?: { readonly path: string; readonly names: readonly string[] } } =>
  lists.length
    ? { data: { path: `./${name}.data`, names: listsIn(root, lists.map(({ data }) => data).sort()) } }
    : {};

/** Which of these constants a piece of a screen takes its lists from. */
function listsIn(root: MarkupElement, names: readonly string[]): string[] {
  const used = new Set<string>();
  const visit = (node: MarkupElement): void => {
    for (const child of node.children) {
      if (isElement(child)) visit(child);
      else if ('list' in child) used.add(child.list.data);
    }
    for (const value of Object.values(node.use?.props ?? {}))
      if (typeof value === 'object' && 'items' in value && value.as !== undefined) used.add(value.as);
  };
  visit(root);
  return names.filter((name) => used.has(name));
}
