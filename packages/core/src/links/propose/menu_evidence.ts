import { type Evidence, labelKey, type Pressed } from './evidence.ts';
import type { Menu } from './menus.ts';

/** Where an entry of a menu leads by its mark: to the screens on which it is the marked one. */
export function fromMenus(element: Pressed, menu: Menu | undefined): Evidence[] {
  const screens = menu?.marked.get(labelKey(element));
  if (!menu || !screens) return [];
  // A group that is marked on several screens leads to none of them in particular.
  const strength = (0.93 * menu.shares.get(labelKey(element))!) / screens.size ** 1.5;
  return [...screens.keys()].map((to) => ({
    kind: 'menu',
    to,
    strength,
    reason: `“${element.label}” is the marked entry there`,
  }));
}
