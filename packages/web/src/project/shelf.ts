import type { Change } from '@tovel/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { livingWindows, ownWindow } from './identity';

/** A step that has not been saved yet. */
export interface WaitingStep {
  /** Said with the step, so that saying it again does it once. */
  readonly id: string;
  readonly label: string;
  readonly change: Change;
}

interface KeptStep extends WaitingStep {
  readonly project: string;
  readonly window: string;
  /** When it was made, so that steps stay in their order. */
  readonly at: number;
}

interface ShelfSchema extends DBSchema {
  steps: { key: string; value: KeptStep; indexes: { project: string } };
}

/** Where steps wait, on this device, until they are saved: a window that ends does not take them along. */
export interface Shelf {
  keep(project: string, step: WaitingStep): Promise<void>;
  drop(ids: readonly string[]): Promise<void>;
  /** Steps of a project that windows left behind which ended, oldest first. */
  leftBehind(project: string): Promise<readonly WaitingStep[]>;
}

export const noShelf: Shelf = {
  keep: async () => {},
  drop: async () => {},
  leftBehind: async () => [],
};

/** The shelf of this device; none where the browser has no room for one. */
export function deviceShelf(): Shelf {
  if (typeof indexedDB === 'undefined') return noShelf;
  let opened: Promise<IDBPDatabase<ShelfSchema>> | null = null;
  const database = (): Promise<IDBPDatabase<ShelfSchema>> =>
    (opened ??= openDB<ShelfSchema>('tovel', 1, {
      upgrade(db) {
        db.createObjectStore('steps', { keyPath: 'id' }).createIndex('project', 'project');
      },
    }));
  let last = 0;
  /** What this window put there itself since it was opened. */
  const mine = new Set<string>();
  return {
    async keep(project, step) {
      mine.add(step.id);
      last = Math.max(Date.now(), last + 1);
      const at = last;
      const db = await database();
      await db.put('steps', { ...step, project, window: await ownWindow(), at });
    },
    async drop(ids) {
      const transaction = (await database()).transaction('steps', 'readwrite');
      await Promise.all([...ids.map((id) => transaction.store.delete(id)), transaction.done]);
    },
    async leftBehind(project) {
      const living = await livingWindows();
      const own = await ownWindow();
      const steps = await (await database()).getAllFromIndex('steps', 'project', project);
      return steps
        .filter((step) => !mine.has(step.id) && (step.window === own || !living.has(step.window)))
        .sort((a, b) => a.at - b.at)
        .map(({ id, label, change }) => ({ id, label, change }));
    },
  };
}
