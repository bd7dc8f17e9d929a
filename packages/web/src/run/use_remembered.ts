import { useState } from 'react';

/** Something that changed in what the running app remembers. */
export type Changed =
  | { readonly condition: string; readonly is: boolean }
  | {
      readonly collection: string;
      readonly did: 'added' | 'removed' | 'changed';
      readonly says: string;
    };

export interface ChangeSeen {
  readonly number: number;
  readonly change: Changed;
  /** What was pressed last before it; nothing where that is not known. */
  readonly by: string;
}

export interface StateTold {
  readonly tovel?: string;
  readonly conditions?: Readonly<Record<string, boolean>>;
  readonly changes?: readonly Changed[];
  readonly by?: string;
}

export interface Remembered {
  /** Conditions as the app has set them; others are as they are at first. */
  readonly conditions: Readonly<Record<string, boolean>>;
  /** The newest first. */
  readonly changes: readonly ChangeSeen[];
  readonly hear: (told: StateTold) => void;
  readonly forget: () => void;
}

/** Older changes are forgotten. */
const MOST_CHANGES = 200;

/** What the running app tells of what it remembers. */
export function useRemembered(): Remembered {
  const [conditions, setConditions] = useState<Readonly<Record<string, boolean>>>({});
  const [changes, setChanges] = useState<readonly ChangeSeen[]>([]);
  return {
    conditions,
    changes,
    hear: ({ tovel, conditions: now = {}, changes: seen = [], by = '' }) => {
      if (tovel !== 'state') return;
      setConditions(now);
      if (!seen.length) return;
      setChanges((before) => {
        const first = (before[0]?.number ?? 0) + 1;
        const next = seen.map((change, i): ChangeSeen => ({ number: first + i, change, by }));
        return [...next.toReversed(), ...before].slice(0, MOST_CHANGES);
      });
    },
    forget: () => setChanges([]),
  };
}
