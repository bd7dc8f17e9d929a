import { applyChange, putScreen } from '../change/change.ts';
import { findingsOf } from '../findings/rules.ts';
import { graphOf } from '../graph/graph.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { wired } from '../testing/wired.ts';
import { parentRoute, rerouted, reroutedProblem, routeBelow } from './edit.ts';
import { screenAtAddress } from './routes.ts';

/** Screens at these routes, by their names. */
function routed(routes: Readonly<Record<string, string>>): Project {
  const { design, app } = projectOf(...Object.keys(routes).map((name) => screenWith(name, 'One')));
  return Object.entries(routes).reduce<Project>(
    (project, [key, route]) => ({
      design,
      app: applyChange(project.app, putScreen(key, { ...project.app.screens[key], route })),
    }),
    { design, app },
  );
}

const site = routed({
  home: '/',
  tools: '/tools',
  tool: '/tools/:toolId',
  edit: '/tools/:toolId/edit',
  loans: '/loans',
});
const routesAfter = (project: Project, screen: string, route: string): string =>
  Object.values(applyChange(project.app, rerouted(project, screen, route)).screens)
    .map((entry) => entry.route)
    .join(' ');

test.each([
  ['tools', '/things', '/ /things /things/:toolId /things/:toolId/edit /loans'],
  ['tool', 'tools/one', '/ /tools /tools/one /tools/one/edit /loans'],
  ['loans', '/tools/loans/', '/ /tools /tools/:toolId /tools/:toolId/edit /tools/loans'],
  ['home', '/start', '/start /tools /tools/:toolId /tools/:toolId/edit /loans'],
])('%s to %s: %s', (screen, route, expected) => {
  expect(routesAfter(site, screen, route)).toBe(expected);
});

test('a screen that is skipped keeps the route that it is given, for when it is taken up again', () => {
  const skipped = {
    ...site,
    app: applyChange(site.app, putScreen('loans', { ...site.app.screens.loans, use: 'skip' })),
  };
  expect(routesAfter(skipped, 'loans', '/borrowed')).toBe(
    '/ /tools /tools/:toolId /tools/:toolId/edit /borrowed',
  );
});

test.each([
  ['tools', '/loans', /Loans has this route already/],
  ['tools', '/tools/x', /cannot lie below itself/],
  ['tools', '/tools', null],
  ['loans', '/tools/:id', /Tool has this route already/],
  ['loans', '/tools/:id/x', null],
])('%s to %s is refused: %s', (screen, route, problem) => {
  const said = reroutedProblem(site, screen, route);
  if (problem) expect(said).toMatch(problem);
  else expect(said).toBeNull();
});

test('what comes along must find a free route, too', () => {
  const project = routed({ tools: '/tools', old: '/tools/old', other: '/things/old' });
  expect(reroutedProblem(project, 'tools', '/things')).toMatch(
    /Old comes along: Other has this route already/,
  );
});

test.each([
  ['loans', 'tools', '/tools/loans'],
  ['tool', 'loans', '/loans/tools/:toolId'],
  ['edit', null, '/edit'],
  ['home', 'tools', '/tools/home'],
])('%s dragged under %s lives at %s', (screen, parent, route) => {
  expect(routeBelow(site.app, screen, parent)).toBe(route);
});

test('the parent of a route is the longest that it lies below', () => {
  expect(['home', 'tool', 'edit', 'loans'].map((key) => parentRoute(site.app, key))).toEqual([
    null,
    'tools',
    'tool',
    null,
  ]);
});

test('a new parameter gets a value to show the screen with, and links follow', () => {
  const project = wired('a>b');
  const app = applyChange(project.app, rerouted(project, 'b', '/things/:thingId'));
  expect(app.screens.b.params).toEqual({ thingId: 'one' });
  const graph = graphOf({ ...project, app });
  expect(graph.links[0]).toMatchObject({ to: 'b', problem: null });
  const codes = findingsOf({ ...project, app }).map((finding) => finding.code);
  expect(codes).toContain('parameter-missing');
  const { params: _params, ...bare } = app.screens.b;
  const without = { ...project, app: applyChange(app, putScreen('b', bare)) };
  expect(graphOf(without).links[0].problem).toBe('B needs :thingId, which nobody gives');
});

test('a route that another hides is said, with the address at which it is', () => {
  const project = routed({ tools: '/tools', tool: '/tools/:toolId?', page: '/:page' });
  const said = findingsOf(project).filter((finding) => finding.code === 'route-shadowed');
  expect(said.map((finding) => finding.message)).toEqual([
    'Tools is shown at /tools, not Tool: its route /tools comes first.',
  ]);
});

test.each([
  ['/tools/saw?x=1#y', 'tool'],
  ['/TOOLS', 'tools'],
  ['/nothing', null],
])('at %s the app shows %s', (address, key) => expect(screenAtAddress(site, address)).toBe(key));
