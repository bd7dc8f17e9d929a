import { all, applyChange, type Change, putInteraction, putScreen, setStart } from '../change/change.ts';
import { type DisclosureProposal, findDisclosures, SAID_BY_PAGE } from '../disclosures/find.ts';
import { takeDisclosures } from '../disclosures/take.ts';
import { settle } from '../layers/settle.ts';
import { authoredLinks } from '../links/authored.ts';
import type { Target } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { fillPlanned, plannedAs } from './plan_screen.ts';
import type { Project } from '../model/project.ts';
import { folderOf } from '../intake/files.ts';
import { homeFolder, isFirstPage } from '../intake/screen_names.ts';
import { findElement } from '../model/places.ts';
import { freeRoute } from '../routes/routes.ts';

/** File names that by custom are where one begins. */
const START_NAME = /^(index|home|welcome|start|landing)\b/i;

/**
 * The change that makes newly read screens part of the app: names and routes from the design, the links and what opens and closes that the
 * pages themselves have, screens that were planned in place of them, and a start screen where there is none. `project.design` holds the screens already.
 */
export function takeIn(project: Project, screens: readonly Screen[]): Change {
  const { app } = project;
  const names = new Set(Object.values(app.screens).map((entry) => entry.name.toLowerCase()));
  const routes = new Set(Object.values(app.screens).map((entry) => entry.route));
  let order = Math.max(0, ...Object.values(app.screens).map((entry) => entry.order));
  const changes: Change[] = [];
  const filled = new Set<string>();
  const first = firstOf(screens);
  const isStart = app.start === null && first !== undefined;
  // Where one begins stands first.
  for (const screen of isStart ? [first, ...screens.filter((other) => other !== first)] : screens) {
    // A screen that comes in again keeps all that was decided about it.
    if (app.screens[screen.key]) continue;
    const planned = plannedAs(app, screen.name);
    if (planned && !filled.has(planned)) {
      filled.add(planned);
      changes.push(fillPlanned(app, planned, screen.key));
      continue;
    }
    const name = uniqueName(screen.name, (candidate) => names.has(candidate.toLowerCase()), ' ');
    // The first page of a site is where one comes in; a name in other letters than addresses have gives way to that of the file.
    const route =
      isStart && screen === first && isFirstPage(screen) && !routes.has('/')
        ? '/'
        : freeRoute(kebabCase(name) ? name : screen.key, routes);
    names.add(name.toLowerCase());
    routes.add(route);
    const use = isBlank(screen) && screen !== first ? 'skip' : 'screen';
    changes.push(putScreen(screen.key, { name, route, use, order: ++order }));
  }
  const disclosures = screens
    .filter(({ key }) => !app.screens[key])
    .flatMap(findDisclosures)
    .filter(({ confidence }) => confidence >= SAID_BY_PAGE);
  const { taken, design } = withinReach(project, disclosures);
  const opening = new Set(taken.flatMap(({ controls }) => controls.map(([key]) => key)));
  if (taken.length) changes.push(takeDisclosures(app, taken));
  // What is in them leads on, too.
  const coming = new Set(screens.map(({ key }) => key));
  const shown = design.screens.filter(({ key }) => coming.has(key));
  for (const [key, link] of authoredLinks(shown, project.design.screens))
    if (!app.interactions[key] && !app.still[key] && !opening.has(key))
      changes.push(putInteraction(key, link));
  if (isStart) changes.push(setStart(first.key));
  return all(changes);
}

/** Whether nothing is on a page: it waits for its scripts, or only leads on. */
const isBlank = ({ root, title }: Screen): boolean => title !== undefined && isBare(root);

/** Whether it holds nothing but what may be around a page. */
const isBare = ({ kind, text, children }: Element): boolean =>
  kind === 'box' &&
  !text?.trim() &&
  (children.length === 0 || (children.length === 1 && isBare(children[0])));

/** Where one begins: what is called so, in the folder of the first page before others. */
function firstOf(all: readonly Screen[]): Screen | undefined {
  // A page without anything on it only leads on to where one begins.
  const drawn = all.filter((screen) => !isBlank(screen));
  const screens = drawn.length ? drawn : all;
  const starts = screens.filter(
    ({ source, name }) => START_NAME.test(source.file.replace(/^.*\//, '')) || START_NAME.test(name),
  );
  const pages = screens.filter(({ title }) => title !== undefined);
  const home = homeFolder((pages.length ? pages : screens).map(({ source }) => source.file));
  const atHome = starts.filter(({ source }) => folderOf(source.file) === home);
  const depthOf = ({ source }: Screen): number => folderOf(source.file).split('/').length;
  const [outermost] = starts.toSorted((a, b) => depthOf(a) - depthOf(b));
  return atHome.find(isFirstPage) ?? atHome[0] ?? outermost ?? firstLinked(screens) ?? screens[0];
}

/** The screen that the first link of at least half of the screens leads to: what stands first in their menu. */
function firstLinked(screens: readonly Screen[]): Screen | undefined {
  const links = authoredLinks(screens);
  const counts = new Map<string, number>();
  for (const screen of screens) {
    const target = firstTarget(screen.root, links);
    if (target?.kind === 'screen') counts.set(target.screen, (counts.get(target.screen) ?? 0) + 1);
  }
  const [key, count] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
  return count > 1 && count * 2 >= screens.length ? screens.find((one) => one.key === key) : undefined;
}

function firstTarget(element: Element, links: ReturnType<typeof authoredLinks>): Target | undefined {
  const own = links.get(element.key)?.target;
  if (own) return own;
  for (const child of element.children) {
    const found = firstTarget(child, links);
    if (found) return found;
  }
  return undefined;
}

/**
 * Those of what opens and closes that somebody can get to, and the design with them: what opens something within a part that stays
 * hidden is hidden, too.
 */
function withinReach(
  project: Project,
  proposals: readonly DisclosureProposal[],
): { readonly taken: readonly DisclosureProposal[]; readonly design: Project['design'] } {
  const app = applyChange(project.app, takeDisclosures(project.app, proposals));
  const { design } = settle({ ...project, app });
  const taken = proposals.flatMap((proposal): DisclosureProposal[] => {
    const controls = proposal.controls.filter(([key]) => findElement(design, key));
    if (controls.length === proposal.controls.length) return [proposal];
    return controls.length ? [{ ...proposal, controls }] : [];
  });
  const isAll = taken.every((one, i) => one === proposals[i]) && taken.length === proposals.length;
  return isAll ? { taken, design } : withinReach(project, taken);
}
