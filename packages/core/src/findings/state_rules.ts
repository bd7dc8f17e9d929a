import { putJourney } from '../change/change.ts';
import type { ScreenGraph } from '../graph/graph.ts';
import { Walk } from '../journeys/walk.ts';
import type { Journey, JourneyStep, MustHold } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { uniqueName } from '../model/names.ts';
import { type Project, screenName } from '../model/project.ts';
import { explore, type Explored, type StateWay } from '../states/explore.ts';
import { statePlan } from '../states/plan.ts';
import type { Finding, Rule } from './finding.ts';

const listed = new Intl.ListFormat('en', { type: 'conjunction' });

/** What is told of the states that an app can be in; looked for apart from all else, as there may be millions of them. */
export const stateRules: readonly Omit<Rule, 'find'>[] = [
  { code: 'must-hold', level: 'error', station: 'map', title: 'What was stated and does not hold' },
  { code: 'overlay-trap', level: 'error', station: 'map', title: 'Overlays that are not closed any more' },
  { code: 'never-shown', level: 'warning', station: 'map', title: 'Screens in a state that never comes' },
  { code: 'never-done', level: 'warning', station: 'map', title: 'What is done in a state that never comes' },
];

/** What holds or does not hold in the states of an app, found at once. For large apps `explore` can be run elsewhere. */
export const stateFindingsOf = (project: Project, graph: ScreenGraph): Finding[] =>
  stateFindings(project, graph, explore(statePlan(project, graph)));

/**
 * What follows from the states that an app can be in. A way is told only if it can be walked step by step.
 * @param project with all edits; @param explored of its plan
 */
export function stateFindings(project: Project, graph: ScreenGraph, explored: Explored): Finding[] {
  const { app } = project;
  const name = (key: string): string => screenName(project, key);
  const found = (one: Omit<Finding, 'id'>, about = ''): Finding => {
    const dismissed = [one.code, one.element ?? one.screen ?? '', about].join(' ').trim().slice(0, 490);
    return { id: dismissed, ...one };
  };
  const broken = explored.broken.flatMap(({ rule, way }) => {
    const walked = journeyAlong(project, graph, way);
    if (!walked) return [];
    const stated = mustHoldInWords(project, app.mustHold[rule]);
    return [
      found(
        {
          code: 'must-hold',
          level: 'error',
          screen: app.mustHold[rule].screen,
          element: null,
          message: `It is stated that ${stated}, but ${wayInWords(project, graph, walked)} leads there all the same.`,
          ...keeping(project, walked, `Against: ${stated}`),
        },
        rule,
      ),
    ];
  });
  const traps = explored.traps.flatMap(({ overlay, way }) => {
    const walked = journeyAlong(project, graph, way);
    if (!walked) return [];
    return [
      found({
        code: 'overlay-trap',
        level: 'error',
        screen: overlay,
        element: null,
        message: `Nobody gets out of ${name(overlay)} after ${wayInWords(project, graph, walked)}: what would close it is not done then.`,
        ...keeping(project, walked, `Into ${name(overlay)}`),
      }),
    ];
  });
  if (!explored.isWhole || !graph.reached.size) return [...broken, ...traps];
  const [seen, done] = [new Set(explored.seen), new Set(explored.done)];
  const hidden = [...graph.screens, ...graph.overlays].filter(
    (key) => graph.reached.has(key) && !seen.has(key),
  );
  const never = [...graph.screens, ...graph.overlays]
    .filter((key) => seen.has(key))
    .flatMap((key) => graph.departures.get(key)!)
    .filter(({ problem, interaction, key }) => !problem && interaction.when && !done.has(key));
  return [
    ...broken,
    ...traps,
    ...hidden.map((key) =>
      found({
        code: 'never-shown',
        level: 'warning',
        screen: key,
        element: null,
        message: `${name(key)} is never shown: ${conditionsOn(project, graph, key)} are never so together.`,
      }),
    ),
    ...never.map((link) => {
      const { condition, is } = link.interaction.when!;
      return found(
        {
          code: 'never-done',
          level: 'warning',
          screen: link.from,
          element: link.element,
          message: `What “${link.label}” on ${name(link.from)} does when ${app.variables[condition].name.toLowerCase()} is ${is ? 'true' : 'not true'} is never done: that is never so there.`,
        },
        link.key === link.element ? '' : link.key,
      );
    }),
  ];
}

/** What somebody stated, in words that follow “that”. */
export function mustHoldInWords(project: Project, rule: MustHold): string {
  const screen = screenName(project, rule.screen);
  if (rule.kind === 'through')
    return `nobody gets to ${screen} without having been on ${screenName(project, rule.gate)}`;
  const condition = project.app.variables[rule.condition]?.name.toLowerCase() ?? 'a condition that is gone';
  return `nobody is on ${screen} unless ${condition} is ${rule.is ? 'true' : 'not true'}`;
}

/** The variables that links to a screen and its guard depend on, in words. */
function conditionsOn(project: Project, graph: ScreenGraph, key: string): string {
  const { variables, screens } = project.app;
  const whens = [
    screens[key].guard,
    ...(graph.arrivals.get(key) ?? []).flatMap((link) => [link.interaction.when, screens[link.from].guard]),
  ];
  const words = new Set(
    whens.flatMap((when) =>
      when && variables[when.condition]
        ? [`“${variables[when.condition].name}” ${when.is ? 'true' : 'not true'}`]
        : [],
    ),
  );
  return words.size ? listed.format([...words].slice(0, 4)) : 'the variables on the way there';
}

/** A way as a journey; null where it cannot be walked so, or goes by what is no step of a journey. */
function journeyAlong(project: Project, graph: ScreenGraph, way: StateWay): Omit<Journey, 'name'> | null {
  const { start } = graph;
  if (start === null) return null;
  const walk = new Walk(project, graph, start);
  const steps: JourneyStep[] = [];
  for (const interaction of way) {
    const wired = interaction === null ? null : walk.wiredAt(interaction);
    if (interaction === null || !wired || wired.problem || !walk.holds(wired)) return null;
    walk.do(wired);
    steps.push({ kind: 'do', interaction, to: walk.place });
  }
  return { start, steps };
}

/** So many steps are told in words. */
const TOLD = 4;

function wayInWords(project: Project, graph: ScreenGraph, { start, steps }: Omit<Journey, 'name'>): string {
  if (!steps.length) return `opening the app on ${screenName(project, start)}`;
  const labels = steps.flatMap((step) => {
    if (step.kind !== 'do') return [];
    const element = elementOfInteraction(step.interaction);
    for (const links of graph.departures.values())
      for (const link of links) if (link.element === element) return [`“${link.label}”`];
    return [];
  });
  return labels.length > TOLD
    ? `${labels.slice(0, TOLD).join(', ')} and ${labels.length - TOLD} more`
    : labels.join(', ');
}

/** Keeps a way, so that it can be looked at and played. */
function keeping(
  { app }: Project,
  way: Omit<Journey, 'name'>,
  name: string,
): Pick<Finding, 'fix'> | Record<string, never> {
  if (!way.steps.length) return {};
  const id = uniqueName('way', (one) => app.journeys[one] !== undefined);
  const change = putJourney(id, { ...way, name: name.slice(0, 200) });
  return { fix: { label: 'Keep the way as a journey', change } };
}
