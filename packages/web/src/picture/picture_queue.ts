/**
 * Pictures that wait to be drawn. Each is a page of its own that has to be laid out, so they are drawn one after the
 * other while nothing else is going on: scrolling and typing come first.
 */
const waiting = new Set<() => void>();
let isRunning = false;

/** Draws when there is time for it. Returns how to give the place in the queue up. */
export function whenThereIsTime(draw: () => void): () => void {
  waiting.add(draw);
  run();
  return () => void waiting.delete(draw);
}

/** A picture is drawn at the latest after so many milliseconds, however busy the page is. */
const PATIENCE = 400;

function run(): void {
  if (isRunning) return;
  isRunning = true;
  const idle =
    window.requestIdleCallback ?? ((work: () => void) => window.setTimeout(work, 16) as unknown as number);
  idle(
    () => {
      isRunning = false;
      const [next] = waiting;
      if (!next) return;
      waiting.delete(next);
      next();
      if (waiting.size) run();
    },
    { timeout: PATIENCE },
  );
}
