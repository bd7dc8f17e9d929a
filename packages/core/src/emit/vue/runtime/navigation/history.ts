import { nextTick } from 'vue';
import type { Router } from 'vue-router';
import { type Arrival, dress, reversed } from './arrival';

const NONE: Arrival = { kind: 'none' };

/** The arrivals that led to the entries of the history, by their number in it. */
const arrivals = new Map<number, Arrival>();
/** What the coming navigation was told to look like, and what was pressed for it. */
let asked: Arrival | null = null;
let pressed: Element | null = null;

/** Vue Router numbers the entries of the history. */
function entryNumber(): number {
  const number: unknown = globalThis.history?.state?.position;
  return typeof number === 'number' ? number : 0;
}

/** Whether there is something of this app to go back to. */
export const hasPast = (): boolean => typeof globalThis.history?.state?.back === 'string';

/** Says what the coming navigation shall look like; a step back shows the reverse of the way there without it. */
export function announce(arrival: Arrival, element?: EventTarget | null): void {
  asked = arrival;
  pressed = element instanceof Element ? element : null;
}

/** Lets screens arrive as was asked for. */
export function playTransitions(router: Router): void {
  let at = entryNumber();
  let arrive = (): void => {};
  router.beforeResolve((to, from) => {
    const next = entryNumber();
    const way = next < at ? reversed(arrivals.get(at) ?? NONE) : (arrivals.get(next) ?? NONE);
    const arrival = asked ?? (next === at ? NONE : way);
    const isPlayed = dress(arrival, pressed) && from.matched.length > 0 && to.path !== from.path;
    if (!isPlayed || !('startViewTransition' in document)) return true;
    return new Promise<boolean>((resolve) => {
      const transition = document.startViewTransition(async () => {
        const arrived = new Promise<void>((done) => (arrive = done));
        resolve(true);
        await arrived;
        await nextTick();
      });
      // The browser may give it up, as when the window is hidden.
      transition.ready.catch(() => {});
    });
  });
  router.afterEach(() => {
    const next = entryNumber();
    if (asked && next > at) arrivals.set(next, asked);
    at = next;
    asked = null;
    pressed = null;
    arrive();
  });
}
