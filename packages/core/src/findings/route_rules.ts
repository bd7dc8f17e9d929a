import { putRedirect, putScreen } from '../change/change.ts';
import { isUsed, type Project, screenName, useInWords } from '../model/project.ts';
import { routeTroubles } from '../routes/edit.ts';
import { routeFormProblem, shapeOf } from '../paths/pattern.ts';
import { routeProblem, screenAtAddress, screenAtRoute } from '../routes/routes.ts';
import type { Found, Rule } from './finding.ts';

/** What is wrong with routes, redirects and guards. */
export const routeRules: readonly Rule[] = [
  {
    code: 'route-clash',
    level: 'error',
    station: 'map',
    title: 'Routes that clash',
    find: ({ project, graph }) => {
      const entries = graph.screens.map((key) => ({ key, ...project.app.screens[key] }));
      const users = new Map<string, number>();
      for (const { route } of entries) users.set(shapeOf(route), (users.get(shapeOf(route)) ?? 0) + 1);
      return entries.flatMap(({ key, name, route }) => {
        const isShared = users.get(shapeOf(route))! > 1;
        if (!isShared && !routeFormProblem(route)) return [];
        const why = routeProblem(project.app, key, route) ?? 'another screen has it';
        return [{ screen: key, element: null, message: `${name} cannot live at ${route}: ${why}` }];
      });
    },
  },
  {
    code: 'route-shadowed',
    level: 'warning',
    station: 'map',
    title: 'Routes that another one hides',
    find: ({ project }) => troublesOf(project, 'shadowed'),
  },
  {
    code: 'unused-parameter',
    level: 'info',
    station: 'map',
    title: 'Values of parameters that are not in the route',
    find: ({ project }) => troublesOf(project, 'unused-parameter'),
  },
  {
    code: 'broken-redirect',
    level: 'error',
    station: 'map',
    title: 'Redirects that lead nowhere',
    find: ({ project }) =>
      Object.entries(project.app.redirects).flatMap(([from, { to }]): Found[] => {
        const use = useInWords(project, to);
        const other = screenAtRoute(project.app, from);
        if (!use && !other) return [];
        return [
          {
            screen: null,
            element: null,
            about: from,
            message: use
              ? `${from} redirects to ${screenName(project, to)}, which ${use}.`
              : `${from} redirects to ${screenName(project, to)}, but ${screenName(project, other!)} lives there itself.`,
            fix: { label: 'Remove it', change: putRedirect(from, null) },
          },
        ];
      }),
  },
  {
    code: 'broken-guard',
    level: 'error',
    station: 'map',
    title: 'Guards that lead nowhere',
    find: ({ project, graph }) =>
      graph.screens.flatMap((key): Found[] => {
        const { guard, ...entry } = project.app.screens[key];
        if (!guard) return [];
        const use = useInWords(project, guard.otherwise);
        const why = !project.app.variables[guard.condition]
          ? 'its condition is gone'
          : (project.app.variables[guard.condition].type ?? 'yes-no') !== 'yes-no'
            ? 'its condition is not yes or no'
            : use
              ? `${screenName(project, guard.otherwise)}, which is shown instead, ${use}`
              : guard.otherwise === key
                ? 'what is shown instead is the screen itself'
                : null;
        if (!why) return [];
        return [
          {
            screen: key,
            element: null,
            message: `${entry.name} has a guard that does not work: ${why}.`,
            fix: { label: 'Let everybody in', change: putScreen(key, entry) },
          },
        ];
      }),
  },
];

const troublesOf = (project: Project, code: 'shadowed' | 'unused-parameter'): Found[] =>
  routeTroubles(project, (address) => screenAtAddress(project, address))
    .filter((trouble) => trouble.code === code && isUsed(project, trouble.screen))
    .map(({ screen, message }) => ({ screen, element: null, about: message.slice(0, 80), message }));
