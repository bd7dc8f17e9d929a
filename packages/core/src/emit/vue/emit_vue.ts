import type { Project } from '../../model/project.ts';
import type { Around, Dialect, View, WrittenApp } from '../bundled/dialect.ts';
import { dataFor, emitBundled } from '../bundled/emit_bundled.ts';
import { formattedLines } from '../bundled/formatted_lines.ts';
import { overlaysTs } from '../bundled/overlays_file.ts';
import { named, script } from '../script.ts';
import * as common from '../bundled/project_files.ts';
import { allNamed, sheetFile } from '../bundled/wording.ts';
import type { EmittedFile, EmittedProject } from '../emitted.ts';
import type { EmittedComponent } from '../form/components/extract.ts';
import type { EmittedList } from '../form/components/lists.ts';
import type { MarkupElement } from '../form/markup.ts';
import type { EmissionProgress } from '../progress.ts';
import * as around from './around_files.ts';
import { variablesTs } from './variables_file.ts';
import { appVue, mainTs } from './main_file.ts';
import { newUse, type OwnDrawing, printData, printElement, printVue, type VueFile } from './print_vue.ts';
import { routesTs, vuePath } from './routes_file.ts';
import { runtime } from './runtime_texts.ts';

/** Writes the whole project: Vue, TypeScript, Vite and Vue Router. Same input, same bytes. */
export const emitVue = (project: Project, name: string, tell?: EmissionProgress): EmittedProject =>
  emitBundled(project, name, vue, tell);

const vue: Dialect = {
  ending: '.vue',
  reserved: [
    'NotFound',
    'Notice',
    'Leaving',
    'Form',
    'FieldMessage',
    'Chart',
    'SortButton',
    'App',
    'Go',
    'Back',
    'Overlay',
    'OverlayHost',
    'RouterLink',
    'RouterView',
    'Component',
    'KeepAlive',
    'Slot',
    'Suspense',
    'Teleport',
    'Template',
    'Transition',
    'TransitionGroup',
  ],
  beside: {
    takes: 'variables',
    before: () => null,
    variable: (name) => `variables.${name}`,
    all: (records) => `${allNamed(records)}.value`,
  },
  made: 'Vue single-file components and CSS Modules',
  root: 'app',
  main: 'main.ts',
  routes: 'routes.ts',
  runtime,
  linesOf: (node, file) => formattedLines(printElement(node, 1, newUse(fileFor('', file)))),
  view: viewFiles,
  component: (component, pieces, path, file) => {
    const { lists = [] } = component;
    const parts = new Set(pieces.map(({ name }) => name));
    const print = (at: string, { name, props, root }: EmittedComponent): EmittedFile[] => {
      const made: VueFile = {
        ...fileFor(component.name, file),
        components: '..',
        parts,
        isTaken: (one) => parts.has(one) || one === component.name,
        props: { of: name, list: props },
        ...dataFor(component.name, lists, root),
      };
      return withDrawings(at, printVue(root, made), made);
    };
    const files = [
      ...print(path, component),
      ...sheetFile(path, file),
      ...pieces.flatMap((piece) => print(path.replace(/[^/]*$/, piece.name), piece)),
      ...dataFiles(path, lists, { ...fileFor(component.name, file), components: '..' }),
    ];
    // A drawing that is given at several places is one file.
    return [...new Map(files.map((one) => [one.path, one])).values()];
  },
  icon: (icon, assetImport) => {
    const { text, lines } = printVue(icon.node, {
      sheet: icon.name,
      source: '..',
      components: '../components',
      classes: new Map(),
      iconOf: () => null,
      assetImport,
      isTaken: () => false,
    });
    return { text, lines };
  },
  around: aroundFiles,
};

const fileFor = (sheet: string, { classes, iconOf, assetImport }: Around): VueFile => ({
  sheet,
  classes,
  iconOf,
  assetImport,
  source: '../..',
  components: '../../components',
  isTaken: () => false,
});

/** A file, with the drawings that it gives to components, each in a file beside it. */
function withDrawings(
  path: string,
  { text, lines, drawings }: ReturnType<typeof printVue>,
  file: VueFile,
  ending = '.vue',
): EmittedFile[] {
  // A drawing is given nothing.
  const { props: _props, data: _data, logic: _logic, ...own } = file;
  return [
    { path: path + ending, text, lines },
    ...drawings.flatMap(({ name, root }: OwnDrawing) =>
      withDrawings(path.replace(/[^/]*$/, name), printVue(root, own), own),
    ),
  ];
}

/** A screen with its styles, its pieces and the records of its lists. */
function viewFiles(view: View): EmittedFile[] {
  const { path, component, root, parts, lists } = view;
  const names = new Set(parts.map((part) => part.name));
  const file: VueFile = {
    ...fileFor(component, view),
    parts: names,
    logic: view.logic,
    isTaken: (name) => names.has(name) || name === component,
  };
  const print = (at: string, node: MarkupElement): EmittedFile[] =>
    withDrawings(at, printVue(node, { ...file, ...dataFor(component, lists, node) }), file);
  const files = [
    ...print(path, root),
    ...sheetFile(path, view),
    ...parts.flatMap((part) => print(path.replace(/[^/]*$/, part.name), part.root)),
    ...dataFiles(path, lists, file),
  ];
  // A drawing that is given at several places is one file.
  return [...new Map(files.map((one) => [one.path, one])).values()];
}

/** The file with the records of lists, beside what shows them, and those of drawings in it. */
const dataFiles = (path: string, lists: readonly EmittedList[], file: VueFile): EmittedFile[] =>
  lists.length ? withDrawings(path, printData(lists, file), file, '.data.ts') : [];

function aroundFiles(app: WrittenApp): EmittedFile[] {
  const { plan, rows, layouts, overlays, variables, sheets, hasTests } = app;
  const text = (path: string, content: string): EmittedFile => ({ path, text: content });
  const opening = overlays.map((one) => ({ ...one, over: one.over.map(vuePath) }));
  return [
    ...common.aroundFiles(app, around.packages),
    text(
      'src/main.ts',
      mainTs(
        sheets,
        app.apis.length > 0,
        variables.some(({ variable }) => variable.kept && variable.kept !== 'device'),
      ),
    ),
    text('src/App.vue', appVue(overlays.length > 0, app.hasNotice)),
    text(
      'src/routes.ts',
      routesTs(plan.project, rows, {
        start: plan.start,
        conditionOf: (id) => plan.variables.get(id) ?? null,
        layouts,
      }),
    ),
    ...(variables.length ? [text('src/state/variables.ts', variablesTs(variables))] : []),
    ...(overlays.length
      ? [
          text(
            'src/overlays/overlays.ts',
            overlaysTs(
              opening,
              (component) => script`import ${named(component)} from ${`./${component}/${component}.vue`};`,
            ),
          ),
        ]
      : []),
    ...(hasTests ? [text('src/testing/app.ts', around.testedAppTs(app.testedApp))] : []),
  ];
}
