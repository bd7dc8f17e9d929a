import { kebabCase, uniqueName } from '../../model/names.ts';
import { isUsed, type Project } from '../../model/project.ts';
import { fillRoute, normaliseRoute } from '../../paths/pattern.ts';
import type { PlacedLayout } from '../form/layouts/layouts.ts';
import { type RouteEntry, sortedRoutes, targetOfRedirect } from '../form/route_tree.ts';
import { joined, named, onLines, script, type Script } from '../script.ts';

interface RouteNames {
  readonly start: string;
  readonly conditionOf: (condition: string) => string | null;
  readonly layouts: readonly PlacedLayout[];
}

/**
 * A route as Vue Router writes it: what stands for the rest of an address has a name, and signs that mean something to it
 * are taken as they are.
 */
export const vuePath = (route: string): string =>
  route.replace(/[()+{}\\]/g, '\\$&').replace(/\*$/, ':rest(.*)*');

/**
 * Writes `routes.ts`: the screens, their guards and layouts, redirects, and what is shown where nothing fits. Screens have
 * whole paths wherever they stand; a layout has one that only leads on.
 */
export function routesTs(project: Project, rows: readonly RouteEntry[], names: RouteNames): string {
  const { app } = project;
  const used = new Set<string>();
  const paths = new Set(rows.map(({ path }) => path));
  const homeOf = (key: string): string | null =>
    names.layouts.filter((layout) => layout.screens.includes(key)).at(-1)?.name ?? null;
  const entry = (row: RouteEntry, path = vuePath(row.path)): Script => {
    const guard = app.screens[row.key].guard;
    const condition = guard && names.conditionOf(guard.condition);
    const other = guard && isUsed(project, guard.otherwise) ? app.screens[guard.otherwise] : null;
    const fields = [
      script`path: ${path}`,
      script`component: () => import(${`./screens/${row.folder}/${row.folder}.vue`})`,
      script`meta: { title: ${row.name} }`,
    ];
    if (guard && condition && other) {
      used.add('variables').add('fill');
      const to = fillRoute(other.route, other.params ?? {});
      const test = guard.is
        ? script`variables.${named(condition)}`
        : script`variables.${named(condition)} === false`;
      fields.push(script`beforeEnter: (to) => ${test} || fill(${to}, to.params)`);
    }
    return script`{ ${joined(fields, ', ')} }`;
  };
  const within = (parent: string | null): Script[] => [
    ...sortedRoutes(rows)
      .filter((row) => row.path !== '/*' && homeOf(row.key) === parent)
      .map((row) => entry(row)),
    ...names.layouts
      .filter((layout) => layout.parent === parent)
      .map(({ name, screens }) => {
        const path = uniqueName(`/${kebabCase(name)}`, (one) => paths.has(one));
        paths.add(path);
        const first = sortedRoutes(rows.filter(({ key }) => screens.includes(key)))[0];
        const lead = first ? fillRoute(first.path, app.screens[first.key].params ?? {}) : names.start;
        return script`{ path: ${path}, redirect: ${lead}, component: ${named(name)}, children: [${within(name)}] }`;
      }),
  ];
  const hasRoot = rows.some((row) => normaliseRoute(row.path) === '/') || Object.hasOwn(app.redirects, '/');
  const last = rows.find((row) => row.path === '/*');
  const redirects = Object.entries(app.redirects)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([from, { to }]) => {
      if (!isUsed(project, to)) return [];
      const target = targetOfRedirect(app, from, to);
      if (!/\/:/.test(target)) return [script`{ path: ${vuePath(from)}, redirect: ${target} }`];
      used.add('fill');
      return [script`{ path: ${vuePath(from)}, redirect: (to) => fill(${target}, to.params) }`];
    });
  const all = [
    ...(hasRoot || !rows.length ? [] : [script`{ path: '/', redirect: ${names.start} }`]),
    ...within(null),
    ...redirects,
    last
      ? entry(last, '/:rest(.*)*')
      : script`{ path: '/:rest(.*)*', name: 'not-found', component: NotFound, meta: { title: 'Not found' } }`,
  ];
  const imports = [
    script`import type { RouteRecordRaw } from 'vue-router';`,
    ...names.layouts.map(
      ({ name }) => script`import ${named(name)} from ${`./layouts/${name}/${name}.vue`};`,
    ),
    ...(used.has('fill') ? [script`import { fill } from './navigation/fill';`] : []),
    ...(last ? [] : [script`import NotFound from './screens/NotFound/NotFound.vue';`]),
    ...(used.has('variables') ? [script`import { variables } from './state/variables';`] : []),
  ];
  return script`${onLines(imports)}

export const routes: RouteRecordRaw[] = [
${onLines(all.map((one) => script`  ${one},`))}
];
`.text;
}
