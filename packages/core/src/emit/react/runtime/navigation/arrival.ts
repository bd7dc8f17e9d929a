type Side = 'left' | 'right' | 'top' | 'bottom';

interface Timed {
  /** Duration in milliseconds. */
  ms: number;
  easing?: 'ease-out' | 'ease-in' | 'ease-in-out' | 'linear';
  /** Milliseconds before it begins. */
  delay?: number;
}

/** How the next screen arrives. */
export type Arrival =
  | { kind: 'none' }
  | ({ kind: 'fade' } & Timed)
  | ({ kind: 'scale' } & Timed)
  | ({ kind: 'slide' | 'push'; from: Side } & Timed)
  /** The elements of these names move from the one screen to their place on the other. */
  | ({ kind: 'shared'; names: string[] } & Timed);

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
  return play(arrival, pressed);
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

const isCalm = (): boolean =>
  window.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

function play(arrival: Arrival, pressed?: Element | null): boolean {
  const root = document.documentElement;
  if (arrival.kind === 'none' || isCalm()) {
    delete root.dataset.arrival;
    return false;
  }
  root.dataset.arrival = 'from' in arrival ? `${arrival.kind}-${arrival.from}` : arrival.kind;
  root.style.setProperty('--arrival-ms', `${arrival.ms}ms`);
  root.style.setProperty('--arrival-easing', arrival.easing ?? 'ease-out');
  root.style.setProperty('--arrival-delay', `${arrival.delay ?? 0}ms`);
  if (arrival.kind === 'shared') nameShared(arrival.names, pressed);
  return true;
}

/** Names what leaves this screen as what arrives on the next: in the row that was pressed, if it is in one. */
function nameShared(names: string[], pressed?: Element | null): void {
  for (const name of names) {
    const selector = `[data-leaves='${name}']`;
    let around: Element | null = pressed ?? null;
    while (around && !around.matches(selector) && !around.querySelector(selector))
      around = around.parentElement;
    const leaving = around?.matches(selector)
      ? around
      : (around ?? document).querySelector<HTMLElement>(selector);
    if (leaving instanceof HTMLElement) leaving.style.viewTransitionName = name;
  }
}

const OTHER: Record<Side, Side> = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

const reversed = (arrival: Arrival): Arrival =>
  'from' in arrival ? { ...arrival, from: OTHER[arrival.from] } : arrival;

// Before the router hears of it, so that the transition it starts looks as it should.
globalThis.addEventListener?.(
  'popstate',
  () => {
    const next = entryNumber();
    const way = next < at ? arrivals.get(at) : arrivals.get(next);
    play(asked ?? (way ? (next < at ? reversed(way) : way) : { kind: 'none' }));
    asked = null;
    at = next;
  },
  true,
);
