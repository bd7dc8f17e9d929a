/**
 * What opens over a screen. It stands at the end of its page, closed, and says in its attributes how it opens and closes.
 *
 * @typedef {import('./arrival.js').Arrival} Arrival
 */

/** The part of the address that says what is open. */
const PARAMETER = 'show';

/** What is open, the uppermost last, with what it was opened from. */
const opened = /** @type {{ element: HTMLElement, opener: Element | null }[]} */ ([]);

/** @param {string} name */
const find = (name) => document.getElementById(`overlay-${name}`);

/**
 * Opens something over the screen.
 * @param {string} name
 * @param {Arrival} [arrival]
 */
export function open(name, arrival) {
  const element = find(name);
  if (!element) return;
  if (element.dataset.address !== undefined && shown() !== name) {
    const address = new URL(location.href);
    address.searchParams.set(PARAMETER, name);
    history.pushState({ isOpened: true }, '', address);
  }
  if (opened.some((one) => one.element === element)) hide(element);
  show(element, arrival);
}

/** Closes the uppermost one. */
export function close() {
  const element = opened.at(-1)?.element;
  if (element) leave(element);
}

const shown = () => new URL(location.href).searchParams.get(PARAMETER);

/** Closes one that a person wants to be closed: its address goes with it. @param {HTMLElement} element */
function leave(element) {
  const isAddressed = element.dataset.address !== undefined && find(shown() ?? '') === element;
  if (isAddressed && history.state?.isOpened) history.back();
  else if (isAddressed) {
    const address = new URL(location.href);
    address.searchParams.delete(PARAMETER);
    history.replaceState(null, '', address);
  }
  hide(element);
}

/** @param {HTMLElement} element @param {Arrival} [arrival] */
function show(element, arrival) {
  const { kind, modal, ms } = element.dataset;
  const opener = document.activeElement;
  if (arrival) {
    element.dataset.arrival = arrival.kind;
    element.style.animationDuration = `${arrival.ms}ms`;
  } else delete element.dataset.arrival;
  if (element instanceof HTMLDialogElement) {
    if (modal !== undefined) element.showModal();
    else element.show();
  } else {
    element.showPopover();
    if (kind !== 'toast') placeBeside(element, opener);
    if (kind === 'menu') itemsOf(element)[0]?.focus();
  }
  opened.push({ element, opener });
  if (ms) setTimeout(() => hide(element), Number(ms));
}

/** @param {HTMLElement} element */
function hide(element) {
  const at = opened.findIndex((one) => one.element === element);
  if (at < 0) return;
  const [{ opener }] = opened.splice(at, 1);
  if (element instanceof HTMLDialogElement) element.close();
  else element.hidePopover();
  if (element.dataset.kind !== 'toast' && opener instanceof HTMLElement) opener.focus();
}

document.addEventListener('pointerdown', (event) => {
  const uppermost = opened.at(-1)?.element;
  if (!uppermost || uppermost.dataset.outside === undefined) return;
  const { left, right, top, bottom } = uppermost.getBoundingClientRect();
  const { clientX: x, clientY: y } = event;
  const isWithin = x >= left && x <= right && y >= top && y <= bottom;
  const isIn = event.target instanceof Node && uppermost.contains(event.target);
  // The shade behind a dialog is part of the dialog.
  if (!isIn || (event.target === uppermost && !isWithin)) leave(uppermost);
});

document.addEventListener('keydown', (event) => {
  const uppermost = opened.at(-1)?.element;
  if (!uppermost) return;
  if (event.key === 'Escape') {
    // Whether it closes is said by itself, not by what the browser does with a dialog.
    event.preventDefault();
    if (uppermost.dataset.escape !== undefined) leave(uppermost);
    return;
  }
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (!step || uppermost.dataset.kind !== 'menu') return;
  event.preventDefault();
  const items = itemsOf(uppermost);
  const at = items.findIndex((item) => item === document.activeElement);
  items[(at + step + items.length) % items.length]?.focus();
});

for (const dialog of document.querySelectorAll('dialog.overlay'))
  dialog.addEventListener('cancel', (event) => event.preventDefault());

/** Opens and closes what the address says. */
function follow() {
  const named = find(shown() ?? '');
  const others = opened.filter(({ element }) => element.dataset.address !== undefined && element !== named);
  for (const { element } of others) hide(element);
  if (named?.dataset.address !== undefined && !opened.some(({ element }) => element === named)) show(named);
}
/** @param {HTMLElement} menu @returns {HTMLElement[]} */
const itemsOf = (menu) =>
  [...menu.querySelectorAll('a, button, [role="menuitem"]')].filter((item) => item instanceof HTMLElement);

/**
 * Puts it below what opened it, or above where there is no room.
 * @param {HTMLElement} element
 * @param {Element | null} opener
 */
function placeBeside(element, opener) {
  if (!opener || opener === document.body) return;
  const { left, top, bottom } = opener.getBoundingClientRect();
  const { width, height } = element.getBoundingClientRect();
  const room = document.documentElement;
  const y = bottom + 4 + height > room.clientHeight && top > height ? top - height - 4 : bottom + 4;
  element.style.margin = '0';
  element.style.inset = 'auto';
  element.style.top = `${y}px`;
  element.style.left = `${Math.max(4, Math.min(left, room.clientWidth - width - 4))}px`;
}

addEventListener('popstate', follow);
follow();
