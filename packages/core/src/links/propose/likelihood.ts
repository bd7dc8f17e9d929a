import { STEPS, WEIGHTS } from './weights.ts';

/** How likely a pair is by its traits. */
export const likelihoodOf = (traits: readonly number[]): number =>
  1 / (1 + Math.exp(-traits.reduce((sum, trait, i) => sum + trait * WEIGHTS[i], 0)));

/** What a likelihood was worth, between the steps as a straight line. */
export function calibrated(likelihood: number): number {
  const at = STEPS.findLastIndex(([from]) => from <= likelihood);
  if (at < 0) return likelihood;
  const [from, share] = STEPS[at];
  const [to, next] = STEPS[at + 1] ?? [1, Math.max(share, 0.99)];
  return share + ((next - share) * (likelihood - from)) / Math.max(1e-6, to - from);
}
