import { type Evidence, labelKey, type Pressed } from './evidence.ts';

/** Screens on which a label is marked in a menu, by label. */
export function currentLabels(pressed: readonly Pressed[]): Map<string, Map<string, number>> {
  const found = new Map<string, Map<string, number>>();
  for (const element of pressed) {
    if (!element.isCurrent) continue;
    const key = labelKey(element);
    const screens = found.get(key) ?? new Map<string, number>();
    screens.set(element.screen, (screens.get(element.screen) ?? 0) + 1);
    found.set(key, screens);
  }
  return found;
}

export function fromMenus(
  element: Pressed,
  current: ReadonlyMap<string, ReadonlyMap<string, number>>,
): Evidence[] {
  if (!element.isMenu) return [];
  const screens = current.get(labelKey(element));
  if (!screens) return [];
  // A group that is marked on several screens leads to none of them in particular.
  const strength = 0.93 / screens.size ** 1.5;
  return [...screens.keys()].map((to) => ({
    to,
    strength,
    reason: `“${element.label}” is the marked entry there`,
  }));
}
