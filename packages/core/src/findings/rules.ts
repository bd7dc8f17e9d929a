import { putInteraction, putStill, setStart } from '../change/change.ts';
import { analysisOf, shortestWay } from '../graph/analysis.ts';
import { isDeadEnd, lostInteractions } from '../graph/graph.ts';
import { isUsed, orderedScreens, type Project, screenName, useInWords } from '../model/project.ts';
import { settle } from '../layers/settle.ts';
import { routeFormProblem } from '../routes/pattern.ts';
import { routeProblem } from '../routes/routes.ts';
import type { App } from '../model/app.ts';
import type { Design } from '../model/design.ts';
import { examine, type Finding, type FindingLevel, type FindingStation, type Rule } from './finding.ts';
import { intakeRules } from './intake/intake_rules.ts';

/** Presses from the start that a screen may be away before it is worth a word. */
const FAR = 4;

const listed = new Intl.ListFormat('en', { type: 'conjunction' });

/** What is wrong with links and routes. */
const graphRules: readonly Rule[] = [
  {
    code: 'broken-link',
    level: 'error',
    station: 'map',
    title: 'Broken links',
    find: ({ project, graph }) =>
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
    station: 'map',
    title: 'Links of elements that are gone',
    find: ({ project }) =>
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
    station: 'map',
    title: 'Routes that clash',
    find: ({ project, graph }) => {
      const entries = graph.screens.map((key) => ({ key, ...project.app.screens[key] }));
      const users = new Map<string, number>();
      for (const { route } of entries)
        users.set(route.toLowerCase(), (users.get(route.toLowerCase()) ?? 0) + 1);
      return entries.flatMap(({ key, name, route }) => {
        const isShared = users.get(route.toLowerCase())! > 1;
        if (!isShared && !routeFormProblem(route)) return [];
        const why = routeProblem(project.app, key, route) ?? 'another screen has it';
        return [{ screen: key, element: null, message: `${name} cannot live at ${route}: ${why}` }];
      });
    },
  },
  {
    code: 'no-start',
    level: 'error',
    station: 'map',
    title: 'No start screen',
    find: ({ project, graph }) => {
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
    station: 'map',
    title: 'Screens nobody reaches',
    find: ({ project, graph }) =>
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
    station: 'map',
    title: 'Screens with no way out',
    find: ({ project, graph }) =>
      graph.screens
        .filter((key) => isDeadEnd(graph.departures.get(key)!, key))
        .map((key) => ({
          screen: key,
          element: null,
          message: `${screenName(project, key)} has no way out. Wire an element to another screen or to Back.`,
        })),
  },
  {
    code: 'trap',
    level: 'warning',
    station: 'map',
    title: 'Screens that lead only to each other',
    find: ({ project, graph }) =>
      analysisOf(graph).traps.map((group) => ({
        screen: group[0],
        element: null,
        message: `Nobody gets out of ${listed.format(group.map((key) => screenName(project, key)))} once there: they lead only to each other. Wire an element of one to another screen or to Back.`,
      })),
  },
  {
    code: 'far-away',
    level: 'info',
    station: 'map',
    title: `Screens more than ${FAR} presses away`,
    find: ({ project, graph }) =>
      [...analysisOf(graph).depth]
        .filter(([, presses]) => presses > FAR)
        .map(([key, presses]) => {
          const way = shortestWay(graph, graph.start!, key)!.map((link) => screenName(project, link.from));
          const names = [...way, screenName(project, key)];
          if (names.length > 9) names.splice(3, names.length - 6, '…');
          return {
            screen: key,
            element: null,
            message: `${screenName(project, key)} is ${presses} presses from ${way[0]}: ${names.join(' → ')}.`,
          };
        }),
  },
  {
    code: 'open-end',
    level: 'info',
    station: 'map',
    title: 'Open ends',
    find: ({ project, graph }) =>
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
    station: 'map',
    title: 'Skipped screens',
    find: ({ project }) =>
      orderedScreens(project.app)
        .filter((key) => project.app.screens[key].use !== 'screen')
        .map((key) => ({
          screen: key,
          element: null,
          message: `${screenName(project, key)} ${useInWords(project, key)} and not a screen of the app.`,
        })),
  },
];

/** Every rule there is; the order is that of the findings list. */
export const rules: readonly Rule[] = [...graphRules, ...intakeRules];

const found = new WeakMap<App, { design: Design; findings: readonly Finding[] }>();

/** All findings that nobody has let stand, by rule. Computed once per pair of documents. */
export function findingsOf(drawn: Project): readonly Finding[] {
  const known = found.get(drawn.app);
  if (known && known.design === drawn.design) return known.findings;
  const examined = examine(drawn, settle(drawn));
  const findings = rules.flatMap((rule) =>
    rule.find(examined).flatMap(({ about, ...rest }): Finding[] => {
      const id = [rule.code, rest.element ?? rest.screen ?? '', about ?? ''].join(' ').trim().slice(0, 490);
      return drawn.app.dismissed[id] ? [] : [{ id, code: rule.code, level: rule.level, ...rest }];
    }),
  );
  found.set(drawn.app, { design: drawn.design, findings });
  return findings;
}

/** The station at which findings of a code are dealt with. */
export const stationOf = (code: string): FindingStation =>
  rules.find((rule) => rule.code === code)?.station ?? 'map';

export const LEVELS: readonly FindingLevel[] = ['info', 'warning', 'error'];

/** Whether a finding is at or above a level. */
export const isAtLeast = (finding: Finding, level: FindingLevel): boolean =>
  LEVELS.indexOf(finding.level) >= LEVELS.indexOf(level);
