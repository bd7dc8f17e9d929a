import { type PlacedLayout } from '../form/layouts/layouts.ts';
import type { App } from '../../model/app.ts';
import { isUsed, type Project } from '../../model/project.ts';
import { fillRoute, normaliseRoute } from '../../paths/pattern.ts';
import { PRINT_WIDTH } from '../line_width.ts';
import { jsxValue, quote } from '../quoting.ts';
import { type RouteEntry, type RouteNode, routeTree, targetOfRedirect } from '../form/route_tree.ts';

interface RouteNames {
  readonly start: string;
  readonly conditionOf: (condition: string) => string | null;
  readonly layouts: readonly PlacedLayout[];
  readonly hasOverlays: boolean;
}

/** Writes `routes.tsx`: the screens, their guards and layouts, redirects, and what is shown where nothing fits. */
export function routesTsx(project: Project, rows: readonly RouteEntry[], names: RouteNames): string {
  const { app } = project;
  const hasRoot = rows.some((row) => normaliseRoute(row.path) === '/') || hasRedirect(app, '/');
  const hasNotFound = rows.some((row) => row.path === '/*');
  const uses = { navigate: false, guard: false, redirect: false };
  const lines: string[] = [];
  if (!hasRoot && rows.length) {
    uses.navigate = true;
    lines.push(`      { path: '/', element: <Navigate to=${jsxValue(names.start)} replace /> },`);
  }
  const entry = (row: RouteEntry, address: string, depth: number): string[] => {
    const guard = app.screens[row.key].guard;
    const condition = guard && names.conditionOf(guard.condition);
    const other = guard && isUsed(project, guard.otherwise) ? app.screens[guard.otherwise] : null;
    const handle = `handle: { title: ${quote(row.name)} }`;
    if (!guard || !condition || !other)
      return object([address, `lazy: async () => ({ Component: ${loaded(row)} })`, handle], depth);
    uses.guard = true;
    const to = fillRoute(other.route, other.params ?? {});
    const attributes = [
      `condition=${jsxValue(condition)}`,
      ...(guard.is ? [] : ['is={false}']),
      `otherwise=${jsxValue(to)}`,
    ];
    const lazy = `lazy: async () => {\n  const ${row.folder} = ${loaded(row)};\n  return { ${guarded(row.folder, attributes, depth)} };\n}`;
    return object([address, lazy, handle], depth);
  };
  const print = (nodes: readonly RouteNode[], depth: number): string[] =>
    nodes.flatMap((node) => {
      if (node.kind === 'screen')
        return entry(node.row, node.path === null ? 'index: true' : `path: ${quote(node.path)}`, depth);
      const indent = '  '.repeat(depth);
      return [
        `${indent}{`,
        ...(node.path === null ? [] : [`${indent}  path: ${quote(node.path)},`]),
        `${indent}  Component: ${node.name},`,
        `${indent}  children: [`,
        ...print(node.children, depth + 2),
        `${indent}  ],`,
        `${indent}},`,
      ];
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
    const target = jsxValue(targetOfRedirect(app, from, to));
    lines.push(...object([`path: ${quote(from)}`, `element: <Redirect to=${target} />`], 3));
  }
  lines.push(
    ...(last
      ? entry(last, "path: '*'", 3)
      : [`      { path: '*', Component: NotFound, handle: { title: 'Not found' } },`]),
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
    .map(([name, path]) => `import { ${name} } from '${path}';`);
  const shell = names.hasOverlays
    ? '    element: (\n      <OverlayProvider>\n        <Shell />\n      </OverlayProvider>\n    ),'
    : '    Component: Shell,';
  return `import { ${uses.navigate ? 'Navigate, ' : ''}type RouteObject } from 'react-router';
${imports.join('\n')}

export const routes: RouteObject[] = [
  {
${shell}
    // While the first screen is on its way.
    HydrateFallback: () => null,
    children: [
${lines.join('\n')}
    ],
  },
];
`;
}

const hasRedirect = (app: App, path: string): boolean => Object.hasOwn(app.redirects, path);

/** The component of a screen, of which nothing is loaded before somebody comes there. */
const loaded = ({ folder }: RouteEntry): string =>
  `(await import('./screens/${folder}/${folder}')).${folder}`;

/** `element: <Guard …><Screen /></Guard>`, on lines of its own where it is long. */
function guarded(component: string, attributes: readonly string[], depth: number): string {
  const indent = '  '.repeat(depth + 1);
  const open = `<Guard ${attributes.join(' ')}>`;
  const head =
    `${indent}  ${open}`.length <= PRINT_WIDTH
      ? [`${indent}  ${open}`]
      : [`${indent}  <Guard`, ...attributes.map((attribute) => `${indent}    ${attribute}`), `${indent}  >`];
  return ['element: (', ...head, `${indent}    <${component} />`, `${indent}  </Guard>`, `${indent})`].join(
    '\n',
  );
}

/** An object of these properties, on one line where it fits. */
function object(properties: readonly string[], depth: number): string[] {
  const indent = '  '.repeat(depth);
  const flat = `${indent}{ ${properties.join(', ')} },`;
  if (flat.length <= PRINT_WIDTH && !flat.includes('\n')) return [flat];
  return [
    `${indent}{`,
    ...properties.flatMap((property) => `${indent}  ${property},`.split('\n')),
    `${indent}},`,
  ];
}
