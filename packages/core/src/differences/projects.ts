import { graphOf, type GraphLink } from '../graph/graph.ts';
import { describeTarget } from '../links/target.ts';
import { labelOf } from '../links/pressable.ts';
import type { App } from '../model/app.ts';
import { equalJson } from '../json/json.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { findElement, screenWith } from '../model/places.ts';
import { isOverlay, isUsed, type Project, screenName, screensByKey } from '../model/project.ts';
import { settle } from '../layers/settle.ts';
import { differencesOf, pairsByKey } from './elements.ts';

/** What became of something from one version of a project to another. */
export type Became = 'new' | 'gone' | 'changed';

/** A line of what differs, with where it can be seen. */
export interface ProjectDifference {
  readonly part: 'screens' | 'routes' | 'links' | 'components' | 'tokens' | 'journeys' | 'variables';
  readonly became: Became;
  readonly label: string;
  /** What differs, in words; empty where `became` says all. */
  readonly says: string;
  /** Key of the screen that it is on, where it is on one. */
  readonly screen: string | null;
}

/** What became of the screens and links of a graph. */
export interface GraphDifference {
  /** By screen key. */
  readonly screens: ReadonlyMap<string, 'new' | 'gone'>;
  /** Links that are in one of both, or lead elsewhere; by `from to`. */
  readonly links: ReadonlyMap<string, 'new' | 'gone'>;
}

/** All that differs between two versions of a project, in which what stayed has kept its key. */
export function projectDifferences(before: Project, after: Project): ProjectDifference[] {
  return [
    ...screenDifferences(before, after),
    ...linkDifferences(before, after),
    ...tableDifferences(before.app, after.app, 'components', ({ name }) => name),
    ...tableDifferences(before.app, after.app, 'tokens', ({ value }, key) => `${key}: ${value}`),
    ...tableDifferences(before.app, after.app, 'journeys', ({ name }) => name),
    ...tableDifferences(before.app, after.app, 'variables', ({ name }) => name),
  ];
}

/** What became of screens and links, as the Map draws it. */
export function graphDifferences(before: Project, after: Project): GraphDifference {
  const [old, now] = [graphOf(settle(before)), graphOf(settle(after))];
  const screens = new Map<string, 'new' | 'gone'>();
  for (const key of now.screens) if (!old.screens.includes(key)) screens.set(key, 'new');
  for (const key of old.screens) if (!now.screens.includes(key)) screens.set(key, 'gone');
  const waysOf = (links: readonly GraphLink[]): Set<string> =>
    new Set(links.flatMap(({ from, to, problem }) => (to && !problem ? [`${from} ${to}`] : [])));
  const [oldWays, nowWays] = [waysOf(old.links), waysOf(now.links)];
  const links = new Map<string, 'new' | 'gone'>();
  for (const way of nowWays) if (!oldWays.has(way)) links.set(way, 'new');
  for (const way of oldWays) if (!nowWays.has(way)) links.set(way, 'gone');
  return { screens, links };
}

function screenDifferences(before: Project, after: Project): ProjectDifference[] {
  const found: ProjectDifference[] = [];
  const [olds, nows] = [screensByKey(before.design), screensByKey(after.design)];
  const [wasSettled, isSettled] = [settle(before), settle(after)];
  const [oldDrawn, nowDrawn] = [screensByKey(wasSettled.design), screensByKey(isSettled.design)];
  for (const key of new Set([...olds.keys(), ...nows.keys()])) {
    const [was, is] = [isThere(before, key), isThere(after, key)];
    if (!was && !is) continue;
    const project = is ? after : before;
    const label = screenName(project, key);
    if (!was || !is) {
      found.push({ part: 'screens', became: is ? 'new' : 'gone', label, says: '', screen: key });
      continue;
    }
    const [a, b] = [oldDrawn.get(key), nowDrawn.get(key)];
    const count =
      a && b && a !== b && !equalJson(a.root, b.root) ? differencesOf(a, b, pairsByKey(a, b)).length : 0;
    const entry = [before.app.screens[key], after.app.screens[key]];
    const says = [
      ...(entry[0].name !== entry[1].name ? [`was called “${entry[0].name}”`] : []),
      ...(count ? [`${count} ${count === 1 ? 'thing looks' : 'things look'} different`] : []),
    ];
    if (says.length)
      found.push({ part: 'screens', became: 'changed', label, says: says.join(', '), screen: key });
    if (entry[0].route !== entry[1].route)
      found.push({
        part: 'routes',
        became: 'changed',
        label,
        says: `was ${entry[0].route ?? 'without a route'}, is ${entry[1].route ?? 'without a route'}`,
        screen: key,
      });
  }
  if (before.app.start !== after.app.start)
    found.push({
      part: 'routes',
      became: 'changed',
      label: 'The first screen',
      says: `was ${nameOrNone(before, before.app.start)}, is ${nameOrNone(after, after.app.start)}`,
      screen: after.app.start,
    });
  return found;
}

const isThere = (project: Project, key: string): boolean =>
  screensByKey(project.design).has(key) && (isUsed(project, key) || isOverlay(project, key));

const nameOrNone = (project: Project, key: string | null): string =>
  key ? `“${screenName(project, key)}”` : 'none';

function linkDifferences(before: Project, after: Project): ProjectDifference[] {
  const found: ProjectDifference[] = [];
  const lineOf = (project: Project, key: string): string =>
    describeTarget(project, project.app.interactions[key].target).label;
  const keys = new Set([...Object.keys(before.app.interactions), ...Object.keys(after.app.interactions)]);
  for (const key of keys) {
    const [was, is] = [before.app.interactions[key], after.app.interactions[key]];
    if (was === is || equalJson(was ?? null, is ?? null)) continue;
    const project = is ? after : before;
    const elementKey = elementOfInteraction(key);
    const element = findElement(project.design, elementKey);
    const screen = screenWith(project.design, elementKey)?.key ?? null;
    const says =
      was && is
        ? `led to ${lineOf(before, key)}, leads to ${lineOf(after, key)}`
        : `${was ? 'led' : 'leads'} to ${lineOf(project, key)}`;
    found.push({
      part: 'links',
      became: was && is ? 'changed' : is ? 'new' : 'gone',
      label: `${element ? labelOf(element) : 'An element'}${screen ? ` on ${screenName(project, screen)}` : ''}`,
      says,
      screen,
    });
  }
  return found;
}

function tableDifferences<T extends 'components' | 'tokens' | 'journeys' | 'variables'>(
  before: App,
  after: App,
  table: T,
  nameOf: (value: App[T][string], key: string) => string,
): ProjectDifference[] {
  const found: ProjectDifference[] = [];
  type Entries = Readonly<Record<string, App[T][string]>>;
  const [was, is] = [before[table] as Entries, after[table] as Entries];
  for (const key of new Set([...Object.keys(was), ...Object.keys(is)])) {
    if (equalJson((was[key] as never) ?? null, (is[key] as never) ?? null)) continue;
    const [a, b] = [was[key] && nameOf(was[key], key), is[key] && nameOf(is[key], key)];
    found.push({
      part: table,
      became: a && b ? 'changed' : b ? 'new' : 'gone',
      label: b ?? a!,
      says: a && b && a !== b ? `was ${a}` : '',
      screen: null,
    });
  }
  return found;
}
