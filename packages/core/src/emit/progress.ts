/** Hears how many of the screens have been written; what it throws ends the writing. */
export type EmissionProgress = (done: number, total: number) => void;

/** Tells no more often than once in so many ms, so that telling takes no time to speak of. */
export function seldom(tell: EmissionProgress, ms = 100): EmissionProgress {
  let last = 0;
  return (done, total) => {
    if (Date.now() - last < ms) return;
    last = Date.now();
    tell(done, total);
  };
}
