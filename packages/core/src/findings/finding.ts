import type { Change } from '../change/change.ts';

export type FindingLevel = 'error' | 'warning' | 'info';

/** Something about the project that somebody should look at: what, where, why, and where possible what mends it. */
export interface Finding {
  readonly code: string;
  readonly level: FindingLevel;
  /** Key of the screen it is on, if on one. */
  readonly screen: string | null;
  /** Key of the element it is on, if on one. */
  readonly element: string | null;
  readonly message: string;
  readonly fix?: { readonly label: string; readonly change: Change };
}
