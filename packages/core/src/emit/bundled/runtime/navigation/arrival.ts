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

/** Whether somebody asked for less movement. */
export const isCalm = (): boolean =>
  window.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

/** Prepares the page for a transition; returns whether there is one to play. */
export function dress(arrival: Arrival, pressed?: Element | null): boolean {
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

/** The same on the way back. */
export const reversed = (arrival: Arrival): Arrival =>
  'from' in arrival ? { ...arrival, from: OTHER[arrival.from] } : arrival;
