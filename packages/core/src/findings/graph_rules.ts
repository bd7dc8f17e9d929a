import { putInteraction, putScreen, putStill, setStart } from '../change/change.ts';
import { analysisOf, shortestWay } from '../graph/analysis.ts';
import { isDeadEnd, lostInteractions, type ScreenGraph } from '../graph/graph.ts';
import { unsaidParameters } from '../links/problem.ts';
import {
  isUsed,
  orderedScreens,
  type Project,
  screenName,
  textOf,
  useInWords,
  walkElements,
} from '../model/project.ts';
import type { Element, Screen } from '../model/design.ts';
import type { Rule } from './finding.ts';

/** Presses from the start that a screen may be away before it is worth a word. */
const FAR = 4;

const listed = new Intl.ListFormat('en', { type: 'conjunction' });

/** What is wrong with links and routes. */
export const graphRules: readonly Rule[] = [
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
          fix: { label: 'Unwire', change: putInteraction(link.key, null) },
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
              message: whyUnreached(project, graph, key),
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
    code: 'no-way-back',
    level: 'info',
    station: 'map',
    title: 'Screens with no way back',
    find: ({ project, graph }) => {
      const { round, traps } = analysisOf(graph);
      const trapped = new Set(traps.flat());
      return graph.screens
        .filter((key) => {
          if (key === graph.start || !graph.reached.has(key) || trapped.has(key)) return false;
          const departures = graph.departures.get(key)!;
          const leadsBack = departures.some(
            (link) => !link.problem && link.interaction.target.kind === 'back',
          );
          const arrivals = graph.arrivals.get(key)!;
          return (
            !leadsBack &&
            !isDeadEnd(departures, key) &&
            !arrivals.some((link) => round.get(link.from) === round.get(key))
          );
        })
        .map((key) => ({
          screen: key,
          element: null,
          message: `From ${screenName(project, key)} no way leads back to where one came from: ${listed.format(
            [...new Set(graph.arrivals.get(key)!.map((link) => screenName(project, link.from)))].slice(0, 3),
          )}. Wire an element to Back or to one of them.`,
        }));
    },
  },
  {
    code: 'parameter-missing',
    level: 'warning',
    station: 'map',
    title: 'Links that do not say which',
    find: ({ project, graph }) =>
      graph.links.flatMap((link) => {
        const { target } = link.interaction;
        if (link.problem || target.kind !== 'screen') return [];
        const [name] = unsaidParameters(project, link.from, target);
        if (name === undefined) return [];
        const { params = {} } = project.app.screens[target.screen];
        return [
          {
            screen: link.from,
            element: link.element,
            about: link.key === link.element ? name : link.key,
            message: `“${link.label}” on ${screenName(project, link.from)} leads to ${screenName(project, target.screen)} without saying :${name}; it shows ${params[name]} each time.`,
          },
        ];
      }),
  },
  {
    code: 'to-be-drawn',
    level: 'info',
    station: 'map',
    title: 'Screens still to be drawn',
    find: ({ project, graph }) =>
      graph.screens
        .filter((key) => project.app.screens[key].use === 'planned')
        .map((key) => {
          const count = graph.arrivals.get(key)!.length;
          return {
            screen: key,
            element: null,
            message: `${screenName(project, key)} is still to be drawn; ${count || 'no'} ${count === 1 ? 'link leads' : 'links lead'} to it.`,
            fix: { label: 'Drop it', change: putScreen(key, null) },
          };
        }),
  },
  {
    code: 'unnamed-control',
    level: 'warning',
    station: 'map',
    title: 'Controls without a name',
    find: ({ project, graph }) =>
      [...graph.screens, ...graph.overlays].flatMap((key) =>
        graph.elements
          .get(key)!
          .filter(({ element, standing }) => standing !== 'still' && !isNamed(element))
          .map(({ element, label }) => ({
            screen: key,
            element: element.key,
            message: `“${label}” on ${screenName(project, key)} shows no text and has no name of its own, so that who cannot see it does not know what it does. Give it one with its role.`,
          })),
      ),
  },
  {
    code: 'small-target',
    level: 'info',
    station: 'map',
    title: 'Targets that are hard to hit',
    find: ({ project, graph }) =>
      [...graph.screens, ...graph.overlays].flatMap((key) =>
        graph.elements
          .get(key)!
          .filter(({ element, standing }) => standing !== 'still' && isSmall(element))
          .map(({ element, label }) => ({
            screen: key,
            element: element.key,
            message: `“${label}” on ${screenName(project, key)} is ${Math.round(element.box.width)} × ${Math.round(element.box.height)} px; a finger needs ${LEAST_TARGET} × ${LEAST_TARGET}. Give it more space around its content.`,
          })),
      ),
  },
  {
    code: 'anchor-doubled',
    level: 'warning',
    station: 'map',
    title: 'Anchors that are there twice',
    find: ({ project }) =>
      project.design.screens.flatMap((screen) =>
        doubledIds(screen).map(({ id, key }) => ({
          screen: project.app.screens[screen.key] ? screen.key : null,
          element: key,
          about: id,
          message: `The id “${id}” stands more than once on ${screenName(project, screen.key)}; a link to #${id} reaches only the first. Links that are wired here lead to the element itself.`,
        })),
      ),
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
      [...graph.screens, ...graph.overlays].flatMap((key) =>
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
        .filter((key) => ['skip', 'counterpart', 'alternative'].includes(project.app.screens[key].use))
        .map((key) => ({
          screen: key,
          element: null,
          message: `${screenName(project, key)} ${useInWords(project, key)} and not a screen of the app.`,
        })),
  },
];

