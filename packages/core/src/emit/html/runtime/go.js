import { announce, announceBack, entryNumber } from './arrival.js';

/** @typedef {import('./arrival.js').Arrival} Arrival */

/**
 * An address with the parameters that it leaves open taken from the present one.
 * @param {string} to
 * @param {readonly string[]} keeps their names
 */
export function kept(to, keeps) {
  const address = new URL(to, location.href);
  const here = new URLSearchParams(location.search);
  for (const name of keeps) {
    const value = here.get(name);
    if (value !== null && !address.searchParams.has(name)) address.searchParams.set(name, value);
  }
  return address.href;
}

/**
 * Goes to another screen.
 * @param {string} to
 * @param {{ arrival?: Arrival, keeps?: readonly string[] }} [how]
 */
export function go(to, { arrival, keeps = [] } = {}) {
  announce(arrival, document.activeElement);
  location.assign(kept(to, keeps));
}

/**
 * Goes one step back; to the fallback where the app was entered here.
 * @param {string} fallback
 * @param {{ arrival?: Arrival }} [how]
 */
export function back(fallback, { arrival } = {}) {
  if (entryNumber() === 0) go(fallback, { arrival });
  else {
    announceBack(arrival);
    history.back();
  }
}

/**
 * What `data-arrival` says: `slide right 240ms`, `fade 200ms ease-in after 100ms`, `shared 300ms moving photo title`.
 * @param {HTMLElement} element
 * @returns {Arrival | undefined}
 */
function arrivalOf({ dataset }) {
  const said =
    /^(\w+)(?: (left|right|top|bottom))? (\d+)ms(?: ([a-z-]+))??(?: after (\d+)ms)?(?: moving (.+))?$/.exec(
      dataset.arrival ?? '',
    );
  if (!said) return undefined;
  const [, kind, from, ms, easing, delay, names] = said;
  return /** @type {Arrival} */ ({
    kind,
    ...(from ? { from } : {}),
    ms: Number(ms),
    ...(easing ? { easing } : {}),
    ...(delay ? { delay: Number(delay) } : {}),
    ...(names ? { names: names.split(' ') } : {}),
  });
}

for (const link of document.querySelectorAll('a[data-keeps]'))
  if (link instanceof HTMLAnchorElement) link.href = kept(link.href, (link.dataset.keeps ?? '').split(' '));

document.addEventListener('click', (event) => {
  const link = event.target instanceof Element ? event.target.closest('a[href], [data-back]') : null;
  if (!(link instanceof HTMLElement) || event.defaultPrevented) return;
  if (link.dataset.back !== undefined) {
    event.preventDefault();
    back(link.dataset.back, { arrival: arrivalOf(link) });
  } else if (link instanceof HTMLAnchorElement && link.origin === location.origin)
    announce(arrivalOf(link), link);
});
