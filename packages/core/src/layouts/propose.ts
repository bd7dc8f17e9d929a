import { all, applyChange, type Change, putComponent, putLayout } from '../change/change.ts';
import { hasFrame } from '../emit/react/emit_react.ts';
import { EmissionPlan } from '../emit/react/plan.ts';
import { labelOf, pressablesOf } from '../links/pressable.ts';
import { kebabCase, sentenceCase, uniqueName } from '../model/names.ts';
import { orderedScreens, isUsed, type Project, screensByKey, walkElements } from '../model/project.ts';
import { isWithin } from '../model/places.ts';
import { roleOf } from '../roles/role.ts';
import { hash } from '../roles/shape.ts';
import { commonBase } from '../emit/react/route_tree.ts';

/** Screens that have the same bars around them, as one layout. */
export interface LayoutProposal {
  readonly id: string;
  readonly name: string;
  readonly screens: readonly string[];
  readonly reason: string;
  /** Takes the bars out as one component, where that is not done yet, and makes the layout. */
  readonly change: Change;
}

interface Bar {
  readonly screen: string;
  readonly element: string;
  readonly name: string;
  readonly labels: readonly string[];
}

/**
 * Finds screens that share a navigation, by the labels of its links. Only what really leaves a common frame is
 * proposed, larger groups first. Takes the settled project.
 */
export function proposeLayouts(project: Project): LayoutProposal[] {
  const { app, design } = project;
  const taken = new Set(Object.values(app.layouts).flatMap((layout) => layout.screens));
  const groups = new Map<string, Bar[]>();
  for (const key of orderedScreens(app)) {
    if (!isUsed(project, key) || taken.has(key)) continue;
    for (const bar of barsOf(project, key)) {
      const sign = [...bar.labels].sort().join('\n');
      groups.set(sign, [...(groups.get(sign) ?? []), bar]);
    }
  }
  const names = new Set(Object.values(app.layouts).map((layout) => layout.name));
  return [...groups.values()]
    .filter((bars) => new Set(bars.map((bar) => bar.screen)).size > 1)
    .sort((a, b) => b.length - a.length)
    .flatMap((bars): LayoutProposal[] => {
      const screens = [...new Set(bars.map((bar) => bar.screen))];
      const id = `layout ${hash(screens.join())}`;
      if (app.refused[id]) return [];
      const name = uniqueName(nameOf(app, screens, bars), (candidate) => names.has(candidate), ' ');
      const layout = uniqueName(kebabCase(name) || 'layout', (candidate) => !!app.layouts[candidate]);
      const change = all([...barComponent(project, bars), putLayout(layout, { name, screens })]);
      const plan = new EmissionPlan({ design, app: applyChange(app, change) });
      if (!hasFrame(plan, screens)) return [];
      names.add(name);
      const reason = `they have the same ${bars[0].labels.length} links around them: ${bars[0].labels.slice(0, 4).join(', ')}${bars[0].labels.length > 4 ? ' …' : ''}`;
      return [{ id, name, screens, reason, change }];
    });
}

/** Navigations of a screen with what leads on from them. */
function barsOf({ design }: Project, key: string): Bar[] {
  const screen = screensByKey(design).get(key)!;
  const pressables = pressablesOf(screen);
  const bars: Bar[] = [];
  walkElements(screen.root, (element) => {
    if (element.hidden) return false;
    if (roleOf(element) !== 'navigation' || element === screen.root) return true;
    const labels = pressables
      .filter((one) => isWithin(design, one.element.key, element.key))
      .map((one) => labelOf(one.element));
    if (labels.length > 1) bars.push({ screen: key, element: element.key, name: element.name, labels });
    return false;
  });
  return bars;
}

/** The change that makes one component of the bars, unless they are one. */
function barComponent({ app, design }: Project, bars: readonly Bar[]): Change[] {
  const places = bars.map((bar) => bar.element);
  const isOne = Object.values(app.components).some((component) =>
    places.every((place) => component.places.some((other) => isWithin(design, place, other))),
  );
  if (isOne || bars.length < 2) return [];
  const id = uniqueName('bar', (candidate) => !!app.components[candidate]);
  const taken = new Set(Object.values(app.components).map((component) => component.name));
  const name = uniqueName(sentenceCase(bars[0].name) || 'Bar', (candidate) => taken.has(candidate), ' ');
  return [putComponent(id, { name, kind: 'component', places })];
}

function nameOf(app: Project['app'], screens: readonly string[], bars: readonly Bar[]): string {
  const base = commonBase(screens.map((key) => app.screens[key].route));
  const last = base
    .split('/')
    .filter((part) => part && !part.startsWith(':'))
    .at(-1);
  return last ? sentenceCase(last.replace(/-/g, ' ')) : sentenceCase(bars[0].name) || 'Shared';
}