/** Why nobody gets to a screen: no link, only links on screens that nobody reaches either, or a guard that never opens. */
function whyUnreached(project: Project, graph: ScreenGraph, key: string): string {
  const [name, start] = [screenName(project, key), screenName(project, graph.start!)];
  const { guard } = project.app.screens[key];
  const links = graph.arrivals.get(key)!;
  const near = links.find((link) => graph.reached.has(link.from));
  if (near && guard) {
    const condition = project.app.variables[guard.condition]?.name ?? 'a condition that is gone';
    return `Nobody reaches ${name} from ${start}: it is entered only ${guard.is ? 'if' : 'if not'} ${condition.toLowerCase()}, which nothing on the way brings about.`;
  }
  if (near)
    return `Nobody reaches ${name} from ${start}: “${near.label}” leads there only under a condition that never holds.`;
  const [link] = links;
  if (link)
    return `Nobody reaches ${name} from ${start}: only ${screenName(project, link.from)} leads there, which nobody reaches either.`;
  return `Nobody reaches ${name} from ${start}. Wire an element to it, or skip it.`;
}

/** Whether a control says what it does: by its text, its label, or what it shows. */
function isNamed(element: Element): boolean {
  if (textOf(element)) return true;
  let isNamedInside = false;
  walkElements(element, ({ attributes = {}, name, kind }) => {
    // A layer that somebody named is read out by that name.
    isNamedInside ||= !!(attributes['aria-label'] || attributes.alt || attributes.title || attributes.value);
    isNamedInside ||= kind !== 'text' && !!name && !GIVEN_NAME.test(name);
  });
  return isNamedInside;
}

/** Smallest size of what is pressed, in px, as WCAG 2.2 asks for (2.5.8); links within a text are excepted there. */
const LEAST_TARGET = 24;

const isSmall = ({ box, kind, tag }: Element): boolean =>
  kind !== 'text' &&
  tag !== 'a' &&
  box.width > 0 &&
  box.height > 0 &&
  Math.min(box.width, box.height) < LEAST_TARGET;

/** Names that a drawing program or a page gives by itself. */
const GIVEN_NAME =
  /^(g|path|svg|rect|circle|use|image|img|div|span|a|button|i|box|layer|group|frame|vector|shape|icon|rectangle|ellipse|line|text)?[\s_-]*\d*$/i;

/** Ids that stand more than once on a screen, with the second element that has it. */
function doubledIds(screen: Screen): { readonly id: string; readonly key: string }[] {
  const seen = new Set<string>();
  const doubled = new Map<string, string>();
  walkElements(screen.root, (element) => {
    const { id } = element.source;
    if (!id || element.hidden) return !element.hidden;
    if (seen.has(id) && !doubled.has(id)) doubled.set(id, element.key);
    seen.add(id);
    return true;
  });
  return [...doubled].map(([id, key]) => ({ id, key }));
}
