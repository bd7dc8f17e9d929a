import fc from 'fast-check';
import { emptyApp } from '../model/app.ts';
import { normaliseRoute } from '../paths/pattern.ts';
import { projectOf, screenWith, withApp } from '../testing/build.ts';
import { freeRoute, nameProblem, routeFromName, routeProblem, routeTable } from './routes.ts';

const app = {
  ...emptyApp,
  screens: {
    home: { name: 'Home', route: '/', use: 'screen', order: 1 },
    list: { name: 'List', route: '/list', use: 'screen', order: 2 },
    old: { name: 'Old', route: '/old', use: 'skip', order: 3 },
  },
} as const;

test.each([
  ['Tool detail', '/tool-detail'],
  ['Sign in', '/sign-in'],
  ['❖', '/screen'],
])('%s lives at %s', (name, route) => expect(routeFromName(name)).toBe(route));

test('a route from a name is free and can be taken', () => {
  fc.assert(
    fc.property(fc.array(fc.string(), { maxLength: 12 }), (names) => {
      const taken = new Set<string>();
      for (const name of names) {
        const route = freeRoute(name, taken);
        expect(taken.has(route)).toBe(false);
        expect(routeProblem(emptyApp, 'x', route)).toBeNull();
        taken.add(route);
      }
    }),
  );
});

test.each([
  ['tools', '/tools'],
  [' /tools/ ', '/tools'],
  ['//a///b', '/a/b'],
  ['/', '/'],
])('%j is written %s', (text, route) => expect(normaliseRoute(text)).toBe(route));

test.each([
  ['/list', 'home', /List has this route already/],
  ['/LIST', 'home', /List has this route already/],
  ['/list', 'list', null],
  ['/old', 'home', null],
  ['', 'home', /needs a route/],
  ['/a b', 'home', /cannot hold “ ”/],
  ['/a?b', 'home', /a \? behind it/],
  ['/:id', 'home', null],
  ['/a/../b', 'home', /cannot hold \. or \.\./],
  ['/a-b/c_d.e~f', 'home', null],
])('route %j for %s', (route, screen, problem) => {
  const said = routeProblem(app, screen, route);
  if (problem) expect(said).toMatch(problem);
  else expect(said).toBeNull();
});

test.each([
  ['', /needs a name/],
  ['list', /Another screen is called List/],
  ['x'.repeat(201), /at most 200/],
  ['Home', null],
  ['Start', null],
])('name %j for the home screen', (name, problem) => {
  const said = nameProblem(app, 'home', name);
  if (problem) expect(said).toMatch(problem);
  else expect(said).toBeNull();
});

test('the table lists used screens by path', () => {
  const project = projectOf(screenWith('list', 'A'), screenWith('home', 'B'), screenWith('about', 'C'));
  const { screens } = project.app;
  const skipped = withApp(project, { screens: { ...screens, list: { ...screens.list, use: 'skip' } } });
  expect(routeTable(skipped)).toEqual([
    { screen: 'about', name: 'About', source: 'about.svg', path: '/about' },
    { screen: 'home', name: 'Home', source: 'home.svg', path: '/home' },
  ]);
});
