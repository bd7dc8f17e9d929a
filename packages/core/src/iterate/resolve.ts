import { all, applyChange, type Change, putSetAside } from '../change/change.ts';
import { mapChange } from '../change/map_keys.ts';
import type { App, TableEntry } from '../model/app.ts';
import { freeInteractionKey } from '../model/interaction.ts';
import { equalJson } from '../json/json.ts';
import { type Decided, decidedAbout } from './decided.ts';

const put = ({ table, key, value }: TableEntry): Change => ({ kind: 'put', table, key, value }) as Change;

/**
 * Says of one element all that was decided about another one, also where something else speaks of it. Where the element
 * does something already, it does the other thing as well; nothing of it is written over.
 * @returns changes in their order
 */
export function movedTo(app: App, from: string, to: string, { own, named, minor }: Decided): Change[] {
  const map = (key: string): string => (key === from ? to : key);
  const changes: Change[] = [];
  let after = app;
  for (const entry of [...own, ...named, ...minor]) {
    let change = mapChange(put(entry), map);
    if (!change || change.kind !== 'put') continue;
    if (change.table === 'interactions') {
      const there = after.interactions[change.key];
      if (there && equalJson(there, change.value)) continue;
      if (there) change = { ...change, key: freeInteractionKey(after.interactions, to) };
    }
    changes.push(change);
    after = applyChange(after, change);
  }
  return changes;
}

/** Says of one element what was decided about another, and no longer of that one: the right one, found out later. */
export function moveDecided(app: App, from: string, to: string): Change {
  const about = decidedAbout(app).get(from) ?? { own: [], named: [], minor: [] };
  return all([
    ...about.own.map(({ table, key }) => put({ table, key, value: null })),
    ...movedTo(app, from, to, about),
  ]);
}

/** Puts what was set aside on an element: all that was decided about the one that it was about is said of this one. */
export function putOn(app: App, id: string, element: string): Change {
  const { element: from, entries } = app.setAside[id];
  const known = from === undefined ? undefined : decidedAbout(app).get(from);
  const { named = [], minor = [] } = known ?? {};
  return all([
    putSetAside(id, null),
    ...(from === undefined
      ? entries.map(put)
      : movedTo(app, from, element, { own: entries as readonly TableEntry[], named, minor })),
  ]);
}

/** Says again what was set aside, of an element that came back under its own key. */
export const putBack = (app: App, id: string): Change[] => [
  putSetAside(id, null),
  ...app.setAside[id].entries.map(put),
];

/** Lets go of what waited for an answer; it stays among what was let go. */
export const letGoOf = (app: App, id: string): Change =>
  putSetAside(id, { ...app.setAside[id], standing: 'letGo' });

/** Decides what both changed: one's own stays, or gives way to the design's. */
export const decideBoth = (app: App, id: string, taken: 'own' | 'design'): Change =>
  all([
    putSetAside(id, null),
    ...(taken === 'design'
      ? app.setAside[id].entries.map(({ table, key }) => put({ table, key, value: null }))
      : []),
  ]);
