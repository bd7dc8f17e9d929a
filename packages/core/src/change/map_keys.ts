import { type TableName, tables } from '../model/app.ts';
import { mapKeysIn, mapKeyText } from '../schema/map_keys.ts';
import type { KeyShape } from '../schema/schema.ts';
import { all, type Change, type Put, setStart } from './change.ts';

/** Says where a screen or element key went: the new key, or null when it is gone. */
export type KeyMap = (key: string) => string | null;

/** The same change after its keys moved; null when nothing of it is left. */
export function mapChange(change: Change, map: KeyMap): Change | null {
  switch (change.kind) {
    case 'start': {
      if (change.value === null) return change;
      const value = map(change.value);
      return value === null ? null : value === change.value ? change : setStart(value);
    }
    case 'put': {
      const { key, value } = tables[change.table];
      const moved = mapKeyText(key as KeyShape, change.key, map);
      if (moved === null) return null;
      const put = mapKeysIn(value, change.value, map);
      return moved === change.key && put === change.value
        ? change
        : ({ ...change, key: moved, value: put } as Put);
    }
    case 'all': {
      const mapped = change.changes.map((c) => mapChange(c, map));
      if (mapped.every((c, i) => c === change.changes[i])) return change;
      const left = mapped.filter((c) => c !== null);
      return left.length ? all(left) : null;
    }
  }
}

/** Whether the keys of a table name places in the design, and not something of the project's own. */
export const isKeyedByDesign = (table: TableName): boolean => (tables[table].key as KeyShape).of !== 'own';
