import type { Sight } from '../../roles/sight.ts';
import { labelKey, type Pressed } from './evidence.ts';

/** A menu that stands on several screens: the same entries, of which another one is marked on each. */
export interface Menu {
  /** On how many screens it stands. */
  readonly screens: number;
  /** On which share of them an entry stands, by label. */
  readonly shares: ReadonlyMap<string, number>;
  /** Screens on which an entry is marked, by label; only where the mark moves. */
  readonly marked: ReadonlyMap<string, ReadonlyMap<string, number>>;
}

/** Two menus are the same where so many of their labels are. */
const ALIKE = 0.5;

/** The menu that each element stands in, as far as it stands on more than one screen. */
export function menusOf(pressed: readonly Pressed[]): Map<Pressed, Menu> {
  const places = new Map<Sight, Pressed[]>();
  for (const one of pressed)
    if (one.menu) {
      const own = places.get(one.menu);
      if (own) own.push(one);
      else places.set(one.menu, [one]);
    }
  interface Group {
    readonly places: Pressed[][];
    readonly labels: Map<string, number>;
  }
  const groups: Group[] = [];
  const byLabel = new Map<string, Set<Group>>();
  for (const entries of places.values()) {
    const labels = new Set(entries.map(labelKey));
    const near = new Set([...labels].flatMap((label) => [...(byLabel.get(label) ?? [])]));
    let best: Group | null = null;
    let most = ALIKE;
    for (const group of near) {
      const usual = [...group.labels].filter(([, count]) => count >= group.places.length / 2);
      const both = usual.filter(([label]) => labels.has(label)).length;
      const likeness = both / Math.max(1, labels.size + usual.length - both);
      if (likeness >= most) [best, most] = [group, likeness];
    }
    if (!best) groups.push((best = { places: [], labels: new Map() }));
    best.places.push(entries);
    for (const label of labels) {
      best.labels.set(label, (best.labels.get(label) ?? 0) + 1);
      const known = byLabel.get(label);
      if (known) known.add(best);
      else byLabel.set(label, new Set([best]));
    }
  }
  const found = new Map<Pressed, Menu>();
  for (const { places: all, labels } of groups) {
    const screens = new Set(all.map(([first]) => first.screen)).size;
    if (screens < 2) continue;
    const marked = new Map<string, Map<string, number>>();
    for (const entries of all)
      for (const one of entries) {
        if (!one.isCurrent) continue;
        const key = labelKey(one);
        const on = marked.get(key) ?? new Map<string, number>();
        on.set(one.screen, (on.get(one.screen) ?? 0) + 1);
        marked.set(key, on);
      }
    const menu: Menu = {
      screens,
      shares: new Map([...labels].map(([label, count]) => [label, Math.min(1, count / all.length)])),
      // A mark that stays on one entry says how it looks, not where one is.
      marked: marked.size > 1 ? marked : new Map(),
    };
    for (const entries of all) for (const one of entries) found.set(one, menu);
  }
  return found;
}
