import { all, type Change, putSetAside } from '../change/change.ts';
import { mapChange } from '../change/map_keys.ts';
import type { App, TableEntry } from '../model/app.ts';
import { decidedAbout } from './decided.ts';

const put = ({ table, key, value }: TableEntry): Change => ({ kind: 'put', table, key, value }) as Change;

/**
 * Puts what was set aside on an element: all that was decided about the one that it was about is said of this one, also
 * where something else speaks of it.
 */
export function putOn(app: App, id: string, element: string): Change {
  const { element: from, entries } = app.setAside[id];
  const map = (key: string): string => (key === from ? element : key);
  const named = from === undefined ? [] : (decidedAbout(app).get(from)?.named ?? []);
  return all([
    putSetAside(id, null),
    ...[...entries, ...named].flatMap((entry) => mapChange(put(entry), map) ?? []),
  ]);
}

/** Lets go of what waited for an answer; it stays among what was let go. */
export const letGoOf = (app: App, id: string): Change =>
  putSetAside(id, { ...app.setAside[id], standing: 'letGo' });
