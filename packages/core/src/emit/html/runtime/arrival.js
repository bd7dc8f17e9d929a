/**
 * How screens arrive: each is a document of its own, and the browser plays a transition between two of them.
 *
 * @typedef {'left' | 'right' | 'top' | 'bottom'} Side
 * @typedef {object} Arrival
 * @property {'fade' | 'scale' | 'slide' | 'push' | 'shared'} kind
 * @property {Side} [from] of a slide or push
 * @property {number} ms duration in milliseconds
 * @property {string} [easing]
 * @property {number} [delay] milliseconds before it begins
 * @property {string[]} [names] of what moves from its place on the one screen to that on the other
 */

/** Where the arrivals of this tab are kept: by the number of the entry of its history that they led to. */
const KEY = 'arrivals';
/** What the coming step back was told to look like. */
const ASKED = 'arrival-asked';

/** @type {Record<Side, Side>} */
const OTHER = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

/** @returns {Record<string, Arrival>} */
const known = () => JSON.parse(sessionStorage.getItem(KEY) ?? '{}');

/** The number of the present entry of the history; 0 where the app was entered. */
export const entryNumber = () => globalThis.navigation?.currentEntry?.index ?? 0;

const isCalm = () => matchMedia('(prefers-reduced-motion: reduce)').matches;

/**
 * Says how the next screen arrives.
 * @param {Arrival | undefined} arrival
 * @param {Element | null} [pressed] the element that led there: of several that could move along, its own does
 */
export function announce(arrival, pressed) {
  const all = known();
  const at = String(entryNumber() + 1);
  if (arrival) all[at] = arrival;
  else delete all[at];
  sessionStorage.setItem(KEY, JSON.stringify(all));
  for (const name of arrival?.names ?? []) leaving(name, pressed ?? null);
}

/**
 * Says what the coming step back shall look like; without it, it is the reverse of the way there.
 * @param {Arrival | undefined} arrival
 */
export function announceBack(arrival) {
  if (arrival) sessionStorage.setItem(ASKED, JSON.stringify(arrival));
}

/**
 * Names what leaves this screen as what arrives on the next.
 * @param {string} name
 * @param {Element | null} pressed
 */
function leaving(name, pressed) {
  const selector = `[data-leaves='${name}']`;
  let around = pressed;
  while (around && !around.matches(selector) && !around.querySelector(selector))
    around = around.parentElement;
  const element = around?.matches(selector) ? around : (around ?? document).querySelector(selector);
  if (element instanceof HTMLElement) element.style.viewTransitionName = name;
}

/** @param {Arrival} arrival */
const reversed = (arrival) => (arrival.from ? { ...arrival, from: OTHER[arrival.from] } : arrival);

/** @returns {Arrival | undefined} how this document arrives */
function arriving() {
  const asked = sessionStorage.getItem(ASKED);
  sessionStorage.removeItem(ASKED);
  const activation = globalThis.navigation?.activation;
  const at = activation?.entry?.index ?? 0;
  if (activation?.navigationType !== 'traverse') return known()[at];
  const from = activation.from?.index ?? 0;
  if (asked) return JSON.parse(asked);
  const way = known()[Math.max(at, from)];
  return way && at < from ? reversed(way) : way;
}

/** @param {Arrival} arrival */
function look(arrival) {
  const root = document.documentElement;
  root.dataset.arrival = arrival.from ? `${arrival.kind}-${arrival.from}` : arrival.kind;
  root.style.setProperty('--arrival-ms', `${arrival.ms}ms`);
  root.style.setProperty('--arrival-easing', arrival.easing ?? 'ease-out');
  root.style.setProperty('--arrival-delay', `${arrival.delay ?? 0}ms`);
}

// A transition that the browser gives up, as when the next page is slow to come, is nothing to report.
addEventListener('unhandledrejection', (event) => {
  if (event.reason instanceof DOMException && /transition/i.test(event.reason.message))
    event.preventDefault();
});

addEventListener('pagereveal', (event) => {
  if (!event.viewTransition) return;
  const arrival = isCalm() ? undefined : arriving();
  if (arrival) look(arrival);
  else event.viewTransition.skipTransition();
});
