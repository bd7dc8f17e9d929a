import type { Project } from '../../model/project.ts';
import type { EmittedComponent } from '../form/components/extract.ts';
import type { EmittedList } from '../form/components/lists.ts';
import type { Around, Dialect, View, WrittenApp } from '../bundled/dialect.ts';
import { dataFor, emitBundled, emitInSteps } from '../bundled/emit_bundled.ts';
import { formattedLines } from '../bundled/formatted_lines.ts';
import { overlaysTs } from '../bundled/overlays_file.ts';
import { named, script } from '../script.ts';
import * as common from '../bundled/project_files.ts';
import { allNamed, sheetFile } from '../bundled/wording.ts';
import type { EmittedFile, EmittedProject } from '../emitted.ts';
import type { EmissionProgress } from '../progress.ts';
import * as around from './around_files.ts';
import { variablesTs } from './variables_file.ts';
import { mainTsx } from './main_file.ts';
import { printComponent, printData } from './print_component.ts';
import { newUsed, printElement, printIcon, printTsx, type TsxOptions } from './print_tsx.ts';
import { routesTsx } from './routes_file.ts';
import { runtime } from './runtime_texts.ts';

/** Writes the whole project: React, TypeScript, Vite and React Router. Same input, same bytes. */
export const emitReact = (project: Project, name: string, tell?: EmissionProgress): EmittedProject =>
  emitBundled(project, name, react, tell);

/** The same a screen at a time, each with its files as they are written. */
export const emitReactInSteps = (
  project: Project,
  name: string,
  tell?: EmissionProgress,
): Generator<readonly EmittedFile[], EmittedProject, void> => emitInSteps(project, name, react, tell);

/**
 * Writes the whole project as it is handed over: components of the team's own are taken from its library. What runs within Tovel
 * is written without, since that library is not there.
 */
export const emitReactWithTheirs = (
  project: Project,
  name: string,
  tell?: EmissionProgress,
): EmittedProject => emitBundled(project, name, { ...react, takesTheirs: true }, tell);

const react: Dialect = {
  ending: '.tsx',
  reserved: [
    'NotFound',
    'Notice',
    'Leaving',
    'Form',
    'FieldMessage',
    'Chart',
    'SortButton',
    'Shell',
    'Guard',
    'Redirect',
    'Outlet',
    'Navigate',
    'Overlay',
  ],
  beside: {
    takes: 'useVariables',
    before: (names) => script`const { ${names.map((name) => named(name))} } = useVariables();`,
    variable: (name) => name,
    all: allNamed,
  },
  made: 'plain React and CSS Modules',
  root: 'root',
  main: 'main.tsx',
  routes: 'routes.tsx',
  runtime,
  linesOf: (node, file) => formattedLines(printElement(node, 2, newUsed(optionsFor('', file)))),
  view: viewFiles,
  component: (component, pieces, path, file) => {
    const options = {
      ...optionsFor(component.name, file),
      components: '..',
      sheet: component.name,
      parts: new Set(pieces.map(({ name }) => name)),
    };
    const { lists = [] } = component;
    const print = (one: EmittedComponent) =>
      printComponent(one, { ...options, ...dataFor(component.name, lists, one.root) });
    return [
      { path: `${path}.tsx`, ...print(component) },
      ...sheetFile(path, file),
      ...pieces.map((piece) => ({
        path: `${path.replace(/[^/]*$/, '')}${piece.name}.tsx`,
        ...print(piece),
      })),
      ...dataFile(path, lists, options),
    ];
  },
  icon: (icon, assetImport) => printIcon(icon, { component: icon.name, source: '..', assetImport }),
  around: aroundFiles,
};

const optionsFor = (component: string, { classes, iconOf, assetImport }: Around): TsxOptions => ({
  component,
  classes,
  iconOf,
  assetImport,
  source: '../..',
  components: '../../components',
});

/** A screen with its styles, its pieces and the records of its lists. */
function viewFiles(view: View): EmittedFile[] {
  const { path, component, root, parts, lists, hasOutlet } = view;
  const options = { ...optionsFor(component, view), hasOutlet };
  const names = new Set(parts.map((part) => part.name));
  const print = (name: string, node: View['root']) =>
    printTsx(node, {
      ...options,
      component: name,
      sheet: component,
      parts: names,
      logic: view.logic,
      ...dataFor(component, lists, node),
    });
  return [
    { path: `${path}.tsx`, ...print(component, root) },
    ...sheetFile(path, view),
    ...parts.map((part) => ({
      path: `${path.replace(/[^/]*$/, '')}${part.name}.tsx`,
      ...print(part.name, part.root),
    })),
    ...dataFile(path, lists, options),
  ];
}

/** The file with the records of lists, beside what shows them. */
function dataFile(path: string, lists: readonly EmittedList[], options: TsxOptions): EmittedFile[] {
  if (!lists.length) return [];
  const ending = JSON.stringify(lists).includes('"node":') ? 'tsx' : 'ts';
  return [{ path: `${path}.data.${ending}`, ...printData(lists, options) }];
}

function aroundFiles(app: WrittenApp): EmittedFile[] {
  const { plan, rows, layouts, overlays, variables, sheets, hasTests } = app;
  const text = (path: string, content: string): EmittedFile => ({ path, text: content });
  return [
    ...common.aroundFiles(app, around.packages),
    text('src/main.tsx', mainTsx(sheets, app.apis.length > 0, app.hasNotice)),
    text(
      'src/routes.tsx',
      routesTsx(plan.project, rows, {
        start: plan.start,
        conditionOf: (id) => plan.variables.get(id) ?? null,
        layouts,
        hasOverlays: overlays.length > 0,
      }),
    ),
    ...(variables.length ? [text('src/state/variables.ts', variablesTs(variables))] : []),
    ...(overlays.length
      ? [
          text(
            'src/overlays/overlays.ts',
            overlaysTs(
              overlays,
              (component) => script`import { ${named(component)} } from ${`./${component}/${component}`};`,
            ),
          ),
        ]
      : []),
    ...(hasTests ? [text('src/testing/app.tsx', around.testedAppTsx(app.testedApp))] : []),
  ];
}
