import type { Screen } from '../../model/design.ts';
import { hasParent } from '../../roles/sight.ts';
import { type Evidence, labelKey, type Names, type Pressed } from './evidence.ts';
import type { Menu } from './menus.ts';

/** Where the app begins, and whether something says so or it is only the screen that stands first. */
export interface Start {
  readonly screen: string;
  readonly isSaid: boolean;
}

/** The first screen: by its file, its name or its heading, by the first entry of the menus, or by what leads on from it. */
export function startOf(
  screens: readonly Screen[],
  names: ReadonlyMap<string, Names>,
  pressed: readonly Pressed[],
  menus: ReadonlyMap<Pressed, Menu>,
): Start | null {
  const says = (test: (own: Names) => boolean): string | undefined =>
    screens.find((screen) => test(names.get(screen.key)!))?.key;
  const marksOf = (element: Pressed): ReadonlyMap<string, number> | undefined =>
    menus.get(element)?.marked.get(labelKey(element));
  const firstEntry = pressed.find((element) => marksOf(element)?.size === 1);
  const said =
    says(({ asWritten }) => ['index', 'home', 'start'].some((name) => asWritten.names.has(name))) ??
    says(({ file }) => file.length === 1 && file[0] === 'home') ??
    says(({ title }) => title.length === 1 && title[0] === 'home') ??
    says(({ file, title }) => file.includes('home') || title.includes('home')) ??
    says(({ headings }) => headings.some((words) => words.includes('home') && words.length <= 2)) ??
    (firstEntry ? [...marksOf(firstEntry)!.keys()][0] : undefined) ??
    busiest(pressed);
  return said ? { screen: said, isSaid: true } : null;
}

/**
 * Where nothing says which screen is the first: of those that no menu calls by a name of their own the one from which
 * most leads on.
 */
export function guessedStart(
  screens: readonly Screen[],
  named: readonly { readonly element: Pressed; readonly evidence: readonly Evidence[] }[],
): Start | null {
  const called = new Set<string>();
  const leadsOn = new Map<string, number>();
  for (const { element, evidence } of named)
    for (const { to, strength } of evidence) {
      if (strength < 0.45) continue;
      if (element.menu) called.add(to);
      else if (to !== element.screen) leadsOn.set(element.screen, (leadsOn.get(element.screen) ?? 0) + 1);
    }
  const count = (screen: Screen | undefined): number => (screen && leadsOn.get(screen.key)) ?? 0;
  const [best, next] = screens.filter(({ key }) => !called.has(key)).toSorted((a, b) => count(b) - count(a));
  const screen = best ?? screens[0];
  return screen ? { screen: screen.key, isSaid: count(best) > count(next) } : null;
}

/** The screen from which by far most leads on, besides what all screens have; null where none stands out. */
function busiest(pressed: readonly Pressed[]): string | null {
  const on = new Map<string, Set<string>>();
  const labels = new Map<string, Set<string>>();
  for (const element of pressed) {
    const key = labelKey(element);
    on.set(key, (on.get(key) ?? new Set()).add(element.screen));
    labels.set(element.screen, (labels.get(element.screen) ?? new Set()).add(key));
  }
  const [first, second] = [...labels]
    .map(([screen, own]) => ({ screen, count: [...own].filter((key) => on.get(key)!.size === 1).length }))
    .sort((a, b) => b.count - a.count);
  return first && first.count >= 3 && first.count >= 2 * (second?.count ?? 0) ? first.screen : null;
}

/** Labels that stand at the head of most screens and in no menu: the app's own name. */
export function brandLabels(pressed: readonly Pressed[], screens: number): Set<string> {
  const seen = new Map<string, Set<string>>();
  for (const element of pressed) {
    const isBrand =
      / (brand|logo) /.test(element.sight.words) ||
      hasParent(element.sight, (parent) => / (brand|logo) /.test(parent.words));
    const { box } = element.sight.element;
    const isFirst =
      box.height > 0 &&
      box.width > 0 &&
      box.y < 120 &&
      box.x < 260 &&
      !element.menu &&
      element.sight.element.tag === 'a';
    if (!isBrand && !isFirst) continue;
    const key = labelKey(element);
    seen.set(key, (seen.get(key) ?? new Set()).add(element.screen));
  }
  return new Set(
    [...seen].filter(([, on]) => on.size >= Math.min(3, Math.max(2, screens * 0.4))).map(([key]) => key),
  );
}

export function fromPlace(element: Pressed, brands: ReadonlySet<string>, start: Start | null): Evidence[] {
  if (!start) return [];
  const found: Evidence[] = [];
  const { box } = element.sight.element;
  if (brands.has(labelKey(element)) && box.y < 160)
    found.push({
      kind: 'brand',
      to: start.screen,
      strength: start.isSaid ? 0.86 : 0.46,
      reason: 'the app’s own name leads to its first screen',
    });
  if (element.words.includes('home') && element.words.length <= 2)
    found.push({
      kind: 'home',
      to: start.screen,
      strength: (start.isSaid ? 0.62 : 0.42) * (element.words.length === 1 ? 1 : 0.5),
      reason: `“${element.label}” asks for the first screen`,
    });
  return found;
}
