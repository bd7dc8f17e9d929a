import { sameList } from '../../json/kept.ts';
import { type PlacedLayout } from '../form/layouts/layouts.ts';
import type { App } from '../../model/app.ts';
import { byDrawing } from '../../model/places.ts';
import { isUsed, type Project } from '../../model/project.ts';
import { fillRoute, normaliseRoute } from '../../paths/pattern.ts';
import { PRINT_WIDTH } from '../line_width.ts';
import { indented, inTsx, joined, linesOf, named, onLines, script, type Script } from '../script.ts';
import { type RouteEntry, type RouteNode, routeTree, targetOfRedirect } from '../form/route_tree.ts';

interface RouteNames {
  readonly start: string;
  readonly conditionOf: (condition: string) => string | null;
  readonly layouts: readonly PlacedLayout[];
  readonly hasOverlays: boolean;
}

/** What was written last for a design, and what of. */
const lastOf = byDrawing((): { of: readonly unknown[]; text: string } => ({ of: [], text: '' }));

/** Writes `routes.tsx`: the screens, their guards and layouts, redirects, and what is shown where nothing fits. */
export function routesTsx(project: Project, rows: readonly RouteEntry[], names: RouteNames): string {
  const { screens, redirects, variables } = project.app;
  const layouts = names.layouts.map(({ name, screens: within, parent }) => [name, within, parent]);
  const said = JSON.stringify([rows, layouts, names.start, names.hasOverlays]);
  const of = [screens, redirects, variables, said];
  const last = lastOf(project.design);
  if (!sameList(last.of, of)) Object.assign(last, { of, text: writtenRoutes(project, rows, names) });
  return last.text;
}

function writtenRoutes(project: Project, rows: readonly RouteEntry[], names: RouteNames): string {
  const { app } = project;
  const hasRoot = rows.some((row) => normaliseRoute(row.path) === '/') || hasRedirect(app, '/');
  const hasNotFound = rows.some((row) => row.path === '/*');
  const uses = { navigate: false, guard: false, redirect: false };
  const lines: Script[] = [];
  if (!hasRoot && rows.length) {
    uses.navigate = true;
    lines.push(script`      { path: '/', element: <Navigate to=${inTsx(names.start)} replace /> },`);
  }
  const entry = (row: RouteEntry, address: Script, depth: number): Script => {
    const guard = app.screens[row.key].guard;
    const condition = guard && names.conditionOf(guard.condition);
    const other = guard && isUsed(project, guard.otherwise) ? app.screens[guard.otherwise] : null;
    const handle = script`handle: { title: ${row.name} }`;
    if (!guard || !condition || !other)
      return object([address, script`lazy: async () => ({ Component: ${loaded(row)} })`, handle], depth);
    uses.guard = true;
    const to = fillRoute(other.route, other.params ?? {});
    const attributes = [
      script`condition=${inTsx(condition)}`,
      ...(guard.is ? [] : [script`is={false}`]),
      script`otherwise=${inTsx(to)}`,
    ];
    const lazy = script`lazy: async () => {
  const ${named(row.folder)} = ${loaded(row)};
  return { ${guarded(named(row.folder), attributes, depth)} };
}`;
    return object([address, lazy, handle], depth);
  };
  const print = (nodes: readonly RouteNode[], depth: number): Script[] =>
    nodes.map((node) => {
      if (node.kind === 'screen')
        return entry(node.row, node.path === null ? script`index: true` : script`path: ${node.path}`, depth);
      return onLines([
        indented(script`{`, depth),
        ...(node.path === null ? [] : [indented(script`path: ${node.path},`, depth + 1)]),
        indented(script`Component: ${named(node.name)},`, depth + 1),
        indented(script`children: [`, depth + 1),
        ...print(node.children, depth + 2),
        indented(script`],`, depth + 1),
        indented(script`},`, depth),
      ]);
    });
  const last = rows.find((row) => row.path === '/*');
  lines.push(
    ...print(
      routeTree(
        rows.filter((row) => row !== last),
        names.layouts,
      ),
      3,
    ),
  );
  for (const [from, { to }] of Object.entries(app.redirects).sort(([a], [b]) => (a < b ? -1 : 1))) {
    if (!isUsed(project, to)) continue;
    uses.redirect = true;
    const target = inTsx(targetOfRedirect(app, from, to));
    lines.push(object([script`path: ${from}`, script`element: <Redirect to=${target} />`], 3));
  }
  lines.push(
    last
      ? entry(last, script`path: '*'`, 3)
      : script`      { path: '*', Component: NotFound, handle: { title: 'Not found' } },`,
  );
  const imports = [
    ...(hasNotFound ? [] : [['NotFound', './screens/NotFound/NotFound'] as const]),
    ...names.layouts.map(({ name }) => [name, `./layouts/${name}/${name}`] as const),
    ...(uses.guard ? [['Guard', './navigation/Guard'] as const] : []),
    ...(uses.redirect ? [['Redirect', './navigation/Redirect'] as const] : []),
    ...(names.hasOverlays ? [['OverlayProvider', './overlays/OverlayProvider'] as const] : []),
    ['Shell', './shell/Shell'] as const,
  ]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, path]) => script`import { ${named(name)} } from ${path};`);
  const shell = names.hasOverlays
    ? script`    element: (
      <OverlayProvider>
        <Shell />
      </OverlayProvider>
    ),`
    : script`    Component: Shell,`;
  const navigate = uses.navigate ? script`Navigate, ` : script``;
  return script`import { ${navigate}type RouteObject } from 'react-router';
${onLines(imports)}

export const routes: RouteObject[] = [
  {
${shell}
    // While the first screen is on its way.
    HydrateFallback: () => null,
    children: [
${onLines(lines)}
    ],
  },
];
`.text;
}

const hasRedirect = (app: App, path: string): boolean => Object.hasOwn(app.redirects, path);

/** The component of a screen, of which nothing is loaded before somebody comes there. */
const loaded = ({ folder }: RouteEntry): Script =>
  script`(await import(${`./screens/${folder}/${folder}`})).${named(folder)}`;

/** `element: <Guard …><Screen /></Guard>`, on lines of its own where it is long. */
function guarded(component: Script, attributes: readonly Script[], depth: number): Script {
  const head = (further: number): Script => {
    const flat = indented(script`<Guard ${joined(attributes, ' ')}>`, further);
    return flat.length <= PRINT_WIDTH
      ? flat
      : onLines([
          indented(script`<Guard`, further),
          ...attributes.map((attribute) => indented(attribute, further + 1)),
          indented(script`>`, further),
        ]);
  };
  return script`element: (
${head(depth + 2)}
${indented(script`<${component} />`, depth + 3)}
${indented(script`</Guard>`, depth + 2)}
${indented(script`)`, depth + 1)}`;
}

/** An object of these properties, on one line where it fits. */
function object(properties: readonly Script[], depth: number): Script {
  const flat = indented(script`{ ${joined(properties, ', ')} },`, depth);
  if (flat.length <= PRINT_WIDTH && linesOf(flat).length === 1) return flat;
  return onLines([
    indented(script`{`, depth),
    ...properties.map((property) => indented(script`${property},`, depth + 1)),
    indented(script`},`, depth),
  ]);
}
