import { derived, initial, kept } from './variables.js';

/** @typedef {typeof initial} Variables */
/** @typedef {keyof Variables} Name */

const KEY = 'variables';

/** What was set on this page and goes with it. @type {Record<string, unknown>} */
const here = {};

/** All that the app remembers. @returns {Variables} */
export function now() {
  /** @type {Record<string, unknown>} */
  const values = { ...initial, ...read(sessionStorage), ...read(localStorage), ...here };
  const said = new URLSearchParams(location.search);
  for (const name of Object.keys(kept)) {
    const text = said.get(name);
    if (kept[name] === 'address') values[name] = text === null ? first(name) : parsed(text, first(name));
  }
  for (const [name, work] of Object.entries(derived)) values[name] = work(/** @type {Variables} */ (values));
  return /** @type {Variables} */ (values);
}

/**
 * @param {Name} name
 * @param {unknown} value a value, or what works it out from what there is
 */
export function set(name, value) {
  const is = typeof value === 'function' ? value(now()) : value;
  const keeping = kept[name];
  if (keeping === 'address') {
    const address = new URL(location.href);
    if (String(is) === String(first(name))) address.searchParams.delete(name);
    else address.searchParams.set(name, String(is));
    history.replaceState(history.state, '', address);
  } else if (keeping === 'screen') here[name] = is;
  else {
    const storage = keeping === 'device' ? localStorage : sessionStorage;
    storage.setItem(KEY, JSON.stringify({ ...read(storage), [name]: is }));
  }
  for (const tell of listeners) tell();
}

/** @type {(() => void)[]} */
const listeners = [];

/** Does something now, and whenever a variable changes. @param {() => void} todo */
export function follow(todo) {
  listeners.push(todo);
  todo();
}

/**
 * Shows in an element what is worked out.
 * @param {string} name what it is called in `data-says`
 * @param {(now: Variables) => unknown} work
 */
export function says(name, work) {
  follow(() => {
    for (const element of document.querySelectorAll(`[data-says='${name}']`))
      element.textContent = String(work(now()) ?? '');
  });
}

/**
 * Lets an element be there only while something holds.
 * @param {string} name what it is called in `data-shown`
 * @param {(now: Variables) => unknown} work
 */
export function shown(name, work) {
  follow(() => {
    for (const element of document.querySelectorAll(`[data-shown='${name}']`))
      if (element instanceof HTMLElement) element.hidden = !work(now());
  });
}

/**
 * Lets a control be used only while something holds.
 * @param {string} name what it is called in `data-enabled`
 * @param {(now: Variables) => unknown} work
 */
export function enabled(name, work) {
  follow(() => {
    for (const element of document.querySelectorAll(`[data-enabled='${name}']`))
      element.toggleAttribute('disabled', !work(now()));
  });
}

/** @param {string} name */
const first = (name) => /** @type {Record<string, unknown>} */ (initial)[name];

/** @param {Storage} storage @returns {Record<string, unknown>} */
function read(storage) {
  try {
    return JSON.parse(storage.getItem(KEY) ?? '{}');
  } catch {
    return {};
  }
}

/** A value of the kind of another, as an address says it. @param {string} text @param {unknown} like */
function parsed(text, like) {
  if (Array.isArray(like)) return text ? text.split(',') : [];
  if (typeof like === 'boolean') return text === 'true';
  if (typeof like === 'number') return Number.isFinite(Number(text)) ? Number(text) : like;
  return text;
}
