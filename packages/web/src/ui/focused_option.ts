import type { KeyboardEvent } from 'react';

/**
 * Which option of a list a key was pressed on, by what comes after a prefix in its id: what has the focus is meant, also while the
 * view does not show it yet. Undefined where that is none.
 */
export const focusedOption = (event: KeyboardEvent, prefix: string): string | undefined =>
  (event.target as Element).closest('[role=option]')?.id.slice(prefix.length);
