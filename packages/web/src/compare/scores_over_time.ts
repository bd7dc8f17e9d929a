import type { ComparisonScore } from '@tovel/core';

/** How near all screens were at one place of the history. */
export interface ScorePoint {
  readonly seq: number;
  readonly iteration: number;
  /** In percent, over all views as they were last compared then. */
  readonly mean: number;
  readonly worst: number;
}

/** The scores at each place of the history at which something was compared; what was not compared again counts as before. */
export function scoresOverTime(scores: readonly ComparisonScore[]): ScorePoint[] {
  const last = new Map<string, number>();
  const points = new Map<number, ScorePoint>();
  for (const { drawing, width, percent, seq, iteration } of [...scores].sort((a, b) => a.seq - b.seq)) {
    last.set(`${drawing} ${width}`, percent);
    const all = [...last.values()];
    points.set(seq, {
      seq,
      iteration,
      mean: all.reduce((sum, one) => sum + one, 0) / all.length,
      worst: Math.max(...all),
    });
  }
  return [...points.values()];
}
