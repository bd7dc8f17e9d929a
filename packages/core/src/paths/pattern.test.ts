import fc from 'fast-check';
import { generatePath, matchRoutes } from 'react-router';
import {
  fillRoute,
  normaliseRoute,
  parametersOf,
  requiredParametersOf,
  routeFormProblem,
  RouteMatcher,
} from './pattern.ts';

const segment = fc.constantFrom(
  'a',
  'b',
  'tools',
  'a-b',
  ':x',
  ':y',
  ':z',
  'b?',
  ':x?',
  ':w?',
  'tools?',
  'v1.2',
);
const route = fc
  .tuple(fc.array(segment, { maxLength: 4 }), fc.constantFrom('', '/*'))
  .map(([parts, rest]) => `/${parts.join('/')}${rest}`.replace('//', '/'))
  .filter((text) => routeFormProblem(text) === null);
const routes = fc.uniqueArray(route, { minLength: 1, maxLength: 8 });
const address = fc
  .array(fc.constantFrom('a', 'b', 'tools', 'A', 'a-b', 'x y', 'v1.2', 'v1x2', 'ä', 'x/y'), { maxLength: 5 })
  .chain((parts) =>
    fc
      .constantFrom('', '/')
      .map((end) => `/${parts.map(encodeURIComponent).join('/')}${end}`.replace('//', '/')),
  );

test('a set of routes matches as in React Router: the same route with the same parameters', () => {
  fc.assert(
    fc.property(routes, fc.array(address, { minLength: 1, maxLength: 12 }), (list, addresses) => {
      const matcher = new RouteMatcher(list);
      const table = list.map((path, i) => ({ path, id: String(i) }));
      for (const one of addresses) {
        const expected = matchRoutes(table, one)?.at(-1);
        const found = matcher.match(one);
        expect(found && { route: found.route, params: found.params }).toEqual(
          expected ? { route: Number(expected.route.id), params: dropMissing(expected.params) } : null,
        );
      }
    }),
    { numRuns: 400 },
  );
});

const dropMissing = (params: Readonly<Record<string, string | undefined>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(params).flatMap(([name, value]) => (value === undefined ? [] : [[name, value]])),
  );

test('an address that is made of a route leads back to that route, if no other is in the way', () => {
  fc.assert(
    fc.property(
      route,
      fc.dictionary(fc.constantFrom('x', 'y', 'z', 'w'), fc.stringMatching(/^[a-z ]{1,5}$/)),
      (one, params) => {
        fc.pre(requiredParametersOf(one).every((name) => params[name]?.trim()));
        // A part that may be missing, and is, leaves its place to the next one that varies: the address does not say which.
        const given = parametersOf(one).map((name) => Boolean(params[name]?.trim()));
        fc.pre(!given.slice(given.indexOf(false) + 1 || given.length).includes(true));
        const found = new RouteMatcher([one]).match(fillRoute(one, params));
        expect(found?.route).toBe(0);
        for (const name of requiredParametersOf(one)) expect(found!.params[name]).toBe(params[name]);
      },
    ),
  );
});

test.each([
  ['/tools/:toolId', { toolId: 'hedge trimmer' }],
  ['/tools/:toolId?', {}],
  ['/loans/:id/return', { id: 'a/b' }],
])('%s is filled as the router does', (path, params) => {
  expect(fillRoute(path, params as Record<string, string>)).toBe(generatePath(path, params as never));
});

test.each([
  ['tools', '/tools'],
  ['//tools//:id/', '/tools/:id'],
  ['  /  ', '/'],
])('%s is the route %s', (text, expected) => {
  expect(normaliseRoute(text)).toBe(expected);
});

test.each([
  ['/a/:x/:y?/*', ['x', 'y', '*'], ['x']],
  ['/', [], []],
])('%s has the parameters %j, of which %j are needed', (text, all, needed) => {
  expect(parametersOf(text)).toEqual(all);
  expect(requiredParametersOf(text)).toEqual(needed);
});

test.each([
  ['', /needs a route/],
  ['/tools/*/x', /last part/],
  ['/to*ls', /stands alone/],
  ['/a b', /cannot hold “ ”/],
  ['/:id/:id', /stands twice/],
  ['/:1', /named in letters/],
  ['/:', /name is missing/],
  ['/a?b', /behind it/],
  ['/../x', /\.\./],
])('%s is refused in words', (text, message) => {
  expect(routeFormProblem(text)).toMatch(message);
});

test.each(['/', '/*', '/tools/:toolId', '/en?/tools/:id?', '/a.b/~c'])('%s is a route', (text) => {
  expect(routeFormProblem(text)).toBeNull();
});
