import type { Interaction } from '@tovel/core';
import { useSyncExternalStore } from 'react';

/** Interactions that were copied, to be pasted on this screen or another. */
let now: readonly Interaction[] = [];
const listeners = new Set<() => void>();

export function useCopied(): { now: readonly Interaction[]; set: (next: readonly Interaction[]) => void } {
  const known = useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );
  return {
    now: known,
    set: (next) => {
      // What counted at all places of a component counts for itself where it is pasted.
      now = next.map(({ everywhere: _everywhere, ...rest }) => rest);
      listeners.forEach((tell) => tell());
    },
  };
}
