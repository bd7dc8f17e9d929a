import { type Arrival, dress, isCalm, reversed } from './arrival';

/** The arrivals that led to the entries of the history, by their number in it. */
const arrivals = new Map<number, Arrival>();
/** What going back was told to look like. */
let asked: Arrival | null = null;
let at = entryNumber();

/** React Router numbers the entries of the history; 0 is where the app was entered. */
export function entryNumber(): number {
  const number: unknown = globalThis.history?.state?.idx;
  return typeof number === 'number' ? number : 0;
}

/** Prepares the transition of the coming navigation; returns whether it plays one. */
export function announce(arrival: Arrival, pressed?: Element | null): boolean {
  at = entryNumber() + 1;
  arrivals.set(at, arrival);
  return dress(arrival, pressed);
}

/** Says what the coming step back shall look like; without it, it is the reverse of the way there. */
export function announceBack(arrival: Arrival): void {
  asked = arrival.kind === 'none' ? null : arrival;
}

/** Whether the router has no transition to reverse on the way back from here, although one is asked for. */
export function needsOwnTransition(arrival: Arrival): boolean {
  const way = arrivals.get(at)?.kind ?? 'none';
  return (
    arrival.kind !== 'none' && way === 'none' && !isCalm() && 'startViewTransition' in document
  );
}

/** Whether that is what the browser says of a transition that did not play to its end. */
function isSkippedTransition(reason: unknown): boolean {
  return reason instanceof DOMException && /^Transition was (skipped|aborted)/.test(reason.message);
}

/** Resolves when a step back shows, or after a tenth of a second. */
export async function afterPop(): Promise<void> {
  await new Promise((resolve) => window.addEventListener('popstate', resolve, { once: true }));
  await new Promise<void>((resolve) => {
    const watcher = new MutationObserver(() => resolve());
    watcher.observe(document.body, { childList: true, subtree: true });
    setTimeout(() => {
      watcher.disconnect();
      resolve();
    }, 100);
  });
}

// The router gives a transition up when somebody goes on in its middle, and nobody hears of it there.
globalThis.addEventListener?.('unhandledrejection', (event) => {
  if (isSkippedTransition(event.reason)) event.preventDefault();
});

// Before the router hears of it, so that the transition it starts looks as it should.
globalThis.addEventListener?.(
  'popstate',
  () => {
    const next = entryNumber();
    const way = next < at ? arrivals.get(at) : arrivals.get(next);
    dress(asked ?? (way ? (next < at ? reversed(way) : way) : { kind: 'none' }));
    asked = null;
    at = next;
  },
  true,
);
