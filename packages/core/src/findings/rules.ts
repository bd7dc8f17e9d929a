import { putInteraction, putStill, setStart } from '../change/change.ts';
import { graphOf, isDeadEnd, lostInteractions, type ScreenGraph } from '../graph/graph.ts';
import { isUsed, orderedScreens, type Project, screenName } from '../model/project.ts';
import { settle } from '../layers/settle.ts';
import { routeProblem, screenAtRoute } from '../routes/routes.ts';
import type { Finding, FindingLevel } from './finding.ts';

interface Rule {
  readonly code: string;
  readonly level: FindingLevel;
  readonly title: string;
  /** What the rule finds, without its own code and level. */
  readonly find: (project: Project, graph: ScreenGraph) => Omit<Finding, 'code' | 'level'>[];
}

/** Every rule there is; the order is that of the findings list. */
export const rules: readonly Rule[] = [
  {
    code: 'broken-link',
    level: 'error',
    title: 'Broken links',
    find: (project, graph) =>
      graph.links
        .filter((link) => link.problem)
        .map((link) => ({
          screen: link.from,
          element: link.element,
          message: `“${link.label}” on ${screenName(project, link.from)} leads nowhere: ${link.problem}.`,
          fix: { label: 'Unwire', change: putInteraction(link.element, null) },
        })),
  },
  {
    code: 'lost-element',
    level: 'error',
    title: 'Links of elements that are gone',
    find: (project) =>
      lostInteractions(project).map((key) => ({
        screen: null,
        element: key,
        message: `A link is kept for an element that is no longer in the design (${key}).`,
        fix: { label: 'Remove the link', change: putInteraction(key, null) },
      })),
  },
  {
    code: 'route-clash',
    level: 'error',
    title: 'Routes that clash',
    find: (project, graph) =>
      graph.screens
        .filter(
          (key) =>
            screenAtRoute(project.app, project.app.screens[key].route, key) ||
            routeProblem(project.app, key, project.app.screens[key].route),
        )
        .map((key) => ({
          screen: key,
          element: null,
          message: `${screenName(project, key)} cannot live at ${project.app.screens[key].route}: ${routeProblem(project.app, key, project.app.screens[key].route) ?? 'another screen has it'}`,
        })),
  },
  {
    code: 'no-start',
    level: 'error',
    title: 'No start screen',
    find: (project, graph) => {
      const { start } = project.app;
      if (!graph.screens.length || (start && isUsed(project, start))) return [];
      const first = graph.screens[0];
      return [
        {
          screen: null,
          element: null,
          message: start
            ? `The start screen, ${screenName(project, start)}, is skipped or gone.`
            : 'No screen is the first one.',
          fix: { label: `Start with ${screenName(project, first)}`, change: setStart(first) },
        },
      ];
    },
  },
  {
    code: 'unreachable',
    level: 'warning',
    title: 'Screens nobody reaches',
    find: (project, graph) =>
      graph.reached.size === 0
        ? []
        : graph.screens
            .filter((key) => !graph.reached.has(key))
            .map((key) => ({
              screen: key,
              element: null,
              message: `Nobody reaches ${screenName(project, key)} from ${screenName(project, project.app.start!)}. Wire an element to it, or skip it.`,
            })),
  },
  {
    code: 'dead-end',
    level: 'warning',
    title: 'Screens with no way out',
    find: (project, graph) =>
      graph.screens
        .filter((key) => isDeadEnd(graph.departures.get(key)!, key))
        .map((key) => ({
          screen: key,
          element: null,
          message: `${screenName(project, key)} has no way out. Wire an element to another screen or to Back.`,
        })),
  },
  {
    code: 'open-end',
    level: 'info',
    title: 'Open ends',
    find: (project, graph) =>
      graph.screens.flatMap((key) =>
        graph.elements
          .get(key)!
          .filter((state) => state.standing === 'open')
          .map((state) => ({
            screen: key,
            element: state.element.key,
            message: `“${state.label}” on ${screenName(project, key)} looks pressable and leads nowhere.`,
            fix: { label: 'Mark still', change: putStill(state.element.key, true) },
          })),
      ),
  },
  {
    code: 'skipped-screen',
    level: 'info',
    title: 'Skipped screens',
    find: (project) =>
      orderedScreens(project.app)
        .filter((key) => project.app.screens[key].use === 'skip')
        .map((key) => ({
          screen: key,
          element: null,
          message: `${screenName(project, key)} is skipped and not part of the app.`,
        })),
  },
];

/** All findings, by rule, errors first. */
export function findingsOf(drawn: Project): Finding[] {
  const project = settle(drawn);
  const graph = graphOf(project);
  return rules.flatMap((rule) =>
    rule.find(project, graph).map((found) => ({ code: rule.code, level: rule.level, ...found })),
  );
}

export const LEVELS: readonly FindingLevel[] = ['info', 'warning', 'error'];

/** Whether a finding is at or above a level. */
export const isAtLeast = (finding: Finding, level: FindingLevel): boolean =>
  LEVELS.indexOf(finding.level) >= LEVELS.indexOf(level);
