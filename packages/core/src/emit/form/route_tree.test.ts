import { type PlacedLayout } from './layouts/layouts.ts';
import fc from 'fast-check';
import { matchRoutes, type RouteObject } from 'react-router';
import { RouteMatcher } from '../../paths/pattern.ts';
import { commonBase, type RouteNode, routeTree, sortedRoutes } from './route_tree.ts';

const row = (path: string) => ({ key: path, name: path, path, folder: path });

/** The table as the router has it; a layout shows what is in it. */
const inRouter = (nodes: readonly RouteNode[]): RouteObject[] =>
  nodes.map((node) =>
    node.kind === 'layout'
      ? { ...(node.path === null ? {} : { path: node.path }), children: inRouter(node.children) }
      : node.path === null
        ? { index: true, id: node.row.key }
        : { path: node.path, id: node.row.key },
  );

const PATHS = [
  '/',
  '/desk',
  '/desk/members',
  '/desk/members/:id',
  '/desk/tools',
  '/tools',
  '/tools/:id',
  '/:page',
];

test('a table with layouts shows at each address what the routes alone say', () => {
  const chosen = fc.uniqueArray(fc.constantFrom(...PATHS), { minLength: 2 });
  const addresses = [
    '/',
    '/desk',
    '/desk/',
    '/desk/members',
    '/desk/members/7',
    '/desk/x',
    '/tools/saw',
    '/about',
    '/a/b',
  ];
  fc.assert(
    fc.property(chosen, fc.nat(), (paths, seed) => {
      const rows = paths.map(row);
      const outer = paths.filter((_, i) => (seed >> i) & 1);
      const inner = outer.filter((_, i) => (seed >> (i + 9)) & 1);
      const layouts: PlacedLayout[] = [
        ...(outer.length ? [{ name: 'Outer', screens: outer, parent: null }] : []),
        ...(inner.length ? [{ name: 'Inner', screens: inner, parent: 'Outer' }] : []),
      ];
      const table = inRouter(routeTree(rows, layouts));
      const sorted = sortedRoutes(rows);
      const matcher = new RouteMatcher(sorted.map((one) => one.path));
      for (const address of addresses) {
        const found = matcher.match(address);
        const shown = matchRoutes(table, address)?.findLast((one) => one.route.id?.startsWith('/'));
        expect(shown?.route.id ?? null).toBe(found ? sorted[found.route].key : null);
      }
    }),
    { numRuns: 400 },
  );
});

test.each([
  [['/desk', '/desk/members'], '/desk'],
  [['/desk/a', '/desk/b'], '/desk'],
  [['/desk', '/design'], ''],
  [['/', '/desk'], ''],
  [['/t/:id', '/t/:id/edit'], '/t/:id'],
  [['/t/:id?', '/t/:id?/edit'], '/t'],
])('%j begin with %j', (paths, base) => expect(commonBase(paths)).toBe(base));

test('a layout takes the common path, its first screen is the index', () => {
  const tree = routeTree(['/desk', '/desk/members', '/x'].map(row), [
    { name: 'Desk', screens: ['/desk', '/desk/members'], parent: null },
  ]);
  expect(tree).toEqual([
    { kind: 'screen', row: row('/x'), path: '/x' },
    {
      kind: 'layout',
      name: 'Desk',
      path: '/desk',
      children: [
        { kind: 'screen', row: row('/desk'), path: null },
        { kind: 'screen', row: row('/desk/members'), path: 'members' },
      ],
    },
  ]);
});
