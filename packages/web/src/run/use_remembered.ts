import type { Value } from '@tovel/core';
import { useState } from 'react';

/** Something that changed in what the running app remembers. */
export type Changed =
  | { readonly variable: string; readonly is: unknown }
  | {
      readonly collection: string;
      readonly did: 'added' | 'removed' | 'changed';
      readonly says: string;
    }
  | { readonly request: RequestSeen };

/** What the running app asked of a described API, and what it got. */
export interface RequestSeen {
  readonly method: string;
  /** From the address of the API on. */
  readonly path: string;
  /** Id of the operation; nothing where there was no answer. */
  readonly operation: string;
  /** 0 where there was no answer. */
  readonly status: number;
  /** Milliseconds until the answer was there. */
  readonly ms: number;
}

export interface ChangeSeen {
  readonly number: number;
  readonly change: Changed;
  /** What was pressed last before it; nothing where that is not known. */
  readonly by: string;
}

export interface StateTold {
  readonly tovel?: string;
  readonly variables?: Readonly<Record<string, Value>>;
  readonly changes?: readonly Changed[];
  readonly by?: string;
  readonly request?: RequestSeen;
  readonly tried?: string;
  readonly query?: string;
}

export interface Remembered {
  /** Variables as the app has set them; others are as they are at first. */
  readonly variables: Readonly<Record<string, Value>>;
  /** What the address asks for: `?view=grid`. */
  readonly query: string;
  /** How described APIs are tried, by the word for it. */
  readonly tried: string;
  /** The newest first. */
  readonly changes: readonly ChangeSeen[];
  readonly hear: (told: StateTold) => void;
  readonly forget: () => void;
}

/** Older changes are forgotten. */
const MOST_CHANGES = 200;

/** What the running app tells of what it remembers. */
export function useRemembered(): Remembered {
  const [variables, setSeen] = useState<Readonly<Record<string, Value>>>({});
  const [query, setQuery] = useState('');
  const [tried, setTried] = useState('usual');
  const [changes, setChanges] = useState<readonly ChangeSeen[]>([]);
  return {
    variables,
    query,
    tried,
    changes,
    hear: ({ tovel, variables: now = {}, changes = [], by = '', request, tried: as, query: asked }) => {
      if (tovel === 'state') setSeen(now);
      if (as !== undefined) setTried(as);
      if (asked !== undefined) setQuery(asked);
      const seen = tovel === 'state' ? changes : tovel === 'request' && request ? [{ request }] : [];
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
