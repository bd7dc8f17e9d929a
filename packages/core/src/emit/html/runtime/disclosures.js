/**
 * Parts of a page that are opened and closed. What opens one names it in `aria-controls` and says in `data-discloses` what it
 * does; a part says in `data-leaves` whether it closes as a menu or as a dialog does, and in `data-among` of which it is one.
 */

/** What had the focus when a part was opened. */
const openedFrom = /** @type {Map<HTMLElement, Element | null>} */ (new Map());

/**
 * @param {string} id
 * @param {string} does
 */
export function disclose(id, does) {
  const part = document.getElementById(id);
  if (!part) return;
  const { among } = part.dataset;
  if (among === undefined) setOpen(part, does === 'toggle' ? !isOpen(part) : does === 'open');
  else for (const other of members(among)) setOpen(other, other === part);
}

/**
 * Shows the part so many further on; after the last one comes the first.
 * @param {string} among
 * @param {number} by
 */
export function turn(among, by) {
  const all = members(among);
  const at = all.findIndex(isOpen);
  const next = all[(at + by + all.length) % all.length];
  if (next) disclose(next.id, 'open');
}

/** @param {string} among */
const members = (among) =>
  /** @type {HTMLElement[]} */ ([...document.querySelectorAll(`[data-among="${among}"]`)]);

/** What only narrow windows close is open where it says so. @param {HTMLElement} part */
const isOpen = (part) =>
  part.dataset.narrow === undefined ? part.hidden === false : part.dataset.open !== undefined;

/** @param {HTMLElement} part @param {boolean} value */
function setOpen(part, value) {
  if (isOpen(part) === value) return;
  const hadFocus = part.contains(document.activeElement);
  if (part.dataset.narrow === undefined) part.hidden = !value;
  else if (value) part.dataset.open = '';
  else delete part.dataset.open;
  for (const control of document.querySelectorAll(`[aria-controls="${part.id}"]`))
    for (const name of ['aria-expanded', 'aria-selected', 'aria-current'])
      if (control.hasAttribute(name)) control.setAttribute(name, String(value));
  if (value) {
    openedFrom.set(part, document.activeElement);
    if (part.dataset.leaves === 'dialog') controlsIn(part)[0]?.focus();
    return;
  }
  const from = openedFrom.get(part);
  if (hadFocus && from instanceof HTMLElement) from.focus();
  openedFrom.delete(part);
}

/** @param {HTMLElement} part */
const controlsIn = (part) =>
  /** @type {HTMLElement[]} */ ([
    ...part.querySelectorAll(
      'a[href], button:not(:disabled), input:not(:disabled), select, textarea, [tabindex="0"]',
    ),
  ]);

/** Menus and dialogs that are open, the last one last. */
const leavable = () => [...openedFrom.keys()].filter((part) => part.dataset.leaves !== undefined);

document.addEventListener('click', ({ target }) => {
  if (!(target instanceof Element)) return;
  const control = /** @type {HTMLElement | null} */ (target.closest('[data-discloses]'));
  const named = control?.getAttribute('aria-controls') ?? '';
  for (const part of leavable()) {
    if (part.id === named) continue;
    const isLeft =
      part.dataset.leaves === 'dialog' ? target === part : !part.contains(target) || isChosen(target, part);
    if (isLeft) setOpen(part, false);
  }
  if (control) disclose(named, control.dataset.discloses ?? 'toggle');
});

/**
 * Whether something was chosen in a menu, and not only a further part of it opened.
 * @param {Element} target @param {HTMLElement} menu
 */
function isChosen(target, menu) {
  const control = target.closest('a, button, [role="menuitem"]');
  const further = control?.getAttribute('aria-controls');
  return control !== null && !(further && menu.contains(document.getElementById(further)));
}

/** What an address leads to within closed parts is shown with all that it stands in. */
function openAddressed() {
  const place = document.getElementById(decodeURIComponent(location.hash.slice(1)));
  let isClosed = false;
  for (let part = place; part; part = part.parentElement) {
    if (!part.hidden || !part.id || part.dataset.leaves !== undefined) continue;
    disclose(part.id, 'open');
    isClosed = true;
  }
  if (isClosed) place?.scrollIntoView();
}

openAddressed();
addEventListener('hashchange', openAddressed);

document.addEventListener('keydown', (event) => {
  const part = leavable().at(-1);
  if (!part) return;
  if (event.key === 'Escape') setOpen(part, false);
  if (event.key !== 'Tab' || part.dataset.leaves !== 'dialog') return;
  const controls = controlsIn(part);
  const at = controls.findIndex((control) => control === document.activeElement);
  const next = at + (event.shiftKey ? -1 : 1);
  if (at >= 0 && next >= 0 && next < controls.length) return;
  event.preventDefault();
  controls.at(event.shiftKey ? -1 : 0)?.focus();
});
