import type { RoleDetail } from './names.ts';

/** What an element seems to be, with how sure that is (0 to 1) and why, in words. */
export interface RoleGuess extends RoleDetail {
  readonly confidence: number;
  readonly reason: string;
}

/** Guesses below this are not made. */
export const LEAST_CONFIDENCE = 0.35;

export type Guesses = ReadonlyMap<string, RoleGuess>;
