import { type App, TABLE_NAMES, type TableEntry, tables } from '../model/app.ts';
import { mapKeysIn, mapKeyText, wordsOfKey } from '../schema/map_keys.ts';
import type { KeyShape } from '../schema/schema.ts';
import { onceFor } from '../json/once_for.ts';

/** What was decided about one element. */
export interface Decided {
  /** Entries that are about the element itself. */
  readonly own: readonly TableEntry[];
  /** Entries about something else that speak of it: a place of a component, a step of a journey, a target. */
  readonly named: readonly TableEntry[];
  /** Findings about it that were let stand, proposals that were refused, records: they go along, and are no reason to ask. */
  readonly minor: readonly TableEntry[];
}

/** Whether anything was decided that has to go somewhere. */
export const isDecided = (about: Decided | undefined): about is Decided =>
  about !== undefined && about.own.length + about.named.length > 0;

/** All that an app says of elements, by their keys; computed once per app value. */
export const decidedAbout = onceFor((app: App): ReadonlyMap<string, Decided> => collect(app));

function collect(app: App): Map<string, Decided> {
  type Found = { readonly [K in keyof Decided]: TableEntry[] };
  const found = new Map<string, Found>();
  const at = (element: string): Found => {
    let one = found.get(element);
    if (!one) found.set(element, (one = { own: [], named: [], minor: [] }));
    return one;
  };
  for (const table of TABLE_NAMES) {
    // What is set aside, and what iterations did, is about what was.
    if (table === 'setAside' || table === 'iterations' || table === 'code') continue;
    const shape = tables[table].key as KeyShape;
    for (const [key, value] of Object.entries(app[table])) {
      const entry: TableEntry = { table, key, value };
      if (shape.of === 'element')
        mapKeyText(shape, key, (element) => {
          at(element).own.push(entry);
          return element;
        });
      if (shape.names) for (const word of wordsOfKey(key)) at(word).minor.push(entry);
      const named = new Set<string>();
      mapKeysIn(tables[table].value, value, (one) => {
        named.add(one);
        return one;
      });
      // A record is what its row says: where that goes, it goes along.
      for (const one of named) at(one)[table === 'collections' ? 'minor' : 'named'].push(entry);
    }
  }
  return found;
}
